import unittest
from datetime import UTC, datetime
from functools import partial

import pandas as pd
import pvlib
import tmm
from hypothesis import given
from hypothesis import strategies as st

from stillthread.core.sky.light import (
    attenuation_band_per_m,
    attenuation_from_secchi,
    can_spot,
    clear_sky_lux,
    cloud_transmission,
    glare_sector_deg,
    light_under_surface_lux,
    looking_deg,
    twilight_depth_m,
)
from stillthread.core.sky.optics import (
    apparent_depth_m,
    clear_view_m,
    reflectance,
    refracted_deg,
    seen_by_fish,
    window_radius_m,
)
from stillthread.core.sky.sun import (
    sun_azimuth_by_hemisphere,
    sun_azimuth_deg,
    sun_day,
    sun_elevation_by_hemisphere,
    sun_elevation_deg,
)
from tests import checks


def instant(text):
    return datetime.fromisoformat(text.replace("Z", "+00:00"))


class Sun(unittest.TestCase):
    def test_check_values(self):
        # pvlib 0.16.1, NREL SPA (Reda & Andreas 2004).
        for entry in checks.of("04_sun", "sun elevation"):
            i, e = entry["inputs"], entry["expected"]
            place = (i["lat"], i["lon"], instant(i["utc"]))
            self.assertAlmostEqual(sun_elevation_deg(*place), e["elevation"], delta=0.05, msg=entry["id"])
            self.assertAlmostEqual(sun_azimuth_deg(*place), e["azimuth"], delta=0.1, msg=entry["id"])

    def test_a_year_against_a_reference_library(self):
        # The same algorithm run afresh over a year at three latitudes; where the sun is nearly overhead bearings swing fast.
        times = pd.date_range("2026-01-05 09:00", "2026-12-31", freq="37D", tz="UTC")
        for lat, lon in ((54.1, -2.4), (-41.2, -71.4), (61.0, 25.0)):
            theirs = pvlib.solarposition.get_solarposition(times, lat, lon)
            for when, row in theirs.iterrows():
                self.assertAlmostEqual(sun_elevation_deg(lat, lon, when), row["elevation"], delta=0.05)
                self.assertAlmostEqual(sun_azimuth_deg(lat, lon, when), row["azimuth"], delta=0.1)

    def test_dawn_and_dusk(self):
        # skyfield 1.55 almanac with de421.
        names = ("civil_dawn", "sunrise", "sunset", "civil_dusk")
        for entry in checks.of("04_sun", "civil dawn"):
            i = entry["inputs"]
            day = sun_day(partial(sun_elevation_deg, i["lat"], i["lon"]), instant(i["window_utc"][0]))
            for name in names:
                found, expected = getattr(day, name), entry["expected"][name]
                with self.subTest(f"{entry['id']} {name}"):
                    if expected is None:
                        self.assertIsNone(found)
                    else:
                        gap = abs((found - instant(expected)).total_seconds())
                        self.assertLessEqual(gap, entry["tolerance"]["seconds"])

    def test_by_hemisphere_the_sun_is_south_of_the_north_at_noon(self):
        noon = datetime(2026, 6, 1, 12, tzinfo=UTC)
        self.assertAlmostEqual(sun_azimuth_by_hemisphere("north", noon), 180, delta=0.01)
        self.assertAlmostEqual(sun_azimuth_by_hemisphere("south", noon) % 360, 0, delta=0.01)

    def test_by_hemisphere_it_rises_in_the_east(self):
        early = datetime(2026, 3, 21, 6, 5, tzinfo=UTC)
        for hemisphere in ("north", "south"):
            self.assertAlmostEqual(sun_azimuth_by_hemisphere(hemisphere, early), 90, delta=3)
            self.assertAlmostEqual(sun_elevation_by_hemisphere(hemisphere, early), 0.7, delta=1)

    def test_bearings_need_a_zone(self):
        with self.assertRaises(ValueError):
            sun_azimuth_deg(50, 0, datetime(2026, 5, 1, 12))


class Surface(unittest.TestCase):
    def test_fresnel_check_values(self):
        # tmm 0.2.0, n = 1.333.
        for entry in checks.of("08_light", "air -> flat water"):
            angle, e = entry["inputs"]["incidence_from_vertical_deg"], entry["expected"]
            self.assertAlmostEqual(refracted_deg(angle), e["refracted_deg"], delta=0.001, msg=entry["id"])
            for found, name in zip(reflectance(angle), ("R", "Rs", "Rp"), strict=True):
                self.assertAlmostEqual(found, e[name], delta=1e-6, msg=entry["id"])

    @given(st.floats(0.1, 89))
    def test_fresnel_against_a_reference_library(self, angle):
        th = angle * 3.141592653589793 / 180
        inside = tmm.snell(1, 1.333, th)
        self.assertAlmostEqual(reflectance(angle)[1], tmm.interface_R("s", 1, 1.333, th, inside), places=9)
        self.assertAlmostEqual(reflectance(angle)[2], tmm.interface_R("p", 1, 1.333, th, inside), places=9)

    def test_window(self):
        for entry in checks.of("08_light", "trout's window"):
            found = window_radius_m(entry["inputs"]["fish_depth_m"])
            self.assertAlmostEqual(found, entry["expected"], delta=1e-6, msg=entry["id"])

    def test_what_the_fish_sees(self):
        # Snell solved by scipy's brentq in the check.
        for entry in checks.of("08_light", "angler seen"):
            i, e = entry["inputs"], entry["expected"]
            x, angle, ray = seen_by_fish(i["height_m"], i["fish_depth_m"], i["distance_m"])
            self.assertAlmostEqual(x, e["x_m"], delta=1e-4, msg=entry["id"])
            self.assertAlmostEqual(angle, e["angle_deg"], delta=1e-3, msg=entry["id"])
            self.assertAlmostEqual(ray, e["ray_elevation_air_deg"], delta=1e-3, msg=entry["id"])

    def test_apparent_depth(self):
        for entry in checks.of("08_light", "apparent depth"):
            i = entry["inputs"]
            found = apparent_depth_m(i["depth_m"], i["sight_from_vertical_deg"])
            expected = entry["expected"]["a_same_horizontal_distance_m"]
            self.assertAlmostEqual(found, expected, delta=1e-6, msg=entry["id"])

    def test_clear_view_ends_where_p_reflection_reaches_a_tenth(self):
        # tmm: Rp at the angle whose tangent is distance over eye height.
        reach = clear_view_m(1.8)
        import math

        angle = math.atan2(reach, 1.8)
        self.assertAlmostEqual(tmm.interface_R("p", 1, 1.333, angle, tmm.snell(1, 1.333, angle)), 0.1, places=6)

    def test_impossible_geometry(self):
        for call in (
            partial(refracted_deg, 91),
            partial(window_radius_m, -1),
            partial(seen_by_fish, 0, 1, 5),
            partial(apparent_depth_m, 1, 90),
            partial(clear_view_m, 0),
        ):
            with self.assertRaises(ValueError):
                call()


class UnderWater(unittest.TestCase):
    def test_secchi_to_attenuation(self):
        # Poole & Atkins 1929 (from memory in the check); published products run from 1.3 to 2.8.
        for entry in checks.of("08_light", "Secchi depth -> PAR"):
            secchi = entry["inputs"]["secchi_m"]
            found = attenuation_from_secchi(secchi)
            self.assertAlmostEqual(found, entry["expected"]["Kd_per_m"], delta=0.02 * found, msg=entry["id"])
            low, high = attenuation_band_per_m(secchi)
            self.assertTrue(low < found < high)

    def test_light_outside_by_the_height_of_the_sun(self):
        # Almanac table: 3.4 lux at the end of civil twilight, some 700 at the horizon, over 100,000 overhead.
        self.assertAlmostEqual(clear_sky_lux(-6), 3.4)
        self.assertTrue(600 < clear_sky_lux(0) < 800)
        self.assertGreater(clear_sky_lux(85), 1e5)

    @given(st.floats(-17, 89), st.floats(0.01, 1), st.floats(0, 7))
    def test_a_higher_sun_means_more_light(self, sun, more, cloud):
        self.assertGreater(light_under_surface_lux(sun + more, cloud), light_under_surface_lux(sun, cloud))

    @given(st.floats(31, 89), st.floats(0.01, 1), st.floats(0, 7))
    def test_cloud_takes_light_away(self, sun, more, cloud):
        # Above some 30° the surface lets the beam through better than light from all over; below it a thin veil of
        # cloud can let more in than a bare low sun, which glances off.
        self.assertLessEqual(light_under_surface_lux(sun, cloud + more), light_under_surface_lux(sun, cloud))

    @given(st.floats(-17, 89), st.floats(0, 8))
    def test_no_more_goes_in_than_falls_on_it(self, sun, cloud):
        self.assertLess(light_under_surface_lux(sun, cloud), clear_sky_lux(sun) * cloud_transmission(cloud))

    def test_noon_light_fades_to_twilight_somewhere(self):
        # Beer-Lambert: 100,000 lux over 3.4 lux is 10.3 e-foldings.
        self.assertAlmostEqual(twilight_depth_m(1e5, 0.5), 20.58, delta=0.01)
        self.assertEqual(twilight_depth_m(1.0, 0.5), 0)
        with self.assertRaises(ValueError):
            twilight_depth_m(1e5, 0)


class Spotting(unittest.TestCase):
    def test_high_bright_sun_and_clear_water(self):
        # Trade: polarised glasses need high bright sun behind you.
        self.assertTrue(can_spot(45, 1, "clear"))
        self.assertFalse(can_spot(15, 0, "clear"))
        self.assertFalse(can_spot(45, 7, "clear"))
        self.assertFalse(can_spot(45, 0, "coloured"))

    def test_look_away_from_the_sun(self):
        self.assertEqual(looking_deg(120), 300)
        self.assertEqual(looking_deg(300), 120)

    @given(st.floats(1, 89), st.floats(0, 359.9))
    def test_the_way_to_look_is_never_in_the_glitter(self, sun, azimuth):
        low, high = glare_sector_deg(sun, azimuth)
        look = looking_deg(azimuth)
        self.assertGreater((look - low) % 360, (high - low) % 360)

    def test_no_glitter_at_night(self):
        self.assertIsNone(glare_sector_deg(-2, 90))
