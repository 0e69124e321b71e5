"""What a column of a point list can hold: its headings, and how its cells are read."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from jolly_core.model import IO_TYPES, FileError
from jolly_core.model.entities.building import IO_SORTS, NORMAL_STATES

TYPE_WORDS: dict[str, str] = {
    "di": "DI",
    "digital in": "DI",
    "digital input": "DI",
    "binary input": "DI",
    "input": "DI",
    "in": "DI",
    "do": "DO",
    "digital out": "DO",
    "digital output": "DO",
    "binary output": "DO",
    "output": "DO",
    "out": "DO",
    "relay output": "DO",
    "ai": "AI",
    "analog in": "AI",
    "analog input": "AI",
    "analogue in": "AI",
    "analogue input": "AI",
    "ao": "AO",
    "analog out": "AO",
    "analog output": "AO",
    "analogue out": "AO",
    "analogue output": "AO",
}
# Words that say type and sort in one.
SORTED_TYPES: dict[str, tuple[str, str]] = {
    "fast": ("DI", "fast"),
    "fast di": ("DI", "fast"),
    "fast input": ("DI", "fast"),
    "counter": ("DI", "fast"),
    "high speed counter": ("DI", "fast"),
    "encoder": ("DI", "fast"),
    "rtd": ("AI", "rtd"),
    "pt100": ("AI", "rtd"),
    "pt1000": ("AI", "rtd"),
    "resistance thermometer": ("AI", "rtd"),
    "tc": ("AI", "thermocouple"),
    "thermocouple": ("AI", "thermocouple"),
    "sdi": ("DI", "safe"),
    "safe di": ("DI", "safe"),
    "safe input": ("DI", "safe"),
    "safety input": ("DI", "safe"),
    "sdo": ("DO", "safe"),
    "safe do": ("DO", "safe"),
    "safe output": ("DO", "safe"),
    "safety output": ("DO", "safe"),
}
SORT_WORDS: dict[str, str] = {
    "": "",
    "plain": "",
    "standard": "",
    "fast": "fast",
    "counter": "fast",
    "rtd": "rtd",
    "pt100": "rtd",
    "pt1000": "rtd",
    "thermocouple": "thermocouple",
    "tc": "thermocouple",
    "safe": "safe",
    "safety": "safe",
}
NORMAL_WORDS: dict[str, str] = {
    "": "",
    "no": "open",
    "open": "open",
    "normally open": "open",
    "nc": "closed",
    "closed": "closed",
    "normally closed": "closed",
}
_NO = dict.fromkeys(("", "no", "n", "0", "false", "-"), False)
YES_WORDS: dict[str, bool] = _NO | dict.fromkeys(("yes", "y", "1", "true", "x"), True)
LONGEST = 200


@dataclass(slots=True, frozen=True)
class PointField:
    """A field of a point: its heading in lists, other headings it is known by, and what reads a cell of it."""

    key: str
    heading: str
    known: tuple[str, ...]
    read: Callable[[str], object]


def plain_words(text: str) -> str:
    """Return a text in small letters with single spaces, as headings and words are compared."""
    return " ".join(text.lower().replace("_", " ").split()).strip(" .:*")


def _text(cell: str) -> str:
    if len(cell) > LONGEST:
        raise FileError(f"It is longer than {LONGEST} characters.")
    return cell


def io_type_of(cell: str) -> tuple[str, str]:
    """Return type and sort that a word says.

    Raises:
        FileError: it says none.

    Example:
        >>> io_type_of("Digital input"), io_type_of("PT100"), io_type_of("safety output")
        (('DI', ''), ('AI', 'rtd'), ('DO', 'safe'))
    """
    word = plain_words(cell).replace("-", " ").replace("/", " ")
    if word in SORTED_TYPES:
        return SORTED_TYPES[word]
    found = TYPE_WORDS.get(word)
    if found is None:
        said = f"“{cell}” is no type" if cell else "There is no type"
        raise FileError(f"{said}. Use {', '.join(IO_TYPES[:-1])} or {IO_TYPES[-1]}.")
    return found, ""


def _one_of(words: dict[str, object], said: str) -> Callable[[str], object]:
    def read(cell: str) -> object:
        found = words.get(plain_words(cell))
        if found is None:
            raise FileError(f"“{cell}” is not understood. {said}")
        return found

    return read


_SORT = _one_of(dict(SORT_WORDS), f"Use {', '.join(s for s in IO_SORTS if s)} or nothing.")
_NORMAL = _one_of(dict(NORMAL_WORDS), f"Use {' or '.join(s for s in NORMAL_STATES if s)}.")
_YES = _one_of(dict(YES_WORDS), "Use yes or no.")

FIELDS: tuple[PointField, ...] = (
    PointField("tag", "Tag", ("point", "name", "signal name", "point tag", "symbol", "point name"), _text),
    PointField("text", "Text", ("description", "function text", "comment", "text 1", "designation"), _text),
    PointField("text2", "Second text", ("text 2", "second description", "description 2", "local text"), _text),
    PointField("io_type", "Type", ("io type", "i/o type", "kind", "signal type", "direction", "channel type"), _text),
    PointField("sort", "Sort", ("special", "function of the channel"), _SORT),
    PointField("signal", "Signal", ("electrical", "level", "signal level", "range of signal"), _text),
    PointField("device", "Device", ("field device", "device tag", "instrument", "equipment"), _text),
    PointField("function", "Function", ("machine", "unit of plant", "group", "system"), _text),
    PointField("location", "Location", ("place", "area", "mounting place", "cabinet"), _text),
    PointField("connected", "Connected to", ("connected", "what", "element", "field element", "stamp"), _text),
    PointField("span", "Range", ("span", "measuring range", "scale"), _text),
    PointField("unit", "Unit", ("engineering unit", "eu", "units"), _text),
    PointField("normal", "At rest", ("normal", "normal state", "no/nc", "contact", "rest state"), _NORMAL),
    PointField("terminals", "Terminals", ("terminal", "terminals wanted", "with terminals"), _YES),
    PointField("cable", "Cable", ("cable wanted", "with cable"), _YES),
    PointField("remark", "Remark", ("remarks", "note", "notes"), _text),
)
BY_KEY = {f.key: f for f in FIELDS}
NEEDED = ("tag", "io_type")
NO_COLUMN = "-"  # a column that a person leaves out
OWN_COLUMN = "own"  # a column that is kept under its own heading


def field_headed(heading: str) -> str:
    """Return the key of the field a heading is known for, "" for none."""
    word = plain_words(heading)
    for field in FIELDS:
        if word == field.heading.lower() or word in field.known:
            return field.key
    return ""
