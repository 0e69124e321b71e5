"""Fields of title blocks and covers: names in braces that stand for facts of the project and the sheet."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable
from dataclasses import dataclass

from jolly_core.model import Project, Revision, RuleError, Settings, Sheet, derived

from .tags import path_of

FIELD = re.compile(r"\{([^{}]*)\}")
OWN_NAME = re.compile(r"[^\W_][\w .,/&-]{0,39}")
DOCUMENTS = {
    "schematic": "Schematic",
    "cover": "Cover",
    "contents": "Contents",
    "data": "Technical data",
    "terminal-plan": "Terminal plan",
    "cable-plan": "Cable plan",
    "card-plan": "Card plan",
    "panel-layout": "Panel layout",
    "form-board": "Form board",
    "report": "Report",
    "free": "Drawing",
}


@dataclass(slots=True, frozen=True)
class Field:
    """A field by its name in braces; `of` gives its text on a sheet."""

    name: str
    help: str
    of: Callable[[Project, Sheet], str]


def _settings(name: str, help: str, attribute: str) -> Field:
    def read(project: Project, sheet: Sheet) -> str:
        return str(getattr(project.settings, attribute))

    return Field(name, help, read)


def _place(project: Project, sheet: Sheet) -> tuple[int, list[Sheet]]:
    """Return the place of a sheet among the project's sheets, from 1, and those sheets; 0 for a page beside them."""
    return _places(project).get(sheet.id, 0), project.sheets_in_order()


@derived
def _places(project: Project) -> dict[str, int]:
    return {s.id: n for n, s in enumerate(project.sheets_in_order(), start=1)}


def _n(project: Project, sheet: Sheet) -> str:
    return str(_place(project, sheet)[0] or "-")


def _count(project: Project, sheet: Sheet) -> str:
    return str(len(_place(project, sheet)[1]))


def _next(project: Project, sheet: Sheet) -> str:
    n, sheets = _place(project, sheet)
    return sheets[n].number if 0 < n < len(sheets) else "-"


def _previous(project: Project, sheet: Sheet) -> str:
    n, sheets = _place(project, sheet)
    return sheets[n - 2].number if n > 1 else "-"


def _function(project: Project, sheet: Sheet) -> str:
    return path_of(project.functions, sheet.function_id, "=")


def _location(project: Project, sheet: Sheet) -> str:
    return path_of(project.locations, sheet.location_id, "+")


def _function_text(project: Project, sheet: Sheet) -> str:
    function = project.functions.get(sheet.function_id)
    return function.text if function else ""


def _location_text(project: Project, sheet: Sheet) -> str:
    location = project.locations.get(sheet.location_id)
    return location.text if location else ""


@derived
def _indexes(project: Project) -> dict[str, str]:
    """Return the index of each sheet that a frozen revision changed: that of the last one which did."""
    return {id: revision.index for revision in revisions(project) for id in revision.sheet_ids}


def revisions(project: Project) -> list[Revision]:
    """Return the frozen revisions in the order in which they were frozen."""
    return sorted(project.revisions.values(), key=lambda r: r.id)


def index_of(project: Project, sheet_id: str) -> str:
    """Return the revision index of a sheet: that of the revision in which it changed last.

    Before the first is frozen it is the project's; a sheet that was in none since has none. Pages that are made from
    the model are issued with the whole project and have its revision.
    """
    indexes = _indexes(project)
    if sheet_id in indexes or (indexes and sheet_id in project.sheets):
        return indexes.get(sheet_id, "")
    return project.settings.revision


FIELDS: dict[str, Field] = {
    f.name: f
    for f in (
        _settings("project number", "Number of the project", "number"),
        _settings("project", "Name of the project", "name"),
        _settings("customer", "Customer", "customer"),
        _settings("site", "Site", "site"),
        Field("title", "Title of the sheet", lambda p, s: s.title),
        Field("subtitle", "Second line of the title", lambda p, s: s.subtitle),
        Field("sheet", "Number of the sheet", lambda p, s: s.number),
        Field("n", "Place of the sheet among all, from 1", _n),
        Field("count", "How many sheets there are", _count),
        Field("next", "Number of the next sheet", _next),
        Field("previous", "Number of the sheet before", _previous),
        Field("revision", "Revision in which the sheet changed last", lambda p, s: index_of(p, s.id)),
        _settings("project revision", "Revision of the project", "revision"),
        _settings("issued on", "Date of issue", "issued_on"),
        _settings("drawn by", "Who drew it", "drawn_by"),
        _settings("drawn on", "When it was drawn", "drawn_on"),
        _settings("checked by", "Who approved it", "checked_by"),
        _settings("checked on", "When it was approved", "checked_on"),
        Field("structure", "Function and location of the sheet", lambda p, s: _function(p, s) + _location(p, s)),
        Field("function", "Function of the sheet", _function),
        Field("function text", "Description of its function", _function_text),
        Field("location", "Location of the sheet", _location),
        Field("location text", "Description of its location", _location_text),
        Field("document", "What kind of sheet it is", lambda p, s: DOCUMENTS[s.kind]),
        Field("size", "Size of the sheet", lambda p, s: s.size),
        _settings("supply", "Supply voltage", "supply"),
        _settings("supply system", "System of the supply", "supply_system"),
        _settings("control voltages", "Control voltages", "control_voltages"),
        _settings("protection", "Degree of protection", "protection"),
        _settings("standards", "Standards that apply", "standards"),
    )
}


def own_names(project: Project) -> list[str]:
    """Return the names of the person's own fields, those of the project first, then those of sheets."""
    names = dict.fromkeys(project.settings.own_fields)
    for sheet in project.sheets_in_order():
        names.update(dict.fromkeys(sheet.fields))
    return list(names)


def filled(project: Project, sheet: Sheet, content: str, given: dict[str, str] | None = None) -> str:
    """Return a text with its fields filled in for a sheet.

    Args:
        content: text with fields in braces; one that is not known shows as nothing.
        given: texts that stand before those of the project, for pages that are counted on their own.

    Example:
        >>> project = Project()
        >>> filled(project, Sheet("s", "30", "Auger"), "{sheet}: {title}")
        '30: Auger'
    """

    def text(match: re.Match[str]) -> str:
        name = " ".join(match[1].split())
        if given and name in given:
            return given[name]
        known = FIELDS.get(name)
        if known is not None:
            return known.of(project, sheet)
        return sheet.fields.get(name) or project.settings.own_fields.get(name, "")

    return " ".join(FIELD.sub(text, content).split())


def fields_in(content: str) -> list[str]:
    """Return the names of the fields a text uses.

    Example:
        >>> fields_in("{project} {sheet}")
        ['project', 'sheet']
    """
    return [" ".join(name.split()) for name in FIELD.findall(content)]


def renamed(content: str, old: str, new: str) -> str:
    """Return a text with one of its fields under another name.

    Example:
        >>> renamed("No {order}", "order", "order number")
        'No {order number}'
    """
    return FIELD.sub(lambda m: f"{{{new}}}" if " ".join(m[1].split()) == old else m[0], content)


def check_fields(project: Project, content: str, more: Iterable[str] = ()) -> None:
    """Refuse a text that uses a field nobody knows.

    Raises:
        RuleError: with the name of the field.
    """
    known = {*FIELDS, *own_names(project), *more}
    for name in fields_in(content):
        if name not in known:
            raise RuleError(f"There is no field {{{name}}}. Add it to the project's own fields first.", field="content")
    if "{" in FIELD.sub("", content) or "}" in FIELD.sub("", content):
        raise RuleError("A brace is left open. Write a field as {title}.", field="content")


def check_own_name(name: str) -> None:
    """Refuse a name that cannot be an own field's.

    Raises:
        RuleError: it is taken by a field of ours, or could not be written in braces.
    """
    if name in FIELDS or name in Settings.__slots__:
        raise RuleError(f"“{name}” is a field there is already. Choose another name.", field="name")
    if not OWN_NAME.fullmatch(name) or name != " ".join(name.split()):
        raise RuleError(
            "A field's name begins with a letter or digit and has letters, digits, spaces and . , / & - only.",
            field="name",
        )
