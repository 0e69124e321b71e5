"""A source's return is earthed at one point, and its output has the name people give it: neither is a fault."""

from __future__ import annotations

from collections.abc import Callable
from unittest import TestCase

from jolly_core.cables.roles import OTHER, PE, role_of
from jolly_core.checks import all_snags
from jolly_core.drawing import pin_points
from jolly_core.model import Part
from jolly_core.scenes import sheet_scene
from jolly_core.tagging import pin_name
from jolly_core.testing import Workbench, reordered
from jolly_core.wiring import all_conductors

CODES = {
    *("joined-potentials", "protective-joined", "protective-pin", "protective-switched", "earth-terminal"),
    *("short-circuit", "bridge", "coil-voltage", "number-twice", "neutral-type"),
}


class Source(TestCase):
    """A source whose output feeds a coil; its return runs along y 50, from x 100 to the source."""

    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        place = self.bench.new("add-location", code="P", side="panel")
        self.bench.do("change-sheet", sheet_id=self.bench.sheet, location_id=place)
        self.zero = self.bench.new("add-wire-type", name="0 V DC", colour="WHBU", category="control-dc")
        self.plus = self.bench.new("add-wire-type", name="24 V DC", colour="RD", category="control-dc")
        self.plain = self.bench.new("add-wire-type", name="Control AC", colour="RD", category="control-ac")

    def source(self, kind: str, live: str = "", back: str = "", x: int = 40) -> str:
        bench = self.bench
        source = bench.place(kind, x, 20)
        hot, ret = pin_points(bench.symbol(source))[2:4]
        bench.wire(hot, (hot[0], 60), (80, 60), type_id=live or self.plus)
        self.coil = bench.place("coil", 80, 60)
        bench.wire((84, 60), (100, 60), (100, 50), (ret[0], 50), ret, type_id=back or self.zero)
        return source

    def told(self) -> list[str]:
        return [f"{s.code}: {s.message}" for s in all_snags(self.bench.project) if s.code in CODES]

    def bond(self, way: str) -> None:
        bench = self.bench
        if way == "wire":
            bench.place("earth", 60, 58)
            bench.wire((60, 50), (60, 58), type_id=bench.pe)
            return
        bench.wire((60, 50), (60, 54), type_id=self.zero)
        if way == "earth symbol":
            bench.place("earth", 60, 54)
            return
        shape = {"terminal": "terminal", "earth terminal": "terminal-earth", "link": "terminal-disconnect"}[way]
        end = max(y for _, y in pin_points(bench.symbol(bench.place(shape, 60, 54, rotation=90))))
        bench.place("earth", 60, 66)
        bench.wire((60, end), (60, 66), type_id=bench.pe)


class Bonding(Source):
    def test_in_all_ways_people_draw_it(self) -> None:
        for kind in ("dc-supply", "transformer"):
            for way in ("wire", "earth symbol", "terminal", "earth terminal", "link"):
                with self.subTest(kind=kind, way=way):
                    self.setUp()
                    self.source(kind)
                    self.bond(way)
                    self.assertEqual(self.told(), [])

    def test_the_return_stays_the_return_and_one_conductor_is_the_bond(self) -> None:
        for way in ("wire", "terminal", "link"):
            self.setUp()
            self.source("dc-supply")
            self.bond(way)
            project = self.bench.project
            roles = {}
            for c in all_conductors(project).values():
                ends = {pin_name(project, pin).rsplit("-", 1)[1] for pin in (c.start, c.end)}
                roles[frozenset(ends)] = role_of(project, c)
            bonds = [ends for ends, role in roles.items() if role == PE]
            self.assertEqual(len(bonds), 1, roles)
            self.assertIn("XE1:PE", bonds[0])
            self.assertTrue(all(role == OTHER for ends, role in roles.items() if "KF1:A2" in ends), roles)

    def test_the_bond_lands_where_it_is_drawn_however_near_others_are(self) -> None:
        bench = self.bench
        source = self.source("dc-supply")
        ret = pin_points(bench.symbol(source))[3]
        for n in range(3):  # lamps far off on the return, each beside an earth
            bench.place("lamp", 110 + 12 * n, 44)
            bench.wire((114 + 12 * n, 44), (116 + 12 * n, 44), (116 + 12 * n, 50), type_id=self.zero)
            bench.place("earth", 112 + 12 * n, 72)
            bench.wire((112 + 12 * n, 70), (112 + 12 * n, 72), type_id=bench.pe)
        bench.wire((100, 50), (140, 50), type_id=self.zero)
        bench.place("lamp", 6, 44)  # one on the other side, so that the source's pin is taken by two already
        bench.wire((10, 44), (11, 44), (11, 50), (ret[0], 50), type_id=self.zero)
        corner = ret[0] - 30
        bench.wire((ret[0], 40), (corner, 40), (corner, 70), (140, 70), type_id=bench.pe)
        bench.place("earth", corner, 80)
        bench.wire((corner, 70), (corner, 80), type_id=bench.pe)
        project = self.bench.project
        hubs = {s.id for s in project.symbols.values() if s.definition == "earth"}
        bonds = [c for c in all_conductors(project).values() if len({c.start[0], c.end[0]} & hubs) == 1]
        (bond,) = bonds
        self.assertEqual({bond.start[0], bond.end[0]} - hubs, {source}, "not at a lamp")
        self.assertEqual(pin_points(bench.symbol(next(iter({bond.start[0], bond.end[0]} & hubs))))[0][0], corner)
        self.assertEqual(role_of(project, bond), PE)
        again = [c for c in all_conductors(reordered(project, 4)).values() if len({c.start[0], c.end[0]} & hubs) == 1]
        self.assertEqual([(c.start, c.end) for c in again], [(bond.start, bond.end)])

    def test_a_bridge_of_terminals(self) -> None:
        bench = self.bench
        self.source("dc-supply")
        bench.wire((60, 50), (60, 70), type_id=self.zero)
        bench.place("earth", 64, 70)
        bench.wire((64, 50 + 4), (64, 70), type_id=bench.pe)
        (strip,) = bench.do("place-terminals", sheet_id=bench.sheet, x1=58, y1=64, x2=66, y2=64).placed[:1]
        bench.do("bridge-terminals", strip_id=bench.device(strip), units=[1, 2])
        self.assertEqual([m for m in self.told() if m.startswith("bridge")], [])

    def test_one_end_of_a_current_transformer(self) -> None:
        bench = self.bench
        transformer, meter = bench.place("current-transformer", 30, 20), bench.place("ammeter", 60, 20)
        for one, other in zip(pin_points(bench.symbol(transformer)), pin_points(bench.symbol(meter)), strict=True):
            bench.wire(one, (one[0] + 4, one[1]), (one[0] + 4, 30 + one[1]), (other[0], 30 + one[1]), other)
        bench.place("earth", 50, 60)
        bench.wire((50, 52), (50, 60), type_id=bench.pe)
        self.assertEqual(self.told(), [])

    def test_poles_of_a_surge_protective_device_end_at_one_pin(self) -> None:
        bench = self.bench
        bench.place("surge-protector", 40, 30, rotation=90, mirror=True, poles=3)
        self.assertNotIn("pins-twice", {s.code for s in all_snags(bench.project)})

    def test_what_is_no_return_is_still_a_fault(self) -> None:
        for name in ("L1", "24 V", "N"):
            with self.subTest(name=name):
                self.setUp()
                bench = self.bench
                bench.do("place-continuation", sheet_id=bench.sheet, x=10, y=50, name=name)
                bench.wire((10, 50), (60, 50), type_id=self.plain)
                bench.place("earth", 60, 58)
                bench.wire((60, 50), (60, 58), type_id=bench.pe)
                codes = {m.split(":")[0] for m in self.told()}
                self.assertLessEqual({"joined-potentials", "protective-joined"}, codes)

    def test_the_neutral_of_a_supply_that_is_earthed_there(self) -> None:
        bench = self.bench
        bench.do("change-settings", supply_system="TN-C-S")
        bench.do("place-continuation", sheet_id=bench.sheet, x=10, y=50, name="N")
        bench.wire((10, 50), (60, 50), type_id=self.plain)
        bench.do("place-continuation", sheet_id=bench.sheet, x=60, y=50, name="PE")
        self.assertEqual(self.told(), [])

    def test_both_sides_of_a_supply_on_the_earth(self) -> None:
        bench = self.bench
        self.source("dc-supply", live=self.plain, back=self.plain)
        self.bond("wire")
        self.assertEqual([m for m in self.told() if "type" not in m], [])
        bench.place("earth", 52, 68)
        bench.wire((52, 60), (52, 68), type_id=bench.pe)
        self.assertIn("protective-joined", {m.split(":")[0] for m in self.told()})


class FaultsBeside(Source):
    """What is wrong on a protective conductor is found whether or not a return is bonded to it."""

    def setUp(self) -> None:
        super().setUp()
        self.source("dc-supply")

    def each(self, way: str) -> None:
        """Bond the return, or only put the earth where it would be; the protective conductor goes on from there."""
        if way != "none":
            return self.bond(way)
        self.bench.place("earth", 60, 58)
        self.bench.wire((60, 56), (60, 58), type_id=self.bench.pe)
        return None

    def codes(self) -> set[str]:
        return {s.code for s in all_snags(self.bench.project)} & CODES

    def found(self, code: str, *draw: Callable[[int], None]) -> None:
        """Check that a fault is found with each way of bonding, and with none, and none is there before it is drawn."""
        for way in ("none", "wire", "terminal", "link"):
            with self.subTest(way=way):
                self.setUp()
                self.each(way)
                self.assertEqual(self.codes() & {code}, set())
                for act in draw:
                    act(58 if way in ("none", "wire") else 66)
                self.assertIn(code, self.codes())

    def test_a_load_that_returns_over_it(self) -> None:
        def draw(y: int) -> None:
            self.bench.place("lamp", 110, y)
            self.bench.wire((60, y), (110, y), type_id=self.bench.pe)

        self.found("protective-pin", draw)

    def test_a_pole_in_it(self) -> None:
        def draw(y: int) -> None:
            bench = self.bench
            fuse = bench.place("fuse", 90, y + 20, poles=1, rotation=0)
            (ax, ay), (bx, by) = pin_points(bench.symbol(fuse))
            bench.wire((60, y), (60, ay), (ax, ay), type_id=bench.pe)
            bench.place("motor", 120, y + 40)
            bench.wire((bx, by), (132, by), (132, y + 40), type_id=bench.pe)

        self.found("protective-switched", draw)

    def test_a_plain_terminal_in_it(self) -> None:
        def draw(y: int) -> None:
            self.bench.wire((60, y), (130, y), type_id=self.bench.pe)
            self.bench.place("terminal", 110, y)

        self.found("earth-terminal", draw)

    def test_the_earth_of_a_motor_on_the_return(self) -> None:
        def draw(y: int) -> None:
            self.bench.place("motor", 110, y + 30)
            self.bench.wire((100, 50), (122, 50), (122, y + 30), type_id=self.zero)

        for way in ("wire", "terminal", "link"):
            self.setUp()
            self.each(way)
            draw(58)
            self.assertIn("protective-pin", self.codes(), way)


class Outputs(Source):
    """What the secondary of a control transformer is called."""

    def rated(self, volts: str) -> Part:
        ratings = {"secondary_v": volts, "power_va": "100"}
        part = Part("t", "Maker", "T", "transformer", units=(("transformer", ("1", "2", "3", "4")),), ratings=ratings)
        self.bench.library.parts["t"] = part
        return part

    def named(self, live: str, back: str, volts: str = "120") -> None:
        bench = self.bench
        source = self.source("transformer", live=self.plain, back=self.plain)
        self.rated(volts)
        bench.do("assign-part", device_id=bench.device(source), part_id="t")
        for x, y, name in ((50, 60, live), (70, 50, back)):
            bench.wire((x, y), (x, y + 6), type_id=self.plain)
            bench.do("place-continuation", sheet_id=bench.sheet, x=x, y=y + 6, name=name)

    def test_a_name_that_fits_is_no_second_potential(self) -> None:
        for live, back in (("X1", "N"), ("120 V AC", "0 V"), ("115 V", "N"), ("Hot", "M N")):
            with self.subTest(live=live):
                self.setUp()
                self.named(live, back)
                self.assertEqual(self.told(), [])

    def test_the_coil_is_compared_with_what_the_transformer_gives(self) -> None:
        for part, wrong in (("brindlework-bw-c09-120a", 0), ("brindlework-bw-c09-24d-31", 1)):
            for names in (("X1", "N"), ("120 V", "0 V"), ("X1", "X2")):
                with self.subTest(part=part, names=names):
                    self.setUp()
                    self.named(*names)
                    self.bench.do("assign-part", device_id=self.bench.device(self.coil), part_id=part)
                    found = [m for m in self.told() if m.startswith("coil-voltage")]
                    self.assertEqual(len(found), wrong, found)

    def test_a_name_that_does_not_fit_is_told(self) -> None:
        for live in ("24 V", "L1"):
            self.setUp()
            self.named(live, "N")
            (message,) = self.told()
            self.assertIn(f"joined-potentials: {' and '.join(sorted(('-TA1:3', live)))} are joined", message)

    def test_two_transformers_on_one_wire(self) -> None:
        bench = self.bench
        for x in (20, 60):
            bench.place("transformer", x, 20)
        bench.wire((20, 28), (20, 40), (60, 40), (60, 28), type_id=self.plain)
        (message,) = self.told()
        self.assertIn("-TA1:3 and -TA2:3 are joined", message)


class Numbers(Source):
    """The protective conductors have a number of their own, the return keeps its own, and neither wins."""

    def by_role(self) -> dict[str, set[str]]:
        project = self.bench.project
        found: dict[str, set[str]] = {}
        for c in all_conductors(project).values():
            found.setdefault(role_of(project, c), set()).add(c.number)
        return found

    def test_over_a_terminal(self) -> None:
        self.source("dc-supply")
        self.bond("terminal")
        numbers = self.by_role()
        self.assertEqual(len(numbers[PE]), 1)
        self.assertFalse(numbers[PE] & numbers[OTHER])
        ids = {
            t: [w.id for w in self.bench.project.wires.values() if w.type_id == t] for t in (self.bench.pe, self.zero)
        }
        self.bench.do("fix-wire-number", wire_id=ids[self.bench.pe][0], number="PE1")
        self.bench.do("fix-wire-number", wire_id=ids[self.zero][0], number="0")
        self.assertEqual(self.by_role()[PE], {"PE1"})
        self.assertIn("0", self.by_role()[OTHER])
        self.assertNotIn("number-given-up", {s.code for s in all_snags(self.bench.project)})

    def test_on_one_net_the_bond_has_none(self) -> None:
        self.source("dc-supply")
        before = self.by_role()[OTHER]
        self.bond("wire")
        self.assertEqual(self.by_role(), {OTHER: before, PE: {""}})
        project = self.bench.project
        for sheet in project.sheets.values():
            for item in sheet_scene(project, sheet.id).items.values():
                if item.kind == "wire":
                    shown = item.facts["number"]
                    self.assertEqual(bool(shown), project.wires[item.id].type_id != self.bench.pe, "as it is listed")
