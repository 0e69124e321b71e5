"""A face of a device while it is drawn: upright about its upper left corner, x to the right and y down. All in mm."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable

from jolly_core.cabinet import pin_shares
from jolly_core.model import Part

from ..base.lettering import fit
from ..base.primitives import Circle, Line, PenName, Prim, Rect, ToneName, text

PEN: PenName = "thin"
FLAT = 0.3  # of the height of a face, which words take at most
# What colour words of parts mean for caps and lenses.
CAPS: dict[str, ToneName] = {
    "red": "red",
    "yellow": "yellow",
    "amber": "yellow",
    "green": "green",
    "blue": "blue",
    "white": "white",
    "black": "black",
    "orange": "orange",
    "clear": "clear",
}


class Sketch:
    """A face while it is drawn: its size, its part, and what is drawn so far."""

    def __init__(self, part: Part, width: float, height: float) -> None:
        self.part, self.width, self.height = part, width, height
        self.prims: list[Prim] = []

    @property
    def small(self) -> float:
        """The smaller of width and height."""
        return min(self.width, self.height)

    @property
    def tone(self) -> ToneName:
        """The tone of its cap or lens; grey while its part says no colour."""
        words = self.part.ratings.get("colour", "").lower().split()
        return next((CAPS[w] for w in words if w in CAPS), "case-shade")

    def box(
        self, x: float, y: float, width: float, height: float, tone: ToneName | None = "case", pen: PenName = PEN
    ) -> None:
        """Draw a rectangle by shares of width and height."""
        w, h = self.width, self.height
        self.prims.append(Rect(x * w, y * h, width * w, height * h, pen, tone))

    def round(self, x: float, y: float, radius: float, tone: ToneName | None = None, pen: PenName = PEN) -> None:
        """Draw a circle about a share of width and height, its radius in mm."""
        self.prims.append(Circle(x * self.width, y * self.height, radius, pen, tone))

    def line(self, x1: float, y1: float, x2: float, y2: float, pen: PenName = PEN) -> None:
        """Draw a line by shares of width and height."""
        w, h = self.width, self.height
        self.prims.append(Line(x1 * w, y1 * h, x2 * w, y2 * h, pen))

    def words(self, x: float, y: float, size: float, words: str, room: float) -> None:
        """Write words about a share of width and height, within a share of the width; none on too flat a face."""
        shown, fitted = fit(words, room * self.width, size)
        if fitted > FLAT * self.height:
            return
        place = (x * self.width, y * self.height + fitted / 3)
        self.prims.append(text(*place, fitted, shown, anchor="middle", role="label"))

    def screws(self, top: int, bottom: int, *, inset: float = 0.08) -> None:
        """Draw screws of terminals along the upper and the lower edge."""
        for count, y in ((top, inset), (bottom, 1 - inset)):
            shown = min(count, max(1, int(self.width / 4.5)))
            radius = min(2.6, self.width / max(shown, 1) * 0.3, self.height * inset * 0.8)
            for n in range(shown):
                self.round((n + 0.5) / shown, y, radius, "screw")

    def own_screws(self, *, inset: float = 0.08) -> None:
        """Draw a screw for each of the part's pins, on the edge at which it comes out."""
        sides = Counter(y < 0.5 for _, y in pin_shares(self.part).values())
        self.screws(sides[True], sides[False], inset=inset)


Draw = Callable[[Sketch], None]
