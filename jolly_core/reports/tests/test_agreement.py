"""Lists agree with each other: what one names the others name, once, on the demos and on any project."""

from __future__ import annotations

from collections import Counter
from typing import Any
from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from jolly_core.cables import cable_conductors
from jolly_core.edits.tests.sequences import acts
from jolly_core.exchange import read_project
from jolly_core.making import RUNS, cut_list, dossiers, not_cut
from jolly_core.model import CoreError, Project
from jolly_core.reports import REPORTS
from jolly_core.tagging import full_tag, pin_name
from jolly_core.terminals import strip_rows, strips
from jolly_core.testing import DEMO
from jolly_core.testing.strange import Workshop, perform_act


def rows(project: Project, key: str) -> list[dict[str, Any]]:
    """Return the rows of a report by column, lengths in mm whatever the project writes."""
    found = REPORTS[key]
    return [dict(zip((c.key for c in found.columns), row, strict=True)) for row in found.build(project)]


class Agreement(TestCase):
    def agree(self, project: Project) -> None:
        self.wires_and_pieces(project)
        self.cables_and_cores(project)
        self.wires_and_terminals(project)
        self.devices_and_labels(project)

    def wires_and_pieces(self, project: Project) -> None:
        """Each conductor is a row of the wire list, and is cut, not cut with a reason, a core, or plugged on."""
        known = dossiers(project)
        ends = Counter((d.number, d.start.name, d.end.name) for d in known.values())
        listed = Counter((str(r["number"]), str(r["from"]), str(r["to"])) for r in rows(project, "wires"))
        self.assertEqual(listed, ends)
        kept = [d.key for d in known.values() if d.runs in ("cable", "direct")]
        pieces = [w.key for w in cut_list(project)] + [d.key for d in not_cut(project)]
        self.assertEqual(Counter([*kept, *pieces]), Counter(list(known)))
        self.assertTrue({d.runs for d in known.values()} <= set(RUNS))
        cut = rows(project, "cut")
        self.assertEqual(len(cut), len(pieces))
        self.assertTrue(all(bool(r["missing"]) != bool(r["length_mm"]) for r in cut))
        metres = sum(r["metres"] for r in rows(project, "spools"))
        self.assertAlmostEqual(metres, sum(w.length_mm for w in cut_list(project)) / 1000, delta=0.01)

    def cables_and_cores(self, project: Project) -> None:
        """The core plan has each conductor of each cable once, and counts as the cable list does."""
        plan = rows(project, "cores")
        for cable in rows(project, "cables"):
            mine = [r for r in plan if r["cable"] == cable["tag"]]
            used = [r for r in mine if r["to"]]
            self.assertEqual(len(used), cable["used"], cable["tag"])
            self.assertEqual(sum(r["from"] == "spare" for r in mine), cable["spare"], cable["tag"])
        drawn: Counter[str] = Counter()
        for record in project.cables.values():
            tag = full_tag(project, project.devices[record.device_id])
            drawn[tag] += len(cable_conductors(project, record.device_id))
        self.assertEqual(Counter(r["cable"] for r in plan if r["to"]), +drawn)

    def wires_and_terminals(self, project: Project) -> None:
        """Each end of a conductor on a terminal of a strip is on the terminal plan, there and once."""
        rows_of = {strip.id: strip_rows(project, strip.id) for strip in strips(project)}
        places = {id: strip for strip, found in rows_of.items() for row in found for id in row.symbol_ids}
        landed = Counter(
            (places[pin[0]], pin_name(project, conductor.other(pin)), conductor.number)
            for conductor in (d.conductor for d in dossiers(project).values())
            for pin in (conductor.start, conductor.end)
            if pin[0] in places
        )
        planned = Counter(
            (strip, target.name, target.conductor.number)
            for strip, found in rows_of.items()
            for row in found
            for target in (*row.panel, *row.field, *row.unknown)
        )
        self.assertEqual(planned, landed)
        in_words = ", ".join(f"{r['field']}, {r['panel']}" for r in rows(project, "terminals"))
        for _, name, _ in landed:
            self.assertIn(name, in_words)

    def devices_and_labels(self, project: Project) -> None:
        """Every device, every terminal, both ends of every cable and of every piece have their label."""
        labels = rows(project, "labels")
        texts = {k: Counter(r["text"] for r in labels if r["kind"] == k) for k in ("device", "cable", "terminal")}
        cables = Counter(r["tag"] for r in rows(project, "cables"))
        self.assertEqual(texts["cable"], cables + cables)
        devices = Counter(full_tag(project, d) for d in project.devices.values())
        self.assertEqual(texts["device"] + cables, devices)
        terminals = [r for s in strips(project) for r in strip_rows(project, s.id) if r.kind == "terminal"]
        self.assertEqual(texts["terminal"], Counter(r.number for r in terminals))
        pieces = [w for w in labels if w["kind"] == "wire"]
        self.assertEqual(len(pieces), 2 * len(cut_list(project)))

    def test_of_both_demos(self) -> None:
        for name in ("pellwick-kiln-2", "sample-store-dehumidifier"):
            with self.subTest(name):
                self.agree(read_project((DEMO / f"{name}.spool.json").read_bytes()))

    def test_of_an_empty_project(self) -> None:
        self.agree(Project())

    @settings(max_examples=120, deadline=None, suppress_health_check=[HealthCheck.too_slow])
    @given(st.lists(acts("strips", "cables", "points", "cabinet", "harness", "anything"), min_size=2, max_size=20))
    def test_of_any_project(self, sequence: list[tuple[Any, ...]]) -> None:
        bench = Workshop()
        for act in sequence:
            try:
                perform_act(bench, *act)
            except (CoreError, ValidationError):
                continue
        self.agree(bench.project)
