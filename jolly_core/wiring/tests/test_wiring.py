"""Nets, connections and wire numbers."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_core.checks import snags_on
from jolly_core.model import RuleError
from jolly_core.reports import run_report
from jolly_core.testing import Workbench
from jolly_core.wiring import (
    all_conductors,
    all_nets,
    connections,
    dots,
    net_of,
    nets_of_sheet,
    point_of,
    sheet_groups,
    wire_numbers,
)
from jolly_core.wiring.connections import _Wiring

Placed = tuple[str, int, int]


class Connections(TestCase):
    """Pins A(2,2) B(12,2) C(22,2) D(12,10) on wires A-B-C and B-D, as single-pin earths."""

    def setUp(self) -> None:
        bench = self.bench = Workbench(frame="zones")
        self.names = {
            bench.place("earth", x, y): n for n, x, y in (("A", 2, 2), ("B", 12, 2), ("C", 22, 2), ("D", 12, 10))
        }
        bench.wire((2, 2), (22, 2))
        bench.wire((12, 2), (12, 10))

    def pairs(self, room: int) -> list[str]:
        (net,) = nets_of_sheet(self.bench.project, self.bench.sheet)
        spare = {pin: room for group in net for pin in group.pins}
        return [self.names[c.start[0]] + self.names[c.end[0]] for c in connections(self.bench.project, net, spare)]

    def test_room_for_two(self) -> None:
        self.assertEqual(self.pairs(2), ["AB", "BD", "DC"])

    def test_room_for_three(self) -> None:
        self.assertEqual(self.pairs(3), ["AB", "BD", "BC"])

    def test_a_net_of_n_pins_has_one_less_even_when_full(self) -> None:
        self.assertEqual(len(self.pairs(1)), 3)

    def test_a_dot_where_three_meet(self) -> None:
        self.assertEqual(dots(self.bench.project, self.bench.sheet), [(12, 2)])


PLACED = st.tuples(
    st.sampled_from(("lamp", "terminal", "earth", "terminal-earth")), st.integers(2, 6), st.integers(2, 9)
)


class TwoPins(TestCase):
    """A net of two pins has one conductor, found without the rules for many."""

    @settings(max_examples=40, deadline=None)
    @given(PLACED, PLACED, st.booleans(), st.booleans(), st.booleans())
    def test_its_conductor_is_the_one_that_the_rules_for_many_give(
        self, one: Placed, other: Placed, earthed: bool, away: bool, loop: bool
    ) -> None:
        bench = Workbench(frame="zones")
        sheets = [bench.sheet, bench.new("add-sheet", number="31") if away else bench.sheet]
        types = {"type_id": bench.pe if earthed and "lamp" not in (one[0], other[0]) else bench.blue}
        for n, ((name, x, y), sheet) in enumerate(zip((one, other), sheets, strict=True)):
            x, y = 10 * x + 70 * n, 5 * y
            bench.place(name, x, y, sheet_id=sheet)
            if away:
                bench.wire((x, y), (x, y - 4), sheet_id=sheet, **types)
                bench.do("place-continuation", sheet_id=sheet, x=x, y=y - 4, name="PE")
        if not away:
            (xa, ya), (xb, yb) = ((10 * x + 70 * n, 5 * y) for n, (_, x, y) in enumerate((one, other)))
            bench.wire((xa, ya), (xa, 2), (xb, 2), (xb, yb), **types)
            if loop:
                bench.wire((xa, 2), (xa, 1), (xb, 1), (xb, 2), **types)
        nets = [net for net in all_nets(bench.project) if sum(len(g.pins) for g in net) == 2]
        for net in nets:
            points = {p: (g.sheet_id, *point_of(bench.project, p)) for g in net for p in g.pins}
            general = _Wiring(bench.project, net, points, {}, None).wired([])
            self.assertEqual(connections(bench.project, net), general)
        self.assertTrue(nets)

    def test_a_protective_conductor_goes_out_from_the_hub_wherever_it_lies(self) -> None:
        for hub_x, pin_x in ((10, 40), (40, 10)):
            bench = Workbench(frame="zones")
            hub, other = bench.place("terminal-earth", hub_x, 20), bench.place("terminal", pin_x, 20)
            bench.wire(*sorted(((hub_x, 20), (pin_x, 20))), type_id=bench.pe)
            found = [c for net in all_nets(bench.project) for c in connections(bench.project, net)]
            self.assertEqual([c.start[0] for c in found if other in (c.start[0], c.end[0])], [hub])


class Nets(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench()
        self.other = self.bench.new("add-sheet", number="31")

    def test_continuations_of_one_name_join_sheets(self) -> None:
        bench = self.bench
        bench.wire((20, 16), (40, 16))
        lamp = bench.place("lamp", 40, 16)
        bench.do("place-continuation", sheet_id=bench.sheet, x=20, y=16, name="L+")
        bench.wire((20, 16), (40, 16), sheet_id=self.other)
        coil = bench.place("coil", 40, 16, sheet_id=self.other)
        bench.do("place-continuation", sheet_id=self.other, x=20, y=16, name="L+")
        groups = sheet_groups(bench.project, bench.sheet)
        net = net_of(bench.project, (bench.sheet, groups.of_pin[lamp, 0]))
        self.assertEqual([g.sheet_id for g in net], [bench.sheet, self.other])
        (found,) = connections(bench.project, net)
        self.assertEqual({found.start, found.end}, {(lamp, 0), (coil, 0)})
        self.assertEqual(found.steps, 1040)
        here = wire_numbers(bench.project, bench.sheet)[groups.of_pin[lamp, 0]]
        there = sheet_groups(bench.project, self.other).of_pin[coil, 0]
        self.assertEqual(wire_numbers(bench.project, self.other)[there], here)
        self.assertEqual(sum(1 for n in all_nets(bench.project) if len(n) == 2), 1)

    def test_a_conductor_that_leaves_by_a_mark_alone_is_of_the_type_its_net_is_drawn_in(self) -> None:
        b = self.bench = Workbench(frame="zones")
        ends = [b.place("earth", x, 20) for x in (10, 40)]
        b.wire((40, 20), (60, 20), type_id=b.red)
        for x in (10, 60):
            b.do("place-continuation", sheet_id=b.sheet, x=x, y=20, name="A")
        (c,) = all_conductors(b.project).values()
        self.assertEqual({c.start[0], c.end[0]}, set(ends))
        self.assertEqual(c.type_id, b.red)
        touching = Workbench(frame="zones")
        for turn in (0, 180):
            touching.place("earth", 10, 20, rotation=turn)
        self.assertEqual([c.type_id for c in all_conductors(touching.project).values()], [""])

    def test_a_terminal_is_one_potential_and_two_nets(self) -> None:
        bench = self.bench
        bench.wire((20, 16), (60, 16))
        bench.place("terminal", 30, 16)
        bench.place("lamp", 60, 16)
        self.assertEqual(len([n for n in nets_of_sheet(bench.project, bench.sheet) if n[0].wires]), 2)
        numbers = wire_numbers(bench.project, bench.sheet)
        self.assertEqual(len(set(numbers.values())), 1, "a carrying terminal passes the number")

    def test_crossing_is_not_joining(self) -> None:
        self.bench.wire((20, 16), (40, 16))
        self.bench.wire((30, 5), (30, 30))
        self.assertEqual(len(nets_of_sheet(self.bench.project, self.bench.sheet)), 2)


class Numbers(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench()
        self.bench.do("change-sheet", sheet_id=self.bench.sheet, first_line=214)
        for x in (20, 40, 60):
            self.bench.wire((x, 16), (x + 10, 16))

    def numbers(self) -> list[str]:
        found = wire_numbers(self.bench.project, self.bench.sheet)
        groups = sheet_groups(self.bench.project, self.bench.sheet)
        wires = sorted(self.bench.project.wires_on(self.bench.sheet), key=lambda w: (w.y1, w.x1))
        return [found[groups.of_wire[w.id]] for w in wires]

    def fix(self, index: int, number: str) -> None:
        wires = sorted(self.bench.project.wires_on(self.bench.sheet), key=lambda w: (w.y1, w.x1))
        self.bench.do("fix-wire-number", wire_id=wires[index].id, number=number)

    def test_line_and_running_digit(self) -> None:
        self.assertEqual(self.numbers(), ["2141", "2142", "2143"])

    def test_a_fixed_number_is_kept_and_the_rest_run(self) -> None:
        self.fix(1, "77")
        self.assertEqual(self.numbers(), ["2141", "77", "2142"])

    def test_a_fixed_number_is_never_given_again(self) -> None:
        self.fix(2, "2141")
        self.assertEqual(self.numbers(), ["2142", "2143", "2141"])
        with self.assertRaisesRegex(RuleError, "2141 is fixed already"):
            self.fix(0, "2141")

    def test_when_nets_merge_the_fixed_one_wins(self) -> None:
        self.fix(1, "77")
        self.bench.wire((30, 16), (40, 16))
        self.assertEqual(self.numbers(), ["77", "2141"])

    def test_sheet_pattern_and_width(self) -> None:
        self.bench.do("change-settings", wire_pattern="sheet", wire_width=3)
        self.assertEqual(self.numbers(), ["30-001", "30-002", "30-003"])

    def test_a_type_without_numbers_gets_none(self) -> None:
        outside = self.bench.new("add-wire-type", name="External", colour="BK", category="external", numbered=False)
        wires = self.bench.project.wires_on(self.bench.sheet)
        self.bench.do("set-wire-type", ids=[wires[0].id], wire_type_id=outside)
        self.assertEqual(len(wire_numbers(self.bench.project, self.bench.sheet)), 2)


class WireList(TestCase):
    def test_the_latch(self) -> None:
        bench = Workbench(rails=True)
        bench.do(
            "place-row",
            sheet_id=bench.sheet,
            x=20,
            y=16,
            line='nc "Stop", no "Start", coil "Auger run"',
            wire_type_id=bench.blue,
        )
        bench.wire((29, 16), (29, 25), (42, 25), (42, 16))
        coil = next(s for s in bench.project.symbols.values() if s.definition == "coil")
        bench.place("contact-no", 33, 25, device_id=coil.device_id)
        rows = {(r[0], r[1], r[2]) for r in run_report(bench.project, "wires").rows}
        self.assertEqual(
            rows,
            {
                ("3012", "-SF1:12", "-SF2:13"),
                ("3012", "-SF2:13", "-KF1:13"),
                ("3013", "-SF2:14", "-KF1:14"),
                ("3013", "-SF2:14", "-KF1:A1"),
            },
        )
        self.assertEqual([s.code for s in snags_on(bench.project, bench.sheet)], ["rail-unfed"] + ["no-part"] * 3)
