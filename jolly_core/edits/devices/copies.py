"""The project's copies of parts: brought up to the library, replaced, added to; sets given at once."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.library import Difference, Library, definition, differences, own_symbol, symbol_for
from jolly_core.model import AddOn, Device, Part, RuleError, counted, users_of
from jolly_core.tagging import short_tag

from ..base.edit import Id, Payload, Work, edit
from ..base.upkeep import drop_part
from .parts import give_part, lost_rows, note_lost, refit, take_part


def stale_parts(parts: dict[str, Part], library: Library) -> dict[str, list[Difference]]:
    """Return for each copy that differs from the library's part of its id the fields that differ, copy first."""
    found: dict[str, list[Difference]] = {}
    for part in parts.values():
        current = library.part(part.id)
        if current is not None and current.id == part.id:
            changed = differences(part, current)
            if changed:
                found[part.id] = changed
    return found


class RefreshParts(Payload):
    """Bring copies up to the library's parts; without ids, all that differ."""

    kind: Literal["refresh-parts"] = "refresh-parts"
    part_ids: list[Id] = Field(default_factory=list, max_length=2000)


@edit(RefreshParts, {"part_ids": ["brindlework-bw-c09-24d"]})
def refresh_parts(work: Work, payload: RefreshParts) -> str:
    """Work out RefreshParts."""
    project = work.project
    wanted = payload.part_ids or list(project.parts)
    for id in wanted:
        project.get("part", id)
    stale = stale_parts({id: project.parts[id] for id in wanted}, work.library)
    rows: list[list[str]] = []
    if not stale:
        raise RuleError("The copies are the same as in the library.", field="part_ids")
    for id in stale:
        current = work.library.part(id)
        if current is None:
            continue
        users = [project.devices[d] for d in _users(work, id)]
        before = {d.id: project.part_of(d) for d in users}
        work.put("part", current)
        for device in users:
            lost = refit(work, device, before[device.id])
            rows += lost_rows(project, device, lost)
            _redraw(work, device, before[device.id])
    if rows:
        work.outcome.table = [["Device", "What does not fit"], *rows]
        count = len({row[0] for row in rows})
        have = "has" if count == 1 else "have"
        words = f"{counted(count, 'device')} {have} units drawn that the part no longer has; see the list."
        work.outcome.remarks.append(words)
    numbers = ", ".join(project.parts[id].number for id in stale)
    return f"refresh {numbers}" if len(stale) < 4 else f"refresh {len(stale)} parts"


def _redraw(work: Work, device: Device, old: Part | None) -> None:
    """Draw units as the part has them now where they were drawn as it had them before, if the pins are the same."""
    project, part = work.project, work.project.part_of(device)
    standard = project.settings.standard
    for symbol in project.units_of(device.id):
        shape = definition(symbol.definition)
        was, now = (own_symbol(p, shape.unit, standard) for p in (old, part))
        if not now or was == now or symbol.definition != (was or symbol_for(shape.unit, shape.part_class)):
            continue
        new = definition(now)
        if (new.pins, new.through) == (shape.pins, shape.through) and len(symbol.units) <= new.max_poles:
            work.put("symbol", replace(symbol, definition=now))


def _users(work: Work, part_id: str) -> list[str]:
    """Return the ids of the devices that have a part, as theirs or as an add-on."""
    added = {a.device_id for a in work.project.add_ons.values() if a.part_id == part_id}
    return sorted({*work.project.devices_of_part.get(part_id), *added})


class ReplacePart(Payload):
    """Give all devices of a part another one, or only some of them; what does not fit is listed."""

    kind: Literal["replace-part"] = "replace-part"
    part_id: Id
    by_id: Id
    device_ids: list[Id] = Field(default_factory=list, max_length=5000)


# What has a part beside devices and what is put onto them: terminals, bridges, rails, ducts, coverings, clips.
HELD = tuple(kind for kind, _ in users_of("part") if kind not in ("device", "add_on"))


@edit(ReplacePart, {"part_id": "brindlework-bw-c09-24d", "by_id": "brindlework-bw-c12-24d"})
def replace_part(work: Work, payload: ReplacePart) -> str:
    """Work out ReplacePart."""
    project = work.project
    old: Part = project.get("part", payload.part_id)
    new = project.part_named(payload.by_id) or work.library.part(payload.by_id)
    if new is None:
        raise RuleError("This part is neither in the project nor in the library.", field="by_id")
    if new.id == old.id:
        raise RuleError(f"{old.number} cannot be replaced by itself.", field="by_id")
    devices = project.devices_of_part.get(old.id)
    chosen = [id for id in devices if not payload.device_ids or id in payload.device_ids]
    places = [(kind, e) for kind in HELD for e in project.tables[kind].values()]
    held = [] if payload.device_ids else [(kind, e) for kind, e in places if e.part_id == old.id]
    added = [] if payload.device_ids else [a for a in project.add_ons.values() if a.part_id == old.id]
    if not chosen and not held and not added:
        raise RuleError(f"Nothing has the part {old.number}. Choose one that is used.", field="part_id")
    rows: list[list[str]] = []
    refused: list[str] = []
    for id in chosen:
        device = project.devices[id]
        before = len(work.outcome.remarks)
        try:
            give_part(work, device, new.id)
        except RuleError as error:
            if len(chosen) == 1 and not held:
                raise
            refused.append(short_tag(project, device))
            rows.append([short_tag(project, device), error.message])
            continue
        rows += [[short_tag(project, project.devices[id]), words] for words in work.outcome.remarks[before:]]
    if refused and len(refused) == len(chosen) and not held and not added:
        listed = "; ".join(f"{tag}: {words}" for tag, words in rows[:5]) + (" ..." if len(rows) > 5 else "")
        raise RuleError(f"None of {len(chosen)} devices can have {new.number}. {listed}", field="by_id")
    for kind, entity in held:
        take_part(work, new.id, old.part_class)
        work.put(kind, replace(entity, part_id=new.id))
    for add_on in added:
        before_part = project.part_of(project.devices[add_on.device_id])
        take_part(work, new.id, old.part_class)
        work.put("add_on", replace(add_on, part_id=new.id))
        refit(work, project.devices[add_on.device_id], before_part)
    drop_part(work, old.id)
    work.outcome.remarks.clear()
    if rows:
        work.outcome.table = [["Device", "What does not fit"], *rows]
        misfits = len({row[0] for row in rows})
        work.outcome.remarks.append(f"{misfits} of {len(chosen)} do not fit altogether; see the list.")
    return f"{new.number} in place of {old.number}"


class AddPart(Payload):
    """Put one more part onto a device that has one: an auxiliary block, a suppressor; its units become the device's."""

    kind: Literal["add-part"] = "add-part"
    device_id: Id
    part_id: Id


@edit(AddPart, {"device_id": "d1", "part_id": "brindlework-bw-aux-22"})
def add_part(work: Work, payload: AddPart) -> str:
    """Work out AddPart."""
    device: Device = work.project.get("device", payload.device_id)
    part = put_on(work, device, payload.part_id)
    return f"{part.number} onto {short_tag(work.project, device)}"


def put_on(work: Work, device: Device, part_id: str) -> Part:
    """Add a part to a device.

    Raises:
        RuleError: the device has no part yet, or the part is unknown.
    """
    before = work.project.part_of(device)
    if before is None:
        tag = short_tag(work.project, device)
        raise RuleError(f"Choose the part of {tag} first; more parts go onto it.", field="device_id", ids=(device.id,))
    part = take_part(work, part_id)
    work.put("add_on", AddOn(work.ids.new(), device.id, part.id))
    refit(work, device, before)
    return part


class RemovePart(Payload):
    """Take a further part off a device; units drawn of it are without pins then, and named."""

    kind: Literal["remove-part"] = "remove-part"
    device_id: Id
    part_id: Id


@edit(RemovePart, {"device_id": "d1", "part_id": "brindlework-bw-aux-22"})
def remove_part(work: Work, payload: RemovePart) -> str:
    """Work out RemovePart."""
    project = work.project
    device: Device = project.get("device", payload.device_id)
    found = next(
        (id for id in reversed(project.add_ons_of.get(device.id)) if project.add_ons[id].part_id == payload.part_id), ""
    )
    if not found:
        raise RuleError("This part is not on the device.", field="part_id", ids=(device.id,))
    before = project.part_of(device)
    number = project.parts[payload.part_id].number
    work.remove("add_on", found)
    after = refit(work, device, before)
    drop_part(work, payload.part_id)
    note_lost(work, project.part_of(device), after)
    return f"{number} off {short_tag(project, device)}"
