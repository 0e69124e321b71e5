"""The parts list and the device list."""

from __future__ import annotations

from dataclasses import dataclass, field

from jolly_core.cables import cable_length_m
from jolly_core.drawing import place_in
from jolly_core.harness import cavity_rows, covered, harnesses, nodes_of, owner_of
from jolly_core.library import part_class, text_in
from jolly_core.making import stock_cuts
from jolly_core.model import Project, derived
from jolly_core.tagging import full_tag, lead_of
from jolly_core.terminals import groups_of, is_strip, strip_pieces, strips

from .registry import Cell, Column, report


@dataclass(slots=True)
class Need:
    """What is needed of a part: how much, of what unit, and for what."""

    quantity: float = 0
    unit: str = "pcs"
    users: list[str] = field(default_factory=list)


UNKNOWN_LENGTH = "no length"


def needs(project: Project) -> dict[tuple[str, str], Need]:
    """Return what is needed of each part of the project, by part and unit: metres and pieces never add up.

    A device takes one piece, a strip what stands on it and its bridges, a cable its length in metres; contacts are
    counted by wired cavities, rails and ducts by the lengths of stock they are sawn from. A cable whose length is not
    typed is counted for itself, so that it is not forgotten.
    """
    found: dict[tuple[str, str], Need] = {}

    def add(part_id: str, quantity: float, user: str, unit: str = "pcs") -> None:
        if part_id in project.parts and quantity:
            need = found.setdefault((part_id, unit), Need(unit=unit))
            need.quantity += quantity
            if user not in need.users:
                need.users.append(user)

    lengths = {c.device_id: cable_length_m(project, c)[0] for c in project.cables.values()}
    for device in project.devices.values():
        tag = full_tag(project, device)
        if is_strip(project, device):
            for id, count in strip_pieces(project, device.id).items():
                add(id, count, tag)
            continue
        part = project.part_of(device)
        if part is None:
            continue
        for other in project.add_ons_to(device.id):
            add(other.id, 1, tag)
        if device.id in lengths:
            add(part.id, lengths[device.id] or 1, tag, "m" if lengths[device.id] else UNKNOWN_LENGTH)
        elif part_class(part.part_class).per_unit:
            add(part.id, sum(len(s.units) for s in project.units_of(device.id)), tag)
        else:
            add(part.id, 1, tag)
            for row in cavity_rows(project, device.id) if part.count("cavity") else ():
                if row.contact is not None and row.contact.id != part.id:
                    add(row.contact.id, len(row.conductors), tag)
                if row.seal is not None and (row.conductors or owner_of(project, device.id) is None):
                    add(row.seal.id, len(row.conductors) or 1, tag)
    for harness in harnesses(project):
        for stretch in covered(project, harness.id):
            if stretch.part is not None:
                add(stretch.part.id, round(stretch.used_mm / 1000, 3), harness.code, "m")
        for node in nodes_of(project, harness.id):
            add(node.part_id, 1, harness.code)
    stock = {(c.kind, c.number): c.stock for c in stock_cuts(project)}
    for kind, table in (("rail", project.rails), ("duct", project.ducts)):
        for part_id in {run.part_id for run in table.values()}:
            add(part_id, stock[kind, project.parts[part_id].number], f"{kind}s")
    return found


def parts_order(project: Project) -> list[tuple[str, str]]:
    """Return the parts of the parts list in its order, each with the unit it is counted in."""

    def place(key: tuple[str, str]) -> tuple[str, str, str, str]:
        part = project.parts[key[0]]
        return part.part_class, part.maker, part.number, key[1]

    return sorted(needs(project), key=place)


@derived
def positions(project: Project) -> dict[str, int]:
    """Return the position that each part has in the parts list, as balloons on layouts show it."""
    found: dict[str, int] = {}
    for position, (part_id, _) in enumerate(parts_order(project), start=1):
        found.setdefault(part_id, position)
    return found


@report(
    "parts",
    "Parts list",
    "What to buy: each part once with its quantity and the devices it is for.",
    (
        Column("position", "Pos", 5, number=True),
        Column("quantity", "Qty", 5, number=True),
        Column("unit", "Unit", 9),
        Column("maker", "Maker", 16),
        Column("number", "Part number", 18),
        Column("text", "Description", 38),
        Column("class", "Class", 18),
        Column("tags", "For", 36),
        Column("supplier", "Supplier", 14),
    ),
)
def parts_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the parts list; devices without a part stand last, so that none is forgotten."""
    rows: list[tuple[Cell, ...]] = []
    needed = needs(project)
    order = parts_order(project)
    for position, key in enumerate(order, start=1):
        part, need = project.parts[key[0]], needed[key]
        quantity: Cell = int(need.quantity) if need.quantity == int(need.quantity) else round(need.quantity, 2)
        name, users = part_class(part.part_class).name, ", ".join(sorted(need.users))
        rows.append(
            (
                position,
                quantity,
                need.unit,
                part.maker,
                part.number,
                text_in(part, project.settings.part_language),
                name,
                users,
                part.supplier,
            )
        )
    bare = [g for strip in strips(project) for g in groups_of(project, strip.id) if g.part is None]
    strip_ids = {g.strip_id for g in bare}
    missing = [d for d in project.devices.values() if d.part_id not in project.parts and d.id not in strip_ids]
    if missing or bare:
        names = [full_tag(project, d) for d in missing]
        names += [f"{full_tag(project, project.devices[g.strip_id])} ({len(g.rows)} {g.words})" for g in bare]
        count = len(missing) + sum(len(g.rows) for g in bare)
        rows.append((len(order) + 1, count, "pcs", "", "", "no part chosen yet", "", ", ".join(sorted(names)), ""))
    return rows


@report(
    "devices",
    "Device list",
    "Every device with its text, part and place.",
    (
        Column("tag", "Tag", 20),
        Column("text", "Text", 28),
        Column("maker", "Maker", 16),
        Column("number", "Part number", 18),
        Column("place", "Sheet.line", 11),
    ),
)
def device_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the device list, by tag."""
    rows: list[tuple[Cell, ...]] = []
    for device in project.devices.values():
        part = project.part_of(device)
        lead = lead_of(project, device.id)
        place = place_in(project.sheets[lead.sheet_id], lead.x, lead.y) if lead else ""
        rows.append(
            (full_tag(project, device), device.text, part.maker if part else "", part.number if part else "", place)
        )
    return sorted(rows, key=lambda r: str(r[0]))
