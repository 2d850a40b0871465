"""Photos from the phone: kept at once, with signal or without, sent once, shown on the day and on the cord, looked after."""

import io

from PIL import Image

from stillthread.formats.picture import LONGEST_SIDE
from stillthread.outings.models import Photo, Picture
from tests.browser.base import WAITING, expect
from tests.browser.test_dark import DarkCase
from tests.formats.test_picture import jpeg, noted


def shot(size=(2400, 1800)):
    """A file as a camera writes it: large, on its side, with the place noted."""
    return {"name": "shot.jpg", "mimeType": "image/jpeg", "buffer": jpeg(size, exif=noted())}


class Photos(DarkCase):
    def fishing(self):
        page = self.at_home()
        self.tap(page, "Fish this now")
        expect(page.get_by_test_id("tally")).to_be_visible()
        return page

    def add(self, page, file=None, within=None):
        with page.expect_file_chooser() as chosen:
            (within or page).locator("button", has_text="Add a photo").click()
        chosen.value.set_files(file or shot())

    def test_of_a_fish_in_the_dark_and_sent_later_once(self):
        page = self.fishing()
        self.dark(page)
        for name in ("Take", "Landed"):
            self.tap(page, name)
        self.add(page, within=page.get_by_role("dialog", name="The fish"))
        sheet = page.get_by_role("dialog", name="Fish", exact=True)
        expect(sheet.get_by_role("img")).to_be_visible()
        sheet.get_by_label("At what depth").fill("2.5")
        sheet.get_by_label("Note").fill("took on the drop")
        sheet.get_by_role("button", name="Save").click()
        page.get_by_role("button", name="Done").click()
        self.tap(page, "Stop fishing")
        photos = page.get_by_test_id("photos")
        expect(photos.get_by_role("button", name="took on the drop")).to_contain_text("waits to be sent")
        expect(photos.get_by_role("img")).to_have_js_property("naturalWidth", LONGEST_SIDE * 3 // 4)
        page.reload()  # in the dark it is still there
        expect(photos.get_by_role("img")).to_be_visible()
        self.assertFalse(Photo.objects.exists())
        self.dark(page, on=False)
        self.until(page, lambda: Picture.objects.count() == 1)
        self.until(page, lambda: page.evaluate(WAITING) == 0)
        expect(photos.get_by_role("button", name="took on the drop")).not_to_contain_text("waits to be sent")
        row = Photo.objects.get()
        self.assertEqual((row.shows, row.depth_m, row.note), ("fish", 2.5, "took on the drop"))
        kept = Image.open(io.BytesIO(bytes(row.picture.jpeg)))
        self.assertEqual(kept.size, (1200, 1600))  # upright
        self.assertFalse(kept.getexif())
        expect(page.locator("[data-layer=photos] image")).to_have_count(1)

    def looking_back(self):
        """Return the page of an ended outing with one photo that has arrived, and its photos."""
        page = self.fishing()
        self.add(page)
        page.get_by_role("dialog", name="Water").get_by_role("button", name="Save").click()
        self.until(page, lambda: Picture.objects.count() == 1)
        self.tap(page, "Stop fishing")
        photos = page.get_by_test_id("photos")
        return page, photos

    def test_deleted_and_back_and_looked_at_on_another_device(self):
        page, photos = self.looking_back()
        photos.get_by_role("button", name="Water").click()
        page.get_by_role("button", name="Delete the photo").click()
        expect(photos.get_by_role("img")).to_have_count(0)
        page.get_by_role("button", name="Undo").click()
        expect(photos.get_by_role("img")).to_have_count(1)
        page.evaluate(
            "() => new Promise((done) => { indexedDB.deleteDatabase('still-thread-pictures').onsuccess = done; })"
        )
        page.reload()
        expect(photos.get_by_role("img")).to_have_js_property("naturalWidth", 240)  # the small one, from the server
        photos.get_by_role("button", name="Water").click()
        expect(page.get_by_role("dialog").get_by_role("img")).to_have_js_property("naturalWidth", 1200)

    def test_an_undo_pressed_while_the_deletion_is_on_its_way_is_no_conflict(self):
        page, photos = self.looking_back()
        expect(photos.get_by_role("img")).to_have_count(1)
        self.until(page, lambda: page.evaluate(WAITING) == 0)
        held = []
        page.route(
            "**/api/outings/rows", lambda route: route.continue_() if held else held.append((route, route.fetch()))
        )
        photos.get_by_role("button", name="Water").click()
        page.get_by_role("button", name="Delete the photo").click()
        self.until(page, lambda: len(held) == 1)
        page.get_by_role("button", name="Undo").click()
        self.until(page, lambda: page.evaluate(WAITING) == 2)  # the deletion's answer is still on its way
        route, answer = held[0]
        route.fulfill(response=answer)
        self.until(page, lambda: page.evaluate(WAITING) == 0)
        expect(photos.get_by_role("img")).to_have_count(1)
        self.assertIsNone(Photo.objects.get().deleted_at)

    def test_what_is_no_picture_is_said_at_once(self):
        page = self.fishing()
        self.add(page, {"name": "shot.jpg", "mimeType": "image/jpeg", "buffer": b"no picture"})
        expect(page.get_by_role("alert")).to_contain_text("cannot be opened as a picture")
        self.add(page, shot((40, 30)))
        expect(page.get_by_role("dialog", name="Water")).to_be_visible()
        expect(page.get_by_role("alert")).to_have_count(0)
