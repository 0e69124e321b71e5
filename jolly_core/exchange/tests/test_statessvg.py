"""A drawing in two states beside each other: each as it is, with marks where they differ."""

from __future__ import annotations

from unittest import TestCase
from xml.etree import ElementTree

from jolly_core.comparing import SheetChange, difference, same_things
from jolly_core.drawing import GRID_MM
from jolly_core.exchange import states_svg
from jolly_core.model import Project, copied
from jolly_core.testing import Workbench

SVG = "{http://www.w3.org/2000/svg}"


class States(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.lamp = self.bench.place("lamp", 30, 30)
        self.before = copied(self.bench.project)

    @staticmethod
    def svg(before: Project, after: Project, change: SheetChange) -> ElementTree.Element:
        return ElementTree.fromstring(states_svg(before, after, change, same_things(before, after)))

    def drawn(self, before: Project, after: Project) -> dict[str, ElementTree.Element]:
        """Return the sides of the only drawing that differs."""
        (change,) = difference(before, after).sheets
        root = self.svg(before, after, change)
        ids = [e.get("id") for e in root.iter() if e.get("id")]
        self.assertEqual(len(ids), len(set(ids)), "an id stands twice in one document")
        return {side.get("class", ""): side for side in root.findall(f"{SVG}g")}

    def marks(self, side: ElementTree.Element) -> list[tuple[float, float]]:
        """Return the centres of the marks."""
        rects = [r for g in side.iter(f"{SVG}g") if g.get("class") == "marks" for r in g]
        return [tuple(float(r.get(a, 0)) + float(r.get(b, 0)) / 2 for a, b in AXES) for r in rects]  # type: ignore[misc]  # two axes

    def test_what_moved_is_marked_where_it_was_and_where_it_is(self) -> None:
        self.bench.do("move-selection", ids=[self.lamp], dx=20, dy=0)
        sides = self.drawn(self.before, self.bench.project)
        self.assertEqual(list(sides), ["before", "after"])
        (was,), (now,) = self.marks(sides["before"]), self.marks(sides["after"])
        self.assertEqual((now[0] - was[0], now[1] - was[1]), (20 * GRID_MM, 0))

    def test_what_is_new_is_marked_on_the_right_only_and_a_sheet_that_is_new_stands_alone(self) -> None:
        self.bench.place("lamp", 60, 30)
        sides = self.drawn(self.before, self.bench.project)
        self.assertEqual((self.marks(sides["before"]), len(self.marks(sides["after"]))), ([], 1))
        self.before = copied(self.bench.project)
        sheet = self.bench.new("add-sheet", number="40", title="Another", frame="zones")
        self.bench.sheet = sheet
        self.bench.place("lamp", 30, 30)
        (change,) = [c for c in difference(self.before, self.bench.project).sheets if c.number == "40"]
        root = ElementTree.fromstring(
            states_svg(self.before, self.bench.project, change, same_things(self.before, self.bench.project))
        )
        self.assertEqual([g.get("class") for g in root.findall(f"{SVG}g")], ["after"])
        root = ElementTree.fromstring(
            states_svg(self.bench.project, self.before, change, same_things(self.bench.project, self.before))
        )
        self.assertEqual([g.get("class") for g in root.findall(f"{SVG}g")], ["before"])


AXES = (("x", "width"), ("y", "height"))
