"""Changing a symbol that is drawn: how many poles it has, what it is, which of its texts show and where."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import Point, SheetDraft, pin_points
from jolly_core.library import article, definition
from jolly_core.model import Device, RuleError, Symbol, Wire, counted
from jolly_core.tagging import next_units

from .arrange import inside, refuse_locked, sheet_of, what_of
from .base import Id, Payload, SymbolKey, Work, edit
from .boundaries import location_for
from .place import name_of, shape_named
from .upkeep import drop_unused, new_device, refresh_letters

TextName = Literal["tag", "text", "reference", "pin"]


class SetPoles(Payload):
    """Give a symbol another number of poles; wires under new ones are cut, wires of those taken away heal.

    `without` takes away one pole, the first being 1, and the others close up.
    """

    kind: Literal["set-poles"] = "set-poles"
    symbol_id: Id
    poles: int | None = Field(default=None, ge=1, le=4)
    without: int | None = Field(default=None, ge=1, le=4)


@edit(SetPoles, {"symbol_id": "y1", "poles": 4})
def set_poles(work: Work, payload: SetPoles) -> str:
    """Work out SetPoles."""
    project = work.project
    symbol: Symbol = project.get("symbol", payload.symbol_id)
    refuse_locked(project, [symbol.id])
    shape = definition(symbol.definition)
    had = len(symbol.units)
    if payload.without is not None and payload.without > had:
        raise RuleError(f"{{it}} has {counted(had, 'pole')}.", field="without", ids=(symbol.id,))
    count = had - 1 if payload.without is not None else payload.poles or had
    if not 1 <= count <= shape.max_poles:
        words = f"{shape.name} has 1 to {counted(shape.max_poles, 'pole')}. Delete the symbol to have none."
        raise RuleError(words, field="poles", ids=(symbol.id,))
    if payload.without is not None:
        kept = tuple(u for n, u in enumerate(symbol.units, start=1) if n != payload.without)
    else:
        kept = symbol.units[:count]
    device = project.devices.get(symbol.device_id)
    more = count - len(kept)
    if more > 0 and device is not None:
        others = [replace(s, units=kept) if s.id == symbol.id else s for s in project.units_of(device.id)]
        kept += next_units(project, device, shape.unit, more, others)
        if 0 in kept:
            work.outcome.remarks.append(f"{name_of(project, symbol)} has no free pole left on its part.")
    elif more > 0:
        kept += tuple([0] * more)
    draft = work.draft(symbol.sheet_id)
    draft.exchange(replace(symbol, units=kept))
    inside(work, draft)
    work.close(draft)
    work.outcome.placed = [symbol.id]
    return f"{counted(count, 'pole')} for {name_of(project, project.symbols[symbol.id])}"


class SplitPoles(Payload):
    """Make each pole of a symbol a symbol of its own of the same device, so that they can be drawn apart."""

    kind: Literal["split-poles"] = "split-poles"
    symbol_id: Id


@edit(SplitPoles, {"symbol_id": "y1"})
def split_poles(work: Work, payload: SplitPoles) -> str:
    """Work out SplitPoles."""
    symbol: Symbol = work.project.get("symbol", payload.symbol_id)
    refuse_locked(work.project, [symbol.id])
    if len(symbol.units) < 2:
        raise RuleError("{it} has one pole only.", field="symbol_id", ids=(symbol.id,))
    label = f"draw the poles of {name_of(work.project, symbol)} apart"
    draft = work.draft(symbol.sheet_id)
    points, size = pin_points(symbol), len(definition(symbol.definition).pins)
    origin = points[0]
    del draft.symbols[symbol.id]
    for n, unit in enumerate(symbol.units):
        x, y = points[n * size]
        id = symbol.id if n == 0 else work.ids.new()
        at = replace(symbol, id=id, x=symbol.x + x - origin[0], y=symbol.y + y - origin[1], units=(unit,))
        draft.put(at)
        work.outcome.placed.append(id)
    work.close(draft)
    return label


class SwapSymbol(Payload):
    """Draw a symbol as another one; device, texts and wires stay, as far as the other has pins for them."""

    kind: Literal["swap-symbol"] = "swap-symbol"
    symbol_id: Id
    definition: SymbolKey


@edit(SwapSymbol, {"symbol_id": "y1", "definition": "lamp"})
def swap_symbol(work: Work, payload: SwapSymbol) -> str:
    """Work out SwapSymbol."""
    return draw_as(work, work.project.get("symbol", payload.symbol_id), payload.definition)


def draw_as(work: Work, symbol: Symbol, key: str) -> str:
    """Draw a symbol as another one and return what was done in words.

    Raises:
        RuleError: it is locked, is drawn so already, or the other one lies the other way on its wires.
    """
    project = work.project
    refuse_locked(project, [symbol.id])
    old, new = definition(symbol.definition), shape_named(key)
    if new.key == old.key:
        raise RuleError(f"It is {article(new.name)} {new.name} already.", field="definition", ids=(symbol.id,))
    if new.axis != old.axis:
        other = f"{article(new.name).capitalize()} {new.name}"
        raise RuleError(f"{other} lies the other way on its wires. Delete {{it}} and place it.", ids=(symbol.id,))
    count = min(len(symbol.units), new.max_poles)
    changed = replace(symbol, definition=new.key, units=tuple([0] * count))
    device = _device_for(work, symbol, new.key)
    if device is not None:
        others = [s for s in project.units_of(device.id) if s.id != symbol.id]
        held = {n for s in others if definition(s.definition).unit == new.unit for n in s.units}
        keeps = new.unit == old.unit and not held & set(symbol.units[:count])
        units = symbol.units[:count] if keeps else next_units(project, device, new.unit, count, others)
        changed = replace(changed, device_id=device.id, units=units)
    label = f"{name_of(project, symbol)} becomes {article(new.name)} {new.name}"
    draft = work.draft(symbol.sheet_id)
    _bridge_stubs(draft, symbol, changed)
    draft.exchange(changed)
    inside(work, draft)
    work.close(draft)
    if symbol.device_id and symbol.device_id != changed.device_id:
        drop_unused(work, symbol.device_id)
    if device is not None:
        refresh_letters(work, device.id)
        if 0 in changed.units:
            work.outcome.remarks.append(f"The part of {name_of(project, changed)} has no such unit free.")
    work.outcome.placed = [symbol.id]
    return label


def _device_for(work: Work, symbol: Symbol, key: str) -> Device | None:
    """Return the device of a symbol that becomes another: its own; a new one for a lead that had none."""
    project, new = work.project, definition(key)
    device = project.devices.get(symbol.device_id)
    if device is not None or new.lead >= 9:
        return device
    sheet = project.sheets[symbol.sheet_id]
    place = (sheet.function_id, location_for(project, sheet.id, *pin_points(symbol)[0]))
    return new_device(work, new.part_class, place)


def _bridge_stubs(draft: SheetDraft, old: Symbol, new: Symbol) -> None:
    """Lead wires from where pins were to where they are, where both are in line."""
    before, after = pin_points(old), pin_points(new)
    each_old, each_new = len(before) // len(old.units), len(after) // len(new.units)
    for pole in range(len(new.units)):
        ends = before[pole * each_old : (pole + 1) * each_old]
        for a, b in zip(ends, after[pole * each_new : (pole + 1) * each_new], strict=False):
            wire = next((w for w in draft.wires.values() if a in ((w.x1, w.y1), (w.x2, w.y2))), None)
            in_line = a != b and (a[0] == b[0] or a[1] == b[1])
            if wire is not None and in_line and not _shorter(_other_end(wire, a), a, b):
                draft.stroke(a, b, wire.type_id, wire.number)


def _other_end(wire: Wire, end: Point) -> Point:
    return (wire.x2, wire.y2) if (wire.x1, wire.y1) == end else (wire.x1, wire.y1)


def _shorter(far: Point, a: Point, b: Point) -> bool:
    """Return whether b lies on the wire from a to its far end: the symbol grows over it."""
    return min(a, far) <= b <= max(a, far) and (a[0] == far[0] == b[0] or a[1] == far[1] == b[1])


class MoveText(Payload):
    """Put texts of symbols elsewhere: how far from their own place, in mm; nothing given puts them back."""

    kind: Literal["move-text"] = "move-text"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    text: TextName
    dx_mm: float | None = Field(default=None, ge=-200, le=200, allow_inf_nan=False)
    dy_mm: float | None = Field(default=None, ge=-200, le=200, allow_inf_nan=False)


@edit(MoveText, {"ids": ["y1"], "text": "tag", "dx_mm": 5, "dy_mm": 0})
def move_text(work: Work, payload: MoveText) -> str:
    """Work out MoveText."""
    dx, dy = payload.dx_mm or 0.0, payload.dy_mm or 0.0
    moved = f"{round(dx, 2):g},{round(dy, 2):g}" if dx or dy else ""
    _write(work, payload.ids, {payload.text: moved})
    return f"{'move' if moved else 'put back'} the {payload.text} of {what_of(work.project, payload.ids)}"


class ShowTexts(Payload):
    """Show or hide texts of symbols; those shown again stand at their own place."""

    kind: Literal["show-texts"] = "show-texts"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    texts: list[TextName] = Field(min_length=1, max_length=4)
    shown: bool


@edit(ShowTexts, {"ids": ["y1"], "texts": ["text"], "shown": False})
def show_texts(work: Work, payload: ShowTexts) -> str:
    """Work out ShowTexts."""
    _write(work, payload.ids, dict.fromkeys(payload.texts, "" if payload.shown else "off"))
    return f"{'show' if payload.shown else 'hide'} texts of {what_of(work.project, payload.ids)}"


def _write(work: Work, ids: list[str], values: dict[str, str]) -> None:
    sheet_of(work.project, ids)
    symbols = [work.project.symbols[id] for id in ids if id in work.project.symbols]
    if not symbols:
        raise RuleError("Select symbols: only they have texts to move or hide.", field="ids")
    for symbol in symbols:
        texts = {name: value for name, value in {**symbol.texts, **values}.items() if value}
        if texts != symbol.texts:
            work.put("symbol", replace(symbol, texts=texts))
    work.outcome.placed = [s.id for s in symbols]
