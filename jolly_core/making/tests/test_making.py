"""One conductor, everywhere: all outputs agree about it, and every output follows a change and its undo."""

from __future__ import annotations

import csv
import io
import json
import zipfile
from functools import cache
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.cabinet import routes
from jolly_core.cables import cable_cores
from jolly_core.edits import compute, parse_edit
from jolly_core.edits.base.history import take_back
from jolly_core.exchange import everything_pack, named_files, pack_files, read_project, zipped
from jolly_core.harness import wires_of
from jolly_core.making import cut_list, dossiers, labels, spool_plan, spools_needed, stock_cuts, uncut
from jolly_core.model import Project
from jolly_core.reports import run_report, sheet_wires
from jolly_core.tagging import full_tag
from jolly_core.terminals import strip_rows, strips
from jolly_core.testing import DEMO, FONTS, DemoLibrary


@cache
def demo_text() -> bytes:
    return (DEMO / "pellwick-kiln-2.spool.json").read_bytes()


def demo() -> Project:
    return read_project(demo_text())


@cache
def as_issued() -> tuple[Project, dict[str, bytes]]:
    """Return the demo and the files of its pack; nobody may change them."""
    project = demo()
    return project, pack_files(project, FONTS)


def table(content: bytes) -> list[dict[str, str]]:
    """Return the rows of a CSV file by heading, with the mark in front of risky texts taken off."""
    rows = list(csv.reader(io.StringIO(content.decode("utf-8-sig"), newline="")))
    return [dict(zip(rows[0], [c.removeprefix("'") for c in row], strict=True)) for row in rows[1:]]


class OneConductor(TestCase):
    """Every conductor of the demo, in each output once, with the same number, ends, type and length."""

    def setUp(self) -> None:
        self.project, self.files = as_issued()
        self.found = dossiers(self.project)

    def ends(self, d: object) -> frozenset[str]:
        return frozenset((d.start.name, d.end.name))  # type: ignore[attr-defined]  # a dossier

    def test_the_demo_has_every_kind_and_nothing_is_left_open(self) -> None:
        kinds = {d.runs for d in self.found.values()}
        self.assertEqual(kinds, {"panel", "cable", "harness"})
        self.assertEqual(uncut(self.project), [])

    def test_the_drawing_has_it_on_the_sheets_its_net_touches(self) -> None:
        shown: dict[str, set[tuple[str, str, str]]] = {}
        for sheet in self.project.sheets.values():
            rows = sheet_wires(self.project, sheet.id)
            self.assertEqual(len({r.key for r in rows}), len(rows), "once on a sheet")
            for r in rows:
                shown.setdefault(r.key, set()).add((r.number, r.type_name, r.wire_id))
        self.assertEqual(set(shown), set(self.found))
        for key, facts in shown.items():
            d = self.found[key]
            self.assertEqual(facts, {(d.number, d.type_name, d.conductor.wire_id)})

    def test_the_wire_list_has_it_once(self) -> None:
        rows = run_report(self.project, "wires").rows
        listed = [(r[0], frozenset((str(r[1]), str(r[2]))), r[3], r[7]) for r in rows]
        wanted = [
            (d.number, self.ends(d), d.type_name, "" if d.length_mm is None else d.length_mm)
            for d in self.found.values()
        ]
        self.assertCountEqual(listed, wanted)
        written = table(self.files["wire-list.csv"])
        self.assertCountEqual(
            [(r["Number"], frozenset((r["From"], r["To"]))) for r in written], [w[:2] for w in wanted]
        )

    def test_each_terminal_it_lands_on_names_it_once(self) -> None:
        landed: dict[str, int] = {}
        for strip in strips(self.project):
            for row in strip_rows(self.project, strip.id):
                for t in (*row.panel, *row.field):
                    d = self.found[t.conductor.key]
                    landed[d.key] = landed.get(d.key, 0) + 1
                    self.assertIn(t.name, (d.start.name, d.end.name))
                    self.assertEqual(t.conductor.number, d.number)
                    self.assertEqual(
                        (t.cable, t.core), (d.run.rsplit(" ", 1)[0], d.core) if d.runs == "cable" else ("", "")
                    )
        tags = {full_tag(self.project, s) for s in strips(self.project)}
        for d in self.found.values():
            sides = sum(e.name.rsplit(":", 1)[0] in tags for e in (d.start, d.end))
            self.assertEqual(landed.get(d.key, 0), sides, d.number)

    def test_a_core_is_in_the_core_plan_once_and_is_never_cut(self) -> None:
        cored = [
            r.conductor.key
            for c in self.project.cables.values()
            for r in cable_cores(self.project, c.device_id)
            if r.conductor
        ]
        self.assertEqual(sorted(cored), sorted(d.key for d in self.found.values() if d.runs == "cable"))
        rows = {
            (r["Cable"] + " " + r["Core"]): frozenset((r["From"], r["To"]))
            for r in table(self.files["core-plan.csv"])
            if r["To"]
        }
        self.assertEqual(rows, {d.run: self.ends(d) for d in self.found.values() if d.runs == "cable"})

    def test_a_panel_or_harness_wire_has_one_route_and_one_piece_of_that_length(self) -> None:
        ways = {k: r.length_mm for k, r in routes(self.project).items()}
        for harness in self.project.harnesses:
            ways |= {w.conductor.key: w.length_mm for w in wires_of(self.project, harness)}
        cut = {w.key: w for w in cut_list(self.project)}
        self.assertEqual(len(cut), len(cut_list(self.project)))
        self.assertEqual(set(cut), {d.key for d in self.found.values() if d.runs in ("panel", "harness")})
        for key, wire in cut.items():
            d = self.found[key]
            self.assertEqual(wire.length_mm, ways[key])
            self.assertEqual(
                (wire.number, wire.start, wire.end, wire.type_name), (d.number, d.start.name, d.end.name, d.type_name)
            )
            self.assertTrue(wire.start_strip_mm > 0 and wire.end_strip_mm > 0 and wire.start_termination)

    def test_the_zip_says_the_same(self) -> None:
        wires = json.loads(self.files["cut-list.json"])["wires"]
        listed = {w["key"]: (w["number"], w["length_mm"]) for w in wires}
        self.assertEqual(listed, {w.key: (w.number, w.length_mm) for w in cut_list(self.project)})
        rows = table(self.files["cut-list.csv"])
        self.assertEqual([r["Piece"] for r in rows], [w["id"] for w in wires])
        printed = [label.text for label in labels(self.project) if label.kind == "wire"]
        self.assertEqual(len(printed), 2 * len(wires))


CHANGED_BY = {  # a change: files that are others after it, and those that are not
    "another type for one wire": (
        "drawing.pdf wire-list.csv terminal-plan.pdf cut-list.csv cut-list.json spools.csv",
        "",
    ),
    "a device moved on the plate": (
        "wire-list.csv cut-list.csv cut-list.json spools.csv plate-UC1.pdf plate-UC1.dxf",
        "terminal-plan.pdf",
    ),
    "two cores swapped": (
        "drawing.pdf core-plan.pdf core-plan.csv terminal-plan.pdf terminal-plan.csv wire-list.csv",
        "cut-list.csv",
    ),
    "a device renamed": (
        "drawing.pdf parts-list.xlsx wire-list.csv cut-list.csv labels.csv plate-UC1.dxf",
        "form-board-WH-T1.pdf",
    ),
    "a connector renamed": ("form-board-WH-T1.pdf connector-table.csv", "plate-UC1.dxf"),
}


class EveryOutputFollows(TestCase):
    """After a change each output it concerns is another; all taken back, every file has the same bytes again."""

    def setUp(self) -> None:
        self.project = demo()
        self.before = as_issued()[1]

    def by_tag(self, tag: str) -> str:
        return next(d.id for d in self.project.devices.values() if full_tag(self.project, d) == tag)

    def edits(self) -> dict[str, dict[str, object]]:
        """Return the edit that does each change."""
        conductors = dossiers(self.project)
        key = next(k for k, d in conductors.items() if d.start.name.endswith("FQ1:2"))
        thick = next(t.id for t in self.project.wire_types.values() if t.name == "Protective")
        placing = next(p.id for p in self.project.placings.values() if p.device_id == self.by_tag("=K2+KP2-KF3"))
        cable, contactor, connector = map(self.by_tag, ("=K2+KP2-WD1", "=K2+KP2-QA1", "=K2+KT2-XD1"))
        wire = conductors[key].conductor.wire_id
        return {
            "another type for one wire": {"kind": "set-wire-type", "ids": [wire], "wire_type_id": thick},
            "a device moved on the plate": {"kind": "move-in-layout", "ids": [placing], "dx": 30, "dy": 0},
            "two cores swapped": {"kind": "swap-cores", "device_id": cable, "first": 1, "second": 2},
            "a device renamed": {"kind": "set-tag", "device_id": contactor, "tag": "QA77"},
            "a connector renamed": {"kind": "set-tag", "device_id": connector, "tag": "XD9"},
        }

    def test_each_change_and_taken_back(self) -> None:
        for words, edit in self.edits().items():
            outcome = compute(self.project, parse_edit(edit), library=DemoLibrary())
            self.project.apply(outcome.changes)
            concerned, others = (set(names.split()) for names in CHANGED_BY[words])
            listed = named_files(self.project, everything_pack(self.project), FONTS)
            after = {name: file.make() for name, file in listed if name in concerned | others}
            self.project.apply(take_back(self.project, outcome.changes))
            differing = {name for name in concerned | others if after.get(name) != self.before.get(name)}
            with self.subTest(words):
                self.assertEqual((concerned - differing, others & differing), (set(), set()))
        again = pack_files(self.project, FONTS)
        self.assertEqual([n for n in again if again[n] != self.before[n]], [])
        self.assertEqual(list(again), list(self.before))
        self.assertEqual(zipped(again), zipped(self.before))

    def test_the_zip_has_the_files_in_their_order(self) -> None:
        first = zipped(self.before)
        with zipfile.ZipFile(io.BytesIO(first)) as archive:
            self.assertEqual(archive.namelist()[0], "00-contents.pdf")
            self.assertEqual(archive.namelist(), list(self.before))


class Spools(TestCase):
    def test_worked_cases(self) -> None:
        for lengths, spool, count in (
            ([6000, 6000, 4000, 4000], 10, 2),
            ([], 100, 0),
            ([100_000], 100, 1),
            ([100_001], 100, 1),
            ([60_000, 60_000, 60_000], 100, 3),
            ([50_000] * 4, 100, 2),
            ([7000, 5000, 3000, 3000, 2000], 10, 2),
            ([520, 500, 410, 390, 360, 350, 160, 150], 1, 3),
        ):
            self.assertEqual(spools_needed(lengths, spool), count, lengths)

    @given(st.lists(st.integers(50, 9000), max_size=40), st.integers(10, 100))
    def test_enough_and_not_absurdly_many(self, lengths: list[int], spool: int) -> None:
        count = spools_needed(lengths, spool)
        least = -(-sum(lengths) // (spool * 1000))
        self.assertGreaterEqual(count, least)
        self.assertLessEqual(count, 2 * least + 1)

    def test_thousands_of_wires_are_put_on_spools(self) -> None:
        lengths = [1000 + 37 * (n % 91) for n in range(3000)]
        count = spools_needed(lengths, 100)
        self.assertLessEqual(count, -(-sum(lengths) // 100_000) + 1)

    def test_the_demo_in_figures(self) -> None:
        project = demo()
        rows = {r.type_name: r for r in spool_plan(project)}
        self.assertEqual(
            (rows["Sensor plus"].wires, rows["Sensor plus"].metres, rows["Sensor plus"].spools), (7, 6.825, 1)
        )
        cuts = {(c.number, c.length_mm): (c.quantity, c.stock) for c in stock_cuts(project)}
        self.assertEqual(cuts["BW-R35", 346.0], (3, 2))
        self.assertEqual(cuts["BW-D4060", 618.0], (2, 4))


class PartsCounted(TestCase):
    def test_accessories_contacts_cables_and_stock_are_bought(self) -> None:
        rows = {str(r[4]): (r[1], r[2]) for r in run_report(demo(), "parts").rows}
        self.assertEqual(rows["QL-EB"], (10, "pcs"))
        self.assertEqual(rows["TW-CT1"], (42, "pcs"))
        self.assertEqual(rows["QL-C4G2.5"], (35, "m"))
        self.assertEqual(rows["BW-D4060"], (4, "pcs"))
        self.assertEqual(rows["QL-T4"], (10, "pcs"))
        self.assertEqual(rows["QL-T4E"], (3, "pcs"))
