"""Harnesses: what lies at their nodes and along their segments, in space and on the form board.

Connectors and splices are devices: tag, part and text are the device's. Places in space are in mm.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal, get_args

from ..fields import Floats, Id, Longest, Names, OneOf, Order, Said, Since, Text, Within
from ..kinds import kind

# What a node is beside an end or a branching.
NodeSort = Literal["", "clip"]
NODE_SORTS: tuple[str, ...] = get_args(NodeSort)
# How a segment gets its length: typed, or by its path in space.
PathForm = Literal["typed", "line", "polyline", "curve"]
PATH_FORMS: tuple[str, ...] = get_args(PathForm)
# How wires lie where they are led through a clip: packed by themselves, each at an offset, all at one point.
ClipLead = Literal["", "offsets", "merged"]
CLIP_LEADS: tuple[str, ...] = get_args(ClipLead)
# Where the trunk leads on the board.
Heading = Literal["right", "down", "left", "up"]
HEADINGS: tuple[str, ...] = get_args(Heading)
MOST_OFFSETS = 200
MOST_PATH_POINTS = 60

Quantity = Annotated[int, Within(0, 100_000)]
SegmentLength = Annotated[float, Within(0, 20_000, "mm")]
ExtraLength = Annotated[float, Within(-1000, 10_000, "mm")]
ExtraShare = Annotated[float, Within(-50, 200, "%")]
Angle = Annotated[float, Within(-180, 180, "°")]
# A place in space: three coordinates, or none.
SpacePlace = Annotated[Floats, Longest(3)]


@kind("harness", since=1, seen="nowhere")
@dataclass(slots=True)
class Harness:
    """A wiring harness; its wires are those drawn between its connectors and splices.

    Attributes:
        extra_percent: added to the length of every segment.
        quantity: how many are built, where it has no variants.
        apart: its bundles stay apart from those of other harnesses on the same way; else they are one.
        heading: where its trunk leads on the board, one of HEADINGS.
        label_mm: how far from each end its label is put, 0 for none.
    """

    id: Id
    code: Text
    text: Annotated[Text, Said()] = ""
    order: Order = 0
    extra_percent: Annotated[ExtraShare, Since(11)] = 0.0
    quantity: Annotated[Quantity, Since(12)] = 1
    apart: Annotated[bool, Since(13)] = False
    heading: Annotated[str, OneOf(HEADINGS), Since(13)] = "right"
    label_mm: Annotated[SegmentLength, Since(13)] = 40.0


@kind("node", since=1, seen="nowhere", keeps_device=True)
@dataclass(slots=True)
class Node:
    """An end, a branching, a splice or a clip of a harness.

    Attributes:
        device_id: the connector or splice there, "" at a branching or clip.
        sort: one of NODE_SORTS.
        part_id: the part of a clip.
        at: where it is in space, () while that is unknown.
        trunk_end: its trunk begins or ends here; the trunk lies between the two of a harness that have it, else it is
            the longest way.
        equal_legs: all wires of the splice there are cut as long as its longest.
        led: how wires lie in the clip there, one of CLIP_LEADS.
        offsets: with "offsets" where each of them lies in the clip, two coordinates each, in the order of its wires.
        from_mating: its connector is shown from the mating side, not from the wire side.
    """

    id: Id
    harness_id: Annotated[str, Names("harness", needed=True)]
    device_id: Annotated[str, Names("device")] = ""
    name: Text = ""
    sort: Annotated[str, OneOf(NODE_SORTS), Since(11)] = ""
    part_id: Annotated[str, Names("part"), Since(11)] = ""
    at: Annotated[SpacePlace, Since(11)] = ()
    trunk_end: Annotated[bool, Since(11)] = False
    equal_legs: Annotated[bool, Since(11)] = False
    led: Annotated[str, OneOf(CLIP_LEADS), Since(13)] = ""
    offsets: Annotated[Floats, Longest(2 * MOST_OFFSETS), Since(13)] = ()
    from_mating: Annotated[bool, Since(13)] = False


@kind("segment", since=1, seen="nowhere")
@dataclass(slots=True)
class Segment:
    """A stretch of a harness between two nodes.

    Attributes:
        length_mm: its typed length; that of its path counts where it has one.
        form: how it gets its length, one of PATH_FORMS.
        path: what lies between its nodes, three coordinates each: corners of a polyline; of a curve of cubic Bezier
            pieces the two control points of each piece, and the points between pieces.
        extra_mm, extra_percent: added to its length in space.
        angled, angle_deg: whether its angle on the board was chosen, and that angle: 0 to the right, 90 downwards.
    """

    id: Id
    harness_id: Annotated[str, Names("harness", needed=True)]
    a_id: Annotated[str, Names("node", needed=True)]
    b_id: Annotated[str, Names("node", needed=True)]
    length_mm: SegmentLength
    form: Annotated[str, OneOf(PATH_FORMS), Since(11)] = "typed"
    path: Annotated[Floats, Longest(3 * MOST_PATH_POINTS), Since(11)] = ()
    extra_mm: Annotated[ExtraLength, Since(11)] = 0.0
    extra_percent: Annotated[ExtraShare, Since(11)] = 0.0
    angled: Annotated[bool, Since(11)] = False
    angle_deg: Annotated[Angle, Since(11)] = 0.0


@kind("covering", since=11, seen="nowhere")
@dataclass(slots=True)
class Covering:
    """Tape, tube or sleeve over a stretch of a segment, mm from its first node; `to_mm` 0 is its end."""

    id: Id
    segment_id: Annotated[str, Names("segment", needed=True)]
    part_id: Annotated[str, Names("part")] = ""
    from_mm: SegmentLength = 0.0
    to_mm: SegmentLength = 0.0
