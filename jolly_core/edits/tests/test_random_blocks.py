"""Any random sequence of edits to harnesses as blocks: boxes, strokes, mates, cells of the table, variants, splices."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from jolly_core.harness import wires_of

from .test_random_building import Act, Base, few, mm, one, pick, run_sequence
from .test_random_harness import HARNESS

PARTS = ("tamwick-tw-h6s", "tamwick-tw-h6p", "tamwick-tw-h2p", "tamwick-tw-h2s")


def _connectors(b: Base) -> list[str]:
    """Return the devices that may be connectors: those that sit somewhere, and those of nodes."""
    p = b.project
    return [s.device_id for s in p.seats.values()] + [n.device_id for n in p.nodes.values() if n.device_id]


def _boxed(b: Base, i: int) -> str:
    found: str = one([block.device_id for block in b.project.blocks.values()], i)
    return found


def _box(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("add-block", part_class=("circuit-board", "fan", "motor")[k % 3], x=x if j % 2 else 0, y=y if j % 2 else 0)


def _fit(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("fit-connector", owner_id=_boxed(b, i), part_id=PARTS[k % 4])


def _refit(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    owner = _boxed(b, i) if k % 3 else ""
    b.do("fit-connector", owner_id=owner, device_id=one(_connectors(b), j))


def _move(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("move-block", device_id=_boxed(b, i), x=x, y=y)


def _unbox(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("remove-block", device_id=_boxed(b, i))


def _join(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("join-connectors", one_id=one(_connectors(b), i), other_id=one(_connectors(b), j), length_mm=50 + k * 30)


def _mate(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    mate = one(_connectors(b), j) if k % 4 else ""
    b.do("mate-connectors", device_id=one(_connectors(b), i), mate_id=mate, anyway=bool(k % 2))


def _swap(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("swap-connector", device_id=one(_connectors(b), i), part_id=PARTS[j % 4], both=bool(k % 2), anyway=k > 3)


def _cell(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    key = one([w.conductor.key for w in wires_of(b.project, b.harness)], i)
    name, value = (("colour", "RD"), ("size", "0.75"), ("twisted", "P1"), ("shield", "S1"), ("signal", f"N{j}"))[k % 5]
    b.do("write-harness-wires", harness_id=b.harness, cells=[{"id": key, "key": name, "value": value}])


def _unwire(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    key = one([w.conductor.key for w in wires_of(b.project, b.harness)], i)
    b.do("remove-harness-wires", harness_id=b.harness, wires=[key])


def _splice(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("splice-cavity", device_id=one(_connectors(b), i), cavity=str(k), equal_legs=bool(j % 2))


def _variant(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("add-variant", harness_id=b.harness, name=f"V{k}", quantity=j)


def _unvariant(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("remove-variant", variant_id=one(b.project.harness_variants, i))


def _among(b: Base, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    target: dict[str, Any] = {"node_id": one(p.nodes, j)} if k % 2 else {"segment_id": one(p.segments, j)}
    b.do("set-variants", harness_id=b.harness, variants=[one(p.harness_variants, i)], **target)


BLOCKS: dict[str, Act] = {
    **{name: HARNESS[name] for name in ("wires", "connector", "node", "split", "unnode", "delete")},
    "box": _box,
    "fit": _fit,
    "refit": _refit,
    "move": _move,
    "unbox": _unbox,
    "join": _join,
    "mate": _mate,
    "swap": _swap,
    "cell": _cell,
    "unwire": _unwire,
    "splice": _splice,
    "variant": _variant,
    "unvariant": _unvariant,
    "among": _among,
}
acts = st.tuples(st.sampled_from(sorted(BLOCKS)), pick, pick, few, mm, mm)


class RandomBlocks(TestCase):
    @settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts, min_size=3, max_size=24))
    def test_any_sequence(self, sequence: list[tuple[Any, ...]]) -> None:
        run_sequence(self, sequence, BLOCKS)
