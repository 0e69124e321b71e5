"""Primitives of scenes, all in sheet millimetres, y downwards; and the items and scenes that are made of them.

A primitive is a record of its kind. Pens, tones and roles are names: paints.json says how each is painted. Graphics of
symbols are made of the same primitives about the symbol's origin, see `graphics.py`.
"""

from __future__ import annotations

from dataclasses import dataclass, field, replace
from typing import Literal

from typing_extensions import TypedDict

from jolly_core.drawing import BoxMm, Point
from jolly_core.model import Sheet

PenName = Literal["ink", "thin", "dash", "frame", "edge", "fine"]
ToneName = Literal[
    "plate",
    "rail",
    "duct",
    "device",
    "paper",
    "ink",
    "terminal",
    "neutral",
    "earth",
    "earth-band",
    "fuse",
    "disconnect",
    "spare",
    "bridge",
    "bracket",
    "divider",
    "sheath",
    "case",
    "case-shade",
    "case-dark",
    "screw",
    "glass",
    "lever",
    "red",
    "yellow",
    "green",
    "blue",
    "white",
    "black",
    "orange",
    "clear",
]
RoleName = Literal["tag", "text", "pin", "number", "reference", "label", "title", "heading", "line"]
Anchor = Literal["start", "middle", "end"]
SMALLEST_MM = 1.8  # of any text on any paper
NEEDED = frozenset({"tag", "title", "line", "reference"})  # texts that are there at every scale


@dataclass(slots=True, frozen=True)
class Line:
    """A straight line."""

    x1: float
    y1: float
    x2: float
    y2: float
    pen: PenName
    kind: Literal["line"] = "line"

    def moved(self, dx: float, dy: float) -> Line:
        """Return it elsewhere."""
        return Line(self.x1 + dx, self.y1 + dy, self.x2 + dx, self.y2 + dy, self.pen)

    def scaled(self, factor: float) -> Line:
        """Return it with all lengths times a factor."""
        return Line(self.x1 * factor, self.y1 * factor, self.x2 * factor, self.y2 * factor, self.pen)


@dataclass(slots=True, frozen=True)
class Poly:
    """A line through several points, x and y in turn."""

    points: tuple[float, ...]
    pen: PenName
    kind: Literal["poly"] = "poly"

    def moved(self, dx: float, dy: float) -> Poly:
        """Return it elsewhere."""
        return Poly(tuple(n + (dy if i % 2 else dx) for i, n in enumerate(self.points)), self.pen)

    def scaled(self, factor: float) -> Poly:
        """Return it with all lengths times a factor."""
        return Poly(tuple(n * factor for n in self.points), self.pen)


@dataclass(slots=True, frozen=True)
class Rect:
    """A rectangle from its upper left corner; without a tone one sees through it."""

    x: float
    y: float
    width: float
    height: float
    pen: PenName
    tone: ToneName | None = None
    kind: Literal["rect"] = "rect"

    def moved(self, dx: float, dy: float) -> Rect:
        """Return it elsewhere."""
        return replace(self, x=self.x + dx, y=self.y + dy)

    def scaled(self, factor: float) -> Rect:
        """Return it with all lengths times a factor."""
        corner, size = (self.x * factor, self.y * factor), (self.width * factor, self.height * factor)
        return Rect(*corner, *size, self.pen, self.tone)


@dataclass(slots=True, frozen=True)
class Circle:
    """A circle; without a tone one sees through it."""

    cx: float
    cy: float
    radius: float
    pen: PenName
    tone: ToneName | None = None
    kind: Literal["circle"] = "circle"

    def moved(self, dx: float, dy: float) -> Circle:
        """Return it elsewhere."""
        return replace(self, cx=self.cx + dx, cy=self.cy + dy)

    def scaled(self, factor: float) -> Circle:
        """Return it with all lengths times a factor."""
        return replace(self, cx=self.cx * factor, cy=self.cy * factor, radius=self.radius * factor)


@dataclass(slots=True, frozen=True)
class Arc:
    """An arc; its angles in degrees run clockwise from the x axis, as y grows downwards."""

    cx: float
    cy: float
    radius: float
    start: float
    end: float
    pen: PenName
    kind: Literal["arc"] = "arc"

    def moved(self, dx: float, dy: float) -> Arc:
        """Return it elsewhere."""
        return replace(self, cx=self.cx + dx, cy=self.cy + dy)

    def scaled(self, factor: float) -> Arc:
        """Return it with all lengths times a factor."""
        return replace(self, cx=self.cx * factor, cy=self.cy * factor, radius=self.radius * factor)


@dataclass(slots=True, frozen=True)
class Dot:
    """A filled circle without an edge."""

    cx: float
    cy: float
    radius: float
    kind: Literal["dot"] = "dot"

    def moved(self, dx: float, dy: float) -> Dot:
        """Return it elsewhere."""
        return replace(self, cx=self.cx + dx, cy=self.cy + dy)

    def scaled(self, factor: float) -> Dot:
        """Return it with all lengths times a factor."""
        return Dot(self.cx * factor, self.cy * factor, self.radius * factor)


@dataclass(slots=True, frozen=True)
class Strand:
    """A straight stroke of a wire in the colour of its insulation, a code of IEC 60757."""

    x1: float
    y1: float
    x2: float
    y2: float
    colour: str
    kind: Literal["wire"] = "wire"

    def moved(self, dx: float, dy: float) -> Strand:
        """Return it elsewhere."""
        return Strand(self.x1 + dx, self.y1 + dy, self.x2 + dx, self.y2 + dy, self.colour)

    def scaled(self, factor: float) -> Strand:
        """Return it with all lengths times a factor."""
        return Strand(self.x1 * factor, self.y1 * factor, self.x2 * factor, self.y2 * factor, self.colour)


@dataclass(slots=True, frozen=True)
class Art:
    """The graphics of a symbol at a place: its definition and poles, mirrored, then turned clockwise."""

    key: str
    x: float
    y: float
    rotation: int
    mirror: bool
    poles: int
    kind: Literal["art"] = "art"

    def moved(self, dx: float, dy: float) -> Art:
        """Return it elsewhere."""
        return replace(self, x=self.x + dx, y=self.y + dy)

    def scaled(self, factor: float) -> Art:
        """Return it as it is: symbols keep their size, so scenes with some stay 1:1."""
        return self


@dataclass(slots=True, frozen=True)
class Text:
    """A line of text at its baseline; a link leads to what has its id; one that is upward is read from the right."""

    x: float
    y: float
    size: float
    anchor: Anchor
    role: RoleName
    words: str
    link: str = ""
    upward: bool = False
    kind: Literal["text"] = "text"

    def moved(self, dx: float, dy: float) -> Text:
        """Return it elsewhere."""
        return replace(self, x=self.x + dx, y=self.y + dy)

    def scaled(self, factor: float) -> Text:
        """Return it with all lengths times a factor."""
        return replace(self, x=self.x * factor, y=self.y * factor, size=self.size * factor)


@dataclass(slots=True, frozen=True)
class Image:
    """A picture of the project, by its id."""

    x: float
    y: float
    width: float
    height: float
    picture: str
    kind: Literal["picture"] = "picture"

    def moved(self, dx: float, dy: float) -> Image:
        """Return it elsewhere."""
        return replace(self, x=self.x + dx, y=self.y + dy)

    def scaled(self, factor: float) -> Image:
        """Return it with all lengths times a factor."""
        corner, size = (self.x * factor, self.y * factor), (self.width * factor, self.height * factor)
        return Image(*corner, *size, self.picture)


Prim = Line | Poly | Rect | Circle | Arc | Dot | Strand | Art | Text | Image


Facts = TypedDict(
    "Facts",
    {
        "device": str,  # the id of the device it stands for
        "definition": str,  # the key of a symbol
        "tag": str,
        "text": str,
        "name": str,  # of a continuation
        "group": int,  # the least of the points of a wire's group
        "number": str,  # of the net
        "fixed": bool,  # its number was given by hand
        "type": str,  # the id of a wire's type
        "locked": bool,
        "layer": str,  # the id of the layer it is in
        "together": str,  # what moves with it has the same
        "size": float,  # of the letters of a note, mm
        "turned": bool,  # a note is read from the right
        "align": Anchor,  # of a note
        "poles": tuple[int, int],  # how many poles a symbol has, and may have
        "texts": dict[str, str],  # texts of a symbol that a hand has moved, "dx,dy" in mm, or hidden, "off", by role
        "settled": dict[str, str],  # how far texts have moved by themselves to be clear of others, "dx,dy" in mm
        "figure": str,  # what kind of figure it is
        "location": str,
        "dashed": bool,
        "corners": tuple[int, int, int, int],  # of a figure, grid steps
        "ends": tuple[Point, Point],  # of a wire, grid steps
        "pins": list[Point],  # grid steps
        "body": BoxMm,  # what the pointer meets, mm
        "art": list[Prim],  # the graphics of a symbol that somebody drew; the others are fetched once
        "shown": tuple[str, str],  # the tag of a device as it stands on its face: what tells it apart, the product's
        "strip": bool,  # it is a terminal strip
        "written": tuple[float, float, float],  # the middle of that on the face, and how tall it is, mm
        "room": BoxMm,  # the room the part of a device asks for about it, mm
        "run": tuple[float, float, float, float],  # ends of a rail or duct, mm from the plate's own corner
        "length": float,  # of a segment, mm
        "from": tuple[float, float],  # ends of a segment on its board, mm
        "to": tuple[float, float],
    },
    total=False,
)


@dataclass(slots=True)
class Item:
    """What one thing looks like: its primitives and the facts a view needs to hit and select it.

    Attributes:
        id: the entity's id, with a prefix for what is derived ("table:...", "frame").
        kind: "symbol", "wire", "continuation", "note", "band", "dot", "table", "number", "frame"; in layouts "plate",
            "rail", "duct", "placing"; on form boards "segment", "node", "covering", "hatch", "dimension", "words".
        prims: what it is drawn of, about `at`.
        box: left, top, right, bottom in mm for hitting and zooming.
        facts: what is known of it, each kind of thing its own.
        at: where its primitives begin, mm; what moves as a whole keeps them and moves this.
    """

    id: str
    kind: str
    prims: list[Prim]
    box: BoxMm
    facts: Facts = field(default_factory=Facts)
    at: tuple[float, float] = (0.0, 0.0)

    def placed(self) -> list[Prim]:
        """Return its primitives where they lie on the drawing."""
        return self.prims if self.at == (0.0, 0.0) else [prim.moved(*self.at) for prim in self.prims]


@dataclass(slots=True)
class Scene:
    """A drawing: size in mm and items by id in painting order; the sheet whose frame it has, None without one.

    `lost`: how many names are left out because they have no room at its scale.
    """

    width: float
    height: float
    items: dict[str, Item]
    sheet: Sheet | None = None
    lost: int = 0


def text(
    x: float,
    y: float,
    size: float,
    content: str,
    *,
    anchor: Anchor = "start",
    role: RoleName = "text",
    link: str = "",
    upward: bool = False,
) -> Text:
    """Return a text whose place is rounded to hundredths of a millimetre.

    Example:
        >>> text(1, 2.346, 3.0, "-KF1", role="tag").y
        2.35
    """
    return Text(round(x, 2), round(y, 2), size, anchor, role, content, link, upward)


def pin_link(pin: tuple[str, int]) -> str:
    """Return the link that leads to a pin: the id of its symbol and the pin's place among the symbol's."""
    return f"{pin[0]}.{pin[1]}"


def board_link(device_id: str) -> str:
    """Return the link that leads to a connector on the form board of its harness."""
    return f"node:{device_id}"


def block_link(device_id: str) -> str:
    """Return the link that leads to a device or connector in the picture of blocks."""
    return f"block:{device_id}"


def legible(prims: list[Prim], scale: float) -> list[Prim]:
    """Return primitives whose texts can be read at a scale: tags grow to SMALLEST_MM, what matters less is left out.

    Example:
        >>> [p.size for p in legible([text(0, 0, 6.0, "-FC1", role="tag"), text(0, 0, 6.0, "BW-M10")], 0.2)]
        [9.0]
    """
    found: list[Prim] = []
    for p in prims:
        if isinstance(p, Text) and p.size * scale < SMALLEST_MM - 1e-9:
            if p.role not in NEEDED:
                continue
            p = replace(p, size=round(SMALLEST_MM / scale, 3))
        found.append(p)
    return found


def replace_words(prim: Prim, more: str) -> Prim:
    """Return a primitive, a text with more words at its end."""
    if isinstance(prim, Text):
        return text(prim.x, prim.y, prim.size, prim.words + more, anchor=prim.anchor, role=prim.role)
    return prim


def texts_in(item: Item) -> list[Text]:
    """Return the texts of an item that have words."""
    return [p for p in item.placed() if isinstance(p, Text) and p.words]


def text_at(item: Item, n: int) -> Text:
    """Return the n-th primitive of an item, which is a text.

    Raises:
        TypeError: it is none.
    """
    prim = item.prims[n]
    if not isinstance(prim, Text):
        raise TypeError(f"Primitive {n} of {item.id} is no text.")
    return prim
