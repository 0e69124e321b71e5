"""What is laid out in enclosures: rails, ducts, lanes, what is placed, and what wires are led through.

All in mm from the upper left corner of a surface as it is seen from the front, x to the right and y down.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal, get_args

from ..fields import Floats, Id, Length, Longest, LongText, Mm, Names, OneOf, Since, Within
from ..kinds import Keyed, kind

SurfaceName = Literal["plate", "door", "left", "right", "roof", "gland"]
SURFACES: tuple[str, ...] = get_args(SurfaceName)
# How an enclosure stands (IEC 60890), "" by what stands beside it, on a wall.
Standing = Literal["", "free", "wall", "end-free", "end-wall", "middle-free", "middle-wall", "middle-covered"]
STANDINGS: tuple[str, ...] = get_args(Standing)
MOST_CORNERS = 40
MOST_PASSED = 40

Celsius = Annotated[float, Within(-50, 100, "°C")]
Swing = Annotated[float, Within(0, 270, "°")]
SurfaceText = Annotated[str, OneOf(SURFACES)]
Categories = Annotated[tuple[str, ...], Longest(10)]


@kind("enclosure", since=1, seen="nowhere", keeps_device=True)
@dataclass(slots=True)
class Enclosure:
    """An enclosure that is laid out; its part gives outside size, mounting plate and walls.

    Attributes:
        ambient_c: highest temperature around it, degrees Celsius.
        hinge: side of the plate on which wires pass to the door, "left" or "right".
        left_id: the enclosure on its left to which the walls between are open, "" for none; both are one panel then.
        opening_mm: how far below the upper edges of the plates the opening is.
        standing: what it gives its heat off from, one of STANDINGS.
        swing_deg: how far its door opens.
        inside_max_c, inside_min_c: how warm it may and how cold it must not get inside, degrees Celsius.
        coldest_c: lowest temperature around it, degrees Celsius.
    """

    id: Id
    device_id: Annotated[str, Names("device", needed=True)]
    ambient_c: Celsius = 35.0
    hinge: Annotated[str, OneOf(("left", "right"))] = "right"
    left_id: Annotated[str, Names("enclosure", tree=True), Since(4)] = ""
    opening_mm: Annotated[Mm, Since(4)] = 0.0
    standing: Annotated[str, OneOf(STANDINGS), Since(9)] = ""
    swing_deg: Annotated[Swing, Since(9)] = 120.0
    inside_max_c: Annotated[Celsius, Since(9)] = 45.0
    coldest_c: Annotated[Celsius, Since(9)] = 10.0
    inside_min_c: Annotated[Celsius, Since(9)] = 10.0


@kind("rail", since=1, seen="nowhere")
@dataclass(slots=True)
class Rail:
    """A mounting rail between two points of a surface, level or upright."""

    id: Id
    enclosure_id: Annotated[str, Names("enclosure", needed=True)]
    x1: Mm
    y1: Mm
    x2: Mm
    y2: Mm
    part_id: Annotated[str, Names("part", needed=True)]
    surface: Annotated[SurfaceText, Since(9)] = "plate"


@kind("duct", since=1, seen="nowhere")
@dataclass(slots=True)
class Duct:
    """A wiring duct along a centre line on a surface; its part gives width and depth.

    Attributes:
        categories: of the wires that may lie in it, of WIRE_CATEGORIES; () for all.
    """

    id: Id
    enclosure_id: Annotated[str, Names("enclosure", needed=True)]
    x1: Mm
    y1: Mm
    x2: Mm
    y2: Mm
    part_id: Annotated[str, Names("part", needed=True)]
    surface: Annotated[SurfaceText, Since(9)] = "plate"
    categories: Annotated[Categories, Since(9)] = ()


@kind("lane", since=9, seen="nowhere")
@dataclass(slots=True)
class Lane:
    """A way for wires that somebody drew where no duct is: a line of straight pieces on a surface.

    Attributes:
        points: x and y of its corners in turn, at least two corners.
        categories: of the wires that may lie in it, of WIRE_CATEGORIES; () for all.
    """

    id: Id
    enclosure_id: Annotated[str, Names("enclosure", needed=True)]
    points: Annotated[Floats, Longest(2 * MOST_CORNERS)]
    surface: SurfaceText = "plate"
    categories: Categories = ()


@kind("crossing", since=9, seen="nowhere")
@dataclass(slots=True)
class Crossing:
    """Where wires pass from a point of one surface to a point of another: a hinge, an opening, a gland.

    Attributes:
        other_id: the enclosure it leads to, its own or a neighbour.
        extra_mm: the wire it takes beside what lies on both surfaces, such as a loop.
        categories: of the wires that may pass, of WIRE_CATEGORIES; () for all.
    """

    id: Id
    enclosure_id: Annotated[str, Names("enclosure", needed=True)]
    surface: SurfaceText
    x: Mm
    y: Mm
    other_id: Annotated[str, Names("enclosure", needed=True)]
    other_surface: SurfaceText
    other_x: Mm
    other_y: Mm
    extra_mm: Length = 0.0
    categories: Categories = ()


@kind("placing", since=1, seen="nowhere", keeps_device=True)
@dataclass(slots=True)
class Placing:
    """Where a device is in an enclosure.

    Attributes:
        surface: one of SURFACES.
        x, y: top left corner of its outline, mm from the surface's top left corner; on a level rail y follows the
            rail, on an upright one x does.
        rail_id: the rail it is clipped on, "".
    """

    id: Id
    enclosure_id: Annotated[str, Names("enclosure", needed=True)]
    device_id: Annotated[str, Names("device", needed=True)]
    surface: SurfaceText
    x: Mm
    y: Mm
    rail_id: Annotated[str, Names("rail")] = ""


@kind(
    "passage",
    since=9,
    seen="nowhere",
    called="what a wire is led through",
    indexes=(Keyed("passages_of", "conductor"),),
)
@dataclass(slots=True)
class Passage:
    """What a person leads a conductor through, in order; kept by its two pins, so that it outlives a new number.

    Attributes:
        conductor: key of the conductor (`jolly_core.wiring.conductor_key`).
        through: the ids of ducts and lanes, and "device id/n" for the n-th eyelet of a device; one that is passed
            twice stands twice.
    """

    id: Id
    conductor: LongText
    through: Annotated[tuple[str, ...], Longest(MOST_PASSED)]
