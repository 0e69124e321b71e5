"""The cut list, spools, labels, and what is cut of rails and ducts."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Sequence
from dataclasses import dataclass
from hashlib import sha256

from jolly_core.model import Project, derived, listed
from jolly_core.tagging import full_tag, natural, tag_order
from jolly_core.terminals import strip_rows, strips

from .dossiers import Dossier, counted, dossiers, dossiers_from
from .packing import packed


@dataclass(slots=True, frozen=True)
class CutWire:
    """A wire to cut.

    Attributes:
        id: made of the conductor's key and all that makes the cut piece, so that the same piece has the same id.
        key: the conductor.
        print_start, print_end: texts printed or put on at the ends.
    """

    id: str
    key: str
    number: str
    type_name: str
    colour: str
    size: str
    area_mm2: float
    length_mm: float
    start: str
    start_strip_mm: float
    start_termination: str
    end: str
    end_strip_mm: float
    end_termination: str
    print_start: str
    print_end: str
    run: str


@derived
def cut_list(project: Project) -> list[CutWire]:
    """Return the panel and harness wires whose length is known, by type, then length, then number."""
    wires = [_cut(d) for d in dossiers(project).values() if d.length_mm is not None]
    wires.sort(
        key=lambda w: (natural(w.type_name), w.length_mm, counted(w.number), natural(w.start), natural(w.end), w.key)
    )
    return wires


@derived
def uncut_from(project: Project, sheet_id: str) -> list[Dossier]:
    """Return those conductors of nets that begin on a sheet that would be cut but whose length is not known yet.

    Those that run in nothing yet ("open") are told by another check, and are on the list all the same.
    """
    found = dossiers_from(project, sheet_id).values()
    return [d for d in found if d.length_mm is None and d.runs in ("panel", "harness")]


uncut = listed(uncut_from)


def not_cut(project: Project) -> list[Dossier]:
    """Return every conductor that should be cut and is not, by number: without a length, or running in nothing yet."""
    found = [*uncut(project), *(d for d in dossiers(project).values() if d.runs == "open")]
    return sorted(found, key=lambda d: (counted(d.number), natural(d.start.name), natural(d.end.name), d.key))


def end_label(number: str, pin: str) -> str:
    """Return what is printed on a wire's end, or on its label there: its number, and the pin it goes to.

    Example:
        >>> end_label("1203", "-KF2:A1")
        '1203 -KF2:A1'
    """
    return f"{number} {pin}".strip()


def _cut(d: Dossier) -> CutWire:
    length = d.length_mm or 0.0
    facts = (d.key, d.type_name, d.colour, d.size, length, d.start, d.end, d.number)
    id = sha256(repr(facts).encode()).hexdigest()[:16]
    return CutWire(
        id,
        d.key,
        d.number,
        d.type_name,
        d.colour,
        d.size,
        d.area_mm2,
        length,
        d.start.name,
        d.start.strip_mm,
        d.start.termination,
        d.end.name,
        d.end.strip_mm,
        d.end.termination,
        end_label(d.number, d.start.name),
        end_label(d.number, d.end.name),
        d.run,
    )


@dataclass(slots=True, frozen=True)
class SpoolRow:
    """How much wire of a type is needed: metres, wires, and spools."""

    type_name: str
    colour: str
    size: str
    wires: int
    metres: float
    spools: int


def spools_needed(lengths_mm: Sequence[float], spool_m: float) -> int:
    """Return how many spools give these wires when none may be spliced: the fewest that are found (`packed`).

    A wire longer than a spool counts as one spool for itself; the check `wire-longer-than-spool` names it.

    Example:
        >>> spools_needed([6000, 6000, 4000, 4000], 10)
        2
        >>> spools_needed([520, 500, 410, 390, 360, 350, 160, 150], 1)
        3
    """
    return len(packed(lengths_mm, spool_m * 1000, 0.0))


@derived
def longer_than_a_spool(project: Project, sheet_id: str) -> list[Dossier]:
    """Return the conductors of nets that begin on a sheet that are cut longer than the project's spools."""
    spool = project.settings.spool_m * 1000
    return [d for d in dossiers_from(project, sheet_id).values() if (d.length_mm or 0.0) > spool]


def spool_plan(project: Project) -> list[SpoolRow]:
    """Return how much wire of each type the cut list takes, by type."""
    lengths: dict[tuple[str, str, str], list[float]] = defaultdict(list)
    for wire in cut_list(project):
        lengths[wire.type_name, wire.colour, wire.size].append(wire.length_mm)
    return [
        SpoolRow(*key, len(found), round(sum(found) / 1000, 3), spools_needed(found, project.settings.spool_m))
        for key, found in sorted(lengths.items())
    ]


@dataclass(slots=True, frozen=True)
class Label:
    """A label to print: kind ("wire", "device", "terminal", "cable"), text, where it goes, the id of what it is on."""

    kind: str
    text: str
    where: str
    id: str


def labels(project: Project) -> list[Label]:
    """Return the labels of wire ends, devices, terminals and cables."""
    found = [
        Label("device", full_tag(project, d), d.text, d.id)
        for d in sorted(project.devices.values(), key=lambda d: tag_order(project, d))
        if not any(i in project.cables for i in project.attached.get(d.id))
    ]
    for strip in strips(project):
        for row in strip_rows(project, strip.id):
            if row.kind == "terminal":
                id = row.symbol_ids[0] if row.symbol_ids else strip.id
                found.append(Label("terminal", row.number, full_tag(project, strip), id))
    tags = [(full_tag(project, project.devices[c.device_id]), c.device_id) for c in project.cables.values()]
    for tag, id in sorted(tags, key=lambda t: (natural(t[0]), t[1])):
        found += [Label("cable", tag, "first end", id), Label("cable", tag, "second end", id)]
    known = dossiers(project)
    for wire in cut_list(project):
        ends = ((wire.print_start, wire.start, known[wire.key].start), (wire.print_end, wire.end, known[wire.key].end))
        found += [Label("wire", printed, name, end.pin[0]) for printed, name, end in ends]
    return found
