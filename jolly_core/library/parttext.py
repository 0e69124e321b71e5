"""A part from pasted text: a table of a web page or data sheet, one property a line, name and value."""

from __future__ import annotations

import re
from dataclasses import dataclass, replace
from typing import Any

from jolly_core.model import FileError, Part

from .classes import PartClass, is_class, part_class, part_classes
from .fields import part_fields
from .quantities import decimal_sign
from .texttold import Told, added, take_attribute, take_count, take_range, take_rating, unit_of
from .unitkinds import Unit, next_pins

# What properties are called on data sheets, beside the names of the fields themselves.
_LABELS: dict[str, tuple[str, ...]] = {
    "maker": ("maker", "manufacturer", "brand", "make", "made by"),
    "number": ("number", "part number", "part no", "article number", "article no", "article", "type", "model", "mpn"),
    "order_number": ("order number", "order no", "order code", "ordering code", "supplier number"),
    "text": ("description", "product description", "designation", "product", "name", "title"),
    "supplier": ("supplier", "distributor", "vendor"),
    "width_mm": ("width", "width mm", "w"),
    "height_mm": ("height", "height mm", "h"),
    "depth_mm": ("depth", "depth mm", "d", "length"),
    "diameter_mm": ("diameter", "mounting diameter", "outer diameter of the head", "⌀", "ø"),
    "weight_kg": ("weight", "net weight", "mass"),
    "price": ("price", "list price", "unit price"),
    "mounting": ("mounting", "mounting type", "fixing"),
    "class": ("class", "product class", "category", "product type", "product group"),
    "link": ("link", "url", "web", "page"),
    "size": ("dimensions", "size", "dimensions w x h x d", "w x h x d"),
    "units": ("contacts", "contact configuration", "poles", "number of poles", "auxiliary contacts"),
    "pins": ("pins", "terminals", "terminal markings", "terminal marking", "connections", "pin markings"),
}
_FIELD_LABELS: dict[str, tuple[str, ...]] = {
    "coil_voltage_v": ("control voltage", "rated control supply voltage", "coil"),
    "ac3_a": ("rated current ac3", "operational current ac3", "ac3"),
    "voltage_v": ("operating voltage", "rated voltage", "supply voltage", "voltage"),
    "loss_w": ("power dissipation", "power loss", "heat dissipation"),
    "colour": ("color", "lens colour", "lens color"),
    "rated_a": ("current", "nominal current"),
    "hole_mm": ("mounting hole", "hole diameter", "cut-out", "cutout"),
}
_CLASS_WORDS = {
    "lamp": ("lamp", "indicator", "pilot light", "signal light"),
    "push-button": ("push button", "pushbutton", "push-button"),
    "breaker": ("circuit breaker", "mcb"),
    "drive": ("frequency converter", "inverter", "variable speed drive"),
    "power-supply": ("power supply",),
    "relay": ("relay",),
    "contactor": ("contactor",),
    "terminal": ("terminal block", "feed-through"),
    "cable": ("cable",),
}
# Labels of a range that two fields hold, from and to.
_RANGE_LABELS: dict[tuple[str, str], tuple[str, ...]] = {
    ("setting_min_a", "setting_max_a"): ("setting range", "current setting", "adjustment range", "setting"),
    ("cross_section_min_mm2", "cross_section_max_mm2"): (
        "cross section",
        "conductor cross section",
        "wire range",
        "connectable conductor",
        "conductor size",
        "rated cross section",
    ),
    ("insulation_min_mm", "insulation_max_mm"): ("insulation diameter", "insulation", "insulation range"),
}


@dataclass(slots=True, frozen=True)
class Reading:
    """A part as far as a text tells it, with the lines understood, (line, field), and those that were not."""

    part: Part
    understood: list[tuple[str, str]]
    left: list[str]


def part_from_text(text: str, class_key: str = "") -> Reading:
    """Return what a pasted table says of a part; lines that cannot be placed are handed back.

    Each line is a name and a value, parted by a tab, a colon or two spaces. The class is the one given, else it is
    guessed from the words. A line is understood whole or handed back: numbers in either writing, fractions, ranges, and
    units of both systems are.

    Raises:
        FileError: there is nothing to read, or the class is not known.
    """
    lines = [line.strip() for line in text.splitlines() if line.strip()]
    if not lines:
        raise FileError("Paste at least one line: a property and its value.", field="text")
    pairs = [_pair(line) for line in lines]
    key = class_key or _class_in(pairs, text)
    if not is_class(key):
        raise FileError("Choose the class: the text does not say what kind of part it is.", field="part_class")
    kind = part_class(key)
    said: dict[str, Any] = {}
    ratings: dict[str, str] = {}
    understood: list[tuple[str, str]] = []
    left: list[str] = []
    counts: dict[str, dict[str, int]] = {}  # by label: kind of unit and how many
    sign = decimal_sign(text)
    pins: list[tuple[str, ...]] = []
    for line, (name, value) in zip(lines, pairs, strict=True):
        field = _field_of(name, kind)
        told = Told(value, sign, unit_of(line, name))
        if field == "class":
            done = True
        elif field == "units":
            done = name not in counts and take_count(counts, name, value, kind)
        elif field == "pins":
            pins = [tuple(re.split(r"\s*[-–/]\s*", p.strip())) for p in re.split(r"[,;]", value) if p.strip()]
            done = bool(pins)
        elif field in _PAIRS:
            done = take_range(ratings, *_PAIRS[field], told)
        elif field in part_fields():
            done = field not in ratings and take_rating(ratings, part_fields()[field], told, kind)
        else:
            done = bool(field) and field not in said and take_attribute(said, field, told)
        if done:
            understood.append((line, field))
        elif not (name == "" and take_attribute(said, "text", told) if "text" not in said else False):
            left.append(line)
    if "colour" in kind.ratings and "colour" not in ratings:
        colour = re.search(r"\b(red|green|yellow|blue|white|black|clear|amber)\b", text, re.IGNORECASE)
        if colour:
            ratings["colour"] = colour[1].lower()
    part = Part("", said.pop("maker", ""), said.pop("number", ""), key, mounting=said.pop("mounting", ""))
    part = replace(part, ratings=ratings, units=_units(kind, added(counts), pins), **said)
    if not part.mounting:
        part = replace(part, mounting="door hole" if "hole_mm" in kind.ratings else "rail")
    return Reading(part, understood, left)


def _pair(line: str) -> tuple[str, str]:
    for split in (r"\t+", r"\s*:\s+", r"\s{2,}", r"\s*=\s*", r":"):
        pieces = re.split(split, line, maxsplit=1)
        if len(pieces) == 2 and pieces[0] and pieces[1]:
            return _plain(pieces[0]), pieces[1].strip()
    return "", line


def _plain(name: str) -> str:
    """Return a label in small letters, without units in brackets and marks."""
    return " ".join(re.sub(r"[\[(].*?[\])]|[^\w⌀øx°/ ]", " ", name.lower()).split())


def _class_in(pairs: list[tuple[str, str]], text: str) -> str:
    said = next((value for name, value in pairs if name in _LABELS["class"]), "")
    for words in (said.lower(), text.lower()):
        for key, kind in part_classes().items():
            if words and (kind.name.lower() == words or key == words):
                return key
        for key, names in _CLASS_WORDS.items():
            if any(n in words for n in names):
                return key
        named = [k for k in part_classes().values() if words and k.name.lower() in words]
        if named:
            return max(named, key=lambda k: len(k.name)).key
    return ""


def _field_of(name: str, kind: PartClass) -> str:
    """Return the field a label means for a class: a rating of it first, then what every part has, "" for none."""
    for key in kind.ratings:
        spec = part_fields()[key]
        if name and (name in (_plain(spec.name), key) or name in _FIELD_LABELS.get(key, ())):
            return key
    for (low, high), labels in _RANGE_LABELS.items():
        if name in labels and high in kind.ratings and low in kind.ratings:
            return _pair_label(low)
    for field, labels in _LABELS.items():
        if name in labels:
            return field
    return ""


def _pair_label(low: str) -> str:
    """Return what the two fields of a range are together called among the lines understood."""
    return low.partition("_min_")[0]


_PAIRS = {_pair_label(low): (low, high) for low, high in _RANGE_LABELS}


def _units(kind: PartClass, counts: list[tuple[str, int]], pins: list[tuple[str, ...]]) -> tuple[Unit, ...]:
    """Return the units a text tells: by counts with usual markings, by markings, else the usual ones of the class."""
    if counts:
        units = [u for u in kind.usual if u[0] not in {k for k, _ in counts} and u[0] in ("coil", "heater", "lamp")]
        for unit, count in counts:
            for _ in range(count):
                units.append((unit, next_pins(units, unit, kind.key)))
        return tuple(units)
    if pins:
        flat = tuple(p for group in pins for p in group if p)
        if len(kind.usual) == 1 and len(kind.usual[0][1]) == len(flat):
            return ((kind.usual[0][0], flat),)
        return tuple((_kind_of(group, kind), group) for group in pins)
    return kind.usual


def _kind_of(pins: tuple[str, ...], kind: PartClass) -> str:
    """Return the kind of unit that markings stand for by their last digits (EN 50005)."""
    ends = tuple(p[-1:] for p in pins)
    by_end = {("3", "4"): "no", ("1", "2"): "nc", ("1", "4", "2"): "co", ("7", "8"): "tno", ("5", "6"): "tnc"}
    wanted = by_end.get(ends, "")
    if pins[0].startswith("A") and "coil" in kind.units:
        return "coil"
    if len(pins) == 2 and len(pins[0]) == 1 and "pole" in kind.units:
        return "pole"
    return wanted if wanted in kind.units else kind.units[0]
