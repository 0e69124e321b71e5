"""A harness to a space model and back: what differs changes and is listed, what matches nothing is named."""

from __future__ import annotations

import json
from typing import Any
from unittest import TestCase

from jolly_core.edits import parse_edit, perform
from jolly_core.exchange import space_json
from jolly_core.harness import node_name, nodes_of, segments_of, span_of, wires_of
from jolly_core.model import RuleError
from jolly_core.testing import Workbench


class Space(TestCase):
    def setUp(self) -> None:
        self.bench = bench = Workbench(frame="zones")
        bench.do("change-settings", harness_allowance_mm=0, length_step_mm=1)
        self.harness = bench.new("add-harness", code="WH-S")
        for n, length in ((1, 1), (2, 500), (3, 300)):
            first = next((x.id for x in bench.project.nodes.values()), "")
            values = {"part_id": "tamwick-tw-h2s", "tag": f"XD{n}", "from_id": first}
            bench.do("add-connector", harness_id=self.harness, length_mm=length, **values)
        long = next(s.id for s in bench.project.segments.values() if s.length_mm == 500)
        bench.do("split-segment", segment_id=long, at_mm=200, name="B1")
        rows = [{"colour": "BU", "size": "0.5", "start": "XD1:1", "end": "XD2:1"}]
        bench.do("draw-harness-wires", harness_id=self.harness, rows=rows)

    def out(self) -> dict[str, Any]:
        found: dict[str, Any] = json.loads(space_json(self.bench.project, self.harness))
        return found

    def take(self, nodes: list[dict[str, Any]], paths: list[dict[str, Any]]) -> tuple[list[list[str]], list[str]]:
        edit = {"kind": "take-in-space", "harness_id": self.harness, "nodes": nodes, "paths": paths}
        outcome = perform(self.bench.project, parse_edit(edit), library=self.bench.library)
        return outcome.table, outcome.remarks

    def test_what_goes_out_says_connectors_wires_and_bundles(self) -> None:
        found = self.out()
        self.assertEqual([c["designation"] for c in found["connectors"]], ["-XD1", "-XD2", "-XD3"])
        self.assertEqual([(w["colour"], w["start"], w["end"]) for w in found["wires"]], [("BU", "-XD1:1", "-XD2:1")])
        bundle = next(b for b in found["bundles"] if b["start"] == "B1")
        self.assertEqual((bundle["end"], bundle["length_mm"], bundle["bend_radius_mm"]), ("-XD2", 300, 12))
        self.assertEqual((found["nodes"], found["paths"]), ([], []))

    def test_places_and_paths_come_in_and_lengths_follow(self) -> None:
        nodes = [
            {"name": "-XD1", "sort": "connector", "at": [0, 0, 0]},
            {"name": "XD2", "at": [220, 0, 300]},
            {"name": "B1", "sort": "branching", "at": [220, 0, 0]},
            {"name": "XD9", "at": [1, 2, 3]},
        ]
        paths: list[dict[str, Any]] = [
            {"start": "XD1", "end": "B1"},
            {"start": "-XD2", "end": "B1", "form": "curve", "points": [220, 0, 200, 220, 0, 100]},
            {"start": "XD1", "end": "XD9"},
        ]
        table, remarks = self.take(nodes, paths)
        self.assertIn(["-XD1 to branching B1", "200 mm", "220 mm"], table)
        self.assertIn(["-XD1", "no place", "0 0 0"], table)
        self.assertEqual(
            remarks,
            [
                "XD9 is in the space model and not in WH-S.",
                "-XD3 is in WH-S and not in the space model: it stays as it is.",
                "No segment of WH-S runs from XD1 to XD9.",
            ],
        )
        (wire,) = wires_of(self.bench.project, self.harness)
        self.assertEqual(wire.length_mm, 520)
        with self.assertRaisesRegex(RuleError, "Nothing would change"):
            self.take(nodes[:3], paths[:2])

    def test_what_went_out_comes_back_as_it_is(self) -> None:
        self.test_places_and_paths_come_in_and_lengths_follow()
        before = {s.id: (s.form, s.path, span_of(self.bench.project, s.id).length_mm) for s in self.segments()}
        sent = self.out()
        with self.assertRaisesRegex(RuleError, "Nothing would change"):
            self.take(sent["nodes"], sent["paths"])
        after = {s.id: (s.form, s.path, span_of(self.bench.project, s.id).length_mm) for s in self.segments()}
        self.assertEqual(after, before)

    def segments(self) -> list[Any]:
        return segments_of(self.bench.project, self.harness)

    def test_a_length_alone_and_a_new_clip_on_the_way(self) -> None:
        nodes = [{"name": "C7", "sort": "clip", "at": [120, 40, 0]}]
        paths = [
            {"start": "XD1", "end": "C7", "form": "typed", "length_mm": 130},
            {"start": "C7", "end": "B1", "form": "typed", "length_mm": 90},
            {"start": "XD1", "end": "XD3", "form": "typed", "length_mm": 333.5},
        ]
        table, _ = self.take(nodes, paths)
        self.assertIn(["-XD1 to -XD3", "300 mm", "333.5 mm"], table)
        names = {node_name(self.bench.project, n) for n in nodes_of(self.bench.project, self.harness)}
        self.assertIn("clip C7", names)
        self.assertEqual({span_of(self.bench.project, s.id).base_mm for s in self.segments()}, {130, 90, 300, 333.5})

    def test_a_path_that_is_none_is_refused_by_its_ends(self) -> None:
        with self.assertRaisesRegex(RuleError, "From XD1 to B1: A curve has two control points"):
            self.take([], [{"start": "XD1", "end": "B1", "form": "curve", "points": [1, 2, 3]}])
        with self.assertRaisesRegex(RuleError, "three coordinates"):
            self.take([], [{"start": "XD1", "end": "B1", "form": "polyline", "points": [1, 2]}])
