"""What is drilled and cut: holes that the parts of placed devices, rails and ducts say they need, and no others."""

from __future__ import annotations

import re
from collections import Counter
from dataclasses import dataclass

from jolly_core.cables import number_of
from jolly_core.model import Duct, Part, Placing, Project, Rail
from jolly_core.tagging import full_tag

from .eyelets import run_names
from .layout import outline, placings_in

FIXING_EDGE_MM = 20.0
_PIECE = re.compile(r"^\s*(round|rectangle|slot)\s+(.*)$", re.IGNORECASE)
_NUMBER = re.compile(r"[-+]?\d+(?:\.\d+)?")


@dataclass(slots=True, frozen=True)
class Hole:
    """A round hole, a rectangle with round corners, or a slot; mm, y downwards.

    Attributes:
        x, y: its middle.
        width, height: across; a round hole has both equal to its diameter.
        radius: of its corners; half the smaller side for a round hole and a slot.
    """

    x: float
    y: float
    width: float
    height: float
    radius: float

    @property
    def is_round(self) -> bool:
        """Whether it is drilled in one go."""
        return self.width == self.height == 2 * self.radius

    @property
    def words(self) -> str:
        """Its size for reading: "⌀ 22.5", "slot 12 × 5.5", "92 × 92, r 2"."""
        if self.is_round:
            return f"⌀ {self.width:g}"
        sides = f"{self.width:g} × {self.height:g}"
        if self.radius and 2 * self.radius == min(self.width, self.height):
            return f"slot {sides}"
        return f"{sides}, r {self.radius:g}" if self.radius else sides


def drilled(x: float, y: float, diameter: float) -> Hole:
    """Return a round hole."""
    return Hole(x, y, diameter, diameter, diameter / 2)


@dataclass(slots=True, frozen=True)
class OwnedHole:
    """A hole with what it is for: a device's tag, or the name of a rail or duct, and its id."""

    hole: Hole
    owner: str
    owner_id: str


def owned_holes(project: Project, enclosure_id: str, surface: str) -> list[OwnedHole]:
    """Return the holes of a surface, y downwards from its upper left corner, each with what it is for.

    Rails, ducts and devices have what their parts say, and none where they say nothing.
    """
    found: list[tuple[Hole, str, str]] = []
    names = run_names(project, enclosure_id)
    for run in runs_of(project, enclosure_id):
        if run.surface == surface:
            found += [(h, names[run.id], run.id) for h in fixing_of(project.parts.get(run.part_id), run)]
    for placing in placings_in(project, enclosure_id, surface):
        pattern = pattern_of(project, placing)
        tag = full_tag(project, project.devices[placing.device_id]) if pattern else ""
        found += [(h, tag, placing.device_id) for h in pattern]
    return [
        OwnedHole(Hole(round(h.x, 2), round(h.y, 2), h.width, h.height, h.radius), owner, id) for h, owner, id in found
    ]


def holes(project: Project, enclosure_id: str, surface: str) -> list[Hole]:
    """Return the holes of a surface, y downwards from its upper left corner."""
    return [owned.hole for owned in owned_holes(project, enclosure_id, surface)]


def hole_table(found: list[Hole]) -> list[tuple[str, int]]:
    """Return the sizes of holes with how many there are of each, the smallest area first."""
    areas = {h.words: h.width * h.height for h in found}
    counts = Counter(h.words for h in found)
    return [(words, counts[words]) for words in sorted(counts, key=lambda w: (areas[w], w))]


def runs_of(project: Project, enclosure_id: str) -> list[Rail | Duct]:
    """Return the rails and ducts of an enclosure, by id."""
    runs: list[Rail | Duct] = [*project.rails.values(), *project.ducts.values()]
    return sorted((r for r in runs if r.enclosure_id == enclosure_id), key=lambda r: r.id)


def pattern_of(project: Project, placing: Placing) -> list[Hole]:
    """Return the holes a placed device needs by its part, [] where the part names none.

    A part names the round hole at its middle in the door (`hole_mm`), screws from the upper left corner of its outline
    (`screws_mm`), and any cut-outs from its middle (`cutouts_mm`). What stands on a rail needs none.
    """
    part = project.part_of(project.devices[placing.device_id])
    if part is None or placing.rail_id:
        return []
    box = outline(project, placing)
    x, y = box.x + box.width / 2, box.y + box.height / 2
    found = [drilled(box.x + sx, box.y + sy, d) for sx, sy, d in screws_in(part.ratings.get("screws_mm", ""))]
    for hole in cutouts_in(part.ratings.get("cutouts_mm", "")):
        found.append(Hole(x + hole.x, y + hole.y, hole.width, hole.height, hole.radius))
    round_mm = number_of(part, "hole_mm") if placing.surface == "door" else 0.0
    return [*found, drilled(x, y, round_mm)] if round_mm else found


def screws_in(text: str) -> list[tuple[float, float, float]]:
    """Return the holes a text names, (x, y, diameter) in mm; what is no three numbers is left out.

    Example:
        >>> screws_in("6,6,5.5; 94,144,5.5")
        [(6.0, 6.0, 5.5), (94.0, 144.0, 5.5)]
    """
    found = []
    for piece in text.split(";"):
        numbers = _NUMBER.findall(piece)
        if len(numbers) == 3:
            found.append((float(numbers[0]), float(numbers[1]), float(numbers[2])))
    return found


def cutouts_in(text: str) -> list[Hole]:
    """Return the holes that a text names about an origin, parted by semicolons; x right and y up, mm.

    "round X,Y,DIAMETER", "rectangle X,Y,WIDTH,HEIGHT,RADIUS" (no radius: sharp corners), "slot X,Y,WIDTH,HEIGHT". What
    is none of these, or has no size, is left out.

    Example:
        >>> [(h.y, h.words) for h in cutouts_in("rectangle 0,0,92,92,2; slot 40,30,12,5.5")]
        [(-0.0, '92 × 92, r 2'), (-30.0, 'slot 12 × 5.5')]
    """
    found = []
    for piece in text.split(";"):
        match = _PIECE.match(piece)
        numbers = [float(n) for n in _NUMBER.findall(match[2])] if match else []
        shape = match[1].lower() if match else ""
        if len(numbers) < 3 or min(numbers[2:]) < 0 or not numbers[2]:
            continue
        x, y = numbers[0], -numbers[1]
        if shape == "round" and len(numbers) == 3:
            found.append(drilled(x, y, numbers[2]))
        elif len(numbers) in (4, 5) and numbers[3] and shape != "round":
            width, height = numbers[2:4]
            most = min(width, height) / 2
            corner = most if shape == "slot" else min(most, numbers[4] if len(numbers) == 5 else 0.0)
            found.append(Hole(x, y, width, height, corner))
    return found


def fixing_of(part: Part | None, run: Rail | Duct) -> list[Hole]:
    """Return the fixing holes of a rail or duct: one near each end and others between, as its part says.

    The part names the diameter (`fixing_mm`) and the widest pitch (`fixing_pitch_mm`, none: only the two at the ends).
    """
    diameter, pitch = number_of(part, "fixing_mm"), number_of(part, "fixing_pitch_mm")
    if not diameter:
        return []
    length = abs(run.x2 - run.x1) + abs(run.y2 - run.y1)
    edge = min(FIXING_EDGE_MM, length / 4)
    gaps = max(1, -int(-(length - 2 * edge) // pitch)) if pitch else 1
    steps = [edge + (length - 2 * edge) * n / gaps for n in range(gaps + 1)]
    if run.y1 == run.y2:
        return [drilled(run.x1 + s, run.y1, diameter) for s in steps]
    return [drilled(run.x1, run.y1 + s, diameter) for s in steps]
