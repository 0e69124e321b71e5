"""Checks of sources: loads between two of them, outputs joined, and whether a control circuit is earthed.

Source: IEC 60204-1 (9.4.3.1, earth faults in control circuits).
"""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.circuits import (
    PHASES,
    PROTECTIVE,
    Potential,
    earths_on,
    label_in_words,
    links_at,
    outputs_on,
    potential_of,
    reached,
    sources_of,
)
from jolly_core.library import definition
from jolly_core.model import Project, Symbol
from jolly_core.tagging import called_on, full_tag, pins_of, tag_on

from .registry import Snag, built, built_check, check
from .returns import LOADS, inputs_of

_MOST = 400  # potentials looked at


@check("two-sources", "A load that is fed by one source and comes back to another, or two sources joined.")
def two_sources(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each load between two sources that have nothing in common, and for live outputs joined."""
    sheet = project.sheets[sheet_id]
    for symbol in project.symbols_on(sheet_id):
        unit = definition(symbol.definition).unit
        if unit in LOADS and symbol.device_id:
            ends = [sources_of(project, (symbol.id, n)) for n in inputs_of(project, symbol)[:2]]
            phase = _phase_against(project, symbol, ends)
            if phase:
                who = called_on(project, symbol, sheet)
                message = (
                    f"{who} is between {phase[0]} and the return of {phase[1]}: no current comes back to {phase[0]}."
                )
                at = (symbol.x, symbol.y)
                of = tuple(way.through[-1] for n in (0, 1) for _, way in reached(project, (symbol.id, n)).values())
                ids = (symbol.id,)
                yield Snag("two-sources", "error", message, ids, sheet_id, *at, device_id=symbol.device_id, of=of)
            elif len(ends) == 2 and all(ends) and not ends[0] & ends[1]:
                names = [" or ".join(sorted(tag_on(project, project.devices[d], sheet) for d in e)) for e in ends]
                who = called_on(project, symbol, sheet)
                message = (
                    f"{who} is between {names[0]} and {names[1]}, which have nothing in common: no current comes back."
                )
                at = (symbol.x, symbol.y)
                yield Snag("two-sources", "error", message, (symbol.id,), sheet_id, *at, device_id=symbol.device_id)
        if unit == "supply" and symbol.device_id:
            for pin, name in enumerate(pins_of(project, symbol)):
                others = {
                    d
                    for d, n in outputs_on(project, potential_of(project, (symbol.id, pin)))
                    if n[:1] == "+" == name[:1]
                }
                if len(others) > 1 and min(others) == symbol.device_id:
                    names = sorted(tag_on(project, project.devices[d], sheet) for d in others)
                    message = (
                        f"{' and '.join(names)} are joined at their outputs. Part them, or join them by decoupling."
                    )
                    at = (symbol.x, symbol.y)
                    yield Snag(
                        "two-sources", "warning", message, (symbol.id,), sheet_id, *at, device_id=symbol.device_id
                    )


def _phase_against(project: Project, symbol: Symbol, ends: list[set[str]]) -> tuple[str, str] | None:
    """Return the phase at one end of a load and the source at the other one's return; None where it is not so."""
    sheet = project.sheets[symbol.sheet_id]
    for n, pin in enumerate(inputs_of(project, symbol)[:2]):
        words = set(reached(project, (symbol.id, pin)))
        if words and words <= set(PHASES) and len(ends) == 2 and ends[1 - n] and not ends[n]:
            return min(words), " or ".join(sorted(tag_on(project, project.devices[d], sheet) for d in ends[1 - n]))
    return None


@built_check("return-unearthed", "A control circuit whose return is not joined with the protective conductor.")
def unearthed_returns(project: Project, sheet_id: str) -> Iterator[Snag]:
    """Yield a snag for each supply or transformer of a sheet no output of which is earthed, one for all of one return.

    Source: IEC 60204-1 (9.4.3.1.1). One that is meant to float says so by the reason with which its snag is muted.
    """
    for symbol in project.symbols_on(sheet_id):
        device = project.devices.get(symbol.device_id)
        if device is None or definition(symbol.definition).unit not in ("supply", "transformer"):
            continue
        own = [potential_of(project, (symbol.id, pin)) for pin in range(len(pins_of(project, symbol)))]
        back = [p for p in own if any(d == device.id and n[:1] != "+" for d, n in outputs_on(project, p))]
        used = [p for p in back if len(list(p.pins)) > 1 or any(g.continuations for g in p.groups)]
        first = min((d for p in used for d, n in outputs_on(project, p) if n[:1] != "+"), default="")
        if first != device.id or any(_is_earthed(project, p) for p in used):
            continue
        said = next((label_in_words(project, p.label) for p in used if p.label), "its return")
        message = (
            f"{full_tag(project, device)} is not earthed: {said} is joined with no protective conductor. "
            "Join them at one place, or mute this with the reason why it floats."
        )
        yield built("return-unearthed", "warning", message, "draw", "", (symbol.id,), device.id)


def _is_earthed(project: Project, start: Potential) -> bool:
    """Return whether a potential is joined with the protective conductor, or can be by a terminal that parts."""
    waiting, seen = [start], {start.key}
    while waiting and len(seen) < _MOST:
        here = waiting.pop()
        if "pe" in here.categories or earths_on(project, here) or PROTECTIVE in here.labels:
            return True
        for link, there in links_at(project, here):
            at_terminal = definition(project.symbols[link.start[0]].definition).unit == "terminal"
            if at_terminal and there.key not in seen:
                seen.add(there.key)
                waiting.append(there)
    return False
