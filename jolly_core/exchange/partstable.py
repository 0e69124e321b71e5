"""Parts as a table, one a row: out as columns of a library, in with every bad cell named before anything is taken."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Any, Literal

from jolly_core.library import (
    OWN,
    Difference,
    check_part,
    checked,
    cores_told,
    differences,
    is_class,
    new_part,
    number_in,
    part_class,
    part_classes,
    part_fields,
    unit_kinds,
)
from jolly_core.model import MOUNTINGS, FileError, Part
from jolly_core.reports import Cell, Column, Table

IGNORED = ""
NAMELESS = "_"
_DASHED = re.compile(r"[^-]+(-[^-]+)+")
# Columns every part has: field -> heading.
COMMON: dict[str, str] = {
    "maker": "Maker",
    "number": "Number",
    "part_class": "Class",
    "text": "Description",
    "units": "Units",
    "width_mm": "Width mm",
    "height_mm": "Height mm",
    "depth_mm": "Depth mm",
    "diameter_mm": "Diameter mm",
    "weight_kg": "Weight kg",
    "mounting": "Mounting",
    "supplier": "Supplier",
    "order_number": "Order number",
    "price": "Price",
    "currency": "Currency",
    "link": "Link",
    "accessories": "Accessories",
    "alternatives": "Alternatives",
    "members": "Members",
}
# Columns that are read and never written: what they tell is written in others.
TOLD: dict[str, str] = {"cores": "Cores"}
_NUMBERS = ("width_mm", "height_mm", "depth_mm", "diameter_mm", "weight_kg", "price")
_LISTS = ("accessories", "alternatives", "members")
_ALSO = {
    "manufacturer": "maker",
    "brand": "maker",
    "part number": "number",
    "part no": "number",
    "article no": "number",
    "item number": "number",
    "product number": "number",
    "order no": "order_number",
    "article": "number",
    "article number": "number",
    "type": "number",
    "category": "part_class",
    "text": "text",
    "name": "text",
    "cores": "cores",
    "core count": "cores",
    "number of cores": "cores",
    "no of cores": "cores",
    "conductors": "cores",
    "number of conductors": "cores",
}
_PRESENT = re.compile(r"([\d.,+-]+)\s*(mm|cm|m|in|kg|g)?")
_SCALES = {"mm": {"": 1.0, "mm": 1.0, "cm": 10.0, "m": 1000.0, "in": 25.4}, "kg": {"": 1.0, "kg": 1.0, "g": 0.001}}


@dataclass(slots=True, frozen=True)
class BadCell:
    """What is wrong with a cell: its column's heading, and the words."""

    column: str
    words: str


RowState = Literal["new", "changed", "same", "bad"]


@dataclass(slots=True, frozen=True)
class CheckedRow:
    """A row of a table of parts.

    Attributes:
        line: number of the row in the file, 1 for the headings.
        state: "new", "changed", "same" (as the library has it) or "bad".
        part: the part as far as it could be read, None when not even its class is known.
        problems: what is wrong, cell by cell.
        changes: of a part that is there already, what would change.
    """

    line: int
    state: RowState
    part: Part | None
    problems: list[BadCell]
    changes: list[Difference]


def parts_table(parts: Iterable[Part]) -> Table:
    """Return parts as a table: the common columns, then each rating that any of them has."""
    listed = list(parts)
    keys = [k for k in part_fields() if any(k in p.ratings for p in listed)]
    keys += sorted({k for p in listed for k in p.ratings} - set(keys))
    columns = [Column(f, heading, 16) for f, heading in COMMON.items()]
    columns += [Column(k, _heading(k), 12) for k in keys]
    rows: list[tuple[Cell, ...]] = []
    for part in listed:
        common = [_cell(part, field) for field in COMMON]
        rows.append((*common, *(part.ratings.get(k, "") for k in keys)))
    return Table("Parts", tuple(columns), rows)


def _heading(key: str) -> str:
    spec = part_fields().get(key)
    return f"{spec.name} {spec.unit}".strip() if spec else key


def _cell(part: Part, field: str) -> Cell:
    if field == "units":
        return units_text(part)
    if field == "part_class":
        return part.part_class if part.part_class.startswith(OWN) else part_class(part.part_class).name
    value = getattr(part, field)
    if field in _NUMBERS:
        return value if value else ""
    return ", ".join(value) if field in _LISTS else str(value)


def units_text(part: Part) -> str:
    """Return the units of a part as one cell: "coil A1 A2; no 13 14", "_" for a pin without a name."""
    return "; ".join(" ".join((kind, *(p or NAMELESS for p in pins))) for kind, pins in part.units)


def units_in(text: str) -> tuple[tuple[str, tuple[str, ...]], ...]:
    """Return units from a cell, pins parted by spaces, or by a dash as people write them: "no 13-14".

    Raises:
        FileError: a kind is not known.
    """
    names = {**{k.name.lower(): k.key for k in unit_kinds().values()}, **{k: k for k in unit_kinds()}}
    found = []
    for piece in (p.strip() for p in text.split(";") if p.strip()):
        word, _, pins = piece.partition(" ")
        kind = names.get(word.lower(), "")
        if not kind:
            raise FileError(f"“{word}” is no kind of unit. Write for example: coil A1 A2; no 13 14.", field="units")
        listed = pins.split()
        if len(listed) == 1 and _DASHED.fullmatch(listed[0]):
            listed = listed[0].split("-")
        found.append((kind, tuple("" if p == NAMELESS else p for p in listed) or ("",)))
    return tuple(found)


def guessed_mapping(headings: Iterable[str], own: Mapping[str, str] | None = None) -> dict[str, str]:
    """Return for each heading the field it most likely is, IGNORED for those that say nothing to us.

    Args:
        own: fields that people added, key to name.
    """
    known = {_plain(heading): field for field, heading in COMMON.items()}
    known.update({_plain(field): field for field in COMMON})
    for key, spec in part_fields().items():
        known.setdefault(_plain(spec.name), key)
        known.setdefault(_plain(f"{spec.name} {spec.unit}"), key)
        known.setdefault(_plain(key), key)
    for key, name in (own or {}).items():
        known.setdefault(_plain(name), key)
        known.setdefault(_plain(key), key)
    known.update({k: f for k, f in _ALSO.items() if k not in known})
    return {heading: known.get(_plain(heading), IGNORED) for heading in headings if heading.strip()}


def _plain(text: str) -> str:
    return " ".join(re.sub(r"[^a-z0-9²]+", " ", text.lower()).split())


def check_rows(
    cells: list[list[str]],
    mapping: Mapping[str, str],
    existing: Callable[[str, str], Part | None],
    told: Callable[[int], None] = lambda done: None,
) -> list[CheckedRow]:
    """Return every row of a table of parts with what is wrong in it; nothing is taken in by this.

    Args:
        cells: the table, headings first.
        mapping: heading to field, IGNORED or absent for columns that are passed over.
        existing: gives the library's part of a maker and number, in any case, None when there is none.
        told: is told after each row how many were read.

    Raises:
        FileError: the table has no headings, or none of them is mapped to the number.
    """
    if not cells or not any(c.strip() for c in cells[0]):
        raise FileError("The table has no headings. Its first row should name the columns.")
    headings = [h.strip() for h in cells[0]]
    columns = {i: mapping[h] for i, h in enumerate(headings) if mapping.get(h, IGNORED) != IGNORED}
    if "number" not in columns.values():
        raise FileError("Say which column has the part's number.", field="number")
    for field in dict.fromkeys(columns.values()):
        several = [headings[i] for i, other in columns.items() if other == field]
        if len(several) > 1:
            names = " and ".join(f"“{h}”" for h in several)
            what = {**COMMON, **TOLD}.get(field) or (part_fields()[field].name if field in part_fields() else field)
            raise FileError(f"{names} are both taken for {what.lower()}. Choose which of them it is.", field="number")
    rows: list[CheckedRow] = []
    seen: dict[tuple[str, str], int] = {}
    for line, row in enumerate(cells[1:], start=2):
        if any(c.strip() for c in row):
            rows.append(_checked(line, row, headings, columns, existing, seen))
        told(line - 1)
    return rows


def _checked(
    line: int,
    row: list[str],
    headings: list[str],
    columns: dict[int, str],
    existing: Callable[[str, str], Part | None],
    seen: dict[tuple[str, str], int],
) -> CheckedRow:
    problems: list[BadCell] = []
    values: dict[str, str] = {}
    heading_of: dict[str, str] = {}
    for i, field in columns.items():
        text = " ".join(row[i].split()) if i < len(row) else ""
        heading_of[field] = headings[i]
        if text.startswith("="):
            problems.append(BadCell(headings[i], "a formula: put its value in its place"))
        elif text:
            values[field] = text
    number, maker = values.get("number", ""), values.get("maker", "")
    if not number:
        problems.append(BadCell(heading_of["number"], "no number"))
    before = existing(maker, number) if number else None
    class_key = _class_in(values.get("part_class", "")) or (before.part_class if before else "")
    if not class_key:
        said = values.get("part_class", "")
        words = f"there is no class “{said}”" if said else "no class"
        problems.append(BadCell(heading_of.get("part_class", "Class"), words))
        return CheckedRow(line, "bad", None, problems, [])
    subject = (maker.lower(), number.lower())
    if number and subject in seen:
        problems.append(BadCell(heading_of["number"], f"the same maker and number as in row {seen[subject]}"))
    seen.setdefault(subject, line)
    part = before or replace(new_part(class_key), units=())
    part = _filled(replace(part, part_class=class_key), values, heading_of, problems)
    if not problems:
        try:
            part = check_part(part)
        except FileError as error:
            problems.append(BadCell(heading_of.get(error.field, error.field or "Number"), error.message))
    if problems:
        return CheckedRow(line, "bad", part, problems, [])
    changes = differences(before, part) if before else []
    return CheckedRow(line, "changed" if changes else "same" if before else "new", part, [], changes)


def _class_in(said: str) -> str:
    if is_class(said.strip()):
        return said.strip()
    key = said.strip().lower()
    return next((c.key for c in part_classes().values() if key and key in (c.key, c.name.lower())), "")


def _filled(part: Part, values: dict[str, str], heading_of: dict[str, str], problems: list[BadCell]) -> Part:
    """Return a part with the values of a row; what is wrong is noted, and left out."""
    specs = part_fields()
    ratings = dict(part.ratings)
    found: dict[str, Any] = {}
    for field, text in values.items():
        try:
            if field in _NUMBERS:
                found[field] = _measure(text, field)
            elif field == "units":
                found["units"], found["details"] = units_in(text), ()
            elif field in _LISTS:
                found[field] = tuple(n.strip() for n in text.split(",") if n.strip())
            elif field == "mounting":
                found[field] = _mounting(text)
            elif field in COMMON and field != "part_class":
                found[field] = text
            elif field != "part_class" and field not in TOLD:
                ratings[field] = checked(specs[field], text) if field in specs else text
        except FileError as error:
            problems.append(BadCell(heading_of[field], error.message))
    if found.get("units") == part.units:
        del found["units"], found["details"]
    filled = replace(part, ratings=ratings, **found)
    if "cores" not in values:
        return filled
    try:
        return _with_told_cores(filled, values)
    except FileError as error:
        problems.append(BadCell(heading_of["cores"], error.message))
        return filled


def _with_told_cores(part: Part, values: dict[str, str]) -> Part:
    """Return a cable with the cores its row tells, refused where another column of the row says otherwise."""
    if "units" in values:
        raise FileError("the row's units say the cores, too: take one of them", field="cores")
    told = cores_told(part, values["cores"])
    own: dict[str, str] = {
        key: part.ratings[key] for key in ("cross_section_mm2", "awg") if key in values and key in part.ratings
    }
    for key, size in own.items():
        if told.ratings.get(key, size) != size:
            raise FileError(f"“{values['cores']}” says another size than its own column, {size}", field="cores")
    return replace(told, ratings={**told.ratings, **own})


def _measure(text: str, field: str) -> float:
    scales = _SCALES["kg" if field == "weight_kg" else "mm"] if field != "price" else {"": 1.0}
    match = _PRESENT.fullmatch(text)
    number = number_in(match[1]) if match else number_in(text)
    unit = (match[2] or "") if match else ""
    if number is None or number < 0:
        raise FileError(f"“{text}” is no number", field=field)
    if unit not in scales:
        raise FileError(f"“{text}”: {unit} cannot be used here", field=field)
    return round(number * scales[unit], 6)


def _mounting(text: str) -> str:
    found = next((m for m in MOUNTINGS if m and m == text.lower()), "")
    if not found:
        raise FileError(f"“{text}” should be one of {', '.join(m for m in MOUNTINGS if m)}", field="mounting")
    return found
