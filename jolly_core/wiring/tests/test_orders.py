"""The order of conductors: places, rooms, poles alike, protective stars, a person's own, and by layout."""

from __future__ import annotations

from collections import Counter
from dataclasses import replace
from itertools import combinations
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_core.checks import all_snags
from jolly_core.model import Location, Part, Placing, RuleError
from jolly_core.tagging import pin_name
from jolly_core.testing import Workbench
from jolly_core.wiring import all_conductors, connections, net_of, place_of, sheet_groups, site_of
from jolly_core.wiring.orders import ring_in
from jolly_core.wiring.shortest import shortest_pairs

TERMINAL_OF_ONE = Part(
    "one", "M", "ONE", "lamp", units=(("lamp", ("X1", "X2")),), ratings={"conductors_per_point": "1"}
)


class Net:
    """Lamps beside each other on one wire, each at a place of its own choosing."""

    def __init__(self, places: list[str], rooms: list[int] | None = None) -> None:
        self.bench = bench = Workbench(frame="zones", name="Order")
        panel = Location("panel", "P1", side="panel")
        for location in (
            panel,
            Location("door", "D", parent_id="panel", side="door"),
            Location("field", "F", side="field"),
        ):
            bench.project.locations[location.id] = location
        self.lamps = []
        for n, place in enumerate(places):
            lamp = bench.place("lamp", 8 + 4 * n, 30, rotation=90, mirror=True)
            self.lamps.append(lamp)
            device = bench.project.devices[bench.device(lamp)]
            room = rooms[n] if rooms else 2
            part = replace(TERMINAL_OF_ONE, id=f"r{room}", ratings={"conductors_per_point": str(room)})
            bench.project.parts[part.id] = part
            bench.project.devices[device.id] = replace(device, location_id=place, part_id=part.id)
        bench.wire((8, 30), (8 + 4 * (len(places) - 1), 30))

    def pairs(self) -> list[tuple[int, int]]:
        wire = self.bench.project.wires_on(self.bench.sheet)[0]
        groups = sheet_groups(self.bench.project, self.bench.sheet)
        net = net_of(self.bench.project, (self.bench.sheet, groups.of_wire[wire.id]))
        found = connections(self.bench.project, net)
        return [(self.lamps.index(c.start[0]), self.lamps.index(c.end[0])) for c in found]


class Places(TestCase):
    def test_forty_pins_over_plate_and_door_cross_the_hinge_once(self) -> None:
        net = Net(["panel", "door"] * 20)
        pairs = net.pairs()
        self.assertEqual(len(pairs), 39)
        self.assertEqual(sum(a % 2 != b % 2 for a, b in pairs), 1)

    def test_where_a_device_is(self) -> None:
        net = Net(["panel", "door", "field", ""])
        devices = [net.bench.project.devices[net.bench.device(i)] for i in net.lamps]
        places = [place_of(net.bench.project, d) for d in devices]
        self.assertEqual(places, [("panel", "plate"), ("panel", "door"), ("field", "field"), ("", "")])
        net.bench.project.locations["panel2"] = Location("panel2", "P2", side="panel")
        other = replace(devices[0], location_id="panel2")
        self.assertEqual(place_of(net.bench.project, replace(other, id="new")), ("panel2", "plate"))

    @settings(max_examples=60, deadline=None)
    @given(st.lists(st.tuples(st.sampled_from(("panel", "door", "field")), st.integers(1, 4)), min_size=2, max_size=12))
    def test_any_net_is_a_tree_that_keeps_rooms_and_crosses_once(self, pins: list[tuple[str, int]]) -> None:
        net = Net([place for place, _ in pins], [room for _, room in pins])
        pairs = net.pairs()
        self.assertEqual(len(pairs), len(pins) - 1)
        self.assertFalse(ring_in([((str(a), 0), (str(b), 0)) for a, b in pairs]))
        counts = Counter(n for pair in pairs for n in pair)
        places = {place for place, _ in pins}
        crossings = sum(pins[a][0] != pins[b][0] for a, b in pairs)
        if all(room >= 3 for _, room in pins):
            self.assertEqual(crossings, len(places) - 1)
        if sum(room for _, room in pins) >= 2 * (len(pins) - 1):
            self.assertTrue(all(count <= pins[n][1] for n, count in counts.items()), (pairs, pins))

    def test_a_part_that_says_one_gets_one_and_what_is_too_much_is_told(self) -> None:
        net = Net(["panel"] * 3, [1, 2, 1])
        self.assertEqual(Counter(n for pair in net.pairs() for n in pair), {0: 1, 1: 2, 2: 1})
        self.assertNotIn("pin-full", {s.code for s in all_snags(net.bench.project)})
        full = Net(["panel"] * 3, [1, 1, 1])
        self.assertIn("pin-full", {s.code for s in all_snags(full.bench.project)})


class PolesAlike(TestCase):
    def test_phases_take_the_pattern_of_the_first(self) -> None:
        bench = Workbench(frame="zones")
        for n in range(3):
            # Each phase meets the three breakers at other distances from the switch.
            bench.wire((10, 20 + 4 * n), (26, 20 + 4 * n), type_id=bench.red)
            bench.wire((26, 20 + 4 * n), (80, 20 + 4 * n), type_id=bench.red)
        bench.place("disconnector", 16, 20)
        for x, y in ((70, 50), (34, 50), (52, 50)):
            bench.place("breaker", x, y, rotation=0, poles=3)
            for n in range(3):
                bench.wire((x, y + 4 * n), (x - 4 - 2 * n, y + 4 * n), (x - 4 - 2 * n, 20 + 4 * n), type_id=bench.red)
        names = [
            tuple(sorted((pin_name(bench.project, c.start), pin_name(bench.project, c.end))))
            for c in all_conductors(bench.project).values()
        ]
        first = {(a.rsplit(":", 1)[0], b.rsplit(":", 1)[0]) for a, b in names if {a[-1], b[-1]} <= {"1", "2"}}
        for odd, even in (("3", "4"), ("5", "6")):
            mine = {(a.rsplit(":", 1)[0], b.rsplit(":", 1)[0]) for a, b in names if {a[-1], b[-1]} <= {odd, even}}
            self.assertEqual(mine, first)
        self.assertEqual(len(first), 3)


class ProtectiveStar(TestCase):
    def test_each_pin_goes_to_an_earth_terminal_and_none_through_a_device(self) -> None:
        bench = Workbench(frame="zones")
        bench.wire((10, 20), (100, 20), type_id=bench.pe)
        hubs = [bench.place("terminal-earth", x, 20, rotation=0) for x in (20, 60)]
        motors = []
        for x in (26, 44, 66, 84):
            motors.append(bench.place("motor", x, 50))
            bench.wire((x + 12, 20), (x + 12, 50), type_id=bench.pe)
        for c in all_conductors(bench.project).values():
            ends = {c.start[0], c.end[0]}
            self.assertTrue(ends & set(hubs), ends)
        landed = Counter(
            next(iter({c.start[0], c.end[0]} & set(motors)), "") for c in all_conductors(bench.project).values()
        )
        self.assertEqual([landed[m] for m in motors], [1, 1, 1, 1])


class Own(TestCase):
    def setUp(self) -> None:
        self.net = Net(["panel"] * 4)
        self.bench = self.net.bench
        self.wire = self.bench.project.wires_on(self.bench.sheet)[0].id

    def order(self, *pairs: tuple[int, int]) -> None:
        lamps = self.net.lamps
        self.bench.do("order-net", wire_id=self.wire, pairs=[f"{lamps[a]}.0-{lamps[b]}.0" for a, b in pairs])

    def keys(self) -> set[frozenset[int]]:
        found = all_conductors(self.bench.project).values()
        return {frozenset((self.net.lamps.index(c.start[0]), self.net.lamps.index(c.end[0]))) for c in found}

    def test_it_wins_and_is_kept_when_a_pin_goes_or_comes(self) -> None:
        self.assertEqual(self.keys(), {frozenset(p) for p in ((0, 1), (1, 2), (2, 3))})
        self.order((0, 3), (3, 1), (1, 2))
        self.assertEqual(self.keys(), {frozenset(p) for p in ((0, 3), (3, 1), (1, 2))})
        self.net.lamps.append(self.bench.place("lamp", 18, 30, rotation=90, mirror=True))
        self.assertTrue({frozenset(p) for p in ((0, 3), (3, 1), (1, 2))} < self.keys())
        self.bench.do("delete-selection", ids=[self.net.lamps[1]])
        self.assertIn(frozenset((0, 3)), self.keys())
        self.assertEqual(len(self.keys()), 3)
        self.wire = self.bench.project.wires_on(self.bench.sheet)[0].id
        self.order()
        self.assertFalse(self.bench.project.net_orders)
        with self.assertRaisesRegex(RuleError, "usual order already"):
            self.order()

    def test_what_it_refuses(self) -> None:
        for pairs, words in (
            (((0, 1), (1, 2)), "leaves a pin out"),
            (((0, 1), (1, 2), (2, 0)), "in a ring"),
            (((0, 1), (0, 2), (0, 3)), "3 conductors on a pin that takes 2"),
        ):
            with self.assertRaisesRegex(RuleError, words):
                self.order(*pairs)
        with self.assertRaisesRegex(RuleError, "names no two pins"):
            self.bench.do("order-net", wire_id=self.wire, pairs=["nonsense"])


class ByLayout(TestCase):
    def test_pins_on_a_rail_are_joined_by_the_shortest_total(self) -> None:
        net = Net(["panel"] * 4)
        project = net.bench.project
        enclosure = net.bench.new("add-enclosure", part_id="brindlework-bw-e6825")
        part = replace(project.parts["r2"], width_mm=10, height_mm=10)
        project.parts["r2"] = part
        for n, x in enumerate((0, 300, 100, 200)):
            device = project.devices[net.bench.device(net.lamps[n])]
            project.load("placing", [Placing(f"pl{n}", enclosure, device.id, "plate", x, 100)])
        self.assertEqual(net.pairs(), [(0, 1), (1, 2), (2, 3)])
        net.bench.do("change-settings", conductor_order="layout")
        pairs = {
            frozenset(n.index(i) for i in (c.start[0], c.end[0]))
            for n in (net.lamps,)
            for c in all_conductors(project).values()
        }
        self.assertEqual(pairs, {frozenset(p) for p in ((0, 2), (2, 3), (3, 1))})

    @settings(max_examples=40, deadline=None)
    @given(st.lists(st.tuples(st.integers(0, 50), st.integers(1, 3)), min_size=3, max_size=5, unique_by=lambda p: p[0]))
    def test_exact_against_all_trees(self, places: list[tuple[int, int]]) -> None:
        pins = [(str(n), 0) for n in range(len(places))]
        room = {pin: places[n][1] for n, pin in enumerate(pins)}
        lengths = {(a, b): float(abs(places[int(a[0])][0] - places[int(b[0])][0])) for a in pins for b in pins}
        best = None
        for tree in combinations(list(combinations(pins, 2)), len(pins) - 1):
            counts = Counter(p for pair in tree for p in pair)
            if not ring_in(list(tree)) and len(counts) == len(pins) and all(counts[p] <= room[p] for p in pins):
                total = sum(lengths[pair] for pair in tree)
                best = total if best is None else min(best, total)
        found = shortest_pairs(pins, room, lengths)
        self.assertEqual(found is None, best is None)
        if found is not None:
            self.assertAlmostEqual(sum(lengths[pair] for pair in found), best or 0.0)

    def test_many_pins_are_chained_with_room_kept(self) -> None:
        pins = [(str(n), 0) for n in range(14)]
        at = {pin: (n * 37) % 101 for n, pin in enumerate(pins)}
        lengths = {(a, b): float(abs(at[a] - at[b])) for a in pins for b in pins}
        found = shortest_pairs(pins, dict.fromkeys(pins, 2), lengths)
        assert found is not None
        self.assertEqual(sum(lengths[p] for p in found), max(at.values()) - min(at.values()))
        rooms = {pin: 1 if n < 2 else 2 for n, pin in enumerate(pins)}
        counts = Counter(p for pair in shortest_pairs(pins, rooms, lengths) or [] for p in pair)
        self.assertEqual([counts[p] for p in pins[:2]], [1, 1])


class Rooms(TestCase):
    def test_what_a_part_says(self) -> None:
        bench = Workbench(frame="zones")
        bench.wire((10, 20), (60, 20))
        terminal = bench.place("terminal", 20, 20, rotation=0)
        self.assertEqual(site_of(bench.project, (terminal, 0)).room, 2)
        bench.do("assign-part", device_id=bench.device(terminal), part_id="quillon-ql-k1-5")
        self.assertEqual(site_of(bench.project, (terminal, 0)).room, 1)
