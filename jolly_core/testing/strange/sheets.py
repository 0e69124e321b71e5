"""Acts at random over several sheets: drawing, copies, pieces, stamps, poles, order, numbers, marks."""

from __future__ import annotations

from jolly_core.checks import all_snags
from jolly_core.edits.pieces.pieces import piece_of, piece_to_json
from jolly_core.library import definition, drawn_key, sketch_from
from jolly_core.terminals import is_strip

from .. import Workbench
from .registry import ACTS, Attempt
from .registry import one as chosen

# Two drawn symbols: one that comes along with other graphics, one of poles that are repeated.
BEACON = drawn_key({**sketch_from(definition("lamp")), "name": "Beacon"})
SWITCH = drawn_key({**sketch_from(definition("breaker")), "name": "House breaker", "places": {"tag": [2, -2]}})
SYMBOLS = (
    "coil",
    "contact-no",
    "contact-nc",
    "breaker",
    "contactor-pole",
    "terminal",
    "terminal-fuse",
    "lamp",
    "motor",
    BEACON,
    SWITCH,
)
HOW = ("left", "right", "top", "bottom", "column", "row")


class _SheetActs:
    """What a person may do, each act with some random numbers: n picks things, the others say where and how far."""

    def __init__(self, bench: Workbench, n: int, at: tuple[int, int], by: tuple[int, int]) -> None:
        self.bench, self.p, self.n, self.at, self.by = bench, bench.project, n, at, by
        self.sheet = chosen(self.p.sheets, n)
        kinds = ("symbol", "wire", "continuation", "note", "figure")
        here = sorted(i for kind in kinds for i in self.p.on_sheet[kind].get(self.sheet))
        self.some = here[n % 3 :: 2]
        self.symbol = chosen(self.p.symbols, n)

    def draw(self) -> None:
        x, y = self.at
        self.bench.wire((x, y), (min(80, x + 20), y), type_id=chosen(self.p.wire_types, self.n), sheet_id=self.sheet)

    def place(self) -> None:
        self.bench.place(SYMBOLS[self.n % len(SYMBOLS)], *self.at, sheet_id=self.sheet)

    def follow(self) -> None:
        device = chosen(self.p.devices, self.n)
        self.bench.place(SYMBOLS[self.n % 5], *self.at, sheet_id=self.sheet, device_id=device)

    def repeat(self) -> None:
        dx, dy = self.by
        self.bench.do("repeat-selection", ids=self.some[:6], count=1 + self.n % 3, dx=dx, dy=dy)

    def paste(self) -> None:
        x, y = self.at
        raw = piece_to_json(piece_of(self.p, self.sheet, self.some[:8]))
        to = chosen(self.p.sheets, self.n + 1)
        self.bench.do("paste-piece", sheet_id=to, x=x, y=y, piece=raw, keep_fixed=self.n % 2 == 0)

    def to_sheet(self) -> None:
        dx, dy = self.by
        self.bench.do("move-to-sheet", ids=self.some[:6], sheet_id=chosen(self.p.sheets, self.n + 1), dx=dx, dy=dy)

    def copy_sheet(self) -> None:
        if len(self.p.sheets) < 4:
            self.bench.do("duplicate-sheet", sheet_id=self.sheet, number=f"{50 + len(self.p.sheets)}")

    def poles(self) -> None:
        values = {"without": 1 + self.n % 3} if self.n % 2 else {"poles": 1 + self.n % 4}
        self.bench.do("set-poles", symbol_id=self.symbol, **values)

    def split(self) -> None:
        self.bench.do("split-poles", symbol_id=self.symbol)

    def swap(self) -> None:
        self.bench.do("swap-symbol", symbol_id=self.symbol, definition=SYMBOLS[self.at[0] % len(SYMBOLS)])

    def align(self) -> None:
        self.bench.do("align-selection", ids=self.some, how=HOW[self.n % 6])

    def spread(self) -> None:
        self.bench.do("distribute-selection", ids=self.some, along="across" if self.n % 2 else "down")

    def lock(self) -> None:
        self.bench.do("set-lock", ids=self.some[:2], locked=self.n % 2 == 0)

    def text(self) -> None:
        self.bench.do("move-text", ids=[self.symbol], text="tag", dx_mm=self.by[0], dy_mm=self.by[1])

    def figure(self) -> None:
        (x, y), place = self.at, chosen(self.p.locations, self.n)
        self.bench.do("draw-figure", sheet_id=self.sheet, x1=x, y1=y, x2=x + 10, y2=y + 10, location_id=place)

    def rung(self) -> None:
        kind = "insert-rung" if self.n % 2 else "remove-rung"
        self.bench.do(kind, sheet_id=self.sheet, line=self.p.sheets[self.sheet].first_line + self.n % 8)

    def marks(self) -> None:
        (x, y), names = self.at, [f"M{self.n % 3}"]
        self.bench.do("place-continuations", sheet_id=self.sheet, x1=x, y1=y, x2=x, y2=y + 20, names=names)

    def rename(self) -> None:
        mark = chosen(self.p.continuations, self.n)
        self.bench.do("rename-continuation", mark_id=mark, name=f"R{self.at[0] % 4}", alone=self.n % 2 == 0)

    def stamp(self) -> None:
        x, y = self.at
        if not self.p.stamps:
            self.bench.do("keep-stamp", ids=self.some[:8], name="Some")
        else:
            stamp = chosen(self.p.stamps, 0)
            self.bench.do("put-stamp", sheet_id=self.sheet, stamp_id=stamp, x=x, y=y, rows=[{}, {}], dx=30, dy=0)

    def rule(self) -> None:
        pieces = [{"piece": ("sheet", "line", "column")[self.n % 3]}, {"piece": "running", "start": self.n % 5}]
        scope = "net" if self.n % 4 == 0 else "potential"
        self.bench.do("put-number-rule", name=f"R{self.n % 3}", pieces=pieces[self.n % 2 :], scope=scope)

    def fix(self) -> None:
        self.bench.do("fix-numbers", sheet_ids=[self.sheet], fixed=self.n % 2 == 0)

    def tags(self) -> None:
        self.bench.do("number-tags", sheet_ids=[self.sheet], start=1 + self.n % 5)

    def letters(self) -> None:
        self.bench.do("put-tag-rule", part_class="relay", letters="K" if self.n % 2 else "", start=self.n % 3 * 50)

    def retype(self) -> None:
        wire, to = chosen(self.p.wires, self.n), chosen(self.p.wire_types, self.at[0])
        self.bench.do("set-wire-type", ids=[wire], wire_type_id=to, whole_net=self.n % 2 == 0)

    def drop_type(self) -> None:
        if len(self.p.wire_types) > 2:
            one, other = (chosen(self.p.wire_types, n) for n in (self.n, self.n + 1))
            self.bench.do("remove-wire-type", wire_type_id=one, goes_to=other)

    def strip(self) -> None:
        strips = [d for d in self.p.devices if is_strip(self.p, self.p.devices[d])]
        self.bench.do("set-strip", strip_id=chosen(strips, self.n), numbering="wire" if self.n % 2 else "order")

    def mute(self) -> None:
        snags = all_snags(self.p)
        self.bench.do("mute-snag", key=chosen([s.key for s in snags], self.n) or "none", reason="known")

    def change_text(self) -> None:
        self.bench.do("replace-texts", find="M", replace="N", where=["continuations", "texts"])

    def delete(self) -> None:
        self.bench.do("delete-selection", ids=self.some[:3])

    def move(self) -> None:
        dx, dy = self.by
        self.bench.do("move-selection", ids=self.some[:5], dx=dx, dy=dy, allow_join=self.n % 2 == 0)


def _registered(name: str) -> Attempt:
    def perform(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
        at, by = (8 + x % 63, 8 + y % 63), (j % 25 - 12, (j // 25 + k) % 25 - 12)
        getattr(_SheetActs(b, i, at, by), name)()

    return perform


ACTS["sheets"] = {name: _registered(name) for name in sorted(vars(_SheetActs)) if not name.startswith("_")}
