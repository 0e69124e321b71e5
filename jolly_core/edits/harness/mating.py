"""Connectors that are plugged into each other."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from jolly_core.harness import (
    do_mate,
    is_end,
    mates_named,
    owner_of,
    seat_of,
)
from jolly_core.model import (
    Device,
    Project,
    RuleError,
    Seat,
)
from jolly_core.tagging import full_tag, short_tag

from ..base.edit import Id, Payload, Work, edit


def reseat(work: Work, device_id: str, *, owner_id: str | None = None, mate_id: str | None = None) -> None:
    """Say where a connector sits or what it is plugged to; what says nothing any more goes."""
    seat = seat_of(work.project, device_id)
    made = seat or Seat(work.ids.new(), device_id)
    if owner_id is not None:
        made = replace(made, owner_id=owner_id)
    if mate_id is not None:
        made = replace(made, mate_id=mate_id)
    if made.owner_id or made.mate_id:
        work.put("seat", made)
    elif seat is not None:
        work.remove("seat", seat.id)


def unplug(work: Work, device_id: str) -> None:
    """Take a connector off the one it is plugged to."""
    project = work.project
    for id in (device_id, *(project.seats[s].device_id for s in project.seats_mating.get(device_id))):
        reseat(work, id, mate_id="")


class MateConnectors(Payload):
    """Plug a connector to another, or with "" take it off; `anyway` though their parts do not mate."""

    kind: Literal["mate-connectors"] = "mate-connectors"
    device_id: Id
    mate_id: Id = ""
    anyway: bool = False


@edit(MateConnectors, {"device_id": "d1", "mate_id": "d2"})
def mate_connectors(work: Work, payload: MateConnectors) -> str:
    """Work out MateConnectors."""
    project = work.project
    device: Device = project.get("device", payload.device_id)
    check_connector(project, device.id)
    if not payload.mate_id:
        unplug(work, device.id)
        return f"unplug {short_tag(project, device)}"
    mate: Device = project.get("device", payload.mate_id)
    check_connector(project, mate.id)
    if mate.id == device.id:
        raise RuleError(f"{full_tag(project, device)} cannot be plugged to itself.", ids=(device.id,))
    plug(work, device, mate, anyway=payload.anyway)
    return f"plug {short_tag(project, device)} to {short_tag(project, mate)}"


def plug(work: Work, device: Device, mate: Device, *, anyway: bool = False) -> None:
    """Plug two connectors together; what either was plugged to comes off.

    Raises:
        RuleError: their parts do not mate.
    """
    project = work.project
    one, other = project.part_of(device), project.part_of(mate)
    if not anyway and one is not None and other is not None and not do_mate(one, other):
        advice = ", ".join(mates_named(one)) or "nothing that is named"
        raise RuleError(
            f"{one.number} of {full_tag(project, device)} does not mate with {other.number} of "
            f"{full_tag(project, mate)}. It mates with {advice}.",
            ids=(device.id, mate.id),
        )
    for id in (device.id, mate.id):
        unplug(work, id)
    # What sits on nothing is the plug.
    loose, fixed = (mate, device) if owner_of(project, device.id) and not owner_of(project, mate.id) else (device, mate)
    reseat(work, loose.id, mate_id=fixed.id)


def check_connector(project: Project, device_id: str) -> None:
    """Refuse what is no connector.

    Raises:
        RuleError: it has no cavities.
    """
    device = project.devices[device_id]
    if not is_end(project, device):
        raise RuleError(f"{full_tag(project, device)} is no connector: it has no cavities.", ids=(device.id,))
