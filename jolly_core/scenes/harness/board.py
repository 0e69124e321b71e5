"""The form board of a harness at true scale: trunk, branches, dimensions, coverings, a table beside each connector."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from math import atan2, degrees

from jolly_core.drawing import BoxMm
from jolly_core.harness import (
    Bundle,
    Laid,
    Tree,
    bundles,
    covered,
    is_splice,
    laid,
    lies_towards,
    span_of,
    tree_in,
    trunk,
)
from jolly_core.model import Harness, Node, Project, Segment, counted, derived, shown_in
from jolly_core.tagging import lead_of

from ..base.primitives import Facts, Item, Line, Prim, Rect, RoleName, Scene, text
from ..room.roomfinding import AWAY_MM, Room, beside
from .labels import label_flags
from .marks import (
    NAME_MM,
    WORDS_MM,
    Spot,
    bundle_item,
    covering_item,
    covering_words,
    dimension,
    face_size,
    name_of,
    node_item,
    scale_item,
    words_width,
)
from .tables import table_prims, table_size

MARGIN_MM = 24.0
FOOT_MM = 46.0
DIMENSION_MM = 30.0
BESIDE_BUNDLE_MM = 3.0
NEAR_MM = 44.0  # words and tables so near to what they are about need no line to it


@dataclass(slots=True, frozen=True)
class _Placed:
    """The table of a connector with its place, and the line from it to its connector where they are apart."""

    node_id: str
    device_id: str
    variant: str
    box: BoxMm
    lead: Line | None

    def drawn(self, project: Project, dx: float, dy: float) -> Iterator[Item]:
        """Yield the table and the line, moved; the table itself is drawn once and only put there."""
        x1, y1, x2, y2 = (round(v + d, 3) for v, d in zip(self.box, (dx, dy, dx, dy), strict=True))
        prims = table_prims(project, self.node_id, self.variant)
        id, facts = f"table:{self.device_id}", Facts(device=self.device_id)
        yield Item(id, "table", prims, (x1, y1, x2, y2), facts, (x1, y1))
        if self.lead is not None:
            line = self.lead.moved(dx, dy)
            yield Item(f"lead:{self.device_id}", "lead", [line], (line.x1, line.y1, line.x2, line.y2))


@dataclass(slots=True)
class _Board:
    """A board while it is drawn: about the leftmost and topmost node, until all has its place."""

    project: Project
    harness: Harness
    tree: Tree
    lies: Laid
    bundles: dict[str, Bundle]
    main: list[str]
    variant: str = ""
    room: Room = field(default_factory=Room)
    items: dict[str, Item] = field(default_factory=dict)
    tables: list[_Placed] = field(default_factory=list)

    def put(self, item: Item) -> None:
        self.items[item.id] = item


def board_scene(project: Project, harness_id: str, number: str, variant_id: str = "") -> Scene:
    """Return the form board of a harness, or of one of its variants; 1 mm of the scene is 1 mm of the harness.

    Notes:
        Bundles come first; connectors, dimensions, words and tables go where nothing lies, so that none lies on a
        bundle or on another.
    """
    harness = project.get("harness", harness_id)
    drawn, tables = _drawn(project, harness.id, variant_id)
    left, top, right, bottom = _extent([item.box for item in drawn.values()] + [t.box for t in tables])
    dx, dy = MARGIN_MM - left, MARGIN_MM - top
    width, height = max(right - left, 300.0) + 2 * MARGIN_MM, bottom - top + 2 * MARGIN_MM + FOOT_MM
    code = " ".join(
        filter(None, (harness.code, variant.name if (variant := project.harness_variants.get(variant_id)) else ""))
    )
    words = f"{number}   {code}   {harness.text}   scale 1:1"
    frame: list[Prim] = [
        Rect(5.0, 5.0, width - 10, height - 10, "frame"),
        text(12, height - 12, 12.0, f"{project.settings.number}  {words}", role="title"),
    ]
    items = {"frame": Item("frame", "frame", frame, (0, 0, width, height))}
    items |= {id: _moved(item, dx, dy) for id, item in drawn.items()}
    items |= {item.id: item for table in tables for item in table.drawn(project, dx, dy)}
    scale = scale_item(MARGIN_MM, height - FOOT_MM + 8)
    return Scene(round(width, 2), round(height, 2), items | {scale.id: scale})


def board_places(project: Project, harness_id: str) -> dict[str, Spot]:
    """Return where the connector or splice of each device is on the board of a harness, mm."""
    drawn, tables = _drawn(project, harness_id, "")
    left, top, *_ = _extent([item.box for item in drawn.values()] + [t.box for t in tables])
    return {
        item.facts["device"]: (item.box[0] - left + MARGIN_MM, item.box[1] - top + MARGIN_MM)
        for item in drawn.values()
        if item.kind == "node" and item.facts.get("device")
    }


def _extent(boxes: list[BoxMm]) -> BoxMm:
    boxes = boxes or [(0.0, 0.0, 0.0, 0.0)]
    return (
        min(b[0] for b in boxes),
        min(b[1] for b in boxes),
        max(b[2] for b in boxes),
        max(b[3] for b in boxes),
    )


def _moved(item: Item, dx: float, dy: float) -> Item:
    x1, y1, x2, y2 = item.box
    facts: Facts = {**item.facts}
    for key in ("from", "to"):
        if key in facts:
            x, y = facts[key]
            facts[key] = (round(x + dx, 3), round(y + dy, 3))
    if "body" in facts:
        a, b, c, d = facts["body"]
        facts["body"] = (a + dx, b + dy, c + dx, d + dy)
    at = (round(item.at[0] + dx, 3), round(item.at[1] + dy, 3))
    return replace(item, at=at, box=(x1 + dx, y1 + dy, x2 + dx, y2 + dy), facts=facts)


@derived
def _drawn(project: Project, harness_id: str, variant_id: str) -> tuple[dict[str, Item], list[_Placed]]:
    """Return all that is on a board, about its leftmost and topmost node: what is drawn, and tables to be drawn."""
    tree = tree_in(project, harness_id, variant_id)
    thick = bundles(project, harness_id, variant_id)
    harness = project.harnesses[harness_id]
    lies = lies_towards(laid(tree), harness.heading)
    board = _Board(project, harness, tree, lies, thick, trunk(tree), variant_id)
    places = board.lies.places
    for s in tree.segments:
        if s.a_id in places and s.b_id in places:
            half = max(board.bundles[s.id].diameter_mm, 1.0) / 2
            run = (*places[s.a_id], *places[s.b_id])
            board.room.add_line(run, half + BESIDE_BUNDLE_MM)
    _coverings(board)
    _segments(board)
    faces = {n.id: _face(board, n) for n in tree.nodes if n.id in places}
    for flag in label_flags(project, tree, places, harness.label_mm, board.room):
        board.put(flag)
    _dimensions(board)
    for node in tree.nodes:
        if node.id in places:
            board.put(node_item(project, node, places[node.id], faces[node.id], variant_id))
    _names(board)
    _tables(board)
    return board.items, board.tables


def _segments(board: _Board) -> None:
    places = board.lies.places
    for s in board.tree.segments:
        if s.a_id in places and s.b_id in places:
            bundle = board.bundles[s.id]
            types = (w.conductor.wire_type(board.project) for w in bundle.wires)
            colours = [t.colour if t else "BK" for t in types]
            board.put(bundle_item(s.id, places[s.a_id], places[s.b_id], bundle, colours, s.length_mm))


def _coverings(board: _Board) -> None:
    places = board.lies.places
    segments = {s.id: s for s in board.tree.segments}
    for c in covered(board.project, board.harness.id, board.variant):
        s = segments[c.covering.segment_id]
        if s.a_id not in places or s.b_id not in places or c.length_mm <= 0:
            continue
        a, b = places[s.a_id], places[s.b_id]
        half = max(board.bundles[s.id].diameter_mm, 1.0) / 2
        board.put(covering_item(c, a, b, s.length_mm, half))
        share = (c.from_mm + c.to_mm) / 2 / s.length_mm
        words: list[tuple[str, float, RoleName]] = [(covering_words(board.project, c), WORDS_MM, "label")]
        _say(board, f"covering:{c.covering.id}", _between(a, b, share), words, "covering")


def _between(a: Spot, b: Spot, share: float) -> Spot:
    return (a[0] + (b[0] - a[0]) * share, a[1] + (b[1] - a[1]) * share)


def _face(board: _Board, node: Node) -> BoxMm | None:
    """Return where a connector's face is drawn: beyond the end of its segment, or where there is room about it."""
    project, (x, y) = board.project, board.lies.places[node.id]
    if not node.device_id or is_splice(project, node.device_id):
        board.room.keep((x - 6, y - 6, x + 6, y + 6))
        return None
    width, height, _ = face_size(project, node.device_id)
    beside_it = board.tree.beside[node.id]
    if len(beside_it) == 1:
        u, v = board.lies.places[beside_it[0][1]]
        out = degrees(atan2(y - v, x - u))
        box = beside(x, y, width, height, 0.0, out)
        # It touches the end of its own bundle: looked at from a little further out.
        if board.room.free(beside(x, y, width, height, 8.0, out)):
            board.room.keep(box)
            return box
    return board.room.take(x, y, width, height) or board.room.take_aside(width, height)


def _say(
    board: _Board, id: str, near: Spot, lines: list[tuple[str, float, RoleName]], kind: str = "words", link: str = ""
) -> None:
    """Write lines where there is room near a point, with a thin line to it where that is away."""
    width = max(words_width(words, size) for words, size, _ in lines)
    height = sum(size * 1.25 for _, size, _ in lines)
    box = board.room.take(*near, width, height) or board.room.take_aside(width, height)
    prims: list[Prim] = []
    top, middle = box[1], (box[0] + box[2]) / 2
    for words, size, role in lines:
        top += size * 1.25
        prims.append(text(middle, top - size * 0.3, size, words, anchor="middle", role=role, link=link))
    lead = _lead(box, near)
    if lead is not None:
        prims.append(lead)
    board.put(Item(id, kind, prims, box, {"body": box} if kind == "covering" else {}))


def _lead(box: BoxMm, near: Spot) -> Line | None:
    """Return a line from a box to a point, None where they are beside each other."""
    x, y = min(max(near[0], box[0]), box[2]), min(max(near[1], box[1]), box[3])
    if abs(x - near[0]) + abs(y - near[1]) <= NEAR_MM:
        return None
    return Line(round(x, 2), round(y, 2), round(near[0], 2), round(near[1], 2), "fine")


def _dimensions(board: _Board) -> None:
    """Draw dimensions along the trunk, then say each segment's length and bundle beside it."""
    places = board.lies.places
    steps = {frozenset(pair) for pair in zip(board.main, board.main[1:], strict=False)}
    shown = [s for s in board.tree.segments if s.a_id in places and s.b_id in places]
    said: set[str] = set()
    for s in shown:
        if frozenset((s.a_id, s.b_id)) in steps and _dimension(board, s):
            said.add(s.id)
    unit = board.project.settings.length_unit
    for s in shown:
        bundle = board.bundles[s.id]
        turned = ", turned" if s.id in board.lies.turned else ""
        size = f", ⌀ {shown_in(unit, round(bundle.diameter_mm, 1))}" if bundle.wires else ""
        beside = f" with {', '.join(bundle.beside)}" if bundle.beside else ""
        what = f"{counted(len(bundle.wires), 'wire')}{size}{beside}{turned}"
        lines: list[tuple[str, float, RoleName]] = [(what, WORDS_MM, "label")]
        if s.id not in said:
            lines.insert(0, (_length_words(board, s), NAME_MM, "tag"))
        _say(board, f"length:{s.id}", _between(places[s.a_id], places[s.b_id], 0.5), lines)


def _length_words(board: _Board, s: Segment) -> str:
    return span_of(board.project, s.id).words_in(board.project.settings.length_unit)


def _dimension(board: _Board, s: Segment) -> bool:
    """Draw the dimension of a segment of the trunk, below it or right of it; return whether its words have room."""
    a, b = sorted((board.lies.places[s.a_id], board.lies.places[s.b_id]))
    upright = abs(b[0] - a[0]) < abs(b[1] - a[1])
    if upright:
        a, b = b, a  # upwards, so that its line stands on the right
    away = DIMENSION_MM + board.bundles[s.id].diameter_mm / 2
    words = _length_words(board, s)
    prims = dimension(a, b, away)
    half, x, y = words_width(words, NAME_MM) / 2, (a[0] + b[0]) / 2, (a[1] + b[1]) / 2
    if upright:
        line, box = (a[0] + away, b[1], a[0] + away, a[1]), (a[0], b[1], a[0] + away, a[1])
        at, room = (x + away - 4, y), (x + away - NAME_MM - 5, y - half, x + away, y + half)
    else:
        line, box = (a[0], a[1] + away, b[0], b[1] + away), (*a, b[0], b[1] + away)
        at, room = (x, y + away - 4), (x - half, y + away - NAME_MM - 5, x + half, y + away)
    fits = 2 * half < abs(b[0] - a[0]) + abs(b[1] - a[1]) - 8
    if fits:
        prims.append(text(*at, NAME_MM, words, anchor="middle", role="tag", upward=upright))
        board.room.keep(room)
    board.put(Item(f"dimension:{s.id}", "dimension", prims, box))
    board.room.add_line(line, 1.0)
    return fits


def _schematic_link(project: Project, node: Node) -> str:
    lead = lead_of(project, node.device_id) if node.device_id else None
    return lead.id if lead else ""


def _names(board: _Board) -> None:
    for node in board.tree.nodes:
        words = name_of(board.project, node)
        if node.id in board.lies.places and words:
            link = _schematic_link(board.project, node)
            _say(board, f"name:{node.id}", board.lies.places[node.id], [(words, NAME_MM, "tag")], link=link)


def _tables(board: _Board) -> None:
    """Put the table of each connector and splice where nothing lies, the tallest first."""
    nodes = [n for n in board.tree.nodes if n.device_id and n.id in board.lies.places]
    tables = sorted(
        ((table_size(board.project, n.id, board.variant), n) for n in nodes), key=lambda t: (-t[0][1], t[1].id)
    )
    for (width, height), node in tables:
        near = board.lies.places[node.id]
        box = board.room.take(*near, width, height, AWAY_MM[1:]) or board.room.take_aside(width, height)
        face = board.items[node.id].box
        nearest = (min(max((box[0] + box[2]) / 2, face[0]), face[2]), face[1] if box[3] <= face[1] else face[3])
        board.tables.append(_Placed(node.id, node.device_id, board.variant, box, _lead(box, nearest)))
