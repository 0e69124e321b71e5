"""Acts at random on harnesses: nodes, segments, paths, clips, coverings, wires of a table."""

from __future__ import annotations

from jolly_core.tagging import full_tag

from .. import Workbench
from .registry import a_harness, act, one


@act("harness", "node")
def _node(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    connectors = {s.device_id for s in p.symbols.values() if s.definition == "connector"}
    b.do(
        "add-node",
        harness_id=a_harness(b, k),
        device_id=one(connectors, i) if k else "",
        from_id=one(p.nodes, j) if p.nodes else "",
        length_mm=100 + k * 50,
    )


@act("harness", "split")
def _split(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("split-segment", segment_id=one(p.segments, i), at_mm=50 + k * 20)


@act("harness", "segment")
def _segment(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("set-segment", segment_id=one(p.segments, i), length_mm=100 + 10 * (j % 40))


@act("harness", "unnode")
def _unnode(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("remove-node", node_id=one(p.nodes, i))


@act("harness", "path")
def _path(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    form = ("line", "polyline", "curve", "typed")[k % 4]
    path = [x, y, j, y, x, i] if form in ("polyline", "curve") else []
    b.do("set-segment", segment_id=one(p.segments, i), form=form, path=path, extra_mm=j % 30 - 5)


@act("harness", "clip")
def _clip(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("split-segment", segment_id=one(p.segments, i), at_mm=10 + k * 20, sort="clip", name=f"C{j}")


@act("harness", "spot")
def _spot(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("change-node", node_id=one(p.nodes, i), at=[x, y, j] if k else [], trunk_end=bool(j % 2))


@act("harness", "cover")
def _cover(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("cover-segment", ids=[one(p.segments, i)], part_id="tamwick-tw-sv6", from_mm=k * 10, to_mm=k * 10 + j % 90)


@act("harness", "uncover")
def _uncover(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    b.do("uncover", covering_id=one(p.coverings, i))


@act("harness", "wires")
def _wires(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    tags = [full_tag(p, p.devices[n.device_id]) for n in p.nodes.values() if n.device_id in p.devices]
    rows = [{"colour": "BU", "size": "0.5", "start": f"{one(tags, i)}:{k}", "end": f"{one(tags, j)}:{k + 1}"}]
    b.do("draw-harness-wires", harness_id=a_harness(b, k), rows=rows)


@act("harness", "connector")
def _connector(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    part = ("tamwick-tw-h6s", "tamwick-tw-h2p", "tamwick-tw-sp15")[k % 3]
    b.do(
        "add-connector",
        harness_id=a_harness(b, k),
        part_id=part,
        from_id=one(b.project.nodes, i),
        length_mm=50 + j % 400,
    )


@act("harness", "space")
def _space(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    p = b.project
    tags = [full_tag(p, p.devices[n.device_id]) for n in p.nodes.values() if n.device_id in p.devices]
    nodes = [{"name": one(tags, i), "at": [x, y, j]}, {"name": f"C{k}", "sort": "clip", "at": [y, x, i]}]
    paths = [{"start": one(tags, i), "end": one(tags, j), "form": "typed", "length_mm": 100 + k}]
    b.do("take-in-space", harness_id=a_harness(b, k), nodes=nodes, paths=paths)


@act("harness", "share")
def _share(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    b.do("change-harness", harness_id=a_harness(b, k), extra_percent=k - 3)


@act("harness", "built")
def _built(b: Workbench, i: int, j: int, k: int, x: int, y: int) -> None:
    """A harness of two to four connectors with wires of a table between them, chains and stars among these."""
    harness = b.new("add-harness", code=f"WB-{i % 50}")
    nodes: list[str] = []
    for n in range(2 + k % 3):
        values = {"from_id": nodes[j % len(nodes)], "length_mm": 100 + 10 * (x % 90)} if nodes else {}
        part = ("tamwick-tw-h6s", "tamwick-tw-h6p")[(j + n) % 2]
        before = set(b.project.nodes)
        b.do("add-connector", harness_id=harness, part_id=part, **values)
        nodes += sorted(set(b.project.nodes) - before)
    tags = [full_tag(b.project, b.project.devices[b.project.nodes[n].device_id]) for n in nodes]
    rows = []
    for n in range(2 + j % 6):
        one_end, other = tags[(i + n) % len(tags)], tags[(i + n + 1 + n // 3) % len(tags)]
        colour, size = ("BU", "RD", "BK")[n % 3], ("0.5", "0.75")[k % 2]
        rows.append({"colour": colour, "size": size, "start": f"{one_end}:{1 + n % 6}", "end": f"{other}:{1 + j % 6}"})
        b.do("draw-harness-wires", harness_id=harness, rows=rows[-1:])
