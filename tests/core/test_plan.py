import unittest
from dataclasses import replace
from datetime import UTC, datetime

import numpy as np
from hypothesis import given, settings
from hypothesis import strategies as st

from stillthread.core.casts.band import simulate
from stillthread.core.day.given import Angler, Rules
from stillthread.core.day.schools import Schools
from stillthread.core.errors import InputError
from stillthread.core.food.seen import Sighting
from stillthread.core.noted.reading import Reading
from stillthread.core.plan.make import make_plan
from tests.checks import some
from tests.days import BASIN, DROP, FLOATING, LINES, MARGIN, MAY, SUMMER, TYPE_7, UPLAND, day, profile

WARM = Reading(
    profile=profile((0, 21.0), (2, 20.8), (5, 19.5)),
    water_depth_m=5.5,
    wind_m_s=3.0,
    gust_m_s=None,
    wind_from_deg=225.0,
    cloud_oktas=4,
    clarity="clear",
)


def methods(plan):
    return [s.method for s in plan.set_ups]


def caution_codes(plan):
    return {c.code: c.level for c in plan.cautions}


class SetUps(unittest.TestCase):
    def test_two_to_four_of_at_least_three_methods(self):
        for one in (day(), day(reading=Reading()), day(reading=SUMMER, place="Basin"), day(place="Margin")):
            found = methods(make_plan(one))
            self.assertTrue(2 <= len(found) <= 4, found)
            self.assertGreaterEqual(len(set(found)), 3, found)

    def test_same_input_same_plan(self):
        self.assertEqual(repr(make_plan(day()).set_ups), repr(make_plan(day()).set_ups))

    def test_the_best_is_the_measure(self):
        rates = [s.relative for s in make_plan(day()).set_ups]
        self.assertEqual(rates[0], 1.0)
        self.assertEqual(rates, sorted(rates, reverse=True))

    def test_what_the_plan_says_is_what_the_thread_says(self):
        # The set-up's own rig and cast, run again: mean depth while it is fished, and where the count puts it.
        for s in some(make_plan(day()).set_ups):
            if s.count_s is None:
                continue
            path = simulate(s.rig, s.cast).point
            end = simulate(s.rig, s.cast).fished_to_s
            t = np.linspace(s.count_s, end, 400)
            self.assertAlmostEqual(s.estimate_m, float(np.interp(t, path.t_s, path.depth_m).mean()), delta=0.05)
            self.assertAlmostEqual(s.sink_table[s.count_s].depth_m, path.at(s.count_s), delta=0.05)
            self.assertTrue(s.low_m < s.estimate_m < s.high_m)

    def test_no_set_up_drags_its_flies_over_the_bottom(self):
        for one in (day(), day(place="Margin", reading=replace(MAY, profile=MAY.profile[:3], water_depth_m=2.0))):
            for s in some(make_plan(one).set_ups):
                if s.runs_m is not None and s.style not in ("over-bed", "up-slope"):
                    self.assertLess(s.runs_m[1], one.reading.water_depth_m)

    def test_a_line_never_lies_on_the_bed_while_it_is_counted(self):
        for s in some(
            s
            for s in make_plan(day(place="Basin", reading=SUMMER)).set_ups
            if s.count_s is not None and s.line.family == "sinking"
        ):
            self.assertLessEqual(s.line.rate_m_s * (s.count_s - 1), SUMMER.water_depth_m)

    def test_every_set_up_carries_reasons_and_numbers(self):
        for s in some(make_plan(day()).set_ups):
            self.assertTrue(s.reasons and s.watch_for and s.fallback and s.depth_note)
            self.assertGreater(s.cast_m, 0)
            self.assertEqual(s.flies[-1].position, "point")
            self.assertAlmostEqual(s.flies[-1].from_line_m, s.leader.length_m)

    def test_fast_line_is_ruled_out_of_shallow_water(self):
        plan = make_plan(day(place="Margin", reading=replace(MAY, profile=MAY.profile[:3], water_depth_m=2.0)))
        told = {r.what: r for r in plan.ruled_out}
        self.assertEqual(told["Type 7 sinking line"].kind, "depth")

    def test_a_buoyant_fly_behind_a_fast_line_hovers_above_the_bed(self):
        # Trade: just above any bottom; at rest about a leader's length up.
        only = tuple(f for f in day().flies if f.key == "foam-eyed-nymph")
        made = make_plan(day(flies=only, lines=(TYPE_7,)))
        best = next(s for s in made.set_ups if s.style == "over-bed")
        at_rest = best.sink_table[best.count_s].depth_m
        self.assertAlmostEqual(MAY.water_depth_m - at_rest, best.leader.length_m, delta=0.7)
        self.assertLess(at_rest, best.runs_m[1])  # drawn down by the retrieve


class Limits(unittest.TestCase):
    def test_number_of_flies(self):
        for allowed in (1, 2, 3):
            plan = make_plan(day(rules=Rules(max_flies=allowed)))
            self.assertLessEqual(max(len(s.flies) for s in plan.set_ups), allowed)

    def test_no_droppers_means_one_fly(self):
        plan = make_plan(day(rules=Rules(max_flies=3, droppers_allowed=False)))
        self.assertEqual({len(s.flies) for s in plan.set_ups}, {1})

    def test_floats_and_sinking_lines_banned(self):
        plan = make_plan(day(rules=Rules(max_flies=2, floats_allowed=False, sinking_lines_allowed=False)))
        self.assertFalse({"float", "sinking", "intermediate", "sink-tip"} & set(methods(plan)))
        self.assertEqual({r.kind for r in plan.ruled_out if "Float" in r.what or "Type" in r.what}, {"rule"})

    def test_what_cannot_be_landed_goes_on_a_quick_release_float(self):
        # A 9 ft rod with a short net reaches 2.74 + 0.6 + 0.4 = 3.74 m: no fixed float below that.
        short = Angler(rod_m=2.74, net_m=0.4, arm_m=0.6)
        for s in some(s for s in make_plan(day(angler=short)).set_ups if s.float_hang_m is not None):
            self.assertEqual(s.float_kind, "fixed" if s.float_hang_m <= 3.74 else "release")

    def test_removing_a_line_or_a_fly_removes_it_from_every_set_up(self):
        plan = make_plan(day())
        used = {s.line.key for s in plan.set_ups}
        for key in some(used):
            rest = tuple(line for line in LINES if line.key != key)
            self.assertNotIn(key, {s.line.key for s in make_plan(day(lines=rest)).set_ups})
        fly = plan.set_ups[0].flies[-1].fly
        without = tuple(f for f in day().flies if f.key != fly.key)
        names = {p.fly.key for s in make_plan(day(flies=without)).set_ups for p in s.flies}
        self.assertNotIn(fly.key, names)

    def test_a_fly_out_of_stock_is_not_tied_on(self):
        fly = make_plan(day()).set_ups[0].flies[-1].fly
        box = tuple(replace(f, stock=0) if f.key == fly.key else f for f in day().flies)
        names = {p.fly.key for s in make_plan(day(flies=box)).set_ups for p in s.flies}
        self.assertNotIn(fly.key, names)

    def test_a_floating_line_alone_still_gives_a_choice(self):
        self.assertGreaterEqual(len(make_plan(day(lines=(FLOATING,))).set_ups), 2)


class Days(unittest.TestCase):
    def test_evening_rises_bring_up_the_dry_fly(self):
        evening = datetime(2026, 6, 20, 20, 30, tzinfo=UTC)
        plan = make_plan(day(when=evening, sightings=(Sighting(abundance="many", rise="splash"),)))
        self.assertEqual(plan.set_ups[0].method, "dry")
        self.assertIn("caddis", plan.set_ups[0].flies[0].fly.prey)

    def test_cold_early_season_is_eight_to_ten_feet_down(self):
        # Trade: 2.4 to 3 m down in cold water early in the season.
        cold = Reading(
            profile=profile((0, 6.0), (3, 5.8)),
            water_depth_m=5.0,
            wind_m_s=5.0,
            gust_m_s=None,
            wind_from_deg=225.0,
            cloud_oktas=7,
            clarity="slightly-coloured",
        )
        plan = make_plan(day(when=datetime(2026, 3, 20, 11, tzinfo=UTC), reading=cold))
        self.assertTrue(any(2.0 <= s.target_m <= 3.2 for s in plan.set_ups))
        self.assertIn("2.4 to 3 m", " ".join(f.sentence for f in plan.chosen.factors))

    def test_below_four_degrees_everything_is_still_but_for_the_flashy_start(self):
        # Trade: static and small, or big and flashy at ice-out; the default starts with both.
        icy = Reading(
            profile=profile((0, 3.5), (4, 3.8)),
            water_depth_m=5.0,
            wind_m_s=2.0,
            gust_m_s=None,
            wind_from_deg=0.0,
            cloud_oktas=8,
            clarity="clear",
        )
        plan = make_plan(day(when=datetime(2026, 2, 10, 13, tzinfo=UTC), reading=icy))
        moving = [s.style for s in plan.set_ups if s.retrieve.kind != "static"]
        self.assertEqual(moving, ["flashy"])
        self.assertIn("flashy", [s.style for s in plan.set_ups[:2]])
        small = make_plan(
            day(when=datetime(2026, 2, 10, 13, tzinfo=UTC), reading=icy, schools=Schools(very_cold="small"))
        )
        self.assertEqual({s.retrieve.kind for s in small.set_ups}, {"static"})

    def test_fresh_stockfish_are_high_and_like_it_bright(self):
        stocked = replace(UPLAND, days_since_stocking=3)
        high = make_plan(day(water=stocked)).chosen
        usual = make_plan(day()).chosen
        self.assertGreater(high.profile[:25].sum(), usual.profile[:25].sum())

    def test_deep_summer_basin_uses_a_fast_line_or_a_float_in_the_cool_band(self):
        plan = make_plan(day(when=datetime(2026, 7, 20, 12, tzinfo=UTC), reading=SUMMER, place=BASIN.name))
        self.assertTrue({"float", "sinking"} & set(methods(plan)[:2]))
        self.assertTrue(all(s.target_m > 3.5 for s in plan.set_ups[:2]))

    def test_the_type_7_is_for_deep_water_only(self):
        deep = make_plan(day(reading=SUMMER, place=BASIN.name, lines=(FLOATING, TYPE_7)))
        self.assertIn("t7", [s.line.key for s in deep.set_ups])
        shallow = make_plan(day(place=MARGIN.name, reading=replace(MAY, profile=MAY.profile[:3], water_depth_m=2.0)))
        self.assertNotIn("t7", [s.line.key for s in shallow.set_ups])

    def test_margin_place(self):
        plan = make_plan(day(place=MARGIN.name, reading=replace(MAY, profile=MAY.profile[:3], water_depth_m=2.0)))
        self.assertTrue(all(s.target_m <= 2.0 for s in plan.set_ups))


class Cautions(unittest.TestCase):
    def test_the_usual_ones_by_condition(self):
        # Trade: wading, hooks, power lines, gear between waters; fish returned or kept as the rules were read.
        codes = lambda **other: {c.code for c in make_plan(day(**other)).cautions}  # noqa: E731
        shallow = {"place": "Margin", "reading": replace(MAY, profile=MAY.profile[:3], water_depth_m=2.0)}
        self.assertIn("wading", codes(**shallow))
        self.assertNotIn("wading", codes(angler=Angler(afloat=True), **shallow))
        self.assertTrue({"usual", "local-rules", "handling"} <= codes())
        kept = codes(rules=Rules(release="kill"))
        self.assertIn("kill", kept)
        self.assertNotIn("handling", kept)

    def test_too_warm_on_catch_and_release_offers_nothing(self):
        plan = make_plan(day(reading=WARM, rules=Rules(max_flies=2, release="catch-and-release")))
        self.assertEqual(plan.set_ups, ())
        self.assertEqual(plan.ruled_out[0].kind, "warmth")
        self.assertEqual(plan.cautions[0].level, "stop")

    def test_too_warm_where_fish_are_kept_says_so(self):
        plan = make_plan(day(reading=WARM, rules=Rules(max_flies=2, release="kill")))
        self.assertTrue(plan.set_ups)
        self.assertIn("keep", plan.cautions[0].sentence)

    def test_each_set_up_says_what_to_mind_with_it(self):
        # Trade: a float drags in a wind; a rig deeper than rod, arm and net needs a quick-release float and its peg.
        plan = make_plan(day(angler=Angler(rod_m=2.7, net_m=0.3), reading=replace(MAY, wind_m_s=5.0)))
        rig = next(s for s in plan.set_ups if s.method == "float")
        self.assertEqual({c.code for c in rig.cautions}, {"float-peg", "drag"})

    def test_wind_limits_for_small_boats(self):
        # Trade limits: think again from 5.5 m/s, stay ashore from 8 m/s; ashore neither applies.
        boat = Angler(afloat=True)
        for speed, level in ((5.4, None), (5.5, "caution"), (7.9, "caution"), (8.0, "stop")):
            plan = make_plan(day(reading=replace(MAY, wind_m_s=speed), angler=boat))
            self.assertEqual(caution_codes(plan).get("wind"), level, speed)
        self.assertNotIn("wind", caution_codes(make_plan(day(reading=replace(MAY, wind_m_s=9.0)))))

    def test_cold_water_thunder_and_unknown_rules(self):
        plan = make_plan(day(reading=replace(MAY, thunder=True), rules=Rules()))
        codes = caution_codes(plan)
        self.assertEqual((codes["thunder"], codes["cold-water"], codes["rules"]), ("stop", "caution", "caution"))
        self.assertIn("local-rules", codes)
        levels = [c.level for c in plan.cautions]
        self.assertEqual(levels, sorted(levels, key=["stop", "caution", "note"].index))


class AnyDay(unittest.TestCase):
    @settings(max_examples=25, deadline=None)
    @given(
        st.floats(0.3, 18),
        st.lists(st.floats(0, 30), max_size=6),
        st.one_of(st.none(), st.floats(0, 20)),
        st.one_of(st.none(), st.integers(0, 8)),
        st.integers(1, 12),
        st.integers(0, 23),
        st.sampled_from([None, "gin-clear", "clear", "slightly-coloured", "coloured"]),
    )
    def test_a_plan_keeps_its_promises(self, bed, temperatures, wind, cloud, month, hour, clarity):
        step = bed / max(len(temperatures), 1)
        points = profile(*((i * step, t) for i, t in enumerate(temperatures)))
        place = replace(DROP, name="Anywhere", depth_min_m=0.0, depth_max_m=bed)
        reading = Reading(
            profile=points,
            water_depth_m=bed,
            wind_m_s=wind,
            gust_m_s=None,
            wind_from_deg=90.0,
            cloud_oktas=cloud,
            clarity=clarity,
        )
        water = replace(UPLAND, places=(place,))
        when = datetime(2026, month, 15, hour, tzinfo=UTC)
        plan = make_plan(day(when=when, reading=reading, water=water, place="Anywhere"))
        self.assertAlmostEqual(float(plan.chosen.mass.sum()), 1.0, places=9)
        self.assertLessEqual(len(plan.set_ups), 4)
        if not plan.set_ups:  # too warm for every way, or nothing to be fished: then each says why
            self.assertTrue(all(one.reason for one in some(plan.ruled_out)))
        for s in plan.set_ups:
            self.assertTrue(0 <= s.low_m <= s.high_m <= bed + 1e-9, s)
            self.assertTrue(0 < s.relative <= 1)
            self.assertTrue(all(f.depth_m is None or 0 <= f.depth_m <= bed for f in s.flies))


class BadInput(unittest.TestCase):
    def paths(self, given):
        with self.assertRaises(InputError) as caught:
            make_plan(given)
        return {p.path for p in caught.exception.problems}

    def test_all_faults_at_once(self):
        bad = Reading(profile=profile((0, 50)), water_depth_m=40.0)
        self.assertEqual(
            self.paths(day(lines=(), flies=(), place="Atlantis", reading=bad)),
            {"tackle.lines", "flies", "place", "reading.water_depth_m", "reading.profile[0].temperature_c"},
        )

    def test_a_water_without_places(self):
        self.assertIn("water.places", self.paths(day(water=replace(UPLAND, places=()), place=None)))
