"""Lengths as a project shows them: in millimetres and metres, or in inches and feet."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.model import bare_length, length_words, long_words, sides_words
from jolly_core.testing import Workbench


class Words(TestCase):
    def test_in_the_unit_of_the_project(self) -> None:
        for unit, wanted in (
            ("mm", ("254 mm", "12.5", "600 × 800 mm", "12 m")),
            ("in", ("10.00 in", "0.49", "23.62 × 31.50 in", "39.37 ft")),
        ):
            bench = Workbench()
            if unit == "in":
                bench.do("change-settings", length_unit=unit)
            p = bench.project
            said = (length_words(p, 254), bare_length(p, 12.5), sides_words(p, 600, 800), long_words(p, 12))
            self.assertEqual(said, wanted)
