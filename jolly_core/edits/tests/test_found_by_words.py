"""Symbols that practitioners ask for by their words, placed and looked at in both habits."""

from __future__ import annotations

from math import sqrt
from unittest import TestCase

from jolly_core.checks import all_snags
from jolly_core.circuits import is_output, loads_behind, supply_load
from jolly_core.drawing import pin_points
from jolly_core.edits.draw.offers import offers
from jolly_core.library import definition, definitions, is_block, part_class, usual_blocks
from jolly_core.model import ChangeSet, Part
from jolly_core.reports import run_report
from jolly_core.scenes import sheet_scene
from jolly_core.tagging import pins_of
from jolly_core.testing import Workbench, rebuilt
from jolly_core.wiring import all_nets

ASKED = {
    "resistor": "Resistor",
    "capacitor": "Capacitor",
    "diode": "Diode",
    "varistor": "Varistor",
    "suppressor": "RC suppressor",
    "potentiometer": "Potentiometer",
    "key switch": "Key switch, NO",
    "foot switch": "Foot switch, NO",
    "cam switch": "Cam switch, NO",
    "inductive sensor": "Proximity sensor, three wires, switching plus",
    "capacitive proximity": "Capacitive proximity sensor",
    "photoelectric": "Photoelectric sensor",
    "ultrasonic": "Ultrasonic sensor",
    "magnetic proximity": "Magnetic proximity switch, NO",
    "encoder": "Encoder, incremental",
    "brake": "Brake",
    "counter": "Counter",
    "hour meter": "Hour meter",
    "buzzer": "Buzzer",
    "beacon stack": "Beacon stack",
    "heater": "Heater",
    "thermostat": "Temperature switch, NC",
    "socket": "Socket outlet",
    "six terminal motor": "Motor 3~, six ends",
    "dc motor": "Motor DC",
    "transformer with taps": "Control transformer with a tapped secondary",
    "three-phase transformer": "Transformer 3~",
    "bridge rectifier": "Bridge rectifier",
    "filter": "Mains filter",
    "safety relay": "Safety relay",
    "drive": "Drive",
    "soft starter": "Soft starter",
    "network device": "Network device",
}
HABITS = ("iec", "na")


def bench_of(standard: str) -> Workbench:
    bench = Workbench(frame="zones")
    if standard != "iec":
        bench.do("change-settings", standard=standard)
    return bench


class Found(TestCase):
    def test_each_is_offered_first_under_its_words(self) -> None:
        for standard in HABITS:
            bench = bench_of(standard)
            for words, name in ASKED.items():
                found = offers(bench.project, words, bench.sheet, [])
                self.assertEqual(found[0].name if found else "", name, words)

    def test_each_stands_on_a_sheet_with_its_letters_and_is_in_the_lists(self) -> None:
        for standard in HABITS:
            bench = bench_of(standard)
            for n, words in enumerate(ASKED):
                offer = offers(bench.project, words, bench.sheet, [])[0]
                id = bench.place(offer.definition, 4 + 21 * (n % 7), 8 + 18 * (n // 7))
                shape = definition(offer.definition)
                letters = getattr(part_class(shape.part_class), standard)
                self.assertTrue(bench.tag(id).lstrip("-").startswith(letters), f"{words}: {bench.tag(id)}")
                pins = pins_of(bench.project, bench.symbol(id))
                self.assertEqual(len(set(pins)), len(pins), words)
            self.assertEqual(
                sum(i.kind == "symbol" for i in sheet_scene(bench.project, bench.sheet).items.values()), len(ASKED)
            )
            self.assertEqual(len(run_report(bench.project, "devices").rows), len(ASKED))
            self.assertEqual([s.code for s in all_snags(bench.project) if s.severity == "error"], [])
            self.assertEqual(list(rebuilt(bench.project).entities()), list(bench.project.entities()))

    def test_a_usual_block_is_a_block_as_any_other(self) -> None:
        for block in usual_blocks():
            self.assertTrue(is_block(block.key))
            bench = Workbench(frame="zones")
            id = bench.place(block.key, 40, 40)
            self.assertEqual(pins_of(bench.project, bench.symbol(id)), list(block.generic))

    def test_nothing_of_the_data_has_pins_on_one_point_or_off_the_grid(self) -> None:
        for shape in definitions().values():
            points = shape.pin_offsets(shape.max_poles)
            self.assertEqual(len(set(points)), len(points), shape.key)


class Sources(TestCase):
    """What gives a current: behind the input, however many pins that has."""

    def of_part(self, bench: Workbench, symbol_id: str, **values: object) -> None:
        device = bench.project.devices[bench.device(symbol_id)]
        part = Part("p" + symbol_id, "Hollin", symbol_id, **values)  # type: ignore[arg-type]
        changes = ChangeSet()
        changes.record("part", part.id, None, part)
        bench.project.apply(changes)
        bench.library.parts[part.id] = part
        bench.do("assign-part", device_id=device.id, part_id=part.id)

    def outputs(self, bench: Workbench, symbol_id: str) -> list[str]:
        symbol = bench.symbol(symbol_id)
        return [n for pin, n in enumerate(pins_of(bench.project, symbol)) if is_output(bench.project, symbol, pin)]

    def test_which_pins_are_outputs(self) -> None:
        bench = Workbench(frame="zones")
        for key, names in {
            "transformer": ["3", "4"],
            "transformer-taps": ["3", "4", "5"],
            "transformer-three": ["2U", "2V", "2W", "2N"],
            "rectifier": ["+", "-"],
            "dc-supply": ["+", "-"],
            "motor": [],
        }.items():
            self.assertEqual(
                self.outputs(bench, bench.place(key, 20, 15 + 14 * len(bench.project.symbols))), names, key
            )

    def test_the_current_of_three_phases_is_that_of_a_line(self) -> None:
        """A worked case: 6300 VA at 400 V is 9.1 A a line, at 230 V between lines 15.8 A."""
        bench = Workbench(frame="zones")
        id = bench.place("transformer-three", 20, 40)
        pins = ("1U", "1V", "1W", "2U", "2V", "2W", "2N")
        ratings = {"power_va": "6300", "primary_v": "400", "secondary_v": "230"}
        self.of_part(bench, id, part_class="transformer", ratings=ratings, units=(("transformer", pins),))
        breaker = bench.place("breaker", 20, 20, poles=3)
        for n in range(3):
            start, end = pin_points(bench.symbol(breaker))[2 * n + 1], pin_points(bench.symbol(id))[n]
            bench.wire(start, (end[0], start[1]), end)
        (load,) = loads_behind(bench.project, breaker)
        self.assertAlmostEqual(load.amps, 6300 / 400 / sqrt(3), 2)
        found = supply_load(bench.project, bench.device(id))
        assert found is not None
        self.assertAlmostEqual(found.gives_a, 6300 / 230 / sqrt(3), 2)


class Passive(TestCase):
    """A resistor, capacitor, diode, varistor or suppressor is no short and no break, in series or across a coil."""

    def errors(self, bench: Workbench) -> list[str]:
        return [s.message for s in all_snags(bench.project) if s.severity == "error"]

    def test_in_series_and_across_a_coil(self) -> None:
        for key in ("resistor", "capacitor", "diode", "varistor", "suppressor-rc"):
            bench = Workbench(frame="zones")
            for y, name in ((20, "24 V DC"), (60, "0 V")):
                bench.do("place-continuation", sheet_id=bench.sheet, name=name, x=20, y=y)
                bench.wire((20, y), (100, y))
            for n, part in enumerate(("button-no", "coil", key, "lamp")):
                bench.place(part, 30 + 40 * (n // 2), 30 + 12 * (n % 2), rotation=90)
            for x in (30, 70):
                bench.wire((x, 20), (x, 60))
            bench.place(key, 40, 42, rotation=90)
            bench.wire((30, 38), (40, 38), (40, 42))
            bench.wire((40, 46), (40, 52), (30, 52))
            self.assertEqual(self.errors(bench), [], key)
            nets = sorted(sum(len(group.pins) for group in net) for net in all_nets(bench.project))
            self.assertEqual(nets, [2, 2, 3, 3], key)
