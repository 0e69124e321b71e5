"""Search and replace: what is found where, what is left alone, and what is refused with all as it was."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.exchange import write_project
from jolly_core.model import RuleError
from jolly_core.tagging import full_tag
from jolly_core.testing import Workbench

from ..base.history import take_back

RELAY = "hollin-hr-k22"


class Replacing(TestCase):
    def setUp(self) -> None:
        """Three relays on two sheets, with a text each, and a note."""
        b = self.bench = Workbench(frame="zones")
        self.first = next(iter(b.project.sheets))
        self.second = b.new("add-sheet", number="20", title="Auger, control")
        self.devices = []
        for n, sheet in enumerate((self.first, self.first, self.second)):
            symbol = b.place("coil", 20 + 30 * n, 20, part_id=RELAY, sheet_id=sheet)
            self.devices.append(b.device(symbol))
        for id, text in zip(self.devices, ("Auger run", "auger stop", "Augers ready"), strict=True):
            b.do("set-text", device_id=id, text=text)
        b.new("place-note", sheet_id=self.second, x=60, y=60, text="See the auger. AUGER!")

    def table(self, find: str, then: str, *where: str, **values: object) -> list[tuple[str, str]]:
        """Replace, and return what was and is at each place."""
        outcome = self.bench.do("replace-texts", find=find, replace=then, where=list(where), **values)
        self.made = outcome
        return [(row[2], row[3]) for row in outcome.table[1:]]

    def texts(self) -> list[str]:
        return [self.bench.project.devices[id].text for id in self.devices]

    def refused(self, words: str, find: str, then: str, *where: str, **values: object) -> None:
        before = write_project(self.bench.project)
        with self.assertRaisesRegex(RuleError, words):
            self.table(find, then, *where, **values)
        self.assertEqual(before, write_project(self.bench.project), "refused means unchanged")

    def test_all_places_are_found_whatever_the_capitals_and_each_is_told(self) -> None:
        found = self.table("auger", "screw", "texts", "notes", "sheets")
        self.assertEqual(["screw run", "screw stop", "screws ready"], self.texts())
        self.assertIn(("See the auger. AUGER!", "See the screw. screw!"), found)
        self.assertIn(("Auger, control", "screw, control"), found)
        self.assertEqual(5, len(found))
        self.assertEqual("replace auger by screw, 5 times", self.made.label)
        self.bench.project.apply(take_back(self.bench.project, self.made.changes))
        self.assertEqual(["Auger run", "auger stop", "Augers ready"], self.texts())

    def test_capitals_and_whole_words_narrow_it(self) -> None:
        self.assertEqual(1, len(self.table("auger", "screw", "texts", match_case=True)))
        self.assertEqual(["Auger run", "screw stop", "Augers ready"], self.texts())
        self.table("AUGER", "Screw", "texts", whole_words=True)
        self.assertEqual(["Screw run", "screw stop", "Augers ready"], self.texts(), "augers is another word")

    def test_what_is_typed_is_no_pattern(self) -> None:
        self.bench.do("set-text", device_id=self.devices[0], text="a.c (1+1)")
        self.assertEqual([("a.c (1+1)", r"\1 (1+1)")], self.table("a.c", r"\1", "texts"))
        self.assertEqual(["\\1 (1+1)", "auger stop", "Augers ready"], self.texts())
        self.refused("“abc” is nowhere", "abc", "x", "texts")

    def test_only_some_sheets_and_only_some_rows(self) -> None:
        self.table("auger", "screw", "texts", "notes", sheet_ids=[self.second])
        self.assertEqual(["Auger run", "auger stop", "screws ready"], self.texts())
        key = f"device:{self.devices[1]}:text"
        self.table("auger", "screw", "texts", only=[key])
        self.assertEqual(["Auger run", "screw stop", "screws ready"], self.texts())

    def test_tags_stay_tags_and_nobody_gets_one_that_is_used(self) -> None:
        b = self.bench
        for id, tag in zip(self.devices, ("M1", "M2", "P1"), strict=True):
            b.do("set-tag", device_id=id, tag=tag)
        self.table("M", "N", "tags")
        self.assertEqual(["-N1", "-N2", "-P1"], [full_tag(b.project, b.project.devices[id]) for id in self.devices])
        for words, find, then in (
            ("The tag P1 is used already. Leave this one out", "N", "P"),
            ("“N 1” is no tag", "1", " 1"),
            ("“-1” is no tag", "N", "-"),
        ):
            self.refused(words, find, then, "tags")
        self.assertEqual(["N1", "N2", "P1"], [b.project.devices[id].fixed_tag for id in self.devices])

    def test_a_continuation_keeps_a_name_and_no_text_grows_beyond_its_room(self) -> None:
        b = self.bench
        b.new("place-continuation", sheet_id=self.first, x=80, y=40, name="24 V")
        self.refused("The continuation 24 V would have no name", "24 V", "", "continuations")
        self.assertEqual([("24 V", "24 V DC")], self.table("24 V", "24 V DC", "continuations"))
        self.refused("would be longer than 200 characters", "auger", "a" * 198, "texts")

    def test_a_part_is_replaced_by_its_whole_number_wherever_it_is_used(self) -> None:
        project = self.bench.project
        old = project.parts[RELAY].number
        new = next(p for p in self.bench.library.parts_of("relay") if p.id != RELAY and p.count("coil"))
        found = self.table(
            old.lower(), new.number if new.id in project.parts else new.id, "parts", sheet_ids=[self.first]
        )
        self.assertEqual([(old, new.number)] * 2, found)
        self.assertEqual([new.id, new.id, RELAY], [project.devices[id].part_id for id in self.devices])
        self.refused("There is no part nothing in the library", old, "nothing", "parts")
        self.refused("is nowhere in what you look through", "HR", new.number, "parts")
