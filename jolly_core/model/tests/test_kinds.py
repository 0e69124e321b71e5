"""What kinds declare, and what follows from it."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any
from unittest import TestCase

import jsonschema

from jolly_core.model.fields import Field, Longest, OneOf, Since, Within
from jolly_core.model.kinds import kind

from .. import (
    KINDS,
    ON_SHEET,
    Card,
    Change,
    ChangeSet,
    FileError,
    Function,
    Note,
    Part,
    Project,
    Rail,
    Sheet,
    Symbol,
    Wire,
    changes_from_json,
    circles,
    from_record,
    kind_of,
    places_of,
    shifted,
    to_record,
)
from ..kinds import moved_where
from ..records import faults_of
from ..shapes import described

FORMATS = Path(__file__).resolve().parents[3] / "docs" / "formats"
FAR = 10**9


def rail(x2: float = 80.0) -> Rail:
    return Rail("r1", "e1", 0.0, 9.0, x2, 9.0, "p")


def bounded() -> list[tuple[str, Field, Within]]:
    fields = [(kind, field) for kind, spec in KINDS.items() for field in spec.fields.values()]
    return [(kind, field, mark) for kind, field in fields for mark in field.marks if isinstance(mark, Within)]


class Declared(TestCase):
    def test_each_version_of_the_file_has_the_fields_that_say_so(self) -> None:
        for version in range(1, 6):
            raw = json.loads((FORMATS / f"project-{version}.schema.json").read_text(encoding="utf-8"))
            documented = {
                name: set(table["items"]["properties"]) - KINDS[name].retired
                for name, table in raw["properties"]["entities"]["properties"].items()
            }
            stands: dict[str, set[str]] = {}
            for name, spec in KINDS.items():
                if spec.since <= version:
                    marks = {f.name: f.mark(Since) for f in spec.fields.values()}
                    stands[name] = {n for n, mark in marks.items() if mark is None or mark.version <= version}
            self.assertEqual(documented, stands, version)

    def test_every_kind_is_described_with_units_that_its_names_say(self) -> None:
        for name, field, bound in bounded():
            if field.name.endswith("_mm"):
                self.assertEqual(bound.unit, "mm", f"{name}.{field.name}")

    def test_what_is_named_comes_before_what_names_it(self) -> None:
        order = list(KINDS)
        for name, spec in KINDS.items():
            for mark in spec.names.values():
                self.assertLessEqual(order.index(mark.kind), order.index(name), name)

    def test_one_name_is_given_once(self) -> None:
        with self.assertRaisesRegex(RuntimeError, "Rail both claim “rail”"):
            kind("rail", since=9)(Note)

    def test_what_lies_on_a_sheet_can_be_moved(self) -> None:
        for name in ON_SHEET:
            spec = KINDS[name]
            self.assertEqual(len(spec.across), len(spec.down), name)
            self.assertTrue(spec.across, name)
        self.assertEqual([k for k, spec in KINDS.items() if spec.across and not spec.on_sheet], [])


class Moving(TestCase):
    def test_all_places_move_and_nothing_else_does(self) -> None:
        wire = Wire("w", "s", 1, 2, 5, 2, "t")
        self.assertEqual(shifted(wire, 3, -1), Wire("w", "s", 4, 1, 8, 1, "t"))
        self.assertEqual(shifted(wire, 0, 0, sheet_id="s2").sheet_id, "s2")
        self.assertEqual(list(places_of(wire)), [(1, 2), (5, 2)])
        self.assertEqual(moved_where(wire, lambda x, y: x > 3, 0, 7), Wire("w", "s", 1, 2, 5, 9, "t"))
        self.assertIs(moved_where(wire, lambda x, y: x > 9, 0, 7), wire)


class Bounds(TestCase):
    def test_every_bound_holds_in_files_and_is_in_the_schema(self) -> None:
        spec = KINDS["sheet"].fields["columns"]
        self.assertEqual(described(spec), {"type": "integer", "minimum": 1, "maximum": 40})
        for name, field, bound in bounded():
            validator = jsonschema.Draft202012Validator(described(field))
            for value in (bound.high + 1, bound.low - 1, float("nan")):
                self.assertTrue(bound.fault(value), f"{name}.{field.name}")
                self.assertEqual(bound.fault(bound.nearest(value)) == "", not bound.above or value > bound.low)
            self.assertFalse(validator.is_valid(field.type(bound.high + 1)), f"{name}.{field.name}")
            self.assertTrue(validator.is_valid(field.type(bound.high)), f"{name}.{field.name}")

    def test_a_record_out_of_bounds_is_refused_by_field_and_unit(self) -> None:
        with self.assertRaisesRegex(FileError, "rail r1, “x2” should be from -20000 to 20000 mm"):
            from_record("rail", to_record(rail(x2=1e9)))
        self.assertEqual(from_record("rail", to_record(rail(x2=1e9)), mend=True).x2, 20_000)
        with self.assertRaisesRegex(FileError, "“surface” should be one of plate, door"):
            from_record(
                "placing", {"id": "p", "enclosure_id": "e", "device_id": "d", "surface": "cellar", "x": 0, "y": 0}
            )

    def test_only_what_an_edit_changes_is_asked(self) -> None:
        far = Note("n", "s", 5000, 4, "x")
        self.assertEqual(list(faults_of(far)), ["x"])
        self.assertEqual(faults_of(shifted(far, 0, 3), far), {})
        self.assertEqual(list(faults_of(shifted(far, 1, 0), far)), ["x"])

    def test_the_journal_of_earlier_days_can_be_read(self) -> None:
        rows = [{"kind": "note", "id": "n", "before": to_record(Note("n", "s", 1, 2, "a")), "after": None}]
        rows[0]["after"] = to_record(Note("n", "s", 99_999, 2, "a"))
        self.assertEqual([c.after.x for c in changes_from_json(rows) if c.after], [2000])


class Stored(TestCase):
    """What was stored before there were bounds."""

    def test_what_is_beyond_a_bound_is_put_right_and_noted(self) -> None:
        project = Project()
        project.load("sheet", [Sheet("s", "1", columns=10**8), Sheet("t", "2")])
        project.load("rail", [rail(x2=1e9)])
        project.load("part", [Part("p", "a", "b", "relay", units=(("no", ("1", "2")),) * 300_000)])
        project.load("card", [Card("c", "d", start="99999999999.9")])
        project.load("symbol", [Symbol("y", "s", 1, 2, "coil", rotation=45)])
        self.assertEqual(project.sheets["s"].columns, 40)
        self.assertEqual(project.rails["r1"].x2, 20_000)
        self.assertEqual(len(project.parts["p"].units), 400)
        self.assertEqual((project.cards["c"].start, project.symbols["y"].rotation), ("0.0", 0))
        self.assertEqual(
            {key: list(faults) for key, (_, faults) in project.put_right.items()},
            {
                ("sheet", "s"): ["columns"],
                ("rail", "r1"): ["x2"],
                ("part", "p"): ["units"],
                ("card", "c"): ["start"],
                ("symbol", "y"): ["rotation"],
            },
        )
        self.assertEqual(project.put_right["sheet", "s"][1]["columns"], "should be from 1 to 40, not 100000000")

    def test_every_bound_is_looked_at(self) -> None:
        for name, field, bound in bounded():
            spec = KINDS[name]
            values: dict[str, Any] = {}
            for f in spec.fields.values():
                choice = f.mark(OneOf)
                if f.required:
                    values[f.name] = choice.words[0] if choice else f.type() if f.type is not str else "x"
                elif not f.required:
                    values[f.name] = f.default
            values[field.name] = field.type(bound.high + FAR)
            project = Project()
            project.load(name, [spec.entity(**values)])
            self.assertIn((name, values["id"]), project.put_right, f"{name}.{field.name}")
            self.assertEqual(faults_of(project.tables[name][values["id"]]).get(field.name), None)

    def test_long_texts_stay(self) -> None:
        project = Project()
        project.load("function", [Function("f", "A", text="x" * 500)])
        self.assertEqual((len(project.functions["f"].text), project.put_right), (500, {}))
        project.load("sheet", [Sheet("s", "1", title="x" * 500), Sheet("t", "2", columns=99)])
        self.assertEqual((len(project.sheets["s"].title), list(project.put_right)), (500, [("sheet", "t")]))
        longest = KINDS["function"].fields["text"].mark(Longest)
        self.assertEqual(longest.most if longest else 0, 200)

    def test_a_circle_is_opened_at_one_place(self) -> None:
        table = {
            i: Function(i, i, parent_id=up) for i, up in {"a": "b", "b": "c", "c": "a", "d": "a", "e": "e"}.items()
        }
        self.assertEqual(list(circles(KINDS["function"], table)), [("a", "parent_id"), ("e", "parent_id")])
        project = Project()
        project.load("function", table.values())
        self.assertEqual([f.parent_id for f in project.functions.values()], ["", "c", "a", "a", ""])
        self.assertEqual(set(project.put_right), {("function", "a"), ("function", "e")})
        self.assertEqual(list(circles(kind_of(Function), project.functions)), [])

    def test_what_is_within_bounds_is_loaded_as_it_is(self) -> None:
        project, good = Project(), rail()
        project.load("rail", [good])
        self.assertIs(project.rails["r1"], good)
        project.apply(ChangeSet([Change("rail", "r1", good, None)]))
        self.assertEqual(project.put_right, {})
