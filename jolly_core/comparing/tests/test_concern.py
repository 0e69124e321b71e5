"""Which drawings a change concerns: all that look otherwise after it, whatever field of whatever record it is of."""

from __future__ import annotations

import random
from collections import Counter
from collections.abc import Iterator
from dataclasses import replace
from typing import Any
from unittest import TestCase
from unittest.mock import patch

from jolly_core.comparing import difference, states
from jolly_core.comparing.concern import sheets_concerned
from jolly_core.comparing.sights import sights
from jolly_core.comparing.thing import NOTHING_ELSE
from jolly_core.exchange import read_project
from jolly_core.model import KINDS, AddOn, Change, ChangeSet, CoreError, Project, copied, kind_of
from jolly_core.model.records import faults_of
from jolly_core.scenes import made
from jolly_core.testing import DEMO, Workbench

MOST_FIELDS = 16  # of a kind that are tried: after another setting nearly all is worked out anew
FEWEST = 200  # mutations that are not refused, so that a test that tries nothing is seen


def kiln() -> Project:
    return read_project((DEMO / "pellwick-kiln-2.spool.json").read_text(encoding="utf-8"))


def other_values(project: Project, name: str, record: Any, dice: random.Random) -> Iterator[Any]:
    """Yield other values of a field: that of another record, and one near its own."""
    value, table = getattr(record, name), project.tables[kind_of(record).name]
    there = [v for v in (getattr(r, name) for r in dice.sample(list(table.values()), min(6, len(table)))) if v != value]
    if there:
        yield there[0]
    names = kind_of(record).names.get(name)
    if names is not None and isinstance(value, str):
        yield dice.choice(["", *project.tables[names.kind]])
    elif isinstance(value, str):
        yield value + "7"
    elif isinstance(value, bool):
        yield not value
    elif isinstance(value, int | float):
        yield value + dice.choice((-4, -1, 1, 4))


def mutations(project: Project, dice: random.Random) -> Iterator[Change]:
    """Yield changes of the fields of every kind, of records chosen at random."""
    for kind, table in project.tables.items():
        for record in dice.sample(list(table.values()), min(1, len(table))):
            yield Change(kind, record.id, record, None)
            fields = list(kind_of(record).fields)
            for name in dice.sample(fields, min(MOST_FIELDS, len(fields))):
                tree = (names := kind_of(record).names.get(name)) is not None and names.tree  # never in a circle
                for value in other_values(project, name, record, dice) if name != "id" and not tree else ():
                    other = replace(record, **{name: value})
                    if not faults_of(other, record):  # what breaks a bound is in no project
                        yield Change(kind, record.id, record, other)


class EveryField(TestCase):
    def test_what_looks_otherwise_is_concerned(self) -> None:
        project, dice = kiln(), random.Random(20)
        sheets = {id for id in project.sheets if not made(project, id)}
        numbers, now = states._numbers(project), sights(project, NOTHING_ELSE, states.SHOWN)
        looks = states._looks(project, sheets)
        tried: Counter[str] = Counter()
        for change in mutations(project, dice):
            changes = ChangeSet([change])
            try:
                with project.trial() as total:
                    project.commit(total, changes)
                    was = sights(project, NOTHING_ELSE, states.SHOWN)
                    concerned = states._concerned(project, changes, (was, now), numbers)
                    others = states._looks(project, sheets)
            except (CoreError, KeyError, ValueError):
                continue  # no project may be so
            tried[change.kind] += 1
            missed = {id for id in sheets if looks[id] != others.get(id)} - concerned
            self.assertEqual([project.sheets[id].number for id in missed], [], f"{change.kind} {change.after}")
        self.assertGreater(tried.total(), FEWEST)
        self.assertLessEqual({"symbol", "wire", "device", "continuation", "settings", "sheet"}, set(tried))

    def test_few_kinds_may_be_seen_on_any_sheet(self) -> None:
        """One that does not say where it is seen concerns every sheet: right, and slow."""
        everywhere = [kind for kind in KINDS if self.concerns_all(kind)]
        self.assertEqual(sorted(everywhere), ["layer", "settings", "title_block", "title_cell"])

    def concerns_all(self, kind: str) -> bool:
        changes = ChangeSet()
        changes.record(kind, "x", None, KINDS[kind].entity)
        return sheets_concerned(Project(), changes, ()) is None


class Few(TestCase):
    """A coil with its contact on another sheet, a lamp beside the coil, a third sheet with a lamp."""

    def setUp(self) -> None:
        self.bench = bench = Workbench(frame="zones")
        self.second = bench.new("add-sheet", title="Second", frame="zones")
        self.third = bench.new("add-sheet", title="Third", frame="zones")
        self.coil, self.lamp = bench.place("coil", 60, 40), bench.place("lamp", 60, 20)
        device = bench.device(self.coil)
        self.contact = bench.place("contact-no", 30, 30, device_id=device, sheet_id=self.second)
        self.alone = bench.place("lamp", 30, 30, sheet_id=self.third)

    def concerned(self, *kinds_and_values: dict[str, Any]) -> set[str] | None:
        """Return the sheets that edits concern."""
        changes = ChangeSet()
        for values in kinds_and_values:
            for c in self.bench.do(**values).changes:
                changes.record(c.kind, c.id, c.before, c.after)
        return sheets_concerned(self.bench.project, changes, ())

    def test_a_thing_by_itself_concerns_its_sheet(self) -> None:
        found = self.concerned({"kind": "move-selection", "ids": [self.alone], "dx": 4, "dy": 0})
        self.assertEqual(found, {self.third})

    def test_a_coil_concerns_the_sheet_of_its_contact(self) -> None:
        found = self.concerned({"kind": "move-selection", "ids": [self.coil], "dx": 4, "dy": 0})
        self.assertEqual(found, {self.bench.sheet, self.second})

    def test_the_number_of_a_sheet_concerns_those_that_name_it(self) -> None:
        found = self.concerned({"kind": "change-sheet", "sheet_id": self.second, "number": "77"})
        self.assertEqual(found, {self.bench.sheet, self.second})

    def test_a_continuation_says_the_number_of_the_sheet_of_its_other_end(self) -> None:
        for sheet_id in (self.third, self.second):
            self.bench.do("place-continuation", sheet_id=sheet_id, name="L1", x=20, y=60, toward="right")
        found = self.concerned({"kind": "change-sheet", "sheet_id": self.third, "number": "78"})
        self.assertEqual(found, {self.third, self.second})

    def test_the_code_of_a_place_concerns_the_devices_there(self) -> None:
        place = self.bench.new("add-location", code="S7")
        self.bench.do("set-place", device_id=self.bench.device(self.alone), function_id="", location_id=place)
        found = self.concerned({"kind": "change-location", "location_id": place, "code": "S8"})
        self.assertEqual(found, {self.third})
        inside = self.bench.new("add-location", code="D1", parent_id=place)
        self.bench.do("set-place", device_id=self.bench.device(self.lamp), function_id="", location_id=inside)
        found = self.concerned({"kind": "change-location", "location_id": place, "code": "S9"})
        self.assertEqual(found, {self.third, self.bench.sheet})

    def test_a_part_concerns_the_devices_that_have_it_among_others(self) -> None:
        project = self.bench.project
        part = self.bench.library.parts["hollin-hr-k2"]
        device = self.bench.device(self.coil)
        project.apply(ChangeSet([Change("part", part.id, None, part)]))
        project.apply(ChangeSet([Change("add_on", "x", None, AddOn("x", device, part.id))]))
        changes = ChangeSet([Change("part", part.id, part, replace(part, number="K9"))])
        self.assertEqual(sheets_concerned(project, changes, ()), {self.bench.sheet, self.second})

    def test_a_sheet_drawn_anew_under_its_number_is_compared_with_the_one_before(self) -> None:
        before = copied(self.bench.project)
        self.bench.do("delete-sheet", sheet_id=self.third)
        again = self.bench.new("add-sheet", number="32", title="Third", frame="zones")
        self.bench.place("lamp", 34, 30, sheet_id=again)
        self.bench.do("move-selection", ids=[self.contact], dx=24, dy=0)
        for one, other in ((before, self.bench.project), (self.bench.project, before)):
            with patch.object(states, "APART", 0):
                together = difference(one, other)
            with patch.object(states, "APART", 1_000_000):
                self.assertEqual(together, difference(one, other))
            self.assertEqual([s.number for s in together.sheets], ["30", "31", "32"])

    def test_what_stands_in_title_blocks_concerns_no_drawing(self) -> None:
        found = self.concerned({"kind": "change-settings", "customer": "Pellwick Maltings", "spool_m": 50})
        self.assertEqual(found, set())

    def test_the_standard_concerns_all(self) -> None:
        self.assertIsNone(self.concerned({"kind": "change-settings", "standard": "na"}))
