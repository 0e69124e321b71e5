"""A project in inches: no list and no paper of it has millimetres or metres, but in the texts of parts themselves."""

from __future__ import annotations

import re
from dataclasses import replace
from io import BytesIO
from unittest import TestCase

from openpyxl import load_workbook

from jolly_core.checks import all_snags
from jolly_core.exchange import read_list, read_project, whole_set, write_list
from jolly_core.exchange.packitems import files_of
from jolly_core.model import Project, Recipe
from jolly_core.reports import REPORTS, Table, full_report
from jolly_core.scenes import generated_pages, leaves_of, paper_set
from jolly_core.scenes.base.primitives import Text
from jolly_core.tagging import full_tag
from jolly_core.testing import DEMO, FONTS, Workbench

METRIC = re.compile(r"\d mm\b(?!²)|\d m\b|^m$|\b(?:mm|[Mm]etres?)$| m$")
OF_PARTS = ("text", "description", "type", "number", "name", "cross_section", "size")
PLANNED = ("panel-layout", "form-board", "data")


def both(name: str) -> tuple[Project, Project]:
    """Return a project of the demo in millimetres, and the same in inches."""
    text = (DEMO / f"{name}.spool.json").read_text(encoding="utf-8")
    found = []
    for unit in ("mm", "in"):
        project = read_project(text)
        project.load("settings", [replace(project.settings, length_unit=unit)])
        found.append(project)
    return found[0], found[1]


def told(table: Table, key: str) -> list[dict[str, object]]:
    """Return the rows of a report by the keys of its columns as they are declared."""
    return [dict(zip((c.key for c in REPORTS[key].columns), row, strict=True)) for row in table.rows]


class Inches(TestCase):
    def test_no_list_has_millimetres_or_metres(self) -> None:
        for name in ("pellwick-kiln-2", "sample-store-dehumidifier"):
            project = both(name)[1]
            for key, report in REPORTS.items():
                table = full_report(project, key)
                for n, column in enumerate(table.columns):
                    self.assertNotRegex(column.heading, METRIC, key)
                    if report.columns[n].key in OF_PARTS:
                        continue
                    for row in table.rows:
                        own = any(p.text and p.text in str(row[n]) for p in project.parts.values())
                        if not own:
                            self.assertNotRegex(str(row[n]), METRIC, f"{key} {column.key}")

    def test_what_is_bought_by_length_is_so_many_feet_at_the_price_of_one_and_costs_the_same(self) -> None:
        metric, inches = both("pellwick-kiln-2")
        for project in (metric, inches):
            priced = [replace(p, price=1.85, currency="EUR") for p in project.parts.values()]
            project.load("part", priced)
            project.load("cable", [replace(c, length_m=0.0) for c in list(project.cables.values())[::2]])
        feet = 0
        for was, now in zip(
            told(full_report(metric, "parts"), "parts"), told(full_report(inches, "parts"), "parts"), strict=True
        ):
            if was["unit"] == "no length":
                self.assertEqual((now["price"], now["sum"]), (0.5639, ""))
                continue
            if was["unit"] != "m":
                self.assertEqual(was, now)
                continue
            feet += 1
            self.assertEqual(now["unit"], "ft")
            self.assertAlmostEqual(float(str(now["quantity"])) * 0.3048, float(str(was["quantity"])), places=3)
            self.assertEqual((now["sum"], now["number"]), (was["sum"], was["number"]))
            if was["sum"]:
                self.assertEqual(now["price"], 0.5639)
                in_all = float(str(now["quantity"])) * float(str(now["price"]))
                self.assertAlmostEqual(in_all, float(str(now["sum"])), delta=0.02)
        self.assertGreater(feet, 15)

    def test_sizes_and_cuts_are_told_in_inches(self) -> None:
        metric, inches = both("pellwick-kiln-2")
        for key, column in (("holes", "size"), ("cutting", "pieces"), ("nameplates", "plate"), ("spools", "metres")):
            was, now = (told(full_report(project, key), key) for project in (metric, inches))
            length = 304.8 / 1000 if column == "metres" else 25.4
            pairs = [
                (float(a), float(b))
                for one, other in zip(was, now, strict=True)
                for a, b in zip(*(re.findall(r"[\d.]+", str(row[column])) for row in (one, other)), strict=True)
            ]
            self.assertTrue(pairs, key)
            for one, other in pairs:
                self.assertAlmostEqual(one / length, other, delta=0.006, msg=key)

    def test_the_price_of_a_foot_comes_back_as_that_of_a_metre(self) -> None:
        bench = Workbench()
        bench.project = project = both("pellwick-kiln-2")[1]
        cable = next(p for p in project.parts.values() if p.number == "QL-C4G2.5")
        project.load("part", [replace(cable, price=1.85, currency="EUR")])
        columns = tuple({"key": key} for key in ("number", "unit", "price"))
        recipe = Recipe("r", "Prices", report="parts", columns=columns)
        content = write_list(project, recipe, "xlsx", FONTS)
        self.assertEqual(read_list(project, content).cells, [])
        book = load_workbook(BytesIO(content))
        cell = next(c for row in book.worksheets[0].iter_rows() for c in row if c.value == 0.5639)
        cell.value = 0.6
        self.assertEqual(cell.number_format, "0.00##")
        out = BytesIO()
        book.save(out)
        found = read_list(project, out.getvalue())
        self.assertEqual([(c.name, c.before, c.after) for c in found.cells], [("QL-C4G2.5", "0.5639", "0.6")])
        cells = [{"id": c.id, "column": c.column, "value": c.after, "mark": c.mark} for c in found.cells]
        bench.do("take-list", report="parts", cells=cells)
        self.assertAlmostEqual(project.parts[cable.id].price, 0.6 / 0.3048, places=3)

    def test_layouts_and_form_boards_are_dimensioned_in_inches(self) -> None:
        metric, inches = both("pellwick-kiln-2")
        ids = [s.id for s in metric.sheets_in_order() if s.kind in PLANNED]
        ids += [page.id for page in generated_pages(metric) if page.id.startswith("plan:board")]
        said: list[list[str]] = []
        for project in (metric, inches):
            leaves = [leaf for _, leaf in paper_set(project, ids)]
            items = [item for leaf in leaves for item in leaf.items.values() if item.kind != "scale"]
            said.append([p.words for item in items for p in item.prims if isinstance(p, Text)])
        texts = [p.text for p in inches.parts.values() if p.text]
        bad = [w for w in said[1] if METRIC.search(w) and not any(w in t or t in w for t in texts)]
        self.assertEqual(bad, [])
        for words, shown in zip(said, ("seen from the front  800 × 1000 mm", "31.50 × 39.37 in"), strict=True):
            self.assertTrue(any(shown in w for w in words), shown)
        numbers = [{float(w) for w in words if re.fullmatch(r"\d+(\.\d+)?", w)} for words in said]
        lengths = numbers[0] - numbers[1]
        self.assertGreater(len(lengths), 20)
        self.assertEqual({n for n in lengths if round(n / 25.4, 2) not in numbers[1]}, set())


class Complete(TestCase):
    """The papers of the small project, which has North American habits: nothing is missing on any of them."""

    def setUp(self) -> None:
        self.project = read_project((DEMO / "sample-store-dehumidifier.spool.json").read_bytes())

    def rows(self, key: str) -> list[dict[str, object]]:
        return told(full_report(self.project, key), key)

    def test_each_wire_has_a_length_in_inches_and_a_size_by_awg(self) -> None:
        wires = [w for w in self.rows("wires") if not w["core"]]
        self.assertEqual(len(wires), 45)
        for wire in wires:
            self.assertRegex(str(wire["cross_section"]), r"^AWG \d+$")
            self.assertGreater(float(str(wire["length_mm"])), 5)
        cut = {(c["start"], c["end"]): c for c in self.rows("cut")}
        self.assertEqual(cut.keys(), {(w["from"], w["to"]) for w in wires})
        self.assertEqual({c["missing"] for c in cut.values()}, {""})
        self.assertEqual(
            {(w["from"], w["to"]): w["length_mm"] for w in wires},
            {ends: c["length_mm"] for ends, c in cut.items()},
        )

    def test_spools_hold_what_is_cut_and_the_order_has_it_too(self) -> None:
        inches: dict[str, float] = {}
        for wire in self.rows("cut"):
            inches[str(wire["type"])] = inches.get(str(wire["type"]), 0.0) + float(str(wire["length_mm"]))
        spools = {str(s["type"]): s for s in self.rows("spools")}
        self.assertEqual(spools.keys(), inches.keys())
        ordered = {str(p["text"]): p for p in self.rows("parts") if p["class"] == "Wire"}
        for name, spool in spools.items():
            self.assertAlmostEqual(
                float(str(spool["metres"])) * 12, inches[name], delta=0.01 * int(str(spool["wires"]))
            )
            order = ordered[f"{name} {spool['cross_section']} {spool['colour']}"]
            self.assertEqual(order["unit"], "ft")
            self.assertAlmostEqual(float(str(order["quantity"])), float(str(spool["metres"])), places=2)

    def test_each_cable_has_a_length_and_a_core_for_each_wire_that_leaves_the_panel(self) -> None:
        cables = self.rows("cables")
        self.assertEqual([c["number"] for c in cables], ["QL-C4G-AWG14"] * 2 + ["QL-C2-AWG16"] * 3)
        self.assertGreater(min(float(str(c["length_m"])) for c in cables), 10)
        cores = {(str(c["from"]), str(c["to"])) for c in self.rows("cores")}
        self.assertEqual(len(cores), sum(int(str(c["used"])) for c in cables))
        field = {full_tag(self.project, d) for d in self.project.devices.values() if d.location_id == self.field()}
        self.assertEqual({end for _, to in cores for end in [to.partition(":")[0]]}, {t.split("-")[-1] for t in field})

    def test_everything_has_its_label_and_its_plate(self) -> None:
        labels = {(str(r["kind"]), str(r["text"])) for r in self.rows("labels")}
        cut = self.rows("cut")
        self.assertLessEqual({("wire", str(c["print_start"])) for c in cut}, labels)
        self.assertLessEqual({("wire", str(c["print_end"])) for c in cut}, labels)
        doors = [self.project.devices[p.device_id] for p in self.project.placings.values() if p.surface == "door"]
        plates = {str(p["tag"]) for p in self.rows("nameplates")}
        self.assertEqual(plates - {"ENCL1"}, {full_tag(self.project, d).split("-")[-1] for d in doors})

    def test_a_plate_without_a_text_has_the_tag_once(self) -> None:
        self.project.load("device", [replace(d, text="") for d in self.project.devices.values()])
        plates = {p["tag"]: (p["line1"], p["line2"]) for p in self.rows("nameplates")}
        self.assertEqual(plates["LT34"], ("LT34", ""))

    def test_tags_have_no_marks_on_papers_plates_and_files(self) -> None:
        """By the line habit a tag is CB22; only one that is elsewhere says so, as +F1-LS40."""
        marked = re.compile(r"(?:^|[\s(:])-[A-Z]+\d")
        pages = [leaf for id in whole_set(self.project) for leaf in leaves_of(self.project, id)]
        prims = [p for leaf in pages for item in leaf.items.values() for p in item.placed()]
        words = [p.words for p in prims if isinstance(p, Text)]
        self.assertGreater(len(words), 1000)
        cells = [str(cell) for key in REPORTS for row in full_report(self.project, key).rows for cell in row]
        files = [f.words for format in ("pdf", "dxf") for f in files_of(self.project, "layouts", format, FONTS)]
        self.assertIn("Mounting plate of ENCL1 with holes", files)
        self.assertEqual([w for w in (*words, *cells, *files) if marked.search(w)], [])

    def test_nothing_is_left_to_be_mended(self) -> None:
        self.assertEqual(all_snags(self.project), [])

    def field(self) -> str:
        return next(id for id, place in self.project.locations.items() if place.code == "F1")
