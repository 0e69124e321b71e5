"""Lists of harnesses beside the connector table: the continuity test, coverings and clips."""

from __future__ import annotations

from jolly_core.harness import builds_of, bundles, covered, harnesses, node_name, probes
from jolly_core.model import Project

from .registry import Cell, Column, Row, report


@report(
    "continuity",
    "Continuity test",
    "Every two pins of a harness that a tester is put to: those that must conduct, then those that must not.",
    (
        Column("harness", "Harness", 10),
        Column("from", "From", 20),
        Column("from_pin", "Cavity", 7),
        Column("to", "To", 20),
        Column("to_pin", "Cavity", 7),
        Column("conducts", "Must conduct", 9),
        Column("wires", "Wires", 24),
        Column("variant", "Variant", 10),
    ),
)
def continuity_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return a row for each two pins to test, harness by harness and variant by variant."""
    return [
        Row.of(
            (
                harness.code,
                *probe.one,
                *probe.other,
                "yes" if probe.conducts else "no",
                ", ".join(probe.wires),
                variant,
            ),
            harness.id,
        )
        for harness in harnesses(project)
        for variant_id, variant, _ in builds_of(project, harness.id)
        for probe in probes(project, harness.id, variant_id)
    ]


@report(
    "coverings",
    "Coverings",
    "What lies over each harness: where, how long it is, and how much of the part it takes.",
    (
        Column("harness", "Harness", 10),
        Column("number", "Part number", 16),
        Column("text", "Description", 38),
        Column("from", "From", 20),
        Column("to", "To", 20),
        Column("begins_mm", "Begins mm", 9, number=True),
        Column("length_mm", "Length mm", 9, number=True),
        Column("takes_mm", "Takes mm", 9, number=True),
        Column("bundle_mm", "Bundle mm", 9, number=True),
    ),
)
def covering_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return a row for each covered stretch, harness by harness."""
    rows: list[tuple[Cell, ...]] = []
    for harness in harnesses(project):
        bundle = bundles(project, harness.id)
        for c in covered(project, harness.id):
            segment = project.segments[c.covering.segment_id]
            ends = [node_name(project, project.nodes[id]) for id in (segment.a_id, segment.b_id)]
            part = (c.part.number, c.part.text) if c.part else ("no part yet", "")
            diameter = round(bundle[segment.id].diameter_mm, 2)
            cells: tuple[Cell, ...] = (harness.code, *part, *ends, c.from_mm, c.length_mm, c.used_mm, diameter)
            rows.append(Row.of(cells, c.covering.id))
    return rows
