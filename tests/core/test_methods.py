"""The parts a set-up is made of: retrieves, flies, leaders by method, and what a method refuses."""

import unittest
from dataclasses import replace
from datetime import UTC, datetime

import numpy as np

from stillthread.core.belief.reach import Reach, hunger, pace_weight
from stillthread.core.day.given import Angler, Rules
from stillthread.core.flies.choose import FlyDay, Wanted, hook_size, rank_flies
from stillthread.core.flies.team import order_team, place_flies
from stillthread.core.food.available import available_food
from stillthread.core.food.catalogue import BY_KEY
from stillthread.core.food.seen import Sighting
from stillthread.core.methods.counted import shallowest_useful_m
from stillthread.core.noted.reading import Reading
from stillthread.core.plan.make import make_plan
from stillthread.core.setup.retrieves import RETRIEVES, choose_retrieve
from stillthread.core.tackle.flies import STARTER_FLIES
from stillthread.core.tackle.lines import Line
from stillthread.core.trout.notice import upward_reach_m
from stillthread.core.units import m_to_feet
from tests.checks import some
from tests.days import FLOATING, INTERMEDIATE, MAY, TIP, TYPE_3, TYPE_7, day

NOON = datetime(2026, 5, 15, 12, tzinfo=UTC)


class Retrieves(unittest.TestCase):
    def test_the_temperature_table_slows_the_hand(self):
        # Trade table: below 4 °C static, 4 to 7 °C slow retrieves, active above.
        leech = BY_KEY["leech"]
        self.assertEqual(choose_retrieve(leech, 3.0, False).kind, "static")
        self.assertEqual(choose_retrieve(leech, 5.5, False), RETRIEVES["slow-hand-twist"])
        self.assertEqual(choose_retrieve(leech, 12.0, False).kind, "strip-pause")

    def test_pupae_are_near_still_even_in_warm_water(self):
        self.assertEqual(choose_retrieve(BY_KEY["chironomid-pupa"], 15, False), RETRIEVES["slow-hand-twist"])

    def test_fresh_fish_are_pulled_at(self):
        self.assertEqual(choose_retrieve(BY_KEY["stocked-instinct"], 10, True).kind, "long-pull")

    def test_paces_keep_the_trades_figures(self):
        # Slow hand twist 2 to 4 cm/s; figure of eight 5 to 10 cm/s; roly-poly 0.5 to 0.9 m/s; pulls of 50 to 60 cm.
        self.assertTrue(0.02 <= RETRIEVES["slow-hand-twist"].speed_m_s <= 0.04)
        self.assertTrue(0.05 <= RETRIEVES["hand-twist"].speed_m_s <= 0.10)
        self.assertTrue(0.5 <= RETRIEVES["roly-poly"].speed_m_s <= 0.9)
        self.assertTrue(0.5 <= RETRIEVES["long-pull"].pull_m <= 0.6)
        self.assertTrue(0.10 <= RETRIEVES["strip-pause"].pull_m <= 0.15)


class Flies(unittest.TestCase):
    def setUp(self):
        self.belief = make_plan(day()).chosen

    def rank(
        self, *sightings, depth=2.0, weights=("unweighted",), surface=False, still=False, flies=STARTER_FLIES, **of_day
    ):
        food = available_food(NOON, "north", 12.0, sightings=sightings)
        return rank_flies(
            flies=flies,
            food=food,
            belief=self.belief,
            depth_m=depth,
            wanted=Wanted(weights, surface, still),
            day=FlyDay(**of_day),
        )

    def test_what_was_seen_comes_first(self):
        for prey in ("leech", "damsel-nymph", "water-boatman"):
            best = self.rank(Sighting(abundance="many", prey=prey))[0]
            self.assertEqual(best.prey.key, prey)

    def test_only_the_weights_asked_for(self):
        for weights in (("weighted",), ("unweighted",), ("weighted", "unweighted")):
            self.assertLessEqual({m.fly.weight for m in self.rank(weights=weights)}, set(weights))

    def test_surface_flies_only_at_the_surface(self):
        self.assertTrue(all(m.fly.surface for m in self.rank(depth=0, weights=("buoyant",), surface=True)))
        self.assertFalse(any(m.fly.surface for m in self.rank()))

    def test_colour_of_the_water_moves_the_tone(self):
        # Trade: bold silhouettes in coloured water, natural in clear.
        def place(tone, clarity):
            ranked = self.rank(Sighting(abundance="many", prey="chironomid-pupa"), clarity=clarity)
            return next(i for i, m in enumerate(ranked) if m.fly.tone == tone and m.prey.key == "chironomid-pupa")

        self.assertLess(place("dark", "coloured"), place("natural", "coloured"))
        self.assertLess(place("natural", "clear"), place("dark", "clear"))

    def test_a_still_rig_prefers_prey_that_keeps_still(self):
        fry = (Sighting(abundance="many", prey="fry"), Sighting(abundance="some", prey="chironomid-pupa"))
        moving = {m.fly.key: m.score for m in self.rank(*fry, depth=1.0)}
        still = {m.fly.key: m.score for m in self.rank(*fry, depth=1.0, still=True)}
        self.assertLess(still["pale-fry"], moving["pale-fry"])
        self.assertEqual(still["slim-pupa-black"], moving["slim-pupa-black"])

    def test_hook_sizes(self):
        match = next(m for m in self.rank() if m.fly.key == "slim-pupa-black")
        self.assertEqual((hook_size(match, wary=False), hook_size(match, wary=True)), (12, 14))

    def test_a_team_is_placed_best_on_the_point(self):
        ranked = self.rank(Sighting(abundance="many", prey="scud"))
        team = place_flies(order_team(ranked, 3, None), (1.0, 2.0, 3.0), (0.5, 1.0, 1.5), False)
        self.assertEqual([f.position for f in team], ["top dropper", "middle dropper", "point"])
        self.assertEqual(team[-1].fly, ranked[0].fly)
        self.assertEqual(len({f.fly.key for f in team}), 3)


class Worth(unittest.TestCase):
    def test_cold_fish_answer_to_stillness(self):
        self.assertGreater(pace_weight(0.0, 4), pace_weight(0.25, 4))
        self.assertGreater(pace_weight(0.25, 14), pace_weight(0.25, 5))
        self.assertEqual(pace_weight(0.25, None), 1.0)

    def test_reach_is_a_share_and_a_fly_in_the_belief_meets_more(self):
        belief = make_plan(day()).chosen
        reach = Reach(belief, 3.5)
        values = [reach.at(d) for d in np.arange(0, belief.bed_m, 0.25)]
        self.assertTrue(all(0 <= v <= 1 for v in values))
        self.assertGreater(reach.at(belief.peak_m - 0.2), reach.at(0.0))
        middle = reach.over_band(2.0, 2.0)
        self.assertAlmostEqual(middle, reach.at(2.0))

    def test_clear_water_lets_fish_look_further_up(self):
        self.assertGreater(upward_reach_m(6.0), upward_reach_m(1.5))
        with self.assertRaises(ValueError):
            upward_reach_m(0)

    def test_hunger_follows_the_water(self):
        warm, cold = (
            Reading(profile=MAY.profile),
            Reading(profile=tuple(replace(p, temperature_c=4.0) for p in MAY.profile)),
        )
        self.assertGreater(hunger(warm, 2, ("rainbow",)), hunger(cold, 2, ("rainbow",)))
        self.assertEqual(hunger(Reading(), 2, ("rainbow",)), 0.7)


class Methods(unittest.TestCase):
    def test_lines_are_offered_from_the_depth_the_trade_gives_them(self):
        # Trade table: intermediate from 0.6 m, type 3 from 1.5 m, type 7 from 5 m.
        self.assertEqual(
            [round(shallowest_useful_m(line), 3) for line in (INTERMEDIATE, TYPE_3, TYPE_7)], [0.6, 1.5, 5.0]
        )

    def set_ups(self, **changes):
        return {s.method: s for s in make_plan(day(**changes)).set_ups}

    def test_a_float_rig_says_how_far_off_the_bottom(self):
        rig = self.set_ups()["float"]
        told = next(r.sentence for r in rig.reasons if r.factor == "depth")
        self.assertIn(f"{MAY.water_depth_m - rig.float_hang_m:.1f} m off the bottom", told)
        self.assertLess(rig.float_hang_m, MAY.water_depth_m)

    def test_a_strong_wind_leaves_less_of_a_float(self):
        # Trade: a cross-wind bows the line and drags an indicator unnaturally.
        def beside(wind):
            found = self.set_ups(reading=replace(MAY, wind_m_s=wind, wind_from_deg=135.0))
            return found["float"].relative / found["intermediate"].relative if "float" in found else 0.0

        self.assertLess(beside(10.0), 0.85 * beside(5.5))

    def test_deeper_float_rigs_are_cast_closer(self):
        shallow = replace(MAY, profile=MAY.profile[:3], water_depth_m=2.5)
        near = self.set_ups()["float"].cast_m
        far = self.set_ups(reading=shallow)["float"].cast_m
        self.assertLess(near, far)

    def test_a_float_leader_has_a_short_butt(self):
        # Trade: a short butt of 2 to 3 ft above the float, level below.
        butt = self.set_ups()["float"].leader.sections[0]
        self.assertLessEqual(m_to_feet(butt.length_m), 3.0001)

    def test_a_sink_tip_stays_within_tip_and_leader(self):
        # Trade: a sink tip's depth is bounded by tip plus leader; the rest floats.
        plan = make_plan(day(lines=(FLOATING, TIP), rules=Rules(max_flies=1)))
        tip = next(s for s in plan.set_ups if s.method == "sink-tip")
        self.assertLessEqual(tip.estimate_m, tip.leader.length_m + TIP.tip_length_m)
        self.assertLess(tip.low_m, tip.high_m)

    def test_nymph_leaders_are_at_least_twelve_feet(self):
        # Trade: never less than 12 ft near the surface.
        for flies in (1, 2, 3):
            plan = make_plan(day(lines=(FLOATING,), rules=Rules(max_flies=flies)))
            for s in some(s for s in plan.set_ups if s.method in ("nymphs", "dry")):
                self.assertGreaterEqual(m_to_feet(s.leader.length_m), 12 - 1e-9)

    def test_an_empty_kind_of_fly_rules_the_method_out(self):
        sunk = tuple(f for f in STARTER_FLIES if not f.surface)
        told = {r.what: r for r in make_plan(day(flies=sunk)).ruled_out}
        self.assertEqual(told["Dry fly"].kind, "kit")
        weighted = tuple(f for f in STARTER_FLIES if f.weight == "weighted")
        self.assertTrue(any(s.count_s is not None for s in make_plan(day(flies=weighted)).set_ups))

    def test_no_floating_line(self):
        told = {r.what: r.kind for r in make_plan(day(lines=(INTERMEDIATE, TYPE_3))).ruled_out}
        self.assertEqual((told["Float rig"], told["Dry fly"], told["Slow nymphs"]), ("kit", "kit", "kit"))

    def test_the_longest_count_is_a_minute_and_a_half(self):
        for s in some(self.set_ups(reading=replace(MAY, water_depth_m=6.0)).values()):
            self.assertLessEqual(s.count_s or 0, 90)

    def test_a_named_line_keeps_its_name(self):
        own = Line(key="own", family="intermediate", label_ips=1.2, name="The green one")
        plan = make_plan(day(lines=(FLOATING, own)))
        self.assertIn("The green one", [s.title for s in plan.set_ups] + [r.what for r in plan.ruled_out])

    def test_comfortable_cast_is_not_overrun(self):
        for s in some(self.set_ups(angler=Angler(cast_m=12.0)).values()):
            self.assertLessEqual(s.cast_m, 12.0)


class Mirror(unittest.TestCase):
    def test_the_other_hemisphere_half_a_year_on_is_the_same_plan(self):
        # Same sun (position left out), same season, same reading: only the calendar and the hemisphere differ.
        north = replace(day().water, latitude_deg=None, longitude_deg=None)
        south = replace(north, hemisphere="south")
        may = make_plan(day(datetime(2026, 5, 15, 12, tzinfo=UTC), water=north))
        november = make_plan(day(datetime(2026, 11, 14, 12, tzinfo=UTC), water=south))
        self.assertEqual([s.method for s in may.set_ups], [s.method for s in november.set_ups])
        np.testing.assert_allclose(may.chosen.profile, november.chosen.profile, rtol=0.1)

    def test_the_order_of_lines_and_flies_does_not_matter(self):
        there = make_plan(day())
        back = make_plan(day(lines=day().lines[::-1]))
        self.assertEqual([s.title for s in there.set_ups], [s.title for s in back.set_ups])

    def test_a_neutral_factor_changes_nothing(self):
        # A leap is no rise, and no rises noted is flat: the belief stays cell for cell.
        plain = make_plan(day()).chosen.mass
        leaping = make_plan(day(sightings=(Sighting(abundance="many", rise="leap"),))).chosen.mass
        np.testing.assert_allclose(plain, leaping)
