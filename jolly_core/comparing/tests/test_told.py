"""What is said of a project, its parts and wire types and its harnesses is told where it differs between two states."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from dataclasses import fields, replace
from typing import Any
from unittest import TestCase

from jolly_core.comparing import difference, work_list
from jolly_core.comparing.difference import _changed
from jolly_core.comparing.sights import sights
from jolly_core.comparing.thing import KINDS, same_things
from jolly_core.edits import parse_edit, perform
from jolly_core.harness import wires_of
from jolly_core.model import ChangeSet, CoreError, Covering, HarnessShield, Project, Strand, VariantPart
from jolly_core.reports import REPORTS, run_report
from jolly_core.tagging import full_tag
from jolly_core.testing import DRYER, DemoLibrary, demo, demo_anew, rebuilt


class Kiln(TestCase):
    """Two states of the demo."""

    def setUp(self) -> None:
        self.before, self.after = demo_anew(), demo()

    def told(self, kind: str) -> list[str]:
        return [c.words for c in difference(self.before, self.after).of(kind)]

    def jobs(self) -> list[tuple[str, ...]]:
        found = work_list(difference(self.before, self.after))
        return [(j.act, j.what, j.start, j.end, j.now_to, j.kind, j.place) for j in found]

    def do(self, **edit: object) -> None:
        perform(self.after, parse_edit(edit))

    def put(self, kind: str, record: Any) -> None:
        """Put a record in, in place of that of its id."""
        changes = ChangeSet()
        changes.record(kind, record.id, self.after.tables[kind].get(record.id), record)
        self.after.apply(changes)


class OfProject(Kiln):
    """What is said of a project as a whole, and of what is built, is told where it changes."""

    def test_a_wire_type_of_another_colour_is_other_wire_in_the_shop(self) -> None:
        used = {w.type_id for w in self.after.wires.values()}
        (blue,) = [t for t in self.after.wire_types.values() if t.id in used and t.name == "24 V DC"]
        self.put("wire_type", replace(blue, colour="VT"))
        self.assertEqual(self.told("wire type"), [f"wire type 24 V DC: colour {blue.colour}, now VT"])
        wires = self.told("wire")
        self.assertGreater(len(wires), 5)
        self.assertTrue(all(words.endswith(f"colour {blue.colour}, now VT") for words in wires), wires)
        acts = [job[0] for job in self.jobs()]
        kinds = {(job[0], job[5]) for job in self.jobs()}
        out, put = (f"24 V DC, {colour} {blue.size()}" for colour in (blue.colour, "VT"))
        self.assertEqual(kinds, {("take out", out), ("put in", put)}, "one cuts what is written there")
        self.assertEqual((acts.count("take out"), acts.count("put in")), (len(wires), len(wires)))

    def test_facts_of_the_project_are_told_and_no_job(self) -> None:
        self.do(kind="change-settings", customer="Aldwark Brewing", end_allowance_mm=80.0)
        (words,) = self.told("project")
        self.assertIn("customer Pellwick Maltings, now Aldwark Brewing", words)
        self.assertIn("wire ends 60 mm, now 80 mm", words)
        self.assertEqual(self.jobs(), [])

    def test_a_place_of_another_name_is_told_of_itself(self) -> None:
        place = next(p for p in self.after.locations.values() if not p.parent_id)
        self.put("location", replace(place, text="Another panel"))
        self.assertEqual(self.told("place"), [f"place +{place.code}: text {place.text}, now Another panel"])

    def test_sheets_of_a_place_with_another_code_are_left_alone(self) -> None:
        place = self.after.locations[next(s.location_id for s in self.after.sheets.values() if s.location_id)]
        self.put("location", replace(place, code="ZZ9"))
        self.assertEqual(len(self.told("place")), 1)
        self.assertEqual(self.told("sheet"), [])

    def test_what_the_maker_says_of_a_part_is_told_of_the_part(self) -> None:
        part = next(p for p in self.after.parts.values() if p.part_class == "contactor")
        self.put("part", replace(part, supplier="Fenwick Supply", price=99.5))
        (words,) = self.told("part")
        self.assertIn(f"part {part.number}: supplier", words)
        self.assertIn("now Fenwick Supply; price", words)
        self.assertEqual(self.jobs(), [])

    def test_a_shield_is_landed_at_another_end(self) -> None:
        cable = next(c for c in self.after.cables.values() if c.shield_landed)
        self.do(kind="set-cable", device_id=cable.device_id, shield_landed="both")
        tag = full_tag(self.after, self.after.devices[cable.device_id])
        self.assertEqual(self.told("device"), [f"device {tag}: shield landed {cable.shield_landed}, now both"])
        ((act, what, was, _, now, _, _),) = self.jobs()
        self.assertEqual((act, what, was, now), ("re-land", f"shield of {tag}", cable.shield_landed, "both"))


class OfHarness(Kiln):
    """The harness of the demo: what lies on it, what its wires lie with, and the ways in which it is built."""

    def setUp(self) -> None:
        super().setUp()
        self.harness = next(iter(self.after.harnesses.values()))
        self.segment = next(s for s in self.after.segments.values() if s.harness_id == self.harness.id)

    def test_a_harness_called_otherwise_gets_other_labels_at_another_place(self) -> None:
        harness = next(h for h in self.after.harnesses.values() if h.label_mm)
        self.put("harness", replace(harness, code="WH-Z", label_mm=harness.label_mm + 20))
        old, new = (f"{mm:g} mm from the connectors" for mm in (harness.label_mm, harness.label_mm + 20))
        moved = ("move", f"labels of harness {harness.code}", old, "", new, "", "WH-Z")
        called = ("relabel", f"harness {harness.code}", "", "", "WH-Z", "", "WH-Z")
        self.assertEqual([job for job in self.jobs() if "harness" in job[1]], [moved, called])
        self.put("harness", replace(harness, label_mm=0))
        self.assertEqual([job[4] for job in self.jobs()], ["at the connectors"])

    def test_a_longer_segment_is_told_beside_its_wires(self) -> None:
        self.do(kind="set-segment", segment_id=self.segment.id, length_mm=self.segment.length_mm + 100)
        (words,) = self.told("segment")
        was, now = (f"{v:g} mm" for v in (self.segment.length_mm, self.segment.length_mm + 100))
        self.assertIn(f"length {was}, now {now}", words)
        self.assertIn(("move", f"{was} long", f"{now} long"), [(job[0], job[2], job[4]) for job in self.jobs()])

    def test_a_wire_that_is_twisted_and_one_that_is_in_one_variant_alone(self) -> None:
        wire = wires_of(self.after, self.harness.id)[0].conductor
        for name in ("Short", "Long"):
            self.do(kind="add-variant", harness_id=self.harness.id, name=name, quantity=2)
        self.assertRegex(self.told("harness")[0], "built 1, now 2 Short, 2 Long")
        self.assertEqual(self.jobs(), [])
        long = next(v for v in self.after.harness_variants.values() if v.name == "Long")
        self.before = rebuilt(self.after)
        self.put("variant_part", VariantPart("vp", long.id, conductor=wire.key))
        self.put("strand", Strand("st", self.harness.id, wire.key, twisted="T9"))
        (words,) = self.told("wire")
        self.assertIn("twisted none, now T9; variants none, now Long", words)
        acts = {(act, now, place) for act, _, _, _, now, _, place in self.jobs()}
        code = self.harness.code
        self.assertEqual(
            acts, {("move", "twisted T9, was untwisted", code), ("take out", "", f"{code}, variant Short")}
        )

    def test_a_shield_that_lands_elsewhere_is_told_and_one_whose_connector_is_called_otherwise_is_not(self) -> None:
        ends = [n.device_id for n in self.after.nodes.values() if n.harness_id == self.harness.id and n.device_id]
        shield = HarnessShield("hs", self.harness.id, "S9", ends[0], 1)
        self.put("harness_shield", shield)
        ((act, what, *_),) = self.jobs()
        self.assertEqual((act, what), ("fit", "shield S9"))
        self.before = rebuilt(self.after)
        self.do(kind="set-tag", device_id=ends[0], tag="XD77")
        self.assertEqual(self.told("fitting"), [])
        self.put("harness_shield", replace(shield, unit=2))
        (words,) = self.told("fitting")
        self.assertIn("fitting shield S9: position", words)
        self.assertEqual([job[0] for job in self.jobs() if job[1] == "shield S9"], ["move"])

    def test_a_covering_is_fitted_and_moved(self) -> None:
        tube = next(p for p in DemoLibrary().parts.values() if p.part_class == "covering")
        self.put("part", tube)
        covering = Covering("cv", self.segment.id, tube.id, 0.0, 50.0)
        self.put("covering", covering)
        (words,) = self.told("fitting")
        self.assertEqual(words, f"fitting covering {tube.number} added")
        self.assertEqual([job[:2] for job in self.jobs()], [("fit", f"covering {tube.number}")])
        self.before = rebuilt(self.after)
        self.put("covering", replace(covering, from_mm=20.0, to_mm=70.0))
        ((act, _, was, _, now, _, place),) = self.jobs()
        self.assertEqual((act, place), ("move", self.harness.code))
        self.assertTrue(was.startswith("50 mm long, from the begin of"), was)
        self.assertTrue(now.startswith("50 mm long, from 20 mm of"), now)


class WhatReportsSay(TestCase):
    """Whatever is written otherwise in a record so that a list says something else is told as a change."""

    def test_of_one_record_of_each_kind(self) -> None:
        before = demo_anew(DRYER)
        after, tried, silent = rebuilt(before), 0, []
        lists = _lists(after)
        for kind, record in _one_of_each(after):
            for name, value in _otherwise(record, list(after.tables[kind].values())):
                changes = ChangeSet()
                changes.record(kind, record.id, record, replace(record, **{name: value}))
                with after.trial() as total:
                    try:
                        after.commit(total, changes)
                        differ = {key for key, rows in _lists(after).items() if rows != lists[key]}
                        tried += 1
                        if differ and not _listed(before, after) and not difference(before, after).sheets:
                            silent.append((kind, name, differ))
                    except (CoreError, LookupError):
                        continue  # no edit writes such a record
        self.assertGreater(tried, 80)
        self.assertEqual(silent, [])


# Lists of what the checks find, which a person reads anew.
UNTOLD = {"snags", "muted"}
# What is a habit of the people and not of the thing.
HABITS = ("mute", "recipe", "pack", "revision", "stamp", "tag_rule", "number_rule", "sheet_habit")
KEPT = ("id", "kind", "definition", "revision", "length_unit")


def _lists(project: Project) -> dict[str, object]:
    return {key: Counter(tuple(row) for row in run_report(project, key).rows) for key in REPORTS.keys() - UNTOLD}


def _listed(before: Project, after: Project) -> bool:
    """Return whether a thing is told as changed, without a look at the drawings."""
    same = same_things(before, after)
    one, other = sights(before, same), sights(after, same)
    return any(_changed(one, other, kind) for kind in KINDS)


def _one_of_each(project: Project) -> Iterator[tuple[str, Any]]:
    for kind, table in sorted(project.tables.items()):
        if table and kind not in HABITS:
            yield kind, max(table.values(), key=lambda r: len(str(r)))


def _otherwise(record: Any, others: list[Any]) -> Iterator[tuple[str, object]]:
    """Yield other values of the fields of a record: those of another one of its kind, or made up."""
    for name in (f.name for f in fields(record) if f.name not in KEPT):
        value = getattr(record, name)
        known = [v for v in (getattr(o, name) for o in others) if v != value]
        if isinstance(value, bool):
            yield name, not value
        elif isinstance(value, int | float):
            yield name, value + 10
        elif isinstance(value, str) and (known or not name.endswith("_id")):
            yield name, known[0] if known else f"{value}Zq"
        elif isinstance(value, dict):
            yield name, {**value, "zq": "Zq"}
        elif isinstance(value, tuple) and (value or known):
            yield name, value[:-1] if value else known[0]
