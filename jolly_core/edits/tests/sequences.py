"""Sequences of acts at random, and what holds of any of them."""

from __future__ import annotations

from contextlib import suppress
from typing import Any
from unittest import TestCase

from hypothesis import strategies as st
from pydantic import ValidationError

from jolly_core.checks import all_snags
from jolly_core.edits import Outcome
from jolly_core.exchange import read_project, write_project
from jolly_core.making import dossiers
from jolly_core.model import CoreError, changes_from_json, changes_to_json
from jolly_core.reports import REPORTS, run_report
from jolly_core.scenes import generated_pages, page_scene
from jolly_core.testing import Workbench
from jolly_core.testing.strange import Workshop, acts_of, perform_act

from ..base.history import take_back

pick = st.integers(0, 10_000)
few = st.integers(0, 9)
mm = st.integers(-20, 800)


def acts(*rooms: str) -> st.SearchStrategy[tuple[Any, ...]]:
    """Return a strategy for acts of some rooms with their numbers."""
    return st.tuples(st.sampled_from(acts_of(*rooms)), pick, pick, few, mm, mm)


class Watch:
    """Stands before a bench: an edit that is refused has left nothing behind."""

    def __init__(self, case: TestCase, bench: Workbench) -> None:
        self._case, self._bench, self._do = case, bench, bench.do
        bench.do = self.do  # type: ignore[method-assign]

    def do(self, kind: str, **values: Any) -> Outcome:
        """Do an edit; where it is refused, see that all is as before."""
        project = self._bench.project
        before, stamp = list(project.entities()), project.stamp
        try:
            return self._do(kind, **values)
        except (CoreError, ValidationError) as error:
            self._case.assertEqual(list(project.entities()), before, f"refused {kind} left something behind")
            self._case.assertEqual(project.stamp, stamp)
            self._case.assertTrue(str(error))
            raise


def run_sequence(case: TestCase, sequence: list[tuple[Any, ...]]) -> None:
    """Do random acts: refused ones leave nothing behind, what is there is stored and computed, all is taken back."""
    bench = Workshop()
    project = bench.project
    first = list(project.entities())
    Watch(case, bench)
    for act in sequence:
        with suppress(CoreError, ValidationError):
            perform_act(bench, *act)
    case.assertTrue(bench.canonical())
    # What is stored can be read back: every reference holds.
    case.assertEqual(list(read_project(write_project(project)).entities()), list(project.entities()))
    everything_can_be_computed(case, bench)
    taken_back(case, bench, first)


def taken_back(case: TestCase, bench: Workbench, first: list[Any], *, redone: bool = False) -> None:
    """Take all back, and see that it is the first model again; then do all again, where that is asked for."""
    project = bench.project
    last = list(project.entities())
    stored = [changes_from_json(changes_to_json(o.changes)) for o in bench.done]
    for changes in reversed(stored):
        project.apply(take_back(project, changes))
    case.assertEqual(list(project.entities()), first, "undo of all is not the first model")
    if redone:
        for changes in stored:
            project.apply(take_back(project, changes.inverse()))
        case.assertEqual(list(project.entities()), last, "redo of all is not the last model")


def everything_can_be_computed(case: TestCase, bench: Workbench) -> None:
    """Run every report, check and generated page; each conductor runs in exactly one thing."""
    project = bench.project
    for key in REPORTS:
        run_report(project, key)
    all_snags(project)
    for page in generated_pages(project):
        case.assertTrue(page_scene(project, page.id).items)
    for d in dossiers(project).values():
        case.assertEqual(d.length_mm is None, bool(d.missing) or d.runs in ("cable", "direct"), d.key)
