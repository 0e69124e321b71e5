"""What people see of a project as a whole: its facts, sheets and texts, wire types and parts."""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from jolly_core.library import part_class, text_in
from jolly_core.model import Part, Project, Sheet
from jolly_core.reports import FACTS, needs
from jolly_core.tagging import path_of

from .thing import Same, Sight, wire_length

# The lengths among the habits of a project that wires are cut by.
_ALLOWANCES = {
    "end_allowance_mm": "wire ends",
    "door_allowance_mm": "loop to the door",
    "free_run_mm": "free run",
    "harness_allowance_mm": "harness wire ends",
    "length_step_mm": "step of lengths",
}


def project_sights(project: Project, _: Same) -> Iterator[Sight]:
    """Yield the project's own facts and fields, and the lengths that wires are cut by; not what revision it is."""
    s = project.settings
    facts = {words.lower(): str(getattr(s, name)) for name, words in FACTS.items() if name != "revision"}
    facts |= {words: wire_length(project, getattr(s, name)) for name, words in _ALLOWANCES.items()}
    same_by = {words: (getattr(s, name),) for name, words in _ALLOWANCES.items()}
    yield Sight("project", s.id, s.name, _with_own(facts, s.own_fields), ids=(s.id,), same_by=same_by)


def _with_own(facts: dict[str, str], fields: Mapping[str, str]) -> dict[str, str]:
    """Return facts with the fields somebody added; one that is called as a fact hides none."""
    return {**facts, **{f"own {name}" if name in facts else name: said for name, said in fields.items()}}


def place_sights(project: Project, same: Same) -> Iterator[Sight]:
    """Yield the functions and locations of the structure."""
    for table, sign in (("function", "="), ("location", "+")):
        for id, place in project.tables[table].items():
            path = path_of(project.tables[table], id, sign)
            facts = {"code": place.code, "text": place.text, "side": getattr(place, "side", "")}
            yield Sight("place", same.built.get(id, id), path, facts, ids=(id,))


def sheet_sights(project: Project, same: Same) -> Iterator[Sight]:
    """Yield the sheets with what their title blocks say."""
    for sheet in project.sheets_in_order():
        places = (same.built.get(id, id) for id in (sheet.function_id, sheet.location_id))
        key, same_by = same.sheet(sheet.id), {"place": tuple(places)}
        yield Sight("sheet", key, sheet.number, _sheet(project, sheet), sheet.id, (sheet.id,), same_by=same_by)


def _sheet(project: Project, sheet: Sheet) -> dict[str, str]:
    places = (path_of(project.functions, sheet.function_id, "="), path_of(project.locations, sheet.location_id, "+"))
    zones = f"{sheet.columns} by {sheet.rows}"
    own = {"subtitle": sheet.subtitle, "place": "".join(places), "size": sheet.size, "zones": zones}
    return _with_own({"number": sheet.number, "title": sheet.title, **own}, sheet.fields)


def wire_type_sights(project: Project, same: Same) -> Iterator[Sight]:
    """Yield the wire types."""
    for t in project.wire_types.values():
        facts = {"name": t.name, "colour": t.colour, "size": t.size(), "category": t.category}
        facts |= {"numbered": "yes" if t.numbered else "no", "laid": "outside" if t.outside else "inside"}
        yield Sight("wire type", same.built.get(t.id, t.id), t.name, facts, ids=(t.id,))


def part_sights(project: Project, _: Same) -> Iterator[Sight]:
    """Yield the parts that are needed: how much, and what the project knows of them."""
    for (part_id, unit), need in needs(project).items():
        part = project.parts[part_id]
        facts = {"quantity": f"{round(need.quantity, 3):g} {unit}", **_known(project, part)}
        yield Sight("part", f"{part.maker} {part.number} {unit}", part.number, facts, ids=(part_id,))


def _known(project: Project, part: Part) -> Mapping[str, str]:
    sizes = (part.width_mm, part.height_mm, part.depth_mm, part.diameter_mm)
    return {
        "text": text_in(part, project.settings.part_language),
        "class": part_class(part.part_class).name,
        "supplier": part.supplier,
        "order number": part.order_number,
        "price": f"{part.price:g} {part.currency}" if part.price else "",
        "size": " × ".join(f"{v:g}" for v in sizes if v),
        "weight": f"{part.weight_kg:g} kg" if part.weight_kg else "",
        "units": ", ".join(f"{kind} {'-'.join(filter(None, pins))}".strip() for kind, pins in part.units),
        **{name.replace("_", " "): value for name, value in part.ratings.items()},
    }


def text_sights(project: Project, same: Same) -> Iterator[Sight]:
    """Yield the texts on drawings."""
    for note in project.notes.values():
        key = same.notes.get(note.id, note.id)
        yield Sight("text", key, note.text, {"text": note.text}, note.sheet_id, (note.id,))
