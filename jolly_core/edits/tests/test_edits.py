"""Single edits: the quick line, structure, refusals; and that every edit is complete."""

from __future__ import annotations

from dataclasses import replace
from typing import get_args
from unittest import TestCase

from pydantic import ValidationError

from jolly_core.checks import all_snags
from jolly_core.edits import EDITS, AnyEdit, compute, parse_edit
from jolly_core.model import ConflictError, GoneError, Project, RuleError
from jolly_core.reports import run_report
from jolly_core.testing import Workbench
from jolly_core.wiring import sheet_groups

from ..base.history import take_back
from ..draw.offers import offers
from ..draw.quickline import parse


class Registry(TestCase):
    def test_every_edit_is_in_the_union_and_has_help_and_a_valid_example(self) -> None:
        union = {t.model_fields["kind"].default for t in get_args(get_args(AnyEdit)[0])}
        self.assertEqual(union, set(EDITS))
        for kind, edit in EDITS.items():
            self.assertTrue(edit.help, kind)
            self.assertEqual(parse_edit(edit.example).__class__, edit.payload)

    def test_unknown_kinds_fields_and_control_characters_are_refused(self) -> None:
        for raw in (
            {"kind": "explode"},
            {"kind": "set-text", "device_id": "d", "text": "x", "more": 1},
            {"kind": "set-text", "device_id": "d", "text": "a\x07b"},
            {"kind": "set-text", "device_id": "d", "text": "x" * 201},
            {"kind": "draw-wire", "sheet_id": "s", "points": [[1, 1]], "wire_type_id": "t"},
        ):
            with self.assertRaises(ValidationError):
                parse_edit(raw)

    def test_an_edit_that_names_what_is_not_there_is_gone_and_changes_nothing(self) -> None:
        project = Project()
        with self.assertRaises(GoneError):
            compute(project, parse_edit({"kind": "set-text", "device_id": "nobody", "text": "x"}))
        self.assertEqual(len(list(project.entities())), 1)

    def test_a_no_op_says_so(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 40, 16, text="Fan")
        with self.assertRaisesRegex(RuleError, "Nothing would change"):
            bench.do("set-text", device_id=bench.device(coil), text="Fan")


class QuickLine(TestCase):
    def test_items_texts_devices_and_parts(self) -> None:
        found = parse('nc "Stop, main", no @QA1 , lamp "Runs" #TW-L22-G')
        self.assertEqual([(i.words, i.text, i.device, i.part) for i in found][0], ("nc", "Stop, main", "", ""))
        self.assertEqual([i.device for i in found], ["", "QA1", ""])
        self.assertEqual(found[2].part, "TW-L22-G")

    def test_rows_what_lies_beside_and_the_last_coil(self) -> None:
        found = parse('nc"Stop",no"Start, left"|no,coil"Run";no@,lamp')
        self.assertEqual(
            [(i.words, i.row, i.beside, i.device) for i in found][2:5],
            [
                ("no", 0, True, ""),
                ("coil", 0, False, ""),
                ("no", 1, False, "@"),
            ],
        )

    def test_a_whole_latch_in_one_line(self) -> None:
        bench = Workbench(rails=True)
        line = 'nc"Stop",no"Start"|no,coil"Run";no@,lamp"Runs";nc@,lamp"Stopped"'
        outcome = bench.do("place-row", sheet_id=bench.sheet, x=20, y=16, line=line, wire_type_id=bench.blue)
        drawn = [(bench.symbol(i).definition, bench.tag(i), bench.symbol(i).y) for i in outcome.placed]
        self.assertEqual(
            drawn[2:],
            [
                ("coil", "KF1", 16),
                ("contact-no", "KF1", 25),
                ("contact-no", "KF1", 34),
                ("lamp", "PF1", 34),
                ("contact-nc", "KF1", 43),
                ("lamp", "PF2", 43),
            ],
        )
        self.assertEqual(outcome.caret, (20, 52))
        self.assertTrue(bench.canonical())
        latch = bench.symbol(outcome.placed[3])
        start = bench.symbol(outcome.placed[1])
        groups = sheet_groups(bench.project, bench.sheet).of_pin
        for pin in (0, 1):
            self.assertEqual(groups[latch.id, pin], groups[start.id, pin], "the holding contact is parallel to start")

    def test_faults_name_the_item(self) -> None:
        for line, words in (
            ("", "Type symbols"),
            ('nc "Stop', "not closed"),
            ('nc, "only"', "Item 2"),
            ("|no", "Item 1 lies beside nothing"),
            ("nc|no|no", "Item 3 lies beside nothing"),
        ):
            with self.assertRaisesRegex(RuleError, words):
                parse(line)

    def row(self, bench: Workbench, line: str, y: int = 16) -> list[str]:
        placed = bench.do("place-row", sheet_id=bench.sheet, x=20, y=y, line=line, wire_type_id=bench.blue).placed
        return [bench.symbol(p).definition for p in placed]

    def test_rung_from_rail_to_rail_with_the_load_at_the_right(self) -> None:
        bench = Workbench(rails=True)
        self.assertEqual(self.row(bench, "nc, no, coil"), ["button-nc", "button-no", "coil"])
        sheet = bench.project.sheets[bench.sheet]
        coil = next(s for s in bench.project.symbols.values() if s.definition == "coil")
        self.assertEqual(coil.x, sheet.rail_right - 8)
        self.assertIn((coil.x + 4, 16, sheet.rail_right, 16), bench.spans())
        self.assertEqual(self.row(bench, 'no @KF1, lamp "Runs" #TW-L22-G', 25), ["contact-no", "lamp"])
        lamp = next(d for d in bench.project.devices.values() if d.letters == "PF")
        self.assertEqual((lamp.text, bench.project.parts[lamp.part_id].number), ("Runs", "TW-L22-G"))

    def test_unknown_words_devices_and_parts_are_refused_whole(self) -> None:
        bench = Workbench(rails=True)
        for line in ("nc, frobnicator", "no @KF9", "lamp #NO-SUCH"):
            with self.assertRaises(RuleError):
                self.row(bench, line)
        self.assertEqual(bench.project.devices, {})


class Structure(TestCase):
    def test_sheet_numbers_are_unique_and_deleting_takes_all_with_it(self) -> None:
        bench = Workbench(rails=True)
        with self.assertRaisesRegex(RuleError, "already a sheet 30"):
            bench.do("add-sheet", number="30")
        coil = bench.place("coil", 40, 16, part_id="hollin-hr-k22")
        self.assertTrue(bench.project.parts)
        bench.do("delete-sheet", sheet_id=bench.symbol(coil).sheet_id)
        self.assertEqual((bench.project.symbols, bench.project.devices, bench.project.parts), ({}, {}, {}))

    def test_structure_codes_are_unique_under_their_parent(self) -> None:
        bench = Workbench()
        top = bench.new("add-function", code="K2")
        bench.do("add-function", code="S", parent_id=top)
        with self.assertRaises(RuleError):
            bench.do("add-function", code="S", parent_id=top)
        bench.do("add-location", code="KP2")
        with self.assertRaises(RuleError):
            bench.do("add-location", code="KP2")
        with self.assertRaises(RuleError):
            bench.do("add-wire-type", name="Control", colour="BU")

    def test_a_new_standard_changes_letters(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 40, 16)
        bench.do("change-settings", standard="na")
        self.assertEqual(bench.tag(coil), "CR1")


class TakingBack(TestCase):
    def test_refused_when_the_thing_changed_since(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 40, 16)
        placed = bench.done[-1].changes
        bench.do("set-text", device_id=bench.device(coil), text="Fan")
        with self.assertRaisesRegex(ConflictError, "device"):
            take_back(bench.project, placed)

    def test_refused_when_something_since_needs_it(self) -> None:
        bench = Workbench()
        sheet = bench.new("add-sheet", number="31")
        made = bench.done[-1].changes
        bench.place("coil", 40, 16, sheet_id=sheet)
        with self.assertRaisesRegex(ConflictError, "sheet 31"):
            take_back(bench.project, made)


class Strangers(TestCase):
    """A terminal is a unit of a strip and of nothing else."""

    def test_a_terminal_of_what_is_no_strip_is_refused_with_nothing_changed(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 70, 16, part_id="hollin-hr-k2")
        strip = bench.place("terminal", 20, 16)
        before = bench.spans(bench.sheet)
        for key in ("terminal", "terminal-fuse"):
            with self.assertRaisesRegex(RuleError, "-KF1 is none .relay.. Choose a strip"):
                bench.place(key, 40, 16, device_id=bench.device(coil))
        with self.assertRaisesRegex(RuleError, "belongs to a terminal strip"):
            bench.do("belong-to", symbol_id=strip, device_id=bench.device(coil))
        self.assertEqual(bench.spans(bench.sheet), before)
        bench.place("terminal", 40, 16, device_id=bench.device(strip))

    def test_one_in_a_stored_project_is_told_and_the_part_is_bought_all_the_same(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 70, 16, part_id="hollin-hr-k2")
        terminal = bench.symbol(bench.place("terminal", 20, 16))
        bench.project.load("symbol", [replace(terminal, device_id=bench.device(coil), units=(0,))])
        self.assertIn("terminal-no-strip", {s.code for s in all_snags(bench.project)})
        bought = {row[4]: row[1] for row in run_report(bench.project, "parts").rows}
        self.assertEqual(bought["HR-K2"], 1)


class Offers(TestCase):
    def test_units_of_devices_first_then_leads_then_loose(self) -> None:
        bench = Workbench()
        bench.place("coil", 70, 16, text="Fan run")
        found = offers(bench.project, "no", bench.sheet, [])
        self.assertEqual((found[0].definition, found[0].tag, found[0].note), ("contact-no", "-KF1", "13-14, at 30.301"))
        self.assertIn("button-no", [o.definition for o in found])
        self.assertEqual(found[-1].note, "drawn as a plain coil")  # a contact that waits is none of its

    def test_further_words_choose_the_device(self) -> None:
        bench = Workbench()
        bench.place("coil", 70, 16, text="Fan run")
        bench.place("coil", 70, 25, text="Damper open")
        found = offers(bench.project, "nc damper", bench.sheet, [])
        self.assertEqual({o.tag for o in found}, {"-KF2"})

    def test_continuations_without_another_end_come_first_and_new_names_last(self) -> None:
        bench = Workbench()
        other = bench.new("add-sheet", number="31")
        for name, sheets in (("24 V", (bench.sheet, other)), ("240 V", (bench.sheet,))):
            for sheet in sheets:
                y = 20 if name == "24 V" else 30
                bench.do("place-continuation", sheet_id=sheet, x=20, y=y, name=name)
        found = offers(bench.project, "cont 24", other, [])
        self.assertEqual([o.text for o in found], ["240 V", "24 V", "24"])
        self.assertEqual(offers(bench.project, "note Locked out", other, [])[0].text, "Locked out")

    def test_a_potential_typed_at_a_rail_is_its_continuation(self) -> None:
        bench = Workbench()
        bench.place("valve", 70, 16, text="24V valve")
        for name, y in (("24V", 20), ("24V door", 30), ("0V", 40), ("North", 50)):
            bench.do("place-continuation", sheet_id=bench.sheet, x=20, y=y, name=name)
        for words, first in (("24V", ["24V", "24V door"]), ("24 v", ["24V", "24V door"]), ("0v", ["0V"])):
            found = offers(bench.project, words, bench.sheet, [])
            self.assertEqual([o.text for o in found[: len(first)]], first)
            self.assertEqual({o.definition for o in found[: len(first)]}, {"continuation"})
        new = offers(bench.project, "48V", bench.sheet, [])[0]
        self.assertEqual((new.definition, new.text, new.note), ("continuation", "48V", "new name"))
        self.assertNotIn("continuation", {o.definition for o in offers(bench.project, "no", bench.sheet, [])})

    def test_a_delayed_contact_of_a_plain_coil_comes_last_and_says_why(self) -> None:
        bench = Workbench()
        plain, timed = bench.place("coil", 70, 16), bench.place("coil-on-delay", 70, 25)
        found = offers(bench.project, "no ton", bench.sheet, [])
        self.assertEqual(found[0].device_id, bench.device(timed))
        self.assertEqual((found[-1].device_id, found[-1].note), (bench.device(plain), "drawn as a plain coil"))
        bench.place("contact-on-delay-no", 20, 16, device_id=bench.device(plain))
        notes = {o.device_id: o.note for o in offers(bench.project, "no ton", bench.sheet, [])}
        self.assertNotIn("plain", notes[bench.device(plain)])

    def test_a_continuation_points_away_from_its_wire(self) -> None:
        bench = Workbench()
        bench.wire((20, 16), (40, 16))
        for x, toward in ((20, "left"), (40, "right")):
            mark = bench.new("place-continuation", sheet_id=bench.sheet, x=x, y=16, name="24 V")
            self.assertEqual(bench.project.continuations[mark].toward, toward)

    def test_a_part_comes_with_the_symbol_that_leads_it(self) -> None:
        bench = Workbench()
        part = bench.library.part("BW-C09-24D")
        found = offers(bench.project, "bw-c09", bench.sheet, [part] if part else [])
        self.assertEqual((found[0].definition, found[0].note), ("coil", "BW-C09-24D"))
