"""What a project needs of each part, for what and at which location, and the material that has no part of its own."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass, field

from jolly_core.cables import cable_length_m
from jolly_core.harness import cavity_rows, covered, harnesses, nodes_of, owner_of
from jolly_core.library import part_class
from jolly_core.making import dossiers, labels, spool_plan, stock_cuts
from jolly_core.model import Device, Project, derived
from jolly_core.tagging import full_tag, natural, path_of
from jolly_core.terminals import is_strip, strip_pieces

from .registry import UNKNOWN_LENGTH

FERRULE = "ferrule"


@dataclass(slots=True, frozen=True)
class Use:
    """A part that something needs: how much of what unit, by whom, and the location's path."""

    part_id: str
    quantity: float
    unit: str
    user: str
    location: str


@dataclass(slots=True)
class Need:
    """What is needed of a part: how much, of what unit, and for what."""

    quantity: float = 0
    unit: str = "pcs"
    users: list[str] = field(default_factory=list)


@dataclass(slots=True, frozen=True)
class Material:
    """What is needed without a part of the library: wire by metres, ferrules, labels.

    Attributes:
        kind: its class in words.
        listed: key of the report in which it is gone into.
    """

    kind: str
    text: str
    quantity: float
    unit: str
    listed: str


@derived
def uses(project: Project) -> list[Use]:
    """Return each need of a part: metres and pieces never add up.

    A device takes one piece, a strip what stands on it and its bridges, a cable its length in metres; contacts are
    counted by wired cavities, rails and ducts by the lengths of stock they are sawn from. A cable whose length is not
    typed is counted for itself, so that it is not forgotten.
    """
    found = [*_of_devices(project), *_of_harnesses(project)]
    stock = {(c.kind, c.part_id): c.stock for c in stock_cuts(project)}
    for kind, table in (("rail", project.rails), ("duct", project.ducts)):
        for part_id in sorted({run.part_id for run in table.values()}):
            if part_id in project.parts:
                found.append(Use(part_id, stock[kind, part_id], "pcs", f"{kind}s", ""))
    return [use for use in found if use.part_id in project.parts and use.quantity]


@derived
def by_length(project: Project) -> frozenset[str]:
    """Return the ids of the parts that are bought by the metre, so that their price is that of one."""
    return frozenset(use.part_id for use in uses(project) if use.unit in ("m", UNKNOWN_LENGTH))


def without_length(project: Project) -> list[tuple[str, str]]:
    """Return tag and device of each cable whose length is not known, so that it cannot be ordered by it."""
    bare = [c.device_id for c in project.cables.values() if not cable_length_m(project, c)[0]]
    return sorted(
        ((full_tag(project, project.devices[id]), id) for id in bare), key=lambda cable: (natural(cable[0]), cable[1])
    )


def needs(project: Project) -> dict[tuple[str, str], Need]:
    """Return what is needed of each part of the project, by part and unit; see `uses`."""
    found: dict[tuple[str, str], Need] = {}
    for use in uses(project):
        _count(found.setdefault((use.part_id, use.unit), Need(unit=use.unit)), use)
    return found


def needs_by_place(project: Project) -> dict[tuple[str, str, str], Need]:
    """Return what is needed of each part, by location, part and unit; rails and ducts are bought for all, at ""."""
    found: dict[tuple[str, str, str], Need] = {}
    for use in uses(project):
        _count(found.setdefault((use.location, use.part_id, use.unit), Need(unit=use.unit)), use)
    return found


def _count(need: Need, use: Use) -> None:
    need.quantity += use.quantity
    if use.user not in need.users:
        need.users.append(use.user)


def _of_devices(project: Project) -> Iterator[Use]:
    lengths = {c.device_id: cable_length_m(project, c)[0] for c in project.cables.values()}
    for device in project.devices.values():
        place = path_of(project.locations, device.location_id, "+")
        tag = full_tag(project, device)
        if is_strip(project, device):
            for id, count in strip_pieces(project, device.id).items():
                yield Use(id, count, "pcs", tag, place)
            continue
        part = project.part_of(device)
        if part is None:
            continue
        for other in project.add_ons_to(device.id):
            yield Use(other.id, 1, "pcs", tag, place)
        if device.id in lengths:
            yield Use(part.id, lengths[device.id] or 1, "m" if lengths[device.id] else UNKNOWN_LENGTH, tag, place)
        elif part_class(part.part_class).per_unit:
            yield Use(part.id, sum(len(s.units) for s in project.units_of(device.id)), "pcs", tag, place)
        else:
            yield Use(part.id, 1, "pcs", tag, place)
            if part.count("cavity"):
                yield from _of_cavities(project, device, tag, place)


def _of_cavities(project: Project, device: Device, tag: str, place: str) -> Iterator[Use]:
    """Yield the contacts and seals of a connector; a contact that is the connector's own part comes with it."""
    for row in cavity_rows(project, device.id):
        if row.contact is not None and row.contact.id != device.part_id:
            yield Use(row.contact.id, len(row.conductors), "pcs", tag, place)
        if row.seal is not None and (row.conductors or owner_of(project, device.id) is None):
            yield Use(row.seal.id, len(row.conductors) or 1, "pcs", tag, place)


def _of_harnesses(project: Project) -> Iterator[Use]:
    for harness in harnesses(project):
        for stretch in covered(project, harness.id):
            if stretch.part is not None:
                yield Use(stretch.part.id, round(stretch.used_mm / 1000, 3), "m", harness.code, "")
        for node in nodes_of(project, harness.id):
            if node.part_id:
                yield Use(node.part_id, 1, "pcs", harness.code, "")


@derived
def material(project: Project) -> list[Material]:
    """Return wire by the metre, ferrules by cross-section, and labels by kind.

    Wire is what the cut list takes; ferrules are at each end of panel wires and cable cores that asks for one.
    """
    found = [
        Material(
            "Wire", " ".join(dict.fromkeys(t for t in (r.type_name, r.size, r.colour) if t)), r.metres, "m", "spools"
        )
        for r in spool_plan(project)
    ]
    sizes: Counter[tuple[float, str]] = Counter()
    for d in dossiers(project).values():
        if d.runs in ("panel", "cable"):
            sizes.update((d.area_mm2, d.size) for end in (d.start, d.end) if end.termination == FERRULE)
    found += [
        Material("Ferrule", f"Ferrule {size}".strip(), n, "pcs", "wires") for (_, size), n in sorted(sizes.items())
    ]
    kinds = Counter(label.kind for label in labels(project))
    return found + [Material("Label", f"Label, {kind}", kinds[kind], "pcs", "labels") for kind in sorted(kinds)]
