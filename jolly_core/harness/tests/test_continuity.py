"""The continuity test against the nets that are drawn: whoever probes all pairs finds what it says."""

from __future__ import annotations

import random
from itertools import combinations
from unittest import TestCase

from jolly_core.exchange import read_project
from jolly_core.harness import cavity_rows, connectors_of, pin_groups, probes
from jolly_core.model import Project
from jolly_core.reports import run_report
from jolly_core.tagging import full_tag, pins_of
from jolly_core.testing import DEMO, Workbench
from jolly_core.wiring import all_nets

Pin = tuple[str, str]


class Continuity(TestCase):
    def test_groups_are_the_nets_that_are_drawn(self) -> None:
        chance = random.Random(11)
        sizes = set()
        for _ in range(30):
            b, harness = self.drawn(chance)
            project = b.project
            nets: list[set[Pin]] = [
                {
                    (full_tag(project, project.devices[project.symbols[id].device_id]), self.cavity(project, id))
                    for group in net
                    for id, _ in group.pins
                }
                for net in all_nets(project)
            ]
            found = [set(group) for group, _ in pin_groups(project, harness)]
            self.assertEqual(sum(map(len, found)), 12)
            for net in filter(None, nets):  # a wire that lands nowhere joins nothing
                self.assertIn(net, found)
            sizes |= {len(group) for group in found}
            self.assertTrue(all(len(g) == 1 for g in found if g not in nets))
        self.assertLessEqual({1, 2, 4}, sizes, "empty cavities, wires, and nets of several wires were among them")

    def test_two_wires_that_meet_at_a_pin_that_is_no_cavity_conduct(self) -> None:
        b = Workbench(frame="zones")
        ends = [b.place("connector", x, y, part_id="tamwick-tw-p6") for x, y in ((80, 20), (80, 32))]
        pole = b.place("contact-no", 40, 20, device_id=b.device(ends[0]))
        b.wire((40, 20), (30, 20), (30, 26), (60, 26), (60, 20), (80, 20))
        b.wire((30, 26), (30, 32), (80, 32))
        harness = b.new("add-harness", code="WH-9")
        start = b.new("add-node", harness_id=harness, device_id=b.device(ends[0]))
        b.do("add-node", harness_id=harness, device_id=b.device(ends[1]), from_id=start, length_mm=400)
        self.assertEqual(b.device(pole), b.device(ends[0]))
        joined = [group for group, _ in pin_groups(b.project, harness) if len(group) > 1]
        self.assertEqual(joined, [(("-XD1", "1"), ("-XD2", "1"))])

    @staticmethod
    def cavity(project: Project, symbol_id: str) -> str:
        return pins_of(project, project.symbols[symbol_id])[0]

    def drawn(self, chance: random.Random) -> tuple[Workbench, str]:
        """Return a bench with two housings of six, wired row by row, some rows joined, and their harness."""
        b = Workbench(frame="zones")
        rows = [20 + 4 * n for n in range(6)]
        for y in chance.sample(rows, chance.randint(1, 6)):
            b.wire((40, y), (80, y))
        for n, y in enumerate(rows[:-1]):
            if chance.random() < 0.3:
                b.wire((46 + 4 * n, y), (46 + 4 * n, y + 4))
        harness = b.new("add-harness", code="WH-9")
        start = ""
        for x, rotation in ((40, 180), (80, 0)):
            device = ""
            for y in rows:
                given = {"device_id": device} if device else {"part_id": "tamwick-tw-p6"}
                symbol = b.place("cavity" if device else "connector", x, y, rotation=rotation, **given)
                device = device or b.device(symbol)
            start = b.new("add-node", harness_id=harness, device_id=device, from_id=start, length_mm=200)
        return b, harness

    def test_cavities_beside_all_that_a_housing_has_are_each_their_own(self) -> None:
        b = Workbench(frame="zones")
        rows = (20, 24, 28, 32)
        devices = []
        for x, rotation, part in ((40, 180, "tamwick-tw-p6"), (80, 0, "tamwick-tw-h2s")):
            device = b.device(b.place("connector", x, rows[0], rotation=rotation, part_id=part))
            for y in rows[1:]:
                b.place("cavity", x, y, rotation=rotation, device_id=device)
            devices.append(device)
        for y in rows:
            b.wire((40, y), (80, y))
        harness = b.new("add-harness", code="WH-9")
        start = b.new("add-node", harness_id=harness, device_id=devices[0])
        b.do("add-node", harness_id=harness, device_id=devices[1], from_id=start, length_mm=400)
        joined = [{name for _, name in group} for group, _ in pin_groups(b.project, harness) if len(group) > 1]
        self.assertEqual(joined, [{"1"}, {"2"}], "what has no name is nothing to put a tester to")
        filled = [(row.cavity, len(row.conductors)) for row in cavity_rows(b.project, devices[1])]
        self.assertEqual(filled, [("1", 1), ("2", 1), ("", 1), ("", 1)])

    def test_every_pair_of_the_demo_is_said_once_by_what_is_drawn(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        harness = min(project.harnesses.values(), key=lambda h: h.order)
        groups = pin_groups(project, harness.id)
        pins = [pin for group, _ in groups for pin in group]
        self.assertEqual(len(pins), len(set(pins)))
        group_of = {pin: n for n, (group, _) in enumerate(groups) for pin in group}
        apart = set()
        for probe in probes(project, harness.id):
            one, other = group_of[probe.one], group_of[probe.other]
            self.assertEqual(probe.conducts, one == other)
            if not probe.conducts:
                apart.add(frozenset((one, other)))
        self.assertEqual(apart, {frozenset(pair) for pair in combinations(range(len(groups)), 2)})
        rows = [r for r in run_report(project, "continuity").rows if r[0] == harness.code]
        self.assertEqual(sum(r[5] == "yes" for r in rows), 13)
        tags = {full_tag(project, d) for d in connectors_of(project, harness.id)}
        self.assertEqual({r[1] for r in rows} | {r[3] for r in rows}, tags)
