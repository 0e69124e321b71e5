"""Reference designations and line-reference tags.

IEC habit: =function+location-letters number (IEC 81346-1), = and + left out where the sheet's own apply. Line habit:
letters and the ladder line of the lead symbol, with A, B for a second and third of the same letters on one line; on a
sheet of another location the device's own stands before it.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

from jolly_core.drawing import ladder_line, sheets_with_line
from jolly_core.library import base_of, definition, part_class
from jolly_core.model import Device, Function, Location, Project, Sheet, Symbol, TagRule, derived

from .natural import NaturalKey, natural
from .units import is_on_no_line, lead_of

NO_TAG = "?"


Place = tuple[str, str]
NOWHERE: Place = ("", "")


def tag_rules(project: Project, class_key: str, place: Place) -> list[TagRule]:
    """Return the tag rules that hold for devices of a class at a (function, location), the most particular first.

    A rule of a place goes before one of the class alone, that before one of all classes; the younger before the older.
    """
    function_id, location_id = place
    base = base_of(class_key)
    # What holds for lamps holds for a class like lamps, unless that has letters of its own.
    own_letters = class_key != base and _letters(class_key) != _letters(base)
    likes = (class_key,) if own_letters else (class_key, base)

    def holds(rule: TagRule) -> bool:
        return (
            (not rule.part_class or rule.part_class in likes)
            and (not rule.function_id or lies_in(project.functions, function_id, rule.function_id))
            and (not rule.location_id or lies_in(project.locations, location_id, rule.location_id))
        )

    found = [r for r in project.tag_rules.values() if holds(r)]
    return sorted(
        found,
        key=lambda r: (
            bool(r.function_id) + bool(r.location_id),
            bool(r.part_class) + (r.part_class == class_key),
            r.id,
        ),
        reverse=True,
    )


def _letters(class_key: str) -> tuple[str, str]:
    kind = part_class(class_key) if class_key else None
    return (kind.iec, kind.na) if kind else ("", "")


def lies_in(table: Mapping[str, Function | Location], id: str, ancestor: str) -> bool:
    """Return whether a function or location is another or lies in it, however deep."""
    seen: set[str] = set()
    while id and id not in seen:
        if id == ancestor:
            return True
        seen.add(id)
        id = table[id].parent_id if id in table else ""
    return False


def class_letters(project: Project, class_key: str, place: Place = NOWHERE) -> str:
    """Return the letters of a part class at a (function, location): by the project's tag rules, else the standard's."""
    own = next((r.letters for r in tag_rules(project, class_key, place) if r.letters), "")
    return own or part_class(class_key).letters(project.settings.standard)


def first_number(project: Project, class_key: str, place: Place) -> int:
    """Return the number that devices of a class at a (function, location) begin with, 1 unless a tag rule says more."""
    return next((r.start for r in tag_rules(project, class_key, place) if r.start), 1)


def class_of(project: Project, device: Device, symbol: Symbol | None = None) -> str:
    """Return the part class of a device: its part's, else that of its lead symbol, "" while it has neither."""
    part = project.part_of(device)
    if part is not None:
        return part.part_class
    lead = symbol or lead_of(project, device.id)
    if lead is not None:
        return definition(lead.definition).part_class
    # What no symbol stands for is told by what it is in the project.
    kinds = (k for id in project.attached.get(device.id) for k in ("cable", "enclosure") if id in project.tables[k])
    return next(kinds, "")


def letters_for(project: Project, device: Device, symbol: Symbol | None = None) -> str:
    """Return the class letters a device should have: its part's class, else its lead symbol's."""
    key = class_of(project, device, symbol)
    return class_letters(project, key, (device.function_id, device.location_id)) if key else device.letters


def next_number(
    project: Project, letters: str, function_id: str, location_id: str, *, but: str = "", start: int = 1
) -> int:
    """Return the lowest running number from `start` not yet used with these letters in the project's tag scope."""
    everywhere = _everywhere(project)
    number = start
    while any(
        id != but and (everywhere or (d.function_id, d.location_id) == (function_id, location_id))
        for id in project.devices_tagged.get(f"{letters}{number}")
        for d in (project.devices[id],)
    ):
        number += 1
    return number


def _everywhere(project: Project) -> bool:
    """Return whether a tag may be there once only: so by choice, and always where tags have no = and +."""
    return project.settings.tag_scope == "project" or project.settings.tag_habit == "line"


def naming(project: Project, class_key: str, place: Place, *, but: str = "") -> tuple[str, int]:
    """Return letters and running number of a new device of a class at a (function, location)."""
    letters = class_letters(project, class_key, place)
    return letters, next_number(project, letters, *place, but=but, start=first_number(project, class_key, place))


def renamed_at(project: Project, device: Device, place: Place) -> Device:
    """Return a device at a (function, location), with the letters and a free number that it has there."""
    there = replace(device, function_id=place[0], location_id=place[1])
    key = class_of(project, device)
    letters = letters_for(project, there)
    start = first_number(project, key, place) if key else 1
    return replace(there, letters=letters, number=next_number(project, letters, *place, but=device.id, start=start))


def tag_taken(project: Project, tag: str, function_id: str, location_id: str, *, but: str = "") -> bool:
    """Return whether a device in the tag scope of the project has a tag, fixed or running, or the tag is empty."""
    if not tag:
        return True
    everywhere = _everywhere(project)
    return any(
        id != but and (everywhere or (d.function_id, d.location_id) == (function_id, location_id))
        for id in project.devices_tagged.get(tag)
        for d in (project.devices[id],)
    )


def product_tag(project: Project, device: Device) -> str:
    """Return the tag without = and + and without the leading mark, for example "QA1" or "PB214A"."""
    if device.fixed_tag:
        return device.fixed_tag
    if project.settings.tag_habit == "iec":
        return f"{device.letters}{device.number}"
    lead = lead_of(project, device.id)
    if lead is not None and _was_made(project, device.id):
        return f"{device.letters}{device.number}"  # it had its tag before anything of it was drawn
    if lead is None:
        return f"{device.letters}{device.number if is_on_no_line(project, device.id) else NO_TAG}"
    return _line_tag(project, device, lead)


def _was_made(project: Project, device_id: str) -> bool:
    """Return whether a device is a strip that was made before anything of it was drawn."""
    return any(project.strips[id].made for id in project.attached.get(device_id) if id in project.strips)


def _line_tag(project: Project, device: Device, lead: Symbol) -> str:
    """Return letters and line, with the first suffix that no device before it and no fixed or stored tag has.

    Those before it are the leads of the same letters on a line of this number, sheet by sheet, from left to right.
    """
    sheet = project.sheets[lead.sheet_id]
    line = ladder_line(sheet, lead.x, lead.y)
    return _line_tags(project, line, device.letters, "" if line in sheets_with_line(project) else sheet.id)[lead.id]


@derived
def _line_tags(project: Project, line: int, letters: str, sheet_id: str) -> dict[str, str]:
    """Return the tags of the leads of some letters on a ladder line, on the sheet alone where none counts the line."""
    tags: dict[str, str] = {}
    position = 0
    for there in sheets_with_line(project).get(line) or [project.sheets[sheet_id]]:
        same = [
            s
            for s in project.symbols_on(there.id)
            if s.device_id
            and ladder_line(there, s.x, s.y) == line
            and project.devices[s.device_id].letters == letters
            and not project.devices[s.device_id].fixed_tag
            and definition(s.definition).lead < 9
            and lead_of(project, s.device_id) == s
        ]
        for symbol in sorted(same, key=lambda s: (s.x, s.y, s.id)):
            while _is_shown(project, tag := f"{letters}{line}{_suffix(position)}"):
                position += 1
            tags[symbol.id] = tag
            position += 1
    return tags


def _is_shown(project: Project, tag: str) -> bool:
    """Return whether a tag of the line habit is a fixed one, or that of a device that is on no line."""
    return any(
        device.fixed_tag or is_on_no_line(project, id)
        for id in project.devices_tagged.get(tag)
        for device in (project.devices[id],)
    )


def _suffix(position: int) -> str:
    name = ""
    while position > 0:
        position, rest = divmod(position - 1, 26)
        name = chr(65 + rest) + name
    return name


def path_of(table: Mapping[str, Function | Location], id: str, mark: str) -> str:
    """Return the marked path of a function or location, for example "=K2.S"; "" for none."""
    codes: list[str] = []
    seen: set[str] = set()
    while id and id in table and id not in seen:
        seen.add(id)
        codes.append(table[id].code)
        id = table[id].parent_id
    return mark + ".".join(reversed(codes)) if codes else ""


@derived
def _path(project: Project, kind: str, id: str) -> str:
    """Return the path of a function or location by its kind, kept: every whole tag asks for it."""
    return path_of(project.functions, id, "=") if kind == "function" else path_of(project.locations, id, "+")


def full_tag(project: Project, device: Device) -> str:
    """Return the whole reference designation, for example "=K2+KP2-QA1"; the line habit has no marks."""
    tag = product_tag(project, device)
    if project.settings.tag_habit == "line":
        return tag
    function = _path(project, "function", device.function_id) if device.function_id else ""
    location = _path(project, "location", device.location_id) if device.location_id else ""
    return f"{function}{location}-{tag}"


def tag_order(project: Project, device: Device) -> tuple[NaturalKey, str]:
    """Return the key by which devices stand in lists: by their whole tags as people count, equal ones by their ids."""
    return natural(full_tag(project, device)), device.id


def short_tag(project: Project, device: Device) -> str:
    """Return the tag without function and location: "-QA1", or as it is in the line habit, which has no marks."""
    tag = product_tag(project, device)
    return tag if project.settings.tag_habit == "line" else f"-{tag}"


def tag_on(project: Project, device: Device, sheet: Sheet) -> str:
    """Return the tag as it is shown on a sheet, = and + only where they differ from the sheet's.

    In the line habit a tag is unique by its line; where a device is not at its sheet's location, that is shown still.
    """
    tag = product_tag(project, device)
    if project.settings.tag_habit == "line":
        elsewhere = device.location_id and sheet.location_id and device.location_id != sheet.location_id
        return f"{path_of(project.locations, device.location_id, '+')}-{tag}" if elsewhere else tag
    prefix = ""
    if device.function_id != sheet.function_id:
        prefix += path_of(project.functions, device.function_id, "=")
    if device.location_id != sheet.location_id:
        prefix += path_of(project.locations, device.location_id, "+")
    return f"{prefix}-{tag}"


def called_on(project: Project, symbol: Symbol, sheet: Sheet) -> str:
    """Return what a symbol is called on a sheet: its device's tag, or its definition's name where it has no device."""
    device = project.devices.get(symbol.device_id)
    return tag_on(project, device, sheet) if device else definition(symbol.definition).name
