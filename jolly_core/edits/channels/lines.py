"""A channel of a card drawn on a row of its sheet: what is connected to it, with the terminals that are wanted."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

from jolly_core.drawing import SheetDraft
from jolly_core.library import definition
from jolly_core.model import Device, IoPoint, Symbol
from jolly_core.plc import ANALOG, ChannelRow
from jolly_core.points import Element, Pattern
from jolly_core.points.patterns import CHANNEL, DEEP, ELEMENT, FEED, FIRST, RETURN, SECOND
from jolly_core.tagging import product_tag

from ..base.edit import Work
from ..base.upkeep import new_device
from ..draw.place import put_symbol
from .types import MINUS, PLUS, ChannelTypes

SYMBOLS = {"DI": "plc-input", "DO": "plc-output", "AI": "plc-analog-input", "AO": "plc-analog-output"}
BODY_BACK = ("plc-output", "plc-analog-output")  # drawn with their body before their pin
WHOSE = ("relay", "contactor", "overload", "motor-breaker")  # classes whose contacts are drawn away from them
THREE_WIRES = ("three-wire-sensor", "three-wire-sensor-minus")


@dataclass(slots=True)
class Drawing:
    """What an act of drawing channels keeps in mind: tags in use, and the strip of each card."""

    tags: set[str]
    strips: dict[str, str] = field(default_factory=dict)


class ChannelLine:
    """One channel with what is connected to it, on a row of a sheet.

    Attributes:
        meets: for each common that a wire of the row runs to, how far across it meets it.
        made: ids of the symbols that were drawn with the channel.
        channel: the symbol of the channel.
    """

    def __init__(
        self, work: Work, draft: SheetDraft, pattern: Pattern, row: int, point: IoPoint, channel: ChannelRow
    ) -> None:
        self.work, self.draft, self.pattern, self.row = work, draft, pattern, row
        self.point, self.io = point, channel
        self.meets: list[tuple[str, int]] = []
        self.made: list[str] = []
        self.channel: Symbol | None = None

    def draw(self, drawing: Drawing, types: ChannelTypes, element: Element, there: Symbol | None = None) -> None:
        """Draw it all, but for a stamp; the channel's own symbol is left where it is when there is one."""
        self.drawing, self.types = drawing, types
        self.channel = there or self._channel()
        if not element.definition:
            return
        if element.definition in THREE_WIRES:
            self._three_wires(element)
        elif element.definition == "four-wire-sensor":
            self._four_wires(element)
        elif self.io.io_type in ANALOG:
            self._loop(element)
        else:
            self._two_wires(element)

    def _channel(self) -> Symbol:
        key = SYMBOLS[self.io.io_type]
        turn = self.pattern.back if key in BODY_BACK else self.pattern.turn
        at = self.pattern.at(self.row, CHANNEL)
        return put_symbol(self.work, self.draft, definition(key), at, turn, 1, self.io.device_id, "", self.io.channel)

    def _two_wires(self, element: Element) -> None:
        """Draw common, terminal, element, terminal, channel; a load has its first pin next to the channel."""
        if self.io.io_type == "DO":
            self._put(element, ELEMENT + DEEP, self.pattern.back)
        else:
            self._put(element, ELEMENT, self.pattern.turn)
        self._terminals((FIRST, 0), (SECOND, 0))
        self._from_common(self.io.wired_to, 0)
        self._stroke((ELEMENT + DEEP, 0), (CHANNEL, 0))

    def _loop(self, element: Element) -> None:
        """Draw an element both wires of which go to the card; its plus is next to the channel, which feeds it."""
        self._put(element, ELEMENT + DEEP, self.pattern.back)
        self._terminals((SECOND, 0), (SECOND, DEEP))
        self._stroke((ELEMENT + DEEP, 0), (CHANNEL, 0))
        self._stroke((ELEMENT, 0), (ELEMENT - DEEP, 0))
        self._stroke((ELEMENT - DEEP, 0), (ELEMENT - DEEP, DEEP))
        self._stroke((ELEMENT - DEEP, DEEP), (CHANNEL, DEEP))

    def _three_wires(self, element: Element) -> None:
        """Draw a sensor that is fed, with its output at the channel; an analog channel's minus goes to the return."""
        self._fed(element)
        self._terminals((SECOND, 0))
        self._stroke((ELEMENT + DEEP, 0), (CHANNEL, 0))
        if self.io.io_type in ANALOG:
            self.meets.append((MINUS, DEEP + 2))
            self._stroke((RETURN, DEEP + 2), (CHANNEL - DEEP, DEEP + 2), MINUS)
            self._stroke((CHANNEL - DEEP, DEEP + 2), (CHANNEL - DEEP, DEEP), MINUS)
            self._stroke((CHANNEL - DEEP, DEEP), (CHANNEL, DEEP), MINUS)

    def _four_wires(self, element: Element) -> None:
        """Draw a transmitter that is fed, with both wires of its signal at the channel."""
        self._fed(element)
        self._terminals((SECOND, 0), (SECOND, DEEP))
        self._stroke((ELEMENT + DEEP, 0), (CHANNEL, 0))
        self._stroke((ELEMENT + DEEP, DEEP), (CHANNEL, DEEP))

    def _fed(self, element: Element) -> None:
        self._put(element, ELEMENT, self.pattern.turn)
        self._terminals((FIRST, 0), (FIRST, DEEP))
        self._from_common(PLUS, 0)
        self._from_common(MINUS, DEEP)

    def _from_common(self, which: str, across: int) -> None:
        self.meets.append((which, across))
        self._stroke((FEED if which == PLUS else RETURN, across), (ELEMENT, across), which)

    def _put(self, element: Element, along: int, turn: tuple[int, bool]) -> None:
        shape = definition(element.definition)
        named = self.point.device.strip()
        device_id = element.device_id
        if not device_id and (shape.lead < 9 or named or shape.part_class not in WHOSE):
            # Whose a bare contact is, the list has to say; everything else is a device of its own.
            device_id = self._new_device(shape.part_class, named).id
        at = self.pattern.at(self.row, along)
        self.made.append(put_symbol(self.work, self.draft, shape, at, turn, 1, device_id, self.point.text).id)

    def _new_device(self, part_class: str, named: str) -> Device:
        """Make a device where the list says, and called as it says, while nothing else is called so."""
        project, point, tags = self.work.project, self.point, self.drawing.tags
        sheet = project.sheets[self.draft.sheet_id]
        place = (point.function_id or sheet.function_id, point.location_id or sheet.location_id)
        device = new_device(self.work, part_class, place, point.text)
        tag = named.rsplit("-", 1)[-1]
        if tag.isalnum() and tag not in tags:
            device = replace(device, fixed_tag=tag)
            self.work.put("device", device)
        tags.add(product_tag(project, device))
        return device

    def _terminals(self, *places: tuple[int, int]) -> None:
        if not self.point.terminals:
            return
        strip_id = self._strip()
        for along, across in places:
            at = self.pattern.at(self.row, along, across)
            made = put_symbol(self.work, self.draft, definition("terminal"), at, self.pattern.turn, 1, strip_id, "", 0)
            self.made.append(made.id)

    def _strip(self) -> str:
        """Return the strip that the terminals of the card's channels go to: the one on its sheets, else a new one."""
        card_id = self.io.device_id
        known = self.drawing.strips.get(card_id)
        if known is None:
            known = self.drawing.strips[card_id] = _strip_of(self.work, card_id)
        return known

    def _stroke(self, a: tuple[int, int], b: tuple[int, int], common: str = "") -> None:
        """Draw a wire of a signal, or of the potential of a common."""
        first, last = self.pattern.at(self.row, *a), self.pattern.at(self.row, *b)
        self.draft.stroke(first, last, self.types.of(common) if common else self.types.signal)


def _strip_of(work: Work, device_id: str) -> str:
    project = work.project
    card = next(c for c in project.cards.values() if c.device_id == device_id)
    for sheet_id in card.sheet_ids:
        for symbol in project.symbols_on(sheet_id) if sheet_id in project.sheets else ():
            if definition(symbol.definition).unit == "terminal" and symbol.device_id in project.devices:
                return symbol.device_id
    device = project.devices[device_id]
    return new_device(work, "terminal", (device.function_id, device.location_id)).id
