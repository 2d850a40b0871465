"""Names of questions: by route in the cache and on the device, found again under what they were called before."""

import json

from tests.frontend.base import ModuleCase


def name(*parts):
    return json.dumps(parts, separators=(",", ":"))


class Kept(ModuleCase):
    module = "offline/named.ts"

    def test_of_one_water_or_outing_the_newest_alone_is_kept(self):
        lake, pond = ({"body": {"water_id": one, "when": "now"}} for one in ("lake", "pond"))
        later = {"body": {"water_id": "lake", "when": "later"}}
        of = [self.call("groupOf", name("post", "/api/plans/preview", init)) for init in (lake, later, pond)]
        self.assertEqual(of[0], of[1])
        self.assertNotEqual(of[0], of[2])
        # The box of the day is another question of the same water.
        self.assertNotEqual(of[0], self.call("groupOf", name("post", "/api/box/today", lake)))
        taps = [
            name("get", "/api/outings/{outing_id}/next", {"params": {"path": {"outing_id": "o"}}}, n) for n in (1, 2)
        ]
        self.assertEqual(self.call("groupOf", taps[0]), self.call("groupOf", taps[1]))
        for kept in (name("get", "/api/waters"), name("best-now", "lake"), "no name at all"):
            self.assertIsNone(self.call("groupOf", kept))

    def test_what_an_earlier_version_kept_is_found(self):
        outing = {"params": {"path": {"outing_id": "o"}}}
        water = {"params": {"path": {"water_id": "w"}, "query": {"count": 1}}}
        log = {"params": {"query": {"from": "2026-01-01", "most": 100, "water_id": "w"}}}
        self.table(
            "namedBefore",
            (name("get", "/api/waters"), name("waters")),
            (name("get", "/api/outings/{outing_id}", outing), name("outing", "o")),
            (name("get", "/api/waters/{water_id}/readings", water), name("readings", "w")),
            (name("get", "/api/log", log), name("log", {"from": "2026-01-01", "water_id": "w"}, 100)),
            (name("get", "/api/feed"), None),
            ("no name at all", None),
        )


class Again(ModuleCase):
    module = "lib/again.ts"

    def asked(self, query_key, *asked):
        return self.calls("isOf", *((one, {"queryKey": query_key}) for one in asked))

    def test_a_write_says_by_route_what_is_asked_again(self):
        one = ["get", "/api/outings/{outing_id}/next", {"params": {"path": {"outing_id": "a"}}}, 3]
        route = "/api/outings/{outing_id}/next"
        self.assertEqual(
            self.asked(
                one,
                route,
                [route, {"outing_id": "a"}],
                [route, {"outing_id": "b"}],
                "/api/outings/{outing_id}",
                "/api/outings/{outing_id}/*",
                "/api/out/*",
            ),
            [True, True, False, False, True, False],
        )

    def test_a_family_is_its_head_and_all_below(self):
        for route in ("/api/log", "/api/log/answers"):
            self.assertEqual(self.asked(["get", route, {}], "/api/log/*", "/api/lo/*"), [True, False])

    def test_who_is_here_is_no_route(self):
        self.assertEqual(self.asked(["session"], "session", "/api/session"), [True, False])
        self.assertEqual(self.asked(["if-blank", "o"], "session", "/api/log/*"), [False, False])


class Boxes(ModuleCase):
    """A box turns what is typed into SI and back; factors by definition (1 ft = 0.3048 m, 0 °C = 32 °F, 1 inHg = 33.86389 hPa)."""

    module = "lib/fields.ts"
    METRIC = {"depth": "m", "temperature": "c", "wind": "m_s"}
    FEET = {"depth": "ft", "temperature": "f", "wind": "mph"}

    def test_a_value_as_it_is_typed(self):
        self.table(
            "amountText",
            ("depth", self.METRIC, 4.125, "4.13"),
            ("depth", self.FEET, 3.048, "10"),
            ("distance", self.METRIC, 812.6, "813"),
            ("temperature", self.FEET, 10, "50"),
            ("pressure", self.METRIC, 1013.25, "1013"),
            ("pressure", self.FEET, 1013.25, "29.92"),
            ("area", self.METRIC, 25000, "2.5"),
            ("plain", self.METRIC, -2.391234, "-2.391234"),
            ("depth", self.METRIC, None, ""),
        )
