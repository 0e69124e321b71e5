"""What two labels have between them, and what a label says of its side."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.circuits import AC, DC, Label, control_volts, mains_of, number_of, volts_between
from jolly_core.model import SETTINGS_ID, ChangeSet, Project
from jolly_core.testing import Workbench


def label(word: str, volts: float | None = None, kind: str = "", **more: object) -> Label:
    return Label(word, volts, kind, "x", "s", **more)  # type: ignore[arg-type]  # fields by name


def with_settings(**settings: str) -> Project:
    project = Workbench(frame="zones").project
    changes = ChangeSet()
    changes.record("settings", SETTINGS_ID, project.settings, replace(project.settings, **settings))  # type: ignore[arg-type]
    project.apply(changes)
    return project


class Between(TestCase):
    def between(self, one: Label, other: Label, **settings: str) -> tuple[float, str] | None:
        project = with_settings(**settings)
        found, turned = volts_between(project, one, other), volts_between(project, other, one)
        self.assertEqual(found, turned, "either way round")
        return (round(found[0]), found[1]) if found else None

    def test_phases_and_neutral_by_the_supply_of_the_data(self) -> None:
        l1, l2, n = label("L1"), label("L2"), label("N")
        self.assertEqual(self.between(l1, l2, supply="400 V 3~ 50 Hz"), (400, AC))
        self.assertEqual(self.between(l1, n, supply="400 V 3~ 50 Hz"), (231, AC))
        self.assertEqual(self.between(l1, n, supply="3 x 400/230 V"), (231, AC))
        self.assertEqual(self.between(l1, n, supply="230 V"), (230, AC), "so low a name is that to neutral")
        self.assertEqual(self.between(l1, l2, supply="208Y/120 V"), (208, AC))
        self.assertIsNone(self.between(l1, l2, supply="as built"))
        self.assertIsNone(self.between(l1, label("24 V", 24.0, DC), supply="400 V"))

    def test_a_phase_that_says_its_volts_goes_before_the_data(self) -> None:
        self.assertEqual(self.between(label("L1", 690.0, AC), label("L2", 690.0, AC), supply="400 V"), (690, AC))

    def test_both_ends_of_a_source_have_its_volts(self) -> None:
        ends = [label(f"-TB1:{n}", 230.0, AC, source="d1", named=False) for n in (3, 4)]
        self.assertEqual(self.between(*ends), (230, AC))
        self.assertIsNone(self.between(ends[0], label("-TB2:3", None, AC, source="d2", named=False)))

    def test_volts_against_zero(self) -> None:
        self.assertEqual(self.between(label("24 V", 24.0, DC), label("0 V", 0.0, DC)), (24, DC))
        self.assertEqual(self.between(label("120 V", 120.0, AC), label("N", None, "")), (120, AC))
        self.assertIsNone(self.between(label("24 V", 24.0, DC), label("12 V", 12.0, DC)))
        self.assertEqual(self.between(label("24 V", 24.0, DC), label("24 V", 24.0, DC)), (0, DC))

    def test_two_rails_have_the_volts_of_both(self) -> None:
        rails = [label(f"the {side} rail", 120.0, AC, said=False) for side in ("left", "right")]
        self.assertEqual(self.between(*rails), (120, AC))
        self.assertIsNone(self.between(rails[0], label("the right rail", 24.0, AC, said=False)))


class Sides(TestCase):
    def test_live_and_return(self) -> None:
        for one, side, back in (
            (label("L1"), "live", False),
            (label("N"), "return", False),
            (label("0 V"), "return", True),
            (label("24 V"), "live", False),
            (label("the right rail", said=False), "return", True),
            (label("the left rail", said=False), "live", False),
            (label("-TB1:3", source="d1", named=False), "", True),
            (label("-TB1:3", source="d1", named=False, rail="the left rail"), "live", True),
            (label("N", source="d1"), "return", True),
            (label("230 V", source="d1"), "live", False),
        ):
            self.assertEqual((one.side, one.is_return), (side, back), one)


class Numbers(TestCase):
    def test_the_first_number_of_a_text(self) -> None:
        for text, number in (("24 V", 24.0), ("100-240", 100.0), ("2,5", 2.5), ("", None), ("none", None)):
            self.assertEqual(number_of(text), number, text)

    def test_mains_and_control_volts_of_the_data(self) -> None:
        for standard, supply, volts in (
            ("iec", "", 400.0),
            ("na", "", 480.0),
            ("na", "480 V 3~", 480.0),
            ("iec", "3 x 690/400 V", 690.0),
        ):
            mains = mains_of(with_settings(standard=standard, supply=supply))
            self.assertEqual((mains.volts, mains.american), (volts, standard == "na"), (standard, supply))
        for said, kind, wanted in (
            ("24 V DC", DC, 24.0),
            ("24 V DC, 230 V AC", AC, 230.0),
            ("24 V DC, 48 V DC", DC, None),
            ("", DC, None),
        ):
            self.assertEqual(control_volts(with_settings(control_voltages=said), kind), wanted, said)
