"""Every row of every list leads to its object, wherever that is shown."""

from __future__ import annotations

from collections import Counter
from unittest import TestCase

from jolly_core.exchange import read_project
from jolly_core.reports import REPORTS, full_report
from jolly_core.reports.findingmore import with_names
from jolly_core.reports.registry import as_row
from jolly_core.testing import DEMO, Workbench
from jolly_server.projects.addresses import address_as, address_of


class Leading(TestCase):
    def test_every_row_of_both_demos_leads_somewhere(self) -> None:
        for file in sorted(DEMO.glob("*.spool.json")):
            project = read_project(file.read_bytes())
            benches: Counter[str] = Counter()
            for key in REPORTS:
                for row in full_report(project, key).rows:
                    address = address_of(project, as_row(row).lead)
                    benches[address.partition("?")[0].partition("/")[0]] += 1
                    self.assertTrue(address, f"{file.name} {key}: {tuple(row)}")
                    if address.startswith("issue?show="):
                        self.assertIn(address.removeprefix("issue?show="), REPORTS)
            self.assertGreater(benches["draw"], 200)

    def test_what_is_found_by_its_name_leads_to_itself_on_its_bench(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        begins = {
            **{"cable": "cables?cable=", "strip": "terminals?strip=", "harness": "harness?harness="},
            **{"connector": "harness?harness=", "enclosure": "cabinet?enclosure=", "card": "io"},
            **{"function": "brief/structure", "location": "brief/structure", "wire type": "brief/wire-types"},
            **{"list": "issue?show=", "recipe": "issue?show=", "pack": "issue?show=pack:"},
        }
        told = set()
        for kind, label, _, id in with_names(project):
            told.add(kind)
            self.assertTrue(address_as(project, kind, id).startswith(begins[kind]), (kind, label))
        self.assertEqual(told, set(begins))

    def test_what_is_drawn_nowhere_is_shown_where_it_is_built_in(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        enclosure = min(project.enclosures)
        rail = next(r for r in project.rails.values() if r.enclosure_id == enclosure)
        self.assertEqual(address_of(project, rail.id), f"cabinet?enclosure={enclosure}")
        harness = min(project.harnesses)
        covering = next(c for c in project.coverings.values() if project.segments[c.segment_id].harness_id == harness)
        self.assertEqual(address_of(project, covering.id), f"harness?harness={harness}")
        part = min(project.parts)
        self.assertEqual(address_of(project, part), f"parts/library?part={part}")
        self.assertEqual((address_of(project, "gone"), address_of(project, "")), ("", ""))

    def test_a_strip_and_a_cable_that_are_not_drawn_yet(self) -> None:
        bench = Workbench()
        place = bench.new("add-location", code="P1", side="panel")
        strip = bench.new("make-strip", location_id=place, count=4, part_id="QL-K2-5")
        self.assertEqual(address_of(bench.project, strip), f"terminals?strip={strip}")
        rows = full_report(bench.project, "terminals").rows
        self.assertEqual({address_of(bench.project, as_row(r).lead) for r in rows}, {f"terminals?strip={strip}"})
