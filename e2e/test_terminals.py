"""The Terminals bench: strips planned before they are drawn, ordered, bridged, numbered, proposals taken."""

from __future__ import annotations

import re
from pathlib import Path

from playwright.sync_api import Locator, Page, expect

from e2e.test_benches import MARGIN_MM, BenchStory
from jolly_core.drawing import pin_points
from jolly_core.reports import run_report
from jolly_core.tagging import full_tag, pin_name
from jolly_core.terminals import strip_rows


class TerminalStory(BenchStory):
    """What the stories share."""

    def strip_named(self, tag: str) -> str:
        return self.by_tag(self.project(), tag)

    def numbers(self, strip: str) -> list[str]:
        return [r.number for r in strip_rows(self.project(), strip) if r.kind == "terminal"]

    def units(self, strip: str) -> list[int]:
        return [r.unit for r in strip_rows(self.project(), strip) if r.kind == "terminal"]

    def shown(self, page: Page, units: list[int]) -> None:
        """Wait until the picture shows the terminals in this order."""
        page.wait_for_function(
            """(keys) => {
                const plates = [...document.querySelectorAll("[data-testid=sheet] [data-id^='number:u']")]
                const across = (e) => e.getBoundingClientRect().x
                const seen = plates.sort((a, b) => across(a) - across(b)).map((e) => e.dataset.id)
                return seen.join() === keys.join()
            }""",
            arg=[f"number:u{n}" for n in units],
        )

    def pick(self, page: Page, label: str, option: str, within: Locator | None = None) -> None:
        """Choose from a list of few."""
        (within or page).get_by_label(label, exact=True).click()
        page.get_by_role("option", name=option, exact=True).click()

    def drag(self, page: Page, start: Locator, end: Locator, *, dx: float = 0, key: str = "") -> None:
        """Drag from the middle of one thing to beside that of another, with a key held when it is let go."""
        (x1, y1), (x2, y2) = self.middle(start), self.middle(end)
        x2 += dx
        page.mouse.move(x1, y1)
        page.mouse.down()
        page.mouse.move((x1 + x2) / 2, (y1 + y2) / 2)
        page.mouse.move(x2, y2)
        if key:
            page.keyboard.down(key)
        page.mouse.up()
        if key:
            page.keyboard.up(key)


class OnTheStrip(TerminalStory):
    def test_terminals_are_dragged_bridged_across_and_undone(self) -> None:
        page = self.open("terminals")
        strip = self.strip_named("=K2+KP2-XD2")
        page.get_by_role("button", name="=K2+KP2-XD2").click()
        face = page.get_by_test_id("sheet")
        plate = {n: face.locator(f"[data-id='number:u{n}'] text") for n in range(1, 9)}
        expect(plate[5]).to_be_visible()
        # One selection in picture and table.
        plate[5].click()
        expect(page.locator("[data-row=u5]")).to_have_attribute("aria-selected", "true")
        page.locator("[data-row=u7] [data-key=kind], [data-row=u7] [data-key=terminal_kind]").click(modifiers=["Shift"])
        expect(face.locator("[data-id=u6]")).to_have_attribute("data-look", "selected")
        # 5 to 7 are dragged to the start of the strip, behind its bracket.
        self.done(page, lambda: self.drag(page, plate[6], plate[1], dx=-5))
        self.assertEqual(self.units(strip), [5, 6, 7, 1, 2, 3, 4, 8])
        self.shown(page, [5, 6, 7, 1, 2, 3, 4, 8])
        self.done(page, lambda: page.keyboard.press("Alt+ArrowDown"))
        self.assertEqual(self.units(strip), [1, 5, 6, 7, 2, 3, 4, 8])
        self.shown(page, [1, 5, 6, 7, 2, 3, 4, 8])
        page.keyboard.press("Control+z")
        self.shown(page, [5, 6, 7, 1, 2, 3, 4, 8])
        page.keyboard.press("Control+z")
        self.shown(page, list(range(1, 9)))
        # Dragged across, all between are joined; with Shift the first and the last, over those between.
        page.get_by_role("button", name="Bridge across").first.click()
        self.done(page, lambda: self.drag(page, plate[5], plate[6]))
        self.done(page, lambda: self.drag(page, plate[6], plate[8], key="Shift"))
        joined = {b.units: b.part_id for b in self.project().bridges.values()}
        self.assertEqual(set(joined), {(1, 2, 3, 4), (5, 6, 8)})
        self.assertTrue(joined[5, 6, 8], "a part that reaches is taken")
        expect(page.locator("[data-row=u8] [data-key=bridge]")).to_have_text("1: 3 joined")
        expect(page.locator("[data-row=u7] [data-key=bridge]")).to_have_text("")

    def test_numbers_and_kinds_are_typed_in_the_table_and_twice_is_refused(self) -> None:
        page = self.open("terminals")
        strip = self.strip_named("=K2+KP2-XD1")
        cell = page.locator("[data-row=u3] [data-key=number]")
        cell.dblclick()
        page.get_by_role("grid").get_by_label("No.").fill("4")
        page.keyboard.press("Enter")
        expect(page.get_by_text("-XD1 has a terminal 4 already. Choose another number.").first).to_be_visible()
        # What was refused stays at its cell, and is not saved.
        expect(cell.locator("[data-unsaved]")).to_have_text("4")
        self.assertEqual(self.numbers(strip)[2], "3")
        cell.dblclick()
        expect(page.get_by_role("grid").get_by_label("No.")).to_have_value("4")
        page.get_by_role("grid").get_by_label("No.").fill("L3")
        self.done(page, lambda: page.keyboard.press("Enter"))
        expect(cell).to_have_text("L3")
        expect(page.locator("[data-unsaved]")).to_have_count(0)
        # The whole strip again, in odd numbers: what would change is shown first.
        page.keyboard.press("Escape")
        page.get_by_role("button", name="Number…").click()
        form = page.get_by_role("form", name="Number =K2+KP2-XD1 again")
        self.pick(page, "Which numbers", "every second: odd or even as the first", form)
        expect(form.get_by_label("What would change")).to_contain_text("2 → 3")
        self.done(page, lambda: form.get_by_role("button", name="Number").click())
        self.assertEqual(self.numbers(strip), ["1", "3", "L3", "7", "9", "11", "13", "15"])

    def test_a_device_without_a_location_is_mended_in_the_cell_that_misses_it(self) -> None:
        page = self.open("terminals")
        motor = self.by_tag(self.project(), "=K2+KF2-MA1")
        before = self.project().devices[motor]
        self.send(page, kind="set-place", device_id=motor, function_id=before.function_id, location_id="")
        cell = page.locator("[data-row=u5] [data-key=panel]")
        expect(cell).to_contain_text("=K2-MA1:U1 has no location")
        cell.dblclick()
        self.done(page, lambda: page.get_by_role("grid").get_by_label("Panel side").select_option(label="+KF2"))
        expect(page.locator("[data-row=u5] [data-key=field]")).to_have_text("=K2+KF2-MA1:U1")
        self.assertEqual(self.project().devices[motor].location_id, before.location_id)

    def test_what_is_proposed_is_taken_together_and_the_plan_is_drawn_in_either_style(self) -> None:
        page = self.open("terminals")
        strip = self.strip_named("=T1+KP2-XD1")
        page.get_by_role("button", name="=T1+KP2-XD1").click()
        offered = page.get_by_role("region", name="Offered")
        expect(offered).to_contain_text("End bracket at the left end")
        expect(offered).to_contain_text("Partition plate before 4")
        offered.get_by_label("1 spare terminal at the end").uncheck()
        self.done(page, lambda: offered.get_by_role("button", name="Take these").click())
        expect(offered).not_to_contain_text("End bracket")
        kinds = [r.kind for r in strip_rows(self.project(), strip)]
        self.assertEqual((kinds[0], kinds[-1], kinds.count("plate")), ("end-bracket", "end-bracket", 2))
        heading = page.get_by_label("Heading of field side")
        heading.fill("Machine")
        self.done(page, lambda: heading.press("Enter"))
        self.done(page, lambda: self.pick(page, "Style", "drawn strip with leaders"))
        page.get_by_role("link", name="Terminal plan as a sheet").click()
        plan = page.locator("svg[data-testid=sheet]")
        expect(plan).to_contain_text("Machine")
        expect(plan.locator("[data-id^='cable:']")).to_have_count(2)
        # What lands is a step away, and back.
        plan.get_by_text("+KF2-BG1:21").click()
        expect(page).to_have_url(re.compile(r"/draw/(?!plan)"))

    def test_a_layout_from_a_spreadsheet_is_shown_before_it_is_taken(self) -> None:
        page = self.open("terminals")
        strip = self.strip_named("=Q1+KP2-XD1")
        page.get_by_role("button", name="=Q1+KP2-XD1").click()
        page.get_by_role("button", name="Layout from a spreadsheet…").click()
        form = page.get_by_role("form", name="Lay out =Q1+KP2-XD1")
        fuses = "5,fuse,QL-K2-5F,A\n6,fuse,QL-K2-5F,A\n"
        text = f"Number,Kind,Part,Bridge\n2,,,\n1,,,\nPE,earth,QL-T2-5E,\n4,toaster,,\n{fuses}"
        file = {"name": "strip.csv", "mimeType": "text/csv", "buffer": text.encode()}
        form.get_by_test_id("layout-file").set_input_files(file)
        expect(form.get_by_role("alert")).to_have_text("Row 5: “toaster” is no kind of terminal or accessory.")
        changes = form.get_by_label("What would change")
        expect(changes).to_contain_text("PE: added")
        expect(changes).to_contain_text("bridge: added")
        self.assertEqual(self.numbers(strip), ["1", "2"], "nothing is taken in before")
        self.done(page, lambda: form.get_by_role("button", name="Lay out").click())
        self.assertEqual(self.numbers(strip), ["2", "1", "PE", "5", "6"])
        expect(page.locator("[data-row=u5] [data-key=part]")).to_have_text("QL-K2-5F")
        with page.expect_download() as taken:
            page.get_by_role("complementary", name="Inspector").get_by_role("link", name="CSV").click()
        out = Path(str(taken.value.path())).read_text(encoding="utf-8-sig")
        self.assertIn("PE,earth,1,,QL-T2-5E,,", out)


class Planned(TerminalStory):
    def test_a_strip_of_36_is_planned_numbered_named_and_twelve_of_it_drawn_later(self) -> None:
        page = self.open("terminals")
        page.get_by_role("button", name="New strip…").click()
        form = page.get_by_role("form", name="New strip")
        form.get_by_label("Text", exact=True).fill("Reserve for the second floor")
        form.get_by_label("Terminals", exact=True).fill("36")
        form.get_by_label("Part", exact=True).fill("QL-K2-5")
        page.get_by_role("option").filter(has_text="QL-K2-5").first.click()
        self.done(page, lambda: form.get_by_role("button", name="Make the strip").click())
        strip = self.strip_named("=K2+KP2-XD3")
        self.assertEqual(self.numbers(strip), [str(n) for n in range(1, 37)])
        expect(page.get_by_role("region", name="Tray")).to_contain_text("=K2+KP2-XD3 36 to draw")
        expect(page.get_by_role("button", name="=K2+KP2-XD3 Reserve")).to_contain_text("36 not drawn")
        # The last three are numbered from 44 on.
        grid = page.get_by_role("grid")
        grid.focus()
        for unit in (34, 35, 36):
            page.get_by_test_id("sheet").locator(f"[data-id='number:u{unit}'] text").click(
                modifiers=["Control"] if unit > 34 else []
            )
        page.get_by_role("button", name="Number…").click()
        numbering = page.get_by_role("form", name="Number 3 of =K2+KP2-XD3")
        numbering.get_by_label("First number").fill("44")
        expect(numbering.get_by_label("What would change")).to_contain_text("36 → 46")
        self.done(page, lambda: numbering.get_by_role("button", name="Number").click())
        self.assertEqual(self.numbers(strip)[-4:], ["33", "44", "45", "46"])
        expect(numbering).to_have_count(0)
        page.keyboard.press("Escape")
        tag = page.get_by_label("Tag", exact=True)
        tag.fill("XD30")
        self.done(page, lambda: tag.press("Enter"))
        self._set_on_a_rail(page, strip)
        self._drawn_later(page, strip)

    def _set_on_a_rail(self, page: Page, strip: str) -> None:
        """Set the strip on a rail of the right field, though nothing of it is drawn yet."""
        page.goto(f"{self.live_server_url}/p/kiln-2/cabinet")
        page.get_by_role("button", name="right field").click()
        waiting = page.get_by_test_id("tray-=K2+KP2-XD30")
        expect(page.get_by_test_id("plan")).to_contain_text("=K2+KP2-UC2")
        plan = page.get_by_test_id("plan")
        box = plan.bounding_box() or {"x": 0.0, "y": 0.0}
        x, y = self.on_board(page, 300, 535, MARGIN_MM)
        self.done(page, lambda: waiting.drag_to(plan, target_position={"x": x - box["x"], "y": y - box["y"]}))
        placing = next(p for p in self.project().placings.values() if p.device_id == strip)
        rail = self.project().rails[placing.rail_id]
        self.assertEqual(rail.y1, 535)
        page.goto(f"{self.live_server_url}/p/kiln-2/terminals")
        # 36 terminals of 5.2 mm between two brackets of 8 mm, on a rail of 460 mm.
        expect(page.get_by_role("button", name="=K2+KP2-XD30 Reserve")).to_contain_text("203.2 of 460 mm")

    def _drawn_later(self, page: Page, strip: str) -> None:
        """Draw the last three along a stroke and one by dragging, on a new sheet."""
        self.send(page, kind="add-sheet", number="70", title="Second floor", frame="zones")
        sheet = next(s.id for s in self.project().sheets.values() if s.number == "70")
        wire_type = next(t.id for t in self.project().wire_types.values() if t.name == "Control DC")
        for y in (30, 36, 42, 48):
            points = [[20, y], [60, y]]
            self.send(page, kind="draw-wire", sheet_id=sheet, points=points, wire_type_id=wire_type)
        page.goto(f"{self.live_server_url}/p/kiln-2/draw/{sheet}?panel=planned")
        tray = page.get_by_role("region", name="Planned terminals")
        for number in ("44", "45", "46"):
            tray.get_by_label(f"Planned terminal {number}", exact=True).click()
        tray.get_by_role("button", name="Row of these 3 along a stroke").click()
        page.mouse.move(*self.pixel(page, 40, 28))
        self.click(page, 40, 28)
        page.mouse.move(*self.pixel(page, 40, 44))
        self.done(page, lambda: self.click(page, 40, 44))
        one = self.middle(tray.get_by_label("Planned terminal 1", exact=True))
        page.mouse.move(*one)
        page.mouse.down()
        page.mouse.move(*self.pixel(page, 38, 40))
        page.mouse.move(*self.pixel(page, 40, 48))
        self.done(page, page.mouse.up)
        project = self.project()
        drawn = sorted(project.symbols_on(sheet), key=lambda s: s.y)
        self.assertEqual([pin_name(project, (s.id, 0)).rsplit(":")[1] for s in drawn], ["44", "45", "46", "1"])
        self.assertEqual({full_tag(project, project.devices[s.device_id]) for s in drawn}, {"=K2+KP2-XD30"})
        self.assertEqual(len(self.numbers(strip)), 36, "they are the terminals that were planned")
        expect(tray.get_by_label("Planned terminal 46", exact=True)).to_have_count(0)


class Feeder(TerminalStory):
    """A motor feeder and its field devices: one row of terminals, cables by proposal, lists that agree."""

    def test_seven_terminals_in_one_stroke_are_gathered_into_two_cables(self) -> None:
        page = self.open("terminals")
        self.sheet = self._drawn(page)
        page.goto(f"{self.live_server_url}/p/kiln-2/draw/{self.sheet}")
        expect(page.locator("[data-kind=wire]")).not_to_have_count(0)
        before = {s.id for s in self.project().symbols_on(self.sheet)}
        page.keyboard.press("Shift+T")
        page.get_by_label("Strip of the terminals").click()
        page.get_by_role("option", name="a new strip").click()
        page.mouse.move(*self.pixel(page, 16, 40))
        self.click(page, 16, 40)
        page.mouse.move(*self.pixel(page, 66, 40))
        self.done(page, lambda: self.click(page, 66, 40))
        project = self.project()
        row = sorted((s for s in project.symbols_on(self.sheet) if s.id not in before), key=lambda s: s.x)
        self.assertEqual(len(row), 7)
        strip = row[0].device_id
        panel = next(loc.id for loc in project.locations.values() if loc.code == "KP2")
        function = project.devices[strip].function_id
        self.send(page, kind="set-place", device_id=strip, function_id=function, location_id=panel)
        tag = full_tag(self.project(), self.project().devices[strip])
        self._gathered(page)
        self._agree(page, strip, tag)

    def _drawn(self, page: Page) -> str:
        """Draw seven wires down from the panel to a motor and two switches in the field; return the sheet."""
        self.send(page, kind="add-sheet", number="71", title="Second auger", frame="zones")
        project = self.project()
        sheet = next(s.id for s in project.sheets.values() if s.number == "71")
        types = {t.name: t.id for t in project.wire_types.values()}
        places = {loc.code: loc.id for loc in project.locations.values()}

        def put(definition: str, x: int, y: int, code: str, **more: object) -> None:
            self.send(page, kind="place-symbol", sheet_id=sheet, definition=definition, x=x, y=y, **more)
            newest = max(self.project().symbols_on(sheet), key=lambda s: s.id)
            device = self.project().devices[newest.device_id]
            place = {"function_id": device.function_id, "location_id": places[code]}
            self.send(page, kind="set-place", device_id=device.id, **place)

        put("motor", 20, 80, "KF2", rotation=0)
        put("breaker", 20, 10, "KP2", poles=3, rotation=90, mirror=True)
        for x in (50, 60):
            put("lamp", x, 10, "KP2", rotation=90)
            put("lamp", x, 70, "KF2", rotation=90)
        pins = self._points(sheet)
        motor, breaker = pins["motor"], pins["breaker"]
        for n, (x, y) in enumerate(motor):
            top = breaker[2 * n + 1] if n < 3 else (x, 30)
            kind = types["Power"] if n < 3 else types["Protective"]
            points = [list(top), [top[0], 30], [x, 30], [x, y]] if n < 3 else [[x, 30], [x, y]]
            self.send(page, kind="draw-wire", sheet_id=sheet, points=points, wire_type_id=kind)
        for x in (50, 60):
            points = [[x, 14], [x, 70]]
            self.send(page, kind="draw-wire", sheet_id=sheet, points=points, wire_type_id=types["Control DC"])
        for x in (64,):
            put("lamp", x, 10, "KP2", rotation=90)
            put("lamp", x, 70, "KF2", rotation=90)
            points = [[x, 14], [x, 70]]
            self.send(page, kind="draw-wire", sheet_id=sheet, points=points, wire_type_id=types["Control DC"])
        return sheet

    def _points(self, sheet: str) -> dict[str, list[tuple[int, int]]]:
        return {s.definition: pin_points(s) for s in self.project().symbols_on(sheet)}

    def _gathered(self, page: Page) -> None:
        """Take what waits in the tray, each group with the part offered first."""
        page.goto(f"{self.live_server_url}/p/kiln-2/cables")
        tray = page.get_by_role("region", name="Tray")
        power = tray.get_by_role("button", name="4 power wires")
        control = tray.get_by_role("button", name="3 control wires")
        expect(control).to_contain_text("+KP2 to +KF2")
        power.click()
        expect(page.get_by_role("main")).to_contain_text("They need 3 cores and protective, 2.5 mm² or more")
        self.done(page, lambda: page.get_by_role("button", name="Gather these").click())
        expect(page.get_by_role("grid")).to_contain_text("GNYE")
        control.click()
        self.done(page, lambda: page.get_by_role("button", name="Gather these").click())
        expect(tray).to_have_count(0)
        # A part with fewer cores names who loses one before it is taken.
        field = page.get_by_role("combobox", name="Cable part")
        expect(field).to_have_value(re.compile("QL-"))
        expect(page.locator("[data-kind=core]").filter(has_text="KF2-PF")).to_have_count(3)
        field.fill("QL-YY2X1")
        page.get_by_role("option").filter(has_text="QL-YY2X1").first.click()
        alert = page.get_by_role("complementary", name="Inspector").get_by_role("alert")
        expect(alert).to_contain_text("loses its core")
        alert.get_by_role("button", name="Leave the part").click()
        expect(alert).to_have_count(0)

    def _agree(self, page: Page, strip: str, tag: str) -> None:
        """Hold the terminal plan and the core plan against the sheet."""
        project = self.project()
        rows = [r for r in strip_rows(project, strip) if r.kind == "terminal"]
        self.assertEqual([len(r.field) for r in rows], [1] * 7)
        self.assertTrue(all(r.field[0].cable and r.field[0].core for r in rows))
        plan = {str(r[1]): r for r in run_report(project, "terminals").rows if r[0] == tag}
        cores = {(str(r[0]), str(r[2])): r for r in run_report(project, "cores").rows}
        for row in rows:
            target = row.field[0]
            self.assertEqual(plan[row.number][2:5], (target.name, target.cable, target.core))
            core = cores[target.cable, target.core]
            self.assertEqual(core[4:6], (f"{tag}:{row.number}", target.name))
        page.goto(f"{self.live_server_url}/p/kiln-2/draw/{self.sheet}")
        bands = page.locator("[data-kind=band]")
        expect(bands).to_have_count(2)
        expect(bands.first).to_contain_text("WD")
        page.keyboard.press("Control+z")
        expect(bands).to_have_count(1)
        page.keyboard.press("Control+z")
        expect(bands).to_have_count(0)


class FieldWires(TerminalStory):
    def test_the_field_wires_of_chosen_terminals_are_gathered_and_a_full_cable_refuses_them(self) -> None:
        page = self.open("terminals")
        project = self.project()
        cable = self.by_tag(project, "=T1+KP2-WD2")
        bands = [b.id for b in project.bands.values() if b.device_id == cable]
        self.send(page, kind="delete-selection", ids=bands)
        page.get_by_role("button", name="=T1+KP2-XD1").click()
        strip = self.strip_named("=T1+KP2-XD1")
        rows = page.get_by_role("grid", name="Terminals of =T1+KP2-XD1").locator("[data-row]")
        of_switches = [r for r in strip_rows(self.project(), strip) if r.number in ("5", "6", "7", "8")]
        for row in of_switches:
            rows.and_(page.locator(f"[data-row=u{row.unit}]")).get_by_role("checkbox").check()
        page.get_by_role("button", name="Gather into a cable…").click()
        form = page.get_by_role("dialog")
        expect(form).to_contain_text("Gather 4 field wires")
        # A cable without room says how many it has, and nothing is changed.
        self.pick(page, "Into", "=K2+KP2-WD2, 2 spare", within=form)
        form.get_by_role("button", name="Gather").click()
        expect(page.get_by_text("has 2 live cores left, and 4 are needed").first).to_be_visible()
        before = self.revision()
        self.pick(page, "Into", "a new cable", within=form)
        self.done(page, lambda: form.get_by_role("button", name="Gather").click())
        self.assertEqual(self.revision(), before + 1)
        after = self.project()
        cables = {t.cable for r in strip_rows(after, strip) if r.number in ("5", "6", "7", "8") for t in r.field}
        self.assertEqual(len(cables), 1)
        self.assertNotIn("", cables)
