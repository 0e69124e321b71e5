"""Fields of parts and facts about units as data: names, units, and what may stand in them."""

from __future__ import annotations

import json
import re
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Literal

from jolly_core.model import FileError

YES, NO = "yes", "no"


FieldKind = Literal["number", "text", "choice", "flag", "parts"]
FIELD_KINDS: tuple[FieldKind, ...] = ("number", "text", "choice", "flag", "parts")


@dataclass(slots=True, frozen=True)
class FieldSpec:
    """A field of a part class, or a fact about units of a kind.

    Attributes:
        key: name in records, with the unit at its end ("coil_voltage_v").
        name: what people read.
        unit: physical unit, "" for none.
        kind: "number", "text", "choice", "flag" (yes or no), or "parts" (numbers of parts, parted by commas).
        choices: the words a choice may have.
        least, most: bounds of a number, None for none; a number is at least nothing unless it says otherwise.
        whole: a number that counts something.
        form: what a text must look like as a whole, "" for anything; a regular expression, in small letters.
        example: such a text, for the message.
    """

    key: str
    name: str
    unit: str = ""
    kind: FieldKind = "text"
    choices: tuple[str, ...] = ()
    least: float | None = 0.0
    most: float | None = None
    whole: bool = False
    form: str = ""
    example: str = ""


def _read(file: str) -> dict[str, FieldSpec]:
    text = files("jolly_core.library").joinpath("data", file).read_text(encoding="utf-8")
    return {raw["key"]: FieldSpec(**{**raw, "choices": tuple(raw.get("choices", ()))}) for raw in json.loads(text)}


@cache
def part_fields() -> dict[str, FieldSpec]:
    """Return every field that comes along, by key."""
    return _read("part_fields.json")


@cache
def unit_facts() -> dict[str, FieldSpec]:
    """Return every fact that may be said of a unit, by key."""
    return _read("unit_facts.json")


def number_in(value: str) -> float | None:
    """Return a typed number, with point or comma, None when it is none.

    Example:
        >>> number_in(" 1,5 ")
        1.5
    """
    try:
        number = float(value.strip().replace(",", "."))
    except ValueError:
        return None
    return number if abs(number) < 1e12 else None


def checked(spec: FieldSpec, value: str) -> str:
    """Return a value as it is kept: numbers with a point, without their unit; choices as they are spelt.

    Raises:
        FileError: it is not what the field may have; the message names the field and what it may be.

    Example:
        >>> checked(FieldSpec("coil_voltage_v", "Coil voltage", "V", "number"), "24 V")
        '24'
    """
    text = " ".join(value.split())
    if not text:
        return ""
    if spec.kind == "number":
        bare = text.removesuffix(spec.unit).strip() if spec.unit else text
        number = number_in(bare)
        if number is None:
            unit = f" in {spec.unit}" if spec.unit else ""
            raise FileError(f"{spec.name}: “{text}” is no number{unit}.", field=spec.key)
        _bounded(spec, number)
        return f"{number:g}" if abs(number) < 1e6 else str(number)
    if spec.kind == "choice":
        for choice in spec.choices:
            if choice.lower() == text.lower():
                return choice
        raise FileError(f"{spec.name}: “{text}” should be one of {', '.join(spec.choices)}.", field=spec.key)
    if spec.kind == "flag":
        if text.lower() in (YES, "y", "true", "1", "x"):
            return YES
        if text.lower() in (NO, "n", "false", "0", "-"):
            return NO
        raise FileError(f"{spec.name}: “{text}” should be yes or no.", field=spec.key)
    if spec.form and spec.unit and text.lower().startswith(spec.unit.lower()):
        text = text[len(spec.unit) :].strip()  # "AWG 16"
    if spec.form and not re.fullmatch(spec.form, text.lower()):
        raise FileError(f"{spec.name}: “{text}” should be like {spec.example}.", field=spec.key)
    return text


def _bounded(spec: FieldSpec, number: float) -> None:
    """Refuse a number out of its bounds, or no whole one where something is counted."""
    said = f"{spec.name}: {number:g}"
    if spec.least is not None and number < spec.least:
        least = "nothing" if spec.least == 0 else f"{spec.least:g}"
        raise FileError(f"{said} is less than {least}.", field=spec.key)
    if spec.most is not None and number > spec.most:
        raise FileError(f"{said} is more than {spec.most:g}.", field=spec.key)
    if spec.whole and number != int(number):
        raise FileError(f"{said} is no whole number.", field=spec.key)
