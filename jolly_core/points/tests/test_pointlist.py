"""Point lists: headings below titles, columns by hand, words for types, faults by row, what a second list changes."""

from __future__ import annotations

import io
from random import Random
from unittest import TestCase

from openpyxl import Workbook

from jolly_core.exchange import read_table
from jolly_core.model import FileError, RuleError
from jolly_core.points import FIELDS, PointList, field_headed, io_type_of, read_points
from jolly_core.testing import Workbench

HEAD = ["Tag", "Description", "Type", "Connected to"]


class ListCase(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench()

    def read(self, rows: list[list[str]], **more: object) -> PointList:
        return read_points(self.bench.project, rows, **more)  # type: ignore[arg-type]

    def take(self, found: PointList, gone: bool = False) -> str:
        points = [line.values for line in found.lines]
        self.bench.do("take-in-points", points=points, gone=found.gone if gone else [])
        return self.bench.done[-1].label

    def changes(self, found: PointList) -> list[tuple[str, str]]:
        return [(r.tag, r.change) for r in found.rows]


class Reading(ListCase):
    def test_plain_words_are_types(self) -> None:
        for words, wanted in (
            ("DI", ("DI", "")),
            ("digital input", ("DI", "")),
            ("Analogue  Input", ("AI", "")),
            ("analog-out", ("AO", "")),
            ("Relay output", ("DO", "")),
            ("PT100", ("AI", "rtd")),
            ("thermocouple", ("AI", "thermocouple")),
            ("High speed counter", ("DI", "fast")),
            ("safety input", ("DI", "safe")),
            ("SDO", ("DO", "safe")),
        ):
            with self.subTest(words=words):
                self.assertEqual(io_type_of(words), wanted)
        with self.assertRaisesRegex(FileError, "“motor” is no type. Use DI, DO, AI or AO."):
            io_type_of("motor")

    def test_every_heading_leads_to_one_field(self) -> None:
        known = [word for f in FIELDS for word in (f.heading.lower(), *f.known)]
        self.assertEqual(len(known), len(set(known)))
        for f in FIELDS:
            self.assertEqual({field_headed(word.upper()) for word in (f.heading, *f.known)}, {f.key})

    def test_headings_stand_below_title_rows(self) -> None:
        rows = [
            ["Pellwick Maltings, kiln 2"],
            ["Points of the controller", "", "Rev C"],
            [],
            HEAD,
            ["B1", "", "DI", "x"],
        ]
        found = self.read(rows)
        self.assertEqual((found.heading_row, [line.row for line in found.lines]), (4, [5]))
        self.assertEqual(found.columns, ["tag", "text", "io_type", "connected"])

    def test_columns_are_said_by_hand_left_out_and_kept_as_own(self) -> None:
        rows = [["No", "KKS", "Direction of signal", "Loop", "Text"], ["1", "B1", "DI", "L7", "Hatch"]]
        unread = self.read(rows)
        self.assertIn("No column is headed Tag", unread.problem)
        self.assertEqual((unread.headings, unread.rows), (rows[0], []))
        mapping = {"KKS": "tag", "Direction of signal": "io_type", "Loop": "own", "Text": "-"}
        found = self.read(rows, mapping=mapping)
        self.assertEqual(found.columns, ["-", "tag", "io_type", "own", "-"])
        self.assertEqual(found.lines[0].values, {"tag": "B1", "io_type": "DI", "sort": "", "own": {"Loop": "L7"}})
        self.take(found)
        (point,) = self.bench.project.io_points.values()
        self.assertEqual((point.own, point.text), ({"Loop": "L7"}, ""))

    def test_two_columns_for_one_field(self) -> None:
        found = self.read([["Tag", "Type", "Text", "Description"], ["B1", "DI", "first", "second"]])
        self.assertEqual(found.columns, ["tag", "io_type", "text", "-"])

    def test_faults_name_row_column_and_why(self) -> None:
        rows = [
            [],
            HEAD,
            ["B1", "", "DI"],
            ["", "", "DI"],
            [],
            ["B1", "", "DI"],
            ["B2", "", "motor"],
            ["B3"],
            ["B4\x07", "", "DI"],
            ["B5", "t" * 201, "DI"],
        ]
        found = self.read(rows)
        self.assertEqual([line.tag for line in found.lines], ["B1"])
        shown = [(f.row, f.column, f.why.split(".")[0]) for f in found.faults]
        self.assertEqual(
            shown,
            [
                (4, "Tag", "There is no tag"),
                (6, "Tag", "B1 is in row 3 already"),
                (7, "Type", "“motor” is no type"),
                (8, "Type", "There is no type"),
                (9, "Tag", "It holds characters that cannot be printed"),
                (10, "Description", "It is longer than 200 characters"),
            ],
        )

    def test_missing_headings_are_named(self) -> None:
        self.assertIn("headed Type", self.read([["Tag", "Text"], ["B1", "x"]]).problem)
        with self.assertRaisesRegex(FileError, "empty"):
            self.read([["", " "], []])

    def test_places_are_found_by_path_or_code_and_unknown_ones_named(self) -> None:
        kiln = self.bench.new("add-function", code="K2")
        turner = self.bench.new("add-function", code="T1", parent_id=kiln)
        field = self.bench.new("add-location", code="KF2", side="field")
        rows = [["Tag", "Type", "Machine", "Location"]]
        rows += [
            ["B1", "DI", "=K2.T1", "+KF2"],
            ["B2", "DI", "T1", "kf2"],
            ["B3", "DI", "", ""],
            ["B4", "DI", "X9", ""],
        ]
        found = self.read(rows)
        places = [(line.values["function_id"], line.values["location_id"]) for line in found.lines]
        self.assertEqual(places, [(turner, field), (turner, field), ("", "")])
        self.assertEqual([(f.row, f.column) for f in found.faults], [(5, "Machine")])
        self.assertIn("There is no function X9", found.faults[0].why)

    def test_words_for_rest_and_wishes(self) -> None:
        head = ["Tag", "Type", "At rest", "Terminals", "Cable"]
        found = self.read([head, ["B1", "DI", "NC", "x", "no"], ["B2", "DI", "maybe", "perhaps", ""]])
        self.assertEqual(found.lines[0].values["normal"], "closed")
        self.assertEqual((found.lines[0].values["terminals"], found.lines[0].values["cable"]), (True, False))
        self.assertEqual([f.column for f in found.faults], ["At rest", "Terminals"])


class TakenAgain(ListCase):
    def test_a_second_list_adds_changes_and_leaves_out(self) -> None:
        first = [HEAD, ["B1", "Hatch", "DI", ""], ["B2", "Hopper", "DI", ""], ["B3", "Chain", "DI", ""]]
        self.assertEqual(self.take(self.read(first)), "take in points: 3 added, 0 changed")
        again = [
            HEAD,
            ["B1", "Hatch", "DI", ""],
            ["B2", "Hopper low", "DI", ""],
            ["B9", "", "DO", ""],
            ["B3", "", "?", ""],
        ]
        found = self.read(again)
        self.assertEqual(self.changes(found), [("B1", "same"), ("B2", "changed"), ("B9", "added"), ("B3", "faulty")])
        self.assertEqual(found.rows[1].changed, ("text",))
        self.assertEqual(found.gone, [], "a faulty row of a known tag is faulty, not gone")
        self.take(found)
        self.assertEqual(sorted(p.tag for p in self.bench.project.io_points.values()), ["B1", "B2", "B3", "B9"])

    def test_what_is_gone_goes_only_when_it_is_said(self) -> None:
        self.take(self.read([HEAD, ["B1", "", "DI"], ["B2", "", "DI"]]))
        found = self.read([HEAD, ["B1", "other", "DI"]])
        self.assertEqual(found.gone, ["B2"])
        self.take(found)
        self.assertEqual(len(self.bench.project.io_points), 2)
        self.assertEqual(
            self.take(self.read([HEAD, ["B1", "third", "DI"]]), gone=True), "take in points: 0 added, 1 changed, 1 gone"
        )
        self.assertEqual([p.tag for p in self.bench.project.io_points.values()], ["B1"])

    def test_an_allocation_stays_and_a_column_left_out_changes_nothing(self) -> None:
        card = self.bench.new("add-card", part_id="hollin-hr-di8")
        self.take(self.read([[*HEAD, "Signal"], ["B1", "Hatch", "DI", "switch", "24 V DC"]]))
        (point,) = self.bench.project.io_points.values()
        self.bench.do("allocate-points", ids=[point.id], device_id=card, channel=3)
        self.take(self.read([["Tag", "Type", "Text"], ["B1", "DI", "Hatch closed"]]))
        (point,) = self.bench.project.io_points.values()
        self.assertEqual(
            (point.text, point.connected, point.signal, point.channel), ("Hatch closed", "switch", "24 V DC", 3)
        )

    def test_read_again_nothing_is_left_to_change(self) -> None:
        random = Random(17)
        for n in range(25):
            rows = [[f.heading for f in FIELDS if f.key not in ("function", "location")]]
            for k in range(random.randint(1, 30)):
                kind = random.choice(("DI", "DO", "AI", "AO"))
                cells = [
                    f"P{n}.{k}",
                    f"text {k}",
                    random.choice(("", "zwei")),
                    kind,
                    random.choice(("", "fast")),
                    "24 V",
                ]
                cells += [f"-B{k}", "switch", "0..10", "bar", random.choice(("no", "NC", "")), "x", "", "note"]
                rows.append(cells)
            found = self.read(rows)
            self.assertEqual(found.faults, [])
            self.take(found)
            self.assertEqual({change for _, change in self.changes(self.read(rows))}, {"same"})


class Typed(ListCase):
    def setUp(self) -> None:
        super().setUp()
        self.take(self.read([HEAD, ["B1", "Hatch", "DI", ""], ["B2", "Hopper", "DI", ""]]))
        self.ids = {p.tag: p.id for p in self.bench.project.io_points.values()}

    def write(self, tag: str, key: str, value: str) -> None:
        self.bench.do("write-points", cells=[{"id": self.ids[tag], "key": key, "value": value}])

    def test_cells_are_typed_as_in_a_list(self) -> None:
        self.write("B1", "io_type", "pt100")
        self.write("B1", "normal", "nc")
        self.write("B1", "Loop", "L7")
        point = self.bench.project.io_points[self.ids["B1"]]
        self.assertEqual((point.io_type, point.sort, point.normal, point.own), ("AI", "rtd", "closed", {"Loop": "L7"}))

    def test_a_wrong_cell_is_refused_by_name_and_nothing_changes(self) -> None:
        before = dict(self.bench.project.io_points)
        for key, value, words in (
            ("io_type", "motor", "B1: “motor” is no type"),
            ("normal", "maybe", "B1: “maybe” is not understood"),
            ("location", "+X", "B1: There is no location"),
            ("tag", "B2", "There is a point B2 already"),
            ("tag", " ", "A point has a tag"),
        ):
            with self.subTest(key=key), self.assertRaisesRegex(RuleError, words):
                self.write("B1", key, value)
        self.assertEqual(dict(self.bench.project.io_points), before)

    def test_two_tags_are_exchanged_in_one_edit(self) -> None:
        cells = [{"id": self.ids[a], "key": "tag", "value": b} for a, b in (("B1", "B2"), ("B2", "B1"))]
        self.bench.do("write-points", cells=cells)
        self.assertEqual(
            {p.tag: p.text for p in self.bench.project.io_points.values()}, {"B1": "Hopper", "B2": "Hatch"}
        )

    def test_points_are_added_moved_and_deleted(self) -> None:
        self.bench.do("add-point", tag="B0", after_id=self.ids["B1"])
        self.bench.do("move-points", ids=[self.ids["B2"]], to=0)
        points = sorted(self.bench.project.io_points.values(), key=lambda p: p.order)
        self.assertEqual([p.tag for p in points], ["B2", "B1", "B0"])
        with self.assertRaisesRegex(RuleError, "There is a point B0 already"):
            self.bench.do("add-point", tag="B0")
        self.bench.do("delete-points", ids=[p.id for p in points[:2]])
        self.assertEqual([p.tag for p in self.bench.project.io_points.values()], ["B0"])


class Books(TestCase):
    def book(self) -> bytes:
        book = Workbook()
        page = book.active
        assert page is not None
        page.title = "Cover"
        page["A1"] = "Points"
        points = book.create_sheet("Points")
        for row in (
            ["Kiln 2"],
            HEAD,
            ["B1", "Hatch", "DI", "switch"],
            ["B2", "=A3&A4", "DI", ""],
            ["B3", "", "DI", ""],
        ):
            points.append(row)
        points.merge_cells("D4:D5")
        out = io.BytesIO()
        book.save(out)
        return out.getvalue()

    def test_a_sheet_is_chosen_and_empty_formulas_and_merged_cells_are_named(self) -> None:
        content = self.book()
        self.assertEqual(read_table(content, "p.xlsx").sheet, "Cover")
        table = read_table(content, "p.xlsx", "Points")
        self.assertEqual(table.sheets, ["Cover", "Points"])
        found = read_points(Workbench().project, table.rows, bad_cells=table.bad)
        self.assertEqual([(line.row, line.tag) for line in found.lines], [(3, "B1")])
        self.assertEqual([(f.row, f.column) for f in found.faults], [(4, "Description"), (5, "Connected to")])
        self.assertIn("The formula in B4 has no stored value", found.faults[0].why)
        self.assertIn("It is merged with D4", found.faults[1].why)
        with self.assertRaisesRegex(FileError, "no sheet Points 2. It has Cover, Points"):
            read_table(content, "p.xlsx", "Points 2")

    def test_text_files_and_broken_books(self) -> None:
        table = read_table(b"Tag;Type\nB1;DI\n", "p.csv")
        self.assertEqual((table.rows, table.sheets), ([["Tag", "Type"], ["B1", "DI"]], []))
        with self.assertRaisesRegex(FileError, "not an XLSX workbook"):
            read_table(b"no book", "p.xlsx")
