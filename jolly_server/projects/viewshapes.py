"""What a browser shows of a sheet: the values of each section by id."""

from __future__ import annotations

from typing_extensions import TypedDict

from jolly_core.edits import AnyEdit
from jolly_server.shapes.sceneshapes import SceneItem


class SnagAct(TypedDict):
    """The edit that puts a snag right in one step, with the word for its button."""

    label: str
    edit: AnyEdit


WireRowValue = TypedDict(
    "WireRowValue",
    {
        "id": str,
        "number": str,
        "from": str,
        "to": str,
        "type": str,
        "colour": str,
        "size": str,
        "place": str,
        "wire_id": str,
        "wires": list[str],
        "pins": tuple[str, str],  # its two, as orders of a net name them
        "own": bool,  # a person decided by which conductors its net is joined
    },
)


class DeviceRowValue(TypedDict):
    """A device drawn on a sheet."""

    id: str
    tag: str
    text: str
    part: str
    what: str
    place: str
    symbols: list[str]


class SnagRowValue(TypedDict):
    """A snag of a sheet."""

    order: int
    key: str
    code: str
    severity: str
    message: str
    ids: list[str]
    at: tuple[float, float]
    place: str
    mend: str
    device_id: str
    act: SnagAct | None


class SheetFacts(TypedDict):
    """What a sheet is.

    `lines` has number, y, and the first y and x that count to it, of each ladder line, in grid steps, ladder by ladder
    from the top; what is `made` from the project is looked at, not drawn on.
    """

    id: str
    number: str
    title: str
    kind: str
    made: bool
    frame: str
    function_id: str
    location_id: str
    width: float
    height: float
    lines: list[tuple[int, int, int, int]]
    rails: tuple[int, int]
    standard: str


class SheetSections(TypedDict, total=False):
    """The sections of a sheet, or what is to be put into them."""

    items: dict[str, SceneItem]
    wires: dict[str, WireRowValue]
    devices: dict[str, DeviceRowValue]
    snags: dict[str, SnagRowValue]
    sheet: dict[str, SheetFacts]
