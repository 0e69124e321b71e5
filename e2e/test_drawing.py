"""A day at the Draw bench: a power sheet from nothing, circuits repeated and carried over, names, notes, findings."""

from __future__ import annotations

import re
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from playwright.sync_api import Page, expect

from jolly_core.library import definition
from jolly_core.model import Project
from jolly_core.tagging import full_tag, lead_of, tag_on
from jolly_core.wiring import nets_of_sheet, sheet_groups, wire_numbers

from .base import Story


class Drawing(Story):
    @contextmanager
    def edited(self, page: Page) -> Iterator[None]:
        """Wait until what is done in the block was accepted."""
        with page.expect_response(lambda r: r.url.endswith("/edits") and r.status == 200):
            yield

    def zones_sheet(self, page: Page, number: str, title: str) -> str:
        """Add an A3 sheet with zones and return its id."""
        page.get_by_role("button", name="Add a sheet", exact=True).click()
        form = page.get_by_role("form", name="Add a sheet")
        form.get_by_label("Number").fill(number)
        form.get_by_label("Title").fill(title)
        form.get_by_label("Frame").click()
        page.get_by_role("option", name="Zones").click()
        form.get_by_role("button", name="Add", exact=True).click()
        expect(page.get_by_test_id("sheet")).to_contain_text(title)
        sheet = self.sheet(number)
        self.change_size(page, sheet)
        return sheet

    def change_size(self, page: Page, sheet: str) -> None:
        """Give a sheet the size A3, as its table would."""
        csrf = next(c["value"] for c in page.context.cookies() if c["name"] == "spool_csrf")
        edit = {"kind": "change-sheets", "sheets": [{"sheet_id": sheet, "size": "A3"}], "follow": True}
        answer = page.request.post(
            f"{self.live_server_url}/api/projects/kiln-2/edits",
            data={"edit": edit},
            headers={"X-CSRFToken": csrf, "Referer": self.live_server_url},
        )
        self.assertIn(answer.status, (200, 422))
        page.reload()
        expect(page.get_by_test_id("sheet")).to_be_visible()

    def sheet(self, number: str) -> str:
        return next(s.id for s in self.project().sheets.values() if s.number == number)

    def settled(self, page: Page) -> None:
        """Take the focus off fields and wait for previews to go."""
        page.get_by_test_id("place").click()
        expect(page.locator("[data-look=preview]")).to_have_count(0)

    def bus(self, page: Page, types: list[str], *points: tuple[int, int]) -> None:
        """Choose the conductors of a bus and lay it."""
        self.settled(page)
        page.keyboard.press("b")
        page.get_by_label("Conductors of the bus").locator("..").click()
        page.get_by_role("option", name=f"{len(types)} of").click()
        for n, name in enumerate(types, start=1):
            page.get_by_label(f"Type of conductor {n}").locator("..").click()
            page.get_by_role("option", name=name, exact=True).click()
        page.keyboard.press("Escape")
        self.settled(page)
        page.keyboard.press("b")
        for point in points[:-1]:
            page.mouse.move(*self.pixel(page, *point))
            page.mouse.click(*self.pixel(page, *point))
        page.mouse.move(*self.pixel(page, *points[-1]))
        with self.edited(page):
            page.keyboard.press("Enter")

    def usual_types(self, page: Page) -> None:
        """Add the usual wire types of the standard, and go back to the drawing."""
        page.goto(f"{self.live_server_url}/p/kiln-2/brief/wire-types")
        with self.edited(page):
            page.get_by_role("button", name="Usual ones, IEC").click()
        expect(page.get_by_role("grid", name="Wire types")).to_contain_text("Neutral")
        page.goto(f"{self.live_server_url}/p/kiln-2/draw/{self.sheet('30')}")

    def feeders(self, page: Page, motors: list[tuple[str, str]], at: tuple[int, int]) -> None:
        """Put starters down, one for each row of a pasted table of motors."""
        self.settled(page)
        page.keyboard.press("Shift+S")
        page.get_by_role("button", name="Direct starter").click()
        page.get_by_label("From a table").check()
        rows = "\n".join(f"{name}\t{kw}" for name, kw in motors)
        page.get_by_label("Rows from a spreadsheet").fill(f"Motor\tPower kW\n{rows}")
        inspector = page.get_by_role("complementary", name="Inspector")
        expect(inspector).to_contain_text(f"{len(motors)} copies")
        expect(inspector).to_contain_text("BW-M10")
        expect(inspector).to_contain_text("4 kW at 400 V takes about 8.5 A")
        page.mouse.move(*self.pixel(page, *at))
        expect(page.locator("[data-kind=symbol][data-look=preview]").first).to_be_visible()
        with self.edited(page):
            page.mouse.click(*self.pixel(page, *at))

    def ledger_tab(self, page: Page, name: str) -> Any:
        page.get_by_role("tab", name=name).click()
        return page.get_by_role("region", name="Ledger")

    def numbers(self, project: Project, sheet: str) -> dict[str, str]:
        """Return the number of each wire of a sheet by its type's name, joined."""
        groups, numbers = sheet_groups(project, sheet), wire_numbers(project, sheet)
        found: dict[str, set[str]] = {}
        for wire in project.wires_on(sheet):
            name = project.wire_types[wire.type_id].name
            found.setdefault(name, set()).add(numbers.get(groups.of_wire[wire.id], ""))
        return {name: " ".join(sorted(n)) for name, n in found.items()}


class PowerStory(Drawing):
    """A power sheet from nothing: supply, main switch, five feeders from a pasted table."""

    def test_bus_main_switch_and_five_feeders_by_a_table(self) -> None:
        page = self.page
        self.sign_in(page)
        self.usual_types(page)
        sheet = self.zones_sheet(page, "60", "Fans, power")
        self.bus(page, ["Neutral", "Power", "Power", "Power"], (8, 10), (163, 10))
        self.settled(page)
        page.keyboard.press("w")
        page.get_by_label("Wire type").locator("..").click()
        page.get_by_role("option", name=re.compile("^Protective")).click()
        self.settled(page)
        self.wire(page, (8, 26), (163, 26))
        self.click(page, 10, 10)
        page.keyboard.press("Escape")
        with self.edited(page):
            page.keyboard.type("main switch")
            page.keyboard.press("Enter")
        switch = next(s for s in self.project().symbols_on(sheet) if s.definition == "disconnector")
        self.assertEqual(len(switch.units), 4, "it drops onto all its wires at once, and not onto PE")

        motors = [("Kiln fan", "4"), ("Cooling fan", "2,2"), ("Auger", "1.5"), ("Damper", "0.75"), ("Blower", "3")]
        self.feeders(page, motors, (22, 14))
        project = self.project()
        self.assert_canonical(project)
        drawn = project.symbols_on(sheet)
        texts = {project.devices[s.device_id].text for s in drawn if s.definition == "motor"}
        self.assertEqual(texts, {name for name, _ in motors})
        parts = {p.number for d in project.devices.values() if (p := project.part_of(d))}
        self.assertLessEqual({"BW-M10", "BW-M6-3", "BW-M4", "OD-M3"}, parts)
        terminals = [s for s in drawn if definition(s.definition).unit == "terminal"]
        self.assertEqual(len(terminals), 20)
        self.assertEqual(len({s.device_id for s in terminals}), 1, "they stand on one strip")
        self.assertEqual(sum(s.definition == "terminal-earth" for s in terminals), 5)
        self.assertEqual(self.numbers(project, sheet)["Field"], "", "external wires are not numbered")
        tied = [n for n in nets_of_sheet(project, sheet) if sum(len(g.pins) for g in n) >= 6]
        self.assertGreaterEqual(len(tied), 3 + 1, "three phases and PE reach all five feeders")
        expect(page.get_by_test_id("sheet")).to_contain_text("Cooling fan")

    def test_the_turner_carriage_runs_both_ways_and_never_at_once(self) -> None:
        page = self.page
        self.sign_in(page)
        sheet = self.zones_sheet(page, "60", "Turner carriage")
        self.bus(page, ["Power", "Power", "Power", "Protective"], (12, 14), (80, 14))
        self.settled(page)
        page.keyboard.press("Shift+S")
        page.get_by_role("button", name="Reversing starter").click()
        page.get_by_label("Motor", exact=True).fill("Turner carriage")
        page.get_by_label("Power kW").fill("1.5")
        page.mouse.move(*self.pixel(page, 20, 14))
        with self.edited(page):
            page.mouse.click(*self.pixel(page, 20, 14))
        project = self.project()
        coils = {s.device_id: s for s in project.symbols_on(sheet) if s.definition == "coil"}
        contacts = [s for s in project.symbols_on(sheet) if s.definition == "contact-nc"]
        self.assertEqual((len(coils), len(contacts)), (2, 2))
        groups = sheet_groups(project, sheet).of_pin
        for contact in contacts:
            (other,) = [c for id, c in coils.items() if id != contact.device_id]
            joined = {groups[contact.id, 0], groups[contact.id, 1]} & {groups[other.id, 0], groups[other.id, 1]}
            self.assertTrue(joined, "the closed contact of one direction lies before the coil of the other")

        # The coil goes to another sheet: poles, contacts and table refer to its new place at once.
        coil = min(coils.values(), key=lambda s: s.x)
        tag = tag_on(project, project.devices[coil.device_id], project.sheets[sheet])
        poles = next(
            s for s in project.symbols_on(sheet) if s.device_id == coil.device_id and s.definition == "contactor-pole"
        )
        page.goto(f"{self.live_server_url}/p/kiln-2/draw/{sheet}?sel={coil.id}")
        inspector = page.get_by_role("complementary", name="Inspector")
        expect(inspector).to_contain_text(tag)
        inspector.get_by_label("Move to sheet").click()
        with self.edited(page):
            page.get_by_role("option", name="50 Loading auger").first.click()
        expect(page.get_by_test_id("sheet")).to_contain_text("Loading auger, PLC")
        project = self.project()
        self.assertEqual(project.sheets[project.symbols[coil.id].sheet_id].number, "50")
        page.goto(f"{self.live_server_url}/p/kiln-2/draw/{sheet}?sel={poles.id}")
        references = page.locator(f"[data-id='{poles.id}'] text[data-link]")
        expect(references).to_contain_text("50/")
        page.get_by_test_id("place").click()
        page.keyboard.press("j")
        expect(page.get_by_test_id("sheet")).to_contain_text("Loading auger, PLC")


class KeysStory(Drawing):
    """How few keys a latch takes."""

    def test_a_latch_of_eight_symbols_takes_at_most_forty_keys_beside_its_texts(self) -> None:
        page = self.page
        self.sign_in(page)
        self.new_sheet(page, "70", "Latch")
        line = 'nc"Stop",no"Start"|no,coil"Fan run";no@,la"Runs";nc@,la"Stopped"'
        texts = "".join(line.split('"')[1::2])
        page.keyboard.press("/")
        page.keyboard.type(line)
        with self.edited(page):
            page.keyboard.press("Enter")
        expect(self.symbols(page)).to_have_count(8)
        keys = 1 + len(line) - len(texts) + 1
        print(f"\nlatch circuit of {self.symbols(page).count()} symbols with its wires: {keys} keys beside its texts")
        self.assertLessEqual(keys, 40)
        project = self.project()
        self.assert_canonical(project)
        sheet = self.sheet("70")
        coil = next(s for s in project.symbols_on(sheet) if s.definition == "coil")
        contacts = [s for s in project.symbols_on(sheet) if s.definition.startswith("contact")]
        self.assertEqual({s.device_id for s in contacts}, {coil.device_id})
        self.assertEqual(lead_of(project, coil.device_id), coil)


class CarryStory(Drawing):
    """Circuits repeated, copied into another project, kept as a stamp."""

    def test_copied_into_the_other_project_it_follows_that_one_s_habits(self) -> None:
        page = self.page
        self.sign_in(page)
        page.get_by_test_id("place").click()
        page.keyboard.press("Control+a")
        with page.expect_response(lambda r: r.url.endswith("/piece")):
            page.keyboard.press("Control+c")
        expect(page.get_by_text("copied. Ctrl+V puts them down")).to_be_visible()
        other = self.project("dehumidifier")
        sheet = next(s for s in other.sheets_in_order() if s.kind == "schematic")
        page.goto(f"{self.live_server_url}/p/dehumidifier/draw/{sheet.id}")
        expect(page.get_by_test_id("sheet")).to_contain_text(sheet.title)
        page.get_by_role("button", name="Add a sheet", exact=True).click()
        form = page.get_by_role("form", name="Add a sheet")
        form.get_by_label("Number").fill("9")
        form.get_by_label("Title").fill("Copied in")
        form.get_by_role("button", name="Add", exact=True).click()
        expect(page.get_by_test_id("sheet")).to_contain_text("Copied in")
        page.get_by_test_id("place").click()
        page.keyboard.press("Control+v")
        page.mouse.move(*self.pixel(page, 16, 12))
        with self.edited(page):
            page.mouse.click(*self.pixel(page, 16, 12))
        other = self.project("dehumidifier")
        new = next(s for s in other.sheets.values() if s.number == "9")
        tags = {full_tag(other, other.devices[s.device_id]) for s in other.symbols_on(new.id) if s.device_id}
        self.assertTrue(tags)
        lines = {str(n) for n in range(new.first_line, new.first_line + 40)}
        running = [t for t in tags if t.lstrip("ABCDEFGHIJKLMNOPQRSTUVWXYZ")[:2] in {line[:2] for line in lines}]
        self.assertTrue(running, f"tags follow the ladder lines: {tags}")
        self.assert_canonical(other)

    def test_repeated_at_a_pitch_lined_up_and_locked(self) -> None:
        page = self.page
        self.sign_in(page)
        self.new_sheet(page, "70", "Lamps")
        page.keyboard.press("/")
        page.keyboard.type('lamp "Runs"')
        with self.edited(page):
            page.keyboard.press("Enter")
        self.drag(page, (12, 11), (84, 20))
        form = page.get_by_role("form", name="Repeat")
        form.get_by_label("Times").fill("3")
        form.get_by_label("Down").fill("9")
        with self.edited(page):
            form.get_by_role("button", name="Repeat").click()
        expect(self.symbols(page)).to_have_count(4)
        project, sheet = self.project(), self.sheet("70")
        self.assertEqual(len({s.device_id for s in project.symbols_on(sheet)}), 4)
        with self.edited(page):
            page.get_by_role("button", name="Lock", exact=True).click()
        page.keyboard.press("Delete")
        expect(page.get_by_text("is locked. Unlock it first")).to_be_visible()
        expect(self.symbols(page)).to_have_count(4)

    def test_a_selection_kept_as_a_stamp_asks_what_was_named(self) -> None:
        page = self.page
        self.sign_in(page)
        self.new_sheet(page, "70", "Stamps")
        page.keyboard.press("/")
        page.keyboard.type('no "Start", coil "Fan run"')
        with self.edited(page):
            page.keyboard.press("Enter")
        self.drag(page, (78.5, 13), (16, 19))
        page.keyboard.press("Shift+K")
        form = page.get_by_role("form", name="Keep as stamp")
        form.get_by_label("Name").fill("Rung")
        form.get_by_role("button", name="Add a question").click()
        form.get_by_label("Question 1").fill("What runs")
        form.get_by_label("For", exact=True).click()
        page.get_by_role("option", name="Fan run").click()
        page.keyboard.press("Escape")
        with self.edited(page):
            form.get_by_role("button", name="Keep", exact=True).click()
        inspector = page.get_by_role("complementary", name="Inspector")
        inspector.get_by_role("button", name="Rung").click()
        inspector.get_by_label("What runs").fill("Damper opens")
        page.mouse.move(*self.pixel(page, 14, 34))
        with self.edited(page):
            page.mouse.click(*self.pixel(page, 14, 34))
        expect(page.get_by_test_id("sheet")).to_contain_text("Damper opens")
        inspector.get_by_role("button", name="Change", exact=True).click()
        form = page.get_by_role("form", name="Change the stamp")
        form.get_by_role("button", name="Add a question").click()
        form.get_by_label("Question 2").fill("How it starts")
        form.get_by_label("For", exact=True).last.click()
        page.get_by_role("option", name="Start").click()
        page.keyboard.press("Escape")
        with self.edited(page):
            form.get_by_role("button", name="Save", exact=True).click()
        inspector.get_by_role("button", name="Rung").click()
        inspector.get_by_label("How it starts").fill("By hand")
        page.mouse.move(*self.pixel(page, 14, 48))
        expect(page.locator("[data-look=preview]").filter(has_text="By hand")).not_to_have_count(0)
        self.assertEqual([s.name for s in self.project().stamps.values() if s.name == "Rung"], ["Rung"])


class NamesStory(Drawing):
    """Texts, numbers, findings, rungs."""

    def test_a_tag_is_dragged_hidden_and_put_back(self) -> None:
        page = self.page
        self.sign_in(page)
        coil = next(s for s in self.project().symbols_on(self.sheet("30")) if s.definition == "coil")
        page.goto(f"{page.url.split('?')[0]}?sel={coil.id}")
        tag = page.locator(f"[data-id='{coil.id}'] text[data-role=tag]")
        expect(page.locator(f"[data-id='{coil.id}'][data-look=selected]")).to_have_count(1)
        box = tag.bounding_box()
        assert box is not None
        middle = (box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
        page.mouse.move(*middle)
        page.mouse.down()
        page.mouse.move(middle[0] + 20, middle[1] - 6)
        page.mouse.move(middle[0] + 40, middle[1] - 12)
        with self.edited(page):
            page.mouse.up()
        moved = tag.bounding_box()
        assert moved is not None
        self.assertAlmostEqual(moved["x"] - box["x"], 40, delta=4)
        self.assertEqual(self.project().symbols[coil.id].x, coil.x, "the symbol stays where it is")
        inspector = page.get_by_role("complementary", name="Inspector")
        with self.edited(page):
            inspector.get_by_role("button", name="Texts back").click()
        self.assertEqual(self.project().symbols[coil.id].texts, {})

    def test_a_rung_goes_in_and_all_below_moves_down(self) -> None:
        page = self.page
        self.sign_in(page)
        sheet = self.sheet("30")
        before = self.project()
        lamps = {s.id: s.y for s in before.symbols_on(sheet) if s.definition == "lamp"}
        self.click(page, 26, 34)
        page.keyboard.press("Escape")
        with self.edited(page):
            page.keyboard.press("Insert")
        after = self.project()
        self.assertEqual({i: after.symbols[i].y for i in lamps}, {i: y + 9 for i, y in lamps.items()})
        self.assert_canonical(after)
        revision = self.revision()
        page.keyboard.press("Control+z")
        self.accepted(page, revision)
        self.assertEqual(list(self.project().entities()), list(before.entities()))

    def test_a_rule_is_built_of_pieces_and_shows_what_it_would_change(self) -> None:
        page = self.page
        self.sign_in(page, "p/kiln-2/brief/numbers")
        page.get_by_role("button", name="Add a rule").click()
        form = page.get_by_role("form", name="Numbering rule")
        form.get_by_label("Name").fill("Power")
        form.get_by_label("With a wire of the category").click()
        page.get_by_role("option", name="power", exact=True).click()
        form.get_by_role("button", name="+ fixed text").click()
        form.get_by_label("Text").fill("P")
        form.get_by_role("button", name="↑").last.click()
        expect(form.get_by_role("table", name="What would change")).to_contain_text("P1")
        with self.edited(page):
            form.get_by_role("button", name="Save the rule").click()
        expect(page.get_by_role("table", name="Numbering rules")).to_contain_text("“P” · 1…")
        numbers = self.numbers(self.project(), self.sheet("10"))
        self.assertTrue(all(n.startswith("P") for n in numbers["Power"].split()))
        page.goto(f"{self.live_server_url}/p/kiln-2/draw/{self.sheet('10')}")
        expect(page.get_by_test_id("sheet")).to_contain_text("P1")

    def test_a_snag_is_muted_with_its_reason_and_found_again(self) -> None:
        page = self.page
        self.sign_in(page)
        self.new_sheet(page, "70", "Reserve")
        page.keyboard.press("/")
        page.keyboard.type('no "Start", coil "Reserve"')
        with self.edited(page):
            page.keyboard.press("Enter")
        ledger = self.ledger_tab(page, "Snags")
        row = ledger.get_by_role("row").filter(has_text="No contact of")
        row.get_by_role("button", name="mute").click()
        form = page.get_by_role("form", name="Mute the snag")
        form.get_by_label("Reason").fill("Reserve for a second auger")
        with self.edited(page):
            form.get_by_role("button", name="Mute").click()
        expect(row).to_have_count(0)
        page.goto(f"{self.live_server_url}/p/kiln-2/snags")
        page.get_by_role("tab", name="Muted").click()
        muted = page.get_by_role("row").filter(has_text="Reserve for a second auger")
        expect(muted).to_be_visible()
        with self.edited(page):
            muted.get_by_role("button", name="hear again").click()
        expect(muted).to_have_count(0)

    def test_a_word_is_replaced_where_one_wants_it(self) -> None:
        page = self.page
        self.sign_in(page)
        page.get_by_test_id("place").click()
        page.keyboard.press("Control+h")
        form = page.get_by_role("form", name="Search and replace")
        form.get_by_label("Find").fill("auger")
        form.get_by_label("Replace by").fill("screw")
        places = form.get_by_role("list", name="Places")
        expect(places).to_contain_text("Auger run → screw run")
        first = places.get_by_role("checkbox").first
        first.uncheck()
        count = places.get_by_role("checkbox").count() - 1
        with self.edited(page):
            form.get_by_role("button", name=f"Replace {count}").click()
        expect(page.get_by_text(f"{count} places replaced.")).to_be_visible()
        left = [d.text for d in self.project().devices.values() if "auger" in d.text.lower()]
        self.assertEqual(len(left) + sum("auger" in s.title.lower() for s in self.project().sheets.values()), 1)

    def test_what_lies_in_a_boundary_is_at_its_location(self) -> None:
        page = self.page
        self.sign_in(page)
        sheet = self.zones_sheet(page, "60", "Station")
        self.place(page, 40, 30, "lamp", "Lamp")
        page.keyboard.press("Escape")
        page.keyboard.press("Shift+B")
        page.mouse.click(*self.pixel(page, 30, 20))
        page.mouse.move(*self.pixel(page, 60, 40))
        with self.edited(page):
            page.mouse.click(*self.pixel(page, 60, 40))
        inspector = page.get_by_role("complementary", name="Inspector")
        inspector.get_by_label("Stands for the location").click()
        with self.edited(page):
            page.get_by_role("option", name="KD2").first.click()
        project = self.project()
        (lamp,) = project.symbols_on(sheet)
        self.assertEqual(project.locations[project.devices[lamp.device_id].location_id].code, "KD2")

    def test_a_picture_of_the_project_is_put_on_the_sheet(self) -> None:
        page = self.page
        self.sign_in(page)
        sheet = self.zones_sheet(page, "60", "With a picture")
        page.get_by_test_id("place").click()
        page.keyboard.press("Shift+P")
        expect(page.get_by_label("Picture").locator("..")).to_contain_text("Pellwick mark")
        page.get_by_test_id("place").click()
        page.mouse.click(*self.pixel(page, 30, 20))
        page.mouse.move(*self.pixel(page, 60, 32))
        with self.edited(page):
            page.mouse.click(*self.pixel(page, 60, 32))
        expect(page.locator("[data-kind=figure] image")).to_have_count(1)
        (figure,) = self.project().figures_on(sheet)
        self.assertEqual((figure.kind, figure.x2 - figure.x1), ("picture", 30))
