"""How many channels are needed and there, by type and place; which cards would cover what is missing."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from math import ceil
from typing import Literal

from jolly_core.model import IO_TYPES, IoPoint, Part, Project
from jolly_core.plc import UNIT_KINDS, cards, channels

from .allocation import signal_key

By = Literal["", "location", "function"]
MOST_CARDS = 400


@dataclass(slots=True, frozen=True)
class ChannelNeed:
    """Points and channels of one type and sort at one place.

    Attributes:
        place_id: location or function they are counted by, "" for none or for all.
        points, allocated: how many there are, and how many of them have a channel.
        channels: how many channels the cards there have.
        needed: points with the spare share, rounded up.
        spare_percent: share of the channels that no point takes.
        signals: those of the points, each once; a card that takes none of them is none for this need.
    """

    io_type: str
    sort: str
    place_id: str
    points: int
    allocated: int
    channels: int
    needed: int
    spare_percent: float
    signals: tuple[str, ...] = ()

    @property
    def lacking(self) -> int:
        """Channels that are needed and not there."""
        return max(0, self.needed - self.channels)


@dataclass(slots=True, frozen=True)
class CardChoice:
    """Cards that cover a need: how many of each part, what they have more than is lacking, and the spare share then."""

    need: ChannelNeed
    parts: tuple[tuple[Part, int], ...]
    surplus: int
    spare_percent: float


def needed_channels(points: int, spare_percent: float) -> int:
    """Return how many channels cover a number of points with a share to spare on top.

    Example:
        >>> needed_channels(13, 20)
        16
    """
    return ceil(round(points * (1 + spare_percent / 100), 6))


def needs(project: Project, by: By = "") -> list[ChannelNeed]:
    """Return what is needed and there, by type, sort and place; only what has points or channels."""
    share = project.settings.spare_share_percent

    def place_of_point(point: IoPoint) -> str:
        return point.location_id if by == "location" else point.function_id if by == "function" else ""

    points: dict[tuple[str, str, str], list[IoPoint]] = {}
    for p in project.io_points.values():
        points.setdefault((p.io_type, p.sort, place_of_point(p)), []).append(p)
    wanted = {key: {signal_key(p.signal): p.signal for p in mine if p.signal} for key, mine in points.items()}
    there: dict[tuple[str, str, str], int] = {}
    for card in cards(project):
        device = project.devices[card.device_id]
        place = device.location_id if by == "location" else device.function_id if by == "function" else ""
        for row in channels(project, card.device_id):
            # A fast or safe channel that no such point asks for serves plain ones.
            key = (row.io_type, row.sort if (row.io_type, row.sort, place) in points else "", place)
            takes, asked = {signal_key(s) for s in row.signals}, wanted.get(key, {})
            fits = row.point_id or not takes or not asked or takes & set(asked)
            there[key] = there.get(key, 0) + bool(fits)
    found = []
    for key in sorted({*points, *there}, key=lambda k: (IO_TYPES.index(k[0]), k[1], k[2])):
        mine, count = points.get(key, []), there.get(key, 0)
        allocated = sum(1 for p in mine if p.channel)
        spare = 100 * (count - allocated) / count if count else 0.0
        needed = needed_channels(len(mine), share)
        signals = tuple(sorted(wanted.get(key, {}).values()))
        found.append(ChannelNeed(*key, len(mine), allocated, count, needed, round(spare, 1), signals))
    return found


def cards_for(need: ChannelNeed, parts: Iterable[Part]) -> CardChoice | None:
    """Return the cards of some parts that cover what a need lacks: smallest surplus, then fewest cards, then cheapest.

    Parts count that have channels of the need's type and sort alone, and take all of its signals where they say which.
    None when nothing is lacking or no part fits.

    Example:
        16 channels with cards of 8 or 32 are two of 8; 9 with cards of 4, 8 and 16 are one of 4 and one of 8.
    """
    fitting = sorted(
        (p for p in parts if channels_of(p, need)), key=lambda p: (channels_of(p, need), p.price, p.number)
    )
    lacking = need.lacking
    if not fitting or not lacking:
        return None
    sizes = [channels_of(p, need) for p in fitting]
    goal = lacking + max(sizes)
    # best[n]: fewest cards with n channels, their price, and the last part put in.
    best: list[tuple[int, float, int] | None] = [None] * (goal + 1)
    best[0] = (0, 0.0, -1)
    for n in range(1, goal + 1):
        options = [
            (before[0] + 1, round(before[1] + fitting[i].price, 6), i)
            for i, size in enumerate(sizes)
            if size <= n and (before := best[n - size]) is not None
        ]
        best[n] = min(options, default=None)
    total = next((n for n in range(lacking, goal + 1) if best[n] is not None), 0)
    if not total:
        return None
    counts: dict[int, int] = {}
    n = total
    while n:
        step = best[n]
        assert step is not None
        counts[step[2]] = counts.get(step[2], 0) + 1
        n -= sizes[step[2]]
    if sum(counts.values()) > MOST_CARDS:
        return None
    chosen = tuple((fitting[i], count) for i, count in sorted(counts.items(), key=lambda c: -sizes[c[0]]))
    after = need.channels + total
    return CardChoice(need, chosen, total - lacking, round(100 * (after - need.points) / after, 1))


def channels_of(part: Part, need: ChannelNeed) -> int:
    """Return how many channels for a need a part has, 0 when it has others beside them or they do not take it."""
    kinds = {kind for kind, _ in part.units} & set(UNIT_KINDS.values())
    wanted = UNIT_KINDS[need.io_type]
    if kinds != {wanted}:
        return 0

    units = [n for n, (kind, _) in enumerate(part.units) if kind == wanted]
    fits = all(part.detail(n).get("sort", "") == need.sort and _takes(part.detail(n), need) for n in units)
    return len(units) if fits else 0


def _takes(facts: Mapping[str, str], need: ChannelNeed) -> bool:
    """Return whether a channel takes all signals of a need, or says none."""
    said = {signal_key(s) for s in facts.get("signals", "").split(",") if s.strip()}
    return not said or {signal_key(s) for s in need.signals} <= said
