"""Derived values that end in an error: it is kept as a value is, and whoever goes on without it hears of the change."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.model import Change, ChangeSet, Device, Project, RuleError, derived, derived_few, derived_part

runs: list[str] = []


@derived
def first_letter(project: Project, id: str) -> str:
    """Return the first letter of a device's text."""
    runs.append("letter")
    text = project.devices[id].text
    if not text:
        raise RuleError(f"{id} says nothing.", ids=(id,))
    return text[0]


@derived
def shown(project: Project, id: str) -> str:
    """Return the letter, or a dash for what has none."""
    runs.append("shown")
    try:
        return first_letter(project, id)
    except RuleError as error:
        return f"– {error.message}"


@derived
def title(project: Project, id: str) -> str:
    """Return what stands on what is shown."""
    runs.append("title")
    return f"[{shown(project, id)}]"


@derived
def letters_of(project: Project, kind: str) -> dict[str, str]:
    """Return the first letters of all devices of a kind; it is an error when one has none."""
    return {d.id: first_letter(project, d.id) for d in project.devices.values() if d.letters == kind}


def _kind(project: Project, kind: str, id: str) -> str:
    return kind


@derived_part(letters_of, _kind)
def letter_among(all: dict[str, str], kind: str, id: str) -> str:
    """Return one of them."""
    return all[id]


@derived_few(1)
def long_letter(project: Project, id: str) -> str:
    """Return a letter of which few are kept."""
    return first_letter(project, id) * 3


class Failing(TestCase):
    def setUp(self) -> None:
        self.project = Project()
        self.say("d", "word")
        runs.clear()

    def say(self, id: str, text: str) -> None:
        device = Device(id, "K", 1, text=text)
        self.project.apply(ChangeSet([Change("device", id, self.project.devices.get(id), device)]))

    def test_who_went_on_without_it_hears_when_the_cause_is_gone_and_comes_back(self) -> None:
        self.say("d", "")
        self.assertEqual(title(self.project, "d"), "[– d says nothing.]")
        self.say("d", "new")
        self.assertEqual(title(self.project, "d"), "[n]")
        self.say("d", "")
        self.assertEqual(title(self.project, "d"), "[– d says nothing.]")

    def test_it_is_told_to_each_who_asks_and_worked_out_once(self) -> None:
        self.say("d", "")
        for _ in range(3):
            with self.assertRaises(RuleError) as told:
                first_letter(self.project, "d")
            self.assertEqual((told.exception.message, told.exception.ids), ("d says nothing.", ("d",)))
        self.assertEqual(runs, ["letter"])

    def test_an_equal_error_leaves_what_stands_on_it_alone(self) -> None:
        self.say("d", "")
        title(self.project, "d")
        runs.clear()
        self.project.apply(ChangeSet([Change("device", "d", self.project.devices["d"], Device("d", "K", 2, text=""))]))
        self.assertEqual(title(self.project, "d"), "[– d says nothing.]")
        self.assertEqual(runs, ["letter"])

    def test_what_is_tried_and_taken_back_leaves_the_value(self) -> None:
        self.assertEqual(title(self.project, "d"), "[w]")
        with self.project.trial() as changes:
            empty = Device("d", "K", 1)
            self.project.commit(changes, ChangeSet([Change("device", "d", self.project.devices["d"], empty)]))
            self.assertEqual(title(self.project, "d"), "[– d says nothing.]")
        self.assertEqual(title(self.project, "d"), "[w]")

    def test_a_record_that_is_missed_is_found_when_it_comes(self) -> None:
        with self.assertRaises(KeyError):
            title(self.project, "e")
        self.say("e", "late")
        self.assertEqual(title(self.project, "e"), "[l]")

    def test_parts_of_a_whole_that_fails_fail_and_come_back(self) -> None:
        self.assertEqual(letter_among(self.project, "K", "d"), "w")
        self.say("e", "")
        self.assertEqual(shown(self.project, "d"), "w")
        with self.assertRaises(RuleError):
            letter_among(self.project, "K", "d")
        self.say("e", "x")
        self.assertEqual(letter_among(self.project, "K", "d"), "w")
        self.assertEqual(letter_among(self.project, "K", "e"), "x")

    def test_one_that_was_let_go_is_an_error_again(self) -> None:
        self.say("e", "")
        for _ in range(2):
            with self.assertRaises(RuleError):
                long_letter(self.project, "e")
            self.assertEqual(long_letter(self.project, "d"), "www")
