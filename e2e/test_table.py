"""The table of sheets as one works in a spreadsheet; the person's own account; projects that rest."""

from __future__ import annotations

from django.contrib.auth import get_user_model
from playwright.sync_api import Locator, expect

from jolly_core.model import Sheet
from jolly_server.projects.models import JournalEntry
from jolly_server.projects.store import load_rows

from .base import Story


class TableStory(Story):
    def setUp(self) -> None:
        super().setUp()
        self.sign_in(self.page, "p/kiln-2/brief/sheets")
        self.grid = self.page.get_by_role("grid", name="Sheets")
        expect(self.grid.get_by_role("row").nth(9)).to_be_visible()

    def cell(self, words: str, key: str) -> Locator:
        return self.grid.get_by_role("row").filter(has_text=words).locator(f"[data-key={key}]")

    def sheets(self) -> dict[str, Sheet]:
        return {s.number: s for s in load_rows("kiln-2").sheets.values()}

    def stored_after(self) -> object:
        return self.page.expect_response(lambda r: r.url.endswith("/edits") and r.status == 200)

    def edits(self) -> int:
        return JournalEntry.objects.filter(project_id="kiln-2").count()

    def test_typing_moves_on_and_a_range_is_filled_down_as_one_edit(self) -> None:
        page = self.page
        self.cell("Loading auger, power", "subtitle").click()
        page.keyboard.type("Auger 1")
        with self.stored_after():
            page.keyboard.press("Enter")
        expect(self.cell("Loading auger, power", "subtitle")).to_have_text("Auger 1")
        page.keyboard.press("ArrowUp")
        for _ in range(2):
            page.keyboard.press("Shift+ArrowDown")
        before = self.edits()
        with self.stored_after():
            page.keyboard.press("Control+d")
        self.assertEqual(
            {n: s.subtitle for n, s in self.sheets().items() if s.subtitle},
            dict.fromkeys(["10", "11", "12"], "Auger 1"),
        )
        self.assertEqual(self.edits(), before + 1)
        with self.stored_after():
            page.keyboard.press("Delete")
        self.assertFalse(any(s.subtitle for s in self.sheets().values()))
        page.get_by_role("button", name="Undo").click()
        expect(self.cell("Incoming supply", "subtitle")).to_have_text("Auger 1")

    def test_a_choice_that_is_none_changes_nothing_of_the_block(self) -> None:
        before = self.edits()
        self.cell("Loading auger, power", "function_id").click()
        self.paste(self.page, "=K2\n=NOWHERE")
        expect(self.page.get_by_text("“=NOWHERE” is none of the choices of Function.")).to_be_visible()
        self.assertEqual(self.edits(), before)

    def test_a_block_pasted_over_the_last_row_goes_on_in_new_sheets(self) -> None:
        self.cell("Parts list", "number").click()
        with self.stored_after(), self.stored_after():
            self.paste(self.page, "96\tList of parts\n97\tSpares\n98\tDrawings of others")
        expect(self.grid).to_contain_text("Drawings of others")
        titles = {n: s.title for n, s in self.sheets().items() if n in ("96", "97", "98")}
        self.assertEqual(titles, {"96": "List of parts", "97": "Spares", "98": "Drawings of others"})

    def test_sorted_filtered_and_without_a_column(self) -> None:
        page = self.page
        self.grid.get_by_role("columnheader", name="Title", exact=True).click()
        expect(self.grid.get_by_role("row").nth(1)).to_contain_text("=K2+KP2-KF1 I0.4 to I0.7")
        self.grid.get_by_role("columnheader", name="Title", exact=True).click()
        expect(self.grid.get_by_role("row").nth(1)).to_contain_text("Turner carriage")
        page.get_by_label("Filter sheets").fill("loading auger control")
        expect(self.grid.get_by_role("row")).to_have_count(2)
        page.get_by_label("Filter sheets").fill("")
        self.grid.get_by_role("button", name="Choose columns").click()
        page.get_by_role("menuitem", name="Second line").click()
        page.keyboard.press("Escape")
        expect(self.grid.get_by_role("columnheader", name="Second line")).to_have_count(0)
        page.reload()
        expect(self.grid.get_by_role("columnheader", name="Title", exact=True)).to_be_visible()
        expect(self.grid.get_by_role("columnheader", name="Second line")).to_have_count(0)

    def test_several_are_set_at_once_and_one_is_duplicated(self) -> None:
        page = self.page
        for number in ("1", "2", "3"):
            self.grid.get_by_label(f"Select {number}", exact=True).click()
        inspector = page.get_by_role("complementary", name="Inspector")
        expect(inspector).to_contain_text("3 sheets")
        inspector.get_by_label("Size").click()
        with self.stored_after():
            page.get_by_role("option", name="A3").click()
        self.assertEqual([self.sheets()[n].size for n in ("1", "2", "3", "30")], ["A3", "A3", "A3", "A4"])
        for number in ("1", "2", "3", "30"):
            self.grid.get_by_label(f"Select {number}", exact=True).click()
        inspector.get_by_label("As number").fill("61")
        with self.stored_after():
            inspector.get_by_role("button", name="Duplicate").click()
        project = load_rows("kiln-2")
        copy = self.sheets()["61"]
        self.assertEqual(len(project.symbols_on(copy.id)), len(project.symbols_on(self.sheets()["30"].id)))


class AccountStory(Story):
    def test_a_person_changes_their_password_and_comes_in_with_the_new_one(self) -> None:
        page = self.at_the_door()
        get_user_model().objects.create_user("ruth", password="barley-and-kiln-7")
        page.get_by_label("Name", exact=True).fill("ruth")
        page.get_by_label("Password").fill("barley-and-kiln-7")
        page.get_by_role("button", name="Sign in").click()
        page.get_by_role("link", name="Password").click()
        page.get_by_label("Password now").fill("barley-and-kiln-7")
        page.get_by_label("New password", exact=True).fill("turner-carriage-9")
        page.get_by_label("New password again").fill("another")
        page.get_by_role("button", name="Change password").click()
        expect(page.get_by_role("alert")).to_contain_text("not the same both times")
        page.get_by_label("New password again").fill("turner-carriage-9")
        page.get_by_role("button", name="Change password").click()
        expect(page.get_by_role("alert")).to_contain_text("Your password is changed.")
        page.get_by_role("link", name="To the projects").click()
        page.get_by_role("button", name="Sign out").click()
        page.get_by_label("Name", exact=True).fill("ruth")
        page.get_by_label("Password").fill("turner-carriage-9")
        page.get_by_role("button", name="Sign in").click()
        expect(page.get_by_text("You have no project yet.")).to_be_visible()

    def test_an_archived_project_is_read_and_not_changed(self) -> None:
        page = self.at_the_door()
        page.get_by_role("button", name="Open the demo project").click()
        page.get_by_role("button", name="More for Kiln 2").click()
        page.get_by_role("menuitem", name="Archive").click()
        expect(page.get_by_role("link", name="Kiln 2")).to_have_count(0)
        page.get_by_role("button", name="Archived").click()
        page.get_by_role("link", name="Kiln 2").click()
        expect(self.symbols(page).first).to_be_visible()
        expect(page.get_by_text("archived", exact=True)).to_be_visible()
        expect(page.get_by_role("button", name="Add a sheet", exact=True)).to_have_count(0)
        expect(page.get_by_role("complementary", name="Inspector").get_by_label("Title")).to_be_disabled()

    def test_a_file_of_an_older_version_comes_in_and_says_so(self) -> None:
        page = self.at_the_door()
        page.get_by_role("button", name="Open the demo project").click()
        page.get_by_label("Project file").set_input_files("jolly_core/exchange/tests/version-1.spool.json")
        taken = page.get_by_role("region", name="Import")
        expect(taken).to_contain_text("Grain lift came in: 2 sheets, 1 device")
        expect(taken).to_contain_text("The file was of version 1 and was brought up.")
        taken.get_by_role("link", name="Open it").click()
        expect(self.symbols(page)).to_have_count(1)
