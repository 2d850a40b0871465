import stat
from io import StringIO

from django.conf import settings
from django.contrib.auth.models import User
from django.core.management import CommandError, call_command
from django.db import connection
from django.test import Client, override_settings
from django.utils import timezone

from stillthread.accounts.models import Angler, DemoMark
from tests.api.base import PASSWORD, ApiCase


class Session(ApiCase):
    now = None  # the library that counts wrong passwords reads the time itself

    def test_sign_up_sign_out_sign_in(self):
        client = Client(enforce_csrf_checks=True)
        self.assertIsNone(self.call("GET", "/api/session", client=client)["name"])
        made = self.call("POST", "/api/session/sign-up", {"name": "rosalind", "password": PASSWORD}, client=client)
        self.assertEqual((made["name"], made["demo"]), ("rosalind", False))
        self.assertIsNone(self.call("POST", "/api/session/sign-out", client=client)["name"])
        self.refused("GET", "/api/waters", status=401, client=client)

    def test_bad_names_and_passwords_are_told_at_their_field(self):
        client = Client(enforce_csrf_checks=True)
        client.get("/api/session")
        for name, password, field in (
            ("a b", PASSWORD, "name"),
            ("angler", PASSWORD, "name"),
            ("fresh", "short", "password"),
            ("fresh", "12345678901", "password"),
            ("", PASSWORD, "name"),
        ):
            told = self.refused("POST", "/api/session/sign-up", {"name": name, "password": password}, client=client)
            self.assertEqual(set(told), {field})

    def test_wrong_password_then_locked_out(self):
        client = Client(enforce_csrf_checks=True)
        client.get("/api/session")
        body = {"name": "angler", "password": "wrong"}
        for _ in range(settings.AXES_FAILURE_LIMIT - 1):
            self.assertEqual(
                self.refused("POST", "/api/session/sign-in", body, client=client)["password"]["code"], "wrong_password"
            )
        self.assertEqual(self.refused("POST", "/api/session/sign-in", body, 429, client)[""]["code"], "locked_out")
        right = {"name": "angler", "password": PASSWORD}
        self.refused("POST", "/api/session/sign-in", right, 429, client)

    def test_writes_need_the_csrf_token(self):
        client = Client(enforce_csrf_checks=True)
        client.force_login(self.user)
        self.assertEqual(self.refused("PUT", "/api/settings", {}, 403, client)[""]["code"], "csrf")
        body = {"name": "angler", "password": PASSWORD}
        self.assertEqual(
            self.refused("POST", "/api/session/sign-in", body, 403, Client(enforce_csrf_checks=True))[""]["code"],
            "csrf",
        )

    def test_settings(self):
        now = self.call("GET", "/api/session")["settings"]
        changed = self.call("PUT", "/api/settings", {**now, "depth_unit": "ft", "rod_m": 2.74})
        self.assertEqual((changed["depth_unit"], changed["rod_m"]), ("ft", 2.74))
        costs = self.call("PUT", "/api/settings", {**now, "costs": {**now["costs"], "place": 25}})["costs"]
        self.assertEqual((costs["place"], costs["rig"]), (25, 6))
        told = self.refused("PUT", "/api/settings", {**now, "costs": {"fly": -1}})
        self.assertEqual(set(told), {"costs.fly"})
        told = self.refused("PUT", "/api/settings", {**now, "rod_m": 12, "depth_unit": "fathom"})
        self.assertEqual(set(told), {"rod_m", "depth_unit"})
        self.assertIn("at most 5", told["rod_m"]["accepted"])


class Demo(ApiCase):
    def setUp(self):
        super().setUp()
        demo = self.make_user("demo")
        Angler.objects.filter(user=demo).update(is_demo=True)
        DemoMark.objects.create(made_at=timezone.now())

    def test_one_click_only_where_the_demo_runs(self):
        client = Client(enforce_csrf_checks=True)
        client.get("/api/session")
        self.refused("POST", "/api/session/demo", {}, 403, client)
        with override_settings(DEMO=True):
            self.assertTrue(self.call("POST", "/api/session/demo", {}, client=client)["demo"])

    def test_the_demo_password_is_shut_elsewhere(self):
        client = Client(enforce_csrf_checks=True)
        client.get("/api/session")
        self.refused("POST", "/api/session/sign-in", {"name": "demo", "password": PASSWORD}, client=client)

    @override_settings(DEMO=True)
    def test_not_through_a_proxy_on_this_machine(self):
        client = Client(enforce_csrf_checks=True, HTTP_X_FORWARDED_FOR="203.0.113.9")
        client.get("/api/session")
        self.refused("POST", "/api/session/demo", {}, 403, client)

    @override_settings(DEMO=True)
    def test_not_in_a_database_of_real_accounts(self):
        DemoMark.objects.all().delete()
        client = Client(enforce_csrf_checks=True)
        client.get("/api/session")
        self.refused("POST", "/api/session/demo", {}, 403, client)

    @override_settings(DEMO=True)
    def test_only_from_this_machine(self):
        client = Client(enforce_csrf_checks=True, REMOTE_ADDR="10.1.2.3")
        client.get("/api/session")
        self.refused("POST", "/api/session/demo", {}, 403, client)


class House(ApiCase):
    def test_content_security_policy_on_the_page(self):
        for path in ("/", "/plan"):
            policy = self.client.get(path)["Content-Security-Policy"]
            self.assertIn("default-src 'none'", policy)
            self.assertIn("script-src 'self'", policy)
            self.assertNotIn("script-src 'self' 'unsafe", policy)

    def test_unknown_addresses_in_the_one_shape(self):
        self.refused("GET", "/api/nothing-here", status=404)

    def test_sqlite_is_set_up_to_survive(self):
        with connection.cursor() as cursor:
            read = {
                name: cursor.execute(f"PRAGMA {name}").fetchone()[0]
                for name in ("journal_mode", "synchronous", "foreign_keys")
            }
        self.assertEqual(read, {"journal_mode": "wal", "synchronous": 2, "foreign_keys": 1})

    def test_the_secret_key_is_readable_by_the_owner_only(self):
        mode = stat.S_IMODE((settings.VAR / "secret_key").stat().st_mode)
        self.assertEqual(mode & 0o077, 0)

    def test_user_command_makes_and_resets(self):
        out = StringIO()
        call_command("make_user", "warden", stdout=out)
        password = out.getvalue().split("Password: ")[1].strip()
        self.assertTrue(User.objects.get(username="warden").check_password(password))
        call_command("make_user", "warden", stdout=StringIO())
        self.assertFalse(User.objects.get(username="warden").check_password(password))
        with self.assertRaises(CommandError):
            call_command("make_user", "no good", stdout=StringIO())
