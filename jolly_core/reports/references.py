"""Cross-references: every place where a device or continuation is drawn."""

from __future__ import annotations

from jolly_core.drawing import place_in, place_on
from jolly_core.library import definition
from jolly_core.model import Continuation, Project, Symbol
from jolly_core.tagging import full_tag, lead_of, natural, pins_of, tag_order

from .registry import Cell, Column, Row, report


@report(
    "references",
    "Cross-references",
    "Every place of every device and continuation, each with where its others are.",
    (
        Column("kind", "Kind", 13),
        Column("tag", "Tag or name", 22),
        Column("what", "Drawn as", 26),
        Column("pins", "Pins", 16),
        Column("sheet", "Sheet", 7),
        Column("place", "Line or zone", 8),
        Column("others", "Also at", 40),
        Column("text", "Text", 28, extra=True),
    ),
)
def cross_references(project: Project) -> list[tuple[Cell, ...]]:
    """Return a row for each place, devices by tag with their lead first, then continuations by name."""
    rows: list[tuple[Cell, ...]] = []
    for device in sorted(project.devices.values(), key=lambda d: tag_order(project, d)):
        symbols = project.units_of(device.id)
        lead = lead_of(project, device.id)
        ordered = sorted(symbols, key=lambda s: (lead is None or s.id != lead.id, _order(project, s)))
        tag = full_tag(project, device)
        for symbol in ordered:
            facts = (tag, definition(symbol.definition).name, " ".join(p for p in pins_of(project, symbol) if p))
            rows.append(_row(project, "device", facts, symbol, symbols, device.text))
        if not ordered:
            cells = ("device", tag, "", "", "", "", "", device.text)
            rows.append(Row.of(cells, device.id, dict.fromkeys(("sheet", "place"), "It is drawn on no sheet.")))
    marks = sorted(project.continuations.values(), key=lambda m: (natural(m.name), _order(project, m), m.id))
    named: dict[str, list[Continuation]] = {}
    for mark in marks:
        named.setdefault(mark.name, []).append(mark)
    return rows + [_row(project, "continuation", (m.name, "", ""), m, named[m.name], "") for m in marks]


def _order(project: Project, thing: Symbol | Continuation) -> tuple[int, int, int]:
    return project.sheets[thing.sheet_id].order, thing.y, thing.x


def _row(
    project: Project,
    kind: str,
    facts: tuple[str, str, str],
    thing: Symbol | Continuation,
    all_of_it: list[Symbol] | list[Continuation],
    text: str,
) -> Row:
    sheet = project.sheets[thing.sheet_id]
    others = sorted((o for o in all_of_it if o.id != thing.id), key=lambda o: _order(project, o))
    places = [place_in(project.sheets[o.sheet_id], o.x, o.y) for o in others]
    also = ", ".join(dict.fromkeys(places))
    lonely = "Nothing of this name is anywhere else." if kind == "continuation" and not others else ""
    cells = (kind, *facts, sheet.number, place_on(sheet, thing.x, thing.y), also, text)
    return Row.of(cells, thing.id, {"others": lonely})
