"""Every route of the API, one after the other: who may use it, and what it does with what it does not know."""

import re
import uuid

from django.test import Client

from tests.api.base import ApiCase, contract

OPEN = {
    "/api/health",
    "/api/session",
    "/api/session/sign-in",
    "/api/session/sign-up",
    "/api/session/reset",
    "/api/session/mail-code",
    "/api/session/demo",
}


def routes():
    for path, methods in contract()["paths"].items():
        for method, route in methods.items():
            yield method.upper(), path, route


def filled(path):
    """The path with a fresh UUID for each parameter: rows that nobody has."""
    return re.sub(r"\{\w+\}", lambda _: str(uuid.uuid4()), path)


class EveryRoute(ApiCase):
    def test_signed_out_everything_but_the_session_is_shut(self):
        client = Client(enforce_csrf_checks=True)
        client.get("/api/session")
        for method, path, _ in routes():
            if path in OPEN:
                continue
            with self.subTest(f"{method} {path}"):
                told = self.refused(method, filled(path), None if method in ("GET", "DELETE") else {}, 401, client)
                self.assertEqual(told[""]["code"], "signed_out")

    def test_rows_that_nobody_has_answer_404(self):
        for method, path, _ in routes():
            if "{" in path and method in ("GET", "DELETE"):
                with self.subTest(f"{method} {path}"):
                    self.refused(method, filled(path), status=404)

    def test_bodies_refuse_unknown_fields(self):
        for method, path, route in routes():
            content = route.get("requestBody", {}).get("content", {})
            if "application/json" not in content:
                continue
            with self.subTest(f"{method} {path}"):
                told = self.refused(method, filled(path), {"no_such_field": 1})
                self.assertEqual(told["no_such_field"]["code"], "unknown_field")

    def test_bodies_that_are_no_json(self):
        for method, path, route in routes():
            if "application/json" not in route.get("requestBody", {}).get("content", {}):
                continue
            token = self.client.cookies["csrftoken"].value
            answer = self.client.generic(
                method, filled(path), "{not json", content_type="application/json", headers={"X-CSRFToken": token}
            )
            with self.subTest(f"{method} {path}"):
                self.assertIn(answer.status_code, (400, 422))
                self.assertIn("errors", answer.json())

    def test_names_of_models_are_not_used_twice(self):
        # Two models of one name would silently become one in the contract.
        import importlib
        import inspect

        from stillthread.documents.strict import Strict

        seen = {}
        for module in (
            "documents.noted",
            "documents.plan",
            "documents.plan_answer",
            "documents.read",
            "documents.read_answer",
            "documents.fly_contract",
            "documents.thread.simulate_contract",
            "documents.thread.thread_contract",
            "waters.chart_schemas",
            "web.errors",
            "accounts.api",
            "waters.schemas",
            "flybox.api",
            "outings.schemas",
            "plans.schemas",
        ):
            loaded = importlib.import_module(f"stillthread.{module}")
            for name, thing in vars(loaded).items():
                if inspect.isclass(thing) and issubclass(thing, Strict) and thing.__module__ == loaded.__name__:
                    self.assertNotIn(name, seen, f"{name} in {module} and {seen.get(name)}")
                    seen[name] = module


class Kit(ApiCase):
    def line(self, **changes):
        line_id = uuid.uuid4()
        body = {"family": "sinking", "label_ips": 3.0, "weight_class": 7, **changes}
        return line_id, self.call("PUT", f"/api/kit/lines/{line_id}", body)

    def test_a_line_is_titled_in_words(self):
        self.assertEqual(self.line()[1]["title"], "Type 3 sinking line")
        self.assertEqual(self.line(family="floating", label_ips=0)[1]["title"], "Floating line")
        self.assertEqual(self.line(family="intermediate", label_ips=1.5)[1]["title"], "Intermediate, 1.5 in/s")
        self.assertEqual(self.line(name="Old faithful")[1]["title"], "Old faithful")

    def test_taken_out_and_put_back(self):
        line_id, made = self.line()
        self.call("DELETE", f"/api/kit/lines/{line_id}", status=204)
        self.assertEqual(self.call("GET", "/api/kit")["lines"], [])
        body = {k: v for k, v in made.items() if k not in ("id", "revision", "title", "label_doubt")}
        self.call("PUT", f"/api/kit/lines/{line_id}", body)
        self.assertEqual([row["id"] for row in self.call("GET", "/api/kit")["lines"]], [str(line_id)])

    def test_stock_is_counted_and_an_empty_compartment_is_not_planned_with(self):
        self.make_kit()
        water = self.make_water()
        body = {"water_id": water, "when": "2026-05-14T10:00:00Z", "place": "Shelf"}
        plan = self.call("POST", "/api/plans/preview", body)
        used = plan["set_ups"][0]["flies"][-1]
        fly = next(f for f in self.call("GET", "/api/kit")["flies"] if f["id"] == used["key"])
        computed = ("revision", "submerged_g", "sink_m_s", "sink_class", "sink_hook", "own_build")
        sent = {k: v for k, v in fly.items() if k not in computed}
        self.call("PUT", f"/api/kit/flies/{sent.pop('id')}", {**sent, "stock": 0})
        again = self.call("POST", "/api/plans/preview", body)
        self.assertNotIn(used["key"], [f["key"] for s in again["set_ups"] for f in s["flies"]])

    def test_negative_stock_and_no_prey(self):
        fly = {"name": "Odd", "prey": ["scud"], "hooks": [12], "tone": "dark", "weight": "unweighted"}
        for changes, field in (
            ({"stock": -1}, "stock"),
            ({"prey": []}, "prey"),
            ({"tone": "loud"}, "tone"),
            ({"name": ""}, "name"),
        ):
            self.assertIn(field, self.refused("PUT", f"/api/kit/flies/{uuid.uuid4()}", {**fly, **changes}))

    def test_each_anglers_kit_is_their_own(self):
        line_id, _ = self.line()
        self.make_user("stranger")
        stranger = self.sign_in("stranger")
        self.assertEqual(self.call("GET", "/api/kit", client=stranger)["lines"], [])
        self.refused("DELETE", f"/api/kit/lines/{line_id}", status=404, client=stranger)
        self.refused("PUT", f"/api/kit/lines/{line_id}", {"family": "floating"}, 404, stranger)
