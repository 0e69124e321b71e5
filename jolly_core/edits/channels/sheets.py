"""Which sheet and which row a channel is drawn on: rows that are free on the sheets of its card, then new sheets."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator
from dataclasses import replace

from jolly_core.drawing import habit_of
from jolly_core.model import SHEET_SIZES_MM, Card, Project, Sheet
from jolly_core.plc import ChannelRow
from jolly_core.points import Pattern, pattern_for, shown_as
from jolly_core.points.patterns import FEED
from jolly_core.tagging import full_tag

from ..base.edit import Work
from ..sheets.adding import NewSheet, make_sheets
from .commons import on_common
from .stamps import reach_of

# Row of the sheet, how many rows it takes, and the channel.
RowOnSheet = tuple[int, int, ChannelRow]
Feed = Callable[[ChannelRow], str]
LEAST_MM = (420.0, 279.0)  # width and height that eight rows and the supplies beside them take with a title block
_TITLE = re.compile(r"[=+-]\S* \S+( to \S+)?")  # as sheets of channels are titled while nobody changes it


def shared_out(
    work: Work, card: Card, waiting: list[ChannelRow], feed: Feed, after: str
) -> Iterator[tuple[str, list[RowOnSheet]]]:
    """Give sheet by sheet the channels that are drawn on it with their rows; sheets are made where room runs out.

    Channels whose elements have feeds of their own are kept on sheets of their own.
    """
    project = work.project
    left = list(waiting)
    for sheet_id in card.sheet_ids:
        if left and sheet_id in project.sheets:
            taken = _on_sheet(project, sheet_id, left, feed)
            if taken:
                drawn = {c.point_id for _, _, c in taken}
                left = [c for c in left if c.point_id not in drawn]
                yield sheet_id, taken
    while left:
        taken, left = _next_sheet(project, left, feed)
        sheet = _new_sheet(work, card, [c for _, _, c in taken], after)
        after = sheet.id
        yield sheet.id, taken


def rows_wanted(project: Project, channel: ChannelRow) -> tuple[int, int]:
    """Return how many rows a circuit takes before and after that of its channel."""
    point = project.io_points[channel.point_id]
    element = shown_as(project, point)
    if not element.stamp:
        return 0, 0
    return reach_of(project, element.stamp, pattern_for(project.settings, channel.io_type))


def _next_sheet(project: Project, left: list[ChannelRow], feed: Feed) -> tuple[list[RowOnSheet], list[ChannelRow]]:
    """Return what goes onto a new sheet, and what is left: one at least, though it may take more than the sheet has."""
    per_sheet = project.settings.channels_per_sheet
    name = feed(left[0])
    taken: list[RowOnSheet] = []
    used = 0
    for n, channel in enumerate(left):
        above, below = rows_wanted(project, channel)
        count = above + 1 + below
        if taken and (used + count > per_sheet or feed(channel) != name):
            return taken, left[n:]
        taken.append((used + above, count, channel))
        used += count
    return taken, []


def _on_sheet(project: Project, sheet_id: str, left: list[ChannelRow], feed: Feed) -> list[RowOnSheet]:
    """Return what goes onto the free rows of a sheet that is there."""
    free = _free_rows(project, sheet_id, pattern_for(project.settings, left[0].io_type))
    fed = _feeds_on(project, sheet_id)
    taken: list[RowOnSheet] = []
    for channel in left:
        if fed and fed != {feed(channel)}:
            continue
        above, below = rows_wanted(project, channel)
        at = next((r for r in sorted(free) if free.issuperset(range(r - above, r + below + 1))), None)
        if at is not None:
            taken.append((at, above + 1 + below, channel))
            free.difference_update(range(at - above, at + below + 1))
            fed = {feed(channel)}
    return taken


def _feeds_on(project: Project, sheet_id: str) -> set[str]:
    """Return the names of what elements on a sheet are fed from."""
    ways = [(Pattern(1, way, side)) for way in ("level", "upright") for side in ("right", "left")]
    marks = project.continuations_on(sheet_id)
    return {c.name for c in marks for p in ways if c.toward == p.mark and on_common(p, c, FEED)}


def _free_rows(project: Project, sheet_id: str, pattern: Pattern) -> set[int]:
    """Return the rows of a sheet in which nothing stands; none where it has another pattern."""
    symbols = project.symbols_on(sheet_id)
    circuits = [project.channel_circuits[i] for s in symbols for i in project.circuits_of_symbol.get(s.id)]
    if any((c.per_sheet, c.way) != (pattern.per_sheet, pattern.way) for c in circuits):
        return set()
    if not circuits and pattern.way != "level":
        return set()
    across = [pattern.across((s.x, s.y)) for s in symbols if pattern.within_rows((s.x, s.y))]
    for w in project.wires_on(sheet_id):
        if (w.y1 == w.y2) == (pattern.way == "level") and pattern.within_rows((w.x1, w.y1)):
            across.append(pattern.across((w.x1, w.y1)))
    taken = {row for c in circuits for row in range(c.first_row, c.first_row + c.row_count)}
    rows = (n for n in range(pattern.per_sheet) if n not in taken)
    return {n for n in rows if not any(abs(y - pattern.pitch * n) < pattern.pitch - 2 for y in across)}


def size_for(project: Project) -> str:
    """Return the size of sheets of channels: that of the project's schematics, if the rows have room on it."""
    usual = habit_of(project, "schematic").size
    width, height = SHEET_SIZES_MM.get(usual, (0.0, 0.0))
    metric = project.settings.standard == "iec"
    return usual if width >= LEAST_MM[0] and height >= LEAST_MM[1] else "A3" if metric else "ANSI B"


def title_for(project: Project, device_id: str, drawn: list[ChannelRow]) -> str:
    """Return the title of a sheet of channels: the card, and from which address to which."""
    span = drawn[0].address if len(drawn) == 1 else f"{drawn[0].address} to {drawn[-1].address}"
    return f"{full_tag(project, project.devices[device_id])} {span}"[:200]


def titled_by_itself(title: str) -> bool:
    """Return whether a title is as sheets of channels get it, so that nobody has written it."""
    return bool(_TITLE.fullmatch(title))


def _new_sheet(work: Work, card: Card, drawn: list[ChannelRow], after: str) -> Sheet:
    project = work.project
    device = project.devices[card.device_id]
    new = NewSheet(
        title=title_for(project, card.device_id, drawn),
        frame="zones",
        size=size_for(project),
        function_id=device.function_id,
        location_id=device.location_id,
    )
    placed = list(work.outcome.placed)
    (sheet,) = make_sheets(work, [new], after)
    work.outcome.placed = [*placed, sheet.id]
    now = project.cards[card.id]
    work.put("card", replace(now, sheet_ids=(*now.sheet_ids, sheet.id)))
    return sheet
