"""Any random sequence of acts over several sheets: canonical wires, true indexes, own tags, contact ties, undo."""

from __future__ import annotations

from contextlib import suppress
from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from jolly_core.exchange import read_project, write_project
from jolly_core.library import definition
from jolly_core.model import CoreError, Project
from jolly_core.scenes import sheet_scene
from jolly_core.tagging import full_tag, terminal_number
from jolly_core.testing import Workbench, rebuilt
from jolly_core.testing.strange import perform_act
from jolly_core.wiring import wire_numbers

from .sequences import Watch, acts, taken_back

MOST = 600  # things on sheets


class OverSheets(TestCase):
    @settings(max_examples=60, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts("sheets"), min_size=4, max_size=24))
    def test_any_sequence(self, sequence: list[tuple[Any, ...]]) -> None:
        bench = Workbench(rails=True)
        bench.new("add-sheet", number="40", frame="zones")
        bench.new("add-location", code="D", side="door")
        # Something to act on, or most acts would find nothing.
        bench.wire((14, 16), (82, 16))
        bench.place("button-no", 24, 16)
        bench.place("contact-no", 24, 25, device_id=bench.device(bench.place("coil", 60, 16)))
        for n in range(3):
            bench.wire((20 + 4 * n, 40), (20 + 4 * n, 80))
        bench.place("breaker", 20, 50)
        bench.done.clear()
        project = bench.project
        first = list(project.entities())
        Watch(self, bench)
        for act in sequence:
            if len(project.symbols) + len(project.wires) > MOST:
                break  # copies of copies: more of the same only takes long
            with suppress(CoreError, ValidationError):
                perform_act(bench, *act)
        self.assertTrue(bench.canonical())
        self.devices_are_whole(project)
        fresh = rebuilt(project)
        for sheet_id in project.sheets:
            self.assertTrue(sheet_scene(project, sheet_id).items)
            self.assertEqual(wire_numbers(project, sheet_id), wire_numbers(fresh, sheet_id))
        self.assertEqual(list(read_project(write_project(project)).entities()), list(project.entities()))
        taken_back(self, bench, first, redone=True)

    def devices_are_whole(self, project: Project) -> None:
        """Compare tags, units and what keeps a device in the project."""
        tags = [full_tag(project, d) for d in project.devices.values() if not d.fixed_tag]
        tags = [t for t in tags if not t.endswith("?")]
        self.assertEqual(len(tags), len(set(tags)), "two devices have one running tag")
        for device in project.devices.values():
            units = project.units_of(device.id)
            self.assertTrue(units or project.attached.get(device.id), "a device is left over")
            taken: set[tuple[str, int]] = set()
            for symbol in units:
                kind = definition(symbol.definition).unit
                for number in symbol.units:
                    self.assertNotIn((kind, number), taken, "one unit is drawn twice")
                    taken.add((kind, number) if number else (kind, -len(taken) - 1))
                if kind == "terminal":
                    self.assertTrue(terminal_number(project, device.id, symbol.units[0]))
