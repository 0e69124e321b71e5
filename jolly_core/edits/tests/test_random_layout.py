"""Any random sequence of edits to a layout: lanes, crossings, ways, order, stamps, proposals; all taken back."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from jolly_core.cabinet import enclosures, layout_faults, panel_conductors, routes, surfaces_of
from jolly_core.model import CoreError
from jolly_core.scenes import surface_leaves, surface_scene

from .test_random_building import ACTS, Act, Base, few, mm, one, pick, run_sequence

ROOM, RELAY, RING, LAMP = "brindlework-bw-e81230g", "hollin-hr-k22", "tamwick-tw-ct60-5", "tamwick-tw-l22-r"
HOWS = ("left", "bottom", "row", "column", "spread-across", "spread-down", "close-up", "swap", "mirror")
SIDES = ("plate", "door", "left", "gland")
GROUPS = ("power", "control-dc", "signal")


def _things(b: Base) -> list[str]:
    p = b.project
    return [*p.placings, *p.rails, *p.ducts, *p.lanes]


def _enclosure(b: Base, i: int) -> str:
    return str(one(b.project.enclosures, i))


def _plan(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    part = (RELAY, RING, LAMP)[k % 3]
    values = {"enclosure_id": _enclosure(b, i), "surface": SIDES[j % 4], "x": x, "y": y}
    b.do("plan-device", part_id=part, count=1 + k % 3, **values)


def _lane(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    points = [[x, y], [x, j % 600], [i % 600, j % 600]]
    b.do("draw-lane", enclosure_id=_enclosure(b, i), surface=SIDES[k % 4], points=points, categories=[])


def _lane_use(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do(
        "set-lane-use", ids=[one([*b.project.ducts, *b.project.lanes], i)], categories=[GROUPS[k % 3]] if j % 2 else []
    )


def _crossing(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    other = {"other_id": _enclosure(b, j), "other_surface": SIDES[j % 4], "other_x": y, "other_y": x}
    b.do("draw-crossing", enclosure_id=_enclosure(b, i), surface=SIDES[k % 4], x=x, y=y, extra_mm=k * 10, **other)


def _lead(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    rings = [f"{d.id}/1" for d in p.devices.values() if d.letters == "BC"]
    key = one([c.key for c in panel_conductors(p)], i)
    through = [one([*rings, *p.ducts, *p.lanes], j)]
    b.do("lead-through", conductors=[key], through=through, how=("add", "add", "take", "set")[k % 4])


def _arrange(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    ids = list(dict.fromkeys(one(b.project.placings, n) for n in (i, j, i + j)[: 2 + k % 2]))
    b.do("arrange-in-layout", ids=ids, how=HOWS[k % len(HOWS)])


def _typed(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    where = {"from_left": x} if k % 2 else {"from_left": x, "from_below": y}
    b.do("set-position", id=one(_things(b), i), **where)


def _field(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("add-enclosure", part_id=ROOM if k % 2 else "brindlework-bw-e6825", location_id=one(b.places, j))


def _enclosed(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    left = _enclosure(b, j) if k > 4 else ""
    b.do("change-enclosure", enclosure_id=_enclosure(b, i), hinge=("left", "right")[k % 2], left_id=left, opening_mm=y)


def _copy(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("copy-layout", from_id=_enclosure(b, i), to_id=_enclosure(b, j), mirrored=bool(k % 2))


def _keep(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("keep-layout", ids=[one(_things(b), n) for n in (i, j)[: 1 + k % 2]], name=f"Stamp {k}")


def _stamp(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    where = {"enclosure_id": _enclosure(b, i), "surface": SIDES[k % 4], "x": x, "y": y}
    b.do("put-layout", stamp_id=one(b.project.stamps, j), plan=bool(k % 3), **where)


def _proposed(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("lay-out", enclosure_id=_enclosure(b, i))


LAYING: dict[str, Act] = {
    **{name: ACTS[name] for name in ("rail", "duct", "put", "shift", "out", "delete", "place")},
    "plan": _plan,
    "lane": _lane,
    "lane-use": _lane_use,
    "crossing": _crossing,
    "lead": _lead,
    "arrange": _arrange,
    "typed": _typed,
    "field": _field,
    "enclosed": _enclosed,
    "copy": _copy,
    "keep": _keep,
    "stamp": _stamp,
    "proposed": _proposed,
}
acts = st.tuples(st.sampled_from(sorted(LAYING)), pick, pick, few, mm, mm)


class RandomLayout(TestCase):
    @settings(max_examples=45, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts, min_size=3, max_size=24))
    def test_any_sequence(self, sequence: list[tuple[Any, ...]]) -> None:
        run_sequence(self, sequence, LAYING)

    @settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts, min_size=6, max_size=18))
    def test_any_layout_has_pictures_papers_and_ways(self, sequence: list[tuple[Any, ...]]) -> None:
        bench = Base()
        for name, *numbers in sequence:
            try:
                LAYING[name](bench, *numbers)
            except (CoreError, ValidationError):
                continue
        project = bench.project
        for enclosure in enclosures(project):
            layout_faults(project, enclosure)
            for surface in surfaces_of(project, enclosure):
                self.assertTrue(surface_scene(project, enclosure.id, surface).items)
                self.assertTrue(surface_leaves(project, enclosure.id, surface)[0].items)
        for route in routes(project).values():
            self.assertEqual(route.length_mm is None, bool(route.missing))
