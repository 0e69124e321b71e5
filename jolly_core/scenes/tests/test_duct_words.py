"""What is written on a duct is clear of the fixing hole at its middle, level and upright."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.exchange import read_project
from jolly_core.scenes import surface_scene
from jolly_core.testing import DEMO

from ..base.primitives import Text
from ..room.crowding import text_box

HOLE_MM = 5.5


class DuctWords(TestCase):
    def test_on_all_plates_of_both_demos(self) -> None:
        looked = 0
        for name in ("pellwick-kiln-2", "sample-store-dehumidifier"):
            project = read_project((DEMO / f"{name}.spool.json").read_bytes())
            for enclosure in project.enclosures:
                for item in surface_scene(project, enclosure, "plate").items.values():
                    if item.kind != "duct":
                        continue
                    left, top, right, bottom = item.box
                    for prim in item.placed():
                        if isinstance(prim, Text):
                            looked += 1
                            box = text_box(prim)
                            if right - left > bottom - top:
                                self.assertLess(box[2], (left + right - HOLE_MM) / 2, (item.id, prim.words))
                            else:
                                self.assertLess(box[3], (top + bottom - HOLE_MM) / 2, (item.id, prim.words))
        self.assertGreater(looked, 10)
