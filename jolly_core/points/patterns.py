"""The pattern of a sheet of channels: where its rows are, and where on a row the channel and what is connected stand.

A place on a sheet is given by its row, how far it is *along* the row from the commons to the channel, and how far
*across* it lies, all in grid steps. Rows run level or upright, with the channel at either end.
"""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.drawing import UPRIGHT, Point
from jolly_core.model import Settings

# Along a row, grid steps: the commons, the first terminal, the pin of an element next to the commons, the terminal at
# the card, and the channel.
RETURN, FEED, FIRST, ELEMENT, SECOND, CHANNEL = 20, 24, 34, 50, 70, 94
DEEP = 4  # a pin of an element from the other, along and across
RISE = 5  # that a common reaches before its first row; no wire of the row before lies there
LEVEL_PITCH, UPRIGHT_PITCH = 10, 15
TOP, LEFT = 20, 24  # of the first row
TURNS: dict[tuple[str, str], tuple[int, bool]] = {
    ("level", "right"): (0, False),
    ("level", "left"): (180, True),
    ("upright", "right"): UPRIGHT,
    ("upright", "left"): (270, False),
}
OTHER = {"right": "left", "left": "right"}


@dataclass(slots=True, frozen=True)
class Pattern:
    """How many channels stand on a sheet, whether their rows run level or upright, and at which end the channels are.

    Attributes:
        per_sheet: rows of a sheet.
        way: one of CHANNEL_WAYS.
        side: one of CHANNEL_SIDES; an upright row has its "right" at the bottom.
    """

    per_sheet: int
    way: str
    side: str

    @property
    def pitch(self) -> int:
        """From row to row, grid steps."""
        return LEVEL_PITCH if self.way == "level" else UPRIGHT_PITCH

    @property
    def turn(self) -> tuple[int, bool]:
        """Rotation and mirror of a symbol whose first pin is next to the commons."""
        return TURNS[self.way, self.side]

    @property
    def back(self) -> tuple[int, bool]:
        """Rotation and mirror of a symbol whose first pin is next to the channel."""
        return TURNS[self.way, OTHER[self.side]]

    @property
    def mark(self) -> str:
        """Side to which the mark points from which a common comes."""
        return "up" if self.way == "level" else "left"

    def at(self, row: int, along: int, across: int = 0) -> Point:
        """Return the grid point of a place.

        Example:
            The channel of the first row of a level sheet with its channels on the right is at (94, 20).
        """
        if self.way == "level":
            return along if self.side == "right" else 128 - along, TOP + LEVEL_PITCH * row + across
        return LEFT + UPRIGHT_PITCH * row + across, along - 10 if self.side == "right" else 112 - along

    def across(self, at: Point) -> int:
        """Return how far a point lies across from the first row."""
        return at[1] - TOP if self.way == "level" else at[0] - LEFT

    def row_of(self, at: Point) -> int:
        """Return the row that is nearest to a point."""
        return round(self.across(at) / self.pitch)

    def supply_at(self, n: int) -> Point:
        """Return where the n-th supply of a card stands on a sheet, beside the rows."""
        return (148 if self.way == "level" else 154), TOP + 14 * n

    def within_rows(self, at: Point) -> bool:
        """Return whether a point lies where rows are, and not beside them where supplies stand."""
        return at[0] < self.supply_at(0)[0] - 20


def pattern_for(settings: Settings, io_type: str, per_sheet: int = 0, way: str = "", side: str = "") -> Pattern:
    """Return the pattern for channels of a type, what is not given as the project says.

    Where no side is chosen, inputs stand on the right and outputs on the left.
    """
    usual = "right" if io_type in ("DI", "AI") else "left"
    return Pattern(
        per_sheet or settings.channels_per_sheet,
        way or settings.channel_way,
        side or settings.channel_side or usual,
    )
