"""Ladder lines over sheets: tags and wire numbers made of them are shown once in a project, whatever people do."""

from __future__ import annotations

from unittest import TestCase

from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from jolly_core.checks import CHECKS, all_snags
from jolly_core.edits import EDITS, parse_edit
from jolly_core.model import Project, RuleError
from jolly_core.tagging import full_tag
from jolly_core.testing import Workbench
from jolly_core.wiring import holders_of_numbers


def shown_twice(project: Project) -> list[str]:
    """Return the full tags on two devices and the wire numbers on two potentials."""
    tags = [full_tag(project, d) for d in project.devices.values() if d.letters]
    twice = sorted({t for t in tags if tags.count(t) > 1 and "?" not in t})
    return twice + sorted(number for number, at in holders_of_numbers(project).items() if len(at) > 1)


def codes(project: Project) -> set[str]:
    return {s.code for s in all_snags(project)}


def rung(bench: Workbench, sheet_id: str, line: int) -> list[str]:
    """Draw two symbols with wires on the line of an index of a sheet; return their tags."""
    y = 16 + 9 * line
    bench.wire((14, y), (60, y), sheet_id=sheet_id)
    return [bench.tag(bench.place(key, x, y, sheet_id=sheet_id)) for key, x in (("button-no", 20), ("coil", 40))]


class NorthAmerican(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(standard="na", tag_habit="line")

    def sheet(self, number: str, **values: object) -> str:
        return self.bench.new("add-sheet", number=number, size="ANSI B", ladders=2, line_count=9, **values)

    def test_a_second_sheet_of_two_ladders_begins_after_the_first(self) -> None:
        ids = [self.sheet(str(number)) for number in (40, 41, 42)]
        firsts = [self.bench.project.sheets[id].first_line for id in ids]
        self.assertEqual(firsts, [401, 421, 441])
        tags = [tag for id in ids for line in range(3) for tag in rung(self.bench, id, line)]
        self.assertEqual(len(set(tags)), 18)
        self.assertEqual(shown_twice(self.bench.project), [])

    def test_lines_that_overlap_are_said_and_tags_still_differ(self) -> None:
        one, two = self.sheet("40"), self.sheet("41", first_line=411)
        self.bench.do("change-sheet", sheet_id=one, first_line=405)
        for id, line in ((one, 6), (two, 0)):
            rung(self.bench, id, line)
        tags = sorted(full_tag(self.bench.project, d) for d in self.bench.project.devices.values())
        self.assertEqual(len(set(tags)), 4)
        self.assertTrue(any(t.endswith("411A") for t in tags), tags)
        self.assertEqual(shown_twice(self.bench.project), [])
        (snag,) = [s for s in all_snags(self.bench.project) if s.code == "lines-shared"]
        self.assertIn("41 has lines 411 to 422 of sheet 40", snag.message)
        assert snag.act is not None
        self.bench.do(**snag.act.payload())
        firsts = [self.bench.project.sheets[id].first_line for id in (one, two)]
        self.assertEqual(firsts, [405, 423])
        self.assertNotIn("lines-shared", codes(self.bench.project))
        with self.assertRaises(RuleError):
            self.bench.do("run-lines-on")

    def test_a_running_tag_gives_way_to_a_fixed_one_elsewhere(self) -> None:
        one, two = self.sheet("40"), self.sheet("41")
        rung(self.bench, one, 2)
        (button, _) = rung(self.bench, two, 2)
        device = next(i for i, d in self.bench.project.devices.items() if full_tag(self.bench.project, d) == "PB403")
        other = next(i for i, d in self.bench.project.devices.items() if full_tag(self.bench.project, d) == button)
        self.bench.do("set-tag", device_id=device, tag="PB500")
        self.bench.do("change-sheet", sheet_id=two, first_line=498)
        self.assertEqual(full_tag(self.bench.project, self.bench.project.devices[other]), "PB500A")
        self.assertNotIn("equal-tags", codes(self.bench.project))

    def test_sheets_with_zones_count_lines_for_their_tags_too(self) -> None:
        one = self.bench.new("add-sheet", number="50", frame="zones", size="A1", line_count=20)
        two = self.bench.new("add-sheet", number="51", frame="zones")
        self.assertEqual([self.bench.project.sheets[i].first_line for i in (one, two)], [501, 521])


class Iec(TestCase):
    def test_sheets_whose_numbers_are_no_numbers(self) -> None:
        bench = Workbench()
        ids = [bench.new("add-sheet", number=number) for number in ("P1", "P2", "20A")]
        for id in ids:
            rung(bench, id, 0)
            rung(bench, id, 1)
        self.assertEqual([bench.project.sheets[i].first_line for i in ids], [311, 321, 331])
        self.assertEqual(shown_twice(bench.project), [])
        self.assertNotIn("lines-shared", codes(bench.project))

    def test_numbering_sheets_with_a_prefix_keeps_lines_apart(self) -> None:
        bench = Workbench()
        for number in ("31", "32"):
            rung(bench, bench.new("add-sheet", number=number), 0)
        bench.do("number-sheets", prefix="P", start=1)
        self.assertEqual([s.first_line for s in bench.project.sheets_in_order()], [1, 11, 21])
        self.assertEqual(shown_twice(bench.project), [])

    def test_a_copied_sheet_has_lines_of_its_own(self) -> None:
        bench = Workbench()
        rung(bench, bench.sheet, 0)
        copy = bench.new("duplicate-sheet", sheet_id=bench.sheet, number="30B")
        self.assertEqual(bench.project.sheets[copy].first_line, 311)
        self.assertEqual(shown_twice(bench.project), [])

    def test_shared_lines_number_their_wires_together(self) -> None:
        bench = Workbench()
        two = bench.new("add-sheet", number="31", first_line=301)
        for id in (bench.sheet, two):
            rung(bench, id, 0)
        self.assertEqual(sorted(holders_of_numbers(bench.project)), [f"301{n}" for n in range(1, 7)])

    def test_eleven_nets_on_a_line_are_no_numbers_of_another_line(self) -> None:
        bench = Workbench()
        low = bench.new("add-sheet", number="3")  # lines 31 to 38
        high = bench.new("add-sheet", number="31")  # lines 311 to 318
        for n in range(12):
            bench.wire((14 + 4 * n, 15), (16 + 4 * n, 15), sheet_id=low)
        rung(bench, high, 0)
        numbers = holders_of_numbers(bench.project)
        self.assertEqual(shown_twice(bench.project), [])
        self.assertIn("3111", numbers)
        self.assertEqual(["319" in numbers, "3190" in numbers, "3119" in numbers], [True, True, False])

    def test_one_number_from_two_rules_is_a_snag_on_both_sheets(self) -> None:
        bench = Workbench()
        two = bench.new("add-sheet", number="31", frame="zones")
        bench.wire((20, 16), (40, 16))
        bench.wire((20, 16), (40, 16), type_id=bench.red, sheet_id=two)
        pieces = [{"piece": "text", "text": "301"}, {"piece": "running", "digits": 1, "start": 1}]
        bench.do("put-number-rule", name="Red", type_id=bench.red, pieces=pieces)
        found = [(s.sheet_id, s.message) for s in all_snags(bench.project) if s.code == "number-twice"]
        self.assertEqual(sorted(id for id, _ in found), sorted([bench.sheet, two]))
        self.assertIn("3011 is on two potentials, the other on sheet 31", dict(found)[bench.sheet])


class Beside(TestCase):
    def test_cables_of_one_tag_at_two_places_are_a_snag_where_tags_have_no_places(self) -> None:
        bench = Workbench()
        for code in ("P1", "P2"):
            place = bench.new("add-location", code=code, side="panel")
            bench.do("change-sheet", sheet_id=bench.sheet, location_id=place)
            bench.do("add-enclosure", part_id="brindlework-bw-e6825", location_id=place)
        one, two = sorted(bench.project.devices)
        self.assertEqual(full_tag(bench.project, bench.project.devices[one])[:3], "+P1")
        self.assertNotIn("equal-tags-beside", codes(bench.project))
        bench.do("change-settings", tag_habit="line")
        found = [s.device_id for s in all_snags(bench.project) if s.code == "equal-tags-beside"]
        self.assertEqual(found, [one, two])
        bench.do("set-tag", device_id=two, tag="E2")
        self.assertNotIn("equal-tags-beside", codes(bench.project))

    def test_each_act_of_a_snag_is_an_edit_there_is(self) -> None:
        self.assertIn("lines-shared", CHECKS)
        self.assertIn("run-lines-on", EDITS)
        parse_edit({"kind": "run-lines-on"})


class AnySheets(TestCase):
    @settings(max_examples=40, deadline=None, suppress_health_check=list(HealthCheck))
    @given(
        st.sampled_from(("line", "iec")),
        st.lists(
            st.tuples(
                st.sampled_from(("add", "zones", "duplicate", "number", "rung", "lines", "fix", "insert", "renumber")),
                st.integers(0, 400),
                st.integers(0, 7),
            ),
            min_size=3,
            max_size=14,
        ),
    )
    def test_tags_and_numbers_are_shown_once(self, habit: str, acts: list[tuple[str, int, int]]) -> None:
        bench = Workbench(tag_habit=habit, name="Lines")
        for act, n, line in acts:
            sheets = sorted(bench.project.sheets)
            sheet_id = sheets[n % len(sheets)]
            try:
                if act in ("add", "zones"):
                    name = f"{'PX'[n % 2]}{n}" if n % 3 == 0 else str(n)
                    frame = "zones" if act == "zones" else "ladder"
                    bench.do("add-sheet", number=name, frame=frame, ladders=1 + n % 2, size="A2", line_count=9 + line)
                elif act == "duplicate":
                    bench.do("duplicate-sheet", sheet_id=sheet_id, number=f"D{n}")
                elif act == "number":
                    bench.do(
                        "number-sheets", start=n, prefix="" if n % 2 else "P", lines=("number", "run", "keep")[n % 3]
                    )
                elif act == "rung":
                    rung(bench, sheet_id, line)
                elif act == "lines":
                    bench.do("change-sheet", sheet_id=sheet_id, first_line=n)
                elif act == "fix":
                    bench.do("fix-numbers", sheet_ids=[sheet_id], fixed=bool(n % 2))
                elif act == "insert":
                    bench.do("insert-rung", sheet_id=sheet_id, line=bench.project.sheets[sheet_id].first_line + line)
                else:
                    bench.do("run-lines-on")
            except RuleError:
                pass
            self.assertEqual(shown_twice(bench.project), [], (act, n, line))
        if "lines-shared" in codes(bench.project):
            bench.do("run-lines-on")
        self.assertNotIn("lines-shared", codes(bench.project))
        self.assertEqual(shown_twice(bench.project), [])
