"""Terminals that go to another strip: some of them, or all where two become one."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.model import Bridge, Device, RuleError, Strip, StripItem, counted
from jolly_core.tagging import short_tag, terminal_number
from jolly_core.terminals import (
    TERMINAL,
    blocks_of,
    bridges_of,
    item_records,
    kind_of,
    next_unit,
    terminal_symbols,
)
from jolly_core.wiring import part_of_kind

from ..base.edit import Id, Payload, Work, edit
from ..base.upkeep import drop_part, drop_unused, new_device, refresh_letters, remove_device, tidy_strip
from ..devices.parts import give_part
from .items import TerminalUnit, put_in_order, stored, strip_named, terminals_named


class MoveTerminals(Payload):
    """Move terminals to another strip, behind what stands there, or to a new strip at the same place.

    Parts, remarks and fixed numbers go along where the numbers are free there; wires and sheets stay as they are.
    """

    kind: Literal["move-terminals"] = "move-terminals"
    strip_id: Id
    units: list[TerminalUnit] = Field(min_length=1, max_length=5000)
    to_strip_id: Id = ""


@edit(MoveTerminals, {"strip_id": "d1", "units": [5, 6], "to_strip_id": "d2"})
def move_terminals(work: Work, payload: MoveTerminals) -> str:
    """Work out MoveTerminals."""
    project = work.project
    source = strip_named(project, payload.strip_id)
    wanted = set(terminals_named(project, source.id, payload.units))
    for block in blocks_of(item_records(project, source.id)):
        if any(r.unit in wanted for r in block):
            wanted.update(r.unit for r in block)
    if payload.to_strip_id == source.id:
        raise RuleError("They stand on that strip already. Choose another one.", field="to_strip_id")
    if payload.to_strip_id:
        target = strip_named(project, payload.to_strip_id)
    else:
        target = new_device(work, "terminal", (source.function_id, source.location_id), source.text)
        work.put("strip", Strip(work.ids.new(), target.id, made=True))
        if source.part_id:
            give_part(work, target, source.part_id)
    label = f"{counted(len(wanted), 'terminal')} of {short_tag(project, source)}"
    records = [r for r in stored(work, source.id) if r.kind == TERMINAL and r.unit in wanted]
    _hand_over(work, source, project.devices[target.id], records)
    tidy_strip(work, source.id)
    drop_unused(work, source.id)
    refresh_letters(work, target.id)
    work.outcome.placed = [target.id]
    return f"{label} to {short_tag(project, project.devices[target.id])}"


class MergeStrips(Payload):
    """Put all that stands on a strip behind what stands on another; the first strip is gone then."""

    kind: Literal["merge-strips"] = "merge-strips"
    strip_id: Id
    into_id: Id


@edit(MergeStrips, {"strip_id": "d2", "into_id": "d1"})
def merge_strips(work: Work, payload: MergeStrips) -> str:
    """Work out MergeStrips."""
    project = work.project
    source, target = strip_named(project, payload.strip_id), strip_named(project, payload.into_id)
    if source.id == target.id:
        raise RuleError("Choose another strip to put it together with.", field="into_id")
    label = f"{short_tag(project, source)} into {short_tag(project, target)}"
    _hand_over(work, source, target, stored(work, source.id))
    if source.id in project.devices:
        remove_device(work, source.id)
    refresh_letters(work, target.id)
    work.outcome.placed = [target.id]
    return label


def _hand_over(work: Work, source: Device, target: Device, records: list[StripItem]) -> None:
    """Put places of one strip at the end of another: their symbols, parts, numbers and the bridges among them."""
    project = work.project
    symbols = terminal_symbols(project, source.id)
    bridges = bridges_of(project, source.id)
    there = stored(work, target.id)
    given = {terminal_number(project, target.id, r.unit) for r in there if r.kind == TERMINAL}
    unit, units = next_unit(project, target.id), {}
    moved: list[StripItem] = []
    for record in records:
        if record.kind != TERMINAL:
            moved.append(replace(record, strip_id=target.id))
            continue
        units[record.unit] = unit
        own = part_of_kind(project, source.id, record.unit, kind_of(project, record, symbols.get(record.unit, [])))
        number = "" if record.number in given else record.number
        if number != record.number:
            name = short_tag(project, target)
            work.outcome.remarks.append(f"{name} has a terminal {record.number} already: it is numbered anew.")
        part_id = own.id if own is not None and own.id != target.part_id else ""
        moved.append(replace(record, strip_id=target.id, unit=unit, number=number, part_id=part_id))
        unit += 1
    for old, new in units.items():
        for symbol in symbols.get(old, []):
            work.put("symbol", replace(symbol, device_id=target.id, units=(new,)))
    put_in_order(work, [*there, *moved])
    for bridge in bridges:
        _part_bridge(work, bridge, units, target.id)


def _part_bridge(work: Work, bridge: Bridge, units: dict[int, int], target_id: str) -> None:
    """Leave of a bridge what stays and give the other strip what goes; one terminal alone needs none."""
    goes = tuple(units[u] for u in bridge.units if u in units)
    stays = tuple(u for u in bridge.units if u not in units)
    if not goes:
        return
    if len(stays) > 1:
        work.put("bridge", replace(bridge, units=stays))
    else:
        work.remove("bridge", bridge.id)
    if len(goes) > 1:
        part_id = bridge.part_id if not stays else ""
        work.put("bridge", Bridge(work.ids.new(), target_id, goes, part_id))
    drop_part(work, bridge.part_id)
