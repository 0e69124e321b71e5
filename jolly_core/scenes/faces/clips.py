"""What is led through a clip of a harness, cut across: each wire and cable where it lies, its number, its colours."""

from __future__ import annotations

from jolly_core.harness import Led, lead_through, run_name
from jolly_core.library import is_colour
from jolly_core.model import Node, Project

from ..base.lettering import fit
from ..base.primitives import Circle, Dot, Item, Line, Prim, Scene, Strand, text

WIDE_MM = 90.0  # of the picture
MARGIN_MM = 6.0
LETTERS_MM, SMALLEST_MM = 4.0, 1.6
SCALE_MM = 5.0  # how long the measure below it is, in the harness


def clip_scene(project: Project, node_id: str) -> Scene:
    """Return the section of a clip, enlarged to a fixed width.

    Raises:
        GoneError: the node is not in the project.
    """
    node: Node = project.get("node", node_id)
    lead = lead_through(project, node.id)
    reach = [(abs(led.x) + led.run.diameter_mm / 2, abs(led.y) + led.run.diameter_mm / 2) for led in lead.inside]
    across = max([lead.diameter_mm / 2, 1.0, *(x for x, _ in reach)])
    scale = min((WIDE_MM / 2 - MARGIN_MM) / across, 12.0)
    tall = max([lead.diameter_mm / 2 if node.led != "offsets" else 1.0, *(y for _, y in reach)]) * scale + MARGIN_MM
    middle = (WIDE_MM / 2, tall)
    items = {}
    if node.led == "merged":
        items["point"] = Item("point", "clip", [Dot(*middle, 1.2)], (0, 0, WIDE_MM, 2 * tall))
    for n, led in enumerate(lead.inside if node.led != "merged" else ()):
        item = _wire(project, led, n, middle, scale)
        items[item.id] = item
    if node.led != "offsets":
        about = Circle(*middle, round(lead.diameter_mm / 2 * scale, 2), "fine")
        items["about"] = Item("about", "clip", [about], (0, 0, WIDE_MM, 2 * tall))
    below = 2 * tall + MARGIN_MM
    x = MARGIN_MM
    bar: list[Prim] = [
        Line(x, below, x + SCALE_MM * scale, below, "ink"),
        text(x + SCALE_MM * scale + 2, below + 1.4, LETTERS_MM, f"{SCALE_MM:g} mm", role="label"),
    ]
    items["scale"] = Item("scale", "scale", bar, (x, below - 2, WIDE_MM, below + 2))
    return Scene(WIDE_MM, round(below + MARGIN_MM, 2), items)


def _wire(project: Project, led: Led, n: int, middle: tuple[float, float], scale: float) -> Item:
    x, y = round(middle[0] + led.x * scale, 2), round(middle[1] + led.y * scale, 2)
    radius = round(led.run.diameter_mm / 2 * scale, 2)
    prims: list[Prim] = [Circle(x, y, radius, "ink", "paper")]
    if not led.run.cable_id:
        wire_type = led.run.wires[0].conductor.wire_type(project)
        colour = wire_type.colour if wire_type and is_colour(wire_type.colour) else "BK"
        prims.append(Strand(x - radius * 0.6, y + radius * 0.45, x + radius * 0.6, y + radius * 0.45, colour))
    shown, size = fit(run_name(project, led.run), 1.6 * radius, LETTERS_MM, SMALLEST_MM)
    if size * 1.2 < 2 * radius:
        prims.append(text(x, y + size * 0.2, size, shown, anchor="middle", role="pin"))
    return Item(f"led:{n}", "led", prims, (x - radius, y - radius, x + radius, y + radius))
