"""Ids, changes, records, and the aggregate with its indexes."""

from __future__ import annotations

import dataclasses
import threading
from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.model.derived import Memo
from jolly_core.model.fields import Holds, OneOf, Units

from .. import (
    KINDS,
    ON_SHEET,
    REFERENCES,
    Change,
    ChangeSet,
    Device,
    FileError,
    GoneError,
    IdSource,
    Note,
    Part,
    Project,
    Symbol,
    changes_from_json,
    changes_to_json,
    from_record,
    to_record,
)
from ..tables import Index


class Ids(TestCase):
    def test_sort_in_the_order_they_were_made_also_when_the_clock_stands(self) -> None:
        for ids in (IdSource(), IdSource(start_ms=5)):
            made = [ids.new() for _ in range(3000)]
            self.assertEqual(made, sorted(set(made)))

    def test_are_never_given_twice_to_threads(self) -> None:
        ids, made = IdSource(), []

        def make() -> None:
            made.extend([ids.new() for _ in range(500)])

        threads = [threading.Thread(target=make) for _ in range(4)]
        for t in threads:
            t.start()
        for t in threads:
            t.join()
        self.assertEqual(len(set(made)), 2000)


def note(text: str, id: str = "n1", sheet: str = "s1") -> Note:
    return Note(id, sheet, 1, 1, text)


class Changes(TestCase):
    def test_first_before_and_last_after_are_kept(self) -> None:
        changes = ChangeSet()
        changes.record("note", "n1", None, note("a"))
        changes.record("note", "n1", note("a"), note("b"))
        (change,) = changes
        self.assertEqual((change.before, change.after), (None, note("b")))

    def test_what_ends_as_it_began_is_no_change(self) -> None:
        changes = ChangeSet()
        changes.record("note", "n1", note("a"), note("b"))
        changes.record("note", "n1", note("b"), note("a"))
        changes.record("note", "n2", note("c", "n2"), note("c", "n2"))
        self.assertEqual(len(changes), 0)

    def test_the_inverse_of_the_inverse_is_the_same(self) -> None:
        changes = ChangeSet([Change("note", "n1", None, note("a")), Change("note", "n2", note("b", "n2"), None)])
        self.assertEqual(changes.inverse().inverse(), changes)
        self.assertNotEqual(changes.inverse(), changes)

    def test_through_json(self) -> None:
        changes = ChangeSet(
            [Change("note", "n1", note("a"), note("Ω µ é ß Ł")), Change("note", "n2", note("b", "n2"), None)]
        )
        self.assertEqual(changes_from_json(changes_to_json(changes)), changes)


class Records(TestCase):
    def examples(self) -> dict[str, Any]:
        filled: dict[Any, Any] = {
            str: "x",
            int: 3,
            float: 2.5,
            bool: True,
            tuple[int, ...]: (1, 2),
            tuple[float, ...]: (1.0, 2.5, 3.0, 4.0),
            tuple[str, ...]: ("a.0-b.1",),
            Units: (("running", ("1", "1")),),
        }
        held = {Holds("base64"): "eA==", Holds("json"): "{}"}
        made = {}
        for kind, spec in KINDS.items():
            values: dict[str, Any] = {}
            for f in spec.fields.values():
                choice, holds = f.mark(OneOf), f.mark(Holds)
                if f.required:
                    values[f.name] = choice.words[0] if choice else held[holds] if holds else filled[f.type]
            made[kind] = spec.entity(**values)
        return made

    def test_every_kind_goes_out_and_in(self) -> None:
        for kind, entity in self.examples().items():
            self.assertEqual(from_record(kind, to_record(entity)), entity)

    def test_part_and_symbol_keep_their_tuples(self) -> None:
        part = Part(
            "p", "Quillon", "X", "relay", units=(("coil", ("A1", "A2")), ("no", ("13", "14"))), ratings={"a": "1"}
        )
        self.assertEqual(from_record("part", to_record(part)), part)
        symbol = Symbol("y", "s", 1, 2, "breaker", units=(1, 2, 3))
        self.assertEqual(from_record("symbol", to_record(symbol)), symbol)

    def test_wrong_records_are_refused_with_the_field(self) -> None:
        good = to_record(note("a"))
        cases: list[tuple[str, Any, str]] = [
            ("rocket", good, "not a kind"),
            ("note", [], "an object"),
            ("note", {**good, "x": "1"}, "“x” should be a whole number"),
            ("note", {**good, "x": True}, "“x” should be a whole number"),
            ("note", {**good, "text": None}, "“text” should be a text"),
            ("note", {**good, "text": "x" * 2001}, "longer than 2000"),
            ("note", {**good, "text": "\ud800"}, "cannot be printed"),
            ("note", {k: v for k, v in good.items() if k != "y"}, "lacks the field “y”"),
            ("symbol", {**to_record(Symbol("y", "s", 1, 2, "coil")), "units": ["1"]}, "list of whole numbers"),
            ("symbol", {**to_record(Symbol("y", "s", 1, 2, "coil")), "mirror": 1}, "true or false"),
            ("part", {**to_record(Part("p", "m", "n", "relay")), "units": [3]}, "kind and pins"),
            ("part", {**to_record(Part("p", "m", "n", "relay")), "ratings": {"a": 1}}, "object of texts"),
        ]
        for kind, record, words in cases:
            with self.subTest(words), self.assertRaisesRegex(FileError, words):
                from_record(kind, record)

    @given(
        st.dictionaries(
            st.sampled_from(["id", "sheet_id", "x", "y", "text"]),
            st.none() | st.integers() | st.text(alphabet="aé\x00Ω \n"),
        )
    )
    def test_any_record_is_read_or_refused(self, record: dict[str, Any]) -> None:
        try:
            made = from_record("note", record)
        except FileError:
            return
        self.assertEqual({name: value for name, value in to_record(made).items() if name in record}, record)


class Aggregate(TestCase):
    def test_indexes_follow_an_entity_that_moves_between_keys(self) -> None:
        project = Project()
        device = Device("d1", "KF", 1)
        symbol = Symbol("y1", "s1", 1, 1, "coil", device_id="d1")
        project.apply(ChangeSet([Change("device", "d1", None, device), Change("symbol", "y1", None, symbol)]))
        self.assertEqual([s.id for s in project.units_of("d1")], ["y1"])
        moved = dataclasses.replace(symbol, sheet_id="s2", device_id="d2")
        project.apply(ChangeSet([Change("symbol", "y1", symbol, moved)]))
        self.assertEqual((project.symbols_on("s1"), project.units_of("d1")), ([], []))
        self.assertEqual([s.id for s in project.symbols_on("s2")], ["y1"])
        project.apply(ChangeSet([Change("device", "d1", device, dataclasses.replace(device, fixed_tag="KF9"))]))
        self.assertEqual((project.devices_tagged.get("KF1"), project.devices_tagged.get("KF9")), ([], ["d1"]))

    def test_a_trial_leaves_nothing_even_when_it_fails(self) -> None:
        project = Project()
        stamp = project.stamp
        with self.assertRaises(ZeroDivisionError), project.trial() as total:
            project.commit(total, ChangeSet([Change("note", "n1", None, note("a"))]))
            self.assertIn("n1", project.notes)
            raise ZeroDivisionError
        self.assertEqual((project.notes, project.stamp), ({}, stamp))

    def test_get_says_what_is_gone(self) -> None:
        with self.assertRaises(GoneError) as caught:
            Project().get("wire_type", "t9")
        self.assertEqual((caught.exception.ids, "wire type t9" in caught.exception.message), (("t9",), True))

    def test_every_kind_on_a_sheet_knows_its_sheet(self) -> None:
        for kind in ON_SHEET:
            self.assertEqual(REFERENCES[kind]["sheet_id"], "sheet")

    def test_an_index_is_equal_whatever_the_order(self) -> None:
        one, other = Index("a", Memo()), Index("a", Memo())
        for id in "ab":
            one.add("k", id)
        for id in "ba":
            other.add("k", id)
        self.assertEqual(one, other)
        other.discard("k", "a")
        other.discard("k", "not there")
        self.assertNotEqual(one, other)
        self.assertTrue(other.has("k"))
        other.discard("k", "b")
        self.assertEqual((other.has("k"), list(other.keys())), (False, []))
