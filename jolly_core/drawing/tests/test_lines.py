"""Ladder lines and zones."""

from unittest import TestCase

from jolly_core.drawing import grid_size, ladder_line, ladder_lines, ladder_shape, place_in, rails_at, turned, zone
from jolly_core.model import Sheet


class References(TestCase):
    def test_ladder_lines_reach_from_two_steps_above(self) -> None:
        sheet = Sheet("s", "30", first_line=301, line_count=3, line_top=16, line_spacing=9)
        wanted = {0: 301, 16: 301, 22: 301, 23: 302, 25: 302, 34: 303, 99: 303}
        self.assertEqual({y: ladder_line(sheet, 20, y) for y in wanted}, wanted)
        self.assertEqual(place_in(sheet, 10, 25), "30.302")

    def test_the_bounds_of_lines_agree_with_the_line_of_every_height(self) -> None:
        sheet = Sheet("s", "30", first_line=301, line_count=4, line_top=16, line_spacing=9)
        bounds = ladder_lines(sheet)
        self.assertEqual([(number, y) for number, y, *_ in bounds], [(301, 16), (302, 25), (303, 34), (304, 43)])
        for y in range(90):
            self.assertEqual([number for number, _, start, _ in bounds if start <= y][-1], ladder_line(sheet, 20, y))
        self.assertEqual(ladder_lines(Sheet("s", "10", frame="zones")), [])

    def test_a_second_ladder_goes_on_where_the_first_ends(self) -> None:
        left, right, pitch = ladder_shape("ANSI B", 2)
        sheet = Sheet(
            "s",
            "3",
            size="ANSI B",
            first_line=31,
            line_count=9,
            ladders=2,
            rail_left=left,
            rail_right=right,
            ladder_pitch=pitch,
        )
        self.assertEqual([number for number, *_ in ladder_lines(sheet)], list(range(31, 49)))
        self.assertLess(rails_at(sheet, left + pitch)[1], grid_size(sheet)[0] - 12)
        self.assertEqual(rails_at(sheet, right), (left, right))
        for x in range(0, grid_size(sheet)[0], 3):
            for y in range(0, 100, 5):
                reached = [n for n, _, from_y, from_x in ladder_lines(sheet) if from_y <= y and from_x <= x]
                self.assertEqual(reached[-1], ladder_line(sheet, x, y))

    def test_zones_count_columns_right_and_rows_down(self) -> None:
        sheet = Sheet("s", "10", frame="zones", size="A3", columns=8, rows=6)
        self.assertEqual(zone(sheet, 5, 5), "A1")
        self.assertEqual(zone(sheet, 163, 114), "F8")
        self.assertEqual(place_in(sheet, 5, 5), "10/A1")

    def test_four_quarter_turns_are_none(self) -> None:
        for mirror in (False, True):
            point = turned(4, 1, 0, mirror)
            for _ in range(4):
                point = turned(*point, 90, False)
            self.assertEqual(point, turned(4, 1, 0, mirror))
        self.assertEqual([turned(4, 0, r, False) for r in (0, 90, 180, 270)], [(4, 0), (0, 4), (-4, 0), (0, -4)])
