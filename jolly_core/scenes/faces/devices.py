"""What devices look like from the front: drawn by their class and size where their part brings no drawing. All in mm.

To add one, write a function and put it into FACES under the keys of the part classes it is for.
"""

from __future__ import annotations

from functools import lru_cache

from jolly_core.library import base_of, number_in
from jolly_core.model import Part

from ..base.primitives import Circle, Line, Prim, Rect, Text, text
from .sketching import PEN, Draw, Sketch

MOST_SLOTS = 64  # of a rack that are drawn; more would be finer than any pen


def _breaker(s: Sketch) -> None:
    """A slot with a lever for each pole between terminals."""
    poles = max(1, s.part.count("pole"))
    s.box(0, 0, 1, 1, "case", "fine")
    s.box(0, 0.2, 1, 0.6, "case-shade")
    s.screws(poles, poles)
    for n in range(poles):
        middle = (n + 0.5) / poles
        wide = min(0.5 / poles, 7 / s.width)
        s.box(middle - wide / 2, 0.4, wide, 0.2, "case-dark")
        s.box(middle - wide / 2, 0.4, wide, 0.1, "lever")
        if n:
            s.line(n / poles, 0.2, n / poles, 0.8)


def _motor_breaker(s: Sketch) -> None:
    """A turning knob over the range it is set to."""
    s.box(0, 0, 1, 1, "case", "fine")
    s.box(0.08, 0.2, 0.84, 0.6, "case-shade")
    poles = max(1, s.part.count("pole"))
    s.screws(poles, poles)
    s.round(0.5, 0.42, s.small * 0.24, "case-dark")
    s.prims.append(Rect(s.width * 0.47, s.height * 0.42 - s.small * 0.22, s.width * 0.06, s.small * 0.44, PEN, "white"))
    low, high = (s.part.ratings.get(f"setting_{k}_a", "") for k in ("min", "max"))
    if low and high:
        s.words(0.5, 0.72, 5.0, f"{low}-{high} A", 0.8)


def _contactor(s: Sketch) -> None:
    """A raised front with the armature in its middle, main terminals on both sides."""
    s.box(0, 0, 1, 1, "case", "fine")
    s.box(0.06, 0.16, 0.88, 0.68, "case-shade")
    poles = max(1, s.part.count("pole"))
    s.screws(poles + 1, poles + 1)
    side = min(s.width * 0.36, s.height * 0.24)
    s.prims.append(Rect(s.width / 2 - side / 2, s.height * 0.52 - side / 2, side, side, PEN, "case-dark"))
    s.prims.append(Rect(s.width / 2 - side / 4, s.height * 0.52 - side / 4, side / 2, side / 2, PEN, "white"))


def _overload(s: Sketch) -> None:
    """A dial for the current, a knob that sets it back."""
    s.box(0, 0, 1, 1, "case", "fine")
    s.box(0.08, 0.16, 0.84, 0.66, "case-shade")
    s.screws(3, 3)
    s.round(0.34, 0.48, s.small * 0.17, "white")
    s.line(0.34, 0.48, 0.34 + 0.11, 0.48 - 0.11, "fine")
    s.round(0.74, 0.48, s.small * 0.1, "blue")


def _relay(s: Sketch) -> None:
    """A slim case with a window."""
    s.box(0, 0, 1, 1, "case", "fine")
    s.own_screws()
    s.box(0.16, 0.24, 0.68, 0.46, "clear")
    s.box(0.28, 0.36, 0.44, 0.2, "case-dark")
    s.round(0.5, 0.78, min(1.6, s.small * 0.12), "green")


def _timer(s: Sketch) -> None:
    """A relay with two dials."""
    s.box(0, 0, 1, 1, "case", "fine")
    s.own_screws()
    radius = min(s.width * 0.28, s.height * 0.1)
    for y in (0.34, 0.6):
        s.round(0.5, y, radius, "white")
        s.line(0.5, y, 0.5 + 0.18, y - 0.06, "fine")


def _module(s: Sketch) -> None:
    """A case of electronics: terminals at both ends, small lights."""
    s.box(0, 0, 1, 1, "case", "fine")
    s.box(0, 0.18, 1, 0.64, "case-shade")
    s.own_screws(inset=0.09)
    for n in range(3):
        s.round(0.5, 0.32 + n * 0.08, min(1.4, s.small * 0.1), ("green", "yellow", "red")[n])


def _supply(s: Sketch) -> None:
    """A dark case with slits, a light, and what it gives."""
    s.box(0, 0, 1, 1, "case-dark", "fine")
    s.box(0, 0, 1, 0.15, "case")
    s.box(0, 0.85, 1, 0.15, "case")
    s.own_screws(inset=0.07)
    for n in range(5):
        s.box(0.2, 0.24 + n * 0.07, 0.6, 0.02, "case-shade")
    s.round(0.8, 0.68, min(2.0, s.small * 0.06), "green")
    volts, amps = s.part.ratings.get("output_v", ""), s.part.ratings.get("output_a", "")
    if volts:
        s.box(0.1, 0.74, 0.8, 0.09, "white")
        s.words(0.5, 0.785, min(7.0, s.height * 0.07), f"{volts} V {amps} A".replace("  A", ""), 0.78)


def _transformer(s: Sketch) -> None:
    """A core with its winding and a terminal strip above."""
    s.box(0, 0, 1, 1, "case-dark", "fine")
    s.box(0.04, 0.2, 0.92, 0.6, "orange")
    for n in range(1, 6):
        s.line(0.04, 0.2 + n * 0.1, 0.96, 0.2 + n * 0.1)
    s.box(0, 0, 1, 0.16, "case")
    s.box(0, 0.84, 1, 0.16, "case")
    s.own_screws(inset=0.08)


def _drive(s: Sketch) -> None:
    """A dark front with a display and keys, power terminals below."""
    s.box(0, 0, 1, 1, "case-dark", "fine")
    s.box(0.1, 0.1, 0.8, 0.44, "case")
    s.box(0.17, 0.15, 0.66, 0.15, "glass")
    for row in range(2):
        for column in range(3):
            s.round(0.26 + column * 0.24, 0.36 + row * 0.08, min(s.width * 0.06, s.height * 0.03), "screw")
    if s.part.ratings.get("power_kw"):
        s.words(0.5, 0.51, min(7.0, s.height * 0.045), f"{s.part.ratings['power_kw']} kW", 0.7)
    count = max(4, min(8, int(s.width / 11)))
    for n in range(count):
        s.box(0.06 + n * 0.88 / count, 0.84, 0.7 * 0.88 / count, 0.12, "screw")


def _card(s: Sketch) -> None:
    """A module with a light and a terminal for each channel."""
    channels = [kind for kind, _ in s.part.units if kind in ("di", "do", "ai", "ao")]
    s.box(0, 0, 1, 1, "case", "fine")
    s.box(0, 0, 1, 0.12, "case-shade")
    columns = 1 if s.width < 20 else 2
    rows = max(1, -(-len(channels) // columns))
    pitch = 0.82 / rows
    radius = min(2.2, s.height * pitch * 0.32, s.width * 0.16)
    for n in range(len(channels)):
        column, row = divmod(n, rows)
        x = 0.5 if columns == 1 else 0.28 + column * 0.44
        y = 0.15 + (row + 0.5) * pitch
        s.round(x, y, radius, "screw")
        tall = min(1.0, 2 * radius)
        s.prims.append(Rect(x * s.width - radius * 2.1, y * s.height - tall / 2, radius * 0.7, tall, PEN, "green"))


def _rack(s: Sketch) -> None:
    """A rail of plugs behind its cards."""
    s.box(0, 0, 1, 1, "case-shade", "fine")
    said = number_in(s.part.ratings.get("slots", "")) or 0.0
    slots = int(said) if 1 <= said <= MOST_SLOTS else 4
    for n in range(slots):
        s.box((n + 0.2) / slots, 0.2, 0.6 / slots, 0.6, "case-dark")


def _lamp(s: Sketch) -> None:
    """A ring with a lens in its colour."""
    s.round(0.5, 0.5, s.small / 2, "case-shade", "fine")
    s.round(0.5, 0.5, s.small * 0.36, s.tone)
    s.round(0.44, 0.42, s.small * 0.07, "white")


def _button(s: Sketch) -> None:
    """A ring with a cap in its colour, a step lower than a lens."""
    s.round(0.5, 0.5, s.small / 2, "screw", "fine")
    s.round(0.5, 0.5, s.small * 0.42, "case")
    s.round(0.5, 0.5, s.small * 0.33, s.tone)


def _stop(s: Sketch) -> None:
    """A red mushroom on a yellow ground (IEC 60947-5-5)."""
    s.round(0.5, 0.5, s.small / 2, "yellow", "fine")
    s.round(0.5, 0.5, s.small * 0.36, "red", "fine")
    s.round(0.5, 0.5, s.small * 0.22, None)


def _selector(s: Sketch) -> None:
    """A ring with a handle."""
    s.round(0.5, 0.5, s.small / 2, "screw", "fine")
    s.round(0.5, 0.5, s.small * 0.36, "case-dark")
    wide, tall = s.small * 0.14, s.small * 0.64
    s.prims.append(Rect(s.width / 2 - wide / 2, s.height / 2 - tall / 2, wide, tall, PEN, "white"))


def _fan(s: Sketch) -> None:
    """A grille over the wheel of a fan."""
    s.box(0, 0, 1, 1, "case", "fine")
    s.round(0.5, 0.5, s.small * 0.4, "case-shade")
    s.round(0.5, 0.5, s.small * 0.12, "case-dark")
    for n in range(1, 8):
        s.line(0.06, n / 8, 0.94, n / 8)


def _filter(s: Sketch) -> None:
    """A grille of upright bars."""
    s.box(0, 0, 1, 1, "case", "fine")
    s.box(0.08, 0.08, 0.84, 0.84, "case-shade")
    for n in range(1, 10):
        s.line(n / 10, 0.08, n / 10, 0.92)


def _heater(s: Sketch) -> None:
    """Fins."""
    s.box(0, 0, 1, 1, "case-shade", "fine")
    for n in range(1, 8):
        s.box(n / 8 - 0.03, 0.12, 0.06, 0.76, "case-dark")


def _meter(s: Sketch) -> None:
    """A display in a frame."""
    s.box(0, 0, 1, 1, "case-dark", "fine")
    s.box(0.12, 0.2, 0.76, 0.4, "glass")
    for n in range(3):
        s.round(0.25 + n * 0.25, 0.8, s.small * 0.06, "screw")


def _current_transformer(s: Sketch) -> None:
    """A window through which wires are led."""
    s.box(0, 0, 1, 1, "fuse", "fine")
    s.round(0.5, 0.54, s.small * 0.3, "plate", "fine")
    s.round(0.2, 0.1, min(2.6, s.small * 0.06), "screw")
    s.round(0.8, 0.1, min(2.6, s.small * 0.06), "screw")


def _earth(s: Sketch) -> None:
    """A bar with screws."""
    s.box(0, 0, 1, 1, "earth", "fine")
    s.box(0, 0.3, 1, 0.4, "fuse")
    count = max(2, min(40, int(s.width / 8)))
    for n in range(count):
        s.round((n + 0.5) / count, 0.5, min(2.4, s.height * 0.14, s.width * 0.4 / count), "screw")


def _fuse(s: Sketch) -> None:
    """A holder with a cap for each pole."""
    poles = max(1, s.part.count("pole"))
    s.box(0, 0, 1, 1, "case", "fine")
    s.screws(poles, poles)
    for n in range(poles):
        s.box((n + 0.22) / poles, 0.22, 0.56 / poles, 0.56, "case-shade")
        s.box((n + 0.34) / poles, 0.42, 0.32 / poles, 0.22, "case-dark")


def _plain(s: Sketch) -> None:
    """A case with its terminals."""
    s.box(0, 0, 1, 1, "case", "fine")
    s.own_screws()


FACES: dict[str, Draw] = {
    **dict.fromkeys(("breaker", "residual-current", "disconnector", "surge-protector"), _breaker),
    "motor-breaker": _motor_breaker,
    "contactor": _contactor,
    "overload": _overload,
    "relay": _relay,
    "timer": _timer,
    **dict.fromkeys(("safety-relay", "converter"), _module),
    "power-supply": _supply,
    "transformer": _transformer,
    **dict.fromkeys(("drive", "soft-starter"), _drive),
    "plc-card": _card,
    "plc-rack": _rack,
    "lamp": _lamp,
    "push-button": _button,
    "emergency-stop": _stop,
    "selector": _selector,
    "fan": _fan,
    "vent-filter": _filter,
    "heater": _heater,
    "meter": _meter,
    "current-transformer": _current_transformer,
    "earth": _earth,
    "fuse": _fuse,
}
ROUND = ("lamp", "push-button", "emergency-stop", "selector")


@lru_cache(maxsize=512)
def _drawn(key: str, part: _Like, width: float, height: float) -> tuple[Prim, ...]:
    sketch = Sketch(part.part, width, height)
    FACES.get(key, _plain)(sketch)
    return tuple(sketch.prims)


class _Like:
    """A part as a key: parts that look alike are one."""

    def __init__(self, part: Part) -> None:
        self.part = part
        self._key = (part.part_class, part.units, tuple(sorted(part.ratings.items())))

    def __hash__(self) -> int:
        return hash(self._key)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Like) and self._key == other._key


def face_prims(part: Part, x: float, y: float, size: tuple[float, float], *, turned: bool = False) -> list[Prim]:
    """Return what a device with a part looks like from the front.

    Args:
        x, y: upper left corner of its outline as it is placed, mm.
        size: width and height before it is turned, mm.
        turned: it sits on an upright rail, turned clockwise.
    """
    width, height = size
    drawn = _drawn(base_of(part.part_class), _Like(part), width, height)
    if not turned:
        return [prim.moved(x, y) for prim in drawn]
    return [_turned(prim, height).moved(x, y) for prim in drawn]


def _turned(prim: Prim, height: float) -> Prim:
    """Return a primitive of a face turned clockwise about its place; words stay upright."""
    match prim:
        case Rect():
            return Rect(height - prim.y - prim.height, prim.x, prim.height, prim.width, prim.pen, prim.tone)
        case Circle():
            return Circle(height - prim.cy, prim.cx, prim.radius, prim.pen, prim.tone)
        case Line():
            return Line(height - prim.y1, prim.x1, height - prim.y2, prim.x2, prim.pen)
        case Text():
            return text(height - prim.y, prim.x, prim.size, prim.words, anchor=prim.anchor, role=prim.role)
        case _:
            return prim  # no other kind is in a face
