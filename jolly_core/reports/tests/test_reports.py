"""Parts list, device list, sheet list, wire list."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from jolly_core.exchange import read_project
from jolly_core.model import RuleError
from jolly_core.reports import REPORTS, grouped_reports, run_report, sheet_wires
from jolly_core.testing import DEMO, DEMO_SHEETS, Workbench
from jolly_core.wiring import all_nets


class PartsList(TestCase):
    def rows(self, bench: Workbench) -> list[tuple[object, ...]]:
        rows = [tuple(r) for r in run_report(bench.project, "parts").rows]
        return [r for r in rows if r[6] not in ("Wire", "Ferrule", "Label")]

    def test_equal_parts_are_counted_together_with_their_tags(self) -> None:
        bench = Workbench()
        for line in range(3):
            bench.place("lamp", 40, 16 + 9 * line, part_id="tamwick-tw-l22-g")
        (row,) = self.rows(bench)
        self.assertEqual((row[1], row[4], row[7]), (3, "TW-L22-G", "-PF1, -PF2, -PF3"))

    def test_terminals_are_counted_one_by_one_though_one_device(self) -> None:
        bench = Workbench(frame="zones")
        for i in range(4):
            strip = bench.device(bench.place("terminal", 20 + 6 * i, 20))
        bench.do("assign-part", device_id=strip, part_id="quillon-ql-t4")
        (row,) = self.rows(bench)
        self.assertEqual((row[1], row[4], row[7]), (4, "QL-T4", "-XD1"))

    def test_contacts_do_not_count_and_missing_parts_stand_last(self) -> None:
        bench = Workbench()
        coil = bench.device(bench.place("coil", 60, 16, part_id="hollin-hr-k22"))
        bench.place("contact-no", 20, 25, device_id=coil)
        bench.place("lamp", 40, 34)
        rows = self.rows(bench)
        self.assertEqual([(r[0], r[1], r[4], r[7]) for r in rows], [(1, 1, "HR-K22", "-KF1"), (2, 1, "", "-PF1")])
        self.assertEqual(rows[1][5], "no part chosen yet")

    def test_a_part_nobody_uses_any_more_is_gone(self) -> None:
        bench = Workbench()
        lamp = bench.place("lamp", 40, 16, part_id="tamwick-tw-l22-g")
        bench.do("assign-part", device_id=bench.device(lamp), part_id="tamwick-tw-l22-r")
        self.assertEqual([r[4] for r in self.rows(bench)], ["TW-L22-R"])
        bench.do("delete-selection", ids=[lamp])
        self.assertEqual(self.rows(bench), [])


class WireList(TestCase):
    def setUp(self) -> None:
        self.project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())

    def test_every_net_has_one_conductor_less_than_pins(self) -> None:
        pins = [sum(len(g.pins) for g in net) for net in all_nets(self.project)]
        rows = run_report(self.project, "wires").rows
        self.assertEqual(len(rows), sum(max(0, n - 1) for n in pins))

    def test_numbers_stand_as_a_person_counts(self) -> None:
        numbers = [str(r[0]) for r in run_report(self.project, "wires").rows]
        self.assertLess(numbers.index("10-9"), numbers.index("10-10"))
        self.assertLess(numbers.index("10-17"), numbers.index("3011"))

    def test_the_sheet_list_of_conductors_agrees_with_the_whole(self) -> None:
        whole = {frozenset((str(r[1]), str(r[2]))) for r in run_report(self.project, "wires").rows}
        sheets = set()
        for sheet in self.project.sheets_in_order():
            sheets |= {c.number for c in sheet_wires(self.project, sheet.id)}
        self.assertEqual(sheets, {str(r[0]) for r in run_report(self.project, "wires").rows})
        self.assertIn(frozenset(("=K2+KP2-FQ1:96", "=K2+KP2-QA1:A1")), whole)

    def test_type_colour_and_size_come_from_the_drawn_wire(self) -> None:
        row = next(r for r in run_report(self.project, "wires").rows if "MA1:PE" in str(r[2]))
        self.assertEqual(row[3:6], ("Protective", "GNYE", "2.5 mm²"))
        bench = Workbench()
        gauge = bench.new("add-wire-type", name="Control AC", colour="RD", awg="16")
        self.assertEqual(bench.project.wire_types[gauge].size(), "AWG 16")


class Others(TestCase):
    def test_devices_and_sheets(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        devices = {str(r[0]): r for r in run_report(project, "devices").rows}
        self.assertEqual(devices["=K2+KP2-QA1"][1:], ("Auger run", "Brindlework", "BW-C09-24D-31", "30.301"))
        self.assertEqual(len(devices), len(project.devices))
        sheets = run_report(project, "sheets").rows
        self.assertEqual([r[0] for r in sheets], DEMO_SHEETS)
        self.assertEqual(sheets[3][2:4], ("=K2", "+KP2"))
        self.assertEqual(run_report(project, "snags").rows, [])

    def test_an_unknown_report_lists_those_there_are(self) -> None:
        with self.assertRaises(RuleError) as caught:
            run_report(Workbench().project, "rocket")
        for key in REPORTS:
            self.assertIn(key, caught.exception.message)


class Offered(TestCase):
    def test_every_report_stands_once_in_a_group_and_those_of_packages_at_the_end(self) -> None:
        offered = [(group, report.key) for group, report in grouped_reports()]
        self.assertEqual(sorted(key for _, key in offered), sorted(REPORTS))
        self.assertEqual([key for group, key in offered if group == "More"], [])
        self.assertEqual([key for group, key in offered if group == "Buying"][:2], ["parts", "parts-by-place"])
        REPORTS["moisture"] = replace(REPORTS["parts"], key="moisture")
        self.addCleanup(REPORTS.pop, "moisture")
        self.assertEqual(grouped_reports()[-1], ("More", REPORTS["moisture"]))
