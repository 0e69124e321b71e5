"""Project files of older versions, brought up step by step; each step knows only its own and the next version."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from jolly_core.model import MOUNTINGS, SHEET_KINDS, SHEET_SIZES_MM, STANDARDS, WIRE_CATEGORIES, FileError
from jolly_core.model.entities.structure import FRAMES, TAG_HABITS, TAG_SCOPES, WIRE_PATTERNS

VersionStep = Callable[[dict[str, Any]], None]


def _words_of_sheets(entities: dict[str, Any]) -> None:
    """Version 2 says of sheets and settings which words they may have; version 1 took any and showed the usual."""
    for sheet in _records(entities, "sheet"):
        _usual(sheet, "kind", SHEET_KINDS, "schematic")
        _usual(sheet, "size", SHEET_SIZES_MM, "A3")
        _usual(sheet, "frame", FRAMES, "zones")
    for settings in _records(entities, "settings"):
        _usual(settings, "standard", STANDARDS, "iec")


def _more_kinds(entities: dict[str, Any]) -> None:
    """Version 3 has more kinds of thing and more fields; what version 2 says stays as it is."""


def _rules_for_tags(entities: dict[str, Any]) -> None:
    """Version 4 has rules for tags in place of letters by class, and parts with the places version 3 left open."""
    rules: list[dict[str, Any]] = []
    for settings in _records(entities, "settings"):
        letters = settings.pop("class_letters", {})
        for key, value in letters.items() if isinstance(letters, dict) else ():
            rules.append({"id": f"letters-{key}", "part_class": key, "letters": value})
    if rules:
        entities["tag_rule"] = rules
    for part in _records(entities, "part"):
        if part.get("mounting") == "door":
            part["mounting"] = "door hole"
        _usual(part, "mounting", MOUNTINGS, "rail")


def _bounds_of_fields(entities: dict[str, Any]) -> None:
    """Version 5 says how large and how long what stands in a field may be, and of more fields which words.

    What is beyond all measure is refused by name and not guessed at; words that version 4 took and passed over become
    the usual ones.
    """
    for kind, field, words, usual in (
        ("settings", "tag_habit", TAG_HABITS, "iec"),
        ("settings", "tag_scope", TAG_SCOPES, "place"),
        ("settings", "wire_pattern", WIRE_PATTERNS, "line"),
        ("wire_type", "category", WIRE_CATEGORIES, "control-dc"),
    ):
        for record in _records(entities, kind):
            _usual(record, field, words, usual)


def _planned_terminals(entities: dict[str, Any]) -> None:
    """Version 6 has terminals that are planned, levels, and parts of bridges; what version 5 says stays as it is."""


def _more_of_points(entities: dict[str, Any]) -> None:
    """Version 7 says more of points and cards, and how conductors are laid; what version 6 says stays as it is."""


def _circuits_of_channels(entities: dict[str, Any]) -> None:
    """Version 8 knows what was drawn with a channel, and the wiring check; what version 7 says stays as it is."""


def _lanes(entities: dict[str, Any]) -> None:
    """Version 9 has more surfaces, lanes, crossings and passages; what version 8 says stays as it is."""


def _solids(entities: dict[str, Any]) -> None:
    """Version 10 has pictures of parts in space, and layouts as stamps; what version 9 says stays as it is."""


def _harnesses_in_space(entities: dict[str, Any]) -> None:
    """Version 11 says where harnesses run in space and what lies over them; what version 10 says stays as it is."""


def _harnesses_as_blocks(entities: dict[str, Any]) -> None:
    """Version 12 has harnesses as blocks, their shields and variants; what version 11 says stays as it is."""


def _harnesses_apart(entities: dict[str, Any]) -> None:
    """Version 13 says how wires lie in clips and which bundles stay apart; what version 12 says stays as it is."""


def _issuing(entities: dict[str, Any]) -> None:
    """Version 14 has recipes, packs and revisions; what version 13 says stays as it is."""


def _notes_and_languages(entities: dict[str, Any]) -> None:
    """Version 15 has layers, things that move together and other languages; what version 14 says stays as it is."""


# The steps by number: the first brings a file of version 1 to version 2.
STEPS: tuple[VersionStep, ...] = (
    _words_of_sheets,
    _more_kinds,
    _rules_for_tags,
    _bounds_of_fields,
    _planned_terminals,
    _more_of_points,
    _circuits_of_channels,
    _lanes,
    _solids,
    _harnesses_in_space,
    _harnesses_as_blocks,
    _harnesses_apart,
    _issuing,
    _notes_and_languages,
)
VERSION = len(STEPS) + 1


def _records(entities: dict[str, Any], kind: str) -> list[dict[str, Any]]:
    records = entities.get(kind, [])
    return [r for r in records if isinstance(r, dict)] if isinstance(records, list) else []


def _usual(record: dict[str, Any], field: str, allowed: Any, usual: str) -> None:
    if field in record and record[field] not in allowed:
        record[field] = usual


def bring_up(version: object, entities: dict[str, Any]) -> None:
    """Bring the entities of an older file to the current version, in place.

    Raises:
        FileError: the version is newer than this program, or none at all.
    """
    if type(version) is not int or not 1 <= version <= VERSION:
        raise FileError(
            f"The file has version {version!r}; this program reads versions 1 to {VERSION}.", field="version"
        )
    for step in STEPS[version - 1 :]:
        step(entities)
