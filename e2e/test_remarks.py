"""What stands on a drawing beside the circuit: notes, arrows, layers, things that move together, other languages."""

from __future__ import annotations

import io
from contextlib import AbstractContextManager

from playwright.sync_api import Locator, Page, Response, expect
from pypdf import PdfReader

from .base import Story


class RemarksStory(Story):
    """A retrofit: what exists and what is new, said in two languages."""

    def edited(self, page: Page) -> AbstractContextManager[object]:
        def is_edit(answer: Response) -> bool:
            return answer.url.endswith("/edits") and answer.ok

        return page.expect_response(is_edit)

    def inspector(self, page: Page) -> Locator:
        return page.get_by_role("complementary", name="Inspector")

    def note(self, page: Page, gx: int, gy: int, words: str) -> None:
        self.place(page, gx, gy, f"note {words}", words)
        page.keyboard.press("Escape")

    def test_a_note_is_turned_an_arrow_points_and_both_move_together_and_are_hidden_as_existing(self) -> None:
        page = self.page
        self.sign_in(page)
        self.new_sheet(page, "60", "Retrofit")
        self.note(page, 40, 40, "Old guard")
        note = page.locator("[data-kind=note]")
        note.click()
        with self.edited(page):
            page.keyboard.press("r")
        expect(self.inspector(page).get_by_label("Read from the right")).to_be_checked()
        self.inspector(page).get_by_label("Height of letters").click()
        with self.edited(page):
            page.get_by_role("option", name="5 mm", exact=True).click()
        page.get_by_test_id("place").click()
        page.keyboard.press("Shift+A")
        page.mouse.click(*self.pixel(page, 44, 36))
        page.mouse.move(*self.pixel(page, 60, 30))
        with self.edited(page):
            page.mouse.click(*self.pixel(page, 60, 30))
        note.click(modifiers=["Shift"])
        with self.edited(page):
            page.keyboard.press("g")
        expect(self.inspector(page).get_by_role("button", name="Ungroup")).to_be_visible()
        page.keyboard.press("Escape")
        before = {f.id: f.x1 for f in self.project().figures.values()}
        with self.edited(page):
            self.drag(page, (39.3, 39), (49.3, 39))
        project = self.project()
        (moved,) = (
            project.notes.values()
            if len(project.notes) == 1
            else [n for n in project.notes.values() if n.text == "Old guard"]
        )
        self.assertEqual((moved.x, moved.rotation, moved.size_mm), (50, 90, 5.0))
        arrow = next(f for f in project.figures.values() if f.kind == "arrow")
        self.assertEqual(arrow.x1, before[arrow.id] + 10)
        page.keyboard.press("Escape")
        page.get_by_test_id("place").click()
        page.keyboard.press("Shift+Y")
        with self.edited(page):
            self.inspector(page).get_by_role("button", name="Add the usual").click()
        existing = self.inspector(page).get_by_role("group", name="Existing")
        expect(self.inspector(page).get_by_role("group", name="By others")).to_be_visible()
        self.inspector(page).get_by_role("button", name="Done").click()
        note.click()
        self.inspector(page).get_by_label("In the layer").click()
        with self.edited(page):
            page.get_by_role("option", name="Existing").click()
        page.keyboard.press("Escape")
        page.keyboard.press("Shift+Y")
        expect(existing).to_contain_text("2 things in it")
        existing.get_by_label("Shown to me").uncheck()
        expect(page.locator("[data-kind=note], [data-kind=figure]")).to_have_count(0)
        existing.get_by_label("Shown to me").check()
        expect(note).to_be_visible()

    def test_a_sheet_is_read_in_german_and_printed_so(self) -> None:
        page = self.page
        self.sign_in(page, "p/kiln-2/brief/languages")
        self.inspector(page).get_by_label("Code of a language").fill("de")
        with self.edited(page):
            page.keyboard.press("Enter")
        expect(self.inspector(page)).to_contain_text("German")
        table = page.get_by_role("grid", name="Texts")
        row = table.get_by_role("row").filter(has=page.get_by_text("Auger run", exact=True))
        row.get_by_role("gridcell").last.click()
        page.keyboard.type("Schnecke läuft")
        with self.edited(page):
            page.keyboard.press("Enter")
        self.assertIn("Schnecke läuft", [w.said for w in self.project().wordings.values()])
        page.get_by_label("Only what is missing").check()
        expect(row).to_have_count(0)
        page.get_by_label("Only what is missing").uncheck()
        row.get_by_role("checkbox").check()
        self.inspector(page).get_by_role("link", name="its sheet").click()
        sheet = page.get_by_test_id("sheet")
        expect(sheet).to_contain_text("Auger run")
        page.get_by_label("Shown in").locator("..").click()
        page.get_by_role("option", name="German").click()
        expect(sheet).to_contain_text("Schnecke läuft")
        sheet_id = page.url.split("/draw/")[1].split("?")[0]
        paper = page.request.get(
            f"{self.live_server_url}/api/projects/kiln-2/drawing.pdf?sheet_id={sheet_id}&language=de"
        )
        words = PdfReader(io.BytesIO(paper.body())).pages[0].extract_text()
        self.assertIn("Schnecke läuft", words)
