"""Any random sequence of edits to harnesses as blocks: boxes, strokes, mates, variants, splices; all taken back."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from .sequences import acts, run_sequence


class RandomBlocks(TestCase):
    @settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts("harness", "blocks", "anything"), min_size=3, max_size=24))
    def test_any_sequence(self, sequence: list[tuple[Any, ...]]) -> None:
        run_sequence(self, sequence)
