"""Pins, places and addresses as they are written, and all that has a name of its own, to be found by it."""

from __future__ import annotations

import re
from collections.abc import Iterator

from jolly_core.drawing import place_in
from jolly_core.model import Device, Project
from jolly_core.plc import channels
from jolly_core.tagging import full_tag, lead_of, path_of, pins_of
from jolly_core.terminals import strips

from .registry import REPORTS, list_lead

_PIN = re.compile(r"^(?P<tag>\S*[^:\s]):(?P<pin>\S+)$")
_PLACE = re.compile(r"^(?P<sheet>[^\s./]+)[./](?P<rest>[0-9a-z]+)$")
_ADDRESS = re.compile(r"^%?[a-z]{1,3}[\d.:/]+$")

Hit = tuple[str, str, str, str]  # kind, label, the sheet it is on or "", and its id


def exactly(project: Project, words: str, most: int) -> Iterator[Hit]:
    """Yield what is written as a pin ("KF4:13"), a place ("30.301", "30/C4") or an address ("I0.0", "%IW256")."""
    typed = words.strip().lower()
    if match := _PIN.match(typed):
        yield from _pins(project, match["tag"], match["pin"], most)
    elif match := _PLACE.match(typed):
        yield from _places(project, match["sheet"], typed, most)
    if _ADDRESS.match(typed):
        yield from _addresses(project, typed.removeprefix("%"), most)


def _pins(project: Project, tag: str, pin: str, most: int) -> Iterator[Hit]:
    count = 0
    for device in project.devices.values():
        name = full_tag(project, device)
        if not (name.lower() == tag or name.lower().endswith("-" + tag.lstrip("-"))):
            continue
        drawn = [s for s in project.units_of(device.id) if pin in (p.lower() for p in pins_of(project, s))]
        part = project.part_of(device)
        for symbol in drawn:
            if count < most:
                count += 1
                yield "pin", f"{name}:{pin.upper()}", symbol.sheet_id, symbol.id
        lead = lead_of(project, device.id)
        if not drawn and lead and part and pin in (p.lower() for _, pins in part.units for p in pins) and count < most:
            count += 1
            yield "pin", f"{name}:{pin.upper()}  free", lead.sheet_id, lead.id


def _places(project: Project, number: str, typed: str, most: int) -> Iterator[Hit]:
    for sheet in project.sheets_in_order():
        if sheet.number.lower() != number or sheet.kind != "schematic":
            continue
        there = [s for s in project.symbols_on(sheet.id) if place_in(sheet, s.x, s.y).lower() == typed]
        for symbol in sorted(there, key=lambda s: (s.y, s.x))[:most]:
            device = project.devices.get(symbol.device_id)
            name = full_tag(project, device) if device else ""
            yield "place", f"{typed.upper()}  {name}".strip(), sheet.id, symbol.id
        if not there:
            yield "place", f"{sheet.number} {sheet.title}".strip(), sheet.id, ""


def _addresses(project: Project, typed: str, most: int) -> Iterator[Hit]:
    count = 0
    for card in project.cards.values():
        for row in channels(project, card.device_id):
            if row.address.lower().startswith(typed) and count < most:
                count += 1
                point = project.io_points.get(row.point_id)
                label = f"{row.address}  {point.tag}  {point.text}" if point else f"{row.address}  spare"
                symbol = project.symbols.get(row.symbol_id)
                yield "address", label.strip(), *((symbol.sheet_id, symbol.id) if symbol else ("", card.device_id))


def with_names(project: Project) -> Iterator[Hit]:
    """Yield all that has a name and is shown on a bench as it is; of a connector the id is that of its harness."""
    for table, kind, mark in ((project.functions, "function", "="), (project.locations, "location", "+")):
        for record in table.values():
            yield kind, f"{path_of(table, record.id, mark)}  {record.text}".strip(), "", record.id
    for harness in project.harnesses.values():
        yield "harness", f"{harness.code}  {harness.text}".strip(), "", harness.id
    for node in project.nodes.values():
        device = project.devices.get(node.device_id)
        if device is not None:
            code = project.harnesses[node.harness_id].code
            yield "connector", f"{full_tag(project, device)}  in {code}", "", node.harness_id
    for strip in strips(project):
        yield "strip", _called(project, strip), "", strip.id
    for kind in ("cable", "enclosure", "card"):
        for record in project.tables[kind].values():
            id = record.id if kind == "enclosure" else record.device_id
            yield kind, _called(project, project.devices[record.device_id]), "", id
    for wire_type in project.wire_types.values():
        words = " ".join((wire_type.name, wire_type.size(), wire_type.colour))
        yield "wire type", words, "", wire_type.id
    for kind in ("stamp", "recipe", "pack"):
        for record in project.tables[kind].values():
            yield kind, record.name, "", record.id
    for key, report in REPORTS.items():
        yield "list", report.title, "", list_lead(key)
    for revision in project.revisions.values():
        yield "revision", f"{revision.index}  {revision.text}".strip(), "", revision.id


def _called(project: Project, device: Device) -> str:
    return f"{full_tag(project, device)}  {device.text}".strip()
