"""A cable's cores as they are written in one word: 7, 4G2.5, 7x0.5, 4x2x0.5, 3 AWG16."""

from __future__ import annotations

import re
from dataclasses import replace

from jolly_core.model import FileError, Part, RuleError

from .classes import base_of, part_class
from .drafting import MOST_UNITS, PROTECTIVE, conductor_count, core_orders, with_cores
from .fields import YES, number_in
from .gauges import awg_area_mm2

_WORD = re.compile(
    r"(?P<count>\d{1,4})\s*"
    r"(?:(?P<times>[gx×])\s*)?"
    r"(?:(?P<pairs>2)\s*[x×]\s*)?"
    r"(?:(?P<area>\d{1,3}(?:[.,]\d+)?)\s*(?:mm²|mm2)?|awg\s*(?P<gauge>\d{1,2}(?:/0)?)|cores?|conductors?)?",
    re.IGNORECASE,
)
_LIKE = "Write for example 7, 4G2.5, 7x0.5, 4x2x0.5 or 3xAWG16"


def cores_told(part: Part, text: str) -> Part:
    """Return a cable with the cores a word tells; what the cable has already is left when the word says no other.

    The word is the number of cores, then G when the last is the green-yellow one or x when none is, then the size of
    each (HD 361 S3). `4x2x0.5` are four pairs. Three to five cores with G have the colours of HD 308 S2, other cores
    are numbered. A screened cable gets its shield.

    Raises:
        FileError: the part is no cable, or the word is not read.

    Example:
        >>> cable = cores_told(Part("", "Quill", "QL-4", "cable"), "4G2.5")
        >>> [pins[0] for _, pins in cable.units], cable.ratings
        (['BN', 'BK', 'GY', 'GNYE'], {'cross_section_mm2': '2.5'})
    """
    if base_of(part.part_class) != "cable":
        kind = part_class(part.part_class).name
        raise FileError(f"only a cable has cores, this is of the class {kind}", field="cores")
    match = _WORD.fullmatch(text.strip())
    if match is None or (match["area"] and not match["times"]) or not 1 <= int(match["count"]) <= MOST_UNITS:
        raise FileError(f"“{text}” says no cores. {_LIKE}.", field="cores")
    count = int(match["count"]) * (2 if match["pairs"] else 1)
    earth = (match["times"] or "").lower() == "g"
    if earth and (match["pairs"] or count < 2):
        raise FileError(f"“{text}”: a green-yellow core needs others beside it, and none is in a pair", field="cores")
    sized = _sized(part, text, match)
    has_earth = any(pins == (PROTECTIVE,) for kind, pins in part.units if kind == "core")
    if conductor_count(part) == count and (not match["times"] or has_earth == earth):
        return sized
    try:
        return _paired(_filled(sized, count, earth=earth), bool(match["pairs"]))
    except RuleError as error:
        raise FileError(error.message, field="cores") from error


def _sized(part: Part, text: str, match: re.Match[str]) -> Part:
    """Return the cable with the size of its cores, if the word tells it, in place of what single cores say."""
    area, gauge = match["area"], match["gauge"]
    if not area and not gauge:
        return part
    if gauge:
        try:
            awg_area_mm2(gauge)
        except RuleError as error:
            raise FileError(error.message, field="cores") from error
    elif not number_in(area):
        raise FileError(f"“{text}”: a core has more than 0 mm²", field="cores")
    key, other = ("awg", "cross_section_mm2") if gauge else ("cross_section_mm2", "awg")
    ratings = {k: v for k, v in part.ratings.items() if k != other} | {key: gauge or f"{number_in(area):g}"}
    details = tuple({k: v for k, v in facts.items() if k not in ("section", "awg")} for facts in part.details)
    return replace(part, ratings=ratings, details=details)


def _filled(part: Part, count: int, *, earth: bool) -> Part:
    power = f"power, {count} cores"
    order = power if earth and power in core_orders() else "numbered"
    shields = 1 if part.ratings.get("screened") == YES else 0
    return with_cores(part, count, order, protective=earth, shields=shields)


def _paired(part: Part, paired: bool) -> Part:
    """Return the cable with its cores two by two in pairs 1, 2, 3."""
    if not paired:
        return part
    details = tuple({**facts, "pair": str(n // 2 + 1)} for n, facts in enumerate(part.details))
    return replace(part, details=details)
