"""What the Make bench is told."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any, Literal, NotRequired, get_type_hints

import typing_extensions
from typing_extensions import TypedDict

from jolly_core.making import CutWire, SpoolRow, StockCut

if TYPE_CHECKING:
    from typing import TypeAlias

    WireLine: TypeAlias = dict[str, Any]
else:
    # A wire of the cut list with what became of it; `stale` when its conductor was cut as another piece before.
    WireLine = typing_extensions.TypedDict(
        "WireLine",
        {
            **get_type_hints(CutWire),
            "state": Literal["new", "waiting", "done", "refused"],
            "reasons": str,
            "stale": bool,
        },
    )

Uncut = TypedDict("Uncut", {"number": str, "from": str, "to": str, "why": str})


class MachineValue(TypedDict):
    """The machine: where it is, why it cannot be asked, and what it says of itself."""

    address: str
    problem: str
    name: NotRequired[str]
    state: NotRequired[str]
    limits: NotRequired[dict[str, float]]


class InVain(TypedDict):
    """A wire that was cut though the drawing asks for something else by now."""

    number: str
    start: str
    end: str
    length_mm: float
    type_name: str


class MakeView(TypedDict):
    """The cut list with what became of each piece, the machine, spools and pieces of stock."""

    wires: list[WireLine]
    uncut: list[Uncut]
    spools: list[SpoolRow]
    stock: list[StockCut]
    machine: MachineValue
    open_jobs: int
    vain: list[InVain]
