"""What a potential feeds, as far as the parts say."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.checks import project_snags
from jolly_core.circuits import consumers_on, mains_of, motor_beyond_a, potential_of, supply_load, takes_a
from jolly_core.drawing import pin_points
from jolly_core.model import Part
from jolly_core.tagging import pins_of
from jolly_core.testing import Workbench


class Loads(TestCase):
    def test_consumers_of_a_bridged_potential_are_summed_once_each(self) -> None:
        bench = Workbench(frame="zones")
        part = next(p for p in bench.library.parts_of("lamp") if p.ratings.get("loss_w"))
        for y in (20, 30):
            lamp = bench.place("lamp", 60, y)
            bench.do("assign-part", device_id=bench.device(lamp), part_id=part.id)
            bench.wire((20, y), (60, y))
        row = {"sheet_id": bench.sheet, "x1": 40, "y1": 18, "x2": 40, "y2": 32}
        one, other = bench.do("place-terminals", **row).placed
        alone = consumers_on(bench.project, potential_of(bench.project, (one, 0)))
        self.assertEqual([c.amps for c in alone], [round(takes_a(part), 3)])
        bench.do("bridge-terminals", strip_id=bench.device(one), units=[1, 2])
        both = consumers_on(bench.project, potential_of(bench.project, (other, 0)))
        self.assertEqual(len(both), 2)
        self.assertGreater(takes_a(part), 0)

    def test_a_breaker_bears_its_current_and_takes_none_a_motor_takes_it(self) -> None:
        library = Workbench().library
        breaker = next(p for p in library.parts_of("breaker") if p.ratings.get("rated_a"))
        motor = next(p for p in library.parts_of("motor") if p.ratings.get("rated_a"))
        self.assertEqual(takes_a(breaker), 0.0)
        self.assertEqual(takes_a(motor), float(motor.ratings["rated_a"]))


class Mains(TestCase):
    def test_volts_of_the_supply_as_people_write_them(self) -> None:
        for words, volts in (
            ("400 V 3~ 50 Hz", 400),
            ("3 x 400/230 V 50 Hz", 400),
            ("3/N/PE ~ 230/400V", 400),
            ("3 phase 480VAC 60 Hz", 480),
            ("3~ 690 V", 690),
            ("480", 480),
            ("", 400),
            ("as agreed", 400),
        ):
            bench = Workbench()
            bench.do("change-settings", supply=words, name="Mill")
            self.assertEqual(mains_of(bench.project).volts, volts, words)

    def test_a_motor_that_says_its_power_takes_what_is_usual_on_its_supply(self) -> None:
        for standard, supply, amps in (
            ("iec", "", 11.5),
            ("iec", "690 V 3~", 6.667),
            ("na", "480 V 3~ 60 Hz", 10.83),
            ("na", "240 V 3~ 60 Hz", 21.66),
        ):
            bench = Workbench(frame="zones", name="Mill")
            bench.do("change-settings", standard=standard, supply=supply, site="North")
            units = (("motor", ("U1", "V1", "W1", "PE")),)
            bench.library.parts["m"] = Part("m", "Maker", "M", "motor", units=units, ratings={"power_kw": "5.5"})
            pole = bench.place("contactor-pole", 20, 20)
            bench.wire((26, 20), (50, 20), (50, 40))
            bench.place("motor", 50, 40, part_id="m")
            self.assertAlmostEqual(motor_beyond_a(bench.project, pole), amps, delta=0.01, msg=supply)


class Earthed(TestCase):
    """A transformer of 120 V and 120 VA, one end of it earthed, feeds a lamp of 12 W; a motor has its PE there."""

    def setUp(self) -> None:
        b = self.bench = Workbench(frame="zones")
        units = {"transformer": ("1", "2", "3", "4"), "lamp": ("X1", "X2"), "motor": ("L", "N", "PE")}
        ratings = {
            "transformer": {"secondary_v": "120", "power_va": "120"},
            "lamp": {"voltage_v": "120", "power_w": "12"},
            "motor": {"rated_a": "9"},
        }
        for kind, said in ratings.items():
            b.library.parts[kind] = Part(kind, "Maker", kind, kind, units=((kind, units[kind]),), ratings=said)

    def loads(self, earthed: int) -> tuple[list[str], list[str]]:
        """Return the parts that the transformer feeds and those on the earthed potential, its third or fourth pin."""
        b = self.bench
        transformer = b.place("transformer", 20, 20, part_id="transformer")
        pins = pin_points(b.symbol(transformer))
        lamp = b.place("lamp", 50, 40, part_id="lamp")
        for pin, end, out, y in ((pins[2], 50, 46, 44), (pins[3], 54, 58, 50)):
            b.wire(pin, (pin[0], y), (out, y), (out, 40), (end, 40))
        motor = b.place("motor-single", 60, 60, part_id="motor")
        x, y = pins[earthed][0], (44, 50)[earthed - 2]
        b.wire((x, y), (x, 56), (68, 56), (68, 60), type_id=b.pe)
        load = supply_load(b.project, b.device(transformer))
        assert load is not None
        on = consumers_on(b.project, potential_of(b.project, (lamp, earthed - 2)))
        part = {d.id: d.part_id for d in b.project.devices.values()}
        self.assertEqual(part[b.device(motor)], "motor")
        return [part[c.device.id] for c in load.consumers], [part[c.device.id] for c in on]

    def test_what_is_only_earthed_takes_nothing_from_it(self) -> None:
        for earthed in (2, 3):
            self.setUp()
            self.assertEqual(self.loads(earthed), (["lamp"], ["lamp"]))


class Supplies(TestCase):
    """A supply of 5 A whose plus is carried by a name to coils, one behind a contact."""

    def setUp(self) -> None:
        b = self.bench = Workbench(frame="zones")
        supply = b.place("dc-supply", 20, 20, part_id="hollin-hr-p5")
        self.supply = b.device(supply)
        points = pin_points(b.project.symbols[supply])
        names = pins_of(b.project, b.project.symbols[supply])
        self.plus = points[names.index("+")]
        self.coils: list[str] = []

    def coil(self, y: int, *, behind: bool = False) -> None:
        b = self.bench
        x, top = self.plus
        coil = b.place("coil", 70, y, part_id="brindlework-bw-c09-24d-31")
        if behind:
            b.place("contact-no", 60, y)
            b.wire((x, top), (x, y), (60, y))
            b.wire((64, y), (70, y))
        else:
            b.wire((x, top), (x, y), (70, y))
        self.coils.append(b.device(coil))

    def test_what_hangs_on_it_is_summed_also_behind_contacts_and_once_each(self) -> None:
        self.coil(60)
        self.coil(70, behind=True)
        load = supply_load(self.bench.project, self.supply)
        assert load is not None
        self.assertEqual({c.device.id for c in load.consumers}, set(self.coils))
        part = self.bench.project.part_of(self.bench.project.devices[self.coils[0]])
        assert part is not None
        self.assertAlmostEqual(load.takes_a, 2 * round(takes_a(part), 3))
        self.assertEqual(load.gives_a, 5.0)
        self.assertEqual([s for s in project_snags(self.bench.project) if s.code == "supply-load"], [])

    def test_four_fifths_are_warned_of_and_more_than_it_gives_is_an_error(self) -> None:
        self.coil(60)
        project = self.bench.project
        part = next(p for p in project.parts.values() if p.part_class == "contactor")
        for watts, severity in (("90", ""), ("100", "warning"), ("121", "error")):
            ratings = {**part.ratings, "loss_w": watts}
            project.load("part", [replace(part, ratings=ratings)])
            found = [s for s in project_snags(project) if s.code == "supply-load"]
            self.assertEqual([s.severity for s in found], [severity] if severity else [], watts)
        self.assertIn("gives 5 A, but feeds 5.042 A, 101 %: -QA1 5.042 A", found[0].message)

    def test_what_says_nothing_is_named_and_what_is_not_drawn_has_no_load(self) -> None:
        self.coil(60)
        project = self.bench.project
        part = next(p for p in project.parts.values() if p.part_class == "contactor")
        bare = {k: v for k, v in part.ratings.items() if k not in ("loss_w", "power_w")}
        project.load("part", [replace(part, ratings=bare)])
        load = supply_load(project, self.supply)
        assert load is not None
        self.assertEqual((load.consumers, load.silent), ((), ("-QA1",)))
        self.assertIsNone(supply_load(project, self.coils[0]))
