"""The order of rows, and of names within a cell: as people count, whatever order things were drawn in."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import replace
from unittest import TestCase

from jolly_core.cabinet import enclosures, tray
from jolly_core.exchange import read_project
from jolly_core.harness import free_connectors
from jolly_core.model import Device, Project
from jolly_core.reports import REPORTS, run_report
from jolly_core.tagging import full_tag, natural
from jolly_core.testing import DEMO

# Columns by which a list is ordered first, and those of names that are for one thing together.
FIRST = {
    "devices": "tag",
    "cables": "tag",
    "cable-cuts": "tag",
    "cores": "cable",
    "weights": "enclosure",
}
TOGETHER = {"parts": "tags", "parts-by-place": "tags", "weights": "unknown", "harness-parts": "where", "cables": "from"}


def turned() -> Project:
    """Return the demo with the devices of each kind numbered against the order in which they were drawn, 7 to 20."""
    project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_text(encoding="utf-8"))
    kinds: dict[str, list[Device]] = defaultdict(list)
    for device in sorted(project.devices.values(), key=lambda d: d.id, reverse=True):
        kinds[device.letters].append(device)
    project.load("device", [replace(d, number=7 + n) for of_kind in kinds.values() for n, d in enumerate(of_kind)])
    return project


class Counted(TestCase):
    def test_rows_and_names_stand_as_one_counts_them(self) -> None:
        project = turned()
        for key, column in FIRST.items():
            cells = self.column(project, key, column)
            firsts = list(dict.fromkeys(cells))
            self.assertGreater(len(firsts), 1, key)
            self.assertEqual(firsts, sorted(firsts, key=natural), key)
            self.assertEqual(len(firsts), len([n for n, c in enumerate(cells) if not n or cells[n - 1] != c]), key)
        for key, column in TOGETHER.items():
            many = [cell.split(", ") for cell in self.column(project, key, column) if ", " in cell]
            for names in many:
                self.assertEqual(names, sorted(names, key=natural), f"{key} {column}")
        self.assertTrue(any(", " in cell for cell in self.column(project, "parts", "tags")))

    def column(self, project: Project, key: str, column: str) -> list[str]:
        place = [c.key for c in REPORTS[key].columns].index(column)
        return [str(row[place]) for row in run_report(project, key).rows if row[place] != ""]

    def test_what_waits_and_what_may_be_chosen_stands_as_one_counts_it(self) -> None:
        project = turned()
        boxes = [project.devices[e.device_id] for e in enclosures(project)]
        for devices in (boxes, tray(project), free_connectors(project)):
            tags = [full_tag(project, d) for d in devices]
            self.assertEqual(tags, sorted(tags, key=natural))
