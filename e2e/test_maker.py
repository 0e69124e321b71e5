"""Symbols drawn by hand, outlines on the plate, parts from the makers' catalogue, tables with faults."""

from __future__ import annotations

import io
import threading
from dataclasses import replace
from tempfile import NamedTemporaryFile

import openpyxl
from django.conf import settings
from django.test import override_settings
from playwright.sync_api import Page, expect

from e2e.test_benches import BenchStory
from jolly_core.library import definition, is_drawn
from jolly_server.library.models import LibraryPart, LibrarySymbol
from jolly_server.standins.catalogue import CatalogueService, serve

PLACE = """([x, y]) => {
    const paper = document.querySelector('[data-testid=maker]')
    const p = new DOMPoint(x, y).matrixTransform(paper.getScreenCTM())
    return [p.x, p.y]
}"""
SVG = b'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 45 82"><circle cx="22" cy="41" r="14"/></svg>'


class Maker(BenchStory):
    def draw(self, page: Page, tool: str, start: tuple[float, float], end: tuple[float, float]) -> None:
        page.get_by_role("toolbar", name="Drawing tools").get_by_role("button", name=tool).click()
        page.mouse.move(*page.evaluate(PLACE, list(start)))
        page.mouse.down()
        page.mouse.move(*page.evaluate(PLACE, [(start[0] + end[0]) / 2, (start[1] + end[1]) / 2]))
        page.mouse.move(*page.evaluate(PLACE, list(end)))
        page.mouse.up()

    def test_a_beacon_is_drawn_seen_on_wires_kept_and_placed_at_the_caret(self) -> None:
        page = self.open("parts/symbols")
        page.get_by_role("button", name="New symbol").click()
        problem = page.get_by_role("alert")
        expect(problem).to_contain_text("Give the symbol a name")
        page.get_by_label("Name", exact=True).fill("Rotating beacon")
        page.get_by_label("Nicknames, parted by commas").fill("beacon")
        expect(problem).to_contain_text("draw something")
        self.draw(page, "Circle", (2, 0), (3.5, 0))
        self.draw(page, "Line", (0, 0), (0.5, 0))
        self.draw(page, "Line", (3.5, 0), (4, 0))
        self.draw(page, "Arc", (0.5, -2), (3.5, -2))
        # Seen on wires by the application's own rules, level and upright, with its tag clear of it.
        look = page.get_by_test_id("symbol-look")
        expect(look.locator("[data-kind=symbol]")).to_have_count(2)
        expect(look.locator("[data-kind=wire]")).to_have_count(4)
        # A stroke too many is taken back by key, and is there again.
        strokes = page.locator("[data-testid=maker] [data-prim]")
        expect(strokes).to_have_count(4)
        page.keyboard.press("Control+z")
        expect(strokes).to_have_count(3)
        page.keyboard.press("Control+y")
        expect(strokes).to_have_count(4)
        # Its tag has a place of its own, dragged to the right of it.
        places = page.get_by_role("region", name="Where texts stand")
        places.get_by_role("button", name="Place").first.click()
        self.draw(page, "Choose", (2, -3), (7, 1))
        expect(places).to_contain_text("where it is dragged to")
        page.get_by_role("button", name="Keep in the library").click()
        expect(page.get_by_role("table", name="Drawn symbols")).to_contain_text("Rotating beacon")
        key = LibrarySymbol.objects.get().key

        page.goto(f"{self.live_server_url}/p/kiln-2/draw")
        expect(self.symbols(page).first).to_be_visible()
        self.new_sheet(page, "60", "Beacon")
        self.place(page, 33, 25, "beacon", "Rotating beacon")
        placed = next(s for s in self.project().symbols.values() if is_drawn(s.definition))
        self.assertEqual(placed.definition, key)
        self.assertEqual(definition(key).pins, ((0, 0), (4, 0)))
        self.assertEqual(definition(key).places, (("tag", (7, 1)),))
        drawn = page.locator(f"[data-id='{placed.id}'] path").first
        expect(drawn).to_have_attribute("d", self.path_with_arc())
        self.assert_canonical(self.project())

    @staticmethod
    def path_with_arc() -> object:
        import re

        return re.compile(r"a3\.75 3\.75.*A3\.75 3\.75")  # the circle, then the half circle, in mm

    def test_an_outline_from_a_file_is_seen_on_the_plate(self) -> None:
        project = self.project()
        placing = next(
            p
            for p in project.placings.values()
            if (part := project.parts.get(project.devices[p.device_id].part_id)) and part.part_class == "contactor"
        )
        part = project.parts[project.devices[placing.device_id].part_id]
        page = self.open(f"parts/library?part={part.id}")
        form = page.get_by_role("complementary", name=part.number)
        form.get_by_text("On the plate: its outline only").locator("..").get_by_role("button", name="Draw").click()
        maker = form.get_by_role("group", name="Drawing on the plate")
        maker.get_by_label("SVG or DXF file").set_input_files(
            {"name": "front.svg", "mimeType": "image/svg+xml", "buffer": SVG}
        )
        expect(maker.locator("[data-prim]")).to_have_count(1)
        maker.get_by_role("button", name="Take this drawing").click()
        with page.expect_response(lambda r: r.url.endswith("/api/library/part") and r.status == 200):
            form.get_by_role("button", name="Save", exact=True).click()
        # The project's copy is stale until it is refreshed; then the plate shows it.
        page.goto(f"{self.live_server_url}/p/kiln-2/parts/project")
        row = page.get_by_role("row", name=part.number).first
        expect(row).to_contain_text("stale")
        row.click()
        expect(page.get_by_role("complementary", name="Inspector")).to_contain_text("drawing on the plate")
        page.get_by_label(f"Refresh {part.number}").check()
        self.done(page, lambda: page.get_by_role("button", name="Refresh 1 ticked").click())
        page.goto(f"{self.live_server_url}/p/kiln-2/cabinet")
        expect(page.locator(f"[data-id='{placing.id}'] circle").first).to_be_visible()


class Catalogue(BenchStory):
    def setUp(self) -> None:
        super().setUp()
        server = serve(CatalogueService(), 0)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        changed = override_settings(JOLLY=replace(settings.JOLLY, catalogue=f"http://127.0.0.1:{server.server_port}"))
        changed.enable()
        self.addCleanup(changed.disable)

    def test_two_contactors_compared_one_taken_in_and_given_to_a_coil(self) -> None:
        page = self.open("parts/catalogue")
        page.get_by_label("Words, part of a number, a rating").fill("contactor 24 dc")
        expect(page.get_by_role("listitem")).to_have_count(8)
        page.get_by_role("button", name="Fenwold FK12-24D").click()
        page.get_by_role("button", name="Fenwold FK18-24D").click()
        page.get_by_role("button", name="Compare").click()
        table = page.get_by_role("table", name="Parts compared")
        expect(table.get_by_role("row", name="Motor load, AC-3, A")).to_contain_text("18")
        page.get_by_label("only what differs").check()
        expect(table).not_to_contain_text("Coil voltage")
        page.get_by_role("button", name="Back to the parts").click()
        page.get_by_role("button", name="Fenwold FK18-24D").click()
        page.get_by_role("button", name="Take 1 in").click()
        expect(page.get_by_role("button", name="Fenwold FK12-24D")).to_contain_text("in the library")
        self.assertEqual(LibraryPart.objects.get(number="FK12-24D").maker, "Fenwold")

        page.goto(f"{self.live_server_url}/p/kiln-2/parts/library?part=fenwold-fk12-24d")
        picture = page.get_by_role("img", name="Picture of FK12-24D")
        expect(picture).to_be_visible()
        self.assertGreater(picture.evaluate("img => img.naturalWidth"), 0)


class Tables(BenchStory):
    def workbook(self) -> bytes:
        """Return a table with good rows and each kind of fault, and thirty columns that say nothing to us."""
        book = openpyxl.Workbook()
        page = book.active
        assert page is not None
        odd = [f"House field {n}" for n in range(30)]
        page.append(["Maker", "Number", "Class", "Description", "Width mm", "Coil voltage V", *odd])
        page.append(["Tamwick", "N-1", "Indicator light", "Good lamp", "22 mm", ""])
        page.append(["Tamwick", "N-2", "Contactor", "Wrong unit", "45 kg", "24"])
        page.append(["Tamwick", "N-1", "Indicator light", "Twice", "22", ""])
        page.append(["Tamwick", "N-3", "Rocket", "Unknown class", "22", ""])
        page.append([None] * 6)
        page.append(["Tamwick", "N-4", "Contactor", "Formula", "=40+5", "24"])
        page.append(["Tamwick", "N-5", "Contactor", "Good contactor", "4.5 cm", "24 V"])
        out = io.BytesIO()
        book.save(out)
        return out.getvalue()

    def test_every_bad_cell_is_named_and_the_good_rows_are_taken_alone(self) -> None:
        page = self.open("parts/exchange")
        with NamedTemporaryFile(suffix=".xlsx") as file:
            file.write(self.workbook())
            file.flush()
            page.get_by_label("Table or library file").set_input_files(file.name)
            table = page.get_by_role("table", name="Rows of the table")
            for line, column, words in (
                ("3", "Width mm", "kg cannot be used here"),
                ("4", "Number", "same maker and number as in row 2"),
                ("5", "Class", "Rocket"),
                ("7", "Width mm", "a formula"),
            ):
                row = table.get_by_role("row", name=f"{line} ").filter(has_text=column)
                expect(row).to_contain_text(words)
            page.get_by_role("button", name="Take 2 good rows in").click()
            expect(page.get_by_text("2 parts taken in, 4 rows left out.")).to_be_visible()
        taken = {p.number: p for p in LibraryPart.objects.filter(number__startswith="N-")}
        self.assertEqual(sorted(taken), ["N-1", "N-5"])
        self.assertEqual(taken["N-5"].width_mm, 45.0)
        self.assertEqual(taken["N-1"].text, "Good lamp")
