import uuid

from django.core.files.uploadedfile import SimpleUploadedFile

from tests.api.base import WATER, ApiCase

READING = {
    "taken_at": "2026-05-14T09:00:00Z",
    "place": "Shelf",
    "reading": {
        "profile": [{"depth_m": 0, "temperature_c": 12}, {"depth_m": 2, "temperature_c": 11}],
        "water_depth_m": 4,
    },
    "sightings": [{"prey": "scud", "abundance": "few"}],
}


class Waters(ApiCase):
    def test_written_twice_is_one_water(self):
        water_id = self.make_water()
        body = self.call("GET", f"/api/waters/{water_id}")
        del body["id"], body["revision"]
        self.call("PUT", f"/api/waters/{water_id}", body)
        self.assertEqual(len(self.call("GET", "/api/waters")), 1)

    def test_places_left_out_are_gone(self):
        water_id = self.make_water()
        body = self.call("GET", f"/api/waters/{water_id}")
        del body["id"], body["revision"]
        changed = self.call("PUT", f"/api/waters/{water_id}", {**body, "places": body["places"][:1]})
        self.assertEqual([p["name"] for p in changed["places"]], ["Shelf"])

    def test_deleted_and_brought_back(self):
        water_id = self.make_water()
        body = self.call("GET", f"/api/waters/{water_id}")
        del body["id"], body["revision"]
        self.call("DELETE", f"/api/waters/{water_id}", status=204)
        self.refused("GET", f"/api/waters/{water_id}", status=404)
        self.assertEqual(len(self.call("PUT", f"/api/waters/{water_id}", body)["places"]), 2)

    def test_another_anglers_water_is_not_there(self):
        water_id = self.make_water()
        self.make_user("stranger")
        stranger = self.sign_in("stranger")
        places = [{**p, "id": str(uuid.uuid4())} for p in WATER["places"]]
        self.refused("GET", f"/api/waters/{water_id}", status=404, client=stranger)
        self.refused("PUT", f"/api/waters/{water_id}", {**WATER, "places": places}, 404, stranger)
        self.refused("DELETE", f"/api/waters/{water_id}", status=404, client=stranger)
        self.refused("PUT", f"/api/waters/{water_id}/readings/{uuid.uuid4()}", READING, 404, stranger)
        self.assertEqual(self.call("GET", "/api/waters", client=stranger), [])

    def test_faults_at_their_fields(self):
        place = {**WATER["places"][0], "id": str(uuid.uuid4())}
        for changes, field in (
            ({"max_depth_m": -3}, "max_depth_m"),
            ({"latitude_deg": 95, "longitude_deg": 0}, "latitude_deg"),
            ({"time_zone": "Mars/Base"}, "time_zone"),
            ({"places": []}, "places"),
            ({"places": [{**place, "depth_max_m": 90}]}, ""),
            ({"places": [place, {**place, "id": str(uuid.uuid4())}]}, ""),
            ({"latitude_deg": 50.0}, ""),
            ({"surprise": 1}, "surprise"),
            ({"places": [{**place, "kind": "puddle"}]}, "places[0].kind"),
        ):
            body = {**WATER, "places": [place], **changes}
            self.assertIn(field, self.refused("PUT", f"/api/waters/{uuid.uuid4()}", body), changes)


class Readings(ApiCase):
    def setUp(self):
        super().setUp()
        self.water = self.make_water()

    def put(self, **reading):
        body = {**READING, "reading": {**READING["reading"], **reading}}
        return self.refused("PUT", f"/api/waters/{self.water}/readings/{uuid.uuid4()}", body)

    def test_kept_and_read_back(self):
        reading_id = uuid.uuid4()
        for _ in range(2):
            self.call("PUT", f"/api/waters/{self.water}/readings/{reading_id}", READING)
        found = self.call("GET", f"/api/waters/{self.water}/readings")
        self.assertEqual([r["id"] for r in found], [str(reading_id)])
        self.assertEqual(found[0]["reading"]["profile"][1]["temperature_c"], 11)
        self.assertEqual(found[0]["sightings"][0]["prey"], "scud")

    def test_the_waters_own_depth_is_held_to(self):
        self.assertIn(
            "reading.profile[1].depth_m",
            self.put(profile=[{"depth_m": 0, "temperature_c": 12}, {"depth_m": 9, "temperature_c": 8}]),
        )
        self.assertIn("reading.water_depth_m", self.put(water_depth_m=30, profile=[]))
        self.assertIn("reading.wind_m_s", self.put(wind_m_s=111))
        self.assertIn("reading.cloud_oktas", self.put(cloud_oktas=-1))
        self.assertIn("reading.colour", self.put(colour="green"))

    def test_sixty_degrees_celsius_offers_fahrenheit(self):
        told = self.put(profile=[{"depth_m": 0, "temperature_c": 60}])["reading.profile[0].temperature_c"]
        self.assertIn("60 °F", told["hint"])

    def upload(self, data, query="", name="logger.csv"):
        token = self.client.cookies["csrftoken"].value
        return self.client.post(
            f"/api/waters/{self.water}/profile-file{query}",
            {"file": SimpleUploadedFile(name, data)},
            headers={"X-CSRFToken": token},
        )

    def test_a_loggers_file(self):
        answer = self.upload("Tiefe (m);Temperatur (°C)\n0;12,5\n2;11\n".encode())
        self.assertEqual(answer.status_code, 200, answer.content)
        self.assertEqual([p["temperature_c"] for p in answer.json()["points"]], [12.5, 11.0])
        as_f = self.upload(b"0;59\n1;50\n", "?temperature_unit=f").json()
        self.assertEqual([p["temperature_c"] for p in as_f["points"]], [15.0, 10.0])

    def test_a_bad_file_names_its_line_and_a_huge_one_its_size(self):
        told = self.upload(b"depth;temp\n0;12\n9;11\n").json()["errors"][0]
        self.assertEqual((told["path"], told["code"]), ("line 3", "below_bed"))
        huge = self.upload(b"0;12\n" * 300_000)
        self.assertEqual(huge.status_code, 422)
        self.assertIn("2 MB", huge.json()["errors"][0]["message"])
        self.assertEqual(self.upload(b"0;12\n" * 10_000_000).status_code, 413)
        self.assertEqual(self.upload(b"").json()["errors"][0]["code"], "empty")
