"""Derived values: they are what working everything out anew gives, and no more is worked out than has to be."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from jolly_core.model import Change, ChangeSet, Device, Note, Project, Symbol, derived, derived_few, derived_part
from jolly_core.model.nodes import same

runs: list[str] = []


@derived
def words_on(project: Project, sheet_id: str) -> list[str]:
    """Return the texts of a sheet's notes."""
    runs.append(f"words {sheet_id}")
    return [n.text for n in project.notes_on(sheet_id)]


@derived
def count_on(project: Project, sheet_id: str) -> int:
    """Return how many words a sheet has."""
    runs.append(f"count {sheet_id}")
    return sum(len(words_on(project, sheet_id)) for _ in (0,))


@derived
def total(project: Project) -> int:
    """Return how many words all sheets have."""
    runs.append("total")
    return sum(count_on(project, s) for s in "abc")


@derived
def told_by(project: Project, device_id: str) -> str:
    """Return the text of a device, or what the sheet of its first symbol says when it has none."""
    runs.append(f"told {device_id}")
    device = project.devices.get(device_id)
    if device is None:
        return "nobody"
    if device.text:
        return device.text
    units = project.units_of(device_id)
    return " ".join(words_on(project, units[0].sheet_id)) if units else "nothing"


@derived
def everybody(project: Project) -> dict[str, str]:
    """Return what each device is told by."""
    runs.append("everybody")
    return {id: told_by(project, id) for id in sorted(project.devices)}


@derived
def crowded(project: Project) -> bool:
    """Return whether there are more words than devices, asking for the devices only where there are words."""
    return total(project) > 0 and total(project) > len(everybody(project))


@derived
def lines_on(project: Project, sheet_id: str) -> dict[str, str]:
    """Return the texts of a sheet's notes by id, and what is said by the devices on it, by theirs."""
    runs.append(f"lines {sheet_id}")
    said = {s.device_id: told_by(project, s.device_id) for s in project.symbols_on(sheet_id)}
    return {**said, **{n.id: n.text for n in project.notes_on(sheet_id)}}


def _sheet(project: Project, sheet_id: str, id: str) -> str:
    return sheet_id


def _sheet_of_note(project: Project, id: str) -> str:
    return project.notes[id].sheet_id


@derived_part(lines_on, _sheet)
def line_at(lines: dict[str, str], sheet_id: str, id: str) -> str:
    """Return one of a sheet's texts."""
    return lines[id]


@derived_part(lines_on, _sheet_of_note)
def line_of(lines: dict[str, str], id: str) -> str:
    """Return what a note says, wherever it is."""
    return lines[id].upper()


@derived
def verse(project: Project, sheet_id: str) -> str:
    """Return the texts of a sheet's notes in one."""
    runs.append(f"verse {sheet_id}")
    return " ".join(line_at(project, sheet_id, n.id) for n in project.notes_on(sheet_id))


@derived
def half(project: Project, id: str) -> str:
    """Return a note's text with what another sheet says, where it is there."""
    runs.append(f"half {id}")
    here = line_of(project, id) if id in project.notes else "nothing"
    return f"{here} {verse(project, 'b')}" if here else "silence"


@derived
def rhymes(project: Project, ids: str) -> dict[str, str]:
    """Return a whole that stands on parts of another."""
    runs.append("rhymes")
    return {id: half(project, id) for id in ids}


@derived_part(rhymes, lambda project, id: "klmn")
def rhyme(all: dict[str, str], id: str) -> str:
    """Return what a note rhymes with."""
    return all[id]


@derived
def poem(project: Project) -> str:
    """Return what stands on parts of a whole that stands on parts."""
    runs.append("poem")
    return " ".join(rhyme(project, id) for id in "km")


@derived_few(2)
def loud(project: Project, sheet_id: str) -> str:
    """Return a sheet's words in capital letters."""
    runs.append(f"loud {sheet_id}")
    return " ".join(words_on(project, sheet_id)).upper()


@derived
def chorus(project: Project) -> str:
    """Return what all sheets say at once, of which one is never kept."""
    runs.append("chorus")
    return " ".join(loud(project, s) for s in "abc")


@derived
def heard(project: Project) -> int:
    """Return how much of it is heard."""
    runs.append("heard")
    return len(chorus(project))


@derived
def ranks(project: Project) -> dict[str, str]:
    """Return the sheet of each note, by their texts."""
    found = sorted(project.notes.values(), key=lambda n: (n.text, n.id))
    return {n.id: n.sheet_id for n in found}


@derived
def ranked(project: Project) -> str:
    """Return the notes by their texts, as what stands on a dict in another order sees them."""
    runs.append("ranked")
    return "".join(ranks(project))


ASKED: list[Callable[[Project], Any]] = [
    total,
    everybody,
    crowded,
    heard,
    poem,
    ranked,
    *(lambda p, n=n: half(p, n) for n in "kl"),
    *(lambda p, s=s: verse(p, s) for s in "ab"),
    *(lambda p, s=s: loud(p, s) for s in "abc"),
    *(lambda p, d=d: told_by(p, d) for d in "uvw"),
]


@dataclass(frozen=True)
class Held:
    """A record with a dict."""

    name: str
    entries: dict[str, int]


def put(project: Project, kind: str, id: str, after: Any) -> None:
    """Put, change or take away one record."""
    project.apply(ChangeSet([Change(kind, id, project.tables[kind].get(id), after)]))


def note(id: str, sheet: str, text: str) -> Note:
    """Return a note."""
    return Note(id, sheet, 0, 0, text)


def ran(act: Callable[[], Any]) -> list[str]:
    """Return what was worked out while something was done."""
    runs.clear()
    act()
    return sorted(runs)


_texts = st.sampled_from(["", "x", "y"])
_acts = st.lists(
    st.one_of(
        st.tuples(st.just("note"), st.sampled_from("klmn"), st.sampled_from("abc"), _texts),
        st.tuples(st.just("device"), st.sampled_from("uvw"), st.just(""), _texts),
        st.tuples(st.just("symbol"), st.sampled_from("pqr"), st.sampled_from("abc"), st.sampled_from("uvw")),
        st.tuples(
            st.just("gone"), st.sampled_from(["note", "device", "symbol"]), st.sampled_from("klmnuvwpqr"), st.just("")
        ),
        st.tuples(st.just("ask"), st.integers(0, len(ASKED) - 1), st.just(""), st.just("")),
        st.tuples(st.just("trial"), st.just(0), st.just(""), st.just("")),
        st.tuples(st.just("attempt"), st.just(0), st.just(""), st.just("")),
        st.tuples(st.just("end"), st.just(0), st.just(""), st.just("")),
        st.tuples(st.just("rest"), st.just(0), st.just(""), st.just("")),
        st.tuples(st.just("unasked"), st.integers(1, 4), st.just(""), st.just("")),
    ),
    max_size=40,
)


def record_of(act: tuple[Any, ...]) -> tuple[str, str, Any] | None:
    """Return kind, id and record that an act puts down, None when it puts none."""
    kind, id, sheet, text = act
    if kind == "note":
        return kind, id, note(id, sheet, text)
    if kind == "device":
        return kind, id, Device(id, "KF", 1, text=text)
    if kind == "symbol":
        return kind, id, Symbol(id, sheet, 0, 0, "coil", device_id=text)
    return (sheet and id, sheet, None) if kind == "gone" else None


class Random(TestCase):
    """Whatever is changed, asked and taken back, each value is what a project without a memory gives."""

    @settings(max_examples=300, deadline=None)
    @given(_acts)
    def test_values_are_those_of_all_anew(self, acts: list[tuple[Any, ...]]) -> None:
        project = Project()
        trials: list[tuple[Any, ChangeSet, bool]] = []
        unasked = 0

        def end() -> None:
            ended, done, kept = trials.pop()
            ended.__exit__(None, None, None)
            if kept and trials:  # its changes stay, for whoever tried before to take back
                for c in done:
                    trials[-1][1].record(c.kind, c.id, c.before, c.after)

        for act in acts:
            found = record_of(act)
            if act[0] == "ask":
                ASKED[act[1]](project)
            elif act[0] in ("trial", "attempt") and len(trials) < 3:
                begun = project.trial() if act[0] == "trial" else project.attempt()
                trials.append((begun, begun.__enter__(), act[0] == "attempt"))
            elif act[0] == "end" and trials:
                end()
            elif act[0] == "rest":
                project.memo.rest()
            elif act[0] == "unasked":
                unasked = act[1]
            elif found is not None:
                kind, id, after = found
                changes = ChangeSet([Change(kind, id, project.tables[kind].get(id), after)])
                if trials:
                    project.commit(trials[-1][1], changes)
                else:
                    project.apply(changes)
            unasked -= 1
            if unasked < 0:
                self.check(project)
        while trials:
            end()
            self.check(project)

    def check(self, project: Project) -> None:
        """Compare every second value with those of a project of the same records that knows nothing yet."""
        fresh = Project()
        for kind in ("note", "device", "symbol"):
            fresh.load(kind, list(project.tables[kind].values()))
        for ask in ASKED[len(project.notes) % 2 :: 2]:
            self.assertEqual(ask(project), ask(fresh))


class Work(TestCase):
    """What is worked out anew, and what is left alone."""

    def setUp(self) -> None:
        self.project = Project()
        for id, sheet in zip("klm", "abc", strict=True):
            put(self.project, "note", id, note(id, sheet, "x"))
        total(self.project)

    def test_a_change_costs_its_own_sheet(self) -> None:
        put(self.project, "note", "n", note("n", "a", "more"))
        self.assertEqual(ran(lambda: total(self.project)), ["count a", "total", "words a"])

    def test_what_comes_out_equal_leaves_the_rest_alone(self) -> None:
        put(self.project, "note", "k", note("k", "a", "other"))
        self.assertEqual(ran(lambda: total(self.project)), ["count a", "words a"])
        put(self.project, "figure", "f", None)
        self.assertEqual(ran(lambda: total(self.project)), [])

    def test_a_dict_in_another_order_is_another(self) -> None:
        self.assertEqual(ranked(self.project), "klm")
        put(self.project, "note", "k", note("k", "a", "y"))
        self.assertEqual(ranked(self.project), "lmk")
        put(self.project, "note", "k", note("k", "a", "z"))
        self.assertEqual(ran(lambda: ranked(self.project)), [])

    def test_the_order_of_dicts_in_values_is_seen_too(self) -> None:
        one, other = {"a": 1, "b": 2}, {"b": 2, "a": 1}
        for wrap in (
            lambda d: d,
            lambda d: (0, d),
            lambda d: {"x": d},
            lambda d: Held("n", d),
            lambda d: (0, {"x": d}),
        ):
            self.assertTrue(same(wrap(one), wrap(dict(one))))
            self.assertFalse(same(wrap(one), wrap(other)))
            self.assertFalse(same(wrap(one), wrap({"a": 1, "b": 3})))

    def test_of_a_part_that_is_the_same_nothing_is_looked_at(self) -> None:
        put(self.project, "note", "n", note("n", "a", "more"))
        said = [half(self.project, id) for id in "kn"]
        put(self.project, "note", "n", note("n", "a", "other"))
        self.assertEqual(ran(lambda: half(self.project, "k")), ["lines a"])
        self.assertEqual(half(self.project, "k"), said[0])
        self.assertEqual(ran(lambda: half(self.project, "n")), ["half n"])
        self.assertNotEqual(half(self.project, "n"), said[1])

    def test_a_trial_between_a_change_and_its_question_changes_nothing(self) -> None:
        self.assertEqual(poem(self.project), "X x X x")
        put(self.project, "note", "k", note("k", "a", "changed"))
        with self.project.trial() as changes:
            self.project.commit(changes, ChangeSet([Change("note", "n", None, note("n", "a", "tried"))]))
            self.assertEqual(rhyme(self.project, "k"), "CHANGED x")
        self.assertEqual(poem(self.project), "CHANGED x X x")

    def test_a_part_that_is_there_no_more_is_missed_and_found_again(self) -> None:
        line_at(self.project, "a", "k")
        put(self.project, "note", "k", note("k", "b", "moved"))
        with self.assertRaises(KeyError):
            line_at(self.project, "a", "k")
        self.assertEqual(line_at(self.project, "b", "k"), "moved")
        put(self.project, "note", "k", note("k", "a", "back"))
        self.assertEqual(line_at(self.project, "a", "k"), "back")

    def test_a_whole_that_fails_is_told_to_whoever_asks_for_a_part(self) -> None:
        @derived
        def shares(project: Project, sheet_id: str) -> dict[str, int]:
            return {n.id: 12 // len(n.text) for n in project.notes_on(sheet_id)}

        @derived_part(shares, _sheet)
        def share(all: dict[str, int], sheet_id: str, id: str) -> int:
            return all[id]

        self.assertEqual(share(self.project, "a", "k"), 12)
        put(self.project, "note", "k", note("k", "a", ""))
        self.assertEqual(verse(self.project, "a"), "")
        with self.assertRaises(ZeroDivisionError):
            share(self.project, "a", "k")
        put(self.project, "note", "k", note("k", "a", "xyz"))
        self.assertEqual(share(self.project, "a", "k"), 4)

    def test_an_equal_value_stays_the_same_object(self) -> None:
        before = words_on(self.project, "a")
        put(self.project, "note", "k", Note("k", "a", 5, 5, "x"))
        self.assertIs(words_on(self.project, "a"), before)

    def test_what_was_not_there_is_noticed_when_it_comes(self) -> None:
        self.assertEqual(told_by(self.project, "u"), "nobody")
        put(self.project, "device", "u", Device("u", "KF", 1))
        self.assertEqual(told_by(self.project, "u"), "nothing")
        put(self.project, "symbol", "p", Symbol("p", "b", 0, 0, "coil", device_id="u"))
        self.assertEqual(told_by(self.project, "u"), "x")

    def test_a_trial_costs_nothing_afterwards(self) -> None:
        with self.project.trial() as changes:
            self.project.commit(changes, ChangeSet([Change("note", "n", None, note("n", "a", "more"))]))
            self.assertEqual(total(self.project), 4)
        self.assertEqual(ran(lambda: self.assertEqual(total(self.project), 3)), [])

    def test_an_attempt_within_a_trial_costs_nothing_afterwards(self) -> None:
        with self.project.trial() as changes:
            self.project.commit(changes, ChangeSet([Change("note", "n", None, note("n", "a", "more"))]))
            with self.project.attempt() as inner:
                self.project.commit(inner, ChangeSet([Change("note", "o", None, note("o", "b", "more"))]))
                self.assertEqual(total(self.project), 5)
            changes.record("note", "o", None, self.project.notes["o"])
        self.assertEqual(ran(lambda: self.assertEqual(total(self.project), 3)), [])

    def test_a_failure_leaves_no_value_behind(self) -> None:
        @derived
        def first(project: Project) -> str:
            return project.notes["z"].text

        with self.assertRaises(KeyError):
            first(self.project)
        put(self.project, "note", "z", note("z", "a", "now"))
        self.assertEqual(first(self.project), "now")

    def test_a_derived_value_changes_nothing(self) -> None:
        @derived
        def wrong(project: Project) -> int:
            put(project, "note", "k", None)
            return 0

        with self.assertRaisesRegex(RuntimeError, "changes the model"):
            wrong(self.project)

    def test_of_large_values_few_are_kept(self) -> None:
        for sheet in "abc":
            loud(self.project, sheet)
        self.assertEqual(ran(lambda: loud(self.project, "c")), [])
        self.assertEqual(ran(lambda: loud(self.project, "a")), ["loud a"])

    def test_what_stands_on_values_that_were_let_go_is_left_alone(self) -> None:
        said = chorus(self.project)
        self.assertEqual(ran(lambda: self.assertEqual(chorus(self.project), said)), [])
        self.assertEqual(ran(lambda: loud(self.project, "a")), ["loud a"])
        self.assertEqual(ran(lambda: chorus(self.project)), [])
        put(self.project, "note", "z", note("z", "a", "again"))
        self.assertIn("AGAIN", chorus(self.project))
        put(self.project, "device", "u", Device("u", "KF", 1))
        self.assertEqual(ran(lambda: heard(self.project)), ["heard"])

    def test_no_more_values_are_kept_than_said_also_where_they_are_asked_for_by_others(self) -> None:
        def kept() -> int:
            nodes = self.project.memo.tables[f"{__name__}.loud"].values()
            return sum(isinstance(n.value, str) for n in nodes)

        heard(self.project)
        self.assertEqual(kept(), 2)
        for n, sheet in enumerate("abcab"):
            put(self.project, "note", f"z{n}", note(f"z{n}", sheet, "once more"))
            heard(self.project)
            self.assertEqual(kept(), 2)
        with self.project.trial() as changes:
            self.project.commit(changes, ChangeSet([Change("note", "n", None, note("n", "a", "tried"))]))
            self.assertIn("TRIED", chorus(self.project))
        self.assertNotIn("TRIED", chorus(self.project))
        loud(self.project, "b")
        loud(self.project, "c")
        self.assertEqual(kept(), 2)

    def test_what_is_about_something_gone_is_swept_away(self) -> None:
        device = Device("u", "KF", 1)
        put(self.project, "device", "u", device)
        told_by(self.project, "u")
        known = len(self.project.memo)
        put(self.project, "device", "u", None)
        for n in range(1100):
            put(self.project, "note", "k", note("k", "a", str(n)))
        total(self.project)
        self.assertLess(len(self.project.memo), known)

    def test_of_what_rests_nothing_is_noted_until_it_is_changed(self) -> None:
        self.project.memo.rest()
        self.assertEqual(ran(lambda: crowded(self.project)), ["everybody"])
        self.assertEqual(ran(lambda: crowded(self.project)), [])
        self.assertEqual(self.project.memo.tables[f"{__name__}.everybody"][()].cells, ())
        put(self.project, "note", "n", note("n", "a", "more"))
        self.assertEqual(len(self.project.memo), 0)
        total(self.project)
        put(self.project, "note", "k", note("k", "a", "more still"))
        self.assertEqual(ran(lambda: total(self.project)), ["count a", "words a"])
