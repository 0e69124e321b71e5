"""Drawing without a mouse, and with many things at once."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from .base import Story


class KeyboardStory(Story):
    """A designer who keeps the hands on the keys."""

    def caret(self, page: Page) -> tuple[int, int]:
        x, y = (page.get_by_test_id("caret").get_attribute("data-at") or "").split(",")
        return int(x), int(y)

    def press(self, page: Page, *keys: str) -> None:
        for key in keys:
            page.keyboard.press(key)

    def test_a_rung_by_keys_alone(self) -> None:
        page = self.page
        self.sign_in(page)
        self.new_sheet(page, "70", "By keys")
        self.assertEqual(self.caret(page), (20, 16))
        self.press(page, *["ArrowLeft"] * 6, "w")
        before = self.revision()
        self.press(page, *["ArrowRight"] * 20, "Enter")
        self.accepted(page, before)
        self.assertEqual(self.caret(page), (34, 16))
        self.press(page, *["ArrowLeft"] * 14)
        for word, name in (("estop", "Emergency stop"), ("lamp", "Lamp")):
            before = self.revision()
            page.keyboard.type(word)
            expect(page.get_by_role("option", selected=True)).to_contain_text(name)
            page.keyboard.press("Enter")
            self.accepted(page, before)
        project = self.project()
        placed = [s for s in project.symbols.values() if project.sheets[s.sheet_id].number == "70"]
        self.assertEqual([(s.definition, s.x, s.y) for s in placed], [("estop", 20, 16), ("lamp", 34, 16)])
        self.assert_canonical(project)

    def test_shift_arrow_goes_to_the_next_thing(self) -> None:
        page = self.page
        self.sign_in(page)
        self.click(page, 14, 34)
        page.keyboard.press("Escape")
        stops = []
        for _ in range(4):
            page.keyboard.press("Shift+ArrowRight")
            stops.append(self.caret(page)[0])
        self.assertEqual(stops, [33, 37, 74, 78])
        page.keyboard.press("Shift+ArrowDown")
        self.assertEqual(self.caret(page), (78, 43))

    def test_escape_leaves_every_tool_without_a_trace(self) -> None:
        page = self.page
        self.sign_in(page)
        painted = page.locator("svg[data-testid=sheet] [data-id]").count()
        for keys in (("w", "ArrowRight", "ArrowRight"), ("/",), ("l",)):
            self.press(page, *keys, "Escape")
            expect(page.locator("[data-look=preview]")).to_have_count(0)
            expect(page.locator("svg[data-testid=sheet] [data-id]")).to_have_count(painted)
        self.assertEqual(self.revision(), 0)

    def test_a_faulty_quick_line_says_why_under_the_line(self) -> None:
        page = self.page
        self.sign_in(page)
        self.click(page, 20, 61)
        self.press(page, "Escape", "/")
        page.get_by_label("Quick line").fill("nc, rocket")
        expect(page.get_by_test_id("quick-line").get_by_role("alert")).to_contain_text("no symbol is called “rocket”")
        page.keyboard.press("Enter")
        expect(page.get_by_text("Item 2: no symbol is called “rocket”").first).to_be_visible()
        expect(page.get_by_label("Quick line")).to_have_value("nc, rocket")
        self.assertEqual(self.revision(), 0)

    def test_a_continuation_is_typed_at_the_end_of_a_wire(self) -> None:
        page = self.page
        self.sign_in(page)
        self.new_sheet(page, "60", "Next")
        self.wire(page, (30, 16), (50, 16))
        before = self.revision()
        self.click(page, 50, 16)
        page.keyboard.press("Escape")
        page.keyboard.type("cont 24")
        page.get_by_role("option", name="Continuation 24 V from 10/D4", exact=True).click()
        self.accepted(page, before)
        mark = page.locator("[data-kind=continuation]")
        expect(mark).to_contain_text("10/D4")
        project = self.project()
        (drawn,) = [c for c in project.continuations.values() if project.sheets[c.sheet_id].number == "60"]
        self.assertEqual((drawn.name, drawn.toward), ("24 V", "right"))


class ManyStory(Story):
    """Marquee, duplicate, turn and swap."""

    def test_a_rung_is_caught_duplicated_and_taken_back(self) -> None:
        page = self.page
        self.sign_in(page)
        first = list(self.project().entities())
        self.fit(page)
        self.drag(page, (29, 29), (80, 38.5))
        selected = page.locator("[data-kind=symbol][data-look=selected]")
        expect(selected).to_have_count(2)
        before = self.revision()
        page.keyboard.press("d")
        caret = page.get_by_test_id("caret").get_attribute("data-at") or ""
        x, y = (int(v) for v in caret.split(","))
        page.mouse.move(*self.pixel(page, x, y + 27))
        expect(page.locator("[data-kind=symbol][data-look=preview]")).to_have_count(2)
        self.click(page, x, y + 27)
        self.accepted(page, before)
        project = self.project()
        self.assert_canonical(project)
        self.assertEqual(len(project.symbols), len([e for k, e in first if k == "symbol"]) + 2)
        self.assertEqual(len(project.devices), len([e for k, e in first if k == "device"]) + 1)
        before = self.revision()
        page.keyboard.press("Control+z")
        self.accepted(page, before)
        self.assertEqual(list(self.project().entities()), first)

    def test_swap_and_turn_act_on_the_selection(self) -> None:
        page = self.page
        self.sign_in(page)
        self.click(page, 35, 34)
        before = self.revision()
        page.keyboard.press("n")
        self.accepted(page, before)
        self.assertIn("contact-nc", [s.definition for s in self.project().symbols.values() if (s.x, s.y) == (33, 34)])
        page.get_by_role("tab", name="Snags").click()
        expect(page.get_by_role("region", name="Ledger")).to_contain_text("no free NC")
        before = self.revision()
        page.keyboard.press("f")
        self.accepted(page, before)
        self.assertTrue(next(s for s in self.project().symbols.values() if (s.x, s.y) == (33, 34)).mirror)


class InspectorStory(Story):
    """What is changed beside the sheet."""

    def test_a_tag_fixed_by_hand_and_a_wire_number_fixed(self) -> None:
        page = self.page
        self.sign_in(page)
        inspector = page.get_by_role("complementary", name="Inspector")
        self.click(page, 76, 16)
        before = self.revision()
        inspector.get_by_label("Tag").fill("QA7")
        inspector.get_by_label("Tag").press("Enter")
        self.accepted(page, before)
        expect(page.locator("[data-kind=table]")).to_contain_text("-QA7")
        expect(page.locator("[data-kind=symbol]").filter(has_text="-QA7")).to_have_count(4)
        self.click(page, 50, 16)
        before = self.revision()
        inspector.get_by_label("Number").fill("77")
        inspector.get_by_label("Number").press("Enter")
        self.accepted(page, before)
        expect(page.locator("[data-kind=number]").filter(has_text="77")).to_have_count(1)
        expect(page.locator("[data-kind=number]").filter(has_text="3012")).to_have_count(1)
        before = self.revision()
        inspector.get_by_label("Type", exact=True).click()
        page.get_by_role("option", name="24 V DC RD").click()
        self.accepted(page, before)
        wire = next(w for w in self.project().wires.values() if w.number == "77")
        self.assertEqual(self.project().wire_types[wire.type_id].colour, "RD")

    def test_a_coil_deleted_leaves_orphans_that_find_a_new_device(self) -> None:
        page = self.page
        self.sign_in(page)
        self.click(page, 76, 16)
        before = self.revision()
        page.keyboard.press("Delete")
        self.accepted(page, before)
        page.get_by_role("tab", name="Snags").click()
        ledger = page.get_by_role("region", name="Ledger")
        expect(ledger).to_contain_text("-QA1 has only contacts: its coil or lead is not drawn.")
        self.place(page, 74, 61, "coil", "Coil")
        self.click(page, 35, 34)
        before = self.revision()
        page.get_by_role("complementary", name="Inspector").get_by_role("button").filter(has_text="-KF4").click()
        self.accepted(page, before)
        expect(page.locator("[data-kind=symbol]").filter(has_text="-KF4")).to_have_count(2)

    def test_what_is_chosen_in_the_ledger_is_deleted_and_brought_back_from_there(self) -> None:
        page = self.page
        self.sign_in(page)
        count = self.symbols(page).count()
        page.get_by_role("tab", name="Devices").click()
        page.get_by_role("gridcell", name="Auger stopped").click()
        for key, left in (("Delete", count - 1), ("Control+z", count)):
            before = self.revision()
            page.keyboard.press(key)
            self.accepted(page, before)
            expect(self.symbols(page)).to_have_count(left)

    def test_a_free_unit_is_put_down_at_the_caret(self) -> None:
        page = self.page
        self.sign_in(page)
        self.click(page, 76, 16)
        page.keyboard.press("ArrowDown")
        for _ in range(44):
            page.keyboard.press("ArrowDown")
        before = self.revision()
        page.get_by_role("button", name="free · place").click()
        self.accepted(page, before)
        placed = max(self.project().symbols.values(), key=lambda s: s.id)
        self.assertEqual((placed.definition, placed.units), ("contact-no", (3,)))


class ShortcutStory(Story):
    """A designer who asks which keys there are, on every bench."""

    BENCHES = ("Brief", "Draw", "Parts", "Terminals", "Cables", "I/O", "Cabinet", "Harness", "Snags", "Issue", "Make")

    def listed(self, page: Page, where: str) -> list[str]:
        """Return the shortcuts that the open list shows for a place."""
        return page.get_by_role("region", name=where, exact=True).locator("kbd").all_inner_texts()

    def test_every_bench_lists_its_keys_and_none_twice(self) -> None:
        page = self.page
        self.sign_in(page)
        for bench in self.BENCHES:
            page.get_by_role("link", name=bench, exact=True).click()
            page.keyboard.press("F1")
            dialog = page.get_by_role("dialog", name="Shortcuts")
            expect(dialog.get_by_role("region", name=bench, exact=True)).to_be_visible()
            keys = self.listed(page, "Everywhere") + self.listed(page, bench)
            self.assertEqual(sorted(set(keys)), sorted(keys), bench)
            self.assertGreater(len(self.listed(page, bench)), 1, bench)
            page.keyboard.press("Escape")
            expect(dialog).to_be_hidden()

    def test_the_keys_do_what_the_list_says_and_the_omnibox_knows_the_words(self) -> None:
        page = self.page
        self.sign_in(page)
        page.keyboard.press("Alt+7")
        expect(page.get_by_role("button", name="Plate", exact=True)).to_have_attribute("aria-pressed", "true")
        page.keyboard.press("o")
        expect(page.get_by_role("button", name="Door", exact=True)).to_have_attribute("aria-pressed", "true")
        page.keyboard.press("Control+k")
        page.keyboard.type("mounting plate")
        page.get_by_role("option", name="Show the mounting plate").click()
        expect(page.get_by_role("button", name="Plate", exact=True)).to_have_attribute("aria-pressed", "true")
        page.keyboard.press("Alt+1")
        expect(page.get_by_role("main", name="Brief")).to_be_visible()
        page.keyboard.press("PageDown")
        page.wait_for_url("**/brief/structure")
