"""Rows that belong to somebody: made by the client, deleted with a tombstone."""

import uuid

from django.contrib.auth.models import User
from django.http import Http404
from django.test import TestCase

from stillthread.flybox.models import Line
from stillthread.web.owned import delete_owned, get_owned, live, put_owned


class Owned(TestCase):
    def setUp(self):
        self.mine, self.other = User.objects.create_user("mine"), User.objects.create_user("other")
        self.id = uuid.uuid4()
        self.row = put_owned(Line, self.mine, self.id, family="floating")

    def test_the_clients_id_is_kept_and_the_row_changed_in_place(self):
        put_owned(Line, self.mine, self.id, name="Green")
        self.assertEqual([(r.pk, r.name, r.family) for r in live(Line, self.mine)], [(self.id, "Green", "floating")])

    def test_nobody_elses(self):
        for act in (
            lambda: get_owned(Line, self.other, self.id),
            lambda: put_owned(Line, self.other, self.id, name="Mine now"),
            lambda: delete_owned(Line, self.other, self.id),
        ):
            with self.assertRaises(Http404):
                act()
        self.assertEqual(Line.objects.get().owner, self.mine)
        self.assertFalse(live(Line, self.other).exists())

    def test_a_tombstone_can_be_lifted(self):
        delete_owned(Line, self.mine, self.id)
        first = Line.objects.get().deleted_at
        delete_owned(Line, self.mine, self.id)
        self.assertEqual(Line.objects.get().deleted_at, first)
        with self.assertRaises(Http404):
            get_owned(Line, self.mine, self.id)
        put_owned(Line, self.mine, self.id)
        self.assertIsNone(get_owned(Line, self.mine, self.id).deleted_at)

    def test_an_account_takes_its_rows_with_it(self):
        self.mine.delete()
        self.assertEqual(Line.objects.count(), 0)
