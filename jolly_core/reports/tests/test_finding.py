"""Finding by a few letters, and things in words."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_core.drawing import place_in
from jolly_core.exchange import read_project
from jolly_core.model import Change, Project
from jolly_core.plc import channels
from jolly_core.reports import REPORTS, Found, differences, find_in, in_inches, named, objects_of, run_report
from jolly_core.reports.registry import Column, Table
from jolly_core.tagging import full_tag, pins_of
from jolly_core.testing import DEMO, Workbench
from jolly_core.wiring import wire_numbers


def demo() -> Project:
    return read_project((DEMO / "pellwick-kiln-2.spool.json").read_bytes())


def labels(found: list[Found], kind: str) -> list[str]:
    return [f.label for f in found if f.kind == kind]


class Finding(TestCase):
    def test_sheets_tags_texts_parts_wires_and_points(self) -> None:
        project = demo()
        cases = (
            ("auger power", "sheet", "10 Loading auger, power"),
            ("30", "sheet", "30 Loading auger, control"),
            ("qa1", "device", "=K2+KP2-QA1  Auger run"),
            ("bw-c09-24d-31", "device", "=K2+KP2-QA1  Auger run"),
            ("auger RUN", "device", "=K2+KP2-QA1  Auger run"),
            ("3012", "wire", "3012"),
            ("24 v", "text", "continuation 24 V  (10)"),
            ("contactor 9", "part", "BW-C09-24D-31  Contactor 9 A AC-3, coil 24 V DC, 3 NO + 1 NC"),
        )
        for words, kind, wanted in cases:
            with self.subTest(words):
                self.assertIn(wanted, labels(find_in(project, words), kind))
        self.assertEqual(find_in(project, "  "), [])
        self.assertEqual(find_in(project, "no such thing at all"), [])
        self.assertTrue(any(f.kind == "cable" and f.id for f in find_in(project, "WD1")))

    def test_whatever_has_a_name_is_found_by_it_and_by_its_kind(self) -> None:
        project = demo()
        asked: list[tuple[str, str, str]] = []  # words, kind, what the label begins with
        asked += [(f"sheet {s.number}", "sheet", f"{s.number} {s.title}") for s in project.sheets.values()]
        for symbol in list(project.symbols.values())[:90:2]:
            device = project.devices.get(symbol.device_id)
            pin = pins_of(project, symbol)[0]
            if device is not None and pin:
                tag = full_tag(project, device)
                asked.append((f"{tag.rpartition('-')[2]}:{pin}".lower(), "pin", f"{tag}:{pin}"))
                sheet = project.sheets[symbol.sheet_id]
                place = place_in(sheet, symbol.x, symbol.y)
                asked.append((place, "place", f"{place}  {tag}"))
        for card in project.cards.values():
            for row in channels(project, card.device_id)[:3]:
                asked += [(row.address, "address", row.address), (f"%{row.address}".lower(), "address", row.address)]
        for cable in project.cables.values():
            tag = full_tag(project, project.devices[cable.device_id])
            asked.append((f"cable {tag}", "cable", tag))
        asked += [(f"harness {h.code}", "harness", h.code) for h in project.harnesses.values()]
        asked += [(f"{f.text} function", "function", "=") for f in project.functions.values()]
        asked += [(f"location {p.code}", "location", "+") for p in project.locations.values()]
        for report in REPORTS.values():
            asked.append((" ".join(reversed(report.title.lower().split())), "list", report.title))
        asked += [(r.name, "recipe", r.name) for r in project.recipes.values()]
        asked += [(f"pack {p.name}", "pack", p.name) for p in project.packs.values()]
        asked += [(f"wire type {t.name}", "wire type", t.name) for t in project.wire_types.values()]
        self.assertGreater(len(asked), 150)
        for words, kind, begins in asked:
            with self.subTest(words):
                found = [f for f in find_in(project, words) if f.kind == kind]
                self.assertTrue([f for f in found if f.label.startswith(begins)], (begins, found[:3]))
                self.assertTrue(all(f.sheet_id or f.id for f in found))

    def test_a_pin_that_is_not_drawn_leads_to_its_device_and_nothing_is_made_up(self) -> None:
        b = Workbench(frame="zones")
        coil = b.place("coil", 40, 20, part_id="hollin-hr-k22")
        self.assertEqual(
            [(f.kind, f.label, f.id) for f in find_in(b.project, "kf1:31")], [("pin", "-KF1:31  free", coil)]
        )
        for words in ("kf1:99", "kf9:13", "77.1", "77/b2", "I0.0", "%q", ":", "a:", "/", "30.", "(", "[a", "\\"):
            self.assertEqual([f for f in find_in(b.project, words) if f.kind in ("pin", "address")], [], words)

    def test_the_likeliest_come_first_and_no_kind_fills_the_list(self) -> None:
        project = demo()
        found = find_in(project, "1", limit=10)
        self.assertLessEqual(len(found), 10)
        self.assertLessEqual(len(labels(found, "sheet")), 5)
        self.assertEqual(found[0].label, "1 Control panel of kiln 2")

    def test_every_tag_and_every_wire_number_of_the_demo_is_found(self) -> None:
        for name in ("pellwick-kiln-2", "sample-store-dehumidifier"):
            project = read_project((DEMO / f"{name}.spool.json").read_bytes())
            for sheet in project.sheets.values():
                for number in set(wire_numbers(project, sheet.id).values()):
                    self.assertIn(number, labels(find_in(project, number), "wire"))
            for device in project.devices.values():
                tag = full_tag(project, device)
                found = find_in(project, tag.rsplit("-", 1)[-1], limit=60)
                self.assertTrue(any(f.label.startswith(tag) for f in found), tag)

    def test_what_was_kept_follows_every_edit(self) -> None:
        bench = Workbench(standard="na", tag_habit="line")
        lamp = bench.place("lamp", 40, 16, text="Ready")
        self.assertEqual(labels(find_in(bench.project, "ready"), "device"), ["LT301  Ready"])
        bench.do("set-text", device_id=bench.device(lamp), text="Idle")
        self.assertEqual(find_in(bench.project, "ready"), [])
        bench.do("change-sheet", sheet_id=bench.sheet, first_line=500)
        self.assertEqual(labels(find_in(bench.project, "LT500"), "device"), ["LT500  Idle"])
        bench.do("delete-selection", ids=[lamp])
        self.assertEqual(find_in(bench.project, "idle"), [])

    @settings(max_examples=80, deadline=None)
    @given(st.text(max_size=12))
    def test_whatever_is_typed_is_answered(self, words: str) -> None:
        for found in find_in(PROJECT, words):
            self.assertIn(found.sheet_id, {"", *PROJECT.sheets})
            self.assertTrue(found.sheet_id or found.id or found.bench, found)


PROJECT = demo()


class Naming(TestCase):
    def test_things_are_named_as_a_person_knows_them_also_when_they_are_gone(self) -> None:
        bench = Workbench()
        place = bench.new("add-location", code="KP2")
        lamp = bench.place("lamp", 40, 16)
        outcome = bench.do("delete-selection", ids=[lamp])
        names = {thing.name for thing in objects_of(bench.project, outcome.changes)}
        self.assertIn("-PF1", names)
        moved = bench.do("change-location", location_id=place, code="KP3")
        (thing,) = objects_of(bench.project, moved.changes)
        self.assertEqual((thing.kind, thing.name, thing.id), ("location", "+KP3", place))
        (change,) = moved.changes
        self.assertEqual(differences(bench.project, change), [("code", "KP2", "KP3")])

    def test_references_are_told_by_name(self) -> None:
        bench = Workbench()
        place = bench.new("add-location", code="KP2")
        outcome = bench.do("change-sheet", sheet_id=bench.sheet, location_id=place, fields={"Order": "7"})
        (change,) = outcome.changes
        self.assertEqual(named(bench.project, change).name, "sheet 30")
        self.assertEqual(
            differences(bench.project, change), [("location", "none", "+KP2"), ("fields", "none", "Order: 7")]
        )

    def test_a_device_that_is_no_more_is_named_as_it_was_as_far_as_that_is_known(self) -> None:
        bench = Workbench(frame="zones")
        bench.do("change-sheet", sheet_id=bench.sheet, location_id=bench.new("add-location", code="KP2"))
        lamp, other = bench.place("lamp", 40, 20, text="Running"), bench.place("lamp", 60, 20)
        fixed = bench.place("lamp", 80, 20)
        bench.do("set-tag", device_id=bench.device(fixed), tag="PF9")
        was = full_tag(bench.project, bench.project.devices[bench.device(lamp)])
        self.assertEqual(was, "+KP2-PF1")
        outcome = bench.do("delete-selection", ids=[lamp])
        self.assertIn(was, [thing.name for thing in objects_of(bench.project, outcome.changes)])
        bench.do("change-settings", tag_habit="line")
        outcome = bench.do("delete-selection", ids=[other, fixed])
        names = [thing.name for thing in objects_of(bench.project, outcome.changes) if thing.kind == "device"]
        self.assertEqual(names, ["PF without a text", "PF9"])
        again = bench.place("lamp", 40, 60, text="Running")
        outcome = bench.do("delete-selection", ids=[again])
        self.assertIn("PF “Running”", [thing.name for thing in objects_of(bench.project, outcome.changes)])

    def test_every_kind_of_thing_of_the_demo_has_a_name(self) -> None:
        for kind, entity in PROJECT.entities():
            thing = named(PROJECT, Change(kind, entity.id, None, entity))
            self.assertTrue(thing.name.strip(), kind)
            self.assertNotIn(entity.id, thing.name, "no inner id is shown")


class Lengths(TestCase):
    def test_in_inches_where_the_project_says_so(self) -> None:
        project = demo()
        metric = run_report(project, "stock")
        at = [c.key for c in metric.columns].index("length_mm")
        bench = Workbench()
        bench.project = project
        bench.do("change-settings", length_unit="in")
        inches = run_report(project, "stock")
        self.assertEqual(inches.columns[at].heading, "Length in")
        for was, now in zip(metric.rows, inches.rows, strict=True):
            self.assertAlmostEqual(float(now[at]) * 25.4, float(was[at]), delta=0.13)

    def test_empty_cells_stay_empty_and_metres_become_feet(self) -> None:
        table = Table("Cables", (Column("tag", "Tag"), Column("length_m", "Length m")), [("W1", ""), ("W2", 3.048)])
        self.assertEqual(in_inches(table).rows, [("W1", ""), ("W2", 10.0)])
        self.assertEqual(in_inches(table).columns[1].heading, "Length ft")

    def test_project_data_has_the_own_fields(self) -> None:
        rows = run_report(demo(), "project").rows
        self.assertIn(("Order number", "PO 88-1204"), rows)
        self.assertIn(("Supply voltage", "400 V 3~ 50 Hz"), rows)
        self.assertTrue(all(text for _, text in rows))
