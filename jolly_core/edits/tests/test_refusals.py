"""What the edits of the benches refuse: in words, on the field concerned, and leaving everything as it was."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from pydantic import ValidationError

from jolly_core.edits import EDITS, parse_edit
from jolly_core.exchange import read_project
from jolly_core.model import KINDS, REFERENCES, ConflictError, CoreError, users_of
from jolly_core.testing import DEMO, Workbench

from ..base.history import take_back


class Gone(TestCase):
    def test_every_edit_that_names_something_says_when_it_is_gone(self) -> None:
        """The examples name ids that are nowhere: each is refused, and nothing is changed."""
        bench = Workbench()
        before = list(bench.project.entities())
        for kind in EDITS.values():
            names = [n for n in kind.example if n.endswith("_id") or n in ("ids", "id", "device_ids")]
            if not names or "part_id" in names:
                continue
            with self.subTest(kind.kind), self.assertRaises(CoreError) as caught:
                bench.do(**kind.example)
            self.assertTrue(caught.exception.message.endswith((".", "…")), caught.exception.message)
            self.assertEqual(list(bench.project.entities()), before)


class Said(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.lamp = self.bench.place("lamp", 20, 20)

    def refused(self, words: str, kind: str, **values: Any) -> None:
        before = list(self.bench.project.entities())
        with self.assertRaisesRegex(CoreError, words):
            self.bench.do(kind, **values)
        self.assertEqual(list(self.bench.project.entities()), before)

    def test_a_lamp_is_no_strip_cable_card_or_connector(self) -> None:
        lamp = self.bench.device(self.lamp)
        self.refused("-PF1 is no terminal strip", "move-strip-items", strip_id=lamp, keys=["u1"], to=1)
        self.refused("-PF1 is no cable", "set-cable", device_id=lamp, length_m=3)
        self.refused("-PF1 is no PLC card", "address-card", device_id=lamp, scheme="whole", start="0")
        harness = self.bench.new("add-harness", code="WH-1")
        self.refused("-PF1 is no connector", "add-node", harness_id=harness, device_id=lamp)

    def test_a_part_of_another_class_is_refused_by_name(self) -> None:
        self.refused("TW-L22-G is no PLC card", "add-card", part_id="tamwick-tw-l22-g")
        self.refused("TW-L22-G is no enclosure", "add-enclosure", part_id="tamwick-tw-l22-g")
        self.refused("neither in the project nor in the library", "add-enclosure", part_id="nothing")

    def test_a_device_that_is_drawn_nowhere_takes_parts_of_what_it_is_alone(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())
        self.bench.project = project
        connector = next(n for n in project.nodes.values() if n.device_id).device_id
        for kind, words in (
            ("cable", "is no cable, as -WD1 needs"),
            ("card", "is no PLC card, as -KF1 needs"),
            ("enclosure", "is no enclosure, as -UC1 needs"),
        ):
            device_id = next(iter(project.tables[kind].values())).device_id
            self.refused(f"TW-L22-G {words}", "assign-part", device_id=device_id, part_id="tamwick-tw-l22-g")
            own = project.devices[device_id].part_id
            with self.assertRaisesRegex(CoreError, "Nothing would change"):
                self.bench.do("assign-part", device_id=device_id, part_id=own)
        self.refused("TW-L22-G", "assign-part", device_id=connector, part_id="tamwick-tw-l22-g")
        strip = self.bench.new("make-strip", tag="XD77", text="Reserve")
        self.refused("is no terminal, as ", "assign-part", device_id=strip, part_id="tamwick-tw-l22-g")

    def test_a_part_belongs_to_a_device_not_to_a_contact(self) -> None:
        self.refused(
            "choose the device",
            "place-symbol",
            sheet_id=self.bench.sheet,
            definition="contact-no",
            x=40,
            y=40,
            part_id="hollin-hr-k22",
        )

    def test_figures_out_of_all_measure_never_reach_a_rule(self) -> None:
        for kind, values in (
            ("draw-run", {"what": "rail", "enclosure_id": "e", "part_id": "p", "x1": 1e9, "y1": 0, "x2": 0, "y2": 0}),
            (
                "draw-run",
                {"what": "rail", "enclosure_id": "e", "part_id": "p", "x1": float("nan"), "y1": 0, "x2": 0, "y2": 0},
            ),
            ("set-segment", {"segment_id": "s", "length_mm": 0}),
            ("set-cable", {"device_id": "d", "length_m": -1}),
            ("set-cable", {"device_id": "d", "power_factor": 1.5}),
            ("change-settings", {"spool_m": 0}),
            ("take-in-points", {"points": [{"tag": "", "io_type": "DI"}]}),
            ("take-in-points", {"points": [{"tag": "B1", "io_type": "XX"}]}),
            ("place-devices", {"enclosure_id": "e", "device_ids": [], "x": 0, "y": 0}),
        ):
            with self.subTest(kind), self.assertRaises(ValidationError):
                parse_edit({"kind": kind, **values})

    def test_what_somebody_needs_by_now_is_not_taken_back(self) -> None:
        enclosure = self.bench.do("add-enclosure", part_id="brindlework-bw-e6825")
        self.bench.new(
            "draw-run",
            what="rail",
            enclosure_id=enclosure.placed[0],
            part_id="brindlework-bw-r35",
            x1=50,
            y1=200,
            x2=400,
            y2=200,
        )
        with self.assertRaises(ConflictError):
            take_back(self.bench.project, enclosure.changes)

    def test_a_part_stays_while_anything_uses_it(self) -> None:
        device = self.bench.device(self.bench.place("connector", 60, 40, part_id="tamwick-tw-p4"))
        other = self.bench.device(self.bench.place("connector", 60, 60, part_id="tamwick-tw-p6"))
        self.assertIn("tamwick-tw-ct1", self.bench.project.parts)
        self.bench.do("assign-part", device_id=device, part_id="")
        self.assertIn("tamwick-tw-ct1", self.bench.project.parts)
        self.bench.do("assign-part", device_id=other, part_id="")
        self.assertEqual(self.bench.project.parts, {})

    def test_a_device_goes_with_the_last_that_is_left_of_it(self) -> None:
        self.bench.wire((20, 40), (60, 40))
        first = self.bench.new("draw-band", sheet_id=self.bench.sheet, x1=30, y1=38, x2=30, y2=42)
        cable = self.bench.project.bands[first].device_id
        second = self.bench.new("draw-band", sheet_id=self.bench.sheet, x1=50, y1=38, x2=50, y2=42, device_id=cable)
        self.bench.do("delete-selection", ids=[first])
        self.assertIn(cable, self.bench.project.devices)
        self.bench.do("delete-sheet", sheet_id=self.bench.sheet)
        self.assertNotIn(second, self.bench.project.bands)
        self.assertNotIn(cable, self.bench.project.devices)
        self.assertEqual(self.bench.project.cables, {})


class References(TestCase):
    def test_the_table_names_fields_and_kinds_that_are_there(self) -> None:
        for kind, fields in REFERENCES.items():
            self.assertLessEqual(set(fields), set(KINDS[kind].fields), kind)
            self.assertLessEqual(set(fields.values()), set(KINDS), kind)

    def test_no_field_that_names_something_is_left_out(self) -> None:
        for kind, spec in KINDS.items():
            for name in spec.fields:
                if name.endswith("_id"):
                    self.assertIn(name, REFERENCES.get(kind, {}), f"{kind}.{name}")

    def test_users_are_the_same_table_read_the_other_way(self) -> None:
        pairs = {(user, field, kind) for kind in KINDS for user, field in users_of(kind)}
        self.assertEqual(pairs, {(k, f, t) for k, fields in REFERENCES.items() for f, t in fields.items()})
