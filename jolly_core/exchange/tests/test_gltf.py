"""The cabinet in space as glTF: whole, within its box, door and wires as nodes of their own."""

from __future__ import annotations

import base64
import json
from typing import Any
from unittest import TestCase

from jolly_core.cabinet import routes, solids
from jolly_core.exchange import cabinet_gltf, read_project
from jolly_core.model import GoneError
from jolly_core.testing import DEMO


class Gltf(TestCase):
    def setUp(self) -> None:
        self.project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        self.enclosure = min(self.project.enclosures)
        self.model: dict[str, Any] = json.loads(cabinet_gltf(self.project, self.enclosure))

    def test_the_document_holds_together(self) -> None:
        model = self.model
        self.assertEqual(model["asset"]["version"], "2.0")
        content = base64.b64decode(model["buffers"][0]["uri"].partition(",")[2])
        self.assertEqual(len(content), model["buffers"][0]["byteLength"])
        self.assertEqual(sum(v["byteLength"] for v in model["bufferViews"]), len(content))
        for node in model["nodes"]:
            self.assertTrue("children" in node or node["mesh"] < len(model["meshes"]))
        children = [c for node in model["nodes"] for c in node.get("children", [])]
        self.assertEqual(sorted([*children, *model["scenes"][0]["nodes"]]), list(range(len(model["nodes"]))))

    def test_everything_placed_and_every_wire_is_there_within_the_enclosure(self) -> None:
        enclosure = self.project.enclosures[self.enclosure]
        kinds: dict[str, list[Any]] = {}
        for node in self.model["nodes"]:
            kinds.setdefault(node.get("extras", {}).get("kind", ""), []).append(node)
        placed = solids(self.project, enclosure)
        self.assertEqual(len(kinds["device"]), sum(s.kind == "device" for s in placed))
        self.assertEqual({n["extras"]["id"] for n in kinds["duct"]}, {s.id for s in placed if s.kind == "duct"})
        wires = [k for k, r in routes(self.project).items() if r.enclosure_id == self.enclosure and r.length_mm]
        self.assertEqual({n["extras"]["id"] for n in kinds["wire"]}, set(wires))
        for node in self.model["nodes"]:
            if "translation" not in node:
                continue
            for at, size, most in zip(node["translation"], node["scale"], (0.5, 0.7, 0.26), strict=True):
                self.assertGreaterEqual(at - size / 2, -0.003, node["name"])
                self.assertLessEqual(at + size / 2, most + 0.003, node["name"])

    def test_the_door_turns_with_what_it_carries(self) -> None:
        door = next(n for n in self.model["nodes"] if n["name"] == "door and what it carries")
        self.assertEqual(door["extras"]["hinge"], self.project.enclosures[self.enclosure].hinge)
        on_it = [self.model["nodes"][n].get("extras", {}) for n in door["children"]]
        self.assertEqual(sum(e.get("surface") == "door" for e in on_it), 14)
        with self.assertRaises(GoneError):
            cabinet_gltf(self.project, "none")
