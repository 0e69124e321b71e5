"""What an enclosure weighs with all that is placed in it, and where its centre of weight is."""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.model import Enclosure, Project
from jolly_core.tagging import full_tag, natural

from .layout import outline_of, placings_in, surface_size
from .pieces import PointMm


@dataclass(slots=True, frozen=True)
class Weight:
    """Weight of an enclosure.

    Attributes:
        kg: of the enclosure and what is placed, as far as their parts say.
        centre: mm from the left and from below, seen from the front; None while nothing is known.
        unknown: tags of what says no weight.
    """

    kg: float
    centre: PointMm | None
    unknown: tuple[str, ...]


def enclosure_weight(project: Project, enclosure: Enclosure) -> Weight:
    """Return the weight of an enclosure; what hangs on walls, roof and gland plate counts at the enclosure's middle.

    Raises:
        RuleError: the enclosure's size is not known.
    """
    host = project.devices[enclosure.device_id]
    box = project.part_of(host)
    width, height = surface_size(project, enclosure, "door")
    plate = surface_size(project, enclosure, "plate")
    found: list[tuple[float, float, float]] = []
    unknown = []
    if box is not None and box.weight_kg:
        found.append((box.weight_kg, width / 2, height / 2))
    else:
        unknown.append(full_tag(project, host))
    for placing in placings_in(project, enclosure.id):
        device = project.devices[placing.device_id]
        part = project.part_of(device)
        if part is None or not part.weight_kg:
            unknown.append(full_tag(project, device))
            continue
        body = outline_of(project, placing.id)
        x, y = body.x + body.width / 2, body.y + body.height / 2
        if placing.surface == "plate":
            x, y = x + (width - plate[0]) / 2, y + (height - plate[1]) / 2
        elif placing.surface != "door":
            x, y = width / 2, height / 2
        found.append((part.weight_kg, x, height - y))
    total = sum(kg for kg, _, _ in found)
    if not total:
        return Weight(0.0, None, tuple(sorted(unknown, key=natural)))
    centre = (sum(kg * x for kg, x, _ in found) / total, sum(kg * y for kg, _, y in found) / total)
    return Weight(total, (round(centre[0], 1), round(centre[1], 1)), tuple(sorted(unknown, key=natural)))
