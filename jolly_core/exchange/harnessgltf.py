"""A harness in space as glTF 2.0 (ISO/IEC 12113): bundles as tubes along their paths, connectors and clips as boxes.

Metres, in the axes of the coordinates of its nodes. Nodes are named by what they are; `extras` has the id and kind.
"""

from __future__ import annotations

import base64
import json
import struct
from dataclasses import dataclass, field
from itertools import pairwise
from math import cos, hypot, pi, sin
from typing import Any

from jolly_core.harness import (
    bundles,
    is_splice,
    node_name,
    nodes_of,
    run_name,
    segments_of,
    span_of,
    strands_through,
)
from jolly_core.model import Harness, Node, Project, RuleError

Vector = tuple[float, float, float]
SIDES = 12  # of a tube
LEAST_MM = 2.0  # thickness of a tube about no wire
END_MM, CLIP_MM = (20.0, 20.0, 20.0), (8.0, 8.0, 8.0)
_COLOURS = {
    "bundle": (0.05, 0.06, 0.1),
    "connector": (0.02, 0.25, 0.2),
    "clip": (0.35, 0.35, 0.38),
    "splice": (0.6, 0.3, 0.05),
}


@dataclass(slots=True)
class _Document:
    """A glTF document while it is put together."""

    data: bytearray = field(default_factory=bytearray)
    views: list[dict[str, Any]] = field(default_factory=list)
    accessors: list[dict[str, Any]] = field(default_factory=list)
    meshes: list[dict[str, Any]] = field(default_factory=list)
    nodes: list[dict[str, Any]] = field(default_factory=list)

    def put(self, points: list[Vector], triangles: list[int]) -> tuple[int, int]:
        """Add points in mm and the triangles between them; return their accessors."""
        metres = [tuple(round(v / 1000, 6) for v in p) for p in points]
        at = len(self.data)
        self.data += struct.pack(f"<{3 * len(metres)}f", *(v for p in metres for v in p))
        self.views.append({"buffer": 0, "byteOffset": at, "byteLength": len(self.data) - at, "target": 34962})
        low, high = ([f(p[axis] for p in metres) for axis in range(3)] for f in (min, max))
        first = len(self.accessors)
        self.accessors.append(
            {
                "bufferView": len(self.views) - 1,
                "componentType": 5126,
                "count": len(metres),
                "type": "VEC3",
                "min": low,
                "max": high,
            }
        )
        at = len(self.data)
        self.data += struct.pack(f"<{len(triangles)}I", *triangles)
        self.views.append({"buffer": 0, "byteOffset": at, "byteLength": len(self.data) - at, "target": 34963})
        self.accessors.append(
            {"bufferView": len(self.views) - 1, "componentType": 5125, "count": len(triangles), "type": "SCALAR"}
        )
        return first, first + 1

    def add(self, name: str, kind: str, id: str, points: list[Vector], triangles: list[int]) -> None:
        """Add a node with a mesh of its own."""
        position, indices = self.put(points, triangles)
        material = list(_COLOURS).index(kind)
        self.meshes.append(
            {"primitives": [{"attributes": {"POSITION": position}, "indices": indices, "material": material}]}
        )
        self.nodes.append({"name": name, "mesh": len(self.meshes) - 1, "extras": {"id": id, "kind": kind}})

    def written(self) -> bytes:
        """Return the document with its buffer inside."""
        materials = [
            {
                "name": name,
                "doubleSided": True,
                "pbrMetallicRoughness": {"baseColorFactor": [*rgb, 1.0], "metallicFactor": 0.0},
            }
            for name, rgb in _COLOURS.items()
        ]
        content = base64.b64encode(bytes(self.data)).decode("ascii")
        return json.dumps(
            {
                "asset": {"version": "2.0", "generator": "Jolly Spool"},
                "scene": 0,
                "scenes": [{"nodes": list(range(len(self.nodes)))}],
                "nodes": self.nodes,
                "meshes": self.meshes,
                "materials": materials,
                "accessors": self.accessors,
                "bufferViews": self.views,
                "buffers": [{"byteLength": len(self.data), "uri": f"data:application/octet-stream;base64,{content}"}],
            },
            ensure_ascii=False,
        ).encode("utf-8")


def harness_gltf(project: Project, harness_id: str) -> bytes:
    """Return a harness as a glTF document: what of it has a place in space.

    Raises:
        GoneError: it is not in the project.
        RuleError: nothing of it has a path in space yet.
    """
    harness: Harness = project.get("harness", harness_id)
    made = _Document()
    thick = bundles(project, harness.id)
    for s in segments_of(project, harness.id):
        path = span_of(project, s.id).path
        if path is None:
            continue
        ends = (node_name(project, project.nodes[id]) for id in (s.a_id, s.b_id))
        radius = max(thick[s.id].diameter_mm, LEAST_MM) / 2
        made.add(" to ".join(ends), "bundle", s.id, *tube(list(path.points), radius))
    if not made.nodes:
        raise RuleError(f"{harness.code} has no path in space yet. Give its nodes places.", ids=(harness.id,))
    for node in nodes_of(project, harness.id):
        if node.at and (node.device_id or node.sort == "clip"):
            kind = "clip" if node.sort == "clip" else "splice" if is_splice(project, node.device_id) else "connector"
            made.add(node_name(project, node), kind, node.id, *_box(node, _size(project, node)))
        if node.sort == "clip":
            for run, a, b in strands_through(project, node.id):
                made.add(run_name(project, run), "bundle", node.id, *tube([a, b], run.diameter_mm / 2))
    return made.written()


def _size(project: Project, node: Node) -> Vector:
    """Return width, height and depth of what is at a node, mm."""
    device = project.devices.get(node.device_id)
    part = project.part_of(device) if device else project.parts.get(node.part_id)
    usual = END_MM if node.device_id else CLIP_MM
    found = (part.width_mm, part.height_mm, part.depth_mm) if part else usual
    return tuple(own or other for own, other in zip(found, usual, strict=True))  # type: ignore[return-value]


def _box(node: Node, size: Vector) -> tuple[list[Vector], list[int]]:
    x, y, z = node.at
    w, h, d = (v / 2 for v in size)
    points = [(x + a * w, y + b * h, z + c * d) for a in (-1, 1) for b in (-1, 1) for c in (-1, 1)]
    faces = ((0, 1, 3, 2), (4, 6, 7, 5), (0, 4, 5, 1), (2, 3, 7, 6), (0, 2, 6, 4), (1, 5, 7, 3))
    return points, [n for a, b, c, e in faces for n in (a, b, c, a, c, e)]


def tube(points: list[Vector], radius: float) -> tuple[list[Vector], list[int]]:
    """Return points and triangles of a tube about a line through points, closed at both ends; mm.

    Each ring stands across the line where it is, turned on as little as the line bends.
    """
    line = [points[0], *(b for a, b in pairwise(points) if _length(_less(b, a)) > 1e-6)]
    across = (0.0, 0.0, 0.0)
    found: list[Vector] = []
    for n, here in enumerate(line):
        along = _unit(_less(line[min(n + 1, len(line) - 1)], line[max(n - 1, 0)]))
        side = _less(across, tuple(_dot(across, along) * v for v in along))  # type: ignore[arg-type]
        across = (
            _unit(side) if _length(side) > 1e-6 else _unit(_cross(along, min(_AXES, key=lambda a: abs(_dot(a, along)))))
        )
        up = _cross(along, across)
        for k in range(SIDES):
            c, s = radius * cos(2 * pi * k / SIDES), radius * sin(2 * pi * k / SIDES)
            found.append(tuple(p + c * u + s * v for p, u, v in zip(here, across, up, strict=True)))  # type: ignore[arg-type]
    triangles: list[int] = []
    for ring in range(len(line) - 1):
        for k in range(SIDES):
            a, b = ring * SIDES + k, ring * SIDES + (k + 1) % SIDES
            triangles += [a, b, a + SIDES, b, b + SIDES, a + SIDES]
    last = (len(line) - 1) * SIDES
    for k in range(1, SIDES - 1):
        triangles += [0, k + 1, k, last, last + k, last + k + 1]
    return found, triangles


_AXES: tuple[Vector, ...] = ((1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))


def _less(a: Vector, b: Vector) -> Vector:
    return (a[0] - b[0], a[1] - b[1], a[2] - b[2])


def _dot(a: Vector, b: Vector) -> float:
    return a[0] * b[0] + a[1] * b[1] + a[2] * b[2]


def _cross(a: Vector, b: Vector) -> Vector:
    return (a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0])


def _length(a: Vector) -> float:
    return hypot(*a)


def _unit(a: Vector) -> Vector:
    length = _length(a) or 1.0
    return (a[0] / length, a[1] / length, a[2] / length)
