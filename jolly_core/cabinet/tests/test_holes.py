"""Holes: from the part only, of every shape, counted by size, the same in each file."""

from __future__ import annotations

import io
from dataclasses import replace
from unittest import TestCase

import ezdxf.filemanagement

from jolly_core.cabinet import cutouts_in, hole_table, holes
from jolly_core.checks import project_snags
from jolly_core.exchange import read_project
from jolly_core.exchange.platedxf import surface_dxf
from jolly_core.library import part_fields
from jolly_core.library.fields import checked
from jolly_core.model import Change, ChangeSet, FileError, Project
from jolly_core.scenes import Poly, Text, surface_scene
from jolly_core.testing import DEMO


class Patterns(TestCase):
    def test_each_shape_about_the_middle_and_y_upwards(self) -> None:
        found = cutouts_in("rectangle 0,0,92,45,2; slot 40,30,12,5.5;round -20,-10,4.5; rectangle 1,2,8,9")
        self.assertEqual(
            [(h.x, h.y, h.words) for h in found],
            [(0, 0, "92 × 45, r 2"), (40, -30, "slot 12 × 5.5"), (-20, 10, "⌀ 4.5"), (1, -2, "8 × 9")],
        )

    def test_what_is_no_hole_is_none_and_is_refused_where_it_is_typed(self) -> None:
        self.assertEqual(cutouts_in("rectangle 1,2; round 1,2,0; circle 1,2,3; slot 1,2,-3,4; rectangle 1,2,3"), [])
        spec = part_fields()["cutouts_mm"]
        self.assertEqual(checked(spec, spec.example), spec.example)
        for wrong in ("circle 1,2,3", "rectangle 1,2", "slot a,b,c,d", "92 x 92"):
            with self.subTest(wrong), self.assertRaisesRegex(FileError, "should be like rectangle 0,0,92,92,2"):
                checked(spec, wrong)
        with self.assertRaisesRegex(FileError, "should be like 6,6,5.5"):
            checked(part_fields()["screws_mm"], "6,6")

    def test_the_table_counts_by_size_the_smallest_first(self) -> None:
        found = cutouts_in("round 0,0,22.5; rectangle 0,0,92,92,2; round 50,0,22.5; round 9,9,4.5")
        self.assertEqual(hole_table(found), [("⌀ 4.5", 1), ("⌀ 22.5", 2), ("92 × 92, r 2", 1)])


class OnTheSurface(TestCase):
    def setUp(self) -> None:
        self.project: Project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        self.enclosure = next(iter(self.project.enclosures))

    def give(self, class_key: str, **ratings: str) -> None:
        for part in list(self.project.parts.values()):
            if part.part_class == class_key:
                kept = {k: v for k, v in part.ratings.items() if not k.endswith("_mm")}
                change = Change("part", part.id, part, replace(part, ratings=kept | ratings))
                self.project.apply(ChangeSet([change]))

    def snags(self, code: str) -> list[str]:
        return [s.message for s in project_snags(self.project) if s.code == code]

    def test_rails_and_ducts_have_what_their_parts_say(self) -> None:
        self.assertEqual(self.snags("plate-hole"), [])
        self.assertIn(("⌀ 5.5", 29), [*hole_table(holes(self.project, self.enclosure, "plate"))])
        self.give("rail")
        self.give("duct", fixing_mm="6")
        table = hole_table(holes(self.project, self.enclosure, "plate"))
        ducts = sum(d.enclosure_id == self.enclosure for d in self.project.ducts.values())
        self.assertEqual(table, [("⌀ 6", 2 * ducts)], "no pitch: one near each end; no invented hole for the rails")
        self.assertIn(
            "No holes are made in the plate of =K2+KP2-UC1 for 3 rails and ducts. Say them in their parts.",
            self.snags("plate-hole"),
        )

    def test_a_door_device_without_a_hole_gets_none_and_a_snag(self) -> None:
        self.give("push-button")
        self.assertLess(len(holes(self.project, self.enclosure, "door")), 14)
        self.assertTrue(all("says no hole" in m for m in self.snags("door-hole")))
        self.assertTrue(self.snags("door-hole"))

    def test_a_rectangle_is_in_the_picture_and_in_the_dxf(self) -> None:
        self.give("push-button", cutouts_mm="rectangle 0,0,30,40,2; slot 0,30,12,5")
        buttons = [h for h in holes(self.project, self.enclosure, "door") if not h.is_round]
        self.assertTrue(buttons)
        shapes = surface_scene(self.project, self.enclosure, "door").items["holes"].prims
        self.assertEqual(sum(isinstance(p, Poly) for p in shapes), len(buttons))
        self.assertTrue(any(isinstance(p, Text) and "× 30 × 40, r 2" in p.words for p in shapes), "the table of sizes")
        document = ezdxf.filemanagement.read(io.StringIO(surface_dxf(self.project, self.enclosure, "door").decode()))
        lines = [e for e in document.modelspace() if e.dxf.layer == "HOLES" and e.dxftype() == "LWPOLYLINE"]
        self.assertEqual(len(lines), len(buttons))
        points = list(lines[0].get_points("xyb"))  # type: ignore[attr-defined]  # a polyline
        self.assertAlmostEqual(max(x for x, _, _ in points) - min(x for x, _, _ in points), 30)
        self.assertEqual(sum(bool(bulge) for _, _, bulge in points), 4, "four round corners")
