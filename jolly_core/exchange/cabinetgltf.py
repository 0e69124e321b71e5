"""An enclosure in space as glTF 2.0 (ISO/IEC 12113): everything in it as boxes, wires as runs along their ways.

Metres; x to the right, y up, z out of the plate, the origin at the lower left corner of the enclosure's back. Nodes are
named by tag; `extras` has the id and kind of each. The door is a node of its own that turns about its hinge.
"""

from __future__ import annotations

import base64
import json
import struct
from dataclasses import dataclass, field
from typing import Any

from jolly_core.cabinet import Solid, routes, solids, surface_key, surface_size
from jolly_core.cables import number_of
from jolly_core.library import base_of
from jolly_core.model import SURFACES, Enclosure, Project
from jolly_core.scenes.base.paints import TONES, wire_paint
from jolly_core.tagging import full_tag

PLATE_MM = 2.5
BEHIND_MM = 15.0  # between the back of an enclosure and its plate
WIRE_MM = 3.0
IN_DUCT_MM = 30.0
_DARK = ("power-supply", "drive", "soft-starter", "transformer", "meter")
Vector = tuple[float, float, float]


@dataclass(slots=True)
class _Model:
    """A glTF document while it is put together; one box serves all nodes, each with its own scale and material."""

    materials: list[dict[str, Any]] = field(default_factory=list)
    meshes: list[dict[str, Any]] = field(default_factory=list)
    nodes: list[dict[str, Any]] = field(default_factory=list)
    _of_colour: dict[tuple[str, float], int] = field(default_factory=dict)

    def mesh(self, colour: str, opacity: float = 1.0) -> int:
        """Return the mesh of a box in a colour."""
        key = colour, opacity
        if key not in self._of_colour:
            red, green, blue = (int(colour.lstrip("#")[n : n + 2], 16) / 255 for n in (0, 2, 4))
            linear = [round(v**2.2, 4) for v in (red, green, blue)]
            material: dict[str, Any] = {
                "pbrMetallicRoughness": {
                    "baseColorFactor": [*linear, opacity],
                    "metallicFactor": 0.0,
                    "roughnessFactor": 0.8,
                }
            }
            if opacity < 1:
                material["alphaMode"] = "BLEND"
            self.materials.append(material)
            box = {"attributes": {"POSITION": 0, "NORMAL": 1}, "indices": 2, "material": len(self.materials) - 1}
            self.meshes.append({"primitives": [box]})
            self._of_colour[key] = len(self.meshes) - 1
        return self._of_colour[key]

    def box(self, name: str, low: Vector, high: Vector, mesh: int, extras: dict[str, str] | None = None) -> int:
        """Add a box between two corners in mm, and return its node."""
        centre = [round((a + b) / 2000, 6) for a, b in zip(low, high, strict=True)]
        scale = [max(round(abs(b - a) / 1000, 6), 1e-5) for a, b in zip(low, high, strict=True)]
        node: dict[str, Any] = {"name": name, "mesh": mesh, "translation": centre, "scale": scale}
        if extras:
            node["extras"] = extras
        self.nodes.append(node)
        return len(self.nodes) - 1


def _cube() -> tuple[bytes, list[dict[str, Any]], list[dict[str, Any]]]:
    """Return the bytes of a box of one metre about its middle, with its views and accessors."""
    points: list[float] = []
    normals: list[float] = []
    indices: list[int] = []
    for axis in range(3):
        for side in (-0.5, 0.5):
            first = len(points) // 3
            for a, b in ((-0.5, -0.5), (0.5, -0.5), (0.5, 0.5), (-0.5, 0.5)):
                corner = [0.0, 0.0, 0.0]
                corner[axis], corner[(axis + 1) % 3], corner[(axis + 2) % 3] = side, a, b
                points += corner
                normals += [2 * side if n == axis else 0.0 for n in range(3)]
            order = (0, 1, 2, 0, 2, 3) if side > 0 else (0, 2, 1, 0, 3, 2)
            indices += [first + n for n in order]
    parts = [struct.pack(f"<{len(v)}f", *v) for v in (points, normals)] + [struct.pack(f"<{len(indices)}H", *indices)]
    views, at = [], 0
    for n, part in enumerate(parts):
        views.append({"buffer": 0, "byteOffset": at, "byteLength": len(part), "target": 34963 if n == 2 else 34962})
        at += len(part)
    accessors: list[dict[str, Any]] = [
        {
            "bufferView": 0,
            "componentType": 5126,
            "count": 24,
            "type": "VEC3",
            "min": [-0.5, -0.5, -0.5],
            "max": [0.5, 0.5, 0.5],
        },
        {"bufferView": 1, "componentType": 5126, "count": 24, "type": "VEC3"},
        {"bufferView": 2, "componentType": 5123, "count": 36, "type": "SCALAR"},
    ]
    return b"".join(parts), views, accessors


def cabinet_gltf(project: Project, enclosure_id: str) -> bytes:
    """Return an enclosure with all in it as a glTF document, its buffer inside.

    Raises:
        GoneError: the enclosure is not in the project.
        RuleError: its size is not known.
    """
    enclosure: Enclosure = project.get("enclosure", enclosure_id)
    model = _Model()
    space = _Space(project, enclosure)
    inside = [model.box("mounting plate", *space.plate_box(), model.mesh(TONES["plate"]), {"kind": "plate"})]
    on_door: list[int] = []
    low, high = space.door_box()
    on_door.append(model.box("door", low, high, model.mesh(TONES["duct"], 0.35), {"kind": "door"}))
    for solid in solids(project, enclosure):
        node = model.box(
            solid.tag,
            *space.box_of(solid),
            model.mesh(*_look(project, solid)),
            {"id": solid.id, "kind": solid.kind, "surface": solid.surface},
        )
        (on_door if solid.surface == "door" else inside).append(node)
    inside += _wires(project, enclosure, model, space)
    model.nodes.append({"name": "door and what it carries", "children": on_door, "extras": {"hinge": enclosure.hinge}})
    door = len(model.nodes) - 1
    tag = full_tag(project, project.devices[enclosure.device_id])
    model.nodes.append({"name": tag, "children": [*inside, door]})
    content, views, accessors = _cube()
    document = {
        "asset": {"version": "2.0", "generator": "Jolly Spool"},
        "scene": 0,
        "scenes": [{"name": tag, "nodes": [len(model.nodes) - 1]}],
        "nodes": model.nodes,
        "meshes": model.meshes,
        "materials": model.materials,
        "accessors": accessors,
        "bufferViews": views,
        "buffers": [
            {
                "byteLength": len(content),
                "uri": "data:application/octet-stream;base64," + base64.b64encode(content).decode("ascii"),
            }
        ],
    }
    return json.dumps(document, ensure_ascii=False, separators=(",", ":")).encode("utf-8")


class _Space:
    """From mm on a surface to mm in space."""

    def __init__(self, project: Project, enclosure: Enclosure) -> None:
        part = project.part_of(project.devices[enclosure.device_id])
        self.width, self.height = surface_size(project, enclosure, "door")
        self.plate = surface_size(project, enclosure, "plate")
        self.depth = part.depth_mm if part else 0.0
        self.front = BEHIND_MM + (number_of(part, "plate_depth_mm") or PLATE_MM)

    def at(self, surface: str, x: float, y: float, out: float) -> Vector:
        """Return a point of a surface, so far in front of it (of the door: behind it)."""
        left, top = (self.width - self.plate[0]) / 2, (self.height + self.plate[1]) / 2
        if surface == "door":
            return x, self.height - y, self.depth - out
        if surface == "left":
            return out, self.height - y, self.front + x
        if surface == "right":
            return self.width - out, self.height - y, self.front + x
        if surface in ("roof", "gland"):
            return x, self.height - out if surface == "roof" else out, self.front + y
        return left + x, top - y, self.front + out

    def plate_box(self) -> tuple[Vector, Vector]:
        """Return the corners of the plate."""
        (x1, y1, z), (x2, y2, _) = self.at("plate", 0, 0, 0), self.at("plate", *self.plate, 0)
        return (x1, y1, z - PLATE_MM), (x2, y2, z)

    def door_box(self) -> tuple[Vector, Vector]:
        """Return the corners of the door's sheet."""
        return (0.0, 0.0, self.depth), (self.width, self.height, self.depth + 2.0)

    def box_of(self, solid: Solid) -> tuple[Vector, Vector]:
        """Return the corners of what stands on a surface."""
        one = self.at(solid.surface, solid.x, solid.y, 0.0)
        other = self.at(solid.surface, solid.x + solid.width, solid.y + solid.height, solid.depth)
        return one, other


def _look(project: Project, solid: Solid) -> tuple[str, float]:
    """Return the colour of a box, and how solid it is."""
    if solid.kind != "device":
        return (TONES["rail"], 1.0) if solid.kind == "rail" else (TONES["duct"], 0.55)
    placing = project.placings[solid.id]
    part = project.part_of(project.devices[placing.device_id])
    if part is None:
        return TONES["terminal"], 1.0
    colour = part.ratings.get("colour", "").split(" ")[0]
    if solid.surface == "door" and colour in ("red", "yellow", "green", "blue", "white", "black"):
        return TONES[colour], 1.0
    return TONES["case-dark" if base_of(part.part_class) in _DARK else "case-shade"], 1.0


def _wires(project: Project, enclosure: Enclosure, model: _Model, space: _Space) -> list[int]:
    """Add the wires of an enclosure as runs of thin boxes, one node a wire, and return these nodes."""
    found = []
    for key, route in sorted(routes(project).items()):
        wire_type = route.conductor.wire_type(project)
        mesh = model.mesh(wire_paint(wire_type.colour if wire_type else "BK").first)
        runs: list[int] = []
        for leg in route.legs:
            surface = next((s for s in SURFACES if leg.surface == surface_key(enclosure.id, s)), "")
            if not surface:
                continue
            spots = [space.at(surface, x, y, IN_DUCT_MM) for x, y in leg.points]
            for a, b in zip(spots, spots[1:], strict=False):
                low = tuple(min(p, q) - WIRE_MM / 2 for p, q in zip(a, b, strict=True))
                high = tuple(max(p, q) + WIRE_MM / 2 for p, q in zip(a, b, strict=True))
                runs.append(model.box("", (low[0], low[1], low[2]), (high[0], high[1], high[2]), mesh))
        if runs:
            number = route.conductor.number or key
            model.nodes.append({"name": f"wire {number}", "children": runs, "extras": {"id": key, "kind": "wire"}})
            found.append(len(model.nodes) - 1)
    return found
