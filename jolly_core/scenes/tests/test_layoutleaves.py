"""Layouts on paper at any scale: dimensions, balloons and numbers of holes are there, and no text lies on another."""

from __future__ import annotations

from dataclasses import replace
from itertools import combinations
from typing import Any
from unittest import TestCase

from jolly_core.cabinet import enclosures, holes, surfaces_of
from jolly_core.exchange import read_project
from jolly_core.model import Project
from jolly_core.tagging import full_tag
from jolly_core.testing import DEMO

from ..base.primitives import SMALLEST_MM, Item, Scene, Text
from ..layout.leaves import surface_leaves
from ..room.crowding import meet, text_box
from ..set.made import page_leaves


def panels(times: float, **settings: Any) -> Project:
    """Return the demo with enclosures so many times as wide and high; what is in them stays as it is."""
    project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_text(encoding="utf-8"))
    own = {project.devices[e.device_id].part_id for e in project.enclosures.values()}
    parts = [project.parts[id] for id in own]
    project.load("part", [replace(p, width_mm=p.width_mm * times, height_mm=p.height_mm * times) for p in parts])
    project.load("settings", [replace(project.settings, **settings)])
    return project


def leaves_of(project: Project) -> list[tuple[str, str, list[Scene]]]:
    """Return id of the enclosure, surface and leaves of all that is laid out."""
    placed = {(p.enclosure_id, p.surface) for p in project.placings.values()}
    return [
        (e.id, surface, surface_leaves(project, e.id, surface))
        for e in enclosures(project)
        for surface in surfaces_of(project, e)
        if (e.id, surface) in placed
    ]


def words(item: Item | None) -> list[Text]:
    """Return the texts of an item."""
    return [p for p in item.prims if isinstance(p, Text) and p.words] if item is not None else []


class Leaves(TestCase):
    def test_each_hole_of_the_table_has_its_number_on_the_drawing(self) -> None:
        found = 0
        for times in (1.0, 2.0):
            for enclosure_id, surface, leaves in leaves_of(panels(times)):
                numbers = [t.words for leaf in leaves for t in words(leaf.items.get("holes")) if t.role == "number"]
                count = len(holes(panels(times), enclosure_id, surface))
                self.assertEqual(numbers, [str(n) for n in range(1, count + 1)], (times, surface))
                found += count
        self.assertGreater(found, 100)

    def test_what_is_written_can_be_read_at_any_scale_and_lies_on_nothing(self) -> None:
        for times in (1.0, 2.0, 3.0):
            for dimensions in ("chain", "running"):
                for unit in ("mm", "in"):
                    project = panels(times, dimensions=dimensions, length_unit=unit)
                    for _, surface, leaves in leaves_of(project):
                        self.whole(leaves[0], f"{times} {dimensions} {unit} {surface}")

    def whole(self, leaf: Scene, where: str) -> None:
        dimensions = words(leaf.items["dimensions"])
        self.assertGreater(len(dimensions), 5, where)
        self.assertGreater(len(words(leaf.items["balloons"])), 5, where)
        tags = [t for item in leaf.items.values() if item.kind == "placing" for t in words(item) if t.role == "tag"]
        self.assertGreater(len(tags), 5, where)
        texts = [t for id, item in leaf.items.items() if id != "frame" for t in words(item)]
        self.assertGreaterEqual(min(t.size for t in texts), SMALLEST_MM - 0.01, where)
        for one, other in combinations(texts, 2):
            left, top, right, low = text_box(one)
            inner = (left + 0.1, top + 0.1, right - 0.1, low - 0.1)
            self.assertFalse(meet(inner, text_box(other)), f"{where}: {one.words} on {other.words}")

    def test_the_legend_has_all_devices_of_a_part_however_many_and_no_tag_is_cut(self) -> None:
        project = panels(1.0)
        tiny = replace(next(iter(project.parts.values())), id="tiny", width_mm=10.0, height_mm=9.0, symbols={})
        project.load("part", [tiny])
        placed = {p.device_id for p in project.placings.values()} - {i.strip_id for i in project.strip_items.values()}
        project.load("device", [replace(project.devices[id], part_id="tiny") for id in placed])
        number = 0
        for sheet in [s for s in project.sheets_in_order() if s.kind == "panel-layout"]:
            leaves = page_leaves(project, sheet.id)
            said = [t.words for leaf in leaves for item in leaf.items.values() for t in words(item)]
            self.assertEqual([w for w in said if w.endswith("…")], [])
            legend = " ".join(w for w in said if ", " in w)
            for placing in (p for p in project.placings.values() if p.enclosure_id == sheet.enclosure_id):
                if placing.device_id in placed:
                    self.assertIn(full_tag(project, project.devices[placing.device_id]), legend)
                    number += 1
        self.assertGreater(number, 60)

    def test_a_tag_that_has_no_room_is_counted_on_the_leaf(self) -> None:
        project = panels(14.0)
        _, _, leaves = next(found for found in leaves_of(project) if found[1] == "door")
        title = words(leaves[0].items["scale"])[0].words
        self.assertRegex(title, r"scale 1:50, \d+ tags without room: see what the balloons mean")
        tags = [i for i in leaves[0].items.values() if i.kind == "placing" and any(t.role == "tag" for t in words(i))]
        placed = sum(i.kind == "placing" for i in leaves[0].items.values())
        self.assertIn(f", {placed - len(tags)} tag", title)
