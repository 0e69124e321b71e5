"""Acts at random on what is drawn: symbols anywhere, wires, marks, blocks on buses, cables, strips, relays, cards."""

from __future__ import annotations

import random
from collections.abc import Callable
from contextlib import suppress

from jolly_core.library import definitions

from .. import Workbench
from .registry import ACTS, Attempt

NAMES = ("24 V", "0 V", "L1", "Förderanlage Süd, Trommeltrockner", "N", "A", "24 V door")
PARTS = ("hollin-hr-k22", "hollin-hr-k4", "brindlework-bw-c09-24d-11", "quillon-ql-k2-5", "tamwick-tw-p4")
TERMINALS = ("terminal", "terminal-fuse", "terminal-disconnect")
CHANGEOVERS = ("hollin-hr-k2", "hollin-hr-k4")
CABLES = ("quillon-ql-yy2x1", "quillon-ql-c4g2-5", "quillon-ql-s10-0-75", "")
CARDS = ("hollin-hr-di8", "hollin-hr-do8", "hollin-hr-ai4")
BLOCKS = ("hollin-hr-sr2", "hollin-hr-di8", "orrery-drives-od-v4")
_OnSheet = Callable[[Workbench, random.Random, str], None]


def _at(chance: random.Random) -> tuple[int, int]:
    return 10 + 2 * chance.randrange(40), 16 + 2 * chance.randrange(30)


def _symbol(b: Workbench, chance: random.Random, sheet: str) -> None:
    x, y = _at(chance)
    shape = definitions()[chance.choice(sorted(definitions()))]
    poles = chance.randint(1, max(1, min(3, shape.max_poles)))
    turn = (
        {"rotation": chance.choice((0, 90, 180, 270)), "mirror": chance.random() < 0.3} if chance.random() < 0.5 else {}
    )
    b.do("place-symbol", sheet_id=sheet, definition=shape.key, x=x, y=y, poles=poles, **turn)


def _wire(b: Workbench, chance: random.Random, sheet: str) -> None:
    x, y = _at(chance)
    across = chance.random() < 0.6
    length = 2 * chance.randint(3, 30)
    end = (x + length, y) if across else (x, y + length)
    type_id = chance.choice(sorted(t.id for t in b.project.wire_types.values()))
    b.do("draw-wire", sheet_id=sheet, points=[[x, y], list(end)], wire_type_id=type_id)


def _further_unit(b: Workbench, chance: random.Random, sheet: str) -> None:
    x, y = _at(chance)
    key = chance.choice(("contact-no", "contact-nc", "contactor-pole", "contact-co", *TERMINALS))
    b.do("place-symbol", sheet_id=sheet, definition=key, x=x, y=y, device_id=chance.choice(sorted(b.project.devices)))


def _mark(b: Workbench, chance: random.Random, sheet: str) -> None:
    wires = sorted(w.id for w in b.project.wires_on(sheet))
    if wires:
        w = b.project.wires[chance.choice(wires)]
        x, y = chance.choice(((w.x1, w.y1), (w.x2, w.y2)))
        b.do("place-continuation", sheet_id=sheet, x=x, y=y, name=chance.choice(NAMES))


def _block(b: Workbench, chance: random.Random, sheet: str) -> None:
    x, y = _at(chance)
    wires = sorted(w.id for w in b.project.wires_on(sheet))
    if wires and chance.random() < 0.7:  # on a bus
        w = b.project.wires[chance.choice(wires)]
        x, y = (w.x1 + w.x2) // 2 - 4, w.y1 - 2
    b.do("place-block", sheet_id=sheet, x=x, y=y, part_id=chance.choice(BLOCKS), device_id="", pins=[], text="")


def _cable(b: Workbench, chance: random.Random, sheet: str) -> None:
    wires = sorted(w.id for w in b.project.wires_on(sheet))
    w = b.project.wires[chance.choice(wires)]
    x, y, reach = (w.x1 + w.x2) // 2, (w.y1 + w.y2) // 2, chance.randint(1, 12)
    line = (
        {"x1": x - 1, "y1": y, "x2": x + reach, "y2": y}
        if w.x1 == w.x2
        else {"x1": x, "y1": y - 1, "x2": x, "y2": y + reach}
    )
    known = sorted(c.device_id for c in b.project.cables.values())
    whose = (
        {"device_id": chance.choice(known)} if known and chance.random() < 0.4 else {"part_id": chance.choice(CABLES)}
    )
    b.do("draw-band", sheet_id=sheet, **line, **whose)


def _terminals(b: Workbench, chance: random.Random, sheet: str) -> None:
    x, y = _at(chance)
    b.do("place-terminals", sheet_id=sheet, x1=x, y1=y, x2=x, y2=y + 2 * chance.randint(4, 30))


def _bridge(b: Workbench, chance: random.Random, sheet: str) -> None:
    ends = [s for s in b.project.symbols.values() if "terminal" in s.definition and s.device_id]
    strip = chance.choice(sorted({s.device_id for s in ends}))
    units = sorted(s.units[0] for s in ends if s.device_id == strip)
    first = chance.randrange(max(1, len(units) - 1))
    b.do("bridge-terminals", strip_id=strip, units=units[first : first + chance.randint(2, 4)])


def _strip(b: Workbench, chance: random.Random, sheet: str) -> None:
    ends = [s for s in b.project.symbols.values() if "terminal" in s.definition and s.device_id]
    symbol = chance.choice(sorted(ends, key=lambda s: s.id))
    strip = symbol.device_id
    act = chance.randrange(3)
    if act == 0:
        b.do("plan-terminals", strip_id=strip, count=chance.randint(1, 4))
    elif act == 1:
        b.do("number-terminal", strip_id=strip, unit=symbol.units[0], number=chance.choice(("7", "2", "PE", "3")))
    else:
        values = {"start": chance.choice((1, 5, 101)), "step": chance.choice((1, 2)), "backward": chance.random() < 0.5}
        b.do("number-terminals", strip_id=strip, way=chance.choice(("order", "level")), **values)


def _relay(b: Workbench, chance: random.Random, sheet: str) -> None:
    x, y = _at(chance)
    coil = b.place("coil", x, y, sheet_id=sheet, part_id=chance.choice(CHANGEOVERS))
    for n, key in enumerate(chance.sample(("contact-no", "contact-nc", "contact-co", "contact-no"), 3)):
        b.place(key, x + 10, y + 8 * n, sheet_id=sheet, device_id=b.device(coil))


def _card(b: Workbench, chance: random.Random, sheet: str) -> None:
    scheme, start = chance.choice(
        (("byte.bit", "1.2"), ("word", "256"), ("whole", "100"), ("octal", "17"), ("slot", "3"))
    )
    device = b.new("add-card", part_id=chance.choice(CARDS), location_id="")
    b.do("address-card", device_id=device, scheme=scheme, start=start)


def _part(b: Workbench, chance: random.Random, sheet: str) -> None:
    b.do("assign-part", device_id=chance.choice(sorted(b.project.devices)), part_id=chance.choice(PARTS))


def _gone(b: Workbench, chance: random.Random, sheet: str) -> None:
    things = sorted({*(s.id for s in b.project.symbols_on(sheet)), *(w.id for w in b.project.wires_on(sheet))})
    if things:
        b.do("delete-selection", ids=chance.sample(things, min(len(things), chance.randint(1, 3))))


def _moved(b: Workbench, chance: random.Random, sheet: str) -> None:
    things = sorted(s.id for s in b.project.symbols_on(sheet))
    if things:
        ids = chance.sample(things, min(len(things), chance.randint(1, 4)))
        b.do("move-selection", ids=ids, dx=2 * chance.randint(-6, 6), dy=2 * chance.randint(-6, 6))


def _doubled(b: Workbench, chance: random.Random, sheet: str) -> None:
    things = sorted({*(s.id for s in b.project.symbols_on(sheet)), *(w.id for w in b.project.wires_on(sheet))})
    if things:
        ids = chance.sample(things, min(len(things), chance.randint(1, 12)))
        b.do("duplicate-selection", ids=ids, dx=2 * chance.randint(-10, 10), dy=2 * chance.randint(4, 16))


def _number(b: Workbench, chance: random.Random, sheet: str) -> None:
    wires = sorted(b.project.wires)
    b.do("fix-wire-number", wire_id=chance.choice(wires), number=chance.choice(("", "W1", "W2", "900")))


def _registered(function: _OnSheet) -> Attempt:
    def perform(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
        chance = random.Random(f"{i} {j} {k} {x} {y}")
        with suppress(IndexError):  # nothing there to choose from
            function(b, chance, chance.choice(sorted(b.project.sheets)))

    return perform


_DRAWN: dict[str, _OnSheet] = {
    **{"symbol": _symbol, "wire": _wire, "unit": _further_unit, "mark": _mark, "block": _block},
    **{"terminals": _terminals, "bridge": _bridge, "cable": _cable, "strip": _strip, "relay": _relay, "card": _card},
    **{"part": _part, "gone": _gone, "moved": _moved, "doubled": _doubled, "number": _number},
}
ACTS["drawing"] = {name: _registered(function) for name, function in _DRAWN.items()}
