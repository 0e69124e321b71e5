"""Tables that are laid on a drawing: what is on that sheet alone, or any list of the project."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable

from jolly_core.library import part_class, text_in
from jolly_core.model import Project, RuleError, derived
from jolly_core.tagging import lead_of, natural, tag_on

from .recipes import Cooked, Group, cook, recipe_called
from .registry import Column, Row

_PARTS = (
    Column("tags", "For", 22),
    Column("quantity", "Qty", 5, number=True),
    Column("number", "Part number", 18),
    Column("text", "Description", 30),
)
_TYPES = (Column("name", "Wire type", 20), Column("colour", "Colour", 8), Column("size", "Size", 12))


def _parts_of_sheet(project: Project, sheet_id: str) -> list[Row]:
    """Return the parts of the devices whose lead is on a sheet, those without one last."""
    sheet = project.sheets[sheet_id]
    users: dict[str, list[str]] = {}
    for device_id in dict.fromkeys(s.device_id for s in project.symbols_on(sheet_id) if s.device_id):
        lead = lead_of(project, device_id)
        if lead is not None and lead.sheet_id == sheet_id:
            device = project.devices[device_id]
            users.setdefault(device.part_id, []).append(tag_on(project, device, sheet))
    rows = []
    for part_id in sorted(users, key=lambda id: (not id, _place(project, id))):
        tags, part = sorted(users[part_id], key=natural), project.parts.get(part_id)
        text = text_in(part, project.settings.part_language) if part else "no part chosen yet"
        rows.append(Row((", ".join(tags), len(tags), part.number if part else "", text)))
    return rows


def _place(project: Project, part_id: str) -> tuple[object, ...]:
    part = project.parts.get(part_id)
    return (part_class(part.part_class).name, natural(part.number)) if part is not None else ("",)


def _types_of_sheet(project: Project, sheet_id: str) -> list[Row]:
    """Return the wire types that are used on a sheet, by category, then name."""
    used = Counter(w.type_id for w in project.wires_on(sheet_id))
    types = sorted((project.wire_types[id] for id in used), key=lambda t: (t.category, natural(t.name)))
    return [Row((t.name, t.colour, t.size())) for t in types]


RowsOf = Callable[[Project, str], list[Row]]
# What concerns one sheet, by its key: title, columns, rows.
OF_SHEET: dict[str, tuple[str, tuple[Column, ...], RowsOf]] = {
    "sheet-parts": ("Parts of this sheet", _PARTS, _parts_of_sheet),
    "sheet-wire-types": ("Wire types of this sheet", _TYPES, _types_of_sheet),
}


@derived
def laid_list(project: Project, sheet_id: str, source: str) -> Cooked:
    """Return the list that a table on a sheet shows: of the sheet alone, of a recipe by its id, or a report by its key.

    Raises:
        RuleError: there is none of that name any more.
    """
    if source in OF_SHEET:
        title, columns, rows = OF_SHEET[source]
        names = tuple(c.key for c in columns)
        return Cooked(title, names, columns, [Group("", rows(project, sheet_id))], (), "", "none", breaks=False)
    return cook(project, recipe_called(project, source))


def check_laid(project: Project, source: str) -> None:
    """Refuse what no table on a drawing can show.

    Raises:
        RuleError: with what it can.
    """
    if source in OF_SHEET or source in project.recipes:
        return
    try:
        recipe_called(project, source)
    except RuleError:
        known = ", ".join(OF_SHEET)
        raise RuleError(f"A table can show {known}, a recipe or a report, not “{source}”.", field="text") from None
