"""Which channel a point goes to: what fits, a block from a channel on, and what is suggested."""

from __future__ import annotations

import re
from collections.abc import Iterable
from dataclasses import dataclass

from jolly_core.model import IoPoint, Project, RuleError
from jolly_core.plc import ChannelRow, cards, channels
from jolly_core.tagging import full_tag, natural

from .drawnpoints import points_of_symbols
from .elements import switched_to

SORT_WORDS = {
    "fast": "a fast counter",
    "rtd": "a resistance thermometer",
    "thermocouple": "a thermocouple",
    "safe": "a safe channel",
}
# What a plain point may not be put on: the channel measures something else.
MEASURING = ("rtd", "thermocouple")


@dataclass(slots=True, frozen=True)
class Allotted:
    """A point and the channel that it gets."""

    point: IoPoint
    row: ChannelRow


def signal_key(signal: str) -> str:
    """Return a signal without its differences of writing, so that "4 to 20 mA" and "4...20mA" are one.

    Example:
        >>> {signal_key(s) for s in ("4 to 20 mA", "4...20mA", "4-20 MA", "4 – 20 mA")}, signal_key("24 V DC")
        ({'4-20ma'}, '24vdc')
    """
    text = re.sub(r"\s+to\s+|\s*(?:\.{2,}|…|–|—)\s*", "-", signal.strip().lower())
    return re.sub(r"\s+", "", text)


def why_not(point: IoPoint, row: ChannelRow) -> str:
    """Return why a point cannot be put on a channel, "" when it can.

    Type and what it asks beside it must be the channel's; a plain point may be put on a fast or safe channel, not on
    one that measures resistance or thermocouples. A signal counts where both sides say one.
    """
    if point.io_type != row.io_type:
        return f"{point.tag} is {point.io_type} and {row.address} is {row.io_type}"
    if point.sort != row.sort and (point.sort or row.sort in MEASURING):
        wanted = SORT_WORDS.get(point.sort, f"a plain {point.io_type}")
        there = SORT_WORDS.get(row.sort, f"a plain {row.io_type}")
        return f"{point.tag} asks for {wanted} and {row.address} is for {there}"
    keys = {signal_key(s) for s in row.signals}
    if point.signal and keys and signal_key(point.signal) not in keys:
        return f"{point.tag} is {point.signal} and {row.address} takes {' or '.join(row.signals)}"
    return ""


def why_not_here(project: Project, point: IoPoint, row: ChannelRow) -> str:
    """Return why a point cannot be put on a channel as both are drawn, or as they are; "" when it can.

    A symbol that is drawn for a point goes where its point goes, and is in nobody's way.
    """
    elsewhere = row.symbol_id not in ("", point.drawn) and row.symbol_id not in points_of_symbols(project)
    if elsewhere and point.drawn in project.symbols:
        return f"{point.tag} is drawn, and {row.address} is drawn elsewhere"
    return why_not(point, row)


def block_from(project: Project, points: list[IoPoint], device_id: str, io_type: str, channel: int) -> list[Allotted]:
    """Return the channels that points get one after another from a channel of a card on, past those that are taken.

    Channels are counted in the card's own order, so that a card of several types is filled on beyond the first.

    Args:
        io_type: type of the first channel, "" for the points' own.
        channel: 1-based number of the first channel among those of its type.

    Raises:
        RuleError: a point fits no channel of the card, is fixed elsewhere, or none is free for it; with the reason.
    """
    tag = full_tag(project, project.devices[device_id])
    rows = channels(project, device_id)
    first = next((n for n, r in enumerate(rows) if r.io_type == (io_type or r.io_type) and r.channel >= channel), 0)
    moving = {p.id for p in points}
    taken = {(r.io_type, r.channel) for r in rows if r.point_id and r.point_id not in moving}
    found: list[Allotted] = []
    for point in points:
        if point.fixed and point.channel:
            raise RuleError(f"{point.tag} is fixed on its channel. Release it first.", field="ids", ids=(point.id,))
        fitting = [r for r in rows if not why_not_here(project, point, r)]
        if not fitting:
            raise RuleError(_unfit(point, tag, rows), field="device_id", ids=(point.id,))
        behind = (r for r in rows[first:] if not io_type or r.io_type != point.io_type or r.channel >= channel)
        row = next(
            (r for r in behind if not why_not_here(project, point, r) and (r.io_type, r.channel) not in taken), None
        )
        if row is None:
            start = rows[first].address
            message = f"{tag} has no free {point.io_type} channel for {point.tag} from {start} on"
            fit = f"; {len(found)} of {len(points)} would fit" if found else ""
            raise RuleError(f"{message}{fit}.", field="channel", ids=(point.id,))
        taken.add((row.io_type, row.channel))
        found.append(Allotted(point, row))
    return found


def _unfit(point: IoPoint, tag: str, rows: list[ChannelRow]) -> str:
    kinds = " and ".join(sorted({r.io_type for r in rows})) or "no"
    if point.io_type not in {r.io_type for r in rows}:
        return f"{point.tag} is {point.io_type}, and {tag} has {kinds} channels. Choose another card."
    why = next((why_not(point, r) for r in rows if r.io_type == point.io_type and why_not(point, r)), "")
    return f"{why or f'{point.tag} is drawn, and these channels are drawn elsewhere'}. Choose another card."


def machine_of(project: Project, point: IoPoint) -> str:
    """Return what names the machine a point belongs to: its function, else its location, else its device's tag.

    Without any of them, the letters its tag begins with.
    """
    if point.function_id or point.location_id:
        return f"{point.function_id} {point.location_id}"
    return point.device or point.tag.rstrip("0123456789")


def suggested(project: Project, points: Iterable[IoPoint], device_ids: Iterable[str] = ()) -> list[Allotted]:
    """Return channels for points that wait: a machine's points together on a card, spares left at each card's end.

    A card's last channels are left free by the project's spare share as long as there is room elsewhere. Channels that
    are drawn already are left alone. What fits nowhere is left out; so is a sensor that switches plus where all that
    is free wants its other side on minus, or the reverse.

    Args:
        device_ids: the cards to use, all without one.
    """
    wanted = set(device_ids)
    ids = [c.device_id for c in cards(project) if not wanted or c.device_id in wanted]
    # What is drawn is wired to something already: whose that is, a person has to say.
    free = {id: [r for r in channels(project, id) if not r.point_id and not r.symbol_id] for id in ids}
    share = project.settings.spare_share_percent
    room = {id: _before_spares(project, id, share) for id in ids}
    groups: dict[tuple[str, str, str, str, str], list[IoPoint]] = {}
    for p in sorted(points, key=lambda p: (p.order, p.id)):
        if not p.channel:
            side = switched_to(project, p) if p.io_type == "DI" else ""
            groups.setdefault((machine_of(project, p), p.io_type, p.sort, signal_key(p.signal), side), []).append(p)
    found: list[Allotted] = []
    for (*_, side), group in sorted(groups.items(), key=lambda item: (item[1][0].order, natural(item[1][0].tag))):
        for spares in (False, True):
            group = _spread(group, side, free, {} if spares else room, found)
    return found


def _before_spares(project: Project, device_id: str, share: float) -> set[tuple[str, int]]:
    """Return the channels of a card, by type and number, before those at its end that are left spare."""
    rows = channels(project, device_id)
    counts: dict[str, int] = {}
    for r in rows:
        counts[r.io_type] = counts.get(r.io_type, 0) + 1
    kept = {t: n - int(n * share / (100 + share) + 1e-9) for t, n in counts.items()}
    return {(r.io_type, r.channel) for r in rows if r.channel <= kept[r.io_type]}


def _spread(
    group: list[IoPoint],
    side: str,
    free: dict[str, list[ChannelRow]],
    room: dict[str, set[tuple[str, int]]],
    found: list[Allotted],
) -> list[IoPoint]:
    """Allot points that are alike: to the first card that takes them all, else card by card; return those left."""
    if not group:
        return []

    def open_on(id: str) -> list[ChannelRow]:
        fitting = [r for r in free[id] if not why_not(group[0], r) and (not side or r.wired_to in ("", side))]
        return [r for r in fitting if not room or (r.io_type, r.channel) in room[id]]

    whole = next((id for id in free if len(open_on(id)) >= len(group)), "")
    left = list(group)
    for id in [whole] if whole else list(free):
        for row in open_on(id):
            if not left:
                break
            found.append(Allotted(left.pop(0), row))
            free[id].remove(row)
    return left
