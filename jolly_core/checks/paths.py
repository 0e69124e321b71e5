"""Checks of ways: where a protective conductor ends or is missing, and contacts that are bridged together."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.circuits import (
    GOES_ON,
    Potential,
    comes_to_earth,
    is_earth_pin,
    links_at,
    misses_earth,
    potential_of,
    potentials_on,
)
from jolly_core.drawing import pin_points
from jolly_core.library import definition
from jolly_core.model import Project
from jolly_core.tagging import called_on, pins_of
from jolly_core.wiring import GroupKey, sheet_groups

from .registry import Snag, check

MOST = 400  # potentials looked at for one way


@check("pe-missing", "A pin for the protective conductor that nothing is wired to.")
def missing_protective(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each pin for the protective conductor without a wire, of what is wired at other pins.

    Source: IEC 60204-1 (8.2.3): all exposed conductive parts are connected to the protective bonding circuit.
    """
    sheet = project.sheets[sheet_id]
    found = sheet_groups(project, sheet_id)
    for symbol in project.symbols_on(sheet_id):
        names = pins_of(project, symbol)
        for pin, name in enumerate(names):
            if (symbol.id, pin) in found.points and misses_earth(project, symbol, pin):
                who = f"{called_on(project, symbol, sheet)}:{name}"
                message = f"The protective conductor of {who} is missing. Lead it to an earth terminal."
                at = pin_points(symbol)[pin]
                yield Snag("pe-missing", "error", message, (symbol.id,), sheet_id, *at, device_id=symbol.device_id)


@check("pe-open", "A protective conductor that ends at a terminal, and goes on to no earth bar.")
def open_protective(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each pin for the protective conductor that is joined to something, but not to an earth.

    Source: IEC 60204-1 (8.2.1): the protective bonding circuit is continuous up to the PE terminal.
    """
    sheet = project.sheets[sheet_id]
    told: set[GroupKey] = set()
    for symbol in project.symbols_on(sheet_id):
        if definition(symbol.definition).unit in ("earth", "terminal", *GOES_ON):
            continue
        for pin, name in enumerate(pins_of(project, symbol)):
            if not is_earth_pin(name):
                continue
            potential = potential_of(project, (symbol.id, pin))
            if potential.key in told or not _ends_open(project, potential):
                continue
            told.add(potential.key)
            who = f"{called_on(project, symbol, sheet)}:{name}"
            end = next(
                (p for p in potential.pins if definition(project.symbols[p[0]].definition).unit == "terminal"), None
            )
            ends = f"ends at {called_on(project, project.symbols[end[0]], sheet)}" if end else "is joined with others"
            message = f"The protective conductor of {who} {ends} and goes on to no earth. Lead it to an earth terminal."
            x, y = pin_points(symbol)[pin]
            yield Snag("pe-open", "error", message, (symbol.id,), sheet_id, x, y, device_id=symbol.device_id)


def _ends_open(project: Project, potential: Potential) -> bool:
    kinds = set(potential.categories)
    joined = len(list(potential.pins)) > 1 and ("pe" in kinds or not kinds) and not potential.bonded
    return joined and not comes_to_earth(project, potential)


@check("bridged-together", "Contacts in series with a wire past all of them: none of them changes anything.")
def bridged_together(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each chain of contacts whose two ends are one potential, with the contacts in it."""
    sheet = project.sheets[sheet_id]
    told: set[frozenset[str]] = set()
    for potential in potentials_on(project, sheet_id):
        if not _is_between_two(project, potential):
            continue
        (one, a), (other, b) = links_at(project, potential)
        chain = [one, other]
        seen = {potential.key}
        ends = []
        for link, end in ((one, a), (other, b)):
            here, before = end, link
            while here.key not in seen and _is_between_two(project, here) and len(chain) < MOST:
                seen.add(here.key)
                onward = [(x, p) for x, p in links_at(project, here) if {x.start, x.end} != {before.start, before.end}]
                if len(onward) != 1:
                    break
                before, here = onward[0]
                chain.append(before)
            ends.append(here)
        ids = frozenset(link.start[0] for link in chain)
        if ends[0].key != ends[1].key or ends[0].key in seen or len(ids) < 2 or ids in told:
            continue
        told.add(ids)
        symbols = [project.symbols[id] for id in sorted(ids)]
        names = sorted({called_on(project, s, sheet) for s in symbols})
        message = f"{', '.join(names[:-1])} and {names[-1]} are bridged together: a wire leads past them all."
        here_first = next((s for s in symbols if s.sheet_id == sheet_id), symbols[0])
        if here_first.sheet_id == sheet_id:
            yield Snag("bridged-together", "error", message, tuple(sorted(ids)), sheet_id, here_first.x, here_first.y)


def _is_between_two(project: Project, potential: Potential) -> bool:
    """Return whether nothing hangs on a potential but one pin of each of two contacts, and terminals."""
    if potential.label is not None or len(links_at(project, potential)) != 2:
        return False
    units = [definition(project.symbols[id].definition) for id, _ in potential.pins]
    return len([shape for shape in units if not (shape.unit == "terminal" and shape.carries)]) == 2
