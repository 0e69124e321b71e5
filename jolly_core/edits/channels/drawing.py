"""Channels of cards drawn from the list: what is connected, terminals and cables where wanted, commons and supply."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import SheetDraft
from jolly_core.model import Card, ChannelCircuit, RuleError, Settings, Symbol
from jolly_core.model.entities.structure import MOST_CHANNELS
from jolly_core.plc import ChannelRow, card_supplies, cards, channels
from jolly_core.points import Pattern, element_of, pattern_for, said_of
from jolly_core.tagging import product_tag

from ..base.edit import Id, Payload, Text, Work, edit
from ..points.cards import card_named
from .commons import Names, draw_common, draw_supply, feeds_elements, group_feed, name_on, names_of_card, supply_of
from .lines import ChannelLine, Drawing
from .sheets import RowOnSheet, rows_wanted, shared_out
from .stamps import gather_wanted, put_point_stamp
from .types import MINUS, PLUS, ChannelTypes, types_of_channel


class DrawChannels(Payload):
    """Draw the allocated channels of cards that are on no sheet yet: of some, or of all cards.

    Each card gets sheets of its own with so many channels each, and goes on where there is room on them. What people
    drew, moved or wrote is left as it is, and no other sheet is touched. Inputs have their common from `feed`, outputs
    to `back`, both by continuations of these names. What is given of the pattern and the names is the project's from
    then on; `side` with "" puts inputs on the right and outputs on the left.
    """

    kind: Literal["draw-channels"] = "draw-channels"
    device_ids: list[Id] = Field(default_factory=list, max_length=1000)
    ids: list[Id] = Field(default_factory=list, max_length=5000)
    per_sheet: int | None = Field(default=None, ge=1, le=MOST_CHANNELS)
    way: Literal["level", "upright"] | None = None
    side: Literal["", "right", "left"] | None = None
    feed: Text = ""
    back: Text = ""
    wire_type_id: Id = ""
    after_id: Id = ""


@edit(DrawChannels, {"device_ids": ["d1"], "feed": "24 V", "back": "0 V"})
def draw_channels(work: Work, payload: DrawChannels) -> str:
    """Work out DrawChannels."""
    project = work.project
    chosen = [card_named(project, id) for id in payload.device_ids] or cards(project)
    remember(work, payload)
    drawer = Drawer(
        work, payload.wire_type_id, payload.after_id, named=bool(payload.feed.strip() or payload.back.strip())
    )
    wanted = set(payload.ids)
    count = sum(drawer.draw_card(card, wanted) for card in chosen)
    if not count:
        raise RuleError(
            "Every channel that has a point is drawn already, or none of these has one.", field="device_ids"
        )
    drawer.finish()
    made = len(work.outcome.placed)
    return f"draw {count} channel{'s' if count != 1 else ''} on {made} new sheet{'s' if made != 1 else ''}"


def remember(work: Work, payload: DrawChannels) -> None:
    """Make what is given of pattern and names the project's."""
    settings = work.project.settings
    given = {
        "channel_feed": payload.feed.strip() or settings.channel_feed,
        "channel_return": payload.back.strip() or settings.channel_return,
        "channels_per_sheet": payload.per_sheet or settings.channels_per_sheet,
        "channel_way": payload.way or settings.channel_way,
        "channel_side": settings.channel_side if payload.side is None else payload.side,
    }
    fresh: Settings = replace(settings, **given)  # type: ignore[arg-type]  # each as its field is
    if fresh.channel_feed == fresh.channel_return:
        raise RuleError("Feed and return are two potentials. Give them two names.", field="back")
    if fresh != settings:
        work.put("settings", fresh)


class Drawer:
    """One act of drawing channels, card by card and sheet by sheet."""

    def __init__(self, work: Work, wire_type_id: str = "", after_id: str = "", *, named: bool = False) -> None:
        self.work, self.project = work, work.project
        if wire_type_id:
            work.project.get("wire_type", wire_type_id)
        self.type_id = wire_type_id
        self.types: dict[tuple[str, str], ChannelTypes] = {}  # of each feed with its return
        self.drawing = Drawing({product_tag(self.project, d) for d in self.project.devices.values()})
        settings = self.project.settings
        self.names = Names(settings.channel_feed, settings.channel_return)
        self.named = named  # the names were given for this act; else a card goes on as it is drawn
        self.after = after_id
        self.circuits: list[str] = []  # ids of those that were drawn

    def draw_card(self, card: Card, wanted: Iterable[str] = ()) -> int:
        """Draw what waits on a card, of some points or of all, and return how many channels that were."""
        project, outcome = self.project, self.work.outcome
        chosen = set(wanted)
        waiting = [
            r
            for r in channels(project, card.device_id)
            if r.point_id and not r.symbol_id and (not chosen or r.point_id in chosen)
        ]
        count = 0
        for sheet_id, rows in shared_out(self.work, card, waiting, self._feed, self.after):
            self.draw_rows(sheet_id, rows)
            count += len(rows)
            fresh = sheet_id in outcome.placed
            points = [project.io_points[r.point_id].tag for _, _, r in rows]
            said = points[0] if len(points) == 1 else f"{points[0]} to {points[-1]}"
            number = project.sheets[sheet_id].number
            outcome.table.append([f"{'new sheet' if fresh else 'sheet'} {number}", f"{len(rows)}", said])
            self.after = sheet_id if fresh else self.after
        return count

    def forget_tags(self) -> None:
        """Look again at which tags are taken, after devices went."""
        self.drawing.tags = {product_tag(self.project, d) for d in self.project.devices.values()}

    def finish(self) -> None:
        """Gather the wires of drawn circuits into cables where the list wants some."""
        gather_wanted(self.work, self.circuits)

    def _names(self, device_id: str) -> Names:
        return self.names if self.named else names_of_card(self.project, device_id, self.names)

    def _feed(self, channel: ChannelRow) -> str:
        supply = supply_of(self.project, channel.device_id, channel.group)
        return group_feed(self.project, supply, self._names(channel.device_id))

    def _common(self, sheet_id: str, pattern: Pattern, which: str, channel: ChannelRow) -> str:
        """Return the name of the common that a row of a sheet runs to: that which is there, else the card's."""
        there = name_on(self.project, sheet_id, pattern, which)
        return there or (self._feed(channel) if which == PLUS else self._names(channel.device_id).back)

    def draw_rows(
        self,
        sheet_id: str,
        rows: list[RowOnSheet],
        there: dict[str, Symbol] | None = None,
        pattern: Pattern | None = None,
    ) -> None:
        """Draw channels on their rows of a sheet, then what they have in common; stamps come last.

        Args:
            there: symbols of channels that stand already, by point.
            pattern: of the sheet, None as the project says.
        """
        work, project = self.work, self.project
        draft = work.draft(sheet_id)
        meets: dict[tuple[Pattern, str, str, str], list[int]] = {}
        lines = []
        for row, count, channel in rows:
            point = project.io_points[channel.point_id]
            line = ChannelLine(
                work, draft, pattern or pattern_for(project.settings, channel.io_type), row, point, channel
            )
            element = element_of(project, point)
            if element.why:
                work.outcome.remarks.append(f"{point.tag}: {element.why}.")
            feed, back = (self._common(sheet_id, line.pattern, which, channel) for which in (PLUS, MINUS))
            line.draw(self.drawing, self._types(channel, feed, back), element, (there or {}).get(point.id))
            lines.append((line, element, count))
            for which, across in line.meets:
                common = (line.pattern, which, feed if which == PLUS else back, line.types.of(which))
                meets.setdefault(common, []).append(line.pattern.pitch * row + across)
        for (sheet, which, name, type_id), places in meets.items():
            draw_common(work, draft, sheet, which, places, name, type_id)
        self._supplies(draft, [channel for _, _, channel in rows])
        work.close(draft)
        for line, element, count in lines:
            placed = put_point_stamp(work, line, element) if element.stamp else []
            self._keep(line, [*line.made, *placed], count)

    def _supplies(self, draft: SheetDraft, drawn: list[ChannelRow]) -> None:
        """Draw the supplies of the card that feed these channels, unless they are drawn."""
        device_id = drawn[0].device_id
        groups = {c.group for c in drawn} | {""}
        pattern = pattern_for(self.project.settings, drawn[0].io_type)
        for supply in card_supplies(self.project, device_id):
            if supply.group in groups and not supply.symbol_id:
                names = self._names(device_id)
                behind = group_feed(self.project, supply, names) if feeds_elements(self.project, supply) else ""
                draw_supply(self.work, draft, pattern, supply, names, behind, self._between(names.feed, names.back))

    def _types(self, channel: ChannelRow, feed: str, back: str) -> ChannelTypes:
        """Return the wire types of a channel; what is fed behind a fuse of its card is of what feeds that."""
        return self._between(self._names(channel.device_id).feed if feed == self._feed(channel) else feed, back)

    def _between(self, feed: str, back: str) -> ChannelTypes:
        known = self.types.get((feed, back))
        if known is None:
            known = self.types[feed, back] = types_of_channel(self.project, feed, back, self.type_id)
        return known

    def _keep(self, line: ChannelLine, made: list[str], count: int) -> None:
        """Keep what was drawn with a channel, and let its symbol follow its point from now on."""
        work, project = self.work, self.project
        channel = line.channel
        if channel is None:
            return
        point = project.io_points[line.point.id]
        known = project.circuits_of_symbol.get(channel.id)
        circuit = ChannelCircuit(
            next(iter(known), "") or work.ids.new(),
            channel.id,
            point.id,
            tuple(made),
            said_of(project, point),
            max(0, line.row - rows_wanted(project, line.io)[0]),
            count,
            line.pattern.per_sheet,
            line.pattern.way,
            line.pattern.side,
        )
        work.put("channel_circuit", circuit)
        if point.drawn != channel.id:
            work.put("io_point", replace(point, drawn=channel.id))
        self.circuits.append(circuit.id)
