"""Work nobody waits for is dropped: of two plans one page asks for, the later one."""

import unittest
from unittest import mock

from django.contrib.auth.models import AnonymousUser
from django.test import RequestFactory

from stillthread.core.casts.band import simulate
from stillthread.core.day.paths import Paths
from stillthread.core.errors import NobodyWaitsError
from stillthread.core.plan.make import make_plan
from stillthread.web.asked import newest
from tests.api.base import ApiCase
from tests.days import day


def asked(header, path="/api/plans/preview"):
    request = RequestFactory().post(path, headers={"X-Page": header} if header else {})
    request.user = AnonymousUser()
    return newest(request)


class Newest(unittest.TestCase):
    def test_a_later_question_of_the_same_page_and_kind_ends_the_earlier(self):
        first, elsewhere, other_kind = asked("p.1"), asked("q.1"), asked("p.2", "/api/read")
        self.assertTrue(first())
        second = asked("p.3")
        self.assertEqual((first(), second(), elsewhere(), other_kind()), (False, True, True, True))

    def test_one_that_was_overtaken_on_the_way_is_the_older_all_the_same(self):
        later, overtaken = asked("r.8"), asked("r.7")
        self.assertEqual((later(), overtaken()), (True, False))

    def test_without_a_page_everything_is_waited_for(self):
        self.assertEqual((asked("")(), asked("nonsense")(), asked("s.x")()), (True, True, True))


class Dropped(ApiCase):
    def test_a_plan_stops_before_its_next_path(self):
        answers = iter([True, True])
        paths = Paths().while_(lambda: next(answers, False))
        patched = mock.patch("stillthread.core.day.paths.simulate", side_effect=simulate)
        with patched as run, self.assertRaises(NobodyWaitsError):
            make_plan(day(), paths)
        self.assertEqual(run.call_count, 2)

    def test_the_answer_says_so(self):
        self.make_kit()
        body = {"water_id": self.make_water(), "when": "2026-05-14T10:00:00Z"}
        with mock.patch("stillthread.plans.services.compute", side_effect=NobodyWaitsError):
            self.assertEqual(self.refused("POST", "/api/plans/preview", body, 409)[""]["code"], "superseded")
