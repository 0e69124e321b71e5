"""Quantities as people and data sheets write them: both decimal signs, fractions, ranges, units of both systems.

A text is read whole or not at all: what is left over would be a half-truth.
"""

from __future__ import annotations

import re
import unicodedata
from dataclasses import dataclass

_SPACES = re.compile("[\u00a0\u2007\u2009\u202f\t]")
_GROUPED = re.compile(r"(?<![\d.,])\d{1,3}(?:[ '’]\d{3})+(?!\d)")
_NUMBER = r"[-+]?(?:\d+(?:[.,]\d+)*|[.,]\d+)"
_VULGAR = dict(zip("½¼¾⅛⅜⅝⅞⅓⅔", (0.5, 0.25, 0.75, 0.125, 0.375, 0.625, 0.875, 1 / 3, 2 / 3), strict=True))
_VALUE = rf"(?:\d+[ -]\d+/\d+|\d+/\d+|\d*\s?[{''.join(_VULGAR)}]|{_NUMBER})"
_UNIT = "(?:mm2|mm\\^2|m3/h|[^\\d\\s,;/()+.…–-]*(?:/h|/min|/s|-1)?)"
_SIDE = rf"(?P<{{0}}>{_VALUE})\s*(?P<{{0}}unit>{_UNIT})\.?"
_ONE = re.compile(_SIDE.format("a"))
_RANGE = re.compile(rf"{_SIDE.format('a')}\s*(?:\.{{2,3}}|…|–|-|\bto\b|\bbis\b)\s*{_SIDE.format('b')}")
_NEARLY = re.compile(r"^(?:approx\.?|ca\.?|about|max\.?|min\.?|up to|typ\.?|nom\.?|[~≈≤≥⌀øØ])\s*", re.IGNORECASE)
_TAILS = re.compile(
    r"(?:[,;]?\s*(?:each|net|per piece|/ ?pc|excl\. vat|±\s*\d+\s*%|\d+(?:/\d+)?\s*hz))+$", re.IGNORECASE
)
_CURRENT = re.compile(r"\s*(?<![a-z])(AC/DC|UC|AC|DC)$", re.IGNORECASE)
_GLUED = re.compile(r"(?i)^(m?v|kv|ma|ka|a)(ac/dc|uc|ac|dc)$")
_BROKEN = re.compile(f"[/{''.join(_VULGAR)}]")
SAME = 0.02  # how far a quantity in brackets may be from the one before it

_LENGTHS = {
    "mm": 1.0,
    "cm": 10.0,
    "m": 1000.0,
    "in": 25.4,
    "inch": 25.4,
    "inches": 25.4,
    '"': 25.4,
    "″": 25.4,
    "”": 25.4,
}
_LENGTHS |= {"''": 25.4, "ft": 304.8, "feet": 304.8, "'": 304.8, "′": 304.8}
UNITS: dict[str, dict[str, float]] = {
    "mm": _LENGTHS,
    "m": {name: factor / 1000 for name, factor in _LENGTHS.items()} | {"km": 1000.0},
    "kg": {"kg": 1.0, "g": 0.001, "lb": 0.45359237, "lbs": 0.45359237, "pound": 0.45359237, "pounds": 0.45359237}
    | {"oz": 0.45359237 / 16, "ounce": 0.45359237 / 16, "ounces": 0.45359237 / 16, "t": 1000.0},
    "V": {"v": 1.0, "mv": 0.001, "kv": 1000.0, "volt": 1.0, "volts": 1.0},
    "A": {"a": 1.0, "ma": 0.001, "ka": 1000.0, "amp": 1.0, "amps": 1.0},
    "kA": {"ka": 1.0, "a": 0.001},
    "mA": {"ma": 1.0, "a": 1000.0},
    "W": {"w": 1.0, "mw": 0.001, "kw": 1000.0, "watt": 1.0, "watts": 1.0},
    "kW": {"kw": 1.0, "w": 0.001, "hp": 0.745699872},
    "VA": {"va": 1.0, "kva": 1000.0},
    "mm²": {"mm²": 1.0, "mm2": 1.0, "qmm": 1.0, "mm^2": 1.0},
    "m³/h": {"m³/h": 1.0, "m3/h": 1.0, "cfm": 1.69901082},
    "1/min": {"rpm": 1.0, "r/min": 1.0, "1/min": 1.0, "min-1": 1.0, "min⁻¹": 1.0},
}


@dataclass(slots=True, frozen=True)
class Quantity:
    """What a text says: one number or the two ends of a range, in the unit asked for; "AC", "DC", "AC/DC" or ""."""

    low: float
    high: float
    current: str = ""

    @property
    def is_range(self) -> bool:
        """Whether it is more than one value."""
        return self.low != self.high


def decimal_sign(text: str) -> str:
    """Return the decimal sign that a text uses where it is beyond doubt, "" when it is not or it uses both.

    Example:
        >>> decimal_sign("1.248,90 EUR"), decimal_sign("12.5 mm"), decimal_sign("1,248")
        (',', '.', '')
    """
    signs = set()
    for found in re.findall(r"(?<![\w.,])\d+(?:[.,]\d+)+(?![\d])", text):
        marks = re.findall(r"[.,]", found)
        last, tail = marks[-1], re.split(r"[.,]", found)[-1]
        head = re.split(r"[.,]", found)[0]
        if len(set(marks)) == 2 or (len(marks) == 1 and (len(tail) != 3 or head == "0" or len(head) > 3)):
            signs.add(last)
        elif len(marks) > 1:
            signs.add("," if last == "." else ".")
    return signs.pop() if len(signs) == 1 else ""


def number_of_text(text: str, sign: str = "") -> float | None:
    """Return a written number, with groups of thousands, a fraction, or either decimal sign; None when it is in doubt.

    Args:
        sign: the decimal sign the text around it uses, "" when that is not known.

    Example:
        >>> number_of_text("1.248,90"), number_of_text("2 3/4"), number_of_text("1,248"), number_of_text("1 250")
        (1248.9, 2.75, None, 1250.0)
    """
    text = _SPACES.sub(" ", text).strip()
    fraction = re.fullmatch(r"(?:(\d+)[ -])?(\d+)/(\d+)", text)
    if fraction:
        whole, above, below = (int(v or 0) for v in fraction.groups())
        return whole + above / below if below else None
    vulgar = re.fullmatch(rf"(\d*)\s?([{''.join(_VULGAR)}])", text)
    if vulgar:
        return int(vulgar[1] or 0) + _VULGAR[vulgar[2]]
    if _GROUPED.fullmatch(text.split(",")[0].split(".")[0]):
        text = re.sub(r"[ '’]", "", text)
    if not re.fullmatch(_NUMBER, text):
        return None
    marks = re.findall(r"[.,]", text)
    if not marks:
        return float(text)
    pieces = re.split(r"[.,]", text)
    if len(set(marks)) == 2:
        if marks.count(marks[-1]) > 1 or any(len(p) != 3 for p in pieces[1:-1]):
            return None
        return float("".join(pieces[:-1]) + "." + pieces[-1])
    if len(marks) > 1:
        return float("".join(pieces)) if all(len(p) == 3 for p in pieces[1:]) else None
    in_doubt = len(pieces[1]) == 3 and 1 <= len(pieces[0].lstrip("-+")) <= 3 and pieces[0].lstrip("-+") != "0"
    if in_doubt and sign != marks[0]:
        if sign:
            return float("".join(pieces))
        if marks[0] == ",":
            return None
    return float(f"{pieces[0]}.{pieces[1]}")


def quantity(text: str, unit: str, sign: str = "", default: str = "") -> Quantity | None:
    """Return what a text says in a unit, None unless the whole of it is understood.

    Args:
        unit: the unit of the answer, a key of UNITS or any other.
        sign: the decimal sign the text around it uses.
        default: unit of a number that has none, as a column's heading says it; "" for the unit of the answer.

    Example:
        >>> quantity("24VDC", "V")
        Quantity(low=24.0, high=24.0, current='DC')
        >>> quantity("2 3/4 in", "mm").low
        69.85
    """
    text = _SPACES.sub(" ", unicodedata.normalize("NFC", text)).strip()
    text = _GROUPED.sub(lambda m: re.sub(r"[ '’]", "", m[0]), text)
    main, _, rest = text.partition("(")
    main = _NEARLY.sub("", _TAILS.sub("", main.strip()))
    current = ""
    named = _CURRENT.search(main)
    if named:
        current = named[1].upper().replace("UC", "AC/DC")
        main = main[: named.start()].strip()
    found = _ends(main, unit, sign, default)
    if found is None:
        return None
    low, high, glued = found
    for piece in re.findall(r"([^()]+)\)", f"{rest}" if rest else ""):
        other = _ends(piece.strip(), unit, sign, default)
        if other is None or abs(other[0] - low) > SAME * abs(low) or abs(other[1] - high) > SAME * abs(high):
            return None
    if rest and re.sub(r"[^()]*\)\s*\(?", "", rest).strip():
        return None
    return Quantity(low, high, current or glued)


def _ends(text: str, unit: str, sign: str, default: str) -> tuple[float, float, str] | None:
    """Return both ends of what a text says and the kind of current that is glued to its unit."""
    return _together(text, unit, sign, default) or _range(text, unit, sign, default)


def _range(text: str, unit: str, sign: str, default: str) -> tuple[float, float, str] | None:
    match = _RANGE.fullmatch(text)
    if match is None:
        return None
    last, glued = _factor(match["bunit"], unit, default)
    first, _ = _factor(match["aunit"] or match["bunit"], unit, default)
    a, b = number_of_text(match["a"], sign), number_of_text(match["b"], sign)
    if a is None or b is None or first is None or last is None or a * first > b * last:
        return None
    return a * first, b * last, glued


def _together(text: str, unit: str, sign: str, default: str) -> tuple[float, float, str] | None:
    """Return one value; two that add up only as feet and inches, or pounds and ounces."""
    total, at, glued = 0.0, 0, ""
    pieces = list(_ONE.finditer(text))
    if not pieces or len(pieces) > 2:
        return None
    before = float("inf")
    for match in pieces:
        if text[at : match.start()].strip():
            return None
        factor, current = _factor(match["aunit"], unit, default)
        number = number_of_text(match["a"], sign)
        if _BROKEN.search(match["a"]) and unit not in ("mm", "m", "kg"):
            return None  # 16/20 A are two currents
        if number is None or factor is None or factor >= before or (len(pieces) > 1 and not match["aunit"]):
            return None
        total, before, at, glued = total + number * factor, factor, match.end(), glued or current
    return None if text[at:].strip() else (total, total, glued)


def _factor(written: str, unit: str, default: str) -> tuple[float | None, str]:
    """Return by what a written unit is multiplied, None when it is another one, and the current glued to it."""
    glued = _GLUED.match(written)
    current = glued[2].upper().replace("UC", "AC/DC") if glued else ""
    name = (glued[1] if glued else written) or default
    if not name:
        return 1.0, current
    known = UNITS.get(unit, {unit.lower(): 1.0} if unit else {})
    exact = name.lower().rstrip(".") if unit not in ("W", "kW") or name != "MW" else ""
    return known.get(exact), current
