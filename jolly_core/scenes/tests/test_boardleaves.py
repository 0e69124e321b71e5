"""A form board on a sheet of the set: the harness whole and readable at any length, its cavities as a table."""

from __future__ import annotations

from dataclasses import replace
from itertools import combinations
from unittest import TestCase

from jolly_core.exchange import read_project
from jolly_core.harness import connectors_of
from jolly_core.scenes import sheet_places
from jolly_core.tagging import full_tag
from jolly_core.testing import DEMO, Workbench

from ..base.primitives import SMALLEST_MM, Scene, Text
from ..harness.tables import table_of
from ..room.crowding import meet, text_box
from ..set.made import page_leaves


def boards(times: float) -> tuple[Workbench, dict[str, str]]:
    """Return the demo with harnesses so many times as long, and for each the id of a sheet that shows it."""
    bench = Workbench()
    bench.project = project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_text(encoding="utf-8"))
    project.load("segment", [replace(s, length_mm=s.length_mm * times) for s in project.segments.values()])
    sheets = {
        id: bench.new("add-sheet", number=f"30{n}", sheet_kind="form-board", harness_id=id)
        for n, id in enumerate(project.harnesses)
    }
    return bench, sheets


def texts(leaf: Scene) -> list[Text]:
    """Return the texts of a leaf but for those of its frame."""
    items = [item for id, item in leaf.items.items() if id != "frame"]
    return [p for item in items for p in item.placed() if isinstance(p, Text) and p.words]


class Boards(TestCase):
    def test_every_cavity_and_leg_is_in_the_table_and_leads_to_its_pin(self) -> None:
        bench, sheets = boards(1.0)
        for harness_id, sheet_id in sheets.items():
            _, *tables = page_leaves(bench.project, sheet_id)
            rows = [i for leaf in tables for id, i in leaf.items.items() if id.startswith("row:")]
            nodes = [n for n in bench.project.nodes.values() if n.harness_id == harness_id and n.device_id]
            lines = [(n, line) for n in nodes for line in table_of(bench.project, n.id, "").rows]
            self.assertEqual(len(rows), len(lines))
            said = [{p.words for p in row.prims if isinstance(p, Text)} for row in rows]
            for node, line in lines:
                wanted = {full_tag(bench.project, bench.project.devices[node.device_id]), *filter(None, line)}
                self.assertTrue(any(wanted <= words for words in said), wanted)
            self.assertTrue(any(p.link for row in rows for p in row.prims if isinstance(p, Text)))

    def test_the_picture_fits_its_leaf_and_no_text_lies_on_another(self) -> None:
        for times in (1.0, 3.0, 12.0):
            bench, sheets = boards(times)
            for harness_id, sheet_id in sheets.items():
                leaf = page_leaves(bench.project, sheet_id)[0]
                for item in leaf.items.values():
                    left, top, right, low = item.box
                    self.assertTrue(left >= 0 and top >= 0 and right <= leaf.width and low <= leaf.height, item.id)
                shown = texts(leaf)
                self.assertGreaterEqual(min(t.size for t in shown), SMALLEST_MM - 0.01)
                for one, other in combinations(shown, 2):
                    left, top, right, low = text_box(one)
                    inner = (left + 0.1, top + 0.1, right - 0.1, low - 0.1)
                    self.assertFalse(meet(inner, text_box(other)), f"{times}: {one.words} on {other.words}")
                title = " ".join(t.words for t in shown if t.role == "title")
                named = {t.words for t in shown}
                for device in connectors_of(bench.project, harness_id):
                    if full_tag(bench.project, device) not in named:
                        self.assertIn("without room: see the table", title)

    def test_the_places_that_links_lead_to_are_those_of_the_connectors(self) -> None:
        bench, sheets = boards(1.0)
        for harness_id, sheet_id in sheets.items():
            places = sheet_places(bench.project, sheet_id)
            self.assertEqual(set(places) - {""}, {d.id for d in connectors_of(bench.project, harness_id)})
            leaf = page_leaves(bench.project, sheet_id)[0]
            self.assertTrue(all(0 < x < leaf.width and 0 < y < leaf.height for x, y in places.values()))
