"""Title blocks as data: the block, its cells, and the pictures they may show."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(slots=True)
class TitleBlock:
    """A title block, width and height in mm; it lies in the lower right corner of a sheet's frame."""

    id: str
    name: str
    width_mm: float = 180.0
    height_mm: float = 36.0


@dataclass(slots=True)
class TitleCell:
    """A cell of a title block; place and size in mm from the block's upper left corner.

    Attributes:
        heading: small words in the cell's corner.
        content: text with fields in braces, such as "{project} {revision}".
        size_mm: height of the text where it fits; it wraps, then shrinks, in a smaller cell.
        anchor: where the text stands, "start", "middle" or "end".
        border: whether the cell has an edge.
        picture_id: a picture that fills the cell, "" for none.
    """

    id: str
    block_id: str
    x: float
    y: float
    width: float
    height: float
    heading: str = ""
    content: str = ""
    size_mm: float = 3.2
    anchor: str = "start"
    border: bool = True
    picture_id: str = ""


Base64 = str  # bytes as text; a type of its own, because it may be longer than a text


@dataclass(slots=True)
class Picture:
    """A picture for title blocks and covers: PNG or JPEG, as it was taken in; size in pixels."""

    id: str
    name: str
    media_type: str
    width_px: int
    height_px: int
    data: Base64
