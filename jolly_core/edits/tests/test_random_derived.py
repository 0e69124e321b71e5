"""Whatever is done, tried and taken back: every value that is kept is what working it out anew gives."""

from __future__ import annotations

from typing import Any
from unittest import TestCase
from unittest.mock import patch

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from jolly_core.cabinet import enclosures, layout_faults, surfaces_of
from jolly_core.checks import all_snags
from jolly_core.comparing import difference, states
from jolly_core.edits import compute, parse_edit
from jolly_core.making import cut_list
from jolly_core.model import ChangeSet, CoreError, Project, catch_up, copied
from jolly_core.reports import REPORTS, find_in, run_report, sheet_wires
from jolly_core.scenes import generated_pages, page_scene, sheet_look, sheet_scene, surface_scene
from jolly_core.testing import Workbench, untrue
from jolly_core.testing.strange import Workshop, perform_act

from .sequences import acts

MOST = 250
slow = settings(max_examples=12, deadline=None, suppress_health_check=[HealthCheck.too_slow])


def look(project: Project) -> None:
    """Ask for all that people look at, so that it is kept."""
    all_snags(project)
    cut_list(project)
    find_in(project, "k")
    for report in REPORTS:
        run_report(project, report)
    for sheet_id in list(project.sheets):
        sheet_wires(project, sheet_id)
        if project.sheets[sheet_id].kind == "schematic":
            sheet_scene(project, sheet_id)
            sheet_look(project, sheet_id)
    for page in generated_pages(project):
        page_scene(project, page.id)
    for enclosure in enclosures(project):
        layout_faults(project, enclosure)
        for surface in surfaces_of(project, enclosure):
            surface_scene(project, enclosure.id, surface)


def drawn(project: Project, sheet_id: str) -> list[tuple[Any, ...]]:
    """Return what is painted on a sheet but for its frame."""
    return [(i.id, i.at, i.prims) for i in sheet_scene(project, sheet_id).items.values() if i.kind != "frame"]


class Kept(TestCase):
    long = True

    def same(self, one: Project, other: Project) -> None:
        """Check of two states of a project that what has the same look is painted the same."""
        for sheet_id, sheet in one.sheets.items():
            both = sheet.kind == "schematic" and sheet_id in other.sheets
            if both and sheet_look(one, sheet_id) == sheet_look(other, sheet_id):
                self.assertEqual(drawn(one, sheet_id), drawn(other, sheet_id))
        with patch.object(states, "APART", 0):
            together = difference(one, other)
        with patch.object(states, "APART", 1_000_000):
            self.assertEqual(together, difference(one, other), "each state by itself")

    def go(self, bench: Workbench, sequence: list[Any]) -> None:
        """Do acts one after another, look at everything between them, and now and then try one without doing it."""
        project = bench.project
        first, copy = copied(project), copied(project)
        for number, act in enumerate(sequence):
            if len(project.symbols) + len(project.wires) > MOST:
                break  # copies of copies: more of the same only takes long
            if number % 3 == 0:
                look(project)
            try:
                perform_act(bench, *act)
            except (CoreError, ValidationError):
                continue
            if number % 4 == 3:  # tried and not done, as a preview is
                payload = parse_edit({"kind": "place-note", "sheet_id": bench.sheet, "x": 20, "y": 20, "text": "n"})
                compute(project, payload)
                look(project)
            if number % 4 == 1:
                with project.trial() as total:
                    project.commit(total, bench.done[-1].changes.inverse() if bench.done else ChangeSet())
                    look(project)
                    self.assertEqual(untrue(project), [], f"within a trial after {act}")
        look(project)
        self.assertEqual(untrue(project), [])
        self.same(first, project)
        look(copy)
        catch_up(copy, project)
        self.assertEqual(list(copy.entities()), list(project.entities()))
        look(copy)
        self.assertEqual(untrue(copy), [], "a copy that was brought up to date")

    @slow
    @given(st.lists(acts("sheets"), min_size=3, max_size=14))
    def test_on_sheets(self, sequence: list[Any]) -> None:
        bench = Workbench(rails=True)
        bench.new("add-sheet", number="40", frame="zones")
        bench.wire((14, 16), (82, 16))
        bench.place("button-no", 24, 16)
        bench.place("contact-no", 24, 25, device_id=bench.device(bench.place("coil", 60, 16)))
        bench.place("lamp", 44, 16)
        for n in range(3):
            bench.wire((20 + 4 * n, 40), (20 + 4 * n, 80))
        bench.place("breaker", 20, 50)
        self.go(bench, sequence)

    @slow
    @given(st.lists(acts("strips", "cables", "points", "cabinet", "harness", "anything"), min_size=3, max_size=14))
    def test_what_is_built(self, sequence: list[Any]) -> None:
        bench = Workshop()
        self.go(bench, sequence)

    @slow
    @given(st.lists(acts("cabinet", "anything"), min_size=3, max_size=14))
    def test_what_is_laid_out(self, sequence: list[Any]) -> None:
        bench = Workshop()
        self.go(bench, sequence)

    @slow
    @given(st.lists(acts("setup"), min_size=2, max_size=10))
    def test_structure(self, sequence: list[Any]) -> None:
        bench = Workbench(rails=True)
        bench.place("coil", 40, 16)
        bench.place("lamp", 60, 16)

        self.go(bench, sequence)
