"""What leads to one motor of a drawn machine, and the feeders that take a sheet of their own."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from .machines import Machine

PHASES = ("L1", "L2", "L3")
SIX, SIX_BREAKER = "orrery-drives-od-n5-5-d", "brindlework-bw-m12"
DRIVE, DRIVEN_MOTOR = "orrery-drives-od-v0-75", "orrery-drives-od-n0-75"


@dataclass
class Feeder:
    """What leads to one motor: its symbols by role, and the contactors that switch it, main one first."""

    motor: str = ""
    guard: str = ""
    overload: str = ""
    terminals: str = ""
    earth: str = ""
    cable: str = ""
    contactors: list[str] = field(default_factory=list)
    rivals: dict[str, str] = field(default_factory=dict)
    sheet: str = ""
    x: int = 0


def draw_star_delta(machine: Machine) -> None:
    """Draw a motor with six ends that three contactors start in star and run in triangle (IEC 60034-8)."""
    b, sheet = machine.bench, machine.sheet("zones")
    feeder = Feeder(sheet=sheet, x=16)
    machine.upright(sheet, 16, 14, 96, machine.power, *PHASES)
    feeder.guard = machine.put("motor-breaker", sheet, 16, 18)
    machine.part(feeder.guard, SIX_BREAKER)
    for n in range(3):
        b.wire((16 + 4 * n, 28 + n), (34, 28 + n), type_id=machine.power, sheet_id=sheet)
        machine.mark(sheet, 34, 28 + n, f"SD:{n + 1}")
    main = machine.put("contactor-pole", sheet, 16, 36)
    machine.upright(sheet, 60, 28, 50, machine.power, "SD:1", "SD:2", "SD:3")
    triangle = machine.put("contactor-pole", sheet, 60, 34)
    machine.upright(sheet, 28, 60, 96, machine.power, "SD:W2", "SD:U2", "SD:V2")
    machine.upright(sheet, 80, 60, 80, machine.power, "SD:W2", "SD:U2", "SD:V2")
    star = machine.put("contactor-pole", sheet, 80, 66)
    b.wire((80, 80), (88, 80), type_id=machine.power, sheet_id=sheet)
    for n, name in enumerate(("SD:W2", "SD:U2", "SD:V2")):
        machine.mark(sheet, 60 + 4 * n, 50, name)
    feeder.motor = machine.put("motor-six", sheet, 16, 96, part_id=SIX)
    px, py = machine.pins(feeder.motor)[6]
    b.wire((px, 86), (px, py), type_id=b.pe, sheet_id=sheet)
    machine.mark(sheet, px, 86, "PE")
    feeder.contactors = [main, triangle, star]
    feeder.rivals = {triangle: star, star: triangle}
    machine.feeders.append(feeder)


def draw_drive(machine: Machine) -> None:
    """Draw a motor behind a drive, both drawn with their protective conductors."""
    b, sheet = machine.bench, machine.sheet("zones")
    feeder = Feeder(sheet=sheet, x=16)
    for n, phase in enumerate(PHASES):
        b.wire((16, 42 + 4 * n), (38, 42 + 4 * n), type_id=machine.power, sheet_id=sheet)
        machine.mark(sheet, 16, 42 + 4 * n, phase)
    feeder.guard = machine.put("breaker", sheet, 20, 42)
    b.new("place-block", sheet_id=sheet, x=40, y=40, part_id=DRIVE)
    b.wire((16, 54), (38, 54), type_id=b.pe, sheet_id=sheet)
    machine.mark(sheet, 16, 54, "PE")
    machine.upright(sheet, 42, 74, 92, machine.power, "", "", "")
    feeder.motor = machine.put("motor", sheet, 42, 92, part_id=DRIVEN_MOTOR)
    b.wire((54, 82), (54, 92), type_id=b.pe, sheet_id=sheet)
    machine.mark(sheet, 54, 82, "PE")
    machine.feeders.append(feeder)
