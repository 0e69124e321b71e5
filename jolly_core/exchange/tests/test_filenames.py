"""Names of files: whatever people call a list or a pack, every system takes its file."""

from __future__ import annotations

from dataclasses import replace
from unittest import TestCase

from hypothesis import example, given
from hypothesis import strategies as st

from jolly_core.exchange import everything_pack, file_stem, named_files, pack_files
from jolly_core.exchange.filenames import LONGEST, TAKEN
from jolly_core.model import Pack, Project
from jolly_core.reports import plain_recipe
from jolly_core.testing import FONTS, Workbench


def listing(*names: str, pattern: str = "{kind}") -> tuple[Project, Pack]:
    """Return a project with recipes of these names, and a pack that holds a list by each."""
    bench = Workbench()
    usual = plain_recipe("wires")
    recipes = [replace(usual, id=f"r{n}", name=name) for n, name in enumerate(names)]
    bench.project.load("recipe", recipes)
    files = tuple({"what": f"list:{recipe.id}", "format": "csv"} for recipe in recipes)
    return bench.project, replace(everything_pack(bench.project), files=files, pattern=pattern)


class Stems(TestCase):
    @given(st.text(max_size=300), st.sampled_from(["file", "list"]))
    @example("con", "file")
    @example("LPT1.old", "file")
    @example("…/…", "list")
    @example("ä" * 200, "file")
    @example(".. ..", "file")
    def test_any_text_gives_a_name_that_every_system_takes(self, text: str, otherwise: str) -> None:
        stem = file_stem(text, otherwise)
        self.assertTrue(stem)
        self.assertLessEqual(len(stem.encode()), LONGEST + len("file-"))
        self.assertFalse(set(stem) & set('/\\:*?"<>| \n\t\0'), stem)
        self.assertNotIn(stem[0], ".-", "neither hidden nor read as an option")
        self.assertNotIn(stem[-1], ".-")
        self.assertNotIn(stem.split(".")[0].casefold(), TAKEN)
        self.assertEqual(stem, file_stem(stem, otherwise), "a name that is fit stays")

    def test_what_can_be_kept_of_a_name_is(self) -> None:
        self.assertEqual("Kiln-2-Übersicht-v1.2", file_stem("Kiln 2: Übersicht, v1.2"))
        self.assertEqual("file-Aux", file_stem("Aux"))
        self.assertEqual("Aux-supply", file_stem("Aux supply"))
        self.assertEqual("Ω" * (LONGEST // 2), file_stem("Ω" * 300), "cut between letters, not within one")


class InPacks(TestCase):
    def test_lists_whose_names_differ_in_capitals_only_do_not_overwrite_each_other(self) -> None:
        project, pack = listing("Wires by door", "wires by door", "WIRES, BY DOOR")
        names = [name for name, _ in named_files(project, pack, FONTS)]
        self.assertEqual(["Wires-by-door.csv", "wires-by-door-2.csv", "WIRES-BY-DOOR-3.csv"], names)

    def test_a_list_called_as_the_page_of_contents_does_not_take_its_place(self) -> None:
        project, pack = listing("00-Contents")
        pack = replace(pack, files=tuple({**file, "format": "pdf"} for file in pack.files))
        files = pack_files(project, FONTS, pack)
        self.assertEqual(["00-contents.pdf", "00-Contents-2.pdf"], list(files))

    def test_names_that_a_system_keeps_for_itself_or_that_have_no_letter_are_filled_up(self) -> None:
        project, pack = listing("AUX", "???", "nul.old")
        names = [name for name, _ in named_files(project, pack, FONTS)]
        self.assertEqual(["file-AUX.csv", "list.csv", "file-nul.old.csv"], names)

    def test_long_names_by_a_long_pattern_are_cut_and_told_apart(self) -> None:
        long = "All the wires of the panel that leave it through the left wall " * 2
        project, pack = listing(f"{long}A"[:120], f"{long}B"[:119], pattern="{customer} {project} {kind} {date}")
        project.load("settings", [replace(project.settings, customer="Pellwick Maltings " * 6, name="Kiln " * 20)])
        names = [name for name, _ in named_files(project, pack, FONTS)]
        self.assertEqual(2, len({name.casefold() for name in names}))
        self.assertTrue(all(len(name.encode()) < 140 for name in names), names)
        self.assertTrue(names[1].endswith("-2.csv"), names)
