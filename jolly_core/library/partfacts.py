"""What can be said of a part: the values it is looked up by, what it lacks, how two differ."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from jolly_core.model import KINDS, MOUNTINGS, FileError, Part, RuleError

from .bounds import check_together
from .classes import base_of, part_class
from .drafting import conductor_count
from .drawn import OUTLINE, outline_art
from .fields import checked, number_in, part_fields, unit_facts
from .symbols import definition, is_known
from .unitkinds import unit_kinds

PURPOSES = ("drawing", "layout", "ordering", "making")
# What of a part is its own business in the library, and no difference between a copy and its source.
_NOT_COMPARED = ("id", "version")
SURFACES = ("plate", "door")  # what a part may have an outline drawing for
_MEASURES = ("width_mm", "height_mm", "depth_mm", "diameter_mm", "weight_kg", "price")
_SIMPLE_WORDS = {
    "maker": "maker",
    "number": "number",
    "part_class": "class",
    "text": "description",
    "width_mm": "width",
    "height_mm": "height",
    "depth_mm": "depth",
    "diameter_mm": "diameter",
    "mounting": "mounting",
    "supplier": "supplier",
    "order_number": "order number",
    "price": "price",
    "currency": "currency",
    "weight_kg": "weight",
    "link": "link",
    "datasheet": "data sheet",
    "picture": "picture",
    "solid": "picture in space",
    "solid_front": "front of the picture in space",
    "solid_up": "top of the picture in space",
    "members": "members of the set",
    "accessories": "accessories",
    "alternatives": "alternatives",
}


@dataclass(slots=True, frozen=True)
class Difference:
    """A field in which two parts differ, in words: its name, and its value in the one and the other."""

    field: str
    before: str
    after: str


def names_in(value: str) -> tuple[str, ...]:
    """Return the numbers of parts in a field that lists them, parted by commas.

    Example:
        >>> names_in("TW-CT1, TW-CT2")
        ('TW-CT1', 'TW-CT2')
    """
    return tuple(name.strip() for name in value.split(",") if name.strip())


def goes_with(part: Part | None) -> tuple[str, ...]:
    """Return the numbers of the parts that go with a part: its accessories, and the backshells of a housing."""
    return (*part.accessories, *names_in(part.ratings.get("backshells", ""))) if part else ()


def values_of(part: Part) -> list[tuple[str, str, float | None]]:
    """Return what a part is looked up by: (field, text, number) for each rating and dimension, "units.no" for counts.

    The conductors of a cable are its cores without shields.
    """
    rows: list[tuple[str, str, float | None]] = []
    for key, value in part.ratings.items():
        rows.append((key, value.lower()[:200], number_in(value)))
    for key in _MEASURES:
        value = getattr(part, key)
        if value:
            rows.append((key, f"{value:g}", value))
    rows.append(("mounting", part.mounting, None))
    counts: dict[str, int] = {}
    for kind, _ in part.units:
        counts[kind] = counts.get(kind, 0) + 1
    rows += [(f"units.{kind}", str(n), float(n)) for kind, n in counts.items()]
    return rows


def missing(part: Part) -> dict[str, list[str]]:
    """Return in words what a part still lacks for drawing, layout, ordering and making; only what lacks something.

    Raises:
        FileError: its class is not known.
    """
    kind = part_class(part.part_class)
    found: dict[str, list[str]] = {purpose: [] for purpose in PURPOSES}
    if kind.units and not part.units and not kind.per_unit:
        found["drawing"].append("its units")
    unnamed = [
        unit_kinds()[k].name
        for k, pins in part.units
        if k != "terminal" and (not pins or not all(p.strip() for p in pins))
    ]
    if unnamed:
        found["drawing"].append(f"pins of a {unnamed[0]}" if len(unnamed) == 1 else f"pins of {len(unnamed)} units")
    if part.mounting in ("rail", "plate", "door hole"):
        if not part.diameter_mm:
            sawn = "stock_mm" in kind.ratings  # a rail or duct is as long as it is cut
            sides = (("width", part.width_mm), ("height", part.height_mm or float(sawn)))
            found["layout"] += [word for word, value in sides if not value]
        found["layout"] += ["depth"] if not part.depth_mm else []
        if "loss_w" in kind.ratings and "loss_w" not in part.ratings:
            found["layout"].append("heat loss")
    elif not part.mounting:
        found["layout"].append("how it is mounted")
    for word, value in (("maker", part.maker), ("number", part.number), ("description", part.text)):
        if not value.strip():
            found["ordering"].append(word)
    if not part.supplier and not part.order_number:
        found["ordering"].append("supplier or order number")
    specs = part_fields()
    found["making"] += [specs[key].name.lower() for key in kind.wants if not part.ratings.get(key, "").strip()]
    if base_of(part.part_class) == "cable":
        bare = not part.ratings.get("cross_section_mm2") and not part.ratings.get("awg")
        if bare and any(
            not (part.detail(i).get("section") or part.detail(i).get("awg"))
            for i, (k, _) in enumerate(part.units)
            if k == "core"
        ):
            found["making"].append("cross-section of the cores")
    return {purpose: words for purpose, words in found.items() if words}


def differences(before: Part, after: Part) -> list[Difference]:
    """Return the fields in which two parts differ, in words, in the order of the record."""
    rows: list[Difference] = []
    for name in KINDS["part"].fields:
        if name in _NOT_COMPARED:
            continue
        old, new = getattr(before, name), getattr(after, name)
        if old == new:
            continue
        if name in ("ratings", "texts", "symbols"):
            for key in dict.fromkeys([*old, *new]):
                was, now = old.get(key, ""), new.get(key, "")
                if was != now:
                    words = (_symbol_words(was), _symbol_words(now)) if name == "symbols" else (was, now)
                    rows.append(Difference(_key_words(name, key), *words))
        elif name == "units":
            rows.append(Difference("units", units_line(before), units_line(after)))
        elif name == "details":
            rows.append(Difference("facts about units", _details(before), _details(after)))
        else:
            rows.append(Difference(_SIMPLE_WORDS[name], _plain(old), _plain(new)))
    return rows


def text_in(part: Part, language: str) -> str:
    """Return the text of a part in a language, as far as it has one; "" asks for its own."""
    return part.texts.get(language, "").strip() or part.text


def units_line(part: Part) -> str:
    """Return the units of a part as one line, for example "coil A1-A2, NO 13-14"; of a cable with its conductors."""
    units = ", ".join(f"{unit_kinds()[k].name} {'-'.join(p for p in pins if p)}".strip() for k, pins in part.units)
    conductors = conductor_count(part) if base_of(part.part_class) == "cable" else 0
    if not conductors:
        return units
    shielded = " shielded" if any(kind == "shield" for kind, _ in part.units) else ""
    return f"{conductors}-conductor{shielded}: {units}"


def _details(part: Part) -> str:
    lines = [" ".join(f"{k} {v}" for k, v in d.items()) for d in part.details]
    return "; ".join(line for line in lines if line)


def _plain(value: Any) -> str:
    if isinstance(value, tuple):
        return ", ".join(value)
    return f"{value:g}" if isinstance(value, float) else str(value)


def _symbol_words(key: str) -> str:
    """Return what a symbol or outline is called; a drawn one that is not as it was keeps its name."""
    if not key or key.startswith(OUTLINE):
        return "drawn" if key else ""
    return definition(key).name if is_known(key) else key


def _key_words(name: str, key: str) -> str:
    if name == "ratings":
        spec = part_fields().get(key)
        return spec.name.lower() if spec else key.replace("_", " ")
    return f"text {key}" if name == "texts" else f"drawing on the {key}" if key in SURFACES else f"symbol of {key}"


def _check_symbol(place: str, key: str) -> None:
    """Refuse a symbol that cannot draw what it is named for: a kind of unit, or plate and door."""
    if place in SURFACES:
        outline_art(key)
        return
    kind = place.partition("@")[0]
    shape = definition(key)
    drawn_with = "block" if kind == "pins" else kind
    if kind not in unit_kinds() or shape.unit not in (kind, drawn_with):
        name = unit_kinds()[kind].name if kind in unit_kinds() else kind
        raise FileError(f"“{shape.name}” is no symbol of a {name}.", field="symbols")


def flat_members(part: Part, find: Callable[[str], Part | None]) -> list[Part | str]:
    """Return what a set comes down to: its members, and those of members that are sets; a number nothing is known of.

    Raises:
        RuleError: a set contains itself, directly or through another.
    """
    found: list[Part | str] = []

    def take(one: Part, above: tuple[str, ...]) -> None:
        if one.number in above:
            ring = ", ".join((*above[above.index(one.number) :], one.number))
            message = f"The set {one.number} contains itself ({ring}). Take it out of its members."
            raise RuleError(message, field="members")
        for name in one.members:
            member = find(name)
            if member is not None and member.members:
                take(member, (*above, one.number))
            else:
                found.append(member or name)

    take(part, ())
    return found


def check_part(part: Part) -> Part:
    """Return a part as it is kept, its ratings and facts spelt as their fields have them.

    Raises:
        FileError: its class or a unit is not known, a unit is not of its class, or a value is not what its field
            may have; the message names the part's number and what is wrong.
    """
    name = part.number or "The part"
    try:
        kind = part_class(part.part_class)
        wrong = next((k for k, _ in part.units if k not in kind.units), "")
        if wrong:
            known = unit_kinds()[wrong].name if wrong in unit_kinds() else f"“{wrong}”"
            raise FileError(f"the class {kind.name} has no unit {known}.", field="units")
        specs, facts = part_fields(), unit_facts()
        ratings = {}
        for key, value in part.ratings.items():
            ratings[key] = checked(specs[key], value) if key in specs else " ".join(value.split())
        details = tuple(
            {k: checked(facts[k], v) if k in facts else v for k, v in d.items() if v.strip()} for d in part.details
        )
        check_together(replace(part, ratings=ratings, details=details))
        for place, key in part.symbols.items():
            _check_symbol(place, key)
        if part.mounting not in MOUNTINGS:
            raise FileError(
                f"mounting “{part.mounting}” should be one of {', '.join(MOUNTINGS[:-1])}.", field="mounting"
            )
        for field in _MEASURES:
            if getattr(part, field) < 0:
                raise FileError(f"{_SIMPLE_WORDS[field]} cannot be less than nothing.", field=field)
        if len(details) > len(part.units):
            raise FileError("it has facts about more units than there are.", field="details")
    except FileError as error:
        raise FileError(f"{name}: {error.message}", field=error.field) from None
    while details and not details[-1]:
        details = details[:-1]
    return Part(
        **{
            **{n: getattr(part, n) for n in KINDS["part"].fields},
            "ratings": {k: v for k, v in ratings.items() if v},
            "details": details,
            **{n: round(getattr(part, n), 6) for n in _MEASURES},
        }
    )
