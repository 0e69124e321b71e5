"""Poles of a symbol: their number, and each by itself."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import pin_points
from jolly_core.library import definition
from jolly_core.model import RuleError, Symbol, counted
from jolly_core.tagging import next_units

from ..base.edit import Id, Payload, Work, edit
from ..devices.naming import name_of
from .selecting import inside, refuse_locked


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
