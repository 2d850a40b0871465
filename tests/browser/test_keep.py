"""Everything out and in, and an old notebook in, as an angler does it."""

import pathlib
import tempfile

from stillthread.outings.models import Event, Outing
from stillthread.waters.models import Water
from tests.browser.base import DESKTOP, PHONE, BrowserCase, expect

BOOK = """When,Lake,From,To,How,Depth (ft),Landed,Remarks
14/05/2021,Ash Tarn,9:00,13:00,Float,8,3,warm and still
15/05/2021,Ash Tarn,9:00,12:00,Lure,15,0,
16/05/2021,The far pond,9:00,12:00,Lure,15,2,
someday,Ash Tarn,9:00,12:00,Lure,15,2,
17/05/2021,Ash Tarn,9:00,12:00,Lure,bottom,two,
"""


class Keep(BrowserCase):
    def files(self, page, part):
        return page.get_by_test_id(part).locator("input[type=file]")

    def test_a_notebook_with_bad_lines(self):
        page = self.prepared(PHONE, "/log/keep")
        book = page.get_by_test_id("notebook")
        data = {"name": "book.csv", "mimeType": "text/csv", "buffer": BOOK.encode()}
        self.files(page, "notebook").set_input_files(data)
        expect(book.get_by_label("Depth (ft): Means")).to_have_value("depth")
        refused = page.get_by_test_id("refused")
        for says in ("line 4: No water of yours is meant by", "line 5, When: 'someday'", "line 6, Landed: 'two'"):
            expect(refused).to_contain_text(says)
        expect(book.get_by_role("button", name="Take in 2 days")).to_be_visible()
        book.get_by_label("“The far pond” (1 line) is").select_option("Ash Tarn")
        expect(refused).not_to_contain_text("The far pond")
        book.get_by_label("Remarks: Means").select_option("")
        expect(book.get_by_role("button", name="Take in 3 days")).to_be_enabled()
        self.assertFalse(Outing.objects.exists())
        book.get_by_role("button", name="Take in 3 days").click()
        expect(book).to_contain_text("3 days and 5 fish taken in")
        book.get_by_role("link", name="See the log").click()
        expect(page.locator("main li.knot")).to_have_count(3)
        expect(page.locator("main li.knot").last).to_contain_text("3 takes, 3 landed in 4 h")

    def test_out_and_in_again(self):
        page = self.prepared(DESKTOP, "/log/keep")
        with page.expect_download() as download, tempfile.TemporaryDirectory() as folder:
            page.get_by_role("link", name="Save everything").click()
            path = pathlib.Path(folder) / "all.zip"
            download.value.save_as(path)
            Water.objects.filter(owner=self.user).update(name="Another tarn")
            Event.objects.all().delete()
            self.files(page, "archive").set_input_files(path)
            archive = page.get_by_test_id("archive")
            expect(archive).to_contain_text("Waters: 1 here, but different")
            archive.get_by_role("radio", name="Take the file's").check()
            archive.get_by_role("button", name="Take it in").click()
            expect(archive).to_contain_text("1 thing taken in")
            self.assertEqual(Water.objects.get(owner=self.user).name, "Ash Tarn")
            self.files(page, "archive").set_input_files(
                {"name": "x.zip", "mimeType": "application/zip", "buffer": b"no"}
            )
            expect(archive).to_contain_text("no zip archive, or it is damaged")
