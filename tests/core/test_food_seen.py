"""Throat samples, signs, the water's own year and the hatch calendar."""

import itertools
import math
import unittest
from datetime import UTC, date, datetime, timedelta

import numpy as np
from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import dirichlet_multinomial

from stillthread.core.food.available import PRIOR_SIGHTINGS, available_food, posterior
from stillthread.core.food.calendar import WEEKS, food_calendar
from stillthread.core.food.catalogue import BY_KEY, CATALOGUE
from stillthread.core.food.keyed import hook_for_length, keyed_on
from stillthread.core.food.prey import COLOURS, FAMILIES
from stillthread.core.food.season import USUAL_YEAR, WaterYear, degree_days, month_weight, season_shift_days
from stillthread.core.food.seen import BETWEEN_FISH, SampleItem, Sighting, ThroatSample, sample_counts
from stillthread.core.food.where import depth_density, food_density
from stillthread.core.noted.water import SurfaceRead, Water
from stillthread.core.reading.means import water_year
from stillthread.core.water.year import guessed_year, year_curve

MAY = datetime(2026, 5, 15, 12, tzinfo=UTC)
KEYS = tuple(BY_KEY)


def sample(*items):
    return ThroatSample(tuple(SampleItem(*item) for item in items))


class Catalogue(unittest.TestCase):
    def test_every_entry_is_whole(self):
        for prey in CATALOGUE:
            with self.subTest(prey.key):
                self.assertTrue(prey.source and prey.habitat and prey.about)
                self.assertEqual(len(prey.months), 12)
                self.assertTrue(0.6 < max(prey.months) <= 1.0 and min(prey.months) >= 0)
                self.assertTrue(set(prey.colours) <= set(COLOURS) and prey.colours)
                self.assertTrue(set(prey.families) <= set(FAMILIES) and prey.families)
                self.assertLess(prey.size_mm[0], prey.size_mm[1])
                self.assertGreaterEqual(prey.hooks[0], prey.hooks[1])
                self.assertTrue(all(stage.movement and stage.layers for stage in prey.stages))

    def test_sizes_the_trade_names(self):
        # Trade: bloodworm can pass 19 mm; small scuds 3 mm, large ones 16 to 19; hooks 8-12 for larvae, 10-18 for pupae.
        self.assertGreater(BY_KEY["chironomid-larva"].size_mm[1], 19)
        self.assertEqual(BY_KEY["scud"].size_mm, (3, 19))
        self.assertEqual(BY_KEY["chironomid-larva"].hooks, (12, 8))
        self.assertEqual(BY_KEY["chironomid-pupa"].hooks, (18, 10))

    def test_months_the_trade_names(self):
        def best(key):
            return {i + 1 for i, m in enumerate(BY_KEY[key].months) if m > 0.85}

        self.assertTrue(best("caddis") <= {6, 7, 8, 9})  # late spring to autumn
        self.assertTrue(best("damsel-nymph") <= {5, 6, 7})  # late spring to midsummer
        self.assertTrue({2, 3, 10, 11, 12} & best("scud"))  # early spring and late autumn
        self.assertTrue(best("fry") <= {7, 8, 9, 10})  # midsummer to autumn
        self.assertTrue(best("daphnia") <= {6, 7, 8, 9})  # summer


class Samples(unittest.TestCase):
    def test_items_of_one_fish_are_alike(self):
        # Dirichlet-multinomial (Mosimann 1962): n items vary as n_eff independent ones would. Checked against scipy's
        # own variance for a share p and precision A: Var(X/n) = p (1-p) / n_eff.
        p = 0.3
        for n in (1, 4, 20, 200):
            alpha = [BETWEEN_FISH * p, BETWEEN_FISH * (1 - p)]
            variance = dirichlet_multinomial(alpha, n).cov()[0, 0] / n**2
            effective = sum(sample_counts(sample(("scud", n))).values())
            self.assertAlmostEqual(variance, p * (1 - p) / effective, places=10)

    def test_posterior_is_the_dirichlet_mean(self):
        # By hand: shares 0.5 and 0.5 worth 4 in all, and 6 seen of the first: (2 + 6) / 10.
        self.assertAlmostEqual(posterior({"a": 0.5, "b": 0.5}, [{"a": 6.0}])["a"], 0.8)

    def test_a_crammed_throat_counts_at_most_eleven(self):
        self.assertLess(sum(sample_counts(sample(("daphnia", 4000))).values()), 11)
        self.assertAlmostEqual(sum(sample_counts(sample(("scud", 1))).values()), 1.0)

    def test_digested_food_counts_half(self):
        both = sample_counts(sample(("scud", 4, None, None, "live"), ("caddis", 4, None, None, "digested")))
        self.assertAlmostEqual(both["scud"], 2 * both["caddis"])

    def test_prey_coughed_up_says_more_than_prey_in_the_weed(self):
        def share(evidence):
            seen = (Sighting(abundance="some", prey="scud", evidence=evidence),)
            return available_food(MAY, "north", sightings=seen).share["scud"]

        self.assertLess(share("weed-sample"), share("seen"))
        self.assertLess(share("seen"), share("coughed-up"))

    @given(st.lists(st.tuples(st.sampled_from(KEYS), st.integers(1, 60), st.booleans()), min_size=1, max_size=5))
    def test_order_changes_nothing_at_all(self, rows):
        seen = [Sighting(abundance="some", prey=key) for key, _, _ in rows]
        samples = [sample((key, n, None, None, "live" if fresh else "digested")) for key, n, fresh in rows]
        first = available_food(MAY, "north", sightings=tuple(seen), samples=tuple(samples)).share
        for order in itertools.islice(itertools.permutations(range(len(rows))), 6):
            again = available_food(
                MAY, "north", sightings=tuple(seen[i] for i in order), samples=tuple(samples[i] for i in order)
            ).share
            self.assertEqual(first, again)

    def test_items_of_a_sample_may_come_in_any_order(self):
        items = (("scud", 3), ("daphnia", 50), ("scud", 2, 8.0, "olive", "digested"))
        self.assertEqual(sample_counts(sample(*items)), sample_counts(sample(*items[::-1])))

    def test_more_of_a_prey_never_lowers_its_share(self):
        shares = [
            available_food(MAY, "north", samples=(sample(("scud", n), ("caddis", 2)),)).share["scud"]
            for n in (1, 5, 25, 125)
        ]
        self.assertEqual(shares, sorted(shares))

    def test_it_says_what_moved_it_and_by_how_much(self):
        seen = (Sighting(abundance="many", rise="bow-wave"), Sighting(abundance="few", prey="scud"))
        food = available_food(MAY, "north", sightings=seen)
        first = food.moves[0]
        self.assertEqual(first.prey, "fry")
        # Without the bow waves: the prior's share times four over four plus the one scud.
        self.assertAlmostEqual(first.without, PRIOR_SIGHTINGS * food.season_share["fry"] / (PRIOR_SIGHTINGS + 1))
        self.assertAlmostEqual(first.with_it, food.share["fry"])
        self.assertIn("Bow waves, many: fry from", first.sentence)
        self.assertAlmostEqual(food.counted, 9.0)

    def test_a_leap_moves_nothing(self):
        self.assertEqual(available_food(MAY, "north", sightings=(Sighting(abundance="many", rise="leap"),)).moves, ())

    def test_signs_speak_for_their_food(self):
        # Trade: shucks on the surface, spiders' webs, swallows feeding.
        for sign, keys in (
            ("shucks", {"chironomid-pupa"}),
            ("swallows", {"chironomid-adult"}),
            ("diving-birds", {"fry"}),
        ):
            top = available_food(MAY, "north", sightings=(Sighting(abundance="many", sign=sign),)).top(1)[0].key
            self.assertIn(top, keys)


class Choice(unittest.TestCase):
    def test_mixed_tiny_items_are_not_keyed(self):
        # Trade: several prey kinds of tiny size in one sample mean the fish is keyed on nothing.
        mixed = keyed_on((sample(("daphnia", 6, 2.0), ("chironomid-pupa", 4, 4.0), ("scud", 3, 3.5)),))
        self.assertEqual(mixed.state, "not-keyed")
        self.assertIn("Not keyed", mixed.sentence)
        self.assertIsNone(mixed.match)

    def test_one_kind_is_keyed_and_its_size_is_the_thing_to_match(self):
        found = keyed_on(
            (sample(("chironomid-pupa", 18, 9.0, "black"), ("chironomid-pupa", 5, 12.0, "olive"), ("scud", 2, 8.0)),)
        )
        self.assertEqual((found.state, found.match.prey, found.match.size_mm), ("keyed", "chironomid-pupa", 9.0))
        self.assertEqual(found.match.colours, ("black", "olive"))
        self.assertTrue(set(found.match.hooks) <= {14, 16})

    def test_a_few_items_say_nothing(self):
        self.assertEqual(keyed_on((sample(("scud", 3)),)).state, "too-few")
        self.assertIsNone(keyed_on(()))

    def test_larger_food_never_gets_a_smaller_hook(self):
        for prey in CATALOGUE:
            sizes = np.linspace(*prey.size_mm, 12)
            hooks = [max(hook_for_length(prey.key, s)) for s in sizes]
            self.assertEqual(hooks, sorted(hooks, reverse=True), prey.key)


class Where(unittest.TestCase):
    Z = (np.arange(120) + 0.5) * 0.1

    def test_daphnia_lie_deeper_in_sun(self):
        # Trade: deeper in sun, rises in dull light.
        def middle(light):
            return float(
                np.average(
                    self.Z,
                    weights=depth_density(
                        prey=BY_KEY["daphnia"], depths_m=self.Z, bed_m=12, place_kind="open-water", easy_light_m=light
                    ),
                )
            )

        self.assertLess(middle(0.0), middle(2.0))
        self.assertLess(middle(2.0), middle(6.0))

    def test_snails_seen_adrift_are_at_the_top_those_in_the_weed_are_not(self):
        # Trade: on the weed; in the film when they migrate.
        def top(evidence):
            seen = Sighting(prey="snail", abundance="many", evidence=evidence)
            food = available_food(datetime(2026, 8, 15, 12, tzinfo=UTC), "north", 17.0, sightings=(seen,))
            density, _ = food_density({"snail": 1.0}, self.Z, 3.0, "weed-edge", up=food.up)
            return float(density[self.Z < 0.5].sum())

        self.assertGreater(top("seen"), 0.55)
        self.assertLess(top("weed-sample"), 0.35)
        self.assertLess(top("coughed-up"), 0.35)

    def test_quiet_rises_speak_for_the_fly_that_is_on_the_water(self):
        sips = Sighting(rise="sip", abundance="many")
        duns = Sighting(prey="mayfly", abundance="many", evidence="hatch")
        alone, both = (available_food(MAY, "north", 14.0, sightings=seen).share for seen in ((sips,), (sips, duns)))
        self.assertGreater(alone["chironomid-adult"], alone["mayfly"])
        self.assertGreater(both["mayfly"], 0.6)

    def test_food_over_depth_keeps_its_sum(self):
        shares = available_food(MAY, "north").share
        density, brings = food_density(shares, self.Z, 6.0, "weed-edge")
        self.assertAlmostEqual(float(density.sum()), math.fsum(brings.values()))
        self.assertLessEqual(float(density.sum()), 1.0)
        self.assertEqual(float(density[self.Z > 6].sum()), 0.0)


def steady_year(hemisphere, mean, swing, readings=20):
    peak = 215 if hemisphere == "north" else 32
    curve = tuple(max(0.0, mean + swing * math.cos(2 * math.pi * (d - peak) / 365)) for d in range(1, 366))
    return WaterYear(hemisphere, curve, (1.5,) * 365, readings)


class OwnYear(unittest.TestCase):
    def test_without_readings_it_is_the_guess_and_says_so(self):
        curve = year_curve((), "north", 54.0)
        mean, swing = guessed_year("north", 54.0)
        self.assertAlmostEqual(curve.at(215), mean + swing)
        self.assertGreater(curve.spread_c(215), 3)

    def test_a_season_of_readings_is_found_again(self):
        # A known cosine read on 40 days: the least-squares limit of the regression, within 0.4 °C of the truth.
        truth = [(d, 12 + 9 * math.cos(2 * math.pi * (d - 222) / 365)) for d in range(5, 365, 9)]
        curve = year_curve(tuple(truth), "north", 60.0)
        for day, value in truth:
            self.assertAlmostEqual(curve.at(day), value, delta=0.4)
        self.assertLess(curve.spread_c(180), 1.8)

    def test_order_of_readings_does_not_matter(self):
        truth = [(30, 4.0), (120, 10.0), (220, 19.0), (300, 11.0)]
        forward, backward = year_curve(tuple(truth), "north"), year_curve(tuple(truth[::-1]), "north")
        self.assertAlmostEqual(forward.at(150), backward.at(150), places=9)

    def test_the_south_is_warm_in_february(self):
        curve = year_curve((), "south", -42.0)
        self.assertGreater(curve.at(33), curve.at(215) + 8)

    def test_degree_days_of_an_even_year(self):
        # Closed form: 10 °C all year over a base of 4 °C is 6 °C d a day.
        even = WaterYear("north", (10.0,) * 365, (1.0,) * 365, 9)
        self.assertAlmostEqual(float(degree_days(even, 4.0)[99]), 600.0)
        self.assertAlmostEqual(float(degree_days(even, 4.0)[-1]), 6.0 * 365)
        self.assertEqual(float(degree_days(even, 12.0)[-1]), 0.0)

    def test_a_warm_spring_brings_the_hatch_forward(self):
        damsel = BY_KEY["damsel-nymph"]
        warm, cold = steady_year("north", 13.0, 8.0), steady_year("north", 8.0, 7.0)
        self.assertGreater(season_shift_days(damsel, warm, MAY), 5)
        self.assertLess(season_shift_days(damsel, cold, MAY), -5)
        self.assertEqual(season_shift_days(damsel, USUAL_YEAR, MAY), 0.0)
        self.assertEqual(season_shift_days(BY_KEY["scud"], warm, MAY), 0.0)

    def test_the_usual_year_is_not_moved(self):
        usual = WaterYear("north", USUAL_YEAR.surface_c, USUAL_YEAR.spread_c, 12)
        for month in range(1, 13):
            when = datetime(2026, month, 12, 12, tzinfo=UTC)
            self.assertAlmostEqual(season_shift_days(BY_KEY["chironomid-pupa"], usual, when), 0.0, delta=1.0)

    def test_autumn_goes_by_the_calendar(self):
        warm = steady_year("north", 14.0, 8.0)
        october = datetime(2026, 10, 10, 12, tzinfo=UTC)
        self.assertEqual(season_shift_days(BY_KEY["caddis"], warm, october), 0.0)

    def test_hemispheres_mirror_each_other(self):
        north, south = steady_year("north", 12, 8), steady_year("south", 12, 8)
        a = season_shift_days(BY_KEY["mayfly"], north, datetime(2026, 5, 1, tzinfo=UTC))
        b = season_shift_days(BY_KEY["mayfly"], south, datetime(2026, 10, 31, tzinfo=UTC))
        self.assertAlmostEqual(a, b, delta=2.0)

    def test_the_plan_takes_the_shift(self):
        water = Water(
            name="w",
            max_depth_m=8,
            hemisphere="north",
            places=(),
            latitude_deg=54.0,
            longitude_deg=-2.0,
            surface_history=tuple(
                SurfaceRead(date(2026, 1, 1) + timedelta(days=d - 1), 15.0) for d in range(60, 135, 5)
            ),
        )
        year = water_year(water)
        self.assertTrue(year.known)
        pupa = BY_KEY["damsel-nymph"]
        shift = season_shift_days(pupa, year, MAY)
        self.assertGreater(month_weight(pupa, MAY, "north", shift), month_weight(pupa, MAY, "north"))


class YearOfFood(unittest.TestCase):
    def test_rows_weeks_and_words(self):
        calendar = food_calendar(USUAL_YEAR, 2026, MAY)
        self.assertEqual(len(calendar.rows), len(CATALOGUE) - 1)
        for row in calendar.rows:
            self.assertEqual(len(row.weight), WEEKS)
            self.assertTrue(all(0 <= w <= 1 for w in row.weight))
        self.assertIn("guessed from its latitude", calendar.sentence)

    def test_hatches_peak_when_the_trade_says(self):
        rows = {row.key: row for row in food_calendar(USUAL_YEAR, 2026, MAY).rows}
        peak = lambda key: rows[key].weight.index(max(rows[key].weight)) / WEEKS * 12  # noqa: E731
        self.assertTrue(3 <= peak("chironomid-pupa") <= 7)
        self.assertTrue(5 <= peak("damsel-nymph") <= 7)
        self.assertTrue(5 <= peak("caddis") <= 9)

    def test_the_south_is_half_a_year_on(self):
        north = food_calendar(steady_year("north", 11, 8), 2026, MAY).rows
        south = food_calendar(steady_year("south", 11, 8), 2026, MAY).rows
        for a, b in zip(north, south, strict=True):
            for week in range(WEEKS):
                self.assertAlmostEqual(a.weight[week], b.weight[(week + 26) % WEEKS], delta=0.12)

    def test_records_raise_their_weeks_and_no_others(self):
        plain = {r.key: r for r in food_calendar(USUAL_YEAR, 2026, MAY).rows}
        told = {r.key: r for r in food_calendar(USUAL_YEAR, 2026, MAY, ((20, "caddis", 8.0),)).rows}
        self.assertGreater(told["caddis"].weight[2], plain["caddis"].weight[2] + 0.4)
        self.assertAlmostEqual(told["caddis"].weight[30], plain["caddis"].weight[30], delta=0.01)
        self.assertEqual(told["scud"], plain["scud"])
        self.assertEqual(told["caddis"].recorded, (2,))
