"""Acts at random in enclosures: rails, ducts, lanes, crossings, ways, order, stamps, proposals."""

from __future__ import annotations

from jolly_core.cabinet import panel_conductors

from .. import Workbench
from .registry import act, one

ROOM, RELAY, RING, LAMP = "brindlework-bw-e81230g", "hollin-hr-k22", "tamwick-tw-ct60-5", "tamwick-tw-l22-r"
HOWS = ("left", "bottom", "row", "column", "spread-across", "spread-down", "close-up", "swap", "mirror")
SIDES = ("plate", "door", "left", "gland")
GROUPS = ("power", "control-dc", "signal")


def _things(b: Workbench) -> list[str]:
    p = b.project
    return [*p.placings, *p.rails, *p.ducts, *p.lanes]


def _enclosure(b: Workbench, i: int) -> str:
    return str(one(b.project.enclosures, i))


@act("cabinet", "rail")
def _rail(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    part = "brindlework-bw-r35"
    ends = {"x1": 40, "y1": y, "x2": x, "y2": y} if k % 2 else {"x1": x, "y1": 40, "x2": x, "y2": y}
    b.do("draw-run", what="rail", enclosure_id=one(b.project.enclosures, j), part_id=part, **ends)


@act("cabinet", "duct")
def _duct(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    part = "brindlework-bw-d4060"
    ends = {"x1": 40, "y1": y, "x2": x, "y2": y} if k % 2 else {"x1": x, "y1": 40, "x2": x, "y2": y}
    b.do("draw-run", what="duct", enclosure_id=one(b.project.enclosures, j), part_id=part, **ends)


@act("cabinet", "put")
def _put(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    rail = p.rails.get(one(p.rails, j))
    at = (rail.x1, rail.y1) if rail else (x, y)
    surface = "door" if k % 3 == 0 else "plate"
    b.do(
        "place-devices",
        enclosure_id=one(b.project.enclosures, j),
        surface=surface,
        device_ids=[one(p.devices, i), one(p.devices, j)][: 1 + k % 2],
        x=at[0],
        y=at[1],
        gap_mm=k,
    )


@act("cabinet", "shift")
def _shift(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    layout = [*p.placings, *p.rails, *p.ducts]
    b.do("move-in-layout", ids=[one(layout, i)], dx=x - 400, dy=k * 20 - 90)


@act("cabinet", "out")
def _out(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    layout = [*p.placings, *p.rails, *p.ducts]
    b.do("remove-from-layout", ids=[one(layout, i)])


@act("cabinet", "plan")
def _plan(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    part = (RELAY, RING, LAMP)[k % 3]
    values = {"enclosure_id": _enclosure(b, i), "surface": SIDES[j % 4], "x": x, "y": y}
    b.do("plan-device", part_id=part, count=1 + k % 3, **values)


@act("cabinet", "lane")
def _lane(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    points = [[x, y], [x, j % 600], [i % 600, j % 600]]
    b.do("draw-lane", enclosure_id=_enclosure(b, i), surface=SIDES[k % 4], points=points, categories=[])


@act("cabinet", "lane-use")
def _lane_use(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do(
        "set-lane-use", ids=[one([*b.project.ducts, *b.project.lanes], i)], categories=[GROUPS[k % 3]] if j % 2 else []
    )


@act("cabinet", "crossing")
def _crossing(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    other = {"other_id": _enclosure(b, j), "other_surface": SIDES[j % 4], "other_x": y, "other_y": x}
    b.do("draw-crossing", enclosure_id=_enclosure(b, i), surface=SIDES[k % 4], x=x, y=y, extra_mm=k * 10, **other)


@act("cabinet", "lead")
def _lead(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    rings = [f"{d.id}/1" for d in p.devices.values() if d.letters == "BC"]
    key = one([c.key for c in panel_conductors(p)], i)
    through = [one([*rings, *p.ducts, *p.lanes], j)]
    b.do("lead-through", conductors=[key], through=through, how=("add", "add", "take", "set")[k % 4])


@act("cabinet", "arrange")
def _arrange(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    ids = list(dict.fromkeys(one(b.project.placings, n) for n in (i, j, i + j)[: 2 + k % 2]))
    b.do("arrange-in-layout", ids=ids, how=HOWS[k % len(HOWS)])


@act("cabinet", "typed")
def _typed(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    where = {"from_left": x} if k % 2 else {"from_left": x, "from_below": y}
    b.do("set-position", id=one(_things(b), i), **where)


@act("cabinet", "field")
def _field(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("add-enclosure", part_id=ROOM if k % 2 else "brindlework-bw-e6825", location_id=one(b.project.locations, j))


@act("cabinet", "enclosed")
def _enclosed(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    left = _enclosure(b, j) if k > 4 else ""
    b.do("change-enclosure", enclosure_id=_enclosure(b, i), hinge=("left", "right")[k % 2], left_id=left, opening_mm=y)


@act("cabinet", "copy")
def _copy(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("copy-layout", from_id=_enclosure(b, i), to_id=_enclosure(b, j), mirrored=bool(k % 2))


@act("cabinet", "keep")
def _keep(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("keep-layout", ids=[one(_things(b), n) for n in (i, j)[: 1 + k % 2]], name=f"Stamp {k}")


@act("cabinet", "stamp")
def _stamp(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    where = {"enclosure_id": _enclosure(b, i), "surface": SIDES[k % 4], "x": x, "y": y}
    b.do("put-layout", stamp_id=one(b.project.stamps, j), plan=bool(k % 3), **where)


@act("cabinet", "proposed")
def _proposed(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("lay-out", enclosure_id=_enclosure(b, i))
