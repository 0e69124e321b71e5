"""Checks of protective conductors: nothing live on them, nothing that parts them, each where it is needed.

A *protective* net has wires of category pe; a *live* one has wires of another category, those of type "external" left
out: they are of all kinds. The return of a source may be bonded to the protective conductor, by a wire, a terminal, a
bridge or a disconnect terminal as link: that is no fault. Sources: IEC 60204-1 (8.2, 9.4.3.1), IEC 60445 (6.3) for the
marking PE.
"""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.cables import cable_cores
from jolly_core.circuits import (
    BLOCKS,
    Potential,
    base_at,
    is_earth_pin,
    links_of,
    potential_of,
    potentials_on,
    takes_earth,
)
from jolly_core.drawing import pin_points
from jolly_core.library import definition
from jolly_core.model import Project, Symbol
from jolly_core.tagging import called_on, full_tag, pins_of
from jolly_core.wiring import EARTH_TERMINAL, sheet_groups

from .causes import earth_ids, is_on_earth
from .registry import Act, Snag, built, check, project_check

_FREE_UNITS = ("terminal", "earth", "cavity")
_SOURCES = ("supply", "transformer")  # whose return a bond may land on
_AT_BOND = ("earth", *_SOURCES)


def categories_here(project: Project, potential: Potential, symbol: Symbol, pin: int) -> set[str]:
    """Return the categories that count at a pin: of its potential, but where that is bonded those of its own wires.

    A bond joins a return with the protective conductor at one place; on both of its sides each pin still has the wires
    of one of them, and what holds of those holds there (IEC 60204-1, 8.2 and 9.4.3.1).
    """
    if not potential.bonded:
        return set(potential.categories)
    return _of_own_wires(project, symbol, pin) or set(potential.categories)


def _of_own_wires(project: Project, symbol: Symbol, pin: int) -> set[str]:
    """Return the categories of the wires that end at a pin."""
    x, y = pin_points(symbol)[pin]
    return {
        wire_type.category
        for w in project.wires_on(symbol.sheet_id)
        if (x, y) in ((w.x1, w.y1), (w.x2, w.y2))
        for wire_type in (project.wire_types.get(w.type_id),)
        if wire_type is not None and wire_type.category != "external" and not wire_type.outside
    }


@check("protective-joined", "A protective conductor joined with a live one.")
def protective_joined(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each potential of a sheet with wires of a protective and another category, here or elsewhere."""
    for potential in potentials_on(project, sheet_id):
        if not is_on_earth(potential):
            continue
        kinds = potential.categories
        here = next(g for g in potential.groups if g.sheet_id == sheet_id)
        y, x = here.first
        others = sorted(kind for kind in kinds if kind != "pe")
        far = sorted({project.sheets[kinds[k][1]].number for k in ("pe", *others) if kinds[k][1] != sheet_id})
        where = f", on sheet {' and '.join(far)}," if far else ""
        message = f"A protective conductor is joined with another one{where} of {' and '.join(others)}."
        message = f"{message} Give the wires one type, or part them."
        ids, of = earth_ids(potential, sheet_id), (potential.key,)
        yield Snag("protective-joined", "error", message, ids, sheet_id, x, y, of=of)


@check("protective-pin", "A pin for the protective conductor on a live one, or another pin on a protective one.")
def protective_pins(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each pin named PE on a live net, and for each other pin on a protective net."""
    sheet = project.sheets[sheet_id]
    of_pin = sheet_groups(project, sheet_id).of_pin
    for symbol in project.symbols_on(sheet_id):
        unit = definition(symbol.definition).unit
        names = pins_of(project, symbol)
        for pin, (x, y) in enumerate(pin_points(symbol)):
            if (symbol.id, pin) not in of_pin:
                continue
            potential = potential_of(project, (symbol.id, pin))
            kinds = categories_here(project, potential, symbol, pin)
            name = names[pin] if pin < len(names) else ""
            message = ""
            if unit == "earth" or is_earth_pin(name):
                live = sorted(k for k in kinds if k != "pe")
                if live and "pe" not in kinds and not (potential.returns and unit in _AT_BOND):
                    message = (
                        f"{called_on(project, symbol, sheet)}:{name} is for the protective conductor, but on {live[0]}."
                    )
            elif kinds == {"pe"} and _is_strange(project, symbol, name):
                message = (
                    f"{called_on(project, symbol, sheet)}:{name} is on a protective conductor. Give it another wire."
                )
            if message:
                device_id = symbol.device_id
                of = (potential.key,)
                yield Snag("protective-pin", "error", message, (symbol.id,), sheet_id, x, y, device_id=device_id, of=of)


def _is_strange(project: Project, symbol: Symbol, name: str) -> bool:
    """Return whether a pin that is not for the protective conductor has no business on one."""
    unit = definition(symbol.definition).unit
    if unit in BLOCKS:
        return not takes_earth(name) and base_at(project, symbol) != "current-transformer"
    return unit not in (*_FREE_UNITS, *_SOURCES) and not links_of(project, symbol)


@check("protective-switched", "A switch, contact or fuse in a protective conductor.")
def protective_switched(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each pole or contact that has a protective conductor at one of its pins."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        for link in links_of(project, symbol):
            ends = [potential_of(project, p) for p in (link.start, link.end)]
            link_of_bond = definition(symbol.definition).unit == "terminal" and any(p.returns for p in ends)
            protective = any(
                "pe" in p.categories
                and not p.bonded
                or (p.bonded and categories_here(project, p, symbol, pin[1]) == {"pe"})
                for p, pin in zip(ends, (link.start, link.end), strict=True)
            )
            if protective and not link_of_bond:
                x, y = pin_points(symbol)[link.start[1]]
                who = called_on(project, symbol, sheet)
                message = f"{who} is in a protective conductor, which is never switched or fused."
                device_id = symbol.device_id
                ids, of = (symbol.id,), tuple(p.key for p in ends)
                yield Snag("protective-switched", "error", message, ids, sheet_id, x, y, device_id=device_id, of=of)
                break


@check("earth-terminal", "A live wire on an earth terminal, or a protective conductor on a plain terminal.")
def earth_terminals(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each earth terminal with a live wire, and for each other terminal with a protective one."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        shape = definition(symbol.definition)
        if shape.unit != "terminal" or not shape.carries:
            continue
        potential = potential_of(project, (symbol.id, 0))
        last = len(pins_of(project, symbol)) - 1
        own = _of_own_wires(project, symbol, 0) | _of_own_wires(project, symbol, last)
        kinds = own if own and potential.bonded else set(potential.categories)
        who = f"{called_on(project, symbol, sheet)}:{pins_of(project, symbol)[0]}"
        live = sorted(k for k in kinds if k != "pe")
        act = None
        if symbol.definition == EARTH_TERMINAL and live and not potential.returns:
            message, severity = f"A live wire ({live[0]}) is on the earth terminal {who}.", "error"
        elif symbol.definition == "terminal" and "pe" in kinds and not live:
            message, severity = (
                f"A protective conductor is on the plain terminal {who}. Make it an earth terminal.",
                "warning",
            )
            values = (("symbol_id", symbol.id), ("definition", EARTH_TERMINAL))
            act = Act("Make it an earth terminal", "swap-symbol", values)
        else:
            continue
        yield Snag(
            "earth-terminal",
            severity,
            message,
            (symbol.id,),
            sheet_id,
            symbol.x,
            symbol.y,
            act=act,
            device_id=symbol.device_id,
            of=(potential.key,),
        )


@project_check("cable-protective", "A cable with live power conductors and no protective one.")
def cables_without_protective(project: Project) -> Iterator[Snag]:
    """Yield a snag for each cable that leads power to a machine and has no protective conductor among its cores."""
    for cable in project.cables.values():
        device = project.devices[cable.device_id]
        kinds: set[str] = set()
        for row in cable_cores(project, device.id):
            if row.conductor is not None:
                kinds |= set(potential_of(project, row.conductor.start).categories)
        if "power" in kinds and "pe" not in kinds:
            message = (
                f"{full_tag(project, device)} leads power, but has no protective conductor. Draw a PE through its band."
            )
            yield built("cable-protective", "warning", message, "cables", device.id, (device.id,), device.id)
