"""Channels of cards drawn from the list: what is connected, terminals where they are wanted, commons and supply."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import Point, SheetDraft
from jolly_core.library import definition
from jolly_core.model import Card, Continuation, Device, IoPoint, Project, RuleError, Sheet, Symbol
from jolly_core.plc import ChannelRow, cards, channels
from jolly_core.points import Element, element_of
from jolly_core.tagging import full_tag, product_tag

from .base import Id, Payload, Text, Work, edit
from .cards import card_named
from .place import put_symbol
from .sheets import NewSheet, make_sheets
from .upkeep import new_device

SYMBOLS = {"DI": "plc-input", "DO": "plc-output", "AI": "plc-analog-input", "AO": "plc-analog-output"}
WHOSE = ("relay", "contactor", "overload", "motor-breaker")  # classes whose contacts are drawn away from them
MOST_ROWS = 8  # more would reach the title block
TOP, PITCH = 20, 10  # y of the first row and from row to row, grid steps
BUS, FIRST, ELEMENT, SECOND, CHANNEL = 24, 34, 50, 70, 94  # x from the common to the channel of an input, grid steps
SUPPLY = 130  # x at which the card's supply stands
RISE = 6  # that a common reaches above its first row


class DrawChannels(Payload):
    """Draw the allocated channels of cards that are on no sheet yet: of some, or of all cards.

    Each card gets sheets of its own with so many channels each, and goes on where there is room on them. What people
    drew, moved or wrote is left as it is, and no other sheet is touched. Inputs have their common from `feed`, outputs
    to `back`, both by continuations of these names; what is given once is the project's from then on.
    """

    kind: Literal["draw-channels"] = "draw-channels"
    device_ids: list[Id] = Field(default_factory=list, max_length=1000)
    ids: list[Id] = Field(default_factory=list, max_length=5000)
    per_sheet: int = Field(default=8, ge=1, le=MOST_ROWS)
    feed: Text = ""
    back: Text = ""
    wire_type_id: Id = ""
    after_id: Id = ""


@edit(DrawChannels, {"device_ids": ["d1"], "feed": "24 V", "back": "0 V"})
def draw_channels(work: Work, payload: DrawChannels) -> str:
    """Work out DrawChannels."""
    project = work.project
    chosen = [card_named(project, id) for id in payload.device_ids] or cards(project)
    type_id = payload.wire_type_id or _usual_type(project)
    project.get("wire_type", type_id)
    settings = project.settings
    names = (payload.feed.strip() or settings.channel_feed, payload.back.strip() or settings.channel_return)
    if names != (settings.channel_feed, settings.channel_return):
        work.put("settings", replace(settings, channel_feed=names[0], channel_return=names[1]))
    wanted = set(payload.ids)
    tags = {product_tag(project, d) for d in project.devices.values()}
    count = 0
    after = payload.after_id
    for card in chosen:
        waiting = [
            r
            for r in channels(project, card.device_id)
            if r.point_id and not r.symbol_id and (not wanted or r.point_id in wanted)
        ]
        for sheet_id, rows in _shared_out(work, card, waiting, payload.per_sheet, after):
            _draw(work, sheet_id, rows, names, type_id, tags)
            count += len(rows)
            fresh = "new sheet" if sheet_id in work.outcome.placed else "sheet"
            points = [project.io_points[r.point_id].tag for _, r in rows]
            said = points[0] if len(points) == 1 else f"{points[0]} to {points[-1]}"
            work.outcome.table.append([f"{fresh} {project.sheets[sheet_id].number}", f"{len(rows)}", said])
            after = sheet_id if sheet_id in work.outcome.placed else after
    if not count:
        raise RuleError(
            "Every channel that has a point is drawn already, or none of these has one.", field="device_ids"
        )
    made = len(work.outcome.placed)
    return f"draw {count} channel{'s' if count != 1 else ''} on {made} new sheet{'s' if made != 1 else ''}"


def _usual_type(project: Project) -> str:
    """Return the wire type of control wires that stand in the panel, else any."""
    types = sorted(project.wire_types.values(), key=lambda t: (t.category != "control-dc", t.outside, t.id))
    if not types:
        raise RuleError("The project has no wire type. Make one in the Brief first.", field="wire_type_id")
    return types[0].id


Row = tuple[int, ChannelRow]


def _shared_out(
    work: Work, card: Card, waiting: list[ChannelRow], per_sheet: int, after: str
) -> Iterator[tuple[str, list[Row]]]:
    """Give sheet by sheet the channels that are drawn on it with their rows; sheets are made where room runs out."""
    project = work.project
    left = list(waiting)
    for sheet_id in card.sheet_ids:
        if left and sheet_id in project.sheets:
            free = _free_rows(project, sheet_id, per_sheet)
            taken, left = left[: len(free)], left[len(free) :]
            if taken:
                yield sheet_id, list(zip(free, taken, strict=False))
    while left:
        taken, left = left[:per_sheet], left[per_sheet:]
        sheet = _new_sheet(work, card, taken, after)
        after = sheet.id
        yield sheet.id, list(enumerate(taken))


def _new_sheet(work: Work, card: Card, rows: list[ChannelRow], after: str) -> Sheet:
    project = work.project
    device = project.devices[card.device_id]
    span = rows[0].address if len(rows) == 1 else f"{rows[0].address} to {rows[-1].address}"
    new = NewSheet(
        title=f"{full_tag(project, device)} {span}"[:200],
        frame="zones",
        size="A3",
        function_id=device.function_id,
        location_id=device.location_id,
    )
    placed = list(work.outcome.placed)
    (sheet,) = make_sheets(work, [new], after)
    work.outcome.placed = [*placed, sheet.id]
    now = project.cards[card.id]
    work.put("card", replace(now, sheet_ids=(*now.sheet_ids, sheet.id)))
    return sheet


def _free_rows(project: Project, sheet_id: str, per_sheet: int) -> list[int]:
    """Return the rows of a sheet in which nothing stands."""
    ys = [s.y for s in project.symbols_on(sheet_id)]
    ys += [y for w in project.wires_on(sheet_id) if w.y1 == w.y2 for y in (w.y1,)]
    return [n for n in range(per_sheet) if not any(abs(y - (TOP + PITCH * n)) < PITCH - 2 for y in ys)]


@dataclass(slots=True)
class _Common:
    """The common of a sheet's inputs or outputs: where rows meet it."""

    name: str
    x: int
    ys: list[int] = field(default_factory=list)


def _draw(work: Work, sheet_id: str, rows: list[Row], names: tuple[str, str], type_id: str, tags: set[str]) -> None:
    """Draw channels on their rows of a sheet, then what they have in common."""
    draft = work.draft(sheet_id)
    feed, back = (_Common(name, BUS) for name in names)
    for n, row in rows:
        point = work.project.io_points[row.point_id]
        line = _Line(work, draft, TOP + PITCH * n, point, row, type_id, tags)
        line.draw()
        if line.common_x:
            common = feed if row.io_type == "DI" else back
            common.x = line.common_x
            common.ys.append(line.y)
    for common in (feed, back):
        _draw_common(work, draft, common, type_id)
    _draw_supply(work, draft, rows[0][1].device_id, (feed.name, back.name), type_id)
    work.close(draft)


def _draw_common(work: Work, draft: SheetDraft, common: _Common, type_id: str) -> None:
    if not common.ys:
        return
    # It goes on from a common that is there already, else it begins with a mark of its own above the first row.
    there = [c for c in draft.continuations.values() if c.name == common.name and c.x == common.x]
    top = min([*common.ys, *(c.y for c in there)]) if there else min(common.ys) - RISE
    draft.stroke((common.x, top), (common.x, max(common.ys)), type_id)
    if not there:
        mark = Continuation(work.ids.new(), draft.sheet_id, common.x, top, common.name, "up")
        draft.continuations[mark.id] = mark


def _draw_supply(work: Work, draft: SheetDraft, device_id: str, names: tuple[str, str], type_id: str) -> None:
    """Draw the card's own supply from feed and back, once."""
    part = work.project.part_of(work.project.devices[device_id])
    drawn = any(s.definition == "plc-supply" for s in work.project.units_of(device_id))
    if drawn or part is None or not part.count("card-supply"):
        return
    shape = definition("plc-supply")
    if any(s.definition == "plc-supply" for s in draft.symbols.values()):
        return
    put_symbol(work, draft, shape, (SUPPLY, TOP), (0, False), 1, device_id, "", 1)
    for name, y in zip(names, (TOP, TOP + 4), strict=True):
        draft.stroke((SUPPLY - 6, y), (SUPPLY, y), type_id)
        mark = Continuation(work.ids.new(), draft.sheet_id, SUPPLY - 6, y, name, "left")
        draft.continuations[mark.id] = mark


class _Line:
    """One channel with what is connected to it, on a row of a sheet.

    Inputs stand on the right and outputs on the left; their common is on the other side. The two wires of an analog
    channel both go to the card.
    """

    def __init__(
        self, work: Work, draft: SheetDraft, y: int, point: IoPoint, row: ChannelRow, type_id: str, tags: set[str]
    ) -> None:
        self.work, self.draft, self.y = work, draft, y
        self.point, self.row, self.type_id = point, row, type_id
        self.tags = tags
        self.inward = row.io_type in ("DI", "AI")
        self.common_x = 0

    def draw(self) -> None:
        """Draw it all; an element that is not known is left out and named."""
        shape = definition(SYMBOLS[self.row.io_type])
        x = CHANNEL if self.inward else FIRST
        self._put(shape.key, (x, self.y), self.row.device_id, self.row.channel)
        element = element_of(self.work.project, self.point)
        if element.why:
            self.work.outcome.remarks.append(f"{self.point.tag}: {element.why}.")
        if not element.definition:
            return
        if self.row.io_type in ("AI", "AO"):
            self._loop(element, x)
        else:
            self._level(element)

    def _level(self, element: Element) -> None:
        """Draw a digital channel: common, terminal, element, terminal, channel."""
        ends = (BUS, ELEMENT, CHANNEL) if self.inward else (FIRST, ELEMENT + 12, CHANNEL + 10)
        left, at, right = ends
        first = left + 10
        self._element(element, (at, self.y))
        cuts = [left, right]
        if self.point.terminals:
            for x in (first, at + 20):
                self._terminal((x, self.y))
        self._stroke((cuts[0], self.y), (at, self.y))
        self._stroke((at + 4, self.y), (cuts[1], self.y))
        self.common_x = left if self.inward else right

    def _loop(self, element: Element, x: int) -> None:
        """Draw an analog channel: both of the element's wires go to the card."""
        at = ELEMENT if self.inward else ELEMENT + 12
        near, far = (at + 4, at) if self.inward else (at, at + 4)
        # Its plus is turned towards the channel, as the card feeds the loop.
        self._element(element, (near, self.y), 180 if self.inward else 0)
        if self.point.terminals:
            shift = 20 if self.inward else -14
            for y in (self.y, self.y + 4):
                self._terminal((at + shift, y))
        side = far - 4 if self.inward else far + 4
        self._stroke((near, self.y), (x, self.y))
        self._stroke((far, self.y), (side, self.y))
        self._stroke((side, self.y), (side, self.y + 4))
        self._stroke((side, self.y + 4), (x, self.y + 4))

    def _put(self, key: str, at: Point, device_id: str = "", unit: int = 0, text: str = "", turn: int = 0) -> Symbol:
        return put_symbol(self.work, self.draft, definition(key), at, (turn, False), 1, device_id, text, unit)

    def _element(self, element: Element, at: Point, turn: int = 0) -> None:
        shape = definition(element.definition)
        named = self.point.device.strip()
        device_id = element.device_id
        if not device_id and (shape.lead < 9 or named or shape.part_class not in WHOSE):
            # Whose a bare contact is, the list has to say; everything else is a device of its own.
            device_id = self._new_device(shape.part_class, named).id
        self._put(element.definition, at, device_id, 0, self.point.text, turn)

    def _new_device(self, part_class: str, named: str) -> Device:
        """Make a device where the list says, and called as it says, while nothing else is called so."""
        project, point = self.work.project, self.point
        sheet = project.sheets[self.draft.sheet_id]
        place = (point.function_id or sheet.function_id, point.location_id or sheet.location_id)
        device = new_device(self.work, part_class, place, point.text)
        tag = named.rsplit("-", 1)[-1]
        if tag.isalnum() and tag not in self.tags:
            device = replace(device, fixed_tag=tag)
            self.work.put("device", device)
        self.tags.add(product_tag(project, device))
        return device

    def _terminal(self, at: Point) -> None:
        self._put("terminal", at, _strip_of(self.work, self.draft, self.row.device_id).id)

    def _stroke(self, a: Point, b: Point) -> None:
        self.draft.stroke(a, b, self.type_id)


def _strip_of(work: Work, draft: SheetDraft, device_id: str) -> Device:
    """Return the strip that the terminals of a card's channels go to: the one used on its sheets, else a new one."""
    project = work.project
    there = [s.device_id for s in draft.symbols.values() if definition(s.definition).unit == "terminal"]
    card = card_named(project, device_id)
    there += [
        s.device_id
        for sheet_id in card.sheet_ids
        if sheet_id in project.sheets
        for s in project.symbols_on(sheet_id)
        if definition(s.definition).unit == "terminal"
    ]
    found = next((project.devices[id] for id in there if id in project.devices), None)
    if found is not None:
        return found
    device = project.devices[device_id]
    return new_device(work, "terminal", (device.function_id, device.location_id))
