"""Any random sequence of edits to a harness: paths, clips, coverings, places, wires of a table; all taken back."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from jolly_core.tagging import full_tag

from .test_random_building import ACTS, Act, Base, few, mm, one, pick, run_sequence


def _path(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    form = ("line", "polyline", "curve", "typed")[k % 4]
    path = [x, y, j, y, x, i] if form in ("polyline", "curve") else []
    b.do("set-segment", segment_id=one(p.segments, i), form=form, path=path, extra_mm=j % 30 - 5)


def _clip(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("split-segment", segment_id=one(p.segments, i), at_mm=10 + k * 20, sort="clip", name=f"C{j}")


def _spot(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("change-node", node_id=one(p.nodes, i), at=[x, y, j] if k else [], trunk_end=bool(j % 2))


def _cover(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("cover-segment", ids=[one(p.segments, i)], part_id="tamwick-tw-sv6", from_mm=k * 10, to_mm=k * 10 + j % 90)


def _uncover(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("uncover", covering_id=one(p.coverings, i))


def _wires(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    tags = [full_tag(p, p.devices[n.device_id]) for n in p.nodes.values() if n.device_id in p.devices]
    rows = [{"colour": "BU", "size": "0.5", "start": f"{one(tags, i)}:{k}", "end": f"{one(tags, j)}:{k + 1}"}]
    b.do("draw-harness-wires", harness_id=b.harness, rows=rows)


def _connector(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    part = ("tamwick-tw-h6s", "tamwick-tw-h2p", "tamwick-tw-sp15")[k % 3]
    b.do("add-connector", harness_id=b.harness, part_id=part, from_id=one(b.project.nodes, i), length_mm=50 + j % 400)


def _space(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    tags = [full_tag(p, p.devices[n.device_id]) for n in p.nodes.values() if n.device_id in p.devices]
    nodes = [{"name": one(tags, i), "at": [x, y, j]}, {"name": f"C{k}", "sort": "clip", "at": [y, x, i]}]
    paths = [{"start": one(tags, i), "end": one(tags, j), "form": "typed", "length_mm": 100 + k}]
    b.do("take-in-space", harness_id=b.harness, nodes=nodes, paths=paths)


def _share(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("change-harness", harness_id=b.harness, extra_percent=k - 3)


HARNESS: dict[str, Act] = {
    **{name: ACTS[name] for name in ("node", "split", "segment", "unnode", "delete", "place")},
    "path": _path,
    "clip": _clip,
    "spot": _spot,
    "cover": _cover,
    "uncover": _uncover,
    "wires": _wires,
    "connector": _connector,
    "space": _space,
    "share": _share,
}
acts = st.tuples(st.sampled_from(sorted(HARNESS)), pick, pick, few, mm, mm)


class RandomHarness(TestCase):
    @settings(max_examples=45, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts, min_size=3, max_size=24))
    def test_any_sequence(self, sequence: list[tuple[Any, ...]]) -> None:
        run_sequence(self, sequence, HARNESS)
