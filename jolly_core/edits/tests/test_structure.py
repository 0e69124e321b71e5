"""Functions and locations: renamed, moved, taken away, and everything that is named after them."""

from __future__ import annotations

from unittest import TestCase

from pydantic import ValidationError

from jolly_core.model import RuleError
from jolly_core.tagging import full_tag
from jolly_core.terminals import strip_rows
from jolly_core.testing import Workbench

from ..base.history import take_back


class Structure(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.function = self.bench.new("add-function", code="K2")
        self.panel = self.bench.new("add-location", code="KP2", side="panel")
        self.field = self.bench.new("add-location", code="KF2", side="field")
        self.lamps = []
        for x, place in ((20, self.panel), (60, self.field)):
            lamp = self.bench.place("lamp", x, 20)
            self.lamps.append(self.bench.device(lamp))
            self.bench.do("set-place", device_id=self.lamps[-1], function_id=self.function, location_id=place)

    def tags(self) -> list[str]:
        return [full_tag(self.bench.project, self.bench.project.devices[i]) for i in self.lamps]

    def test_a_new_code_reaches_every_tag_and_undo_brings_the_old_one_back(self) -> None:
        outcome = self.bench.do("change-location", location_id=self.panel, code="KP9")
        self.assertEqual(outcome.label, "location +KP2 becomes +KP9")
        self.bench.do("change-function", function_id=self.function, code="K9")
        self.assertEqual(self.tags(), ["=K9+KP9-PF1", "=K9+KF2-PF1"])
        self.bench.project.apply(take_back(self.bench.project, outcome.changes))
        self.assertEqual(self.tags()[0], "=K9+KP2-PF1")

    def test_one_location_within_another_is_named_by_both(self) -> None:
        self.bench.do("change-location", location_id=self.field, parent_id=self.panel)
        self.assertEqual(self.tags()[1], "=K2+KP2.KF2-PF1")
        with self.assertRaisesRegex(RuleError, r"\+KP2 cannot lie in itself"):
            self.bench.do("change-location", location_id=self.panel, parent_id=self.field)

    def test_a_code_is_there_once_at_a_place(self) -> None:
        with self.assertRaisesRegex(RuleError, r"already a location \+KF2 here"):
            self.bench.do("change-location", location_id=self.panel, code="KF2")
        with self.assertRaisesRegex(RuleError, "already a function =K2 here"):
            self.bench.do("add-function", code="K2")

    def test_the_side_of_a_location_decides_the_side_of_a_terminal(self) -> None:
        self.bench.wire((24, 20), (60, 20))
        (terminal,) = self.bench.do("place-terminals", sheet_id=self.bench.sheet, x1=40, y1=18, x2=40, y2=22).placed
        strip = self.bench.device(terminal)
        (row,) = strip_rows(self.bench.project, strip)
        self.assertEqual([t.name for t in row.field], ["=K2+KF2-PF1:X1"])
        self.bench.do("change-location", location_id=self.field, side="door")
        (row,) = strip_rows(self.bench.project, strip)
        self.assertEqual((row.field, len(row.panel)), ([], 2))

    def test_what_is_in_use_says_what_uses_it_and_goes_where_it_is_told(self) -> None:
        with self.assertRaisesRegex(RuleError, r"\+KF2 has 1 device. Say where they go."):
            self.bench.do("remove-location", location_id=self.field)
        self.bench.do("remove-location", location_id=self.field, move_to=self.panel)
        self.assertEqual(self.tags(), ["=K2+KP2-PF1", "=K2+KP2-PF2"])
        with self.assertRaisesRegex(RuleError, "cannot go where"):
            self.bench.do("remove-location", location_id=self.panel, move_to=self.panel)
        spare = self.bench.new("add-function", code="K3")
        self.bench.do("remove-function", function_id=spare)
        self.assertNotIn(spare, self.bench.project.functions)


class Twins(TestCase):
    """What would be there twice is named before a location goes."""

    def test_fixed_tags_and_codes_below_are_named_and_nothing_changes(self) -> None:
        bench = Workbench(frame="zones")
        one, two = (bench.new("add-location", code=code) for code in ("A", "B"))
        devices = []
        for n, place in enumerate((one, two)):
            device = bench.device(bench.place("lamp", 20 + 20 * n, 20))
            bench.do("set-place", device_id=device, function_id="", location_id=place)
            bench.do("set-tag", device_id=device, tag="H9")
            devices.append(device)
        for parent in (one, two):
            bench.new("add-location", code="S", parent_id=parent)
        before = list(bench.project.entities())
        with self.assertRaisesRegex(RuleError, r"At \+B there would be twins: \+S, -H9\. Rename or move them first"):
            bench.do("remove-location", location_id=one, move_to=two)
        self.assertEqual(list(bench.project.entities()), before)
        bench.do("set-tag", device_id=devices[0], tag="H10")
        below = next(loc for loc in bench.project.locations.values() if loc.parent_id == one)
        bench.do("change-location", location_id=below.id, code="S2")
        bench.do("remove-location", location_id=one, move_to=two)
        self.assertEqual(bench.tag(next(s.id for s in bench.project.units_of(devices[0]))), "H10")

    def test_codes_of_places_as_the_standard_has_them(self) -> None:
        bench = Workbench(frame="zones")
        for code in ("A1", "1", "B1.01", "KP-2", "U#3", "(B2)", "(2.OG)", "Ü3", "C_1"):
            bench.do("add-location", code=code)
        for code in ("A 1", "-A", "A-", "+A", "(B2", "A//B", "()", "A=B"):
            with self.subTest(code), self.assertRaises(ValidationError):
                bench.do("add-location", code=code)
