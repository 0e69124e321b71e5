"""Field wires that run in no cable yet, grouped by where they run and what for, and where a band can gather them."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from jolly_core.cables import PE, POWER, conductors_across, crossed_wires, role_of, source_first, use_of
from jolly_core.model import Project, Wire, derived, merged
from jolly_core.tagging import device_at, natural, path_of, pin_name
from jolly_core.wiring import Conductor, wires_along

from .dossiers import dossiers_from

MOST_COLUMNS = 4  # of wires side by side, of which one may be crossed by a stroke that is drawn on
BEYOND = 1  # grid steps a band goes on beyond its outermost wires


@dataclass(slots=True, frozen=True)
class FieldGroup:
    """Field wires that belong in one cable.

    Attributes:
        key: names the group as long as its wires run so.
        use: what they are for (`jolly_core.cables.use_of`).
        source, destination: where they run, in words.
    """

    key: str
    use: str
    source: str
    destination: str
    conductors: tuple[Conductor, ...]


@derived
def _open_from(project: Project, sheet_id: str) -> dict[str, Conductor]:
    """Return the conductors from a sheet that run in nothing yet, and both of whose ends have a location."""
    found = {}
    for d in dossiers_from(project, sheet_id).values():
        ends = [device_at(project, pin) for pin in (d.conductor.start, d.conductor.end)]
        if d.runs == "open" and all(e is not None and e.location_id for e in ends):
            found[d.key] = d.conductor
    return found


open_conductors = merged(_open_from)


@derived
def field_groups(project: Project) -> list[FieldGroup]:
    """Return the field wires in no cable, a group for each cable they could be: by places and use, power by device.

    Protective conductors go with the power, else the others, of the same device; alone they are a group of their own.
    """
    groups: dict[tuple[str, str, str, str], list[Conductor]] = {}
    earths: list[tuple[tuple[str, str], str, Conductor]] = []
    for c in open_conductors(project).values():
        source, far = source_first(project, c)
        places = (_place(project, source), _place(project, far))
        device = device_at(project, far)
        owner = pin_name(project, far).rsplit(":", 1)[0] if device else ""
        use = use_of(project, c)
        if role_of(project, c) == PE:
            earths.append((places, owner, c))
        else:
            groups.setdefault((*places, use, owner if use == POWER else ""), []).append(c)
    for places, owner, c in earths:
        of_device = (k for k in groups if k[:2] == places and k[3] == owner)
        beside = (k for k in groups if k[:2] == places and k[2] != "signal")
        key = next(of_device, None) or next(beside, None) or (*places, POWER, owner)
        groups.setdefault(key, []).append(c)
    found = [
        FieldGroup("|".join(sorted(c.key for c in all))[:200], use, a, b if not owner else f"{b} {owner}", tuple(all))
        for (a, b, use, owner), all in groups.items()
    ]
    return sorted(found, key=lambda g: (natural(g.source), natural(g.destination), g.use))


def _place(project: Project, pin: tuple[str, int]) -> str:
    device = device_at(project, pin)
    return path_of(project.locations, device.location_id, "+") if device else ""


@dataclass(slots=True, frozen=True)
class Stroke:
    """A stroke for a band on a sheet, grid steps."""

    sheet_id: str
    x1: int
    y1: int
    x2: int
    y2: int


def strokes_for(project: Project, conductors: Iterable[Conductor]) -> tuple[list[Stroke], list[Conductor]]:
    """Return strokes that cross wires of some conductors and of no others, and the conductors none can be found for.

    Wires that lie side by side are crossed by one stroke where nothing else lies between.
    """
    wanted = {c.key: c for c in conductors}
    lost: list[Conductor] = []
    chosen: dict[tuple[str, bool], list[Wire]] = {}
    for c in wanted.values():
        wire = _wire_for(project, c, set(wanted))
        if wire is None:
            lost.append(c)
        else:
            chosen.setdefault((wire.sheet_id, wire.y1 == wire.y2), []).append(wire)
    strokes: list[Stroke] = []
    for (sheet_id, level), wires in sorted(chosen.items()):
        unique = list({w.id: w for w in wires}.values())
        unique.sort(key=lambda w: (w.y1, w.x1) if level else (w.x1, w.y1))
        strokes += _cover(project, sheet_id, unique, level)
    return strokes, lost


def _wire_for(project: Project, c: Conductor, keys: set[str]) -> Wire | None:
    """Return the longest drawn wire along a conductor that leads no conductor but those wanted."""
    wires = [project.wires[id] for id in wires_along(project, c)]
    for wire in sorted(wires, key=lambda w: (w.x1 - w.x2 + w.y1 - w.y2, w.id)):
        if {o.key for o in conductors_across(project, wire.sheet_id, wire.id)} <= keys:
            return wire
    return None


def _cover(project: Project, sheet_id: str, wires: list[Wire], level: bool) -> list[Stroke]:
    """Return strokes across parallel wires, in order, as few as can be without crossing others.

    A wire goes to the last stroke that can be drawn on over it: where wires lie in several columns, each has its own.
    """
    runs: list[tuple[list[Wire], Stroke | None]] = []
    for wire in wires:
        for n in range(len(runs) - 1, max(-1, len(runs) - 1 - MOST_COLUMNS), -1):
            longer = _across(project, sheet_id, [*runs[n][0], wire], level)
            if longer is not None:
                runs[n] = ([*runs[n][0], wire], longer)
                break
        else:
            runs.append(([wire], _across(project, sheet_id, [wire], level)))
    return [stroke for _, stroke in runs if stroke is not None]


def _across(project: Project, sheet_id: str, wires: list[Wire], level: bool) -> Stroke | None:
    """Return a stroke that crosses exactly these parallel wires, near the middle of what they share; None for none."""
    spans = [(w.x1, w.x2) if level else (w.y1, w.y2) for w in wires]
    start, end = max(a for a, _ in spans), min(b for _, b in spans)
    places = [w.y1 if level else w.x1 for w in wires]
    low, high = min(places) - BEYOND, max(places) + BEYOND
    middle = (start + end) // 2
    ids = {w.id for w in wires}
    for at in sorted(range(start + 1, end), key=lambda n: abs(n - middle)):
        for first, last in ((low, high), (low + BEYOND, high), (low, high - BEYOND)):
            a, b = ((at, first), (at, last)) if level else ((first, at), (last, at))
            if a != b and set(crossed_wires(project, sheet_id, a, b)) == ids:
                return Stroke(sheet_id, *a, *b)
    return None
