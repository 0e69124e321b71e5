"""Blocks of devices with many pins: made from the part's pins, arranged by hand, split over sheets."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import extent_of, lies_beneath, pin_points
from jolly_core.library import SIDES, block_key, definition, is_block, width_of
from jolly_core.model import Device, FileError, Part, Project, RuleError, Symbol, counted
from jolly_core.tagging import full_tag

from ..base.edit import Grid, Id, Payload, Text, Work, edit
from ..base.upkeep import new_device
from ..devices.naming import name_of
from ..devices.parts import give_part
from .boundaries import location_for
from .place import caret_after, put_symbol
from .selecting import inside, refuse_locked

Pins = list[Text]
# Groups that people expect at the top (supply in) and at the bottom (to the motor) of a block.
_TOP = {"L", "L1", "L2", "L3", "N", "R", "S", "T", "L+", "M", "A1", "A2", "24V", "0V", "+", "-"}
_BOTTOM = {"U", "V", "W", "U1", "V1", "W1", "T1", "T2", "T3", "2T1", "4T2", "6T3", "PE"}


def free_pins(project: Project, device: Device) -> list[tuple[str, ...]]:
    """Return the groups of pins of a device's part that no symbol of it stands for yet."""
    part = project.part_of(device)
    return [] if part is None else _without(part, drawn_pins(project, device.id))


def drawn_pins(project: Project, device_id: str, but: str = "") -> set[str]:
    """Return the pins of a device that blocks of it show, leaving one symbol out."""
    return {
        name
        for s in project.units_of(device_id)
        if s.id != but and is_block(s.definition)
        for name in definition(s.definition).generic
    }


def _without(part: Part, drawn: set[str]) -> list[tuple[str, ...]]:
    groups = [tuple(p for p in pins if p not in drawn) for kind, pins in part.units if kind == "pins"]
    return [g for g in groups if g]


def usual_sides(groups: list[tuple[str, ...]]) -> dict[str, list[str]]:
    """Return the sides groups of pins go to: supply at the top, the motor at the bottom, the rest left, then right.

    Example:
        >>> usual_sides([("L1", "L2"), ("U", "V"), ("1", "2")])
        {'left': ['1', '2'], 'right': [], 'top': ['L1', 'L2'], 'bottom': ['U', 'V']}
    """
    sides: dict[str, list[str]] = {side: [] for side in SIDES}
    rest: list[tuple[str, ...]] = []
    for group in groups:
        if set(group) <= _TOP and len(sides["top"]) + len(group) <= 8:
            sides["top"] += group
        elif set(group) <= _BOTTOM:
            sides["bottom"] += group
        else:
            rest.append(group)
    half = sum(map(len, rest)) / 2
    for group in rest:
        side = "left" if len(sides["left"]) + len(group) / 2 <= half or not sides["left"] else "right"
        sides[side] += ([""] if sides[side] else []) + list(group)
    return sides


class PlaceBlock(Payload):
    """Put down a block of the pins of a part: of a new device, or those of a device that are not drawn yet.

    With pins named, only these are on the block.
    """

    kind: Literal["place-block"] = "place-block"
    sheet_id: Id
    x: Grid
    y: Grid
    part_id: Id = ""
    device_id: Id = ""
    pins: Pins = Field(default_factory=list, max_length=64)
    text: Text = ""


@edit(PlaceBlock, {"sheet_id": "s1", "x": 30, "y": 30, "part_id": "orrery-od-v3"})
def place_block(work: Work, payload: PlaceBlock) -> str:
    """Work out PlaceBlock."""
    project = work.project
    sheet = work.drawable(payload.sheet_id)
    device: Device | None = project.get("device", payload.device_id) if payload.device_id else None
    known = project.parts.get(payload.part_id) or work.library.part(payload.part_id)
    part = project.part_of(device) if device else known
    if part is None:
        words = f"{full_tag(project, device)} has no part" if device else "This part is not in the library"
        raise RuleError(f"{words}: a block is made from a part's pins. Choose a part.", field="part_id")
    groups = _without(part, drawn_pins(project, device.id) if device else set())
    if payload.pins:
        wanted = [p.strip() for p in payload.pins]
        there = {p for g in groups for p in g}
        lost = [p for p in wanted if p not in there]
        if lost:
            raise RuleError(f"{part.number} has no pin {lost[0]} that is not drawn yet.", field="pins")
        groups = [tuple(p for p in g if p in wanted) for g in groups]
        groups = [g for g in groups if g]
    if not groups:
        raise RuleError(f"{part.number} has no pins for a block that are not drawn yet.", field="part_id")
    if device is None:
        place = (sheet.function_id, location_for(project, sheet.id, payload.x, payload.y))
        device = new_device(work, part.part_class, place, payload.text)
    draft = work.draft(sheet.id)
    shape = definition(_key(part.part_class, usual_sides(groups)))
    symbol = put_symbol(work, draft, shape, (payload.x, payload.y), (0, False), 1, device.id, "")
    work.close(draft)
    if not device.part_id:
        give_part(work, device, part.id)
    work.outcome.placed = [symbol.id]
    work.outcome.caret = caret_after(symbol, sheet)
    return f"place a block of {name_of(project, symbol)}"


def _key(class_key: str, sides: dict[str, list[str]], width: int = 0) -> str:
    try:
        return block_key(class_key, sides, width)
    except FileError as error:
        raise RuleError(error.message, field=error.field) from None


class ArrangeBlock(Payload):
    """Say which pins are on which side of a block, in order from the left or top; "" leaves a place free.

    Pins of the device left out are no longer on this block and can go on another one, on any sheet. Wires stay where
    they are.
    """

    kind: Literal["arrange-block"] = "arrange-block"
    symbol_id: Id
    left: Pins = Field(default_factory=list, max_length=64)
    right: Pins = Field(default_factory=list, max_length=64)
    top: Pins = Field(default_factory=list, max_length=64)
    bottom: Pins = Field(default_factory=list, max_length=64)
    width: int = Field(default=0, ge=0, le=120)


@edit(ArrangeBlock, {"symbol_id": "y1", "left": ["1", "2", "", "3"], "top": ["L1", "L2", "L3"]})
def arrange_block(work: Work, payload: ArrangeBlock) -> str:
    """Work out ArrangeBlock."""
    project = work.project
    symbol: Symbol = project.get("symbol", payload.symbol_id)
    if not is_block(symbol.definition):
        raise RuleError("{it} is no block: its pins have their places.", field="symbol_id", ids=(symbol.id,))
    refuse_locked(project, [symbol.id])
    device: Device = project.devices[symbol.device_id]
    part = project.part_of(device)
    sides = {side: [p.strip() for p in getattr(payload, side)] for side in SIDES}
    known = set(definition(symbol.definition).generic)
    known |= {p for kind, pins in part.units if kind == "pins" for p in pins} if part else set()
    elsewhere = drawn_pins(project, device.id, but=symbol.id)
    for name in [n for row in sides.values() for n in row if n]:
        if name not in known:
            raise RuleError(f"{{it}} has no pin {name}.", field="left", ids=(symbol.id,))
        if name in elsewhere:
            raise RuleError(f"The pin {name} is on another block of {{it}}.", field="left", ids=(symbol.id,))
    old_class = definition(symbol.definition).part_class
    changed = replace(symbol, definition=_key(old_class, sides, payload.width or width_of(symbol.definition)))
    draft = work.draft(symbol.sheet_id)
    before = {p for p in pin_points(symbol) if any(p in ((w.x1, w.y1), (w.x2, w.y2)) for w in draft.wires.values())}
    draft.exchange(changed)
    inside(work, draft)
    work.close(draft)
    left = before - set(pin_points(changed))
    if left:
        work.outcome.remarks.append(f"{len(left)} wire(s) no longer meet a pin of {name_of(project, changed)}.")
    work.outcome.placed = [symbol.id]
    return f"arrange the pins of {name_of(project, changed)}"


class CutBeneath(Payload):
    """Cut the wires that lie beneath a block: what is outside stays, and ends where the block's pins end."""

    kind: Literal["cut-beneath"] = "cut-beneath"
    symbol_id: Id


@edit(CutBeneath, {"symbol_id": "y1"})
def cut_beneath(work: Work, payload: CutBeneath) -> str:
    """Work out CutBeneath."""
    project = work.project
    symbol: Symbol = project.get("symbol", payload.symbol_id)
    if not is_block(symbol.definition):
        raise RuleError("{it} is no block: it cuts its wires itself.", field="symbol_id", ids=(symbol.id,))
    draft = work.draft(symbol.sheet_id)
    beneath = [wire for wire in draft.wires.values() if lies_beneath(symbol, wire)]
    if not beneath:
        raise RuleError("No wire lies beneath {it}.", field="symbol_id", ids=(symbol.id,))
    refuse_locked(project, [wire.id for wire in beneath])
    left, top, right, bottom = (int(edge) for edge in extent_of(symbol))
    for wire in beneath:
        del draft.wires[wire.id]
        (ax, ay), (bx, by) = sorted(((wire.x1, wire.y1), (wire.x2, wire.y2)))
        for a, b in (
            (((ax, ay), (min(left, bx), by)), ((max(right, ax), ay), (bx, by)))
            if ay == by
            else (((ax, ay), (bx, min(top, by))), ((ax, max(bottom, ay)), (bx, by)))
        ):
            if a < b:
                draft.stroke(a, b, wire.type_id, wire.number)
    work.close(draft)
    return f"cut {counted(len(beneath), 'wire')} beneath {name_of(project, symbol)}"
