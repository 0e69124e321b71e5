"""Each check finds its snag, at its place, and nothing where all is well."""

from __future__ import annotations

import ast
from pathlib import Path
from unittest import TestCase

import jolly_core
import jolly_core.scenes  # noqa: F401  # it brings a check of its own
from jolly_core.checks import CHECKS, SEVERITIES, Snag, all_snags, snags_on
from jolly_core.exchange import read_project
from jolly_core.testing import DEMO, Workbench


def declared(decorator: str) -> set[str]:
    """Return the codes of all checks that the core declares with a decorator, wherever it does."""
    return {
        str(made.args[0].value)
        for path in Path(jolly_core.__file__).parent.rglob("*.py")
        if "tests" not in path.parts
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8")))
        if isinstance(node, ast.FunctionDef)
        for made in node.decorator_list
        if isinstance(made, ast.Call) and isinstance(made.func, ast.Name) and made.func.id == decorator
        if made.args and isinstance(made.args[0], ast.Constant)
    }


class EachCheck(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench()

    def found(self, code: str) -> list[Snag]:
        return [s for s in snags_on(self.bench.project, self.bench.sheet) if s.code == code]

    def test_the_registry_is_complete(self) -> None:
        self.assertTrue(all(help for _, help in CHECKS.values()))
        self.assertTrue(CHECKS.keys() >= declared("check") and declared("check") > {"no-part", "text-outside"})

    def test_the_demo_is_clean(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        self.assertEqual(all_snags(project), [])

    def test_an_open_pin_is_named_until_it_is_wired(self) -> None:
        lamp = self.bench.place("lamp", 40, 16)
        snags = self.found("unconnected-pin")
        self.assertEqual([s.message for s in snags], ["-PF1:X1 is not connected.", "-PF1:X2 is not connected."])
        self.assertEqual([(s.x, s.y, s.ids) for s in snags], [(40, 16, (lamp,)), (44, 16, (lamp,))])
        self.bench.wire((20, 16), (40, 16))
        self.assertEqual([s.message for s in self.found("unconnected-pin")], ["-PF1:X2 is not connected."])

    def test_touching_pins_are_connected(self) -> None:
        self.bench.place("lamp", 40, 16)
        self.bench.place("lamp", 44, 16)
        self.assertEqual(len(self.found("unconnected-pin")), 2)

    def test_a_terminal_may_have_one_side_open(self) -> None:
        self.bench.place("terminal", 40, 16)
        self.assertEqual(len(self.found("unconnected-pin")), 2)
        self.bench.wire((20, 16), (40, 16))
        self.assertEqual(self.found("unconnected-pin"), [])

    def test_a_loose_wire_end(self) -> None:
        self.bench.wire((20, 16), (40, 16))
        self.assertEqual([(s.x, s.y) for s in self.found("loose-end")], [(20, 16), (40, 16)])
        self.bench.do("place-continuation", sheet_id=self.bench.sheet, x=20, y=16, name="a")
        self.bench.place("lamp", 40, 16)
        self.assertEqual(self.found("loose-end"), [])

    def test_the_ends_of_a_ladders_rails_are_not_loose(self) -> None:
        self.bench = Workbench(rails=True)
        self.assertEqual(self.found("loose-end"), [])

    def test_a_continuation_needs_another_end(self) -> None:
        self.bench.do("place-continuation", sheet_id=self.bench.sheet, x=20, y=16, name="a")
        self.assertEqual([s.message for s in self.found("unpaired-continuation")], ["Continuation a has no other end."])
        self.bench.do("place-continuation", sheet_id=self.bench.sheet, x=20, y=25, name="a")
        self.assertEqual(self.found("unpaired-continuation"), [])

    def test_a_device_without_a_part_says_so_once_at_its_lead(self) -> None:
        coil = self.bench.place("coil", 40, 16)
        self.bench.place("contact-no", 20, 16, device_id=self.bench.device(coil))
        (snag,) = self.found("no-part")
        self.assertEqual((snag.ids, snag.mend, snag.severity), ((coil,), "choose-part", "warning"))
        self.bench.do("assign-part", device_id=self.bench.device(coil), part_id="hollin-hr-k22")
        self.assertEqual(self.found("no-part"), [])

    def test_equal_tags_in_two_places_are_no_snag(self) -> None:
        panel = self.bench.new("add-location", code="KP2")
        self.bench.place("coil", 40, 16)
        other = self.bench.device(self.bench.place("coil", 40, 25))
        self.bench.do("set-place", device_id=other, function_id="", location_id=panel)
        self.assertEqual([d.number for d in self.bench.project.devices.values()], [1, 1])
        self.assertEqual(self.found("equal-tags"), [])

    def test_a_fixed_tag_equal_to_a_running_one_is_found_from_both(self) -> None:
        first = self.bench.place("coil", 40, 16)
        other = self.bench.place("lamp", 40, 25)
        self.bench.do("set-tag", device_id=self.bench.device(other), tag="KF1")
        self.assertEqual({s.ids[0] for s in self.found("equal-tags")}, {first, other})

    def test_errors_come_first_then_by_place(self) -> None:
        self.bench.place("lamp", 60, 16)
        self.bench.place("contact-no", 20, 34)
        severities = [s.severity for s in snags_on(self.bench.project, self.bench.sheet)]
        self.assertEqual(severities, sorted(severities, key=SEVERITIES.index))
        self.assertEqual(severities[0], "error")
