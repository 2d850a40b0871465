"""A backup made while people write is whole, the way back from one is drilled, and what is over is cleared out."""

import pathlib
import sqlite3
import uuid
from datetime import timedelta
from importlib import import_module

from django.conf import settings
from django.contrib.sessions.models import Session
from django.utils import timezone

from stillthread.flybox.models import Line
from stillthread.outings.models import Outing
from stillthread.site.keeping import tidy
from stillthread.waters.models import Water
from stillthread.web.owned import delete_owned, put_owned
from tests.api.base import ApiCase
from tests.serving.phone import Phone
from tests.serving.process import Served
from tests.serving.writing import WritingCase


class Drill(WritingCase):
    def notes(self):
        return sorted(one["note"] for one in self.phone.call("GET", "/api/log")[1]["outings"])

    def test_backed_up_while_served_and_restored(self):
        self.outing(self.phone, uuid.uuid4(), "before")
        told = self.served.manage("keep", "backup").stdout
        copy = pathlib.Path(told.split(": ", 1)[1].strip())
        self.assertEqual(copy.stat().st_mode & 0o077, 0)
        self.outing(self.phone, uuid.uuid4(), "after")
        self.assertEqual(self.notes(), ["after", "before"])
        told = self.served.manage("keep", "restore", str(copy)).stdout
        self.assertEqual(self.notes(), ["before"])  # the server goes on with what was restored
        old = pathlib.Path(told.split("before: ", 1)[1].strip())
        self.served.manage("keep", "restore", str(old))
        self.assertEqual(self.notes(), ["after", "before"])

    def test_restored_on_a_new_machine(self):
        self.outing(self.phone, uuid.uuid4(), "before")
        copy = self.served.var / "copy"
        self.served.manage("keep", "backup", str(copy))
        new = Served()
        self.addCleanup(new.close)
        new.migrate()  # as ./still restore does first
        new.manage("keep", "restore", str(copy))
        new.start()
        phone = Phone(new.port)
        phone.sign("sign-in")
        self.assertEqual([one["note"] for one in phone.call("GET", "/api/log")[1]["outings"]], ["before"])

    def test_what_is_no_backup_changes_nothing(self):
        self.outing(self.phone, uuid.uuid4(), "kept")
        text, other, newer = (self.served.var / name for name in ("text", "other", "newer"))
        text.write_text("not a database" * 100, "utf-8")
        with sqlite3.connect(other) as made:
            made.execute("CREATE TABLE catches (fly TEXT)")
        self.served.manage("keep", "backup", str(newer))
        with sqlite3.connect(newer) as made:
            made.execute("INSERT INTO django_migrations (app, name, applied) VALUES ('outings', '9999_later', 0)")
        broken = self.served.var / "broken"
        broken.write_bytes(newer.read_bytes()[:40_000])
        for path, words in ((text, "no database"), (other, "no database of"), (newer, "newer version"), (broken, "")):
            done = self.served.manage("keep", "restore", str(path), check=False)
            self.assertNotEqual(done.returncode, 0)
            self.assertIn(words, done.stderr)
        self.assertEqual(self.notes(), ["kept"])

    def test_only_the_newest_backups_stay(self):
        made = "from stillthread.site.keeping import back_up; [back_up() for _ in range(17)]"
        self.served.manage("shell", "--verbosity", "0", "--command", made)
        self.assertEqual(len(list((self.served.var / "backups").iterdir())), 14)


class Tidy(ApiCase):
    def test_what_is_over_goes_and_the_rest_stays(self):
        now = timezone.now()
        store = import_module(settings.SESSION_ENGINE).SessionStore()
        store.create()
        Session.objects.filter(session_key=store.session_key).update(expire_date=now - timedelta(days=1))
        old, young = (put_owned(Line, self.user, uuid.uuid4(), family="floating").pk for _ in range(2))
        water = self.make_water()
        Outing.objects.create(owner=self.user, water_id=water, started_at=now)
        for model, row in ((Line, old), (Line, young), (Water, water)):
            delete_owned(model, self.user, row)
        Line.objects.filter(pk=old).update(deleted_at=now - timedelta(days=91))
        Water.objects.filter(pk=water).update(deleted_at=now - timedelta(days=91))
        gone = tidy(now)
        self.assertEqual((gone["sessions"], gone["tombstones"]), (1, 1))
        self.assertEqual([line.pk for line in Line.objects.all()], [young])
        self.assertTrue(Water.objects.filter(pk=water).exists())
        self.call("GET", "/api/waters")  # still signed in
