"""One enclosure laid out like another."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from jolly_core.cabinet import (
    outline,
    placing_of,
    placings_in,
    rail_is_level,
    surface_size,
)
from jolly_core.model import Device, Enclosure, Lane, Project, RuleError
from jolly_core.tagging import full_tag, product_tag, short_tag

from ..base.edit import Id, Payload, Work, edit


class CopyLayout(Payload):
    """Lay out an enclosure as another is: rails, ducts and lanes, and devices of it that have the same tag and part.

    Attributes:
        mirrored: left is right.
    """

    kind: Literal["copy-layout"] = "copy-layout"
    from_id: Id
    to_id: Id
    mirrored: bool = False


@edit(CopyLayout, {"from_id": "e1", "to_id": "e2"})
def copy_layout(work: Work, payload: CopyLayout) -> str:
    """Work out CopyLayout."""
    project = work.project
    one: Enclosure = project.get("enclosure", payload.from_id)
    other: Enclosure = project.get("enclosure", payload.to_id)
    tag = full_tag(project, project.devices[other.device_id])
    taken = any(
        r.enclosure_id == other.id for table in (project.rails, project.ducts, project.lanes) for r in table.values()
    )
    if taken or placings_in(project, other.id) or one.id == other.id:
        raise RuleError(f"{tag} is laid out already. Choose an empty enclosure.", field="to_id", ids=(other.id,))
    for surface in ("plate", "door"):
        if surface_size(project, one, surface) != surface_size(project, other, surface):
            raise RuleError(f"{tag} has another {surface}. Give it the same part first.", field="to_id")
    rails = _copy_runs(work, one, other, mirrored=payload.mirrored)
    for placing in placings_in(project, one.id):
        like = _like(project, project.devices[placing.device_id], other)
        if like is None:
            continue
        width = surface_size(project, one, placing.surface)[0]
        box = outline(project, placing)
        rail = project.rails.get(placing.rail_id)
        x = placing.x
        if payload.mirrored:
            x = width - placing.x if rail and not rail_is_level(rail) else width - box.x - box.width
        made = replace(
            placing,
            id=work.ids.new(),
            enclosure_id=other.id,
            device_id=like.id,
            x=x,
            rail_id=rails.get(placing.rail_id, ""),
        )
        work.put("placing", made)
        work.outcome.placed.append(made.id)
    return f"lay out {short_tag(project, project.devices[other.device_id])} like another"


def _copy_runs(work: Work, one: Enclosure, other: Enclosure, *, mirrored: bool) -> dict[str, str]:
    """Copy rails, ducts and lanes, and return the new rail of each old one."""
    project = work.project
    rails: dict[str, str] = {}

    def turned(surface: str, x: float) -> float:
        return surface_size(project, one, surface)[0] - x if mirrored else x

    for what, table in (("rail", project.rails), ("duct", project.ducts)):
        for run in sorted((r for r in table.values() if r.enclosure_id == one.id), key=lambda r: r.id):
            x1, x2 = sorted((turned(run.surface, run.x1), turned(run.surface, run.x2)))
            made = replace(run, id=work.ids.new(), enclosure_id=other.id, x1=x1, x2=x2)
            work.put(what, made)
            if what == "rail":
                rails[run.id] = made.id
    lanes: list[Lane] = sorted((n for n in project.lanes.values() if n.enclosure_id == one.id), key=lambda n: n.id)
    for lane in lanes:
        points = tuple(turned(lane.surface, v) if n % 2 == 0 else v for n, v in enumerate(lane.points))
        work.put("lane", replace(lane, id=work.ids.new(), enclosure_id=other.id, points=points))
    return rails


def _like(project: Project, device: Device, other: Enclosure) -> Device | None:
    """Return the device that is in the place of another in a like panel and not placed yet: same tag, same part.

    Of several the one at the location of the other enclosure; None when there is none.
    """
    host = project.devices[other.device_id]
    tag = product_tag(project, device)
    alike = [
        d
        for d in project.devices.values()
        if d.id != device.id
        and d.part_id == device.part_id
        and placing_of(project, d.id) is None
        and product_tag(project, d) == tag
    ]
    alike.sort(key=lambda d: (d.location_id != host.location_id, d.function_id != host.function_id, d.id))
    return alike[0] if alike else None
