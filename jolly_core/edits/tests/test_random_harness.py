"""Any random sequence of edits to a harness: paths, clips, coverings, places, wires of a table; all taken back."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from .sequences import acts, run_sequence


class RandomHarness(TestCase):
    @settings(max_examples=45, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts("harness", "anything"), min_size=3, max_size=24))
    def test_any_sequence(self, sequence: list[tuple[Any, ...]]) -> None:
        run_sequence(self, sequence)
