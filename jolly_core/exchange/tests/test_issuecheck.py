"""The check before issue: what would be wrong on paper, by weight and by name."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase
from unittest.mock import patch

from jolly_core.exchange import Finding, issue_check, outside, read_project
from jolly_core.model import Pack, Project
from jolly_core.testing import DEMO, FONTS, Workbench, rebuilt


def found(project: Project, *stale: str) -> dict[str, Finding]:
    return {f.code: f for f in issue_check(project, FONTS, stale)}


class Check(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(number="7", name="Kiln", customer="Pellwick", revision="A")
        self.bench.do("change-sheet", sheet_id=self.bench.sheet, title="Lamps")
        self.bench.do("place-note", sheet_id=self.bench.sheet, x=30, y=70, text="Lamps of the panel")

    def test_a_clean_project_has_nothing_to_say(self) -> None:
        self.assertEqual(issue_check(self.bench.project, FONTS), [])

    def test_what_is_said_of_several_is_said_once_and_each_sentence_leads_to_its_own_place(self) -> None:
        contacts = [self.bench.place("contact-nc", 40, y) for y in (20, 30, 40)]
        other = self.bench.place("contact-no", 60, 20)
        finding = found(self.bench.project)["snags-error"]
        lead = dict(zip(finding.names, finding.leads, strict=True))
        self.assertIn(lead["An NC contact belongs to no device yet (3 times)"], contacts)
        self.assertEqual(lead["An NO contact belongs to no device yet."], other)
        self.assertIn("An NC contact belongs to no device yet (3 times); An NO contact", finding.sentence)
        self.assertNotIn(".;", finding.sentence)

    def test_errors_come_before_warnings_and_notes(self) -> None:
        self.bench.do("change-sheet", sheet_id=self.bench.sheet, title="")
        one, other = (self.bench.device(self.bench.place("lamp", 40, y)) for y in (16, 25))
        self.bench.do("set-tag", device_id=other, tag="PF1")
        self.assertNotEqual(one, other)
        weights = [f.weight for f in issue_check(self.bench.project, FONTS)]
        self.assertEqual(weights, sorted(weights, key=("error", "warning", "note").index))
        codes = found(self.bench.project)
        self.assertEqual(codes["no-part"].words, "2 devices have no part")
        self.assertEqual(codes["no-part"].leads, (one, other))
        self.assertEqual(codes["no-title"].names, ("sheet 30",))
        self.assertIn("snags-error", codes)

    def test_what_stands_on_strips_is_not_counted_among_devices(self) -> None:
        for y in (16, 30):
            self.bench.wire((30, y), (50, y))
        self.bench.do("place-terminals", sheet_id=self.bench.sheet, x1=40, y1=14, x2=40, y2=32)
        self.assertEqual(found(self.bench.project)["no-part"].words, "2 pieces on strips have no part")
        self.bench.place("lamp", 60, 16)
        self.assertEqual(found(self.bench.project)["no-part"].words, "1 device and 2 pieces on strips have no part")

    def test_wires_without_a_length_are_named_and_lead_to_their_wire(self) -> None:
        project = read_project((DEMO / "sample-store-dehumidifier.spool.json").read_bytes())
        self.assertEqual(found(project), {}, "all has its length")
        self.bench.project = project
        self.bench.do("remove-from-layout", ids=list(project.placings))
        uncut = found(project)["uncut"]
        self.assertEqual((uncut.words, len(uncut.names)), ("45 wires have no length", 45))
        self.assertIn("211 TB21:1 to DS21:1", uncut.sentence)
        self.assertTrue(all(lead in project.wires or lead in project.symbols for lead in uncut.leads))

    def test_cables_without_a_length_cannot_be_ordered_and_are_named(self) -> None:
        project = read_project((DEMO / "sample-store-dehumidifier.spool.json").read_bytes())
        cables = sorted(project.cables.values(), key=lambda c: c.device_id)
        project.load("cable", [replace(c, length_m=0.0) for c in cables[:2]])
        endless = found(rebuilt(project))["no-length"]
        self.assertEqual((endless.weight, endless.sentence), ("warning", "2 cables have no length: CBL1, CBL2"))
        self.assertEqual(endless.leads, tuple(c.device_id for c in cables[:2]))

    def test_a_text_beyond_the_paper_is_an_error_with_its_sheet(self) -> None:
        self.bench.do("place-note", sheet_id=self.bench.sheet, x=160, y=30, text="A note that goes on beyond the edge")
        off = found(self.bench.project)["off-paper"]
        self.assertEqual((off.weight, off.leads), ("error", (self.bench.sheet,)))
        self.assertIn("on sheet 30", off.names[0])

    def test_a_text_that_is_cut_short_for_want_of_room_is_told_with_its_sheet(self) -> None:
        self.bench.place("lamp", 40, 16, text="Circulation fan of the lower drum, " * 5)
        cut = found(self.bench.project)["cut-short"]
        self.assertEqual((cut.weight, cut.leads[0]), ("warning", self.bench.sheet))
        self.assertRegex(cut.names[0], "^“.*…” on sheet 30$")

    def test_a_text_that_is_typed_so_is_not_cut_short(self) -> None:
        self.bench.place("lamp", 40, 16, text="Wait for the kiln…")
        self.assertNotIn("cut-short", found(self.bench.project))

    def test_names_that_have_no_room_at_the_scale_of_their_sheet_are_counted(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        self.assertNotIn("no-room", found(project))
        own = {project.devices[e.device_id].part_id for e in project.enclosures.values()}
        parts = [project.parts[id] for id in own]
        project.load("part", [replace(p, width_mm=p.width_mm * 14, height_mm=p.height_mm * 14) for p in parts])
        room = found(rebuilt(project))["no-room"]
        self.assertRegex(room.words, "^[0-9]+ names have no room at the scale of the sheet$")
        self.assertTrue(all(project.sheets[lead].kind == "panel-layout" for lead in room.leads))
        self.assertRegex(room.names[0], r"^[0-9]+ names? on sheet 8\d\.\d$")

    def test_sheets_that_have_nothing_to_show_are_errors_that_say_why(self) -> None:
        empty = self.bench.new("add-sheet", number="40", sheet_kind="panel-layout", title="Layout", size="A4")
        long = self.bench.new(
            "add-sheet", number="41", sheet_kind="report", title="Devices", report="devices", size="A4"
        )
        self.assertEqual(found(self.bench.project)["bare"].names, ("sheet 40: Choose the enclosure this sheet shows.",))
        with patch("jolly_core.scenes.set.made.MOST_ROWS", 0):
            self.bench.place("lamp", 40, 16)
            bare = found(self.bench.project)
            self.assertEqual((bare["bare"].weight, bare["bare"].leads), ("error", (empty, long)))
            self.assertRegex(bare["bare"].names[1], "sheet 41: “Device list” has 1 row, too many for sheets")
            self.assertNotIn("off-paper", bare)

    def test_sheets_on_which_nothing_is_drawn_but_their_rails_are_noted(self) -> None:
        rails = self.bench.new("add-sheet", number="40", title="Fans to come", frame="ladder")
        self.bench.wire((20, 10), (20, 90), sheet_id=rails)
        blank = found(self.bench.project)["blank"]
        self.assertEqual((blank.weight, blank.sentence), ("note", "1 sheet has nothing drawn on it: sheet 40"))
        self.assertEqual(blank.leads, (rails,))
        self.bench.do("place-note", sheet_id=rails, x=30, y=60, text="Left blank")
        self.assertNotIn("blank", found(self.bench.project))

    def test_letters_that_no_face_has_are_told_by_their_code(self) -> None:
        self.bench.do("place-note", sheet_id=self.bench.sheet, x=30, y=60, text="Lüfter Ω 温度 \U00020001")
        letters = found(self.bench.project)["letters"]
        self.assertEqual(letters.names, ("\U00020001 (U+20001)",))

    def test_sheets_that_changed_since_the_revision_whose_index_they_bear_are_told(self) -> None:
        new = self.bench.new("add-sheet", number="40", title="Fan")
        self.bench.do("freeze-revision", index="A", sheet_ids=[self.bench.sheet], text="First", reason="test")
        codes = {f.code: f for f in issue_check(self.bench.project, FONTS, (), [self.bench.sheet, new])}
        self.assertEqual(codes["same-index"].words, "1 sheet has changed since revision A without a new index")
        self.assertEqual(codes["same-index"].names, ("sheet 30, index A",), "a new one bears none yet")
        self.assertNotIn("same-index", found(self.bench.project))

    def test_stale_parts_and_many_things_are_counted_but_not_all_named(self) -> None:
        stale = found(self.bench.project, *(f"P{n}" for n in range(10, 0, -1)))["stale"]
        self.assertEqual(stale.words, "10 parts differ from the library")
        self.assertEqual(stale.sentence, "10 parts differ from the library: P1, P2, P3, P4, P5, P6 and 4 more")

    def test_an_empty_project_says_that_nothing_can_be_issued(self) -> None:
        codes = found(Project())
        self.assertEqual(codes["no-sheets"].weight, "error")
        self.assertIn("no-number", codes)

    def test_both_demos_are_whole_on_paper(self) -> None:
        for file in sorted(DEMO.glob("*.spool.json")):
            with self.subTest(file.name):
                codes = found(read_project(file.read_bytes()))
                self.assertFalse({"off-paper", "cut-short", "letters", "snags-error"} & codes.keys())

    def test_sheets_that_no_drawing_of_a_pack_has_are_named(self) -> None:
        self.bench.new("add-sheet", number="1", sheet_kind="cover")
        plans = Pack("p", "P", ({"what": "plans", "format": "pdf"},))
        self.assertEqual(outside(self.bench.project, plans), ["30", "1"])
        self.assertEqual(outside(self.bench.project, Pack("p", "P", ({"what": "drawings"},))), [])
        self.assertEqual(outside(self.bench.project, Pack("p", "P", ({"what": "report:parts"},))), [])
