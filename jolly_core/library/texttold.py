"""What a value of a pasted line says: counts, ranges, ratings, measures and prices, each whole or not at all."""

from __future__ import annotations

import re
from dataclasses import dataclass
from typing import Any

from jolly_core.model import FileError

from .classes import PartClass
from .fields import FieldSpec, checked, part_fields
from .quantities import Quantity, number_of_text, quantity

_MOUNTINGS = {
    "rail": ("rail", "din rail", "top-hat"),
    "door hole": ("door", "panel", "front", "hole", "22"),
    "plate": ("plate", "screw"),
    "cable": ("cable", "in line"),
}
_COUNTED = re.compile(
    r"(\d+)\s*(?:x\s*)?(NO|NC|CO|C/O|changeovers?|poles?|pole|P)\b(?:\s*contacts?)?|(\d+)-pole\b", re.IGNORECASE
)
_KINDS = {"no": "no", "nc": "nc", "co": "co", "c/o": "co", "changeover": "co", "changeovers": "co"}
_KINDS |= {"p": "pole", "pole": "pole", "poles": "pole"}
MOST_UNITS = 40  # of one kind that a line may count; more is a slip
_POLE_LABELS = ("poles", "number of poles", "no of poles", "pole count")
_PRICE = re.compile(
    r"^(?P<before>€|\$|£|[A-Z]{3})?\s*(?P<number>[\d.,'’ \u00a0\u202f]*\d)\s*(?P<after>€|\$|£|[A-Z]{3})?"
    r"(?:\s*(?:each|net|per piece|/ ?pc|excl\. VAT))*$"
)
_CURRENCIES = {"€": "EUR", "$": "USD", "£": "GBP"}


@dataclass(slots=True, frozen=True)
class Told:
    """A value as a text tells it, the decimal sign of the text, and the unit that stands with the label."""

    value: str
    sign: str
    unit: str

    def quantity(self, unit: str) -> Quantity | None:
        """Return it in a unit, None unless the whole of it is understood."""
        return quantity(self.value, unit, self.sign, self.unit)


def unit_of(line: str, name: str) -> str:
    """Return the unit in brackets behind a label, "" for none: "Width [in]"."""
    match = re.match(r"[^\[(:=\t]*[\[(]\s*([^\])\d]{1,6}?[²2³]?(?:/h)?)\s*[\])]", line)
    return match[1].strip() if match and name else ""


def take_count(counts: dict[str, dict[str, int]], name: str, value: str, kind: PartClass) -> bool:
    """Take up the units that a value counts, if all of it is understood and the class has such units."""
    if name in _POLE_LABELS and value.strip().isdecimal():
        value = f"{value} poles"
    found: dict[str, int] = {}
    for match in _COUNTED.finditer(value):
        unit = _KINDS[(match[2] or "pole").lower()]
        found[unit] = found.get(unit, 0) + int(match[1] or match[3])
    rest = re.sub(r"[+&,;/()]|\band\b|\bcontacts?\b|\bauxiliary\b|\bmain\b", "", _COUNTED.sub("", value))
    if rest.strip() or not found or any(unit not in kind.units or n > MOST_UNITS for unit, n in found.items()):
        return False
    said_before = [other for label, other in counts.items() if (label in _POLE_LABELS) == (name in _POLE_LABELS)]
    if name in _POLE_LABELS and said_before:
        return found in said_before  # said twice
    counts[name] = found
    return True


def added(counts: dict[str, dict[str, int]]) -> list[tuple[str, int]]:
    """Return how many units of each kind all labels tell together."""
    total: dict[str, int] = {}
    for found in counts.values():
        for unit, count in found.items():
            total[unit] = total.get(unit, 0) + count
    return list(total.items())


def take_range(ratings: dict[str, str], low_key: str, high_key: str, told: Told) -> bool:
    """Take up a range into its two fields; one value alone is its end."""
    spec = part_fields()[high_key]
    found = told.quantity(spec.unit)
    if found is None or high_key in ratings or found.current:
        return False
    values = {low_key: found.low, high_key: found.high} if found.is_range else {high_key: found.high}
    return _kept(ratings, {key: f"{value:.6g}" for key, value in values.items()})


def take_rating(ratings: dict[str, str], spec: FieldSpec, told: Told, kind: PartClass) -> bool:
    """Take up the value of a field, with the kind of current where the class keeps it."""
    if spec.kind != "number":
        return _kept(ratings, {spec.key: told.value})
    found = told.quantity(spec.unit)
    if found is None or found.is_range:
        return False
    values = {spec.key: f"{found.low:.6g}"}
    if found.current in ("AC", "DC") and spec.key == "coil_voltage_v" and "coil_kind" in kind.ratings:
        values["coil_kind"] = found.current
    return _kept(ratings, values)


def _kept(ratings: dict[str, str], values: dict[str, str]) -> bool:
    """Take values up if each is one its field may have and none says another thing than before."""
    specs = part_fields()
    try:
        fresh = {key: checked(specs[key], value) for key, value in values.items()}
    except FileError:
        return False
    if not all(fresh.values()) or any(ratings.get(key, value) != value for key, value in fresh.items()):
        return False
    ratings.update(fresh)
    return True


def take_attribute(said: dict[str, Any], field: str, told: Told) -> bool:
    """Take up what every part has: a measure, the price, how it is mounted, or a text."""
    if field == "size":
        return _size(said, told)
    if field.endswith("_mm") or field == "weight_kg":
        found = told.quantity("kg" if field == "weight_kg" else "mm")
        if found is None or found.is_range or found.low < 0:
            return False
        said[field] = round(found.low, 6)
        return True
    if field == "price":
        return _price(said, told)
    if field == "mounting":
        said[field] = next((k for k, words in _MOUNTINGS.items() if any(w in told.value.lower() for w in words)), "")
        return bool(said[field])
    said[field] = " ".join(told.value.split())[:200]
    return True


def _size(said: dict[str, Any], told: Told) -> bool:
    """Take up two or three measures with a cross between them; a unit behind the last counts for all."""
    pieces = re.split(r"\s*[x×]\s*", re.sub(r"(?i)(?<![a-z])[whd]\b\s*", "", told.value).strip())
    if len(pieces) not in (2, 3):
        return False
    last = re.search(r"([^\d\s.,/]+)$", pieces[-1])
    unit = told.unit or (last[1] if last else "")
    found = [quantity(piece, "mm", told.sign, unit) for piece in pieces]
    names = ("width_mm", "height_mm", "depth_mm")
    if any(f is None or f.is_range or f.low <= 0 for f in found) or any(name in said for name in names[: len(found)]):
        return False
    said |= {name: round(f.low, 3) for name, f in zip(names, found, strict=False) if f is not None}
    return True


def _price(said: dict[str, Any], told: Told) -> bool:
    match = _PRICE.match(told.value.strip())
    if match is None or (match["before"] and match["after"]):
        return False
    number = number_of_text(match["number"], told.sign)
    if number is None or (not told.sign and re.search(r"(?<![.,\d])\d{1,3}\.\d{3}$", match["number"])):
        return False  # a thousand and some, or one and some thousandths
    currency = match["before"] or match["after"] or ""
    said |= {"price": number, "currency": _CURRENCIES.get(currency, currency)}
    return True
