"""Two panels are two: what goes from one to the other leaves both, by terminals and a cable."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.cabinet import panel_conductors
from jolly_core.checks import project_snags
from jolly_core.making import dossiers
from jolly_core.terminals import strip_rows
from jolly_core.testing import Workbench


class TwoPanels(TestCase):
    """A wire from a lamp in +P1 past a terminal of each panel to a lamp in +P2."""

    def setUp(self) -> None:
        self.bench = bench = Workbench(frame="zones")
        self.panels = [bench.new("add-location", code=code, side="panel") for code in ("P1", "P2")]
        bench.wire((10, 20), (90, 20))
        self.lamps = [bench.place("lamp", x, 20, rotation=0) for x in (10, 86)]
        self.put(self.lamps)

    def put(self, symbols: list[str]) -> None:
        for symbol, panel in zip(symbols, self.panels, strict=True):
            if self.bench.project.devices[self.bench.device(symbol)].location_id != panel:
                self.bench.do("set-place", device_id=self.bench.device(symbol), function_id="", location_id=panel)

    def strips(self) -> list[str]:
        """Put a terminal of each panel into the wire and return the strips."""
        self.bench.do("change-sheet", sheet_id=self.bench.sheet, location_id=self.panels[0])
        one = self.bench.place("terminal", 30, 20, rotation=0)
        self.bench.do("change-sheet", sheet_id=self.bench.sheet, location_id=self.panels[1])
        two = self.bench.place("terminal", 60, 20, rotation=0)
        return [self.bench.device(one), self.bench.device(two)]

    def codes(self) -> dict[str, str]:
        return {s.code: s.message for s in project_snags(self.bench.project)}

    def test_a_bare_wire_between_them_is_no_panel_wire(self) -> None:
        self.assertEqual(panel_conductors(self.bench.project), [])
        self.assertEqual([d.runs for d in dossiers(self.bench.project).values()], ["open"])
        self.assertIn("lacks a terminal at each end", self.codes()["jumps-wall"])
        self.assertIn("goes from +P1 to +P2 in no cable", self.codes()["field-wire"])

    def test_strips_show_the_other_panel_on_the_field_side(self) -> None:
        strips = self.strips()
        self.assertEqual(len(set(strips)), 2)
        for strip in strips:
            (row,) = strip_rows(self.bench.project, strip)
            self.assertEqual((len(row.panel), len(row.field), len(row.unknown)), (1, 1, 0))
            self.assertIn(":X", row.panel[0].name)
        self.assertNotIn("jumps-wall", self.codes())
        self.assertIn("field-wire", self.codes())
        self.bench.do("draw-band", sheet_id=self.bench.sheet, x1=45, y1=18, x2=45, y2=22)
        self.assertFalse({"field-wire", "jumps-wall"} & set(self.codes()))
        self.assertEqual(sorted(d.runs for d in dossiers(self.bench.project).values()), ["cable", "panel", "panel"])

    def test_a_door_is_that_of_the_panel_above_it(self) -> None:
        door = self.bench.new("add-location", code="D", side="door", parent_id=self.panels[0])
        self.panels[1] = door
        self.put(self.lamps)
        self.assertEqual(len(panel_conductors(self.bench.project)), 1)
        self.assertNotIn("jumps-wall", self.codes())

    def test_a_strip_in_a_box_in_the_field_has_its_own_inside(self) -> None:
        box = self.bench.new("add-location", code="B", side="field")
        self.panels = [box, self.panels[1]]
        self.put(self.lamps)
        self.bench.do("change-sheet", sheet_id=self.bench.sheet, location_id=box)
        terminal = self.bench.place("terminal", 30, 20, rotation=0)
        (row,) = strip_rows(self.bench.project, self.bench.device(terminal))
        self.assertEqual((len(row.panel), len(row.field)), (1, 1))
