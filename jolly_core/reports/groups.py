"""In which groups and order reports are offered: as the job goes, from the set to the shop."""

from __future__ import annotations

from typing import Final

from .registry import REPORTS, Report

GROUPS: Final[dict[str, tuple[str, ...]]] = {
    "The set": ("sheets", "project", "references"),
    "Buying": ("parts", "parts-by-place", "devices", "spares"),
    "Wiring": ("wires", "wiring", "wire-types"),
    "Terminals and cables": ("terminals", "cables", "cores", "cable-cuts"),
    "Points": ("io", "addresses", "cards", "spare-channels", "wiring-check"),
    "Harnesses": (
        "connectors",
        "harness-wires",
        "harness-parts",
        "coverings",
        "assembly",
        "harness-labels",
        "continuity",
    ),
    "Workshop": ("cut", "spools", "labels", "nameplates", "stock", "cutting", "holes", "weights"),
    "Snags": ("snags", "muted"),
}
MORE: Final = "More"  # of packages


def grouped_reports() -> list[tuple[str, Report]]:
    """Return every report with its group, in the order in which they are offered; those of packages stand last."""
    known = [(name, REPORTS[key]) for name, keys in GROUPS.items() for key in keys if key in REPORTS]
    named = {report.key for _, report in known}
    return known + [(MORE, report) for key, report in REPORTS.items() if key not in named]
