"""The ways to fish a line the trade knows, each where it belongs and nowhere else."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

from stillthread.core.day.context import cast_in_wind_m
from stillthread.core.day.given import Angler, Rules
from stillthread.core.day.model import RuledOut
from stillthread.core.day.schools import Schools
from stillthread.core.food.seen import Sighting
from stillthread.core.methods.afloat import dangle, drifted, settled_band
from stillthread.core.methods.counted import with_band
from stillthread.core.methods.over_bed import over_weed, slope_bed, up_slope
from stillthread.core.methods.ways import buoyant_point, deep_tip, on_sinking_leader
from stillthread.core.noted.water import Place
from stillthread.core.plan.make import day_context, make_plan
from stillthread.core.setup.model import SetUp
from stillthread.core.tackle.lines import Line
from tests.checks import some
from tests.days import BASIN, FLOATING, INTERMEDIATE, MARGIN, MAY, SUMMER, TYPE_7, UPLAND, day, profile

WEED = Place(name="Weed", kind="weed-edge", depth_min_m=0.9, depth_max_m=1.4, facing_deg=225)
WEEDY = replace(UPLAND, places=(WEED, *UPLAND.places))
SHALLOW = replace(MAY, profile=profile((0, 14.0), (1, 13.8)), water_depth_m=1.2)
FAST_TIP = Line(key="fast-tip", family="sink-tip", label_ips=5.0, weight_class=7, tip_length_m=4.5)


def context(**other):
    return day_context(day(rules=Rules(max_flies=3), **other))[0]


class Ashore(unittest.TestCase):
    def test_a_buoyant_point_holds_the_middle_of_a_team_up(self):
        # Trade: buoyant point + nymphs, 0 to 1.2 m on a floater; the middles stay high between buoyant ends.
        here = context(place="Margin", reading=replace(MAY, profile=MAY.profile[:3], water_depth_m=2.0))
        one = with_band(buoyant_point(here, "nymphs", FLOATING), here)
        self.assertTrue(one.flies[-1].fly.buoyant)
        self.assertGreaterEqual(len(one.flies), 2)
        self.assertLess(one.runs_m[1], 1.2)

    def test_it_needs_two_flies(self):
        refused = buoyant_point(day_context(day(rules=Rules(max_flies=1)))[0], "nymphs", FLOATING)
        self.assertEqual(refused.kind, "rule")

    def test_a_sinking_leader_for_those_who_own_only_a_floater(self):
        # Trade: 0.3 to 1 m.
        here = context(lines=(FLOATING,))
        one = with_band(on_sinking_leader(here, FLOATING), here)
        self.assertEqual(one.leader.sections[0].part, "sinking leader")
        self.assertGreater(one.target_m, 0.3)
        styles = {s.style for s in make_plan(day(lines=(FLOATING,))).set_ups}
        self.assertNotIn("sinking-leader", {s.style for s in make_plan(day()).set_ups})
        self.assertTrue(styles)

    def test_over_weed_the_buoyant_fly_rides_high(self):
        # Trade: 0.9 to 1.2 m of water, count 20 to 25 s, fly at 0.3 to 0.6 m.
        here = context(water=WEEDY, place="Weed", reading=SHALLOW)
        one = with_band(over_weed(here, INTERMEDIATE), here)
        self.assertTrue(0.1 <= one.target_m <= 0.8, one.target_m)
        self.assertEqual(over_weed(context(), INTERMEDIATE).kind, "depth")

    def test_up_the_slope_only_where_there_is_one(self):
        self.assertIsInstance(up_slope(context(), TYPE_7), SetUp)
        self.assertIsNone(slope_bed(context(place=BASIN.name, reading=SUMMER)))
        bed = slope_bed(context())
        self.assertEqual([z for _, z in bed], sorted(z for _, z in bed))

    def test_a_fast_tip_with_a_heavy_point_hangs_deep(self):
        # Trade: 6 to 9 m, steep.
        here = context(place=BASIN.name, reading=SUMMER, when=datetime(2026, 7, 20, 12, tzinfo=UTC))
        one = with_band(deep_tip(here, FAST_TIP), here)
        self.assertGreater(one.target_m, 4.5)
        self.assertEqual(one.flies[-1].fly.weight, "weighted")

    def test_a_style_is_what_its_words_say(self):
        """The words of STYLES, checked on whatever is offered over a few days."""
        says = {
            "dry": lambda s: all(f.fly.surface for f in s.flies) and s.count_s is None,
            "team": lambda s: s.count_s is not None and s.float_hang_m is None,
            "buoyant-point": lambda s: s.flies[-1].fly.buoyant and len(s.flies) >= 2,
            "sinking-leader": lambda s: s.leader.sections[0].part == "sinking leader" and s.line.family == "floating",
            "float": lambda s: s.float_hang_m is not None,
            "over-bed": lambda s: s.flies[-1].fly.buoyant and s.line.family in ("sinking", "sink-tip"),
            "over-weed": lambda s: s.flies[-1].fly.buoyant and s.line.family == "intermediate",
        }
        days = (day(), day(water=WEEDY, place="Weed", reading=SHALLOW), day(reading=SUMMER, place=BASIN.name),
                day(sightings=(Sighting(abundance="many", rise="sip"),)))  # fmt: skip
        offered = [s for one in days for s in make_plan(one).set_ups]
        met = {s.style for s in offered if s.style in says}
        self.assertGreaterEqual(len(met), 4, met)
        for s in offered:
            with self.subTest(s.title):
                self.assertTrue(s.style not in says or says[s.style](s))


class Afloat(unittest.TestCase):
    BOAT = Angler(afloat=True)

    def test_from_the_bank_neither_is_offered(self):
        for one in (dangle(context(), TYPE_7), drifted(context(), "intermediate", INTERMEDIATE)):
            self.assertEqual(one.kind, "kit")

    def test_straight_down_hangs_as_deep_as_was_let_out(self):
        here = context(angler=self.BOAT)
        one = settled_band(dangle(here, TYPE_7), here)
        self.assertAlmostEqual(one.estimate_m, one.cast_m, delta=0.15)
        self.assertEqual(dangle(context(angler=self.BOAT, place="Margin", reading=SHALLOW), TYPE_7).kind, "depth")

    def test_trailed_flies_ride_higher_the_faster_the_drift(self):
        depths = []
        for wind in (2.0, 4.0, 7.0):
            here = context(angler=self.BOAT, place=BASIN.name, reading=replace(SUMMER, wind_m_s=wind))
            depths.append(settled_band(drifted(here, "intermediate", INTERMEDIATE), here).estimate_m)
        self.assertEqual(depths, sorted(depths, reverse=True))

    def test_a_drift_needs_a_wind_that_was_read(self):
        self.assertEqual(
            drifted(context(angler=self.BOAT, reading=replace(MAY, wind_m_s=None)), "intermediate", INTERMEDIATE).kind,
            "not-computed",
        )
        calm = drifted(context(angler=self.BOAT, reading=replace(MAY, wind_m_s=0.3)), "intermediate", INTERMEDIATE)
        self.assertEqual(calm.kind, "depth")


class Limits(unittest.TestCase):
    def test_a_wind_shortens_the_cast(self):
        self.assertEqual(cast_in_wind_m(18.0, 3.0), 18.0)
        self.assertEqual(cast_in_wind_m(18.0, None), 18.0)
        self.assertLess(cast_in_wind_m(18.0, 8.0), 16.0)
        self.assertAlmostEqual(cast_in_wind_m(20.0, 30.0), 12.0)

    def test_a_team_is_no_longer_than_can_be_landed(self):
        short = Angler(rod_m=1.8, net_m=0.1, arm_m=0.3)
        for s in some(
            s for s in make_plan(day(angler=short, rules=Rules(max_flies=3))).set_ups if s.float_hang_m is None
        ):
            self.assertLessEqual(s.flies[-1].from_line_m - s.flies[0].from_line_m, 2.2)

    def test_methods_left_out_are_not_offered(self):
        plan = make_plan(day(angler=Angler(methods=("dry", "nymphs", "intermediate"))))
        self.assertLessEqual({s.method for s in plan.set_ups}, {"dry", "nymphs", "intermediate"})
        self.assertIn("You left this method out.", [r.reason for r in plan.ruled_out])

    def test_casting_over_fish_in_a_flat_calm_costs_and_a_float_does_not(self):
        calm = replace(SHALLOW, wind_m_s=0.3, cloud_oktas=0)
        here = context(water=WEEDY, place="Weed", reading=calm)
        from stillthread.core.setup.worth import disturbance

        self.assertEqual(disturbance(here, "float", 0.4), 1.0)
        self.assertLess(disturbance(here, "intermediate", 0.4), disturbance(here, "intermediate", 1.0))

    def test_fish_on_the_bottom_by_school(self):
        from stillthread.core.methods.over_bed import crawl_weight

        scuds = (Sighting(abundance="many", prey="scud"),)
        self.assertEqual(crawl_weight(context(sightings=scuds)), 1.0)
        self.assertGreater(crawl_weight(context(schools=Schools(bottom_fish="crawl"))), 1.0)
        self.assertLess(crawl_weight(context(schools=Schools(bottom_fish="ignore"))), 0.8)


class Rods(unittest.TestCase):
    def test_the_first_set_ups_stand_rigged(self):
        # Trade: rods rigged beforehand make a change nearly free.
        plan = make_plan(day(angler=Angler(rods=2)))
        self.assertEqual([s.rod for s in plan.set_ups[:3]], [1, 2, None])
        self.assertLess(plan.set_ups[1].rigging_min, plan.set_ups[2].rigging_min)

    def test_two_anglers_start_apart(self):
        # Trade: start with different depths and flies.
        plan = make_plan(day())
        one, other = plan.set_ups[plan.pair.first], plan.set_ups[plan.pair.second]
        self.assertTrue(one.method != other.method or abs(one.target_m - other.target_m) > 0.3)
        self.assertIn("Converge", plan.pair.why)

    def test_the_second_differs_in_method_from_the_first(self):
        for one in (day(), day(place=MARGIN.name, reading=replace(MAY, profile=MAY.profile[:3], water_depth_m=2.0))):
            methods = [s.method for s in make_plan(one).set_ups]
            self.assertNotEqual(methods[0], methods[1])

    def test_what_is_not_offered_says_why(self):
        for r in some(make_plan(day()).ruled_out):
            self.assertIsInstance(r, RuledOut)
            self.assertTrue(r.reason.endswith("."))
