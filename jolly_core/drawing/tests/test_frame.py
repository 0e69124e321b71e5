"""The room on a sheet: a box inside, over the frame, over the title block, and exactly on their edges."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.drawing import FRAME_MM, size_mm, where_amiss
from jolly_core.library import block_of
from jolly_core.testing import Workbench


class Room(TestCase):
    def test_each_side_of_the_frame_and_the_corner_of_the_title_block(self) -> None:
        project = Workbench(frame="zones").project
        sheet = next(iter(project.sheets.values()))
        width, height = size_mm(sheet)
        block = block_of(project, sheet).block
        right, bottom = width - FRAME_MM, height - FRAME_MM
        x, y = right - block.width_mm, bottom - block.height_mm
        for box, said in (
            ((FRAME_MM, FRAME_MM, right, y), ""),
            ((FRAME_MM, FRAME_MM, x, bottom), ""),
            ((FRAME_MM - 0.1, 50, 60, 60), "outside the frame"),
            ((50, FRAME_MM - 0.1, 60, 60), "outside the frame"),
            ((50, 50, right + 0.1, 60), "outside the frame"),
            ((50, 50, 60, bottom + 0.1), "outside the frame"),
            ((x - 5, y - 5, x + 0.1, y + 0.1), "under the title block"),
            ((x - 5, y - 5, x + 0.1, y), ""),
        ):
            with self.subTest(box):
                self.assertEqual(where_amiss(project, sheet, box), said)
