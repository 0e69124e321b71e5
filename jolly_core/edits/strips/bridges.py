"""Bridges of a strip: along it or through the levels of a block, and the parts they are made of."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.model import Bridge, RuleError
from jolly_core.tagging import short_tag, terminal_number
from jolly_core.terminals import (
    block_parts,
    blocks_of,
    bridge_part,
    bridges_of,
    fits,
    item_records,
    laid_bridges,
    poles_of,
)

from ..base.edit import Id, Payload, Work, edit
from ..base.upkeep import drop_part
from ..devices.parts import take_part
from .items import TerminalUnit, strip_named, terminals_named


class BridgeTerminals(Payload):
    """Bridge terminals of a strip; what they touch of other bridges is taken in, what lies between is passed over.

    Along the strip they are of one level, or they are levels of one block. Without a part the smallest that fits is
    taken from the library, or none when none fits.
    """

    kind: Literal["bridge-terminals"] = "bridge-terminals"
    strip_id: Id
    units: list[TerminalUnit] = Field(min_length=2, max_length=200)
    part_id: Id = ""


@edit(BridgeTerminals, {"strip_id": "d1", "units": [1, 2]})
def bridge_terminals(work: Work, payload: BridgeTerminals) -> str:
    """Work out BridgeTerminals."""
    project = work.project
    device = strip_named(project, payload.strip_id)
    tag = short_tag(project, device)
    wanted = set(terminals_named(project, device.id, payload.units))
    blocks = blocks_of(item_records(project, device.id))
    place = {r.unit: (n, r.level) for n, block in enumerate(blocks) for r in block}
    along, levels = ({place[u][n] for u in wanted} for n in (0, 1))
    if len(along) > 1 and len(levels) > 1:
        raise RuleError("A bridge runs along one level, or joins the levels of one block.", field="units")
    if len(wanted) < 2:
        raise RuleError("Choose two terminals or more to bridge.", field="units")
    for bridge in bridges_of(project, device.id):
        there = {u for u in bridge.units if u in place}
        alike = {place[u][1] for u in there} == levels if len(along) > 1 else {place[u][0] for u in there} == along
        if wanted & there and alike:
            wanted |= there
            work.remove("bridge", bridge.id)
            drop_part(work, bridge.part_id)
    units = tuple(sorted(wanted, key=lambda u: place[u]))
    made = Bridge(work.ids.new(), device.id, units)
    work.put("bridge", made)
    first, last = place[units[0]][0], place[units[-1]][0]
    if payload.part_id:
        _give_part(work, made, payload.part_id)
    elif first != last:
        found = bridge_part(project, work.library, device.id, first, last)
        if found is not None:
            work.put("bridge", replace(made, part_id=take_part(work, found.id).id))
    work.outcome.placed = [made.id]
    names = (terminal_number(project, device.id, u) for u in (units[0], units[-1]))
    return f"bridge {tag}:{' to '.join(names)}"


def _give_part(work: Work, bridge: Bridge, part_id: str) -> None:
    """Give a bridge a part.

    Raises:
        RuleError: it reaches over fewer terminals, or is for terminals of another width.
    """
    project = work.project
    part = take_part(work, part_id, "strip-accessory")
    laid = next((b for b in laid_bridges(project, bridge.strip_id) if b.bridge.id == bridge.id), None)
    if laid is not None:
        parts = block_parts(project, bridge.strip_id)[laid.first : laid.last + 1]
        widths = {p.width_mm for p in parts if p is not None}
        if not poles_of(part):
            raise RuleError(f"{part.number} is no bridge: it says no poles. Choose another part.", field="part_id")
        if poles_of(part) < laid.reach:
            words = f"{part.number} reaches over {poles_of(part)} terminals, the bridge over {laid.reach}"
            raise RuleError(f"{words}. Choose a longer one.", field="part_id", ids=(bridge.strip_id,))
        if not all(fits(part, width, laid.reach) for width in widths):
            raise RuleError(f"{part.number} is for terminals of another width. Choose another part.", field="part_id")
    work.put("bridge", replace(bridge, part_id=part.id))


class SetBridge(Payload):
    """Give a bridge a part, or none with an empty one."""

    kind: Literal["set-bridge"] = "set-bridge"
    bridge_id: Id
    part_id: Id


@edit(SetBridge, {"bridge_id": "b1", "part_id": ""})
def set_bridge(work: Work, payload: SetBridge) -> str:
    """Work out SetBridge."""
    bridge: Bridge = work.project.get("bridge", payload.bridge_id)
    if payload.part_id:
        _give_part(work, bridge, payload.part_id)
    else:
        work.put("bridge", replace(bridge, part_id=""))
    if work.project.bridges[bridge.id].part_id != bridge.part_id:
        drop_part(work, bridge.part_id)
    return f"part of a bridge of {short_tag(work.project, work.project.devices[bridge.strip_id])}"


class RemoveBridge(Payload):
    """Take a bridge away, or terminals out of it."""

    kind: Literal["remove-bridge"] = "remove-bridge"
    bridge_id: Id
    units: list[TerminalUnit] = Field(default_factory=list, max_length=200)


@edit(RemoveBridge, {"bridge_id": "b1"})
def remove_bridge(work: Work, payload: RemoveBridge) -> str:
    """Work out RemoveBridge."""
    bridge: Bridge = work.project.get("bridge", payload.bridge_id)
    tag = short_tag(work.project, work.project.devices[bridge.strip_id])
    left = tuple(u for u in bridge.units if payload.units and u not in payload.units)
    if len(left) > 1:
        work.put("bridge", replace(bridge, units=left))
        return f"shorten a bridge of {tag}"
    work.remove("bridge", bridge.id)
    drop_part(work, bridge.part_id)
    return f"remove a bridge of {tag}"
