"""The shapes in which the Harness bench is told: harnesses with wires, segments, nodes, connectors, coverings."""

from __future__ import annotations

from typing_extensions import TypedDict

from jolly_core.model import ClipLead, Heading, PathForm
from jolly_core.model.entities.harness import NodeSort
from jolly_server.shapes.sceneshapes import AnyPrim, BareItem, SceneValue

from .harnessblocks import ConnectorFacts
from .shapes import DeviceName, FromTo

Spot = tuple[float, float, float]


class HarnessName(TypedDict):
    """A harness by its code."""

    id: str
    code: str
    text: str


class SheetName(TypedDict):
    """A sheet on which wires of the harness are drawn, and how many."""

    id: str
    number: str
    title: str
    wires: int


class HarnessWireValue(FromTo):
    """A wire of a harness; `missing` says why it has no length."""

    key: str
    number: str
    type: str
    colour: str
    size: str
    twisted: str
    shield: str
    length_mm: float | None
    spare_mm: float
    missing: str
    why: str
    segments: list[str]
    wire_id: str
    sheet_id: str
    place: str


class SegmentValue(TypedDict):
    """A segment between two nodes: its length and what it is made of, its path in space, its bundle; mm.

    Attributes:
        length_mm: with what is added; `words` say how.
        bend_mm: the least radius its path bends about, None where it has no path or is straight.
        needs_bend_mm: the least radius its bundle may bend about.
        stiff: the cable that asks for it, "" where the bundle does.
        beside: the other harnesses that run with it as one bundle.
        packed: whether the diameter was found by packing.
        points: of its path, to be drawn.
    """

    id: str
    a: str
    b: str
    length_mm: float
    base_mm: float
    extra_mm: float
    extra_percent: float
    words: str
    missing: str
    form: PathForm
    path: list[float]
    points: list[Spot]
    bend_mm: float | None
    needs_bend_mm: float
    too_tight: bool
    stiff: str
    beside: list[str]
    angled: bool
    angle_deg: float
    on_trunk: bool
    wires: int
    diameter_mm: float
    packed: bool


class StrandValue(TypedDict):
    """A wire or cable that runs through a clip at its offset: from where to where in space, mm."""

    name: str
    diameter_mm: float
    ends: list[Spot]


class NodeValue(TypedDict):
    """An end, a branching, a splice or a clip.

    Attributes:
        at: its place in space, [] while that is unknown.
        section: of a clip what is led through it, cut across.
        strands: in space, where they do not lie in their bundle.
    """

    id: str
    device_id: str
    name: str
    own_name: str
    sort: NodeSort
    splice: bool
    part_id: str
    part: str
    at: list[float]
    trunk_end: bool
    equal_legs: bool
    led: ClipLead
    offsets: list[float]
    from_mating: bool
    section: SceneValue | None
    strands: list[StrandValue]


class CoveringValue(TypedDict):
    """A stretch of a segment that is covered, with how much of the part it takes; mm."""

    id: str
    segment_id: str
    part_id: str
    part: str
    text: str
    from_mm: float
    to_mm: float
    length_mm: float
    used_mm: float


class CavityValue(TypedDict):
    """A cavity of a connector: its wires, where they lead, its contact.

    Attributes:
        crowded: that does not take them together.
        elsewhere: the harness whose wires are in it, where those are of another one alone.
    """

    cavity: str
    wires: list[str]
    to: list[str]
    contact: str
    strip_mm: float
    seal: str
    crowded: bool
    elsewhere: str


class ConnectorValue(DeviceName):
    """A connector with its cavities, and what it is plugged to."""

    facts: ConnectorFacts
    cavities: list[CavityValue]


class ShieldValue(TypedDict):
    """A shield about wires, and the pin it lands on, "" while that is none."""

    name: str
    wires: int
    landed: str


class VariantValue(TypedDict):
    """A way in which the harness is built, and how many."""

    id: str
    name: str
    quantity: int


class InCable(TypedDict):
    """A cable that runs in the harness: whether beside its bundles, and how many of its cores."""

    device_id: str
    tag: str
    part: str
    apart: bool
    cores: int


class HarnessFacts(HarnessName):
    """A harness without its lists.

    Attributes:
        variant: the one its board and tables are of, "" for all that is in it.
        named: the variants that a wire (by its key), node or segment is named for; others are in all.
        shares: the harnesses that begin at two or more of its connectors, too, so that wires may run in either.
    """

    quantity: int
    variant: str
    variants: list[VariantValue]
    named: dict[str, list[str]]
    shields: list[ShieldValue]

    page_id: str
    extra_percent: float
    apart: bool
    heading: Heading
    label_mm: float
    cables: list[InCable]
    shares: list[HarnessName]
    snags: list[str]
    coverings: list[CoveringValue]
    sheets: list[SheetName]


class HarnessValue(HarnessFacts):
    """A harness with all about it."""

    scene: SceneValue | None
    nodes: list[NodeValue]
    segments: list[SegmentValue]
    wires: list[HarnessWireValue]
    connectors: list[ConnectorValue]


class HarnessView(TypedDict):
    """What the Harness bench shows: the harnesses, connectors in none and in others, and the harness asked for."""

    harnesses: list[HarnessName]
    free: list[DeviceName]
    others: list[DeviceName]
    harness: HarnessValue | None


class HarnessAround(TypedDict):
    """What is beside the harness asked for, and its facts: None where there is no harness."""

    harnesses: list[HarnessName]
    free: list[DeviceName]
    others: list[DeviceName]
    facts: HarnessFacts | None


class HarnessOrder(TypedDict):
    """The ids of what a harness has, each list in its order, and the size of its board: None where it has none."""

    size: tuple[float, float] | None
    items: list[str]
    nodes: list[str]
    segments: list[str]
    wires: list[str]
    connectors: list[str]


class HarnessSections(TypedDict, total=False):
    """What the bench shows, by section and id; primitives apart from the items that have them."""

    around: dict[str, HarnessAround]
    order: dict[str, HarnessOrder]
    items: dict[str, BareItem]
    prims: dict[str, list[AnyPrim]]
    nodes: dict[str, NodeValue]
    segments: dict[str, SegmentValue]
    wires: dict[str, HarnessWireValue]
    connectors: dict[str, ConnectorValue]


class HarnessChange(TypedDict):
    """What to put into and drop from what the bench shows, to be at a revision; all of it when `whole`."""

    revision: int
    whole: bool
    put: HarnessSections
    drop: dict[str, list[str]]
