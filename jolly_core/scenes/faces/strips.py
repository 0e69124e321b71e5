"""A strip as it stands on its rail, seen from the front at true size: blocks, levels, bridges, leaders, cables.

Along is the way of the rail, across the other one: field side first. Laid level, along runs to the right and field side
is above; upright, along runs down and field side is on the left. One millimetre is one millimetre of the strip.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import pairwise

from jolly_core.cables import role_of
from jolly_core.cables.roles import NEUTRAL
from jolly_core.drawing import ADVANCE
from jolly_core.model import Project
from jolly_core.tagging import full_tag, path_of
from jolly_core.terminals import (
    TERMINAL,
    LaidBridge,
    StripRow,
    Target,
    laid_bridges,
    place_key,
    placed_sides,
    strip_rows,
)

from ..base.lettering import fit
from ..base.primitives import (
    Anchor,
    Circle,
    Dot,
    Item,
    Line,
    PenName,
    Prim,
    Rect,
    RoleName,
    Scene,
    Strand,
    ToneName,
    pin_link,
    text,
)

USUAL_HEIGHT_MM = 48.0
BRACKET_MM = 52.0  # tall, where its part says nothing
MARGIN_MM = 4.0
STUB_MM = 4.0
NAME_MM = 3.0
TAG_MM = 2.8
PART_MM = 2.2
FAN_MM = 10.0
SHEATH_MM = 7.0
RAIL_MM = 35.0  # TH 35 (IEC 60715)
RAIL_BEYOND_MM = 12.0
PLATE_TALL_MM = 4.2
LANE_MM = 2.6
TONES: dict[str, ToneName] = {"earth": "earth", "fuse": "fuse", "disconnect": "disconnect"}
LONGEST_NAME = 26


@dataclass(slots=True)
class Block:
    """A block or accessory on the rail: where it begins, how long it is, its rows (one a level)."""

    start: float
    length: float
    tall: float
    rows: list[StripRow]

    @property
    def middle(self) -> float:
        """The middle along the rail, mm."""
        return self.start + self.length / 2


@dataclass(slots=True)
class Face:
    """What a strip looks like so far, laid level or upright.

    Attributes:
        axis: where the middle of the rail lies across, mm.
    """

    project: Project
    upright: bool
    axis: float
    items: dict[str, Item] = field(default_factory=dict)

    def at(self, along: float, across: float) -> tuple[float, float]:
        """Return a point of the picture."""
        return (self.axis + across, along) if self.upright else (along, self.axis + across)

    def rect(
        self, along: float, across: float, length: float, tall: float, pen: PenName, tone: ToneName | None = None
    ) -> Rect:
        """Return a rectangle, by its ends along and across."""
        x, y = self.at(along, across)
        return Rect(x, y, tall, length, pen, tone) if self.upright else Rect(x, y, length, tall, pen, tone)

    def line(self, along: float, across: float, to_along: float, to_across: float, pen: PenName) -> Line:
        """Return a line."""
        return Line(*self.at(along, across), *self.at(to_along, to_across), pen)

    def strand(self, along: float, across: float, to_along: float, to_across: float, colour: str) -> Strand:
        """Return a stroke of a wire."""
        return Strand(*self.at(along, across), *self.at(to_along, to_across), colour)

    def name(self, along: float, across: float, size: float, words: str, *, role: RoleName, link: str = "") -> Prim:
        """Return words that lead away from the strip on the side of `across`."""
        out: Anchor = "end" if across < 0 else "start"
        if self.upright:
            return text(self.axis + across, along + size * 0.35, size, words, anchor=out, role=role, link=link)
        x, y = self.at(along + size * 0.35, across)
        away: Anchor = "start" if across < 0 else "end"
        return text(x, y, size, words, anchor=away, role=role, link=link, upward=True)

    def add(self, id: str, kind: str, prims: list[Prim], box: tuple[float, float, float, float]) -> None:
        """Add an item; its box is given as along, across, to along, to across."""
        (x1, y1), (x2, y2) = self.at(box[0], box[1]), self.at(box[2], box[3])
        self.items[id] = Item(id, kind, prims, (min(x1, x2), min(y1, y2), max(x1, x2), max(y1, y2)))


def blocks_on_rail(project: Project, strip_id: str) -> list[Block]:
    """Return blocks and accessories of a strip from its start on, each where it stands; those without room too."""
    blocks: list[Block] = []
    at = 0.0
    for row in strip_rows(project, strip_id):
        if row.kind == TERMINAL and row.level > 1 and blocks and blocks[-1].rows[0].kind == TERMINAL:
            blocks[-1].rows.append(row)
            continue
        tall = row.part.height_mm if row.part and row.part.height_mm else USUAL_HEIGHT_MM
        if row.kind == "end-bracket" and row.part is None:
            tall = BRACKET_MM
        width = row.width_mm or (5.0 if row.kind == TERMINAL else 0.0)
        blocks.append(Block(at, width, tall, [row]))
        at += width
    return blocks


@dataclass(slots=True)
class Reach:
    """How far the picture reaches across from the middle of the rail, mm.

    Attributes:
        names: as far as the names on field side reach; the fans of cables begin there.
        field, panel: as far as anything reaches on either side.
    """

    names: float
    field: float
    panel: float


def reach_of(project: Project, blocks: Sequence[Block], *, upright: bool) -> Reach:
    """Return how far bodies, leaders and cables reach on either side."""
    half = max([b.tall for b in blocks] + [RAIL_MM]) / 2
    fields, panels = 0, 0
    cables: set[str] = set()
    for row in (row for block in blocks for row in block.rows):
        left, right = placed_sides(row)
        fields = max([fields, *(len(_words(project, row, t, name, field_side=True)) for t, name in left)])
        panels = max([panels, *(len(_words(project, row, t, name, field_side=False)) for t, name in right)])
        cables.update(t.cable_id for t, _ in left if t.cable_id)
    letters = NAME_MM * ADVANCE
    names = half + STUB_MM + fields * letters + 2
    labels = (line for id in cables for line in _cable_label(project, id, 99))
    label = max((len(words) * size * ADVANCE for words, size, _ in labels), default=0) + 3
    beyond = FAN_MM + SHEATH_MM + (label if upright else 2) if cables else 0
    return Reach(names, names + beyond, half + STUB_MM + panels * letters + 2)


def strip_scene(project: Project, strip_id: str, *, upright: bool = False) -> Scene:
    """Return the picture of a strip on its rail, with margins, for the bench.

    Items are named by the keys of their places; what leads to a target is "lead:" and the key.
    """
    blocks = blocks_on_rail(project, strip_id)
    reach = reach_of(project, blocks, upright=upright)
    length = blocks[-1].start + blocks[-1].length if blocks else 0.0
    across = reach.field + reach.panel + 2 * MARGIN_MM
    along = length + 2 * (MARGIN_MM + RAIL_BEYOND_MM)
    face = Face(project, upright, reach.field + MARGIN_MM)
    draw_blocks(face, strip_id, blocks, MARGIN_MM + RAIL_BEYOND_MM, length)
    # The name of the last cable may reach beyond the rail.
    along = max([along, *(item.box[3 if upright else 2] + MARGIN_MM for item in face.items.values())])
    size = (across, along) if upright else (along, across)
    return Scene(round(size[0], 2), round(size[1], 2), face.items)


def draw_blocks(face: Face, strip_id: str, blocks: Sequence[Block], offset: float, length: float) -> None:
    """Draw blocks that stand side by side, the first at an offset along the picture, with rail, bridges and leaders."""
    first = blocks[0].start if blocks else 0.0
    shift = offset - first
    start, end = offset - RAIL_BEYOND_MM, offset + length + RAIL_BEYOND_MM
    rail = [face.rect(start, -RAIL_MM / 2, end - start, RAIL_MM, "thin", "rail")]
    lips = [face.line(start, a, end, a, "thin") for a in (-RAIL_MM / 2 + 4, RAIL_MM / 2 - 4)]
    face.add("rail", "rail", [*rail, *lips], (start, -RAIL_MM / 2, end, RAIL_MM / 2))
    for block in blocks:
        _draw_block(face, block, shift)
    there = {row.unit for block in blocks for row in block.rows if row.unit}
    middles = {row.unit: (block.middle + shift, row) for block in blocks for row in block.rows}
    for laid in laid_bridges(face.project, strip_id):
        if any(unit in there for unit in laid.bridge.units):
            _draw_bridge(face, laid, {u: middles[u] for u in laid.bridge.units if u in middles})
    _draw_cables(face, blocks, shift)


def tone_of(project: Project, row: StripRow) -> ToneName:
    """Return what a terminal or accessory is filled with."""
    if row.kind != TERMINAL:
        return "bracket" if row.kind == "end-bracket" else "divider"
    if row.record.spare and row.free:
        return "spare"
    known = TONES.get(row.terminal_kind)
    if known:
        return known
    return "neutral" if any(role_of(project, t.conductor) == NEUTRAL for t in row.targets) else "terminal"


def _draw_block(face: Face, block: Block, shift: float) -> None:
    row = block.rows[0]
    at, half, length = block.start + shift, block.tall / 2, block.length
    box = (at, -half, at + max(length, 1.0), half)
    if row.kind != TERMINAL:
        tone: ToneName = "bracket" if row.kind == "end-bracket" else "divider"
        pen: PenName = "thin"
        prims: list[Prim] = [face.rect(at, -half, max(length, 0.8), block.tall, pen, tone)]
        face.add(place_key(row.record), "accessory", prims, box)
        return
    planned = not row.drawn
    body: list[Prim] = [
        face.rect(at, -half, length, block.tall, "dash" if planned else "thin", tone_of(face.project, row))
    ]
    if row.terminal_kind == "earth":
        tall = block.tall / 7
        body += [face.rect(at, a, length, tall, "thin", "earth-band") for a in (-half + tall, half - 2 * tall)]
    screw = min(1.7, length * 0.3)
    for across in (-half + 5.0, half - 5.0):
        x, y = face.at(at + length / 2, across)
        body += [Circle(x, y, screw, "thin"), Line(x - screw * 0.7, y, x + screw * 0.7, y, "thin")]
    if row.terminal_kind in ("fuse", "disconnect"):
        body += _insert(face, row.terminal_kind, at, length, half)
    face.add(place_key(row.record), "terminal", body, box)
    count = len(block.rows)
    for n, level in enumerate(block.rows):
        across = (n - (count - 1) / 2) * (PLATE_TALL_MM + 1.2)
        _draw_level(face, level, at, length, across, box)
        _draw_leaders(face, level, block, shift, n, count)


def _insert(face: Face, kind: str, at: float, length: float, half: float) -> list[Prim]:
    """Return the mark of what can be opened: a fuse, or a blade that stands open."""
    across, room = -half + 11.0, length * 0.24
    if kind == "fuse":
        mark: list[Prim] = [face.rect(at + room, across, length - 2 * room, 4.0, "thin", "device")]
        return [*mark, face.line(at + length / 2, across - 1, at + length / 2, across + 5, "thin")]
    return [face.line(at + room, across + 4, at + length - room, across, "ink")]


def _draw_level(
    face: Face, row: StripRow, at: float, length: float, across: float, box: tuple[float, float, float, float]
) -> None:
    wide = PLATE_TALL_MM if not face.upright else max(8.0, len(row.number) * 2.6 * ADVANCE + 1.4)
    along = length - 0.8
    shown, size = fit(row.number, (wide if face.upright else max(along, 3.0)) - 0.4, 2.9 if length >= 4.5 else 2.4, 1.4)
    tall = min(PLATE_TALL_MM, along) if face.upright else PLATE_TALL_MM
    plate = face.rect(at + 0.4, across - wide / 2, along, wide, "thin", "device")
    x, y = face.at(at + length / 2, across)
    size = min(size, tall * 0.8)
    prims: list[Prim] = [plate, text(x, y + size * 0.35, size, shown, anchor="middle", role="tag")]
    key = place_key(row.record)
    face.add(f"number:{key}", "number", prims, box)


def _draw_leaders(face: Face, row: StripRow, block: Block, shift: float, level: int, levels: int) -> None:
    """Draw what leads away from a terminal on both sides: a stroke of each wire in its colour, and where it goes."""
    fields, panels = placed_sides(row)
    pitch = block.length / (levels + 1)
    key = place_key(row.record)
    prims: list[Prim] = []
    half = block.tall / 2
    for sign, targets in ((-1.0, fields), (1.0, panels)):
        for n, (target, name) in enumerate(targets[:2]):
            along = block.start + shift + pitch * (level + 1) + (n - (min(len(targets), 2) - 1) / 2) * NAME_MM * 1.05
            colour = _colour(face.project, target)
            prims.append(face.strand(along, sign * half, along, sign * (half + STUB_MM), colour))
            words = _words(face.project, row, target, name, field_side=sign < 0)
            if n and len(targets) > 2:
                words = f"and {len(targets) - 1} more"
            size = min(NAME_MM, max(1.8, block.length / max(levels, min(len(targets), 2)) * 0.9))
            link = pin_link(target.pin)
            prims.append(face.name(along, sign * (half + STUB_MM + 0.8), size, words, role="label", link=link))
    if prims:
        at = block.start + shift
        face.add(f"lead:{key}", "lead", prims, (at, -half - STUB_MM, at + block.length, half + STUB_MM))


def _words(project: Project, row: StripRow, target: Target, name: str, *, field_side: bool) -> str:
    """Return what is written at a leader: its core or wire number, and where it goes as seen from the strip."""
    near = _near(project, row, name)
    beside = target.core if field_side and target.core else target.conductor.number
    return " ".join(word for word in (beside, near) if word)


def _near(project: Project, row: StripRow, name: str) -> str:
    """Return a name without the function that is the strip's own, and then without its location; the end if it is long.

    Example: seen from =K2+KP2-XD1, =K2+KF2-BG1:13 is +KF2-BG1:13 and =K2+KP2-KF1:1 is -KF1:1.
    """
    strip = project.devices[row.record.strip_id]
    for own in (path_of(project.functions, strip.function_id, "="), path_of(project.locations, strip.location_id, "+")):
        rest = name.removeprefix(own)
        if own and rest != name and rest[:1] in "+-":
            name = rest
        elif own:
            break
    return name if len(name) <= LONGEST_NAME else f"…{name[1 - LONGEST_NAME :]}"


def _colour(project: Project, target: Target) -> str:
    """Return the colour of a conductor: its core's where that is one, else its wire's."""
    if target.core and target.core.isalpha() and len(target.core) in (2, 4):
        return target.core
    if target.core:
        return "BK"  # numbered cores are black (EN 50334)
    wire_type = target.conductor.wire_type(project)
    return wire_type.colour if wire_type else ""


def _draw_bridge(face: Face, laid: LaidBridge, there: dict[int, tuple[float, StripRow]]) -> None:
    """Draw a bridge as a bar over what it reaches, with a knob on each terminal it joins."""
    alongs = sorted(along for along, _ in there.values())
    id = f"bridge:{laid.bridge.id}"
    if not laid.level:
        rows = sorted(row.level for _, row in there.values())
        step = PLATE_TALL_MM + 1.2
        low, high = ((n - (len(rows) + 1) / 2) * step for n in (1, len(rows)))
        bar = face.rect(alongs[0] + 1.3, low, 0.9, high - low, "thin", "bridge")
        face.add(id, "bridge", [bar], (alongs[0], low, alongs[0] + 2, high))
        return
    across = 7.5 + laid.lane * LANE_MM + (laid.level - 1) * 1.3
    start, end = alongs[0] - 0.9, alongs[-1] + 0.9
    prims: list[Prim] = [face.rect(start, across - 0.7, end - start, 1.4, "thin", "bridge")]
    for along in alongs:
        x, y = face.at(along, across)
        prims += [Dot(x, y, 0.95), Circle(x, y, 0.95, "thin")]
    face.add(id, "bridge", prims, (start, across - 1, end, across + 1))


def _draw_cables(face: Face, blocks: Sequence[Block], shift: float) -> None:
    """Draw each cable that lands here as a sheath beyond the names, its cores fanned out to their terminals."""
    ends: dict[str, list[tuple[float, Target]]] = {}
    for block in blocks:
        for row in block.rows:
            for target in row.field:
                if target.cable_id:
                    ends.setdefault(target.cable_id, []).append((block.middle + shift, target))
    if not ends:
        return
    top = -reach_of(face.project, blocks, upright=face.upright).names
    mouth = top - FAN_MM
    free: float | None = None
    for cable_id, cores in sorted(ends.items(), key=lambda item: min(a for a, _ in item[1])):
        label = _cable_label(face.project, cable_id, len(cores))
        room = 7.5 if face.upright else max(len(words) * size for words, size, _ in label) * ADVANCE + 8
        middle = sum(a for a, _ in cores) / len(cores)
        middle = middle if free is None else max(middle, free)
        free = middle + room
        prims: list[Prim] = []
        for along, target in cores:
            prims += _fan(face, (along, top), (middle, mouth), _colour(face.project, target))
        prims.append(face.rect(middle - 1.8, mouth - SHEATH_MM, 3.6, SHEATH_MM, "thin", "sheath"))
        if face.upright:
            x, y = face.at(middle, mouth - SHEATH_MM - 1.5)
            prims += [
                text(x, y + n * 3.2, size, words, anchor="end", role=role)
                for n, (words, size, role) in enumerate(label)
            ]
        else:
            x, y = face.at(middle + 3.0, mouth - SHEATH_MM + 3.0)
            prims += [text(x, y + n * 3.2, size, words, role=role) for n, (words, size, role) in enumerate(label)]
        beyond = 2.0 if face.upright else room - 4
        face.add(f"cable:{cable_id}", "cable", prims, (middle - 2, mouth - SHEATH_MM, middle + beyond, mouth))


def _cable_label(project: Project, cable_id: str, cores: int) -> list[tuple[str, float, RoleName]]:
    """Return the lines that name a cable: words, size in mm, role."""
    device = project.devices[cable_id]
    part = project.part_of(device)
    words = f"{part.number} · {cores} here" if part else f"{cores} here"
    return [(full_tag(project, device), TAG_MM, "tag"), (words, PART_MM, "line")]


def _fan(face: Face, start: tuple[float, float], mouth: tuple[float, float], colour: str) -> list[Prim]:
    """Return the bent way of a core from a terminal's name to the mouth of the sheath, points along and across."""
    third = (start[1] - mouth[1]) / 3
    points = [start, (start[0], start[1] - third), (mouth[0], mouth[1] + third), mouth]
    return [face.strand(*a, *b, colour) for a, b in pairwise(points)]
