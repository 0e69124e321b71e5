"""How a placed symbol looks: graphics, tag, text, pins, reference. One place decides where its texts stand."""

from __future__ import annotations

from collections import Counter
from dataclasses import replace

from jolly_core.drawing import GRID_MM, extent_of, lies_upright, pin_points, size_mm, turned
from jolly_core.harness import ENDS
from jolly_core.library import definition, is_block, is_drawn
from jolly_core.model import Project, Symbol, derived
from jolly_core.plc import TYPES_OF_UNITS, channel_address, point_at
from jolly_core.points import drawn_point
from jolly_core.tagging import closed_in, lead_of, lead_reference, pins_of, tag_on

from ..base.graphics import art_of
from ..base.lettering import LINE_PITCH, fit, lay
from ..base.primitives import Anchor, Art, Facts, Item, Prim, Text, board_link, text
from ..room.crowding import text_box
from .layers import layered
from .rows import SMALL, is_named

TAG_MM = 3.4
TEXT_MM = 2.7
PIN_MM = 2.2
LEAST_TEXT_MM = 2.2  # of one line; what would be smaller is broken
SAID_MM, SAID_LINES = 36.0, 3  # room of what is said of a device, lines at full size
REFERENCE_MM = 2.4
ADDRESS_MM = 3.0
ADDRESS_ROOM_MM = 12.0
# Room for the words of a point behind its channel, mm; with less than the least of it they stand below.
WORDS_MM, LEAST_WORDS_MM, UPRIGHT_WORDS_MM, SHEET_EDGE_MM = 46.0, 18.0, 34.0, 22.0
ADDRESS_STEPS = 4.6  # from the pin of a channel to the middle of its box


@derived
def symbol_item(project: Project, symbol_id: str) -> Item:
    """Return the item of a symbol on its sheet.

    A symbol whose wires run across has its tag above and its text below; one whose wires run down has both on its
    left. Only the lead shows the device's text; a follower shows where its lead is.
    """
    symbol = project.symbols[symbol_id]
    sheet = project.sheets[symbol.sheet_id]
    device = project.devices.get(symbol.device_id)
    standard = project.settings.standard
    unit = definition(symbol.definition).unit
    small = unit in SMALL
    lead = lead_of(project, symbol.device_id) if symbol.device_id else None
    tag = tag_on(project, device, sheet) if device else "?"
    if small and device:
        name = pins_of(project, symbol)[0]
        tag = f"{tag}:{name}" if is_named(project, symbol.id) else f":{name}"
    words = device.text if device and lead is not None and lead.id == symbol.id else ""
    reference = lead_reference(project, symbol) if not small else ""
    closed = closed_in(project, symbol)
    reference = " ".join(filter(None, (reference, f"in {closed}" if closed else "")))
    names = [] if small else pins_of(project, symbol)
    address = ""
    if unit in TYPES_OF_UNITS:
        address, words = _channel(project, symbol, TYPES_OF_UNITS[unit])
    left, top, right, bottom = (v * GRID_MM for v in extent_of(symbol, standard))
    block = is_block(symbol.definition)
    prims: list[Prim] = _block(symbol) if block else [_art(symbol)]
    upright = lies_upright(symbol)
    target = lead.id if lead is not None else ""
    if unit in TYPES_OF_UNITS:
        prims += _said_of_channel(project, symbol, (left, top, right, bottom), words)
        words = ""
    if upright:
        prims += _beside(left, (top + bottom) / 2, tag, words, reference, target, small)
    else:
        wire = pin_points(symbol)[0][1] * GRID_MM
        line = (top + bottom) / 2 + 1 if block else max(bottom + 3.4, wire + 6.0)
        prims += _around((left + right) / 2, top, line, tag, words, reference, target, small)
    prims += [] if block else _pin_names(symbol, names, upright)
    prims += _address(symbol, address, unit) if address else []
    prims = _rearranged(_placed(prims, symbol), symbol.texts)
    prims = _led_to_board(prims, symbol) if unit in ENDS else prims
    box = _box(prims, (left, top, right, bottom))
    facts: Facts = {
        "device": symbol.device_id,
        "definition": symbol.definition,
        "tag": tag,
        "text": words,
        "pins": pin_points(symbol),
        "locked": symbol.locked,
        "poles": (len(symbol.units), definition(symbol.definition).max_poles),
        "texts": symbol.texts,
        "body": (round(left, 2), round(top, 2), round(right, 2), round(bottom, 2)),
    }
    facts |= layered(symbol.layer_id, symbol.together)
    if is_drawn(symbol.definition):
        facts["art"] = art_of(symbol.definition, len(symbol.units), standard)
    return Item(symbol.id, "symbol", prims, box, facts)


def _led_to_board(prims: list[Prim], symbol: Symbol) -> list[Prim]:
    """Return the primitives with tags that lead to the connector on the form board of its harness."""
    way = board_link(symbol.device_id)
    return [replace(p, link=way) if isinstance(p, Text) and p.role == "tag" else p for p in prims]


def _art(symbol: Symbol) -> Art:
    x, y = symbol.x * GRID_MM, symbol.y * GRID_MM
    return Art(symbol.definition, x, y, symbol.rotation, symbol.mirror, len(symbol.units))


def _block(symbol: Symbol) -> list[Prim]:
    """Return the body, stubs and pin names of a block; a block is never turned."""
    dx, dy = symbol.x * GRID_MM, symbol.y * GRID_MM
    return [p.moved(dx, dy) for p in art_of(symbol.definition, 1, "iec")]


def _placed(prims: list[Prim], symbol: Symbol) -> list[Prim]:
    """Return the primitives with texts where the symbol's drawing has places for them, turned with it."""
    places = dict(definition(symbol.definition).places)
    if not places:
        return prims
    lines = Counter(p.role for p in prims if isinstance(p, Text))
    seen: Counter[str] = Counter()
    found: list[Prim] = []
    for p in prims:
        place = places.get(p.role) if isinstance(p, Text) else None
        if place is not None and isinstance(p, Text):
            x, y = turned(place[0], place[1], symbol.rotation, symbol.mirror)
            down = (seen[p.role] - (lines[p.role] - 1) / 2) * p.size * LINE_PITCH
            seen[p.role] += 1
            at = ((symbol.x + x) * GRID_MM, (symbol.y + y) * GRID_MM + p.size / 3 + down)
            p = text(*at, p.size, p.words, anchor="middle", role=p.role, link=p.link)
        found.append(p)
    return found


def _rearranged(prims: list[Prim], wishes: dict[str, str]) -> list[Prim]:
    """Return the primitives without the texts that are off, the others moved as wished."""
    if not wishes:
        return prims
    kept: list[Prim] = []
    for p in prims:
        wish = wishes.get(p.role, "") if isinstance(p, Text) else ""
        if wish == "off":
            continue
        if wish and isinstance(p, Text):
            dx, _, dy = wish.partition(",")
            p = text(p.x + float(dx), p.y + float(dy), p.size, p.words, anchor=p.anchor, role=p.role, link=p.link)
        kept.append(p)
    return kept


def _channel(project: Project, symbol: Symbol, io_type: str) -> tuple[str, str]:
    """Return the address of a channel and the words of the point it serves; without a card, of what it is drawn for."""
    device_id, channel = symbol.device_id, symbol.units[0]
    if device_id not in project.devices:
        return "", drawn_point(project, symbol.id)
    point = point_at(project, device_id, io_type, channel)
    words = f"{point.tag} {point.text}".strip() if point else "spare"
    return channel_address(project, device_id, io_type, channel), words


def _address(symbol: Symbol, address: str, unit: str) -> list[Text]:
    """Return the address of a channel in its body, read along it."""
    dx = ADDRESS_STEPS if unit in ("di", "ai") else -ADDRESS_STEPS
    ox, oy = turned(dx, 0, symbol.rotation, symbol.mirror)
    x, y = (symbol.x + ox) * GRID_MM, (symbol.y + oy) * GRID_MM
    address, size = fit(address, ADDRESS_ROOM_MM, ADDRESS_MM)
    upright = lies_upright(symbol)
    shift = (size / 3, 0.0) if upright else (0.0, size / 3)
    written = text(x + shift[0], y + shift[1], size, address, anchor="middle", role="tag")
    return [replace(written, upward=upright)]


def _said_of_channel(
    project: Project, symbol: Symbol, body: tuple[float, float, float, float], words: str
) -> list[Text]:
    """Return the words of a channel's point in as many lines as they need, behind its body as seen from its wire.

    Where the sheet ends too soon they stand below the body.
    """
    left, top, right, bottom = body
    width, height = size_mm(project.sheets[symbol.sheet_id])
    x, y = symbol.x * GRID_MM, symbol.y * GRID_MM
    if lies_upright(symbol):
        lines, size = lay(words, UPRIGHT_WORDS_MM, 4 * TEXT_MM * LINE_PITCH, TEXT_MM, 2.0)
        high = len(lines) * size * LINE_PITCH
        first = bottom + 1.0 + size if bottom - y > y - top else top - 1.0 - high + size * LINE_PITCH
        at, anchor = ((left + right) / 2, first), "middle"
    else:
        room = min(WORDS_MM, (width - SHEET_EDGE_MM - right if right - x > x - left else left - SHEET_EDGE_MM) - 2)
        if room < LEAST_WORDS_MM:
            content, size = fit(words, 36, TEXT_MM, 2.2)
            return [text((left + right) / 2, bottom + 3.4, size, content, anchor="middle", role="text")]
        lines, size = lay(words, room, 4 * TEXT_MM * LINE_PITCH, TEXT_MM, 2.0)
        first = (top + bottom) / 2 - (len(lines) - 1) * size * LINE_PITCH / 2 + size / 3
        at, anchor = ((right + 2, first), "start") if right - x > x - left else ((left - 2, first), "end")
    return [
        text(at[0], at[1] + n * size * LINE_PITCH, size, line, anchor=anchor, role="text")  # type: ignore[arg-type]
        for n, line in enumerate(lines)
    ]


def _said(x: float, base: float, words: str, anchor: Anchor) -> list[Text]:
    """Return the words of a device in one line, in several where one would be too long or too small to read."""
    content, size = fit(words, SAID_MM, TEXT_MM, LEAST_TEXT_MM)
    lines = [content]
    if content != words:
        lines, size = lay(words, SAID_MM, SAID_LINES * TEXT_MM * LINE_PITCH, TEXT_MM)
    return [
        text(x, base + n * size * LINE_PITCH, size, line, anchor=anchor, role="text") for n, line in enumerate(lines)
    ]


def _around(
    middle: float, top: float, line: float, tag: str, words: str, reference: str, target: str, small: bool
) -> list[Text]:
    prims = [text(middle, top - 1.2, TEXT_MM if small else TAG_MM, tag, anchor="middle", role="tag")]
    if words:
        said = _said(middle, line, words, "middle")
        prims += said
        line = said[-1].y + TEXT_MM + 0.8
    if reference:
        prims.append(text(middle, line, REFERENCE_MM, reference, anchor="middle", role="reference", link=target))
    return prims


def _beside(left: float, middle: float, tag: str, words: str, reference: str, target: str, small: bool) -> list[Text]:
    prims = [text(left - 2, middle, TEXT_MM if small else TAG_MM, tag, anchor="end", role="tag")]
    line = middle + TAG_MM + 0.6
    if words:
        said = _said(left - 2, line, words, "end")
        prims += said
        line = said[-1].y + TEXT_MM + 0.8
    if reference:
        prims.append(text(left - 2, line, REFERENCE_MM, reference, anchor="end", role="reference", link=target))
    return prims


def _pin_names(symbol: Symbol, names: list[str], upright: bool) -> list[Prim]:
    prims: list[Prim] = []
    points = pin_points(symbol)
    xs, ys = [x for x, _ in points], [y for _, y in points]
    # Names stand under the stubs of a contact, but clear of a body that reaches below the wire.
    outward = 1.4 if extent_of(symbol)[3] > max(ys) + 0.4 else 0.0
    for (x, y), name in zip(points, names, strict=False):
        if not name:
            continue
        px, py = x * GRID_MM, y * GRID_MM
        if upright:
            last = y == max(ys) and max(ys) > min(ys)
            prims.append(text(px + 0.7, py - 0.6 if last else py + 2.0, PIN_MM, name, role="pin"))
        else:
            last = x == max(xs) and max(xs) > min(xs)
            anchor: Anchor = "end" if last != bool(outward) else "start"
            shift = -outward if last else outward
            prims.append(text(px + shift, py + 2.6, PIN_MM, name, anchor=anchor, role="pin"))
    return prims


def _box(prims: list[Prim], body: tuple[float, float, float, float]) -> tuple[float, float, float, float]:
    left, top, right, bottom = body
    for p in prims:
        if isinstance(p, Text):
            x1, _, x2, _ = text_box(p)
            left, right = min(left, x1), max(right, x2)
            top, bottom = min(top, p.y - p.size), max(bottom, p.y + 0.6)
    return round(left, 2), round(top, 2), round(right, 2), round(bottom, 2)
