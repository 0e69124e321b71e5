"""Any random sequence of edits to a layout: lanes, crossings, ways, order, stamps, proposals; all taken back."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from jolly_core.cabinet import enclosures, layout_faults, routes, surfaces_of
from jolly_core.model import CoreError
from jolly_core.scenes import surface_leaves, surface_scene
from jolly_core.testing.strange import Workshop, perform_act

from .sequences import acts, run_sequence


class RandomLayout(TestCase):
    @settings(max_examples=45, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts("cabinet", "anything"), min_size=3, max_size=24))
    def test_any_sequence(self, sequence: list[tuple[Any, ...]]) -> None:
        run_sequence(self, sequence)

    @settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts("cabinet", "anything"), min_size=6, max_size=18))
    def test_any_layout_has_pictures_papers_and_ways(self, sequence: list[tuple[Any, ...]]) -> None:
        bench = Workshop()
        for act in sequence:
            try:
                perform_act(bench, *act)
            except (CoreError, ValidationError):
                continue
        project = bench.project
        for enclosure in enclosures(project):
            layout_faults(project, enclosure)
            for surface in surfaces_of(project, enclosure):
                self.assertTrue(surface_scene(project, enclosure.id, surface).items)
                self.assertTrue(surface_leaves(project, enclosure.id, surface)[0].items)
        for route in routes(project).values():
            self.assertEqual(route.length_mm is None, bool(route.missing))
