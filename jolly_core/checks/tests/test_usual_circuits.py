"""Circuits as people usually draw them have no errors, whatever they call their potentials and wires."""

from __future__ import annotations

import random
from dataclasses import dataclass
from unittest import TestCase

from jolly_core.checks import all_snags
from jolly_core.drawing import pin_points
from jolly_core.model import CoreError, Part
from jolly_core.testing import Workbench

# What the two sides of a control circuit are called, and whether a transformer feeds it.
NAMES = (
    *(("24 V", "0 V", False), ("24VDC", "0VDC", False), ("L+", "M", False), ("+24 V", "0 V", False)),
    *(("24 V1", "0 V1", False), ("P24", "N24", False), ("+", "-", False), ("24 V DC", "0 V DC", False)),
    *(("X1", "X2", True), ("1", "2", True), ("230 V AC", "N", True), ("24 V AC", "0 V", True), ("120VAC", "N", True)),
    *(("H", "N", True), ("1L1", "1N", True), ("L", "N", True), ("110 V", "0 V", True)),
)
VOLTS = {"24 V AC": "24", "120VAC": "120", "110 V": "110"}
TYPES = ("Control", "Control 24 V DC", "24 V DC", "230 V AC", "120 V control", "All wires")
CONTACTS = ("no", "nc", "fuse", "terminal", "selector", "float", "estop", "thermostat")
LOADS = ("coil", "lamp", "ton", "valve", "horn", "heater")
BONDS = ("none", "wire", "terminal", "terminal-earth", "terminal-disconnect")


@dataclass
class Circuit:
    """A ladder of rungs on one sheet, fed by names from a source on another, one side of which may be earthed."""

    seed: int

    def __post_init__(self) -> None:
        self.chance = random.Random(self.seed)
        self.live, self.back, self.alternating = self.chance.choice(NAMES)
        self.bench = Workbench(rails=True)
        category = "control-ac" if self.alternating else "control-dc"
        name = self.chance.choice(TYPES[1:])
        self.type_id = self.bench.new("add-wire-type", name=name, colour="RD", category=category)
        wires = [w.id for w in self.bench.project.wires.values()]
        self.bench.do("set-wire-type", ids=wires, wire_type_id=self.type_id)
        self.words = f"seed {self.seed}: {self.live}, {self.back}, {name}"

    def rungs(self) -> None:
        for y in range(25, 80, 9):
            items = self.chance.sample(CONTACTS, self.chance.randint(1, 2)) + [self.chance.choice(LOADS)]
            line = ", ".join(items)
            self.bench.do("place-row", sheet_id=self.bench.sheet, x=20, y=y, line=line, wire_type_id=self.type_id)

    def mark(self, sheet_id: str, x: int, y: int, name: str) -> None:
        self.bench.do("place-continuation", sheet_id=sheet_id, x=x, y=y, name=name)

    def source(self) -> None:
        bench = self.bench
        volts = VOLTS.get(self.live, "230")
        ratings = {"secondary_v": volts, "power_va": "100"}
        units = (("transformer", ("1", "2", "3", "4")),)
        bench.library.parts["t"] = Part("t", "Maker", "T", "transformer", units=units, ratings=ratings)
        sheet = bench.new("add-sheet", number="2", frame="zones")
        key, part = ("transformer", "t") if self.alternating else ("dc-supply", "hollin-hr-p5")
        source = bench.place(key, 40, 20, sheet_id=sheet, part_id=self.chance.choice(("", part)))
        hot, back = pin_points(bench.symbol(source))[2:4]
        for (x, y), name in ((hot, self.live), (back, self.back)):
            bench.wire((x, y), (x, 60), type_id=self.type_id, sheet_id=sheet)
            self.mark(sheet, x, 60, name)
        if self.chance.random() < 0.5:
            device = self.chance.choice(("fuse", "breaker"))
            bench.place(device, hot[0], 40, sheet_id=sheet, rotation=90, mirror=True, poles=1)
        self.bond(sheet, back[0])
        left, right = sorted({w.x1 for w in bench.project.wires_on(bench.sheet) if w.x1 == w.x2})[:2]
        top = min(w.y1 for w in bench.project.wires_on(bench.sheet) if w.x1 == w.x2)
        for x, name in ((left, self.live), (right, self.back)):
            self.mark(bench.sheet, x, top, name)

    def bond(self, sheet: str, x: int) -> None:
        bench, way, far, foot = self.bench, self.chance.choice(BONDS), x + 20, 56
        self.words += f", {way}"
        if way == "none":
            return
        bench.wire((x, 56), (far, 56), type_id=self.type_id, sheet_id=sheet)
        if way != "wire":
            bench.wire((far, 56), (far, 60), type_id=self.type_id, sheet_id=sheet)
            foot = max(y for _, y in pin_points(bench.symbol(bench.place(way, far, 60, sheet_id=sheet, rotation=90))))
        bench.wire((far, foot), (far, 72), type_id=bench.pe, sheet_id=sheet)
        bench.place("earth", far, 72, sheet_id=sheet)

    def errors(self) -> list[str]:
        return [f"{s.code}: {s.message}" for s in all_snags(self.bench.project) if s.severity == "error"]


class Usual(TestCase):
    def test_no_error_is_told_of_what_is_right(self) -> None:
        for seed in range(60):
            circuit = Circuit(seed)
            circuit.rungs()
            circuit.source()
            self.assertEqual(circuit.errors(), [], circuit.words)

    def test_a_rung_without_a_load_is_told_in_each_of_them(self) -> None:
        for seed in range(60):
            circuit = Circuit(seed)
            circuit.source()
            bench = circuit.bench
            bench.do("place-row", sheet_id=bench.sheet, x=20, y=25, line="no, nc", wire_type_id=circuit.type_id)
            self.assertTrue(any("no load" in e or "without a load" in e for e in circuit.errors()), circuit.words)

    def test_both_ends_of_the_source_joined_are_told(self) -> None:
        for seed in range(60):
            circuit = Circuit(seed)
            circuit.source()
            try:
                circuit.bench.wire((14, 25), (82, 25), type_id=circuit.type_id)
            except CoreError:
                continue
            self.assertTrue(any("are joined" in e for e in circuit.errors()), circuit.words)
