"""Traces on paper: a page for each load, what is missing said at its place."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.exchange import ITEMS, traces_pdf
from jolly_core.exchange.packitems import files_of
from jolly_core.library import definition
from jolly_core.model import GoneError, Project, RuleError
from jolly_core.reports import trace_table, traced_loads
from jolly_core.tagging import full_tag
from jolly_core.testing import DRYER, FONTS, Workbench, demo, demo_anew

from .reading import page_texts


class OnPaper(TestCase):
    def test_each_load_has_a_page_with_its_members_in_order(self) -> None:
        project = demo()
        motors = [s for s in project.symbols.values() if definition(s.definition).unit == "motor"]
        loads = traced_loads(project)
        self.assertLessEqual({m.id for m in motors}, set(loads))
        pages = page_texts(traces_pdf(project, loads, FONTS))
        self.assertEqual(len(pages), len(loads))
        for id, words in zip(loads, pages, strict=True):
            device = project.devices[project.symbols[id].device_id]
            self.assertIn(f"Trace of {full_tag(project, device)}", words)
            tags = [str(row[1]) for row in trace_table(project, id).rows]
            at = [words.index(tag, words.index("Rating")) for tag in dict.fromkeys(tags)]
            self.assertEqual(len(at), len(set(tags)), "every member stands on the page")

    def test_a_pack_may_hold_them_of_power_or_of_all_loads(self) -> None:
        for project in (demo(), demo_anew(DRYER)):
            (power,) = files_of(project, "traces", "", FONTS)
            (every,) = files_of(project, "traces:all", "pdf", FONTS)
            self.assertEqual(len(page_texts(power.make())), len(traced_loads(project)))
            self.assertEqual(len(page_texts(every.make())), len(traced_loads(project, control=True)))
            self.assertEqual(every.make(), every.make())
            self.assertEqual(list(ITEMS["traces"].kinds), ["all"])
            with self.assertRaisesRegex(RuleError, "of loads of power, or of “all”"):
                files_of(project, "traces:motors", "", FONTS)
        self.assertEqual(files_of(Project(), "traces:all", "", FONTS), [])

    def test_what_is_missing_and_an_earth_that_is_none_are_said(self) -> None:
        bench = Workbench(frame="zones")
        bench.do("place-continuation", sheet_id=bench.sheet, name="L1", x=20, y=20)
        motor = bench.place("motor", 20, 40)
        bench.wire((20, 20), (20, 40))
        table = trace_table(bench.project, motor)
        self.assertIn("MISSING: protection", [row[0] for row in table.rows])
        self.assertTrue(any("COMES TO NO EARTH" in words for words in table.foot), table.foot)
        (page,) = page_texts(traces_pdf(bench.project, [motor], FONTS))
        self.assertIn("MISSING: protection", page)

    def test_what_is_gone_or_takes_no_current_is_refused(self) -> None:
        bench = Workbench(frame="zones")
        with self.assertRaises(GoneError):
            trace_table(bench.project, "gone")
        bench.wire((20, 20), (60, 20))
        (wire,) = bench.project.wires_on(bench.sheet)
        with self.assertRaisesRegex(RuleError, "Nothing here takes a current"):
            trace_table(bench.project, wire.id)

    def test_long_names_are_broken_and_stay_on_the_page(self) -> None:
        bench = Workbench(frame="zones")
        motor = bench.place("motor", 20, 40)
        bench.do("set-tag", device_id=bench.device(motor), tag="M" + "A" * 30 + "9")
        table = trace_table(bench.project, motor)
        (page,) = page_texts(traces_pdf(bench.project, [motor], FONTS))
        self.assertIn(str(table.rows[-1][1])[:20], page.replace("\r\n", ""))
