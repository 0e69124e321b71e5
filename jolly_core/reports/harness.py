"""Lists of harnesses beside the connector table: the continuity test."""

from __future__ import annotations

from jolly_core.harness import harnesses, probes
from jolly_core.model import Project

from .registry import Cell, Column, report


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
    ),
)
def continuity_rows(project: Project) -> list[tuple[Cell, ...]]:
    """Return a row for each two pins to test, harness by harness."""
    return [
        (harness.code, *probe.one, *probe.other, "yes" if probe.conducts else "no", ", ".join(probe.wires))
        for harness in harnesses(project)
        for probe in probes(project, harness.id)
    ]
