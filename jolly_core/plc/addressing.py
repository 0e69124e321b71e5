"""Where cards begin: the next free start, cards addressed together, overlaps and gaps of the address spaces."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from jolly_core.model import Card, Project, RuleError

from .addresses import ANALOG, BITS, FIRST_ANALOG_WORD, LARGEST, SLOT_POINTS, WORD_BITS, space_of, start_at
from .channels import ChannelRow, cards, channels, spans_of


@dataclass(slots=True, frozen=True)
class Taken:
    """Places of an address space that a channel takes: from the first up to the one after the last."""

    low: int
    high: int
    row: ChannelRow


def taken_places(project: Project, but: Iterable[str] = ()) -> dict[str, list[Taken]]:
    """Return what the channels of all cards take, by address space; cards named in `but` (by record) are left out."""
    left = set(but)
    found: dict[str, list[Taken]] = {}
    for card in cards(project):
        if card.id not in left:
            for space, low, high, row in spans_of(project, card):
                found.setdefault(space, []).append(Taken(low, high, row))
    return found


def next_start(project: Project, scheme: str, io_kinds: set[str], *, but: str = "") -> str:
    """Return the first address of a new card: after the last byte in use, an analog one's from the first analog word.

    Args:
        io_kinds: types of its channels.
        but: a card that is not counted.

    Example:
        With a card of eight inputs from 0.0 the next card of inputs starts at 1.0, one of analog inputs at word 256.
    """
    return _next(taken_places(project, (but,)), scheme, io_kinds)


def _next(taken: dict[str, list[Taken]], scheme: str, io_kinds: set[str]) -> str:
    analog = bool(io_kinds) and io_kinds <= set(ANALOG)
    spaces = {space_of(scheme, kind) for kind in io_kinds}
    used = [(t.low, t.high, t.row.io_type in ANALOG) for space in spaces for t in taken.get(space, ())]
    if scheme == "slot":
        return str(max((low // SLOT_POINTS for low, _, _ in used), default=0) + 1)
    if scheme in ("whole", "octal"):
        end = max((high for _, high, _ in used), default=FIRST_ANALOG_WORD if analog and scheme == "whole" else 0)
        return start_at(scheme, end if scheme == "whole" else -(-end // BITS) * BITS)
    least = FIRST_ANALOG_WORD * BITS if analog else 0
    # Other cards fill the bytes below the first analog word as long as there are some.
    below = FIRST_ANALOG_WORD * BITS
    mine = [high for low, high, is_analog in used if (is_analog if analog else not is_analog or low < below)]
    start = max([least, *mine])
    size = WORD_BITS if analog or scheme == "word" else BITS
    start = -(-start // size) * size
    if (not analog and start >= below) or any(low <= start < high for low, high, _ in used):
        start = -(-max(high for _, high, _ in used) // size) * size
    return start_at(scheme, start)


def usual_scheme(io_kinds: set[str]) -> str:
    """Return the scheme of a card whose scheme nobody said: words for analog channels alone, else bits."""
    return "word" if io_kinds and io_kinds <= set(ANALOG) else "byte.bit"


def addressed(project: Project, device_ids: Iterable[str], scheme: str = "", start: str = "") -> list[Card]:
    """Return cards with the addresses they get together, in their order; those that are fixed are left out.

    Each goes on after what is in use by others then, from `start` on in each direction when one is given. Without a
    scheme each keeps its own; with bits, analog cards have words. A card that would run into a fixed one goes on
    behind it.

    Args:
        device_ids: devices of the cards.
        start: first address of the digital channels, as the scheme writes it.

    Raises:
        RuleError: the start is not written as the scheme asks, or the addresses run out.
    """
    wanted = set(device_ids)
    moving = [c for c in cards(project) if c.device_id in wanted and not c.fixed]
    taken = taken_places(project, (c.id for c in moving))
    found: list[Card] = []
    for card in moving:
        kinds = {r.io_type for r in channels(project, card.device_id)}
        if not kinds:
            continue
        analog = kinds <= set(ANALOG)
        own = scheme or card.scheme
        if own in ("byte.bit", "word"):
            own = "word" if analog else "byte.bit"
        first = start if start and not analog else ""
        placed = _placed(project, replace(card, scheme=own), first, taken, kinds)
        for space, low, high, row in spans_of(project, placed):
            taken.setdefault(space, []).append(Taken(low, high, row))
        found.append(placed)
    return found


def _placed(project: Project, card: Card, start: str, taken: dict[str, list[Taken]], kinds: set[str]) -> Card:
    """Return a card at a start, or at the first place behind it where nothing is in its way."""
    if not start:
        return replace(card, start=_next(taken, card.scheme, kinds))
    trial = replace(card, start=start)
    step = {"byte.bit": BITS, "word": WORD_BITS, "octal": BITS, "slot": SLOT_POINTS}.get(card.scheme, 1)
    for _ in range(LARGEST):
        spans = spans_of(project, trial)
        met = max(
            (t.high for space, low, high, _ in spans for t in taken.get(space, ()) if t.low < high and low < t.high),
            default=0,
        )
        if not met:
            return trial
        place = -(-met // step) * step
        if place // (BITS if card.scheme in ("byte.bit", "word") else 1) > LARGEST * SLOT_POINTS:
            break
        trial = replace(trial, start=start_at(card.scheme, place))
    raise RuleError("The addresses of this scheme run out. Give a lower first address.", field="start")


@dataclass(slots=True, frozen=True)
class MapCell:
    """A place of the address map: how it is written and the channels that take it, more than one for an overlap."""

    place: int
    size: int
    text: str
    rows: tuple[ChannelRow, ...]


@dataclass(slots=True, frozen=True)
class MapRow:
    """A row of the address map: a byte with its bits, an analog word, or eight numbers; what it is called."""

    name: str
    cells: tuple[MapCell, ...]


MOST_MAP_ROWS = 600


def address_map(project: Project, space: str) -> list[MapRow]:
    """Return the rows of an address space from its first place in use to its last; rows with nothing are one gap.

    Bytes hold eight bits, words stand in a row of their own, spaces of numbers are shown eight to a row and a slot is a
    row. A row without a channel between others is shown, several of them are one row with no cells.
    """
    found = taken_places(project).get(space, [])
    scheme = _scheme_of(space)
    by_place: dict[int, list[Taken]] = {}
    for taken in found:
        for place in range(taken.low, taken.high):
            by_place.setdefault(place, []).append(taken)
    size = SLOT_POINTS if scheme == "slot" else BITS
    lines = sorted({place // size for place in by_place})
    rows: list[MapRow] = []
    done = -1
    for line in lines[:MOST_MAP_ROWS]:
        if line <= done:
            continue
        if rows and line - done > 1:
            rows += _gap(scheme, done + 1, line - 1)
        row, done = _line(scheme, space, line, by_place)
        rows.append(row)
    return rows


def _scheme_of(space: str) -> str:
    return space.partition(" ")[0] if " " in space else "byte.bit"


def _gap(scheme: str, first: int, last: int) -> list[MapRow]:
    """Return the rows between two that are in use: one by itself with free cells, more of them as one without any."""
    one = MapRow(_name(scheme, first), tuple(_cells(scheme, first, {}, "DI")))
    if first == last:
        return [one]
    return [MapRow(f"{_name(scheme, first)} to {_name(scheme, last)}", ())]


def _name(scheme: str, line: int) -> str:
    if scheme == "octal":
        return f"{line * BITS:o}"
    return str(line * BITS if scheme == "whole" else line)


def _line(scheme: str, space: str, line: int, by_place: dict[int, list[Taken]]) -> tuple[MapRow, int]:
    """Return the row at a line and the last line it reaches: a word takes two bytes."""
    io_type = "DI" if space.endswith("I") else "DO"
    if scheme == "byte.bit":
        words = [t for p in range(line * BITS, line * BITS + BITS) for t in by_place.get(p, ()) if t.high - t.low > 1]
        if words:
            low = min(t.low for t in words)
            there = {id(r): r for p in range(low, low + WORD_BITS) for r in _rows_at(by_place, p)}
            cell = MapCell(low, WORD_BITS, f"W{low // BITS}", tuple(there.values()))
            return MapRow(str(low // BITS), (cell,)), (low + WORD_BITS - 1) // BITS
    return MapRow(_name(scheme, line), tuple(_cells(scheme, line, by_place, io_type))), line


def _cells(scheme: str, line: int, by_place: dict[int, list[Taken]], io_type: str) -> list[MapCell]:
    if scheme == "slot":
        last = max((p for p in by_place if p // SLOT_POINTS == line), default=line * SLOT_POINTS + BITS - 1)
        places = range(line * SLOT_POINTS, last + 1)
    else:
        places = range(line * BITS, line * BITS + BITS)
    return [
        MapCell(p, 1, str(p % SLOT_POINTS) if scheme == "slot" else start_at(scheme, p), _rows_at(by_place, p))
        for p in places
    ]


def _rows_at(by_place: dict[int, list[Taken]], place: int) -> tuple[ChannelRow, ...]:
    return tuple(t.row for t in by_place.get(place, ()))
