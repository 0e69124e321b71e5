"""What is typed is what is meant: words at the caret, the quick line, the omnibox, addresses of what is gone."""

from __future__ import annotations

import re

from playwright.sync_api import expect

from .base import Story


class WordsStory(Story):
    def test_a_rung_is_typed_on_an_empty_ladder(self) -> None:
        """No wire is drawn by hand: the first symbol brings it, and a second button is a new device."""
        page = self.page
        self.sign_in(page)
        self.new_sheet(page, "70", "Typed")
        for gx, typed in ((20, "start"), (36, "start"), (60, "coil")):
            before = self.revision()
            self.click(page, gx, 25)
            page.keyboard.press("Escape")
            page.keyboard.type(typed)
            expect(page.get_by_role("option", selected=True)).to_be_visible()
            page.keyboard.press("Enter")
            self.accepted(page, before)
        project = self.project()
        sheet = next(s for s in project.sheets.values() if s.number == "70")
        symbols = project.symbols_on(sheet.id)
        self.assertEqual([s.definition for s in symbols], ["button-no", "button-no", "coil"])
        self.assertEqual(len({s.device_id for s in symbols}), 3)
        across = sorted((w.x1, w.x2) for w in project.wires_on(sheet.id) if w.y1 == w.y2 == 25)
        self.assertEqual((across[0][0], across[-1][1], len(across)), (sheet.rail_left, sheet.rail_right, 4))
        types = {w.x1: project.wire_types[w.type_id].name for w in project.wires_on(sheet.id) if w.y1 == w.y2 == 25}
        named = ["24 V DC", "Control DC", "Control DC", "0 V DC"]
        self.assertEqual([types[x] for x, _ in across], named, "the ends are of the rails")
        page.keyboard.press("/")
        page.get_by_label("Quick line").fill('no "Start" #BW-C09-24D')
        expect(page.get_by_role("alert")).to_contain_text("is a contactor, but this is drawn as")
        page.get_by_label("Quick line").fill('motor "Auger"')
        before = self.revision()
        self.assertTrue(page.get_by_label("Quick line").input_value())
        page.keyboard.press("Enter")
        self.accepted(page, before)
        self.assertIn("motor", [s.definition for s in self.project().symbols_on(sheet.id)])

    def test_words_win_over_letters(self) -> None:
        """With a wire selected, "lamp" is a lamp, and a letter by itself still locks."""
        page = self.page
        self.sign_in(page)
        wire = page.locator("svg[data-testid=sheet] [data-kind=wire]").first
        wire.click(force=True)
        before = self.revision()
        page.keyboard.type("lamp")
        box = page.get_by_test_id("place-box")
        expect(box.get_by_role("option", selected=True)).to_contain_text("Lamp")
        self.assertEqual(self.revision(), before)
        page.keyboard.press("Escape")
        page.keyboard.type("24v")
        expect(box.get_by_role("option", selected=True)).to_contain_text("Continuation")
        page.keyboard.press("Escape")
        symbol = self.symbols(page).first
        symbol.click(force=True)
        page.keyboard.press("l")
        self.accepted(page, before)

    def test_enter_in_the_omnibox_goes_to_what_is_marked(self) -> None:
        page = self.page
        self.sign_in(page)
        for words, label in (("QA1", "QA1"), ("cabinet bench", "Go to the Cabinet bench")):
            page.keyboard.press("Control+k")
            page.get_by_label("Find or do").fill(words)
            expect(page.get_by_role("option").filter(has_text=label).first).to_be_visible()
            page.keyboard.press("Enter")
            expect(page.get_by_role("option")).to_have_count(0)
        expect(page).to_have_url(re.compile("/cabinet"))

    def test_an_address_of_nothing_says_so(self) -> None:
        page = self.page
        self.sign_in(page, "p/kiln-2/draw/nothing")
        expect(page.get_by_text("This sheet is gone")).to_be_visible()
