"""The table of wires of a harness, edited in its cells: what is drawn and what stands there are the same wires."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from jolly_core.harness import HarnessWire, node_of, size_words, strand_of, wires_of
from jolly_core.model import Harness, Project, RuleError, counted
from jolly_core.tagging import full_tag, pin_name
from jolly_core.wiring import conductors_at, wires_along

from ..base.edit import ConductorKey, Id, Payload, TextLine, Work, edit
from ..draw.wires import FixWireNumber, fix_wire_number
from ..pieces.deleting import DeleteSelection, delete_selection
from ..project.wiretypes import SetWireType, set_wire_type
from .wires import Ends, WireRow, draw_row, ends_of, known_ends, run_here, say_of_wire, type_for

WireField = Literal["signal", "colour", "size", "start", "end", "twisted", "shield"]


class WireCell(Payload):
    """A cell of the table: the key of its wire, which column, and what is to stand there."""

    id: ConductorKey
    key: WireField
    value: TextLine = ""


class WriteHarnessWires(Payload):
    """Write cells of the table of wires of a harness; another end draws the wire there anew."""

    kind: Literal["write-harness-wires"] = "write-harness-wires"
    harness_id: Id
    cells: list[WireCell] = Field(min_length=1, max_length=5000)


@edit(WriteHarnessWires, {"harness_id": "h1", "cells": [{"id": "y1.0-y2.0", "key": "colour", "value": "BU"}]})
def write_harness_wires(work: Work, payload: WriteHarnessWires) -> str:
    """Work out WriteHarnessWires."""
    harness: Harness = work.project.get("harness", payload.harness_id)
    rows: dict[str, dict[WireField, str]] = {}
    for cell in payload.cells:
        rows.setdefault(cell.id, {})[cell.key] = cell.value.strip()
    # What cells name is what is called so now: a tag by the line it is drawn on becomes another one on the way.
    named = {key: _ends_named(work.project, harness, key, values) for key, values in rows.items()}
    for key, values in rows.items():
        wire = _wire(work.project, harness, key)
        name = wire.conductor.number or _ends(work.project, wire)
        try:
            _write(work, harness, wire, values, named[key])
        except RuleError as error:
            raise RuleError(f"Wire {name}: {error.message}", field=error.field, ids=error.ids) from error
    return f"{counted(len(rows), 'wire')} of {harness.code}"


def _wire(project: Project, harness: Harness, key: str) -> HarnessWire:
    wire = next((w for w in wires_of(project, harness.id) if w.conductor.key == key), None)
    if wire is None:
        raise RuleError(f"This wire of {harness.code} is gone. Look at the table again.", field="cells")
    return wire


def _ends(project: Project, wire: HarnessWire) -> str:
    return f"{pin_name(project, wire.conductor.start)} to {pin_name(project, wire.conductor.end)}"


def _ends_named(project: Project, harness: Harness, key: str, values: dict[WireField, str]) -> Ends | None:
    """Return the pins that a wire is to join, None where they stay or are not known before its turn."""
    if not {"start", "end"} & set(values):
        return None
    return known_ends(project, harness, _row(project, harness, _wire(project, harness, key), values))


def _row(project: Project, harness: Harness, wire: HarnessWire, values: dict[WireField, str]) -> WireRow:
    """Return a wire as it is to be: what is written, and as it is for the rest."""
    c = wire.conductor
    wire_type = c.wire_type(project)
    strand = strand_of(project, harness.id, c.key)
    return WireRow(
        signal=values.get("signal", c.number),
        colour=values.get("colour", wire_type.colour if wire_type else ""),
        size=values.get("size", size_words(wire_type)),
        start=values.get("start", pin_name(project, c.start)),
        end=values.get("end", pin_name(project, c.end)),
        twisted=values.get("twisted", strand.twisted if strand else ""),
        shield=values.get("shield", strand.shield if strand else ""),
    )


def _write(work: Work, harness: Harness, wire: HarnessWire, values: dict[WireField, str], named: Ends | None) -> None:
    c, project = wire.conductor, work.project
    row = _row(project, harness, wire, values)
    if {"start", "end"} & set(values):
        ends = named or ends_of(project, harness, row)
        take_wires_away(work, harness, [wire])
        draw_row(work, harness, row, ends)
        return
    if {"colour", "size"} & set(values):
        set_wire_type(work, SetWireType(ids=[c.wire_id], wire_type_id=type_for(work, row).id))
    if "signal" in values:
        fix_wire_number(work, FixWireNumber(wire_id=c.wire_id, number=row.signal))
    say_of_wire(work, harness.id, c.key, row.twisted, row.shield)


class RemoveHarnessWires(Payload):
    """Take wires of a harness away, by their keys, where they are drawn."""

    kind: Literal["remove-harness-wires"] = "remove-harness-wires"
    harness_id: Id
    wires: list[ConductorKey] = Field(min_length=1, max_length=2000)


@edit(RemoveHarnessWires, {"harness_id": "h1", "wires": ["y1.0-y2.0"]})
def remove_harness_wires(work: Work, payload: RemoveHarnessWires) -> str:
    """Work out RemoveHarnessWires."""
    harness: Harness = work.project.get("harness", payload.harness_id)
    take_wires_away(work, harness, [_wire(work.project, harness, key) for key in payload.wires])
    return f"take {counted(len(payload.wires), 'wire')} out of {harness.code}"


def take_wires_away(work: Work, harness: Harness, wires: list[HarnessWire]) -> None:
    """Take wires away where they are drawn, with cavities on the harness's own sheets that are left without any.

    Raises:
        RuleError: strokes of theirs are those of other wires, too.
    """
    project = work.project
    keys = {w.conductor.key for w in wires}
    strokes = {id for w in wires for id in wires_along(project, w.conductor)}
    for other in wires_of(project, harness.id):
        if other.conductor.key not in keys and strokes & set(wires_along(project, other.conductor)):
            raise RuleError(
                f"It is drawn together with wire {other.conductor.number or _ends(project, other)}. "
                "Change it on its sheet."
            )
    by_sheet: dict[str, set[str]] = {}
    for id in strokes:
        by_sheet.setdefault(project.wires[id].sheet_id, set()).add(id)
    for wire in wires:
        for id in list(project.strands_of.get(wire.conductor.key)):
            work.remove("strand", id)
        for id, pin in (wire.conductor.start, wire.conductor.end):
            sheet = project.sheets[project.symbols[id].sheet_id]
            shared = any(other.key not in keys for other in conductors_at(project, (id, pin)))
            if sheet.harness_id == harness.id and not shared:
                by_sheet.setdefault(sheet.id, set()).add(id)
    for ids in by_sheet.values():
        delete_selection(work, DeleteSelection(ids=sorted(ids)))


class MoveHarnessWires(Payload):
    """Let wires of a harness run in another one that joins their ends, too; by their keys."""

    kind: Literal["move-harness-wires"] = "move-harness-wires"
    harness_id: Id
    wires: list[ConductorKey] = Field(min_length=1, max_length=2000)
    to_id: Id


@edit(MoveHarnessWires, {"harness_id": "h1", "wires": ["y1.0-y2.0"], "to_id": "h2"})
def move_harness_wires(work: Work, payload: MoveHarnessWires) -> str:
    """Work out MoveHarnessWires."""
    project = work.project
    harness: Harness = project.get("harness", payload.harness_id)
    other: Harness = project.get("harness", payload.to_id)
    for key in payload.wires:
        wire = _wire(project, harness, key)
        for id, _ in (wire.conductor.start, wire.conductor.end):
            device = project.devices[project.symbols[id].device_id]
            if node_of(project, device.id, other.id) is None:
                tag = full_tag(project, device)
                raise RuleError(f"{tag} is no end of {other.code}. Add it there first.", ids=(device.id,))
        run_here(work, other.id, key)
    return f"{counted(len(payload.wires), 'wire')} of {harness.code} into {other.code}"
