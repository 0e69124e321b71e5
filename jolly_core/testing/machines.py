"""Machines from a seed: power, control and safety circuits as people draw them, in both habits, with nothing wrong.

What is drawn is chosen by the seed: how many motors and of which kind, what protects and switches them, what feeds the
control circuit and whether that is bonded, over how many sheets, with which names. They are drawn by edits, as people
do it. A fault planted in one of them is then the only one.
"""

from __future__ import annotations

import random
from dataclasses import dataclass
from typing import Any

from jolly_core.drawing import pin_points

from . import Workbench
from .feeders import Feeder, draw_drive, draw_star_delta

MOTORS = ("orrery-drives-od-n0-75", "orrery-drives-od-n1-5", "orrery-drives-od-n2-2", "orrery-drives-od-n3")
OVERLOADS = {
    **{MOTORS[0]: "brindlework-bw-o2-5", MOTORS[1]: "brindlework-bw-o4"},
    **{MOTORS[2]: "brindlework-bw-o6-3", MOTORS[3]: "brindlework-bw-o10"},
}
BREAKERS = {
    **{MOTORS[0]: "brindlework-bw-m2-5", MOTORS[1]: "brindlework-bw-m4"},
    **{MOTORS[2]: "brindlework-bw-m6-3", MOTORS[3]: "brindlework-bw-m10"},
}
CONTACTOR = "brindlework-bw-c09-24d-31"
TERMINAL = "quillon-ql-k2-5"
TRANSFORMER, AC_CONTACTOR = "hollin-reeve-hr-tr250", "brindlework-bw-c09-230a-11"
AC_NAMES = ("230 V AC", "0 V")
CABLE, SAFETY, STOP = "quillon-ql-c4g2-5", "hollin-hr-sr2", "tamwick-tw-e40-2"
LONG = "Förderanlage Süd, Trommeltrockner mit Abluftreinigung und Nachkühlung"
NAMES = (("24 V", "0 V"), ("24VDC", "0VDC"), ("+24 V", "0 V"), ("24 V1", "0 V1"), ("P24", "N24"))
SETTINGS: dict[str, Any] = {"supply": "400 V 3~ 50 Hz", "control_voltages": "24 V DC"}
SPACING, PHASES = 4, ("L1", "L2", "L3")


@dataclass
class Rung:
    """A rung of the control circuit: ids of its symbols in order, its load last, and of the latch beside its button."""

    symbols: dict[str, str]
    latch: str = ""
    sheet: str = ""
    y: int = 0


class Machine:
    """A drawn machine.

    Attributes:
        bench: the project and its edits.
        feeders, rungs: what was drawn.
        made: other symbols by what they are for.
        words: what the seed has chosen, to be said where a test fails.
    """

    def __init__(self, seed: int, *, motors: int = 0) -> None:
        self.chance = random.Random(seed)
        habit: dict[str, Any] = self.chance.choice(({}, {"standard": "na"}))
        self.bench = Workbench(frame="zones", **SETTINGS, **habit)
        b = self.bench
        self.words = f"seed {seed}"
        self.feeders: list[Feeder] = []
        self.rungs: list[Rung] = []
        self.made: dict[str, str] = {}
        self.power = b.new("add-wire-type", name="Power", colour="BK", cross_section_mm2=2.5, category="power")
        self.neutral = b.new("add-wire-type", name="N", colour="BU", cross_section_mm2=2.5, category="power")
        self.by_transformer = self.chance.random() < 0.3
        self.hot, self.zero = AC_NAMES if self.by_transformer else self.chance.choice(NAMES)
        kind = "control-ac" if self.by_transformer else "control-dc"
        self.live = b.new("add-wire-type", name="Live", colour="RD", cross_section_mm2=1.0, category=kind)
        self.back = b.new("add-wire-type", name="Back", colour="WHBU", cross_section_mm2=1.0, category=kind)
        self.bonded = self.chance.random() < 0.7
        self.numbers = iter(range(40, 400))
        self.panel = b.new("add-location", code="P1")
        self.field = b.new("add-location", code="F1", side="field")
        b.do(
            "change-sheet",
            sheet_id=b.sheet,
            title=LONG if self.chance.random() < 0.2 else "Supply",
            location_id=self.panel,
        )
        self._incoming()
        self._supply()
        for _ in range(motors or self.chance.randint(1, 5)):
            self._feeder()
        if self.has_neutral:
            self._socket()
        if self.chance.random() < 0.4:
            draw_star_delta(self)
        if self.chance.random() < 0.4:
            draw_drive(self)
        if self.chance.random() < 0.6 and not self.by_transformer:
            self._safety()
        self._control()

    # What is drawn with.

    def sheet(self, frame: str) -> str:
        """Add a sheet of a frame and return it."""
        ends = {"left_rail_type_id": self.live, "right_rail_type_id": self.back} if frame == "ladder" else {}
        values = {"number": str(next(self.numbers)), "frame": frame, "location_id": self.panel}
        return self.bench.new("add-sheet", **values, **ends)

    def mark(self, sheet: str, x: int, y: int, name: str) -> str:
        """Put a continuation down and return it."""
        return self.bench.new("place-continuation", sheet_id=sheet, x=x, y=y, name=name)

    def upright(self, sheet: str, x: int, top: int, foot: int, type_id: str, *names: str) -> None:
        """Draw upright wires beside each other, each with a name at its top unless that is empty."""
        for n, name in enumerate(names):
            at = x + SPACING * n
            self.bench.wire((at, top), (at, foot), type_id=type_id, sheet_id=sheet)
            if name:
                self.mark(sheet, at, top, name)

    def put(self, key: str, sheet: str, x: int, y: int, **values: Any) -> str:
        """Put a symbol down and return it."""
        return self.bench.place(key, x, y, sheet_id=sheet, **values)

    def part(self, symbol: str, part: str) -> None:
        """Give the device of a symbol a part."""
        self.bench.do("assign-part", device_id=self.bench.device(symbol), part_id=part)

    def pins(self, symbol: str) -> list[tuple[int, int]]:
        """Return where the pins of a symbol are."""
        return pin_points(self.bench.symbol(symbol))

    # What is drawn.

    def _incoming(self) -> None:
        """Draw the supply: terminals, main switch, fuses, and the earth."""
        b, sheet = self.bench, self.bench.sheet
        self.upright(sheet, 16, 18, 60, self.power, "", "", "")
        for n, phase in enumerate(PHASES):
            x = 16 + SPACING * n
            self.put("terminal", sheet, x, 18, rotation=90)
            self.mark(sheet, x, 60, phase)
        self.made["switch"] = self.put("disconnector", sheet, 16, 26)
        if self.chance.random() < 0.5:
            self.made["fuse"] = self.put("fuse", sheet, 16, 40)
        self.has_neutral = self.chance.random() < 0.7
        if self.has_neutral:
            b.wire((30, 18), (30, 60), type_id=self.neutral)
            self.put("terminal", sheet, 30, 18, rotation=90)
            self.mark(sheet, 30, 60, "N")
        b.wire((36, 18), (36, 60), type_id=b.pe)
        self.put("terminal-earth", sheet, 36, 18, rotation=90)
        b.wire((36, 50), (40, 50), (40, 54), type_id=b.pe)
        self.made["earth"] = self.put("earth", sheet, 40, 54)
        self.mark(sheet, 36, 60, "PE")

    def _supply(self) -> None:
        """Draw what feeds the control circuit."""
        b, sheet = self.bench, self.bench.sheet
        self.upright(sheet, 60, 14, 40, self.power, "L1", "L2")
        self.made["supply guard"] = self.put("breaker", sheet, 60, 20)
        key, part = ("transformer", TRANSFORMER) if self.by_transformer else ("dc-supply", "hollin-hr-p5")
        supply = self.made["supply"] = self.put(key, sheet, 60, 40, part_id=part)
        hot, back = self.pins(supply)[2:4]
        b.wire(hot, (hot[0], 76), type_id=self.live)
        b.wire(back, (back[0], 76), type_id=self.back)
        self.made["control fuse"] = self.put("breaker", sheet, hot[0], 56, poles=1)
        self.mark(sheet, hot[0], 76, self.hot)
        self.mark(sheet, back[0], 76, self.zero)
        if self.bonded:
            b.wire((back[0], 60), (back[0] + 12, 60), type_id=b.pe)
            b.wire((back[0] + 12, 60), (back[0] + 12, 66), type_id=b.pe)
            self.put("earth", sheet, back[0] + 12, 66)

    def _feeder(self) -> None:
        """Draw a motor and what protects and switches it."""
        if len(self.feeders) % 4 == 0:
            self._at = self.sheet("zones")
        sheet, x = self._at, 16 + 32 * (len(self.feeders) % 4)
        feeder = Feeder(sheet=sheet, x=x)
        self.upright(sheet, x, 14, 96, self.power, *PHASES)
        motor = self.chance.choice(MOTORS)
        by_overload = self.chance.random() < 0.5
        feeder.guard = self.put(
            self.chance.choice(("fuse", "breaker")) if by_overload else "motor-breaker", sheet, x, 20
        )
        feeder.contactors.append(self.put("contactor-pole", sheet, x, 34))
        if not by_overload:
            self.part(feeder.guard, BREAKERS[motor])
        if by_overload:
            feeder.overload = self.put("overload", sheet, x, 60)
            self.part(feeder.overload, OVERLOADS[motor])
        in_field = self.chance.random() < 0.6
        if in_field:
            feeder.terminals = [self.put("terminal", sheet, x + SPACING * n, 80, rotation=90) for n in range(3)][0]
            if TERMINAL not in self.bench.project.parts:
                self.part(feeder.terminals, TERMINAL)
        feeder.motor = self.put("motor", sheet, x, 96, part_id=motor)
        px, py = self.pins(feeder.motor)[3]
        self.bench.wire((px, 70), (px, py), type_id=self.bench.pe, sheet_id=sheet)
        self.mark(sheet, px, 70, "PE")
        if in_field:
            feeder.earth = self.put("terminal-earth", sheet, px, 80, rotation=90)
            values = {"x1": x - 2, "y1": 88, "x2": px + 2, "y2": 88, "part_id": CABLE}
            feeder.cable = self.bench.new("draw-band", sheet_id=sheet, **values)
            where = {"function_id": "", "location_id": self.field}
            self.bench.do("set-place", device_id=self.bench.device(feeder.motor), **where)
        if not by_overload and self.chance.random() < 0.5:
            self._reverse(feeder)
        self.feeders.append(feeder)

    def _reverse(self, feeder: Feeder) -> None:
        """Draw the second contactor of a motor that runs both ways, two of its phases changed over."""
        b, sheet, x = self.bench, feeder.sheet, feeder.x + 14
        for n, phase in enumerate(PHASES):
            b.wire((x + SPACING * n, 30), (x + SPACING * n, 46), type_id=self.power, sheet_id=sheet)
            self.mark(sheet, x + SPACING * n, 30, f"{self._name(feeder)}:{phase}")
            self.mark(sheet, x + SPACING * n, 46, f"{self._name(feeder)}:{('U', 'V', 'W')[2 - n]}")
        second = self.put("contactor-pole", sheet, x, 34)
        feeder.rivals = {feeder.contactors[0]: second, second: feeder.contactors[0]}
        feeder.contactors.append(second)
        for n in range(3):
            at = feeder.x + SPACING * n
            for y, name in ((30, PHASES[n]), (50, ("U", "V", "W")[n])):
                # A short stroke aside, with the name by which the other contactor is joined.
                b.wire((at, y), (at + 2, y), type_id=self.power, sheet_id=sheet)
                self.mark(sheet, at + 2, y, f"{self._name(feeder)}:{name}")

    @staticmethod
    def _name(feeder: Feeder) -> str:
        return f"Q{feeder.x}-{feeder.sheet[-4:]}"

    def _socket(self) -> None:
        """Draw a socket outlet behind a residual-current device, by one phase and the neutral."""
        b, sheet = self.bench, self.sheet("zones")
        self.upright(sheet, 20, 14, 70, self.power, "L1")
        b.wire((24, 14), (24, 70), type_id=self.neutral, sheet_id=sheet)
        self.mark(sheet, 24, 14, "N")
        self.made["rcd"] = self.put("residual-current", sheet, 20, 22)
        self.made["socket guard"] = self.put("breaker", sheet, 20, 40, poles=1)
        socket = self.made["socket"] = self.put("socket-outlet", sheet, 20, 70)
        px, py = self.pins(socket)[2]
        b.wire((px, 60), (px, py), type_id=b.pe, sheet_id=sheet)
        self.mark(sheet, px, 60, "PE")

    def _safety(self) -> None:
        """Draw a safety relay with two channels through an emergency stop and a guard, and a button to reset it."""
        b, sheet = self.bench, self.sheet("zones")
        relay = self.made["safety"] = b.new("place-block", sheet_id=sheet, x=40, y=40, part_id=SAFETY)
        for x, y, name in ((42, 38, self.hot), (46, 38, self.zero)):
            b.wire((x, y), (x, y - 8), type_id=self.live if name == self.hot else self.back, sheet_id=sheet)
            self.mark(sheet, x, y - 8, name)
        for n, y in enumerate((42, 50)):
            b.wire((38, y), (10, y), (10, y + 4), (38, y + 4), type_id=self.live, sheet_id=sheet)
            for key, x in (("estop", 14), ("limit-nc", 26)):
                first = self.made.get(key, "")
                values = {"device_id": b.device(first)} if first else {}
                symbol = self.put(key, sheet, x, y + 4, **values)
                self.made[f"{key} 2" if n else key] = symbol
        b.wire((52, 42), (68, 42), (68, 46), (52, 46), type_id=self.live, sheet_id=sheet)
        self.put("button-no", sheet, 57, 46)
        self.part(self.made["estop"], STOP)
        self.released = b.device(relay)

    def _control(self) -> None:
        """Draw a rung for each contactor, with stop, start and latch, interlock and contact of the overload."""
        count = 99
        self.theirs: list[tuple[str, str]] = []  # contacts and the contactor each belongs to
        for feeder in self.feeders:
            for contactor in feeder.contactors:
                if count >= 4:
                    self._ladder, count = self.sheet("ladder"), 0
                    self._feed(self._ladder)
                self._rung(feeder, contactor, feeder.rivals.get(contactor, ""), count)
                count += 1
        for contact, contactor in self.theirs:
            self.bench.do("belong-to", symbol_id=contact, device_id=self.bench.device(contactor))

    def _lamp(self, contactor: str, y: int) -> None:
        """Draw a lamp that a contact of a contactor switches."""
        b, sheet = self.bench, self._ladder
        b.wire((14, y), (82, y), type_id=self.live, sheet_id=sheet)
        contact = self.put("contact-no", sheet, 18, y)
        b.do("belong-to", symbol_id=contact, device_id=b.device(contactor))
        self.made["lamp"] = self.put("lamp", sheet, 76, y)

    def _feed(self, sheet: str) -> None:
        uprights = sorted({w.x1 for w in self.bench.project.wires_on(sheet) if w.x1 == w.x2})
        top = min(w.y1 for w in self.bench.project.wires_on(sheet) if w.x1 == w.x2)
        self.mark(sheet, uprights[0], top, self.hot)
        self.mark(sheet, uprights[-1], top, self.zero)

    def _rung(self, feeder: Feeder, contactor: str, other: str, n: int) -> None:
        b, sheet = self.bench, self._ladder
        y = b.project.sheets[sheet].line_top + 2 * n * b.project.sheets[sheet].line_spacing
        keys = ["button-nc", "button-no"]
        if "safety" in self.made and len(self.rungs) < 2:
            keys.insert(0, "contact-no")
        if feeder.overload:
            keys.insert(0, "overload-nc")
        if other:
            keys.append("contact-nc")
        b.wire((14, y), (82, y), type_id=self.live, sheet_id=sheet)
        places = dict(zip(keys, range(18, 80, 11), strict=False))
        symbols = {key: self.put(key, sheet, x, y) for key, x in places.items()}
        symbols["coil"] = self.put("coil", sheet, 76, y)
        b.do("belong-to", symbol_id=contactor, device_id=b.device(symbols["coil"]))
        self.part(symbols["coil"], AC_CONTACTOR if self.by_transformer else CONTACTOR)
        if feeder.overload:
            b.do("belong-to", symbol_id=symbols["overload-nc"], device_id=b.device(feeder.overload))
        if other:
            self.theirs.append((symbols["contact-nc"], other))
        if "contact-no" in symbols:
            b.do("belong-to", symbol_id=symbols["contact-no"], device_id=self.released)
        (ax, _), (bx, _) = self.pins(symbols["button-no"])
        b.wire((ax - 1, y), (ax - 1, y + 6), (bx + 1, y + 6), (bx + 1, y), type_id=self.live, sheet_id=sheet)
        latch = self.put("contact-no", sheet, ax, y + 6)
        b.do("belong-to", symbol_id=latch, device_id=b.device(contactor))
        if not self.by_transformer and self.chance.random() < 0.4:
            self._lamp(contactor, y + b.project.sheets[sheet].line_spacing)
        self.rungs.append(Rung(symbols, latch, sheet, y))
