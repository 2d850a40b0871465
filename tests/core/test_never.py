"""What no plan may ever do, over days drawn at random: water, weather, angler, rules, kit and what was found."""

import random
import re
import unittest
from datetime import UTC, datetime, timedelta

from stillthread.core.day.given import Angler, PlanInput, Rules
from stillthread.core.food.seen import Sighting
from stillthread.core.noted.reading import Reading
from stillthread.core.noted.water import Place, Water
from stillthread.core.plan.make import cool_depths, day_context, make_plan
from stillthread.core.tackle.flies import STARTER_FLIES
from stillthread.core.tackle.lines import Line
from stillthread.core.trout.temperature import welfare
from stillthread.core.water.profile import Point
from tests.checks import some
from tests.days import LINES

DAYS = 18
KINDS = ("margin", "shoal", "weed-edge", "drop-off", "point", "inlet", "open-water")
NUMBER_PAIR = re.compile(r"(\d+(?:\.\d+)?) to (\d+(?:\.\d+)?) (°C|m)\b")


def one_of(pick: random.Random, *values):
    return pick.choice(values)


def drawn(seed: int) -> PlanInput:
    pick = random.Random(seed)
    deep = one_of(pick, 1.5, 2.5, 4.0, 8.0, 15.0)
    places = tuple(
        Place(
            name=f"Place {n}",
            kind=pick.choice(KINDS),
            depth_min_m=round(0.2 * deep * n, 1),
            depth_max_m=round(deep * (0.5 + 0.5 * n), 1),
            facing_deg=float(pick.randrange(0, 360, 45)),
        )
        for n in range(2)
    )
    water = Water(
        name="Drawn",
        max_depth_m=deep,
        places=places,
        species=one_of(pick, ("rainbow",), ("brown",), ("rainbow", "brown")),
        latitude_deg=one_of(pick, 52.0, -42.0),
        longitude_deg=0.0,
        days_since_stocking=one_of(pick, None, 2, 12, 60),
    )
    when = datetime(2026, 1, 1, 11, tzinfo=UTC) + timedelta(days=pick.randrange(365), hours=pick.randrange(-4, 9))
    top = pick.uniform(3, 25)
    bottom = pick.uniform(min(4.0, top), top)
    curve = tuple(Point(deep * k / 4, round(top + (bottom - top) * k / 4, 1)) for k in range(4))
    reading = Reading(
        profile=one_of(pick, (), curve, curve),
        wind_m_s=one_of(pick, None, 0.5, 4.0, 8.0, 12.0),
        wind_from_deg=float(pick.randrange(0, 360, 45)),
        cloud_oktas=one_of(pick, None, 0, 4, 8),
        clarity=one_of(pick, "gin-clear", "clear", "slightly-coloured", "coloured"),
        air_temperature_c=one_of(pick, None, 0.0, 12.0, 26.0),
    )
    seen = one_of(
        pick,
        (),
        (Sighting(rise="sip", abundance="many"),),
        (Sighting(rise="splash", abundance="few"),),
        (Sighting(prey="scud", abundance="some"),),
        (Sighting(sign="nothing-rises", abundance="some"),),
    )
    lines: tuple[Line, ...] = tuple(line for line in LINES if pick.random() < 0.7) or LINES[:1]
    return PlanInput(
        when=when,
        water=water,
        reading=reading,
        sightings=seen,
        angler=Angler(cast_m=one_of(pick, 10.0, 18.0, 25.0), afloat=pick.random() < 0.4, rod_m=one_of(pick, 2.7, 3.2)),
        lines=lines,
        flies=tuple(fly for fly in STARTER_FLIES if pick.random() < 0.7) or STARTER_FLIES,
        rules=Rules(
            max_flies=one_of(pick, None, 1, 2, 3),
            floats_allowed=one_of(pick, None, True, False),
            sinking_lines_allowed=one_of(pick, None, True, False),
            droppers_allowed=one_of(pick, None, True, False),
        ),
        place=places[pick.randrange(2)].name,
        found_m=one_of(pick, None, None, round(0.4 * deep, 1)),
    )


class Never(unittest.TestCase):
    @classmethod
    def setUpClass(cls):
        cls.days = [(seed, given, make_plan(given)) for seed in range(DAYS) for given in [drawn(seed)]]

    def each(self):
        return some([(given, plan, one) for _, given, plan in self.days for one in plan.set_ups])

    def test_nothing_fishes_below_the_bed_or_above_the_water(self):
        for _, plan, one in self.each():
            depths = [one.target_m, one.low_m, one.high_m, *(rung.depth_m for rung in one.ladder)]
            self.assertGreaterEqual(min(depths), 0.0)
            self.assertLessEqual(max(depths), plan.chosen.bed_m + 1e-6)

    def test_only_what_the_kit_holds_and_the_rules_allow(self):
        for given, _, one in self.each():
            rules = given.rules
            self.assertIn(one.line.key, [line.key for line in given.lines])
            self.assertLessEqual({f.fly.key for f in one.flies}, {fly.key for fly in given.flies})
            self.assertLessEqual(len(one.flies), rules.max_flies or 2)
            if rules.droppers_allowed is False:
                self.assertEqual(len(one.flies), 1)
            if rules.floats_allowed is False:
                self.assertIsNone(one.float_hang_m)
            if rules.sinking_lines_allowed is False:
                self.assertEqual(one.line.family, "floating")

    def test_nothing_that_cannot_be_landed(self):
        for given, _, one in self.each():
            reach = given.angler.rod_m + given.angler.arm_m + given.angler.net_m
            if one.float_kind == "fixed":
                self.assertLessEqual(max([one.float_hang_m, *(r.float_hang_m for r in one.ladder)]), reach)
            if len(one.flies) > 1 and one.float_hang_m is None:
                apart = one.leader.flies_at_m
                self.assertLessEqual(apart[-1] - apart[0], reach + 1e-6)

    def test_a_found_depth_is_fished_or_the_set_up_says_why_not(self):
        tried = 0
        for given, _, one in self.each():
            if given.found_m is None:
                continue
            tried += 1
            told = any(f"{given.found_m:g} m" in reason.sentence for reason in one.reasons)
            self.assertTrue(one.low_m - 0.3 <= given.found_m <= one.high_m + 0.3 or told, one.reasons)
        self.assertGreater(tried, 3)

    def test_where_only_cool_depths_are_fished_no_set_up_lies_above_them(self):
        warm = 0
        for given, _, one in self.each():
            if not given.reading.profile:
                continue
            told = welfare(max(p.temperature_c for p in given.reading.profile), given.water.species, None)
            context, _ = day_context(given)
            cool = cool_depths(context, told)
            if cool is None:
                continue
            warm += 1
            self.assertLessEqual(context.water_c(one.target_m), cool[0] + 0.05)
        self.assertGreater(warm, 0)

    def test_no_dry_fly_in_a_gale_or_in_frost(self):
        for given, _, one in self.each():
            hard = (given.reading.wind_m_s or 0) >= 10 or (given.reading.air_temperature_c or 20) <= 1
            self.assertFalse(hard and one.method == "dry")

    def test_at_most_six_reasons_each_once_and_a_place_to_stand(self):
        for _, _, one in self.each():
            said = [reason.sentence for reason in one.reasons]
            self.assertLessEqual(len(said), 6)
            self.assertEqual(len(said), len(set(said)))
            self.assertTrue(one.stance and one.watch_for and one.depth_note)

    def test_numbers_in_sentences_are_the_fields_they_speak_of(self):
        for given, plan, one in self.each():
            temperatures = [p.temperature_c for p in given.reading.profile]
            for reason in one.reasons:
                for low, high, unit in NUMBER_PAIR.findall(reason.sentence):
                    self.assertLess(float(low), float(high), reason.sentence)
                    if unit == "°C":
                        self.assertGreaterEqual(float(low), min(temperatures) - 0.5, reason.sentence)
                    elif reason.factor not in ("landing", "line"):
                        self.assertLessEqual(
                            float(high), max(plan.chosen.bed_m, given.water.max_depth_m) + 0.05, reason
                        )
            if one.count_s is not None:
                count = next(r.sentence for r in one.reasons if r.factor == "count")
                self.assertIn(f"fishes about {one.target_m:.1f} m", count)
                self.assertTrue(count.startswith(f"{one.count_s} s" if one.count_s else "No count"))

    def test_bright_is_never_said_under_a_full_sky_of_cloud(self):
        for given, _, one in self.each():
            if given.reading.cloud_oktas == 8:
                self.assertNotIn("bright", " ".join(r.sentence.lower() for r in one.reasons if r.factor == "light"))

    def test_the_same_day_makes_the_same_plan(self):
        seed, given, plan = some(self.days)[3]
        again = make_plan(drawn(seed))
        self.assertEqual([s.key for s in again.set_ups], [s.key for s in plan.set_ups])
        self.assertEqual([s.reasons for s in again.set_ups], [s.reasons for s in plan.set_ups])
