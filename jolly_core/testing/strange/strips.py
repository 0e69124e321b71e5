"""Acts at random on terminal strips: order, numbers, bridges, accessories, what is planned, made and handed over."""

from __future__ import annotations

from jolly_core.terminals import place_key

from .. import Workbench
from .registry import a_strip, act, one


@act("strips", "terminals")
def _terminals(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    column = 24 + 6 * (i % 5)
    b.do("place-terminals", sheet_id=b.sheet, x1=column, y1=18, x2=column, y2=20 + 6 * (j % 4), new_strip=k > 6)


@act("strips", "order")
def _order(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    strip = a_strip(b, i)
    b.do("move-strip-items", strip_id=strip, keys=[f"u{1 + j % 6}"], to=k)


@act("strips", "number")
def _number(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    strip = a_strip(b, i)
    b.do("number-terminal", strip_id=strip, unit=1 + j % 5, number=f"{k}" if k else "")


@act("strips", "bridge")
def _bridge(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    strip = a_strip(b, i)
    b.do("bridge-terminals", strip_id=strip, units=[1 + j % 4, 2 + j % 4] if k else [1, 4])


@act("strips", "unbridge")
def _unbridge(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("remove-bridge", bridge_id=one(p.bridges, j))


@act("strips", "accessory")
def _accessory(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    strip = a_strip(b, i)
    part = "quillon-ql-eb" if k % 2 else ""
    b.do("add-strip-accessory", strip_id=strip, accessory="end-bracket", position=k, part_id=part)


@act("strips", "unaccessory")
def _unaccessory(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    item = p.get("strip_item", one(p.strip_items, j))
    b.do("remove-strip-items", strip_id=item.strip_id, keys=[place_key(item)])


@act("strips", "plan", "spare")
def _plan(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    kinds = ("feed-through", "earth", "fuse", "disconnect")
    b.do(
        "plan-terminals",
        strip_id=a_strip(b, i),
        count=1 + j % 3,
        at=f"u{k}" if k else "",
        side="before" if x % 2 else "after",
        terminal_kind=kinds[y % 4],
        levels=1 + j % 2,
        spare=x % 3 == 0,
        bridged=k % 4 == 0,
    )


@act("strips", "make-strip")
def _make_strip(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    ends = {"accessories": ["end-bracket"], "terminal_kind": "earth"}
    b.do("make-strip", count=2 + j % 5, start=i, step=1 + k % 2, backward=j % 2 == 0, levels=1 + k % 3, last=ends)


@act("strips", "set-terminals")
def _set_terminals(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    said = ({"terminal_kind": "fuse"}, {"joint": "part"}, {"facing": "first"}, {"remark": "see note"}, {"spare": True})
    b.do("set-terminals", strip_id=a_strip(b, i), units=[1 + k % 5, 2 + k % 5], **said[j % 5])


@act("strips", "sort", "renumber")
def _sort(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    strip = a_strip(b, i)
    if j % 2:
        b.do("sort-strip", strip_id=strip, by=("number", "wire", "cable", "sheet", "place")[k % 5])
    else:
        units = [1 + k % 4, 3] if y % 2 else []
        b.do("number-terminals", strip_id=strip, units=units, start=k, step=1 + x % 2, keep_fixed=y % 3 == 0)


@act("strips", "hand-over", "merge")
def _hand_over(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    strip, other = a_strip(b, i), a_strip(b, j)
    if k == 9:
        b.do("remove-strip", strip_id=strip)
    elif k % 3 == 0:
        b.do("merge-strips", strip_id=strip, into_id=other)
    else:
        b.do("move-terminals", strip_id=strip, units=[1 + x % 4], to_strip_id=other if k % 2 else "")


@act("strips", "proposals")
def _proposals(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("take-proposals", strip_id=a_strip(b, i), spare_percent=5 * k)


@act("strips", "draw-planned")
def _draw_planned(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    column = 24 + 6 * (i % 5)
    ends = {"x1": column, "y1": 18, "x2": column, "y2": 20 + 6 * (j % 4)}
    b.do("place-terminals", sheet_id=b.sheet, device_id=a_strip(b, k), units=[1 + x % 9, 2 + x % 9, 3 + x % 9], **ends)
