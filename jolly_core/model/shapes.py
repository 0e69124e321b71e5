"""How the values of fields look in JSON, by the type they are declared with: read with every check, and described."""

from __future__ import annotations

import json
import re
from collections.abc import Callable
from functools import cache, partial
from typing import Any

from .fields import MAX_BASE64, MAX_TEXT, Each, Field, Holds, Lined, Longest, OneOf, Units, Within, Written

LARGEST = 10**9
_BASE64 = re.compile(r"[A-Za-z0-9+/]*={0,2}")
_UNPRINTABLE = re.compile("[\x00-\x1f\x7f-\x9f\ud800-\udfff]")
Json = dict[str, Any]


def text_fault(value: str, most: int = MAX_TEXT) -> str:
    """Return what is wrong with a text, "" when nothing is: control characters or absurd length."""
    if len(value) > most:
        return f"is longer than {most} characters"
    if _UNPRINTABLE.search(value):
        return "holds characters that cannot be printed"
    return ""


class Unreadable(ValueError):
    """A value that does not look as its field is declared; the message goes on from the field's name."""


def _texts(found: tuple[str, ...] | list[str], field: Field) -> None:
    each = field.mark(Each)
    for text in found:
        fault = text_fault(text, each.most if each is not None else MAX_TEXT)
        if fault:
            raise Unreadable(fault)


def _document(value: Any) -> bool:
    try:
        return isinstance(value, str) and len(value) <= MAX_BASE64 and isinstance(json.loads(value), dict)
    except (ValueError, RecursionError):
        return False


def _base64(value: Any) -> bool:
    return (
        isinstance(value, str) and len(value) <= MAX_BASE64 and len(value) % 4 == 0 and bool(_BASE64.fullmatch(value))
    )


@cache
def _text_marks(field: Field) -> tuple[Holds | None, int, bool]:
    """Return what a text holds that is no words, how many letters it has at most, and whether it may have lines."""
    longest = field.mark(Longest)
    return field.mark(Holds), longest.most if longest is not None else MAX_TEXT, field.mark(Lined) is not None


def _read_text(value: Any, field: Field) -> str:
    holds, letters, lined = _text_marks(field)
    if holds is not None:
        most = f"of at most {MAX_BASE64 // 1000} kB"
        if holds.what == "json" and not _document(value):
            raise Unreadable(f"should be a JSON object {most}")
        if holds.what == "base64" and not _base64(value):
            raise Unreadable(f"should be base64 {most}")
        return str(value)
    if type(value) is not str:
        raise Unreadable("should be a text")
    fault = text_fault(value.replace("\n", " ") if lined else value, letters)
    if fault:
        raise Unreadable(fault)
    return value


def _read_number(kind: type, words: str) -> Callable[[Any, Field], Any]:
    def read(value: Any, field: Field) -> Any:
        if kind is float and type(value) is int and abs(value) <= 10**18:
            value = float(value)
        if type(value) is not kind:
            raise Unreadable(f"should be {words}")
        return value

    return read


def _read_ints(value: Any, field: Field) -> tuple[int, ...]:
    if isinstance(value, list) and all(type(v) is int and 0 <= v <= LARGEST for v in value):
        return tuple(value)
    raise Unreadable("should be a list of whole numbers")


def _read_floats(value: Any, field: Field) -> tuple[float, ...]:
    if isinstance(value, list) and all(type(v) in (int, float) and abs(v) <= LARGEST for v in value):
        return tuple(float(v) for v in value)
    raise Unreadable("should be a list of numbers")


def _read_names(value: Any, field: Field) -> tuple[str, ...]:
    if not isinstance(value, list) or not all(isinstance(v, str) for v in value):
        raise Unreadable("should be a list of texts")
    _texts(value, field)
    return tuple(value)


def _read_texts(value: Any, field: Field) -> dict[str, str]:
    if not isinstance(value, dict) or not all(isinstance(v, str) for v in value.values()):
        raise Unreadable("should be an object of texts")
    _texts([*map(str, value), *value.values()], field)
    return dict(value)


def _read_facts(value: Any, field: Field) -> tuple[dict[str, str], ...]:
    if not isinstance(value, list):
        raise Unreadable("should be a list of objects")
    return tuple(_read_texts(facts, field) for facts in value)


def _read_units(value: Any, field: Field) -> Units:
    try:
        units = tuple((str(kind), tuple(str(pin) for pin in pins)) for kind, pins in value)
    except (TypeError, ValueError):
        raise Unreadable("should list units as kind and pins") from None
    _texts([t for kind, pins in units for t in (kind, *pins)], field)
    return units


_STRINGS: Json = {"type": "array", "items": {"type": "string"}}
_OBJECT: Json = {"type": "object", "additionalProperties": {"type": "string"}}
_PAIR: Json = {"type": "array", "prefixItems": [{"type": "string"}, _STRINGS], "minItems": 2}
# For each type a field is declared with: what reads its values, and how a JSON Schema describes them.
SHAPES: dict[Any, tuple[Callable[[Any, Field], Any], Json]] = {
    str: (_read_text, {"type": "string"}),
    int: (_read_number(int, "a whole number"), {"type": "integer"}),
    float: (_read_number(float, "a number"), {"type": "number"}),
    bool: (_read_number(bool, "true or false"), {"type": "boolean"}),
    tuple[int, ...]: (_read_ints, {"type": "array", "items": {"type": "integer", "minimum": 0}}),
    tuple[float, ...]: (_read_floats, {"type": "array", "items": {"type": "number"}}),
    tuple[str, ...]: (_read_names, _STRINGS),
    dict[str, str]: (_read_texts, _OBJECT),
    tuple[dict[str, str], ...]: (_read_facts, {"type": "array", "items": _OBJECT}),
    Units: (_read_units, {"type": "array", "items": _PAIR}),
}


def reader(field: Field) -> Callable[[Any, Field], Any]:
    """Return what reads values of a field from JSON; it does not ask yet whether they are within bounds.

    It raises Unreadable for a value that does not look as declared.
    """
    return SHAPES[field.type][0]


def value_fault(value: Any, field: Field) -> str:
    """Return in what a value breaks the bounds of its field, "" when it keeps them."""
    for bound in bounds_of(field):
        fault = bound(value)
        if fault:
            return fault
    return ""


@cache
def bounds_of(field: Field) -> tuple[Callable[[Any], str], ...]:
    """Return what tells in what a value breaks each bound of a field, in the order they are declared."""
    found: list[Callable[[Any], str]] = []
    for mark in field.marks:
        if isinstance(mark, Within | Written):
            found.append(mark.fault)
        elif isinstance(mark, OneOf):
            found.append(partial(_not_among, mark.words))
        elif isinstance(mark, Longest):
            found.append(partial(_too_long, mark.most))
    return tuple(found)


def _not_among(words: tuple[Any, ...], value: Any) -> str:
    return "" if value in words else f"should be one of {', '.join(str(w) or 'nothing' for w in words)}"


def _too_long(most: int, value: Any) -> str:
    if len(value) <= most:
        return ""
    return f"is longer than {most} characters" if isinstance(value, str) else f"holds more than {most}"


def mended(value: Any, field: Field) -> Any:
    """Return a value within the bounds of its field in place of one that breaks them.

    Numbers become the nearest, lists are cut; what is none of the words becomes the default. Long texts stay.
    """
    for mark in field.marks:
        if isinstance(mark, Within) and mark.fault(value):
            value = mark.nearest(value)
        elif isinstance(mark, Longest) and isinstance(value, tuple):
            value = value[: mark.most]
        elif (isinstance(mark, OneOf) and value not in mark.words) or (isinstance(mark, Written) and mark.fault(value)):
            value = field.default if not field.required else mark.words[0] if isinstance(mark, OneOf) else ""
    return value


def described(field: Field) -> Json:
    """Return the JSON Schema of a field's values."""
    made = dict(SHAPES[field.type][1])
    holds = field.mark(Holds)
    if holds is not None:
        made |= {"contentMediaType": "application/json"} if holds.what == "json" else {"contentEncoding": "base64"}
    for mark in field.marks:
        if isinstance(mark, OneOf):
            return {"enum": list(mark.words)}
        if isinstance(mark, Within):
            made |= {"exclusiveMinimum" if mark.above else "minimum": mark.low, "maximum": mark.high}
        elif isinstance(mark, Longest):
            name = {"string": "maxLength", "array": "maxItems", "object": "maxProperties"}[made["type"]]
            made[name] = mark.most
        elif isinstance(mark, Written):
            made["pattern"] = f"^({mark.pattern})$"
    return made
