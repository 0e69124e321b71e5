"""The parts list, whole and by location, and the device list."""

from __future__ import annotations

from jolly_core.drawing import place_in
from jolly_core.library import part_class, text_in
from jolly_core.model import Part, Project, derived
from jolly_core.tagging import full_tag, lead_of, natural, path_of
from jolly_core.terminals import groups_of, strips

from .building import NO_LENGTH
from .needs import Need, material, needs, needs_by_place
from .registry import UNKNOWN_LENGTH, Cell, Column, Row, in_natural_order, list_lead, report

NO_PART = "no part chosen yet"
NO_PRICE = "The library knows no price of it."
ORDER_COLUMNS = (
    Column("order_number", "Order number", 16, extra=True),
    Column("price", "Price each", 9, number=True, extra=True, measure="price"),
    Column("sum", "Price in all", 10, number=True, extra=True),
    Column("currency", "Currency", 8, extra=True),
)


def parts_order(project: Project) -> list[tuple[str, str]]:
    """Return the parts of the parts list in its order, each with the unit it is counted in."""

    def place(key: tuple[str, str]) -> tuple[object, ...]:
        part = project.parts[key[0]]
        return part.part_class, part.maker, natural(part.number), key[1]

    return sorted(needs(project), key=place)


@derived
def positions(project: Project) -> dict[str, int]:
    """Return the position that each part has in the parts list, as balloons on layouts show it."""
    found: dict[str, int] = {}
    for position, (part_id, _) in enumerate(parts_order(project), start=1):
        found.setdefault(part_id, position)
    return found


def _amount(quantity: float) -> int | float:
    return int(quantity) if quantity == int(quantity) else round(quantity, 3)


def _order(part: Part, quantity: float | None) -> tuple[Cell, ...]:
    """Return the cells of ORDER_COLUMNS; there is no sum of what has no length yet."""
    price: Cell = part.price or ""
    known = part.price and quantity is not None
    return part.order_number, price, round(part.price * (quantity or 0), 2) if known else "", part.currency


def _of_part(project: Project, part: Part, need: Need) -> tuple[Cell, ...]:
    """Return the cells from quantity to order data of a part."""
    language = project.settings.part_language
    name, users = part_class(part.part_class).name, ", ".join(sorted(need.users, key=natural))
    facts = (part.maker, part.number, text_in(part, language), name, users, part.supplier)
    amount = None if need.unit == UNKNOWN_LENGTH else need.quantity
    return (_amount(need.quantity), need.unit, *facts, *_order(part, amount))


def _whys(part: Part, unit: str = "pcs") -> dict[str, str]:
    why = "" if part.price else NO_PRICE
    unknown = NO_LENGTH if unit == UNKNOWN_LENGTH else ""
    supplier = "" if part.supplier else "The library names no supplier of it."
    order = "" if part.order_number else "The library knows no order number of it."
    return {"price": why, "sum": unknown or why, "currency": why, "supplier": supplier, "order_number": order}


_PART_COLUMNS = (
    Column("quantity", "Qty", 5, number=True, measure="amount"),
    Column("unit", "Unit", 9, measure="unit"),
    Column("maker", "Maker", 16),
    Column("number", "Part number", 18),
    Column("text", "Description", 38),
    Column("class", "Class", 18),
    Column("tags", "For", 36),
    Column("supplier", "Supplier", 14),
    *ORDER_COLUMNS,
)


@report(
    "parts",
    "Parts list",
    "What to buy: each part once with its quantity and the devices it is for, then wire, ferrules and labels.",
    (Column("position", "Pos", 5, number=True), *_PART_COLUMNS),
)
def parts_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the parts list; devices without a part stand after the parts, so that none is forgotten."""
    rows: list[tuple[Cell, ...]] = []
    needed = needs(project)
    for position, key in enumerate(parts_order(project), start=1):
        part = project.parts[key[0]]
        rows.append(Row.of((position, *_of_part(project, part, needed[key])), part.id, _whys(part, key[1])))
    names = without_part(project)
    if names:
        count = sum(n for _, n, _ in names)
        tags = ", ".join(words for words, _, _ in names)
        bare = (len(rows) + 1, count, "pcs", "", "", NO_PART, "", tags, "", "", "", "", "")
        rows.append(Row.of(bare, list_lead("devices"), {"number": "Choose parts for these in Parts."}))
    for m in material(project):
        cells: tuple[Cell, ...] = (
            len(rows) + 1,
            _amount(m.quantity),
            m.unit,
            "",
            "",
            m.text,
            m.kind,
            "",
            "",
            "",
            "",
            "",
            "",
        )
        why = "It is no part of the library: order it by its description."
        rows.append(Row.of(cells, list_lead(m.listed), {"number": why}))
    return rows


def without_part(project: Project) -> list[tuple[str, int, str]]:
    """Return what has no part yet, in words, how many pieces that is, and the device: devices, and things on strips."""
    bare = [g for strip in strips(project) for g in groups_of(project, strip.id) if g.part is None]
    strip_ids = {g.strip_id for g in bare}
    missing = [d for d in project.devices.values() if d.part_id not in project.parts and d.id not in strip_ids]
    names = [(full_tag(project, d), 1, d.id) for d in missing]
    for g in bare:
        strip = full_tag(project, project.devices[g.strip_id])
        names.append((f"{strip} ({len(g.rows)} {g.words})", len(g.rows), g.strip_id))
    return sorted(names, key=lambda name: (natural(name[0]), name[2]))


@report(
    "parts-by-place",
    "Parts by location",
    "What each location takes, to be put together for it: the parts list, once for each location.",
    (Column("location", "Location", 14), *_PART_COLUMNS),
)
def parts_by_place(project: Project) -> list[tuple[Cell, ...]]:
    """Return the parts of each location, rails and ducts and harnesses without one; by location, then as parts."""
    needed = needs_by_place(project)

    def place(key: tuple[str, str, str]) -> tuple[object, ...]:
        part = project.parts[key[1]]
        return natural(key[0]), part.part_class, part.maker, natural(part.number), key[2]

    rows: list[tuple[Cell, ...]] = []
    for key in sorted(needed, key=place):
        part = project.parts[key[1]]
        why = "" if key[0] else "It belongs to no location, or is bought for all of them."
        rows.append(
            Row.of((key[0], *_of_part(project, part, needed[key])), part.id, {**_whys(part, key[2]), "location": why})
        )
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
        Column("function", "Function", 14, extra=True),
        Column("location", "Location", 14, extra=True),
        Column("class", "Class", 18, extra=True),
        Column("description", "Description", 34, extra=True),
        Column("supplier", "Supplier", 14, extra=True),
        Column("quantity", "Qty", 5, number=True, extra=True),
        *ORDER_COLUMNS,
    ),
)
def device_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the device list, by tag."""
    rows: list[tuple[Cell, ...]] = []
    for device in project.devices.values():
        part = project.parts.get(device.part_id)
        lead = lead_of(project, device.id)
        place = place_in(project.sheets[lead.sheet_id], lead.x, lead.y) if lead else ""
        paths = (
            path_of(project.functions, device.function_id, "="),
            path_of(project.locations, device.location_id, "+"),
        )
        whys = {
            "place": "" if lead else "It is drawn on no sheet.",
            "location": "" if paths[1] else "It has no location.",
        }
        if part is None:
            whys |= dict.fromkeys(("maker", "number", "class", "description", "supplier"), "No part is chosen for it.")
            rest: tuple[Cell, ...] = ("", "", "", 1, "", "", "", "")
        else:
            whys |= _whys(part)
            text = text_in(part, project.settings.part_language)
            rest = (part_class(part.part_class).name, text, part.supplier, 1, *_order(part, 1))
        first = (device.text, part.maker if part else "", part.number if part else "", place)
        rows.append(Row.of((full_tag(project, device), *first, *paths, *rest), device.id, whys))
    return in_natural_order(rows)
