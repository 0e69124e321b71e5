"""Acts at random on harnesses as blocks: boxes, strokes, mates, cells of the table, variants, splices."""

from __future__ import annotations

from typing import Any

from jolly_core.harness import wires_of

from .. import Workbench
from .registry import a_harness, act, one

PARTS = ("tamwick-tw-h6s", "tamwick-tw-h6p", "tamwick-tw-h2p", "tamwick-tw-h2s")


def _connectors(b: Workbench) -> list[str]:
    """Return the devices that may be connectors: those that sit somewhere, and those of nodes."""
    p = b.project
    return [s.device_id for s in p.seats.values()] + [n.device_id for n in p.nodes.values() if n.device_id]


def _boxed(b: Workbench, i: int) -> str:
    found: str = one([block.device_id for block in b.project.blocks.values()], i)
    return found


@act("blocks", "box")
def _box(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("add-block", part_class=("circuit-board", "fan", "motor")[k % 3], x=x if j % 2 else 0, y=y if j % 2 else 0)


@act("blocks", "fit")
def _fit(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("fit-connector", owner_id=_boxed(b, i), part_id=PARTS[k % 4])


@act("blocks", "refit")
def _refit(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    owner = _boxed(b, i) if k % 3 else ""
    b.do("fit-connector", owner_id=owner, device_id=one(_connectors(b), j))


@act("blocks", "move")
def _move(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("move-block", device_id=_boxed(b, i), x=x, y=y)


@act("blocks", "unbox")
def _unbox(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("remove-block", device_id=_boxed(b, i))


@act("blocks", "join")
def _join(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("join-connectors", one_id=one(_connectors(b), i), other_id=one(_connectors(b), j), length_mm=50 + k * 30)


@act("blocks", "mate")
def _mate(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    mate = one(_connectors(b), j) if k % 4 else ""
    b.do("mate-connectors", device_id=one(_connectors(b), i), mate_id=mate, anyway=bool(k % 2))


@act("blocks", "swap")
def _swap(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("swap-connector", device_id=one(_connectors(b), i), part_id=PARTS[j % 4], both=bool(k % 2), anyway=k > 3)


@act("blocks", "cell")
def _cell(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    key = one([w.conductor.key for w in wires_of(b.project, a_harness(b, k))], i)
    name, value = (("colour", "RD"), ("size", "0.75"), ("twisted", "P1"), ("shield", "S1"), ("signal", f"N{j}"))[k % 5]
    b.do("write-harness-wires", harness_id=a_harness(b, k), cells=[{"id": key, "key": name, "value": value}])


@act("blocks", "unwire")
def _unwire(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    key = one([w.conductor.key for w in wires_of(b.project, a_harness(b, k))], i)
    b.do("remove-harness-wires", harness_id=a_harness(b, k), wires=[key])


@act("blocks", "splice")
def _splice(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("splice-cavity", device_id=one(_connectors(b), i), cavity=str(k), equal_legs=bool(j % 2))


@act("blocks", "variant")
def _variant(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("add-variant", harness_id=a_harness(b, k), name=f"V{k}", quantity=j)


@act("blocks", "unvariant")
def _unvariant(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("remove-variant", variant_id=one(b.project.harness_variants, i))


@act("blocks", "among")
def _among(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    target: dict[str, Any] = {"node_id": one(p.nodes, j)} if k % 2 else {"segment_id": one(p.segments, j)}
    b.do("set-variants", harness_id=a_harness(b, k), variants=[one(p.harness_variants, i)], **target)
