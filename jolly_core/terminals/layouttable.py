"""A strip's layout as a table: numbers, kinds, levels, bridges, parts, spares, remarks; out and in again."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field

from jolly_core.model import MOST_LEVELS, FileError, Project

from .bridging import laid_bridges
from .items import TERMINAL
from .rows import ACCESSORY_NAMES, strip_rows

COLUMNS = ("number", "kind", "level", "bridge", "part", "spare", "remark")
HEADINGS: dict[str, tuple[str, ...]] = {
    "number": ("number", "no", "no.", "terminal", "terminal number"),
    "kind": ("kind", "type", "terminal type"),
    "level": ("level", "tier", "storey"),
    "bridge": ("bridge", "bridges", "jumper", "link"),
    "part": ("part", "part number", "article"),
    "spare": ("spare", "reserve"),
    "remark": ("remark", "remarks", "note", "comment"),
}
KIND_WORDS: dict[str, tuple[str, ...]] = {
    "feed-through": ("feed-through", "feed through", "through", "standard", "terminal", ""),
    "earth": ("earth", "pe", "ground", "protective earth"),
    "fuse": ("fuse", "fused"),
    "disconnect": ("disconnect", "knife", "isolating"),
    "end-bracket": ("end-bracket", "end bracket", "end clamp"),
    "plate": ("plate", "partition plate", "end plate"),
    "marker": ("marker",),
}
YES = ("yes", "y", "x", "1", "true", "spare")
LONGEST = 12


@dataclass(slots=True, frozen=True)
class LayoutLine:
    """A line of a layout: a terminal, or an accessory, which has no number.

    Attributes:
        row: its row in the file, from 1.
        kind: a key of KIND_WORDS.
        bridge: a word that all terminals of one bridge have, "".
    """

    row: int
    number: str
    kind: str
    level: int = 1
    bridge: str = ""
    part: str = ""
    spare: bool = False
    remark: str = ""


@dataclass(slots=True)
class LayoutRead:
    """A layout as it was read: good lines, faults by row and heading, and what each column was called."""

    lines: list[LayoutLine] = field(default_factory=list)
    faults: list[str] = field(default_factory=list)
    headings: dict[str, str] = field(default_factory=dict)


def layout_rows(project: Project, strip_id: str) -> list[tuple[str, str, int | str, str, str, str, str]]:
    """Return a strip's layout as rows of COLUMNS; bridges are named A, B, C from left to right."""
    names: dict[str, str] = {}
    for n, laid in enumerate(laid_bridges(project, strip_id)):
        names[laid.bridge.id] = _letters(n)
    rows: list[tuple[str, str, int | str, str, str, str, str]] = []
    for row in strip_rows(project, strip_id):
        part = row.part.number if row.part else ""
        if row.kind != TERMINAL:
            rows.append(("", ACCESSORY_NAMES[row.kind], "", "", part, "", row.record.remark))
            continue
        bridge = " ".join(names[b] for b in row.bridges if b in names)
        spare = "yes" if row.record.spare else ""
        rows.append((row.number, row.terminal_kind, row.level, bridge, part, spare, row.record.remark))
    return rows


def _letters(n: int) -> str:
    return chr(65 + n % 26) + (str(n // 26) if n >= 26 else "")


def read_layout(cells: Sequence[Sequence[str]]) -> LayoutRead:
    """Return a strip's layout from a table; titles above its headings are passed over.

    Raises:
        FileError: no row has a heading for the number.
    """
    found = LayoutRead()
    start, where = _headings(cells)
    if start is None:
        raise FileError("No heading for the terminal number was found. Call a column “Number”.")
    found.headings = {key: str(cells[start][column]).strip() for key, column in where.items()}
    seen: dict[str, int] = {}
    for n, row in enumerate(cells[start + 1 :], start=start + 2):
        said = {key: str(row[c]).strip() if c < len(row) else "" for key, c in where.items()}
        if any(said.values()):
            _read(found, n, said, seen)
    return found


def _headings(cells: Sequence[Sequence[str]]) -> tuple[int | None, dict[str, int]]:
    for n, row in enumerate(cells[:40]):
        words = [str(c).strip().casefold() for c in row]
        where = {key: words.index(w) for key, names in HEADINGS.items() for w in names if w in words}
        if "number" in where:
            return n, where
    return None, {}


def _read(found: LayoutRead, n: int, said: dict[str, str], seen: dict[str, int]) -> None:
    """Take a row as a line, or note its fault."""
    number, word = said.get("number", ""), said.get("kind", "").casefold()
    kind = next((key for key, words in KIND_WORDS.items() if word in words), "")
    level = said.get("level", "") or "1"
    if not kind:
        found.faults.append(f"Row {n}: “{said['kind']}” is no kind of terminal or accessory.")
    elif kind in ACCESSORY_NAMES:
        found.lines.append(LayoutLine(n, "", kind, part=said.get("part", ""), remark=said.get("remark", "")))
    elif not number:
        found.faults.append(f"Row {n}: a terminal has no number.")
    elif len(number) > LONGEST:
        found.faults.append(f"Row {n}: the number “{number}” is longer than {LONGEST} signs.")
    elif number in seen:
        found.faults.append(f"Row {n}: the number {number} stands in row {seen[number]} already.")
    elif not level.isdecimal() or not 1 <= int(level) <= MOST_LEVELS:
        found.faults.append(f"Row {n}: “{level}” is no level from 1 to {MOST_LEVELS}.")
    else:
        seen[number] = n
        spare = said.get("spare", "").casefold() in YES
        words = (said.get("bridge", ""), said.get("part", ""), spare, said.get("remark", ""))
        found.lines.append(LayoutLine(n, number, kind, int(level), *words))
