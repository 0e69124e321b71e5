"""What parts look like on plate and door: round ones by their diameter, drawn ones with their drawing."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.cabinet import outline, size_of
from jolly_core.cabinet.tests.test_layout import LAMP, RELAY, Cabinet
from jolly_core.exchange import surface_dxf
from jolly_core.library import outline_key
from jolly_core.scenes import Circle, Line, Rect, surface_scene


class Outlines(TestCase):
    def setUp(self) -> None:
        self.cabinet = Cabinet("run")
        self.cabinet.setUp()
        self.bench, self.enclosure, self.devices = self.cabinet.bench, self.cabinet.enclosure, self.cabinet.devices

    def change(self, part_id: str, **fields: object) -> None:
        part = self.bench.library.parts[part_id]
        self.bench.library.parts[part_id] = replace(part, version=part.version + 1, **fields)  # type: ignore[arg-type]  # passed through
        self.bench.do("refresh-parts", part_ids=[part_id])

    def test_a_part_with_a_diameter_only_is_round_and_as_large_as_that(self) -> None:
        self.change(LAMP, width_mm=0.0, height_mm=0.0, diameter_mm=30.0)
        (placing,) = self.cabinet.put(self.devices[2], x=100, y=100, surface="door")
        project = self.bench.project
        self.assertEqual(size_of(project, project.devices[self.devices[2]])[:2], (30.0, 30.0))
        box = outline(project, project.placings[placing])
        self.assertEqual((box.width, box.height), (30.0, 30.0))
        item = surface_scene(project, self.enclosure, "door").items[placing]
        circle = item.prims[0]
        assert isinstance(circle, Circle)
        self.assertEqual(circle.radius, 15.0)
        self.assertEqual(item.facts["body"][2] - item.facts["body"][0], 30.0, "the pointer meets all of it")
        self.assertTrue(surface_dxf(project, self.enclosure, "door"))

    def test_a_drawing_is_laid_into_the_outline_on_its_own_surface_only(self) -> None:
        self.change(RELAY, symbols={"plate": outline_key([["line", 0, 10, 20, 10], ["circle", 10, 20, 5]])})
        placing = self.cabinet.put(self.devices[0], x=100)[0]
        scene = surface_scene(self.bench.project, self.enclosure, "plate")
        line = next(p for p in scene.items[placing].prims if isinstance(p, Line))
        corner = scene.items[placing].prims[0]
        assert isinstance(corner, Rect)
        self.assertEqual((line.x1, line.y1), (corner.x, corner.y + 10))
        self.assertEqual(line.x2 - line.x1, 20)
        self.change(RELAY, symbols={"door": outline_key([["circle", 10, 20, 5]])})
        prims = surface_scene(self.bench.project, self.enclosure, "plate").items[placing].prims
        self.assertNotIn(5.0, [p.radius for p in prims if isinstance(p, Circle)])
