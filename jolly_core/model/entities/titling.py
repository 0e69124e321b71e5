"""Title blocks as data: the block, its cells, and the pictures they may show."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated

from ..fields import Base64, Id, LongText, Names, OneOf, Said, Text, Within
from ..kinds import Keyed, kind

BlockSize = Annotated[float, Within(0, 1200, "mm", above=True)]
BlockPlace = Annotated[float, Within(0, 1200, "mm")]
LetterSize = Annotated[float, Within(0.5, 40, "mm")]
Pixels = Annotated[int, Within(1, 4000, "pixels")]


@kind("title_block", since=2)
@dataclass(slots=True)
class TitleBlock:
    """A title block, width and height in mm; it lies in the lower right corner of a sheet's frame."""

    id: Id
    name: Text
    width_mm: BlockSize = 180.0
    height_mm: BlockSize = 36.0


@kind("title_cell", since=2, called="cell", indexes=(Keyed("cells_of_block", "block_id"),))
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

    id: Id
    block_id: Annotated[str, Names("title_block", needed=True)]
    x: BlockPlace
    y: BlockPlace
    width: BlockPlace
    height: BlockPlace
    heading: Annotated[Text, Said()] = ""
    content: LongText = ""
    size_mm: LetterSize = 3.2
    anchor: Annotated[str, OneOf(("start", "middle", "end"))] = "start"
    border: bool = True
    picture_id: Annotated[str, Names("picture")] = ""


@kind("picture", since=2, seen="nowhere")
@dataclass(slots=True)
class Picture:
    """A picture for title blocks and covers: PNG or JPEG, as it was taken in; size in pixels."""

    id: Id
    name: Text
    media_type: Annotated[str, OneOf(("image/png", "image/jpeg"))]
    width_px: Pixels
    height_px: Pixels
    data: Base64
