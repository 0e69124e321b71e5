"""Project files of older versions, brought up step by step; each step knows only its own and the next version."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from jolly_core.model import FRAMES, MOUNTINGS, SHEET_KINDS, SHEET_SIZES_MM, STANDARDS, FileError

VERSION = 4


def _to_2(entities: dict[str, Any]) -> None:
    """Version 2 says of sheets and settings which words they may have; version 1 took any and showed the usual."""
    for sheet in _records(entities, "sheet"):
        _usual(sheet, "kind", SHEET_KINDS, "schematic")
        _usual(sheet, "size", SHEET_SIZES_MM, "A3")
        _usual(sheet, "frame", FRAMES, "zones")
    for settings in _records(entities, "settings"):
        _usual(settings, "standard", STANDARDS, "iec")


def _to_3(entities: dict[str, Any]) -> None:
    """Version 3 has more kinds of thing and more fields; what version 2 says stays as it is."""


def _to_4(entities: dict[str, Any]) -> None:
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


STEPS: dict[int, Callable[[dict[str, Any]], None]] = {1: _to_2, 2: _to_3, 3: _to_4}


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
    for step in range(version, VERSION):
        STEPS[step](entities)
