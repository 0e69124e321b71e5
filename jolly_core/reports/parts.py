"""The parts list and the device list."""

from __future__ import annotations

from jolly_core.drawing import place_in
from jolly_core.library import part_class
from jolly_core.model import Device, Project
from jolly_core.tagging import full_tag, lead_of

from .registry import Cell, Column, report


def pieces(project: Project, device: Device) -> int:
    """Return how many pieces of its part a device needs: one, or one for each unit drawn (terminals)."""
    part = project.part_of(device)
    if part is not None and part_class(part.part_class).per_unit:
        return sum(len(s.units) for s in project.units_of(device.id))
    return 1


@report(
    "parts",
    "Parts list",
    "What to buy: each part once with its quantity and the devices it is for.",
    (
        Column("position", "Pos", 5, number=True),
        Column("quantity", "Qty", 5, number=True),
        Column("maker", "Maker", 16),
        Column("number", "Part number", 18),
        Column("text", "Description", 38),
        Column("class", "Class", 18),
        Column("tags", "For", 40),
        Column("supplier", "Supplier", 14),
    ),
)
def parts_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the parts list; devices without a part stand last, so that none is forgotten."""
    rows: list[tuple[Cell, ...]] = []
    by_part: dict[str, list[Device]] = {}
    for device in project.devices.values():
        by_part.setdefault(device.part_id if device.part_id in project.parts else "", []).append(device)
    missing = by_part.pop("", [])
    parts = sorted((project.parts[i] for i in by_part), key=lambda p: (p.part_class, p.maker, p.number))
    for position, part in enumerate(parts, start=1):
        devices = by_part[part.id]
        tags = ", ".join(sorted(full_tag(project, d) for d in devices))
        quantity = sum(pieces(project, d) for d in devices)
        name = part_class(part.part_class).name
        rows.append((position, quantity, part.maker, part.number, part.text, name, tags, part.supplier))
    if missing:
        tags = ", ".join(sorted(full_tag(project, d) for d in missing))
        rows.append((len(parts) + 1, len(missing), "", "", "no part chosen yet", "", tags, ""))
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
