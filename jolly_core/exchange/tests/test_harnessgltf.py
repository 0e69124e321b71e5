"""A harness for others in space: glTF with closed tubes as thick as their bundles, and the schema of the JSON."""

from __future__ import annotations

import base64
import json
import struct
from collections import Counter
from math import pi
from typing import Any
from unittest import TestCase

from jsonschema import Draft202012Validator

from jolly_core.exchange import harness_gltf, read_project, space_json
from jolly_core.exchange.harnessgltf import tube
from jolly_core.harness import bundles, span_of, wires_of
from jolly_core.model import GoneError, RuleError
from jolly_core.testing import DEMO, Workbench

Point = tuple[float, float, float]


def volume(points: list[Point], triangles: list[int]) -> float:
    """Return the volume that triangles enclose, by the divergence theorem."""
    total = 0.0
    for n in range(0, len(triangles), 3):
        (ax, ay, az), (bx, by, bz), (cx, cy, cz) = (points[k] for k in triangles[n : n + 3])
        total += ax * (by * cz - bz * cy) - ay * (bx * cz - bz * cx) + az * (bx * cy - by * cx)
    return abs(total) / 6


def edges(triangles: list[int]) -> Counter[frozenset[int]]:
    found: Counter[frozenset[int]] = Counter()
    for n in range(0, len(triangles), 3):
        a, b, c = triangles[n : n + 3]
        found.update((frozenset((a, b)), frozenset((b, c)), frozenset((c, a))))
    return found


class Tubes(TestCase):
    def test_a_straight_tube_is_closed_and_holds_what_a_cylinder_does(self) -> None:
        points, triangles = tube([(0, 0, 0), (60, 80, 0)], 5)
        self.assertEqual(set(edges(triangles).values()), {2})
        self.assertAlmostEqual(volume(points, triangles) / (pi * 25 * 100), 1, delta=0.06)

    def test_it_turns_with_its_line_and_does_not_narrow(self) -> None:
        line = [(0.0, 0.0, 0.0), (100.0, 0.0, 0.0), (100.0, 100.0, 0.0), (100.0, 100.0, 100.0)]
        points, triangles = tube(line, 2)
        self.assertEqual(set(edges(triangles).values()), {2})
        for k in range(4):
            for p in points[12 * k : 12 * (k + 1)]:
                off = [a - b for a, b in zip(p, line[k], strict=True)]
                self.assertAlmostEqual(sum(v * v for v in off) ** 0.5, 2, places=6)

    def test_points_that_fall_together_do_no_harm(self) -> None:
        points, triangles = tube([(0, 0, 0), (0, 0, 0), (0, 0, 50)], 3)
        self.assertEqual((len(points), max(triangles)), (24, 23))


class OfTheDemo(TestCase):
    def setUp(self) -> None:
        self.project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        self.harness = min(self.project.harnesses.values(), key=lambda h: h.order)
        self.content: dict[str, Any] = json.loads(harness_gltf(self.project, self.harness.id))

    def points(self, node: dict[str, Any]) -> list[Point]:
        """Return the points of a node in mm, read from the buffer as any reader would."""
        primitive = self.content["meshes"][node["mesh"]]["primitives"][0]
        accessor = self.content["accessors"][primitive["attributes"]["POSITION"]]
        view = self.content["bufferViews"][accessor["bufferView"]]
        data = base64.b64decode(self.content["buffers"][0]["uri"].split(",", 1)[1])
        raw = struct.unpack_from(f"<{3 * accessor['count']}f", data, view["byteOffset"])
        found = [(1000 * raw[n], 1000 * raw[n + 1], 1000 * raw[n + 2]) for n in range(0, len(raw), 3)]
        for axis in range(3):
            self.assertAlmostEqual(min(p[axis] for p in found), 1000 * accessor["min"][axis], places=3)
            self.assertAlmostEqual(max(p[axis] for p in found), 1000 * accessor["max"][axis], places=3)
        return found

    def test_every_path_is_a_tube_as_thick_as_its_bundle_and_every_end_a_box(self) -> None:
        by_kind = Counter(node["extras"]["kind"] for node in self.content["nodes"])
        self.assertEqual(by_kind, {"bundle": 6, "connector": 4, "splice": 1, "clip": 1})
        thick = bundles(self.project, self.harness.id)
        for node in self.content["nodes"]:
            if node["extras"]["kind"] == "bundle":
                path = span_of(self.project, node["extras"]["id"]).path
                first, ring = path.points[0] if path else (0, 0, 0), self.points(node)[:12]
                for p in ring:
                    away = sum((a - b) ** 2 for a, b in zip(p, first, strict=True)) ** 0.5
                    self.assertAlmostEqual(away, thick[node["extras"]["id"]].diameter_mm / 2, places=2)

    def test_the_buffer_is_as_long_as_it_says(self) -> None:
        data = base64.b64decode(self.content["buffers"][0]["uri"].split(",", 1)[1])
        self.assertEqual(len(data), self.content["buffers"][0]["byteLength"])
        last = self.content["bufferViews"][-1]
        self.assertEqual(last["byteOffset"] + last["byteLength"], len(data))

    def test_what_lies_nowhere_is_refused_by_name(self) -> None:
        bench = Workbench()
        harness = bench.new("add-harness", code="WH-E")
        with self.assertRaises(RuleError) as caught:
            harness_gltf(bench.project, harness)
        self.assertIn("WH-E has no path in space yet", caught.exception.message)
        with self.assertRaises(GoneError):
            harness_gltf(bench.project, "none")


class SpaceSchema(TestCase):
    """The documented schema holds for what goes out, and refuses what the format does not have."""

    def setUp(self) -> None:
        raw = (DEMO.parent / "docs" / "formats" / "space-1.schema.json").read_text(encoding="utf-8")
        schema = json.loads(raw)
        Draft202012Validator.check_schema(schema)
        self.schema = Draft202012Validator(schema)
        self.project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())

    def test_harnesses_of_the_demo_hold_it(self) -> None:
        for harness in self.project.harnesses.values():
            content = json.loads(space_json(self.project, harness.id))
            self.schema.validate(content)
            self.assertEqual(len(content["wires"]), len(wires_of(self.project, harness.id)))

    def test_another_format_or_form_is_none(self) -> None:
        content = json.loads(space_json(self.project, min(self.project.harnesses)))
        self.assertFalse(self.schema.is_valid({**content, "format": "other"}))
        self.assertFalse(self.schema.is_valid({**content, "paths": [{"start": "A", "end": "B", "form": "spiral"}]}))
        self.assertFalse(self.schema.is_valid({**content, "nodes": [{"name": "A", "at": [1, 2]}]}))
