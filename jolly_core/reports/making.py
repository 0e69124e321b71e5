"""Cut list, spools, labels, rail and duct cuts as rows."""

from __future__ import annotations

from jolly_core.cables import cable_conductors, cable_length_m, ends_of, one_core_area_mm2
from jolly_core.library import text_in
from jolly_core.making import Dossier, cut_list, dossiers, labels, not_cut, spool_plan, stock_cuts
from jolly_core.model import Project
from jolly_core.sizing import strip_length_mm
from jolly_core.tagging import full_tag, natural, pin_name

from .building import NO_LENGTH, NO_PART
from .registry import Cell, Column, Row, in_natural_order, report


@report(
    "cut",
    "Cut list",
    "Every panel and harness wire to cut, by type, then length.",
    (
        Column("id", "Piece", 17),
        Column("number", "Wire", 9),
        Column("type", "Type", 14),
        Column("colour", "Colour", 7),
        Column("cross_section", "Cross-section", 11),
        Column("length_mm", "Length mm", 9, number=True),
        Column("start", "From", 18),
        Column("start_strip_mm", "Strip mm", 7, number=True),
        Column("start_termination", "Termination", 11),
        Column("end", "To", 18),
        Column("end_strip_mm", "Strip mm", 7, number=True),
        Column("end_termination", "Termination", 11),
        Column("print_start", "Print at start", 20),
        Column("print_end", "Print at end", 20),
        Column("run", "Runs in", 12),
        Column("missing", "Not cut, because", 30),
    ),
    machine=True,
)
def cut_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the cut list; what should be cut and has no length stands at its end, with the reason."""
    rows: list[tuple[Cell, ...]] = []
    known = dossiers(project)
    for w in cut_list(project):
        start = (w.start, w.start_strip_mm, w.start_termination)
        end = (w.end, w.end_strip_mm, w.end_termination)
        what = (w.id, w.number, w.type_name, w.colour, w.size, w.length_mm)
        rows.append(Row.of((*what, *start, *end, w.print_start, w.print_end, w.run, ""), drawn_as(known[w.key])))
    for d in not_cut(project):
        ends = (d.start.name, d.start.strip_mm, d.start.termination, d.end.name, d.end.strip_mm, d.end.termination)
        facts = ("", d.number, d.type_name, d.colour, d.size, "", *ends, "", "", d.run, d.missing)
        rows.append(Row.of(facts, drawn_as(d), {"length_mm": d.missing}))
    return rows


def drawn_as(dossier: Dossier) -> str:
    """Return the id of what a conductor is drawn as: its wire, else the symbol at its beginning."""
    return dossier.conductor.wire_id or dossier.start.pin[0]


@report(
    "spools",
    "Spools",
    "How much wire of each type is needed, and how many spools that takes.",
    (
        Column("type", "Type", 16),
        Column("colour", "Colour", 8),
        Column("cross_section", "Cross-section", 12),
        Column("wires", "Wires", 7, number=True),
        Column("metres", "Length m", 9, number=True, measure="m"),
        Column("spools", "Spools", 7, number=True),
    ),
)
def spool_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the spool plan."""
    types = {t.name: t.id for t in project.wire_types.values()}
    return [
        Row.of((r.type_name, r.colour, r.size, r.wires, r.metres, r.spools), types.get(r.type_name, ""))
        for r in spool_plan(project)
    ]


@report(
    "labels",
    "Labels",
    "Texts to print for devices, cables and wire ends.",
    (Column("kind", "Kind", 10), Column("text", "Text", 30), Column("where", "For", 30)),
    machine=True,
)
def label_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the label file."""
    return [Row.of((label.kind, label.text, label.where), label.id) for label in labels(project)]


@report(
    "stock",
    "Rail and duct cuts",
    "The pieces of rail and duct to saw.",
    (
        Column("kind", "Kind", 8),
        Column("number", "Part number", 16),
        Column("text", "Description", 34),
        Column("length_mm", "Length mm", 10, number=True),
        Column("quantity", "Qty", 5, number=True),
        Column("stock", "Stock lengths in all", 12, number=True),
    ),
)
def stock_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the rail and duct cut list."""
    return [
        Row.of((c.kind, c.number, c.text, c.length_mm, c.quantity, c.stock), c.part_id) for c in stock_cuts(project)
    ]


@report(
    "cable-cuts",
    "Cable cuts",
    "Every cable to cut: its length, how much of the sheath goes off at each end, how far its cores are stripped.",
    (
        Column("tag", "Cable", 16),
        Column("number", "Part number", 16),
        Column("text", "Description", 32),
        Column("length_m", "Length m", 9, number=True),
        Column("from", "From", 22),
        Column("from_sheath_mm", "Sheath off mm", 9, number=True),
        Column("to", "To", 22),
        Column("to_sheath_mm", "Sheath off mm", 9, number=True),
        Column("strip_mm", "Strip mm", 7, number=True),
        Column("cores", "Cores", 6, number=True),
        Column("shield", "Shield landed", 14),
        Column("missing", "Not cut, because", 26),
    ),
)
def cable_cuts(project: Project) -> list[tuple[Cell, ...]]:
    """Return the rows of the cables to cut, by tag; the sheath goes off as far as the project allows at each wire end.

    Notes:
        A cable without a length or part stands there too, with the reason.
    """
    rows: list[tuple[Cell, ...]] = []
    for cable in project.cables.values():
        device = project.devices[cable.device_id]
        part = project.part_of(device)
        length, _ = cable_length_m(project, cable)
        ends = [ends_of(project, device.id, c) for c in cable_conductors(project, device.id)]
        tags = ({pin_name(project, e[n]).rsplit(":", 1)[0] for e in ends} for n in (0, 1))
        sides = [", ".join(sorted(both, key=natural)) for both in tags]
        area = one_core_area_mm2(part, 1)
        reasons = ["no length"] if not length else []
        reasons += ["no part"] if part is None else []
        off = project.settings.end_allowance_mm + strip_length_mm(area)
        cells: tuple[Cell, ...] = (
            full_tag(project, device),
            part.number if part else "",
            text_in(part, project.settings.part_language) if part else "",
            length or "",
            sides[0],
            off,
            sides[1],
            off,
            strip_length_mm(area),
            len(part.units) if part else len(ends),
            cable.shield_landed,
            ", ".join(reasons),
        )
        rows.append(
            Row.of(cells, device.id, {"number": "" if part else NO_PART, "length_m": "" if length else NO_LENGTH})
        )
    return in_natural_order(rows)
