"""A net is the same from whichever of its groups one begins, followed once by a name or step by step."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.exchange import read_project
from jolly_core.model import Project
from jolly_core.testing import DEMO, Workbench
from jolly_core.wiring import net_of, sheet_groups
from jolly_core.wiring.nets import _followed


class FromAnyGroup(TestCase):
    def check(self, project: Project) -> set[int]:
        """Look at each group of a project; return how large its nets and potentials are."""
        sizes = set()
        for sheet_id in project.sheets:
            for group in sheet_groups(project, sheet_id).groups:
                for potential in (False, True):
                    net = net_of(project, group.key, potential=potential)
                    self.assertEqual(net, _followed(project, group.key, potential=potential))
                    self.assertIn(group, net)
                    sizes.add(len(net))
        return sizes

    def test_of_the_demos(self) -> None:
        for file in sorted(DEMO.glob("*.spool.json")):
            self.assertGreater(len(self.check(read_project(file.read_bytes()))), 3, file.name)

    def test_of_marks_behind_terminals_on_three_sheets(self) -> None:
        bench = Workbench(frame="zones")
        sheets = [bench.sheet, bench.new("add-sheet", number="2", frame="zones")]
        sheets.append(bench.new("add-sheet", number="3", frame="zones"))
        for n, sheet in enumerate(sheets):
            bench.sheet = sheet
            bench.wire((10, 20), (60, 20))
            bench.place("terminal", 30, 20)
            bench.new("place-continuation", sheet_id=sheet, x=10, y=20, name="L9" if n < 2 else "M9")
        self.assertEqual(self.check(bench.project), {1, 2, 4})
        first = sheet_groups(bench.project, sheets[0]).groups[-1].key
        self.assertEqual(len(net_of(bench.project, first, potential=True)), 4)
