"""Recipes and packs as edits, and tables laid on a drawing."""

from __future__ import annotations

from dataclasses import replace
from typing import Any
from unittest import TestCase

from jolly_core.exchange import named_files, pack_files, read_project, read_recipe, write_project, write_recipe
from jolly_core.model import ChangeSet, FileError, GoneError, RuleError
from jolly_core.scenes import Text, page_leaves, sheet_scene
from jolly_core.scenes.room.crowding import text_box
from jolly_core.testing import FONTS, Workbench

COLUMNS = [{"key": "tag"}, {"key": "number"}]


class Kept(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(number="7", name="Kiln")
        for n in range(3):
            self.bench.place("lamp", 40, 16 + 9 * n, part_id="tamwick-tw-l22-g")

    def recipe(self, name: str = "Mine", **more: Any) -> str:
        return self.bench.new("keep-recipe", name=name, report="devices", columns=COLUMNS, **more)

    def words(self) -> list[str]:
        scene = sheet_scene(self.bench.project, self.bench.sheet)
        return [p.words for i in scene.items.values() for p in i.placed() if isinstance(p, Text)]


class Recipes(Kept):
    def test_a_recipe_is_kept_changed_and_survives_the_file(self) -> None:
        id = self.recipe(groups=["maker"], sums=[], head="For {customer}")
        self.bench.do("keep-recipe", recipe_id=id, name="Better", report="devices", columns=COLUMNS, merged=True)
        again = read_project(write_project(self.bench.project)).recipes[id]
        self.assertEqual((again.name, again.merged, again.groups), ("Better", True, ()))

    def test_its_own_file_gives_it_back_and_a_newer_one_is_refused(self) -> None:
        recipe = self.bench.project.recipes[self.recipe(groups=["maker"], head="For {customer}")]
        text = write_recipe(recipe)
        self.assertEqual(read_recipe(self.bench.project, text.encode()), replace(recipe, id=""))
        with self.assertRaisesRegex(FileError, "version 9; version 1 can be read"):
            read_recipe(self.bench.project, text.replace('"version": 1', '"version": 9').encode())
        with self.assertRaisesRegex(FileError, "not the file of a recipe"):
            read_recipe(self.bench.project, write_project(self.bench.project).encode())

    def test_what_cannot_be_followed_is_refused_and_nothing_is_kept(self) -> None:
        self.recipe()
        for words, values in (
            ("There is a recipe “Mine” already", {}),
            ("Give the recipe a name", {"name": " "}),
            ("no column “weight”", {"name": "B", "columns": [{"key": "weight"}]}),
            ("There is no field {nobody}", {"name": "B", "head": "{nobody}"}),
        ):
            with self.subTest(words), self.assertRaisesRegex(RuleError, words):
                self.bench.do("keep-recipe", **{"name": "Mine", "report": "devices", "columns": COLUMNS, **values})
        with self.assertRaises(GoneError):
            self.bench.do("keep-recipe", recipe_id="none", name="B", report="devices", columns=COLUMNS)
        self.assertEqual(len(self.bench.project.recipes), 1)

    def test_a_sheet_shows_a_recipe_and_it_cannot_go_while_something_does(self) -> None:
        id = self.recipe(groups=["maker"])
        sheet = self.bench.new("add-sheet", number="90", sheet_kind="report", report=id)
        leaf = page_leaves(self.bench.project, sheet)[0]
        words = [p.words for i in leaf.items.values() for p in i.placed() if isinstance(p, Text)]
        self.assertIn("Maker: Tamwick", words)
        self.assertIn("-PF2", words)
        with self.assertRaisesRegex(RuleError, "Sheet 90 shows “Mine”"):
            self.bench.do("remove-recipe", recipe_id=id)
        self.bench.do("change-sheet", sheet_id=sheet, report="devices")
        pack = self.bench.new("keep-pack", name="P", files=[{"what": f"list:{id}", "format": "csv"}])
        with self.assertRaisesRegex(RuleError, "The pack “P” has “Mine” in it"):
            self.bench.do("remove-recipe", recipe_id=id)
        self.bench.do("remove-pack", pack_id=pack)
        self.bench.do("remove-recipe", recipe_id=id)
        self.assertFalse(self.bench.project.recipes)


class Packs(Kept):
    def test_files_are_named_by_pieces_and_equal_names_are_numbered(self) -> None:
        recipe = self.recipe("Lamps / all")
        files = [{"what": f"list:{recipe}", "format": "csv"}, {"what": "report:devices", "format": "csv"}] * 2
        id = self.bench.new("keep-pack", name="P", files=files, pattern="{project number}_{kind}")
        names = [name for name, _ in named_files(self.bench.project, self.bench.project.packs[id], FONTS)]
        self.assertEqual(names, ["7_Lamps-all.csv", "7_device-list.csv", "7_Lamps-all-2.csv", "7_device-list-2.csv"])

    def test_steps_are_told_and_two_runs_give_equal_bytes(self) -> None:
        files = [{"what": "set", "format": "pdf black and white"}, {"what": "sheets", "format": "dxf"}]
        pack = self.bench.project.packs[self.bench.new("keep-pack", name="P", files=files, pattern="{kind}")]
        told: list[tuple[int, int, str]] = []
        first = pack_files(self.bench.project, FONTS, pack, lambda *step: told.append(step))
        self.assertEqual(told, [(0, 2, "set.pdf"), (1, 2, "sheet-30.dxf"), (2, 2, "")])
        self.assertEqual(list(first), ["00-contents.pdf", "set.pdf", "sheet-30.dxf"])
        self.assertEqual(first, pack_files(self.bench.project, FONTS, pack))

    def test_what_a_pack_cannot_hold_is_named(self) -> None:
        for words, files, pattern in (
            ("cannot hold “rocket”", [{"what": "rocket"}], "{kind}"),
            ("not as doc", [{"what": "drawings", "format": "doc"}], "{kind}"),
            ("no report “rocket”", [{"what": "report:rocket"}], "{kind}"),
            ("There is no field {moon}", [{"what": "drawings"}], "{moon}"),
            ("holds nothing yet", [], "{kind}"),
        ):
            id = self.bench.new("keep-pack", name=words, files=files, pattern=pattern)
            with self.subTest(words), self.assertRaisesRegex(RuleError, words):
                named_files(self.bench.project, self.bench.project.packs[id], FONTS)


class LaidTables(Kept):
    def table(self, shows: str, y2: int = 60, x2: int = 140) -> str:
        return self.bench.new(
            "draw-figure", sheet_id=self.bench.sheet, figure="table", x1=90, y1=20, x2=x2, y2=y2, text=shows
        )

    def test_parts_and_wire_types_of_the_sheet_alone_are_shown(self) -> None:
        self.bench.wire((20, 16), (30, 16))
        far = self.bench.new("add-sheet", number="40")
        self.bench.place("lamp", 40, 16, sheet_id=far, part_id="tamwick-tw-l22-r")
        self.table("sheet-parts")
        words = self.words()
        for wanted in ("Parts of this sheet", "TW-L22-G", "3", "-PF1, -PF2, -PF3"):
            self.assertIn(wanted, words)
        self.assertNotIn("TW-L22-R", words)
        self.table("sheet-wire-types")
        self.assertIn("Control", self.words())
        self.assertNotIn("PE", self.words())

    def test_what_is_long_goes_on_in_its_cell_and_nothing_is_cut_or_leaves_the_table(self) -> None:
        words = "Indicator light with a long description that no column has room for in one line"
        part = self.bench.project.parts["tamwick-tw-l22-g"]
        changes = ChangeSet()
        changes.record("part", part.id, part, replace(part, text=words, number="TW-L22-GREEN-0001"))
        self.bench.project.apply(changes)
        for narrow in (112, 122, 140, 160):
            id = self.table("sheet-parts", x2=narrow)
            item = sheet_scene(self.bench.project, self.bench.sheet).items[id]
            texts = [p for p in item.placed() if isinstance(p, Text)]
            said = "".join(p.words.replace(" ", "") for p in texts)
            self.assertNotIn("…", said)
            self.assertIn(words.replace(" ", ""), said)
            self.assertIn("TW-L22-GREEN-0001", said)
            left, top, right, bottom = item.box
            for prim in texts:
                box = text_box(prim)
                self.assertTrue(left <= box[0] and box[2] <= right + 0.1 and top <= box[1] and box[3] <= bottom, prim)
            self.bench.do("delete-selection", ids=[id])

    def test_a_recipe_is_shown_and_what_has_no_room_is_counted(self) -> None:
        id = self.table(self.recipe(), y2=24)
        words = self.words()
        self.assertIn("and 3 more: make the table taller", words)
        self.bench.do("change-figure", figure_id=id, y2=60)
        self.assertNotIn("and 3 more: make the table taller", self.words())
        with self.assertRaisesRegex(RuleError, "A table can show"):
            self.bench.do("change-figure", figure_id=id, text="rocket")
        with self.assertRaisesRegex(RuleError, "Sheet 30 shows “Mine”"):
            self.bench.do("remove-recipe", recipe_id=self.bench.project.figures[id].text)
