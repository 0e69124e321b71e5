"""What channels of a sheet have in common: where they are fed from and return to, and the supplies of their card."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.drawing import Point, SheetDraft
from jolly_core.library import definition
from jolly_core.model import Continuation, Project
from jolly_core.plc import CardSupply, card_supplies, channels
from jolly_core.points import Pattern
from jolly_core.points.patterns import FEED, RETURN, RISE
from jolly_core.tagging import product_tag

from ..base.edit import Work
from ..draw.place import put_symbol
from .types import PLUS, ChannelTypes

SUPPLY_REACH = 16  # grid steps from a supply to the mark that feeds it, over a fuse


@dataclass(slots=True, frozen=True)
class Names:
    """Names of the continuations that channels are fed from and return to."""

    feed: str
    back: str


def group_feed(project: Project, supply: CardSupply | None, names: Names) -> str:
    """Return the name of what the elements of a group of channels are fed from: behind its fuse where it has one.

    What stands behind the fuse of a supply that is drawn is called as the mark there; else as the card and the group.
    """
    if supply is None or not supply.fuse_a:
        return names.feed
    symbol = project.symbols.get(supply.symbol_id)
    if symbol is not None:
        marks = [c for c in project.continuations_on(symbol.sheet_id) if (c.x, c.y) == _behind((symbol.x, symbol.y))]
        if marks:
            return marks[0].name
    tag = product_tag(project, project.devices[supply.device_id])
    name = f"{names.feed} {tag}" + (f".{supply.group}" if supply.group else "")
    while project.continuations_named.has(name):
        name += "'"
    return name


def names_of_card(project: Project, device_id: str, usual: Names) -> Names:
    """Return from where a card is fed and to where it returns as it is drawn, else what is usual."""
    for supply in card_supplies(project, device_id):
        symbol = project.symbols.get(supply.symbol_id)
        if symbol is None:
            continue
        marks = [c for c in project.continuations_on(symbol.sheet_id) if c.toward == "left" and c.x < symbol.x]
        feed = next((c.name for c in marks if c.y == symbol.y and symbol.x - c.x <= SUPPLY_REACH), "")
        back = next((c.name for c in marks if c.y == symbol.y + 4 and symbol.x - c.x <= SUPPLY_REACH), "")
        if feed and back and feed != back:
            return Names(feed, back)
    return usual


def name_on(project: Project, sheet_id: str, pattern: Pattern, which: str) -> str:
    """Return the name of the common that a sheet has already, "" when it has none: what joins it has to be of it."""
    along = FEED if which == PLUS else RETURN
    marks = project.continuations_on(sheet_id)
    return next((c.name for c in marks if c.toward == pattern.mark and on_common(pattern, c, along)), "")


def supply_of(project: Project, device_id: str, group: str) -> CardSupply | None:
    """Return the supply that feeds a group of a card's channels, None when its part has none."""
    known = card_supplies(project, device_id)
    own = [s for s in known if s.group == group] or [s for s in known if not s.group]
    return own[0] if own else None


def feeds_elements(project: Project, supply: CardSupply) -> bool:
    """Return whether anything at the channels a supply feeds can be fed from behind its fuse: not so at outputs.

    What an output switches is between its channel and the return, unless its part says that it is wired to plus.
    """
    of_supply = [
        c for c in channels(project, supply.device_id) if supply_of(project, supply.device_id, c.group) == supply
    ]
    return any(c.wired_to == PLUS if c.io_type == "DO" else c.io_type != "AO" for c in of_supply)


def draw_common(
    work: Work, draft: SheetDraft, pattern: Pattern, which: str, across: list[int], name: str, type_id: str
) -> None:
    """Draw a common of a sheet to where the rows meet it, from its mark if there is one, else with a new one."""
    along = FEED if which == PLUS else RETURN
    fixed = pattern.at(0, along)
    level = pattern.way == "level"
    there = [c for c in draft.continuations.values() if c.name == name and on_common(pattern, c, along)]
    low = min([*across, *(pattern.across((c.x, c.y)) for c in there)]) if there else min(across) - RISE
    ends = [(fixed[0], fixed[1] + n) if level else (fixed[0] + n, fixed[1]) for n in (low, max(across))]
    draft.stroke(ends[0], ends[1], type_id)
    if not there:
        _mark(work, draft, ends[0], name, pattern.mark)


def on_common(pattern: Pattern, mark: Continuation, along: int) -> bool:
    """Return whether a mark stands on the line of a common."""
    fixed = pattern.at(0, along)
    return mark.x == fixed[0] if pattern.way == "level" else mark.y == fixed[1]


def draw_supply(
    work: Work, draft: SheetDraft, pattern: Pattern, supply: CardSupply, names: Names, behind: str, types: ChannelTypes
) -> None:
    """Draw a supply of a card beside the rows, from the feed, over a fuse where its part wants one, and the return.

    Args:
        behind: name of the mark behind the fuse, "" where nothing is fed from there.
    """
    shape = definition("plc-supply")
    taken = sum(1 for s in draft.symbols.values() if s.definition == shape.key)
    x, y = pattern.supply_at(taken)
    put_symbol(work, draft, shape, (x, y), (0, False), 1, supply.device_id, "", supply.unit)
    reach = 6
    if supply.fuse_a:
        reach = SUPPLY_REACH
        device_text = f"{supply.fuse_a:g} A"
        put_symbol(work, draft, definition("fuse"), (x - 12, y), (0, False), 1, "", device_text)
        if behind:
            mark = _behind((x, y))
            draft.stroke((mark[0], y), mark, types.feed)
            _mark(work, draft, mark, behind, "up")
        draft.stroke((x - 8, y), (x, y), types.feed)
        draft.stroke((x - reach, y), (x - 12, y), types.feed)
    else:
        draft.stroke((x - reach, y), (x, y), types.feed)
    _mark(work, draft, (x - reach, y), names.feed, "left")
    draft.stroke((x - 6, y + 4), (x, y + 4), types.back)
    _mark(work, draft, (x - 6, y + 4), names.back, "left")


def _behind(at: Point) -> Point:
    """Return where the mark of a group's own feed stands, from the place of its supply."""
    return at[0] - 4, at[1] - 4


def _mark(work: Work, draft: SheetDraft, at: Point, name: str, toward: str) -> None:
    mark = Continuation(work.ids.new(), draft.sheet_id, *at, name, toward)
    draft.continuations[mark.id] = mark
