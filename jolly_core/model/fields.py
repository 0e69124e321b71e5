"""How a field of a kind of entity is declared: its type with what bounds it, what it names, and how it moves.

A dataclass says all of it in its annotations: `x1: Mm`, `rail_id: Annotated[str, Names("rail")] = ""`. File reading and
checks, the schema, references, copying, storage and the bounds of edits are read from there (kinds.py). The marks of
numbers and lengths are those that pydantic knows, too, so that a payload takes the same name: `hinge_mm: Mm`.
"""

from __future__ import annotations

import dataclasses
import math
import re
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Annotated, Any, TypeVar, get_args, get_origin, get_type_hints

from annotated_types import Ge, GroupedMetadata, Gt, Le, MaxLen


@dataclass(frozen=True, slots=True)
class Within(GroupedMetadata):
    """A number's bounds, both included unless it must be `above` the lower one, and its unit in words."""

    low: float
    high: float
    unit: str = ""
    above: bool = False

    def __iter__(self) -> Iterator[object]:
        """Yield the bounds as validators of payloads read them."""
        yield Gt(self.low) if self.above else Ge(self.low)
        yield Le(self.high)

    def fault(self, value: Any) -> str:
        """Return what is wrong with a number, "" when nothing is; what is not a number is out of bounds, too."""
        if self.low <= value <= self.high and not (self.above and value == self.low):
            return ""
        unit = f" {self.unit}" if self.unit else ""
        if self.above:
            return f"should be more than {self.low:g} and at most {self.high:g}{unit}"
        return f"should be from {self.low:g} to {self.high:g}{unit}"

    def nearest(self, value: Any) -> Any:
        """Return the number within the bounds that is nearest to one outside; the lower bound for none at all."""
        known = not math.isnan(value)
        return type(value)(min(max(value, self.low), self.high) if known else self.low)


@dataclass(frozen=True, slots=True)
class Longest(GroupedMetadata):
    """How many letters a text has at most, or how many things a list or object."""

    most: int

    def __iter__(self) -> Iterator[object]:
        """Yield the bound as validators of payloads read it."""
        yield MaxLen(self.most)


@dataclass(frozen=True, slots=True)
class Each:
    """How many letters each text of a list or object has at most, where that is not `MAX_TEXT`."""

    most: int


@dataclass(frozen=True, slots=True)
class OneOf:
    """The words a text may be, or the whole numbers a number may be."""

    words: tuple[Any, ...]


@dataclass(frozen=True, slots=True)
class Written:
    """How a text is written: a regular expression for the whole of it, and the same in words."""

    pattern: str
    words: str

    def fault(self, value: str) -> str:
        """Return what is wrong with a text, "" when nothing is."""
        return "" if re.fullmatch(self.pattern, value) else f"should be {self.words}"


@dataclass(frozen=True, slots=True)
class Names:
    """The field holds the id of an entity of a kind, or "" for none unless one is needed.

    Attributes:
        tree: entities of this kind name each other so, and never in a circle.
    """

    kind: str
    needed: bool = False
    tree: bool = False


@dataclass(frozen=True, slots=True)
class Moves:
    """The field is a place on a sheet along an axis, "x" or "y": it changes when the thing is moved."""

    axis: str


@dataclass(frozen=True, slots=True)
class Holds:
    """What a long text holds: "json" an object, "base64" bytes."""

    what: str


@dataclass(frozen=True, slots=True)
class Since:
    """The version of the project file in which a field that came later than its kind first stood."""

    version: int


@dataclass(frozen=True, slots=True)
class Lined:
    """The field is a text that may have several lines."""


@dataclass(frozen=True, slots=True)
class Said:
    """The field is a text that is said in each language of the project."""


MAX_TEXT = 2000
MAX_BASE64 = 300_000

# The types that fields of entities and payloads of edits are declared with.
LONGEST_ID = 40
Id = Annotated[str, Longest(LONGEST_ID)]
Text = Annotated[str, Longest(200)]
LongText = Annotated[str, Longest(MAX_TEXT)]
LinedText = Annotated[str, Longest(MAX_TEXT), Lined()]
# A drawn symbol's key says all of it; so does that of an outline.
SymbolKey = Annotated[str, Longest(16_000)]
Document = Annotated[str, Longest(MAX_BASE64), Holds("json")]
Base64 = Annotated[str, Longest(MAX_BASE64), Holds("base64")]
Sheetwise = Annotated[str, Names("sheet", needed=True)]
Grid = Annotated[int, Within(-200, 2000, "grid steps")]
GridX = Annotated[int, Within(-200, 2000, "grid steps"), Moves("x")]
GridY = Annotated[int, Within(-200, 2000, "grid steps"), Moves("y")]
Mm = Annotated[float, Within(-20_000, 20_000, "mm")]
Length = Annotated[float, Within(0, 100_000, "mm")]
Order = Annotated[int, Within(-(10**9), 10**9)]
Running = Annotated[int, Within(0, 1_000_000)]
Letters = Annotated[str, Longest(10)]
Area = Annotated[float, Within(0, 400, "mm²")]
Gauge = Annotated[
    str, Longest(8), Written(r"|\s*(0{2,4}|[0-4]?\d|[1-4]/0)\s*", "an American wire gauge such as 16 or 2/0")
]
Unit = tuple[str, tuple[str, ...]]  # kind and pins
Units = tuple[Unit, ...]
Texts = Annotated[dict[str, str], Longest(200)]
Numbers = Annotated[tuple[int, ...], Longest(400)]
Floats = tuple[float, ...]

M = TypeVar("M")


@dataclass(frozen=True, slots=True, eq=False)
class Field:
    """What is declared about one field; each is made once, so that what follows from it can be kept by it.

    Attributes:
        type: the bare type, such as `float` or `tuple[int, ...]`.
        marks: the marks of this module on it, in order.
        default: its default as JSON would say it; `dataclasses.MISSING` when it must be given.
    """

    name: str
    type: Any
    marks: tuple[Any, ...]
    default: Any

    def mark(self, of: type[M]) -> M | None:
        """Return the mark of a class on the field, None when it has none."""
        return next((m for m in self.marks if isinstance(m, of)), None)

    @property
    def words(self) -> str:
        """Its name as a sentence says it, without the unit.

        Example:
            `ambient_c` is "ambient", `parent_id` is "parent".
        """
        return re.sub(r"_(mm2|mm|m|c|v|a|kg|percent|px|id)$", "", self.name).replace("_", " ")

    @property
    def required(self) -> bool:
        """Whether a record must give it."""
        return self.default is dataclasses.MISSING


def declared(entity: type[Any]) -> dict[str, Field]:
    """Return the fields of a dataclass with what is declared about each, in order."""
    hints = get_type_hints(entity, include_extras=True)
    found: dict[str, Field] = {}
    for f in dataclasses.fields(entity):
        hint = hints[f.name]
        marks: tuple[Any, ...] = ()
        if get_origin(hint) is Annotated:
            hint, *marked = get_args(hint)
            marks = tuple(marked)
        if any(isinstance(m, Names) for m in marks):
            marks = (*marks, Longest(LONGEST_ID))
        default = f.default if f.default_factory is dataclasses.MISSING else f.default_factory()
        found[f.name] = Field(f.name, hint, marks, default)
    return found
