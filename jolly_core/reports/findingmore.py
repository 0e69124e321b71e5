"""Pins, places and addresses as they are written, and all that has a name of its own, to be found by it."""

from __future__ import annotations

import re
from collections.abc import Iterator

from jolly_core.drawing import place_in
from jolly_core.model import Project
from jolly_core.plc import channels
from jolly_core.tagging import full_tag, lead_of, path_of, pins_of
from jolly_core.terminals import strips

from .jumping import where_drawn
from .registry import REPORTS

_PIN = re.compile(r"^(?P<tag>\S*[^:\s]):(?P<pin>\S+)$")
_PLACE = re.compile(r"^(?P<sheet>[^\s./]+)[./](?P<rest>[0-9a-z]+)$")
_ADDRESS = re.compile(r"^%?[a-z]{1,3}[\d.:/]+$")

Hit = tuple[str, str, str, str, str]  # kind, label, sheet, what is selected there, bench with what is shown of it


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
                yield "pin", f"{name}:{pin.upper()}", symbol.sheet_id, symbol.id, ""
        lead = lead_of(project, device.id)
        if not drawn and lead and part and pin in (p.lower() for _, pins in part.units for p in pins) and count < most:
            count += 1
            yield "pin", f"{name}:{pin.upper()}  free", lead.sheet_id, lead.id, ""


def _places(project: Project, number: str, typed: str, most: int) -> Iterator[Hit]:
    for sheet in project.sheets_in_order():
        if sheet.number.lower() != number or sheet.kind != "schematic":
            continue
        there = [s for s in project.symbols_on(sheet.id) if place_in(sheet, s.x, s.y).lower() == typed]
        for symbol in sorted(there, key=lambda s: (s.y, s.x))[:most]:
            device = project.devices.get(symbol.device_id)
            name = full_tag(project, device) if device else ""
            yield "place", f"{typed.upper()}  {name}".strip(), sheet.id, symbol.id, ""
        if not there:
            yield "place", f"{sheet.number} {sheet.title}".strip(), sheet.id, "", ""


def _addresses(project: Project, typed: str, most: int) -> Iterator[Hit]:
    count = 0
    for card in project.cards.values():
        for row in channels(project, card.device_id):
            if row.address.lower().startswith(typed) and count < most:
                count += 1
                point = project.io_points.get(row.point_id)
                label = f"{row.address}  {point.tag}  {point.text}" if point else f"{row.address}  spare"
                symbol = project.symbols.get(row.symbol_id)
                sheet, chosen = (symbol.sheet_id, symbol.id) if symbol else ("", "")
                yield "address", label.strip(), sheet, chosen, "" if sheet else "io"


def with_names(project: Project) -> Iterator[Hit]:
    """Yield all that has a name and a place of its own on a bench, with a label that says what it is."""
    for table, kind, mark in ((project.functions, "function", "="), (project.locations, "location", "+")):
        for record in table.values():
            yield kind, f"{path_of(table, record.id, mark)}  {record.text}".strip(), "", "", "brief/structure"
    for harness in project.harnesses.values():
        yield "harness", f"{harness.code}  {harness.text}".strip(), "", "", f"harness?harness={harness.id}"
        for node in project.nodes.values():
            device = project.devices.get(node.device_id)
            if node.harness_id == harness.id and device is not None:
                label = f"{full_tag(project, device)}  in {harness.code}"
                yield "connector", label, "", "", f"harness?harness={harness.id}"
    for strip in strips(project):
        yield "strip", f"{full_tag(project, strip)}  {strip.text}".strip(), "", "", f"terminals?strip={strip.id}"
    for cable in project.cables.values():
        device = project.devices[cable.device_id]
        yield "cable", f"{full_tag(project, device)}  {device.text}".strip(), "", "", f"cables?cable={device.id}"
    for enclosure in project.enclosures.values():
        device = project.devices[enclosure.device_id]
        label = f"{full_tag(project, device)}  {device.text}".strip()
        yield "enclosure", label, "", "", f"cabinet?enclosure={enclosure.id}"
    for card in project.cards.values():
        device = project.devices[card.device_id]
        sheet, chosen = where_drawn(project, device.id)
        yield "card", f"{full_tag(project, device)}  {device.text}".strip(), sheet, chosen, "" if sheet else "io"
    for wire_type in project.wire_types.values():
        words = " ".join((wire_type.name, wire_type.size(), wire_type.colour))
        yield "wire type", words, "", "", "brief/wire-types"
    for stamp in project.stamps.values():
        yield "stamp", stamp.name, "", "", "draw"
    yield from _issued(project)


def _issued(project: Project) -> Iterator[Hit]:
    for key, report in REPORTS.items():
        yield "list", report.title, "", "", f"issue?show={key}"
    for recipe in project.recipes.values():
        yield "recipe", recipe.name, "", "", f"issue?show={recipe.id}"
    for pack in project.packs.values():
        yield "pack", pack.name, "", "", f"issue?show=pack:{pack.id}"
    for revision in project.revisions.values():
        yield "revision", f"{revision.index}  {revision.text}".strip(), "", "", f"issue?show=revision:{revision.id}"
