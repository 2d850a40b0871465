"""What a hand-made log says, whose answers are known."""

import uuid
from urllib.parse import urlencode

from tests.api.base import ApiCase
from tests.checks import some

# Day, surface, wind from; then stretches: hours, method, flies, depth, takes.
DAYS = (
    ("2026-04-10", 8.0, 0, ((2.0, "sinking", ["Black leech"], 4.2, 4), (2.0, "float", ["Olive pupa"], 2.1, 1))),
    ("2026-04-20", 9.0, 45, ((1.0, "sinking", ["Black leech"], 4.6, 3), (3.0, "float", ["Olive pupa"], 2.4, 2))),
    ("2026-10-05", 12.0, 225, ((3.0, "sinking", ["Black leech", "Olive pupa"], 3.5, 0),)),
)


class AnswersCase(ApiCase):
    def setUp(self):
        super().setUp()
        self.water = self.make_water()
        self.outings = [self.day(*one) for one in DAYS]

    def day(self, on, surface, wind, stretches):
        outing = str(uuid.uuid4())
        hours = sum(s[0] for s in stretches)
        ends = {"started_at": f"{on}T08:00:00Z", "ended_at": self.at(on, 8 + hours), "note": f"Day of {on}, cold hands"}
        self.call("PUT", f"/api/outings/{outing}", {"water_id": self.water, **ends})
        reading = {
            "profile": [{"depth_m": 0, "temperature_c": surface}], "wind_m_s": 4.0, "wind_from_deg": wind,
        }  # fmt: skip
        body = {"place": "Shelf", "reading": reading, "taken_at": f"{on}T07:30:00Z"}
        self.call("PUT", f"/api/waters/{self.water}/readings/{uuid.uuid4()}", body)
        begins = 8.0
        for length, method, flies, depth, takes in stretches:
            spell = str(uuid.uuid4())
            told = {"method": method, "title": method, "flies": flies, "depth_m": depth, "place": "Shelf"}
            span = {"started_at": self.at(on, begins), "ended_at": self.at(on, begins + length)}
            self.call("PUT", f"/api/outings/{outing}/spells/{spell}", {**told, **span})
            for n in range(takes):
                at = self.at(on, begins + 0.2 * (n + 1))
                event = {"spell_id": spell, "kind": "landed" if n else "take", "occurred_at": at}
                self.call("PUT", f"/api/outings/{outing}/events/{uuid.uuid4()}", event)
            begins += length
        return outing

    def at(self, on, hour):
        return f"{on}T{int(hour):02d}:{round(hour % 1 * 60):02d}:00Z"

    def by(self, by, **asked):
        told = self.call("GET", f"/api/log/answers?{urlencode({'by': by, **asked})}")
        return {g["key"]: (g["takes"]["count"], g["takes"]["hours"]) for g in told["groups"]}


class Answers(AnswersCase):
    def test_effort_and_takes_by_anything(self):
        # A take and its landing are one fish: of four taps the first two are one.
        for by, expected in (
            ("method", {"sinking": (5, 6.0), "float": (2, 5.0)}),
            ("fly", {"Black leech": (5, 6.0), "Olive pupa": (2, 8.0)}),
            ("month", {"04": (7, 8.0), "10": (0, 3.0)}),
            ("surface", {"8": (7, 8.0), "12": (0, 3.0)}),
            ("wind", {"N": (4, 4.0), "NE": (3, 4.0), "SW": (0, 3.0)}),
            ("depth", {"2": (2, 5.0), "3": (0, 3.0), "4": (5, 3.0)}),
            ("place", {"Shelf": (7, 11.0)}),
        ):
            with self.subTest(by):
                self.assertEqual(self.by(by), expected)

    def test_blank_hours_stand_with_their_rate_of_none(self):
        groups = self.call("GET", "/api/log/answers?by=month")["groups"]
        october = next(g for g in groups if g["key"] == "10")
        self.assertEqual((october["takes"]["per_hour"], october["takes"]["low"]), (0, 0))
        self.assertGreater(october["takes"]["high"], 1.0)  # three blank hours: less than 1.23 an hour (Garwood 1936)
        self.assertEqual(october["outings"], [self.outings[2]])

    def test_filters_find_their_outings(self):
        for asked, expected in (
            ({"month": 10}, [2]),
            ({"surface_c": 8}, [1, 0]),
            ({"wind": "N"}, [0]),
            ({"q": "olive 10-05"}, [2]),
            ({"q": "no such word"}, []),
            ({"water_id": self.water}, [2, 1, 0]),
        ):
            with self.subTest(asked=asked):
                found = self.call("GET", f"/api/log?{urlencode(asked)}")["outings"]
                self.assertEqual([one["id"] for one in found], [self.outings[n] for n in expected])
        first = some(self.call("GET", "/api/log?wind=SW")["outings"])[0]
        self.assertEqual((first["surface_c"], first["wind"], first["wind_m_s"]), (12.0, "SW", 4.0))
        self.assertEqual(self.by("method", month=10), {"sinking": (0, 3.0)})

    def test_two_against_each_other_within_days(self):
        told = self.call("GET", "/api/log/compare?by=method&a=sinking&b=float&a_name=Sinking&b_name=Float")
        # Top 3·2/4 + 2·3/4, bottom 1·2/4 + 1·1/4; the blank day had one of them alone.
        self.assertAlmostEqual(told["ratio"], (1.5 + 1.5) / (0.5 + 0.25), places=2)
        self.assertEqual((told["outings"], told["sure"]), (2, False))
        self.assertIn("Cannot tell yet between Sinking and Float", told["sentence"])

    def test_bad_questions_and_others_logs(self):
        self.refused("GET", "/api/log/answers?by=colour")
        self.refused("GET", "/api/log?month=13")
        self.refused("GET", "/api/log/compare?by=fly&a=x")
        self.make_user("other")
        other = self.sign_in("other")
        self.assertEqual(self.call("GET", "/api/log/answers?by=fly", client=other)["groups"], [])
        self.refused("GET", f"/api/log?water_id={self.water}", status=404, client=other)
