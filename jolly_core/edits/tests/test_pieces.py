"""Pieces of circuit: repeated, pasted within a project and between projects of other habits."""

from __future__ import annotations

import json
from unittest import TestCase

from jolly_core.model import FileError, RuleError
from jolly_core.tagging import full_tag, lead_of, pins_of
from jolly_core.testing import Workbench

from ..pieces.pieces import piece_from_json, piece_of, piece_to_json


def latch(bench: Workbench) -> list[str]:
    """Draw a rung with a button, a holding contact beside it and a coil; return what is drawn."""
    y = 16
    bench.wire((14, y), (82, y))
    bench.place("button-no", 24, y, text="Start")
    coil = bench.place("coil", 60, y, text="Auger run")
    bench.wire((22, y), (22, y + 4), (34, y + 4), (34, y))
    bench.place("contact-no", 25, y + 4, device_id=bench.device(coil))
    p = bench.project
    return [*p.symbols, *(w.id for w in p.wires.values() if w.x1 != w.x2 or w.x1 not in (14, 82))]


class Repeat(TestCase):
    def test_each_copy_has_tags_and_contacts_of_its_own(self) -> None:
        bench = Workbench(rails=True)
        ids = latch(bench)
        bench.do("repeat-selection", ids=ids, count=3, dx=0, dy=9)
        p = bench.project
        coils = sorted((s for s in p.symbols.values() if s.definition == "coil"), key=lambda s: s.y)
        self.assertEqual([bench.tag(c.id) for c in coils], ["KF1", "KF2", "KF3", "KF4"])
        for coil in coils:
            contact = next(s for s in p.units_of(coil.device_id) if s.definition == "contact-no")
            self.assertEqual(contact.y, coil.y + 4)
            self.assertEqual(pins_of(p, contact), ["13", "14"])
        self.assertTrue(bench.canonical())

    def test_a_contact_alone_stays_with_its_coil_and_takes_the_next_unit(self) -> None:
        bench = Workbench(rails=True)
        latch(bench)
        contact = next(s for s in bench.project.symbols.values() if s.definition == "contact-no")
        made = bench.do("repeat-selection", ids=[contact.id], count=2, dx=0, dy=18).placed
        self.assertEqual({bench.device(i) for i in made}, {contact.device_id})
        self.assertEqual([pins_of(bench.project, bench.symbol(i)) for i in made], [["23", "24"], ["33", "34"]])

    def test_copies_on_each_other_or_outside_are_refused(self) -> None:
        bench = Workbench()
        coil = bench.place("coil", 40, 16)
        with self.assertRaisesRegex(RuleError, "pitch"):
            bench.do("repeat-selection", ids=[coil], count=2, dx=0, dy=0)
        with self.assertRaisesRegex(RuleError, "outside"):
            bench.do("repeat-selection", ids=[coil], count=60, dx=0, dy=9)
        self.assertEqual(len(bench.project.symbols), 1)


class Paste(TestCase):
    def taken(self, bench: Workbench, ids: list[str]) -> dict[str, object]:
        """Return a piece as it would come from a clipboard."""
        piece: dict[str, object] = json.loads(json.dumps(piece_to_json(piece_of(bench.project, bench.sheet, ids))))
        return piece

    def test_a_piece_reads_back_as_it_was_written(self) -> None:
        bench = Workbench(rails=True)
        raw = self.taken(bench, latch(bench))
        self.assertEqual(piece_to_json(piece_from_json(raw)), raw)

    def test_into_a_project_of_other_habits(self) -> None:
        source = Workbench(rails=True)
        ids = latch(source)
        coil = next(s for s in source.project.symbols.values() if s.definition == "coil")
        source.do("assign-part", device_id=coil.device_id, part_id="brindlework-bw-c09-24d")
        place = source.new("add-location", code="D1", text="Door", side="door")
        source.do("set-place", device_id=coil.device_id, function_id="", location_id=place)
        source.do("set-tag", device_id=coil.device_id, tag="QA77")
        raw = self.taken(source, ids)

        target = Workbench(frame="ladder", standard="na", tag_habit="line")
        target.do("remove-wire-type", wire_type_id=target.blue)
        made = target.do("paste-piece", sheet_id=target.sheet, x=20, y=25, piece=raw)
        p = target.project
        new = next(p.symbols[i] for i in made.placed if i in p.symbols and p.symbols[i].definition == "coil")
        device = p.devices[new.device_id]
        line = 30 * 10 + 2
        self.assertEqual(full_tag(p, device), f"M{line}", "the tag follows the line habit and the standard's letters")
        self.assertEqual(device.part_id, "brindlework-bw-c09-24d")
        self.assertIn(device.part_id, p.parts)
        self.assertEqual(p.locations[device.location_id].code, "D1")
        self.assertEqual([t.name for t in p.wire_types.values() if t.colour == "BU"], ["Control"])
        self.assertEqual({p.wire_types[w.type_id].name for w in p.wires_on(target.sheet)}, {"Control"})
        self.assertIn("came along", " ".join(made.remarks))
        self.assertTrue(target.canonical())

    def test_what_was_cut_keeps_its_fixed_tag_and_number(self) -> None:
        bench = Workbench()
        bench.wire((10, 16), (60, 16))
        coil = bench.place("coil", 40, 16)
        wire = bench.project.wires_on(bench.sheet)[0]
        bench.do("fix-wire-number", wire_id=wire.id, number="77")
        bench.do("set-tag", device_id=bench.device(coil), tag="KF9")
        ids = [coil, *bench.project.wires]
        raw = self.taken(bench, ids)
        copied = bench.do("paste-piece", sheet_id=bench.sheet, x=10, y=40, piece=raw, keep_fixed=True)
        self.assertEqual(bench.tag(copied.placed[0]), "KF1", "a copy beside the old one has a tag of its own")
        self.assertEqual(len(bench.project.numbered_wires.get("77")), 1)
        bench.do("delete-selection", ids=ids)
        moved = bench.do("paste-piece", sheet_id=bench.sheet, x=10, y=60, piece=raw, keep_fixed=True)
        self.assertEqual(bench.tag(moved.placed[0]), "KF9")
        self.assertEqual(len(bench.project.numbered_wires.get("77")), 1)

    def test_a_contact_whose_coil_is_not_here_waits_for_a_device(self) -> None:
        source = Workbench(rails=True)
        latch(source)
        contact = next(s for s in source.project.symbols.values() if s.definition == "contact-no")
        raw = self.taken(source, [contact.id])
        target = Workbench()
        target.ids = source.ids
        made = target.do("paste-piece", sheet_id=target.sheet, x=20, y=16, piece=raw)
        self.assertEqual(target.symbol(made.placed[0]).device_id, "")

    def test_faulty_pieces_are_refused(self) -> None:
        bench = Workbench()
        good = self.taken(bench, [bench.place("coil", 40, 16)])
        bad_symbol = json.loads(json.dumps(good))
        bad_symbol["entities"]["symbol"][0]["definition"] = "flux"
        lost = json.loads(json.dumps(good))
        del lost["entities"]["device"]
        circle = json.loads(json.dumps(good))
        places = ({"id": "p1", "code": "P1", "parent_id": "p2"}, {"id": "p2", "code": "P2", "parent_id": "p1"})
        circle["entities"]["location"] = [*places]
        for raw, words in (
            ({}, "no piece"),
            ({**good, "entities": 3}, "no entities"),
            ({**good, "entities": {"sheet": []}}, "does not hold"),
            ({**good, "leads": ["zz"]}, "which devices"),
            (bad_symbol, "flux"),
            (lost, "device"),
            ({**good, "leads": [["zz"]]}, "which devices"),
            (circle, "names itself"),
        ):
            with self.assertRaisesRegex((FileError, RuleError), words):
                piece_from_json(raw)

    def test_an_empty_piece_is_refused(self) -> None:
        bench = Workbench()
        empty = {"format": "jolly-spool-piece", "version": 1, "leads": [], "entities": {}}
        with self.assertRaisesRegex(RuleError, "nothing drawn"):
            bench.do("paste-piece", sheet_id=bench.sheet, x=20, y=16, piece=empty)


class Bands(TestCase):
    def test_a_copied_band_is_a_cable_of_its_own(self) -> None:
        bench = Workbench()
        for x in (30, 34):
            bench.wire((x, 20), (x, 50))
        band = bench.new("draw-band", sheet_id=bench.sheet, x1=28, y1=35, x2=36, y2=35)
        ids = [band, *bench.project.wires]
        made = bench.do("duplicate-selection", ids=ids, dx=20, dy=0)
        new = next(bench.project.bands[i] for i in made.placed if i in bench.project.bands)
        self.assertNotEqual(new.device_id, bench.project.bands[band].device_id)
        self.assertEqual(len(bench.project.cables), 2)
        self.assertEqual(lead_of(bench.project, new.device_id), None)
