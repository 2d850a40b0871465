"""What a hand-made log says, whose answers are known."""

import uuid
from typing import get_args
from urllib.parse import quote, urlencode

from django.utils import timezone

from stillthread.outings.answers import answers
from stillthread.outings.answers_schemas import By, LogFilter
from stillthread.outings.facts import forget_counts
from stillthread.outings.models import Counted, Outing, Spell
from stillthread.waters.models import Reading
from tests.api.base import ApiCase
from tests.checks import some

# Day, surface, wind from; then stretches: hours, method, flies, depth, takes.
DAYS = (
    ("2026-04-10", 8.0, 0, ((2.0, "sinking", ["Black leech"], 4.2, 4), (2.0, "float", ["Olive pupa"], 2.1, 1))),
    ("2026-04-20", 9.0, 45, ((1.0, "sinking", ["Black leech"], 4.6, 3), (3.0, "float", ["Olive pupa"], 2.4, 2))),
    ("2026-10-05", 12.0, 225, ((3.0, "sinking", ["Black leech", "Olive pupa"], 3.5, 0),)),
)
POSITION = {"latitude_deg": 54.0, "longitude_deg": -2.0}


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
            "profile": [{"depth_m": 0, "temperature_c": surface}, {"depth_m": 5, "temperature_c": surface - 2.5}],
            "wind_m_s": 4.0, "wind_from_deg": wind, "cloud_oktas": 1 if wind == 0 else 8,
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
            # Half a degree colder a metre: at 4.2 m of 8 °C it is below 6, the other four stretches between 6.7 and 10.3.
            ("at_fly", {"4": (3, 2.0), "6": (4, 6.0), "10": (0, 3.0)}),
        ):
            with self.subTest(by):
                self.assertEqual(self.by(by), expected)

    def test_above_in_and_below_the_thermocline(self):
        outing = self.day(
            "2026-07-18", 19.0, 0, ((2.0, "sinking", ["Leech"], 2.0, 1), (1.0, "sinking", ["Leech"], 7.0, 2))
        )
        row = Reading.objects.get(taken_at__date="2026-07-18")
        curve = ((0, 19), (2, 18.8), (3, 18.2), (4, 15), (5, 12), (6, 10.5), (8, 9.5))  # steepest between 3 and 5 m
        row.reading["profile"] = [{"depth_m": d, "temperature_c": t} for d, t in curve]
        row.save()
        self.assertEqual(self.by("layer"), {"above": (1, 2.0), "below": (1, 1.0)})
        compared = self.call("GET", "/api/log/compare?by=layer&a=above&b=below")
        self.assertEqual(compared["outings"], 1)
        self.assertEqual(self.call("GET", "/api/log/behind?by=layer&key=below")[0]["id"], outing)

    def test_fish_by_species_and_length_and_what_became_of_them(self):
        self.assertEqual([one["species"] for one in self.call("GET", "/api/log/fish")], [""])
        told = (("rainbow", 0.43, True), ("rainbow", 0.43, False), ("rainbow", None, True), ("brown", 0.381, None))
        spell = str(some(Spell.objects.filter(outing=self.outings[2]))[0].pk)
        for n, (species, length, released) in enumerate(told):
            event = {"spell_id": spell, "kind": "landed", "occurred_at": self.at(DAYS[2][0], 8.2 + 0.5 * n)}
            event |= {"species": species, "length_m": length, "released": released}
            self.call("PUT", f"/api/outings/{self.outings[2]}/events/{uuid.uuid4()}", event)
        found = {one["species"]: one for one in self.call("GET", "/api/log/fish?month=10")}
        self.assertEqual(set(found), {"rainbow", "brown"})
        self.assertEqual([found["rainbow"][k] for k in ("count", "returned", "kept")], [3, 2, 1])
        sizes = [(s["length_cm"], s["count"], s["returned"], s["kept"]) for s in found["rainbow"]["sizes"]]
        self.assertEqual(sizes, [(43, 2, 1, 1), (None, 1, 1, 0)])
        self.assertEqual(found["brown"]["sizes"], [{"length_cm": 38, "count": 1, "returned": 0, "kept": 0}])

    def test_blank_hours_stand_with_their_rate_of_none(self):
        groups = self.call("GET", "/api/log/answers?by=month")["groups"]
        october = next(g for g in groups if g["key"] == "10")
        self.assertEqual((october["takes"]["per_hour"], october["takes"]["low"]), (0, 0))
        self.assertGreater(october["takes"]["high"], 1.0)  # three blank hours: less than 1.23 an hour (Garwood 1936)
        behind = self.call("GET", "/api/log/behind?by=month&key=10")
        self.assertEqual([one["id"] for one in behind], [self.outings[2]])

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

    def test_the_sun_and_the_light(self):
        self.call("PUT", f"/api/waters/{self.water}", {**self.water_body(), **POSITION})
        # At 54 north the April sun is up by six and high by ten; October's at nine is not 20 degrees high (NOAA tables).
        sun = self.by("sun")
        self.assertEqual(sum(takes for takes, _ in sun.values()), 7)
        self.assertEqual(set(sun), {"early", "day"})
        self.assertEqual(sun["early"][1], 3.0)
        light = self.by("light")
        self.assertEqual(set(light), {"bright", "dull", "low"})
        self.assertEqual(light["bright"], (4, 4.0))

    def test_phases_of_takes_have_the_effort_of_their_stretches(self):
        spell = Spell.objects.filter(outing_id=self.outings[0], method="float").get()
        event = spell.events.get()
        body = {
            "spell_id": str(spell.pk),
            "kind": "take",
            "phase": "hang",
            "occurred_at": event.occurred_at.isoformat(),
        }
        self.call("PUT", f"/api/outings/{self.outings[0]}/events/{event.pk}", body)
        self.assertEqual(self.by("phase"), {"hang": (1, 2.0)})

    def test_counts_keep_up_with_every_change(self):
        fly = str(uuid.uuid4())
        box = {"name": "Black leech", "prey": ["leech"], "hooks": [10], "tone": "dark", "weight": "weighted"}
        outing = self.outings[0]
        spell = Spell.objects.filter(outing_id=outing, method="float").get()
        event = spell.events.get()
        told = {"method": "float", "title": "float", "flies": ["Olive pupa"], "depth_m": 2.1, "place": "Shelf"}
        span = {"started_at": "2026-04-10T10:00:00Z", "ended_at": "2026-04-10T11:00:00Z"}
        reading = Reading.objects.get(taken_at__month=10)
        read = {"place": "Shelf", "reading": {"wind_m_s": 2.0, "wind_from_deg": 90}, "taken_at": "2026-10-05T07:00:00Z"}
        water = self.water_body()
        changes = (
            ("PUT", f"/api/kit/flies/{fly}", box),
            ("PUT", f"/api/kit/flies/{fly}", {**box, "tone": "pale"}),
            ("PUT", f"/api/outings/{outing}/spells/{spell.pk}", {**told, **span}),
            ("DELETE", f"/api/outings/{outing}/events/{event.pk}", None),
            ("PUT", f"/api/waters/{self.water}/readings/{reading.pk}", read),
            ("PUT", f"/api/waters/{self.water}", {**water, "time_zone": "Pacific/Auckland"}),
            ("PUT", f"/api/outings/{self.outings[2]}", {"water_id": self.water, "note": "new words", **span}),
            ("DELETE", f"/api/outings/{self.outings[1]}", None),
            ("PUT", f"/api/outings/{self.outings[1]}", {"water_id": self.water, **span}),
        )
        before = self.all_said()
        for method, path, body in changes:
            with self.subTest(f"{method} {path}"):
                self.call(method, path, body, status=204 if method == "DELETE" else 200)
                now = self.all_said()
                self.assertNotEqual(now, before)
                forget_counts(self.user)
                self.assertEqual(now, self.all_said())
                before = now

    def water_body(self):
        return {name: v for name, v in self.call("GET", "/api/waters")[0].items() if name not in ("id", "revision")}

    def all_said(self):
        """Everything the log says, asked again the next hour: what was counted long ago has to notice by itself."""
        Counted.objects.update(at=timezone.now())
        told = [answers(self.user, LogFilter(), by).model_dump() for by in get_args(By)]
        return told, self.call("GET", "/api/log"), self.call("GET", "/api/log?q=new")["count"]

    def test_more_blank_hours_never_raise_a_rate(self):
        rates = [self.rate_of_float()]
        for n in range(4):
            self.day(f"2026-0{n + 5}-15", 10.0, 90, ((2.5, "float", ["Olive pupa"], 2.2, 0),))
            rates.append(self.rate_of_float())
        self.assertEqual(rates, sorted(rates, reverse=True))
        self.assertGreater(rates[0], rates[-1])

    def rate_of_float(self):
        groups = self.call("GET", "/api/log/answers?by=method")["groups"]
        return next(g["takes"]["per_hour"] for g in groups if g["key"] == "float")

    def test_the_season_by_depth_and_day(self):
        told = self.call("GET", f"/api/log/season?water_id={self.water}&year=2026")
        self.assertEqual((told["years"], told["max_depth_m"]), ([2026], 8.0))
        self.assertEqual(sum(one["hours"] for one in told["stretches"]), 11.0)
        self.assertEqual(sum(one["takes"] for one in told["stretches"]), 7)
        self.assertEqual({one["day"] for one in told["stretches"]}, {100.0, 110.0, 278.0})
        eight = next(one for one in told["isotherms"] if one["temperature_c"] == 8)
        # 8 °C lies at the surface on the tenth of April, and where nine at the surface loses half a degree a metre.
        self.assertEqual([depth for run in eight["runs"] for _, depth in run], [0.0, 2.0])
        empty = self.call("GET", f"/api/log/season?water_id={self.water}&year=2020")
        self.assertEqual((empty["stretches"], empty["isotherms"]), ([], []))
        self.refused("GET", f"/api/log/season?water_id={uuid.uuid4()}&year=2026", status=404)

    def test_an_outing_without_a_stretch(self):
        outing = str(uuid.uuid4())
        self.call("PUT", f"/api/outings/{outing}", {"water_id": self.water, "started_at": "2026-11-01T09:00:00Z"})
        log = self.call("GET", "/api/log")
        self.assertEqual((log["count"], log["outings"][0]["id"], log["outings"][0]["hours"]), (4, outing, 0))

    def test_bad_questions_and_others_logs(self):
        self.refused("GET", "/api/log/answers?by=colour")
        for key in ("²", "9" * 30, "-1", "x", "%00"):
            self.assertEqual(self.call("GET", f"/api/log/behind?by=depth&key={quote(key, safe='%')}"), [])
            self.call("GET", f"/api/log/compare?by=depth&a=1&b={quote(key, safe='%')}")
        self.refused("GET", "/api/log?month=13")
        self.refused("GET", "/api/log/compare?by=fly&a=x")
        self.make_user("other")
        other = self.sign_in("other")
        self.assertEqual(self.call("GET", "/api/log/answers?by=fly", client=other)["groups"], [])
        self.refused("GET", f"/api/log?water_id={self.water}", status=404, client=other)


class AgainstPlans(AnswersCase):
    """Plans whose belief lies at 2 m, on days fished as long at 2 m as at 4 m."""

    def planned(self, on, shallow, deep):
        pair = ((2.0, "float", ["Olive pupa"], 2.0, shallow), (2.0, "sinking", ["Black leech"], 4.0, deep))
        outing = self.day(on, 10.0, 0, pair)
        depths = [0.5 + n for n in range(6)]
        weight = [-abs(d - 2.0) for d in depths]
        place = {"place": "Shelf", "depths_m": depths, "mass": [2.0 ** (10 * w) for w in weight], "factors": [
            {"name": "temperature", "known": True, "log_weight": weight},
            {"name": "light", "known": True, "log_weight": [-w for w in weight]},
            {"name": "oxygen", "known": False, "log_weight": weight},
        ]}  # fmt: skip
        Outing.objects.filter(pk=outing).update(plan_snapshot={"belief": {"chosen": "Shelf", "places": [place]}})
        return outing

    def test_takes_where_the_plan_said(self):
        for n in range(6):
            self.planned(f"2026-05-{n + 10}", 5, 1)
        told = self.call("GET", "/api/log/plans")
        self.assertEqual((told["outings"], told["takes"]), (6, 6 * 5))  # of five taps four fish, and one
        half = next(p for p in told["points"] if p["share"] == 0.5)
        self.assertEqual((half["seen"], half["fished"]), (0.8, 0.5))
        self.assertEqual([f["name"] for f in told["factors"]], ["temperature", "light"])
        self.assertTrue(told["factors"][0]["low"] > 0 > told["factors"][1]["high"])
        self.assertIn("80 % came in the half", told["sentence"])

    def test_takes_expected_against_those_that_came(self):
        for n in range(6):
            outing = self.planned(f"2026-05-{n + 10}", 5, 1)
            row = Outing.objects.get(pk=outing)
            row.plan_snapshot["set_ups"] = [{"expected": {"takes_per_h": 1.0}}, {"expected": None}]
            row.save()
            for spell, index in zip(Spell.objects.filter(outing=outing).order_by("started_at"), (0, 1), strict=True):
                spell.set_up_index = index
                spell.save()
        told = self.call("GET", "/api/log/plans")
        # Two hours at one an hour each day; of five taps four are fish. The other two hours expected nothing and count for none.
        self.assertEqual({(one["expected"], one["seen"]) for one in told["expected"]}, {(2.0, 4)})
        self.assertIn("Over 6 outings the plans expected 12 takes; 24 came.", told["expected_sentence"])
        self.assertIn("better than your log had led them to expect (1.2 to 2.8 times", told["expected_sentence"])

    def test_what_the_takes_teach_is_offered_and_only_taken_over_by_hand(self):
        for n in range(8):
            self.planned(f"2026-05-{n + 10}", 2, 8)
        told = {one["key"]: one for one in self.call("GET", "/api/log/plans")["learnt"]}
        self.assertEqual(set(told), {"warmer_c"})  # how clear it was stands in no reading
        warmer = told["warmer_c"]
        self.assertTrue(warmer["clear"])
        self.assertLess(warmer["value"], -0.5)  # it was colder where they took
        self.assertIn("cooler water than the plan reckons", warmer["sentence"])
        settings = self.call("GET", "/api/session")["settings"]
        self.assertEqual(settings["learnt"], {"notice": 1.0, "warmer_c": 0.0})
        for learnt in ({"notice": 1.0, "warmer_c": warmer["value"]}, {"notice": 1.0, "warmer_c": 0.0}):
            now = self.call("PUT", "/api/settings", {**settings, "learnt": learnt})
            self.assertEqual(now["learnt"], learnt)
        refused = self.refused("PUT", "/api/settings", {**settings, "learnt": {"notice": 5}})
        self.assertIn("learnt.notice", refused)

    def test_how_far_a_fly_is_noticed_needs_how_clear_the_water_was(self):
        for n in range(8):
            self.planned(f"2026-05-{n + 10}", 9, 1)
            row = Reading.objects.get(taken_at__date=f"2026-05-{n + 10}")
            row.reading["clarity"] = "clear"
            row.save()
        told = {one["key"]: one for one in self.call("GET", "/api/log/plans")["learnt"]}
        self.assertIn("notice", told)
        self.assertIn("takes on 8 outings", told["notice"]["sentence"])

    def test_without_plans_or_with_what_is_none(self):
        Outing.objects.filter(pk=self.outings[0]).update(plan_snapshot={"belief": {"places": [{"mass": [1]}, 3]}})
        Outing.objects.filter(pk=self.outings[1]).update(plan_snapshot=[1])
        told = self.call("GET", "/api/log/plans")
        self.assertEqual((told["outings"], told["points"], told["factors"]), (0, [], []))
        self.assertIn("Too few takes", told["sentence"])
