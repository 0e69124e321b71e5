"""Lists of recipes as files, and what comes back of an XLSX that was edited."""

from __future__ import annotations

import csv
import io
import json
from dataclasses import replace
from typing import Any
from unittest import TestCase

from openpyxl import Workbook, load_workbook
from openpyxl.utils import get_column_letter
from openpyxl.worksheet.worksheet import Worksheet
from pypdf import PdfReader

from jolly_core.exchange import ListBack, read_list, read_project, unwritable, write_list
from jolly_core.model import FileError, Project, Recipe, RuleError
from jolly_core.reports import BACK, cook, plain_recipe
from jolly_core.tagging import full_tag
from jolly_core.testing import DEMO, FONTS, Workbench

COLUMNS = ({"key": "tag"}, {"key": "text", "heading": "Words"}, {"key": "number"}, {"key": "price"})
MINE = Recipe("r1", "Panel devices", "devices", COLUMNS)


def demo() -> Project:
    return read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())


def sheet_in(content: bytes) -> tuple[Any, Worksheet]:
    book = load_workbook(io.BytesIO(content))
    return book, book.worksheets[0]


def saved(book: Workbook) -> bytes:
    out = io.BytesIO()
    book.save(out)
    return out.getvalue()


class Xlsx(TestCase):
    def setUp(self) -> None:
        self.project = demo()

    def test_it_is_ready_to_be_printed_and_filtered(self) -> None:
        _, page = sheet_in(write_list(self.project, MINE, "xlsx", FONTS))
        self.assertEqual(page.freeze_panes, "A2")
        self.assertEqual(page.print_title_rows, "$1:$1")
        self.assertEqual((page.page_setup.orientation, page.page_setup.fitToHeight), ("landscape", 0))
        fitted = page.sheet_properties.pageSetUpPr
        self.assertTrue(fitted is not None and fitted.fitToPage)
        self.assertTrue(page.auto_filter.ref.startswith("A1:D"))
        head = page.oddHeader
        self.assertIn(self.project.settings.name, str(head.left.text) if head is not None else "")
        self.assertEqual([c.value for c in page[1]][:4], ["Tag", "Words", "Part number", "Price each"])

    def test_a_report_as_it_is_names_its_project_at_the_top_of_every_printed_page(self) -> None:
        def heads(project: Project) -> tuple[str, str]:
            _, page = sheet_in(write_list(project, plain_recipe("parts"), "xlsx", FONTS))
            assert page.oddHeader is not None
            return str(page.oddHeader.left.text or ""), str(page.oddHeader.right.text)

        self.assertEqual(heads(self.project), ("PM-0417 Kiln 2", "Parts list"))
        self.assertEqual(heads(Workbench(frame="zones").project), ("", "Parts list"))
        bench = Workbench(frame="zones")
        bench.do("change-settings", number="&" * 190, name="Malt")
        long = bench.project
        left, right = heads(long)
        self.assertTrue(left.startswith("&&&&"), left)
        self.assertEqual(right, "Parts list")

    def test_columns_are_as_wide_as_what_they_hold_and_what_is_longer_takes_several_lines(self) -> None:
        _, page = sheet_in(write_list(self.project, plain_recipe("parts"), "xlsx", FONTS))
        shown = len(plain_recipe("parts").columns)
        widths = {c: page.column_dimensions[get_column_letter(c)].width for c in range(1, shown + 1)}
        several = 0
        for row in page.iter_rows(min_row=2, max_row=page.max_row - 1, max_col=shown):
            for cell in row:
                if isinstance(cell.value, str) and len(cell.value) > widths[cell.column] - 0.5:
                    several += 1
                    self.assertTrue(cell.alignment.wrap_text, cell.value)
                    height = page.row_dimensions[cell.row].height or 0
                    self.assertGreaterEqual(height / 15 * widths[cell.column], len(cell.value), cell.value)
        self.assertGreater(several, 0)

    def test_a_column_of_texts_takes_what_is_typed_for_a_text_where_it_is_empty_too(self) -> None:
        _, page = sheet_in(write_list(self.project, MINE, "xlsx", FONTS))
        formats = [page.column_dimensions[get_column_letter(n)].number_format for n in (1, 2, 3, 4)]
        self.assertEqual(formats, ["@", "@", "@", "General"])

    def test_numbers_are_numbers_and_texts_that_look_like_formulas_are_texts(self) -> None:
        _, page = sheet_in(write_list(self.project, MINE, "xlsx", FONTS))
        rows = {row[0].value: row for row in page.iter_rows(min_row=2)}
        contactor = rows["=K2+KP2-QA1"]
        self.assertEqual((contactor[0].data_type, contactor[0].number_format), ("s", "@"))
        self.assertIsInstance(contactor[3].value, (int, float))

    def test_sums_stand_below_groups_and_below_all(self) -> None:
        mine = replace(MINE, columns=({"key": "tag"}, {"key": "quantity"}), groups=("maker",), sums=("quantity",))
        _, page = sheet_in(write_list(self.project, mine, "xlsx", FONTS))
        sums = [row[1].value for row in page.iter_rows(min_row=2) if row[0].value == "Sum"]
        self.assertEqual(sum(sums[:-1]), sums[-1])
        self.assertEqual(sums[-1], len(self.project.devices))

    def test_a_head_on_the_first_page_only_stands_in_the_first_row(self) -> None:
        _, page = sheet_in(
            write_list(self.project, replace(MINE, head_on="first", head="For {customer}"), "xlsx", FONTS)
        )
        self.assertEqual(page["A1"].value, f"For {self.project.settings.customer}")
        self.assertEqual((page["A2"].value, page.freeze_panes, page.print_title_rows), ("Tag", "A3", "$2:$2"))

    def test_the_same_project_gives_the_same_bytes(self) -> None:
        for format in ("xlsx", "csv", "json", "pdf"):
            one, other = (write_list(self.project, MINE, format, FONTS) for _ in range(2))
            self.assertEqual(one, other, format)


class Others(TestCase):
    def test_csv_has_the_separator_decimal_sign_and_encoding_asked_for(self) -> None:
        project = demo()
        mine = replace(MINE, separator=";", decimal=",", encoding="windows-1252")
        content = write_list(project, mine, "csv", FONTS)
        rows = list(csv.reader(io.StringIO(content.decode("cp1252"), newline=""), delimiter=";"))
        self.assertEqual(rows[0], ["Tag", "Words", "Part number", "Price each"])
        prices = [row[3] for row in rows[1:] if "," in row[3]]
        self.assertTrue(prices)
        self.assertTrue(rows[1][0].startswith("'="), "harmless in a spreadsheet")
        marked = write_list(project, MINE, "csv", FONTS)
        self.assertTrue(marked.startswith(b"\xef\xbb\xbf"))

    def test_letters_that_an_encoding_lacks_are_named(self) -> None:
        bench = Workbench()
        lamp = bench.device(bench.place("lamp", 40, 16))
        bench.do("set-text", device_id=lamp, text="Lüfter Ω läuft")
        mine = replace(MINE, encoding="windows-1252")
        self.assertEqual(unwritable(mine, cook(bench.project, mine)), "Ω")
        self.assertEqual(unwritable(MINE, cook(bench.project, MINE)), "")

    def test_json_has_the_reports_keys(self) -> None:
        rows = json.loads(write_list(demo(), MINE, "json", FONTS))
        self.assertEqual(set(rows[0]), {"tag", "text", "number", "price"})

    def test_pdf_is_in_the_projects_frame_with_every_row(self) -> None:
        project = demo()
        reader = PdfReader(io.BytesIO(write_list(project, MINE, "pdf", FONTS)))
        text = "\n".join(page.extract_text() for page in reader.pages)
        self.assertEqual(float(reader.pages[0].mediabox.width) > float(reader.pages[0].mediabox.height), True)
        self.assertIn(project.settings.site, reader.pages[0].extract_text())
        self.assertIn(f"{len(reader.pages)} of {len(reader.pages)}", reader.pages[-1].extract_text())
        for row in cook(project, MINE).rows:
            self.assertIn(str(row[0]), text)

    def test_what_is_said_below_a_list_stands_on_paper_too_whole_however_long(self) -> None:
        foot = ("Copy of TW-L22-G differs from the library. " * 6, "The last word.")
        pages = PdfReader(io.BytesIO(write_list(demo(), plain_recipe("parts"), "pdf", FONTS, foot))).pages
        said = " ".join(pages[-1].extract_text().split())
        self.assertEqual(said.count("differs from the library."), 6)
        self.assertIn("The last word.", said)

    def test_groups_that_break_begin_on_pages_of_their_own(self) -> None:
        project = demo()
        grouped = replace(MINE, groups=("maker",))
        plain = PdfReader(io.BytesIO(write_list(project, grouped, "pdf", FONTS)))
        broken = PdfReader(io.BytesIO(write_list(project, replace(grouped, breaks=True), "pdf", FONTS)))
        self.assertGreater(len(broken.pages), len(plain.pages))
        self.assertGreaterEqual(len(broken.pages), len(cook(project, grouped).groups))


class TakenBack(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench()
        self.lamps = [self.bench.device(self.bench.place("lamp", 40, 16 + 9 * n)) for n in range(3)]
        self.book, self.page = sheet_in(write_list(self.bench.project, MINE, "xlsx", FONTS))

    def row(self, tag: str) -> int:
        return next(row[0].row for row in self.page.iter_rows(min_row=2) if row[0].value == tag)

    def read(self) -> ListBack:
        return read_list(self.bench.project, saved(self.book))

    def test_nothing_edited_brings_nothing(self) -> None:
        found = self.read()
        self.assertEqual((found.cells, found.refused, found.ignored), ([], [], []))

    def test_a_text_a_part_and_a_tag_come_in_as_one_edit(self) -> None:
        self.page.cell(self.row("-PF1"), 2).value = "Auger runs"
        self.page.cell(self.row("-PF2"), 3).value = "TW-L22-G"
        self.page.cell(self.row("-PF3"), 1).value = "-PF9"
        found = self.read()
        self.assertEqual(
            [(c.name, c.heading, c.before, c.after) for c in found.cells],
            [
                ("-PF1", "Words", "", "Auger runs"),
                ("-PF2", "Part number", "", "TW-L22-G"),
                ("-PF3", "Tag", "-PF3", "-PF9"),
            ],
        )
        cells = [{"id": c.id, "column": c.column, "value": c.after, "mark": c.mark} for c in found.cells]
        self.bench.do("take-list", report=found.report, cells=cells)
        devices = self.bench.project.devices
        self.assertEqual(devices[self.lamps[0]].text, "Auger runs")
        self.assertEqual(self.bench.project.parts[devices[self.lamps[1]].part_id].number, "TW-L22-G")
        self.assertEqual(devices[self.lamps[2]].fixed_tag, "PF9")
        with self.assertRaisesRegex(RuleError, "has changed since the list was written"):
            self.bench.do("take-list", report=found.report, cells=[{**cells[0], "value": "again"}])

    def edited(self, report: str, **cells: str) -> ListBack:
        """Write a list, edit cells of it by what they say, take it in, and return what was found."""
        self.book, self.page = sheet_in(write_list(self.bench.project, plain_recipe(report), "xlsx", FONTS))
        named = [c for row in self.page.iter_rows(min_row=2) for c in row if str(c.value) in cells]
        for cell, after in [(c, cells[str(c.value)]) for c in named]:
            cell.value, cell.data_type = after, "s"  # as in a cell whose format is text
        found = self.read()
        given = [{"id": c.id, "column": c.column, "value": c.after, "mark": c.mark} for c in found.cells]
        self.bench.do("take-list", report=found.report, cells=given)
        return found

    def test_sheets_change_numbers_with_each_other_and_keep_their_subtitle(self) -> None:
        one = self.bench.sheet
        other = self.bench.new("add-sheet", number="40", title="Fan", subtitle="left")
        found = self.edited("sheets", **{"30": "40", "40": "30", "Fan left": "Big fan left"})
        self.assertEqual([c.name for c in found.cells], ["sheet 30", "sheet 40", "sheet 40"])
        sheets = self.bench.project.sheets
        self.assertEqual((sheets[one].number, sheets[other].number), ("40", "30"))
        self.assertEqual((sheets[other].title, sheets[other].subtitle), ("Big fan", "left"))
        self.edited("sheets", **{"Big fan left": "Small fan"})
        self.assertEqual(
            (self.bench.project.sheets[other].title, self.bench.project.sheets[other].subtitle), ("Small fan", "")
        )

    def test_points_take_tag_and_text_whether_on_a_channel_or_not(self) -> None:
        point = self.bench.new("add-point", tag="B1", text="Hatch")
        found = self.edited("io", B1="B7", Hatch="Hatch closed")
        self.assertEqual([(c.column, c.after) for c in found.cells], [("tag", "B7"), ("text", "Hatch closed")])
        self.assertEqual(self.bench.project.io_points[point].tag, "B7")
        self.bench.new("add-point", tag="B8")
        with self.assertRaisesRegex(RuleError, "There is a point B8 already"):
            self.edited("io", B7="B8")

    def test_cables_take_tag_part_and_length_and_cards_their_tag_and_part(self) -> None:
        self.bench.project = project = demo()
        tags = {full_tag(project, d): d.id for d in project.devices.values()}
        cable, card = tags["=K2+KP2-WD1"], tags["=K2+KP2-KF1"]
        self.edited("cables", **{"=K2+KP2-WD1": "=K2+KP2-WD71", "35": "36,5"})
        self.edited("cable-cuts", **{"QL-C4G2.5": "QL-C4G4"})
        record = next(c for c in project.cables.values() if c.device_id == cable)
        self.assertEqual(full_tag(project, project.devices[cable]), "=K2+KP2-WD71")
        self.assertEqual((record.length_m, project.parts[project.devices[cable].part_id].number), (36.5, "QL-C4G4"))
        with self.assertRaisesRegex(RuleError, "WD71: “long” is no length"):
            cells = [{"id": cable, "column": "length_m", "value": "long"}]
            self.bench.do("take-list", report="cables", cells=cells)
        self.edited("cards", **{"=K2+KP2-KF1": "=K2+KP2-KF71"})
        self.assertEqual(full_tag(project, project.devices[card]), "=K2+KP2-KF71")

    def test_lengths_come_back_in_the_unit_in_which_the_list_has_them(self) -> None:
        self.bench.project = project = demo()
        cable = next(
            c for c in project.cables.values() if full_tag(project, project.devices[c.device_id]).endswith("WD1")
        )
        self.bench.do("change-settings", length_unit="in")
        untouched = read_list(project, write_list(project, plain_recipe("cables"), "xlsx", FONTS))
        self.assertEqual((untouched.cells, untouched.ignored), ([], []))
        feet = f"{cable.length_m / 0.3048:.2f}"
        found = self.edited("cables", **{feet: "120"})
        self.assertEqual({(c.heading, c.before, c.after) for c in found.cells}, {("Length ft", feet, "120")})
        record = project.cables[cable.id]
        self.assertAlmostEqual(record.length_m, 36.58, places=2)
        self.book, self.page = sheet_in(write_list(project, plain_recipe("cables"), "xlsx", FONTS))
        self.bench.do("change-settings", length_unit="mm")
        with self.assertRaisesRegex(FileError, "in another unit"):
            self.read()

    def test_what_is_engraved_on_a_nameplate_is_the_text_of_its_device(self) -> None:
        self.bench.project = project = demo()
        tags = {full_tag(project, d): d.id for d in project.devices.values()}
        enclosure, lamp = tags["=K2+KP2-UC1"], tags["=K2+KD2-PF1"]
        found = self.edited("nameplates", **{"Auger running": "Auger turns", "Kiln 2 control panel": "Kiln two"})
        self.assertEqual([c.column for c in found.cells], ["line1", "line1"])
        self.assertEqual([project.devices[id].text for id in (lamp, enclosure)], ["Auger turns", "Kiln two"])
        self.edited("nameplates", **{"=K2+KD2-PF1": "=K2+KD2-PF71"})
        self.assertEqual(full_tag(project, project.devices[lamp]), "=K2+KD2-PF71")

    def test_a_row_whose_object_changed_since_is_refused_by_name_and_others_are_not(self) -> None:
        self.page.cell(self.row("-PF1"), 2).value = "Auger runs"
        self.page.cell(self.row("-PF2"), 2).value = "Fan runs"
        self.bench.do("set-text", device_id=self.lamps[0], text="Something else")
        found = self.read()
        self.assertEqual(
            found.refused, ["-PF1 has changed since the list was written. Write the list anew and edit that."]
        )
        self.assertEqual([c.name for c in found.cells], ["-PF2"])

    def test_formulas_and_unknown_columns_are_passed_over_with_a_word(self) -> None:
        self.page.cell(self.row("-PF1"), 2).value = '="Auger"&" runs"'
        self.page.cell(1, 9).value = "Remark"
        self.page.cell(self.row("-PF1"), 9).value = "mine"
        found = self.read()
        self.assertEqual(found.cells, [])
        self.assertEqual(found.ignored[0], "Column “Remark” is not one of the list.")
        self.assertIn(f"The formula in B{self.row('-PF1')} is not taken in", found.ignored[1])

    def test_what_is_typed_where_a_list_is_only_to_be_read_is_told_once_a_column(self) -> None:
        book, page = sheet_in(write_list(self.bench.project, plain_recipe("devices"), "xlsx", FONTS))
        headings = {cell.value: cell.column for row in page.iter_rows(max_row=4) for cell in row if cell.value}
        rows = [row[0].row or 0 for row in page.iter_rows() if str(row[0].value).startswith("-PF")]
        for row in rows[:2]:
            page.cell(row, headings["Maker"]).value = "Tamwick"
        page.cell(rows[2], headings["Sheet.line"]).value = None
        found = read_list(self.bench.project, saved(book))
        place = page.cell(rows[0], 1).value
        self.assertEqual((found.cells, found.refused), ([], []))
        self.assertEqual(
            found.ignored[0], f"“Maker” is only to be read: “Tamwick” at {place} and 1 more is not taken in."
        )
        self.assertIn("“Sheet.line” is only to be read", found.ignored[1])
        self.assertEqual(len(found.ignored), 2)

    def test_lists_of_both_demos_come_back_as_they_went_with_nothing_to_say(self) -> None:
        for name in ("pellwick-kiln-2", "sample-store-dehumidifier"):
            project = read_project((DEMO / f"{name}.spool.json").read_bytes())
            for report in BACK:
                with self.subTest(name, report=report):
                    found = read_list(project, write_list(project, plain_recipe(report), "xlsx", FONTS))
                    self.assertEqual((found.cells, found.refused, found.ignored), ([], [], []))

    def test_rows_may_be_sorted_and_columns_moved(self) -> None:
        book = Workbook()
        page = book.worksheets[0]
        order = [5, 2, 1, 6, 3, 4]
        for row in [1, self.row("-PF3"), self.row("-PF1")]:
            page.append([self.page.cell(row, k).value for k in order])
        page.cell(2, 2).value = "Third"
        self.book = book
        self.assertEqual([(c.name, c.after) for c in self.read().cells], [("-PF3", "Third")])

    def test_a_row_whose_object_is_gone_is_refused(self) -> None:
        symbol = self.bench.project.units_of(self.lamps[0])[0]
        self.bench.do("delete-selection", ids=[symbol.id])
        self.assertEqual(self.read().refused, ["-PF1 is gone from the project."])

    def test_a_refused_value_names_its_row_and_changes_nothing(self) -> None:
        cells = [
            {"id": self.lamps[0], "column": "text", "value": "Auger runs"},
            {"id": self.lamps[1], "column": "number", "value": "NO-SUCH-PART"},
        ]
        with self.assertRaisesRegex(RuleError, "-PF2: This part is neither"):
            self.bench.do("take-list", report="devices", cells=cells)
        self.assertEqual(self.bench.project.devices[self.lamps[0]].text, "")

    def test_order_data_of_a_part_is_taken_in_and_two_rows_of_one_part_must_agree(self) -> None:
        for device in self.lamps:
            self.bench.do("assign-part", device_id=device, part_id="tamwick-tw-l22-g")
        mine = Recipe("r2", "Order", "parts", ({"key": "number"}, {"key": "order_number"}, {"key": "price"}))
        self.book, self.page = sheet_in(write_list(self.bench.project, mine, "xlsx", FONTS))
        row = self.row("TW-L22-G")
        self.page.cell(row, 2).value = "44-1"
        self.page.cell(row, 3).value = 1_234_567.5  # in a currency of small coins
        found = self.read()
        cells = [{"id": c.id, "column": c.column, "value": c.after, "mark": c.mark} for c in found.cells]
        self.bench.do("take-list", report="parts", cells=cells)
        part = self.bench.project.parts["tamwick-tw-l22-g"]
        self.assertEqual((part.order_number, part.price), ("44-1", 1_234_567.5))
        self.page.append([self.page.cell(row, k).value for k in range(1, 6)])
        self.book, self.page = sheet_in(write_list(self.bench.project, mine, "xlsx", FONTS))
        self.page.cell(row, 2).value = "1"
        last = [self.page.cell(row, k).value for k in range(1, 6)]
        last[1] = "2"
        self.page.append(last)
        self.assertEqual(self.read().refused, ["TW-L22-G: two rows say different things in “Order number”."])

    def test_what_is_no_list_is_refused_with_words(self) -> None:
        book = Workbook()
        book.worksheets[0]["A1"] = "Tag"
        for content, words in ((b"x", "no"), (saved(book), "hidden columns are missing")):
            with self.assertRaises(FileError) as caught:
                read_list(self.bench.project, content)
            self.assertIn(words, caught.exception.message)
