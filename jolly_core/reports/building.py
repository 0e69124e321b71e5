"""Terminal plan, cable list, core plan, I/O list, connector table as rows."""

from __future__ import annotations

from jolly_core.cables import cable_conductors, cable_cores, cable_drop, cable_length_m, ends_of, pair_names
from jolly_core.drawing import place_in
from jolly_core.harness import connectors_of, harnesses, rows_in
from jolly_core.library import text_in
from jolly_core.model import Project, RuleError
from jolly_core.plc import cards, channels
from jolly_core.tagging import full_tag, natural, pin_name, tag_order
from jolly_core.terminals import Target, placed_sides, strip_rows, strips
from jolly_core.wiring import sheet_groups

from .registry import Cell, Column, Row, in_natural_order, report

NO_PART = "No part is chosen for it."
NO_LENGTH = "Its length is not known yet: type it on the Cables bench."


def joined(targets: list[Target], what: str = "name") -> str:
    """Return a fact of several targets in one cell."""
    return ", ".join(str(v) for t in targets if (v := getattr(t, what)))


@report(
    "terminals",
    "Terminal plan",
    "Every terminal of every strip in order, with what lands on either side.",
    (
        Column("strip", "Strip", 14),
        Column("number", "Terminal", 10),
        Column("field", "Field side", 24),
        Column("cable", "Cable", 14),
        Column("core", "Core", 8),
        Column("panel", "Panel side", 24),
        Column("wire", "Wire", 9),
        Column("bridge", "Bridge", 8),
        Column("place", "Sheet.line", 10),
    ),
)
def terminal_plan(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of all strips in order."""
    rows: list[tuple[Cell, ...]] = []
    for strip in strips(project):
        bridges = {b: str(n) for n, b in enumerate(sorted(project.bridges), start=1)}
        for row in strip_rows(project, strip.id):
            places = [project.symbols[i] for i in row.symbol_ids]
            fields, panels = (", ".join(name for _, name in side) for side in placed_sides(row))
            numbers = {t.conductor.number for t in (*row.panel, *row.field, *row.unknown)} - {""}
            cells = (
                full_tag(project, strip),
                row.number,
                fields,
                joined(row.field, "cable"),
                joined(row.field, "core"),
                panels,
                ", ".join(sorted(numbers, key=natural)),
                ", ".join(bridges[b] for b in row.bridges),
                ", ".join(place_in(project.sheets[s.sheet_id], s.x, s.y) for s in places),
            )
            drawn = "" if places or row.kind != "terminal" else "It is drawn on no sheet yet."
            rows.append(Row.of(cells, places[0].id if places else strip.id, {"place": drawn}))
    return rows


@report(
    "cables",
    "Cable list",
    "Every cable with its part, ends, length and voltage drop.",
    (
        Column("tag", "Cable", 16),
        Column("number", "Part number", 16),
        Column("text", "Description", 32),
        Column("from", "From", 20),
        Column("to", "To", 20),
        Column("used", "Cores used", 10, number=True),
        Column("spare", "Spare", 7, number=True),
        Column("length_m", "Length m", 9, number=True),
        Column("drop", "Voltage drop", 16),
    ),
)
def cable_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the cable list, by tag."""
    rows: list[tuple[Cell, ...]] = []
    for cable in project.cables.values():
        device = project.devices[cable.device_id]
        part = project.part_of(device)
        cores = cable_cores(project, device.id)
        ends = [ends_of(project, device.id, c) for c in cable_conductors(project, device.id)]
        tags = ({pin_name(project, e[n]).rsplit(":", 1)[0] for e in ends} for n in (0, 1))
        sides = [", ".join(sorted(both, key=natural)) for both in tags]
        whys = {"number": "" if part else NO_PART, "text": "" if part else NO_PART, "length_m": NO_LENGTH}
        try:
            drop = cable_drop(project, cable)
            fall = f"{drop.volts:.2f} V = {drop.percent:.2f} %"
        except RuleError as error:
            fall, whys["drop"] = "", error.message
        cells = (
            full_tag(project, device),
            part.number if part else "",
            text_in(part, project.settings.part_language) if part else "",
            *sides,
            sum(1 for r in cores if r.conductor),
            sum(1 for r in cores if r.kind == "core" and not r.conductor),
            cable_length_m(project, cable)[0] or "",
            fall,
        )
        rows.append(Row.of(cells, device.id, whys))
    return in_natural_order(rows)


@report(
    "cores",
    "Core plan",
    "Every core of every cable with both ends; spare ones too.",
    (
        Column("cable", "Cable", 16),
        Column("ordinal", "No", 5, number=True),
        Column("core", "Core", 9),
        Column("pair", "Pair", 5),
        Column("from", "From", 24),
        Column("to", "To", 24),
        Column("number", "Wire", 10),
        Column("type", "Type", 16),
        Column("place", "Sheet.line", 10),
    ),
)
def core_plan(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of all cables, by tag, cores in order."""
    rows: list[tuple[Cell, ...]] = []
    ids = (c.device_id for c in project.cables.values())
    for device_id in sorted(ids, key=lambda i: tag_order(project, project.devices[i])):
        tag = full_tag(project, project.devices[device_id])
        pairs = pair_names(project.part_of(project.devices[device_id]))
        for row in cable_cores(project, device_id):
            c = row.conductor
            core = (tag, row.ordinal, row.called, pairs.get(row.ordinal, ""))
            if c is None:
                spare = (*core, "shield" if row.kind == "shield" else "spare", "", "", "", "")
                rows.append(Row.of(spare, device_id))
                continue
            a, b = ends_of(project, device_id, c)
            wire_type = c.wire_type(project)
            place = place_in(project.sheets[c.sheet_id], *sheet_groups(project, c.sheet_id).points[c.start])
            ends = (pin_name(project, a), pin_name(project, b))
            cells = (*core, *ends, c.number, wire_type.name if wire_type else "", place)
            rows.append(Row.of(cells, c.wire_id or device_id))
    return rows


@report(
    "io",
    "I/O list",
    "Every point with its address, and every spare channel.",
    (
        Column("address", "Address", 9),
        Column("tag", "Point", 12),
        Column("text", "Text", 30),
        Column("type", "Type", 6),
        Column("connected", "Connected", 20),
        Column("card", "Card", 16),
        Column("channel", "Channel", 8, number=True),
        Column("pin", "Pin", 6),
        Column("place", "Sheet.line", 10),
    ),
)
def io_list(project: Project) -> list[tuple[Cell, ...]]:
    """Return the channels card by card, then the points that wait."""
    rows: list[tuple[Cell, ...]] = []
    for card in cards(project):
        tag = full_tag(project, project.devices[card.device_id])
        for row in channels(project, card.device_id):
            point = project.io_points.get(row.point_id)
            symbol = project.symbols.get(row.symbol_id)
            cells = (
                row.address,
                point.tag if point else "",
                point.text if point else "spare",
                row.io_type,
                point.connected if point else "",
                tag,
                row.channel,
                " ".join(row.pins),
                place_in(project.sheets[symbol.sheet_id], symbol.x, symbol.y) if symbol else "",
            )
            whys = {"place": "" if symbol else "The channel is not drawn yet.", "address": "It has no address yet."}
            rows.append(Row.of(cells, row.symbol_id or card.device_id, whys, row.point_id))
    waiting = sorted((p for p in project.io_points.values() if not p.channel), key=lambda p: p.order)
    why = dict.fromkeys(("address", "card", "channel", "pin", "place"), "The point waits for a channel.")
    return rows + [Row.of(("", p.tag, p.text, p.io_type, p.connected, "", "", "", ""), p.id, why) for p in waiting]


@report(
    "connectors",
    "Connector table",
    "Every cavity of every harness connector with its wires and contact.",
    (
        Column("harness", "Harness", 10),
        Column("connector", "Connector", 16),
        Column("part", "Part number", 14),
        Column("cavity", "Cavity", 7),
        Column("wire", "Wire", 10),
        Column("type", "Type", 14),
        Column("to", "To", 20),
        Column("contact", "Contact", 12),
        Column("strip_mm", "Strip mm", 8, number=True),
    ),
)
def connector_table(project: Project) -> list[tuple[Cell, ...]]:
    """Return the cavities connector by connector; a cavity with two wires has two rows."""
    rows: list[tuple[Cell, ...]] = []
    for harness in harnesses(project):
        for device in connectors_of(project, harness.id):
            part = project.part_of(device)
            head = (harness.code, full_tag(project, device), part.number if part else "")
            for row in rows_in(project, harness.id, device.id):
                contact = row.contact.number if row.contact else ""
                for c, far in zip(row.conductors, row.far, strict=True):
                    wire_type = c.wire_type(project)
                    type_name = wire_type.name if wire_type else ""
                    name = pin_name(project, far)
                    cells = (*head, row.cavity, c.number, type_name, name, contact, row.strip_mm)
                    rows.append(Row.of(cells, c.wire_id or device.id))
                if not row.conductors:
                    empty = f"in {row.elsewhere}" if row.elsewhere else "empty"
                    rows.append(Row.of((*head, row.cavity, "", "", empty, "", ""), device.id))
    return rows
