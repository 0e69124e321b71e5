"""Conductors ordered by the layout, and enclosures whose size is not known: on both demos, with all lists kept."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.checks import all_snags
from jolly_core.edits import parse_edit, perform
from jolly_core.exchange import read_project
from jolly_core.model import IdSource, Project
from jolly_core.reports import REPORTS, run_report
from jolly_core.terminals import strip_rows, strip_widths, strips
from jolly_core.testing import DEMO, DemoLibrary, rebuilt, untrue
from jolly_core.wiring import all_conductors


def demos() -> list[Project]:
    return [read_project(file.read_bytes()) for file in sorted(DEMO.glob("*.spool.json"))]


BARE = "brindlework-bw-e0"


def do(project: Project, **edit: object) -> None:
    """Do an edit; the library has an enclosure of which no mounting plate is said."""
    library = DemoLibrary()
    library.parts[BARE] = replace(library.parts_of("enclosure")[0], id=BARE, number="BW-E0", ratings={})
    perform(project, parse_edit(edit), ids=IdSource(5), library=library)


def lists(project: Project) -> dict[str, list[object]]:
    """Return the rows of all lists, after the snags were looked for."""
    all_snags(project)
    return {key: list(run_report(project, key).rows) for key in REPORTS}


class Demos(TestCase):
    def test_by_the_layout_every_pin_is_joined_still_and_all_lists_are_there(self) -> None:
        for project in demos():
            by_drawing = all_conductors(project)
            do(project, kind="change-settings", conductor_order="layout")
            by_layout = all_conductors(project)
            self.assertEqual(len(by_layout), len(by_drawing))
            self.assertEqual(
                {pin for c in by_layout.values() for pin in (c.start, c.end)},
                {pin for c in by_drawing.values() for pin in (c.start, c.end)},
            )
            self.assertEqual(lists(project), lists(rebuilt(project)))
            self.assertEqual(untrue(project), [])

    def test_an_enclosure_without_a_plate_is_told_and_all_is_back_with_it(self) -> None:
        for project, order in zip(demos(), ("layout", "drawing"), strict=True):
            if order == "layout":
                do(project, kind="change-settings", conductor_order=order)
            before = lists(project)
            enclosure = next(iter(project.enclosures.values()))
            was = project.devices[enclosure.device_id].part_id
            do(project, kind="assign-part", device_id=enclosure.device_id, part_id=BARE)
            without = lists(project)
            self.assertIn("has no mounting plate", str(without["snags"]))
            self.assertEqual(without, lists(rebuilt(project)))
            do(project, kind="assign-part", device_id=enclosure.device_id, part_id=was)
            self.assertEqual(lists(project), before)
            self.assertEqual(untrue(project), [])

    def test_the_places_of_a_strip_are_as_wide_as_its_rows(self) -> None:
        for project in demos():
            found = strips(project)
            self.assertGreater(len(found), 0)
            for strip in found:
                rows = strip_rows(project, strip.id)
                self.assertEqual(strip_widths(project, strip.id), [(r.unit, r.width_mm) for r in rows])
