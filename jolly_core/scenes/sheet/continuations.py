"""How a continuation looks: an arrow, its name, the number of its net, and where all its other ends are."""

from __future__ import annotations

from jolly_core.drawing import ADVANCE, FRAME_MM, GRID_MM, place_in, size_mm
from jolly_core.model import Continuation, Project, derived

from ..base.primitives import SMALLEST_MM, Anchor, Facts, Item, Poly, RoleName, Text, text
from ..room.crowding import text_box
from ..room.settling import around
from .layers import layered

NAME_MM = 2.6
PLACE_MM = 2.2
LINE_PITCH = 1.27  # of lines of places, as a share of their size
NARROWEST_MM, WIDEST_MM = 18.0, 60.0
BLOCK_MARK = ":"  # behind the name with which a block of places begins
BLOCK_LINES = 3
FEW = 2  # lines of places beside a mark; more are smaller, in wider lines, and say whose they are
WING_MM, TIP_MM = 1.3, 3.5
Word = tuple[str, RoleName, str]  # text, role, link


@derived
def continuation_item(project: Project, mark_id: str, number: str, shown: bool) -> Item:
    """Return the item of a continuation mark: an arrow, its name, the number of its net, where the others are.

    Args:
        project: the project.
        mark_id: the continuation.
        number: number of its net, "" for none.
        shown: whether the number is to be read at the mark.
    """
    mark = project.continuations[mark_id]
    sheet = project.sheets[mark.sheet_id]
    x, y = mark.x * GRID_MM, mark.y * GRID_MM
    dx, dy = {"left": (-1, 0), "right": (1, 0), "up": (0, -1), "down": (0, 1)}[mark.toward]
    tip = (x + dx * TIP_MM, y + dy * TIP_MM)
    arrow = Poly((x + dy * WING_MM, y + dx * WING_MM, *tip, x - dy * WING_MM, y - dx * WING_MM), "ink")
    named: list[Text] = []
    words = _words(project, mark, number if shown and number != mark.name else "")
    width = size_mm(sheet)[0]
    room = tip[0] - 1 - FRAME_MM if dx < 0 else width - FRAME_MM - tip[0] - 1 if dx > 0 else WIDEST_MM / 2
    lines, size = _lines(mark, words, min(WIDEST_MM, max(NARROWEST_MM, room)))
    pitch = size * LINE_PITCH
    anchor: Anchor
    if dx:
        anchor, tx, ty = ("start", tip[0] + 1, y - 0.3) if dx > 0 else ("end", tip[0] - 1, y - 0.3)
    else:
        above = pitch * (len(lines) - 1)
        anchor, tx, ty = "middle", x, (tip[1] - 4.2 - above if dy < 0 else tip[1] + 3.2)
    named.append(text(tx, ty, NAME_MM, mark.name, anchor=anchor, role="tag"))
    base = ty + 3
    for line in lines:
        named += _line(line, tx, base, size, anchor)
        base += pitch
    box = around([(x - 2, y - 2, x + 2, y + 2), *(text_box(p) for p in named)])
    facts: Facts = {"name": mark.name, "number": number, "locked": mark.locked, "pins": [(mark.x, mark.y)]}
    facts |= layered(mark.layer_id, mark.together)
    return Item(mark.id, "continuation", [arrow, *named], box, facts)


def _words(project: Project, mark: Continuation, number: str) -> list[Word]:
    others = [project.continuations[i] for i in project.continuations_named.get(mark.name) if i != mark.id]
    found: list[Word] = [(number, "number", ""), ("·", "reference", "")] if number else []
    places = [(place_in(project.sheets[o.sheet_id], o.x, o.y), o.id) for o in others]
    last = len(places) - 1
    found += [(place + ("," if n < last else ""), "reference", id) for n, (place, id) in enumerate(places)]
    return found if places else [*found, ("no other end", "reference", "")]


def _lines(mark: Continuation, words: list[Word], room: float) -> tuple[list[list[Word]], float]:
    """Return the words in lines, and their size: all are shown, however many there are."""
    lines = _broken(words, int(room / (PLACE_MM * ADVANCE)))
    if len(lines) <= FEW:
        return lines, PLACE_MM
    lines = _broken(words, int(room / (SMALLEST_MM * ADVANCE)))
    if len(lines) <= FEW:
        return lines, SMALLEST_MM
    # Many: in blocks that find their places one by one, each saying whose ends it lists.
    room_letters = int(WIDEST_MM / (SMALLEST_MM * ADVANCE))
    head: Word = (f"{mark.name}{BLOCK_MARK}", "reference", "")
    lines, rest = [], words
    while rest:
        block = _broken([head, *rest], room_letters)[:BLOCK_LINES]
        rest = rest[sum(map(len, block)) - 1 :]
        lines += block
    return lines, SMALLEST_MM


def _broken(words: list[Word], room: int) -> list[list[Word]]:
    lines: list[list[Word]] = [[]]
    used = 0
    for word in words:
        if lines[-1] and used + 1 + len(word[0]) > room:
            lines.append([])
            used = 0
        used += len(word[0]) + (1 if lines[-1] else 0)
        lines[-1].append(word)
    return lines


def _line(words: list[Word], x: float, base: float, size: float, anchor: Anchor) -> list[Text]:
    """Return a line of words, each a text with its own link."""
    advance = size * ADVANCE
    length = (sum(len(w[0]) + 1 for w in words) - 1) * advance
    left = x - {"start": 0.0, "middle": length / 2, "end": length}[anchor]
    prims = []
    for content, role, link in words:
        prims.append(text(left, base, size, content, role=role, link=link))
        left += (len(content) + 1) * advance
    return prims
