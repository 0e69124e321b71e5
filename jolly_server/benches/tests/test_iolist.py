"""A point list as it is read is what the edit takes in."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.edits.points.rows import PointIn
from jolly_server.benches.iolist import PointRead


class Declared(TestCase):
    def test_what_is_read_of_a_point_are_the_fields_that_are_taken_in(self) -> None:
        self.assertEqual(set(PointRead.__annotations__), set(PointIn.model_fields))
        self.assertEqual(PointRead.__required_keys__, frozenset())
