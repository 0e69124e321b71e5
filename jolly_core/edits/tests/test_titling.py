"""Title blocks, their fields and pictures as edits."""

from __future__ import annotations

import base64
import io
from typing import Any
from unittest import TestCase

from PIL import Image

from jolly_core.library import BlockPattern, block_of, built_in_blocks, pattern_from_json, pattern_of, pattern_to_json
from jolly_core.model import MAX_BASE64, FileError, RuleError
from jolly_core.scenes import sheet_scene, texts_in
from jolly_core.testing import DemoLibrary, Workbench


def picture(width: int = 8, height: int = 4, format: str = "PNG") -> str:
    out = io.BytesIO()
    Image.new("RGB", (width, height), "navy").save(out, format)
    return base64.b64encode(out.getvalue()).decode()


def words_on(bench: Workbench) -> list[str]:
    frame = sheet_scene(bench.project, bench.sheet).items["frame"]
    return [p.words for p in texts_in(frame)]


class Blocks(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(name="Kiln 2", number="PM-1")
        self.block = self.bench.new("take-title-block", block="metric", name="Pellwick")

    def cell(self, heading: str) -> str:
        cells = self.bench.project.title_cells.values()
        return next(c.id for c in cells if c.heading == heading and c.block_id == self.block)

    def test_a_block_taken_is_a_copy_of_its_own_and_is_shown_once_chosen(self) -> None:
        self.assertEqual(len(self.bench.project.title_cells), len(built_in_blocks()["metric"].cells))
        self.bench.do("put-title-cell", block_id=self.block, cell_id=self.cell("Project"), heading="Plant")
        self.assertNotIn("Plant", words_on(self.bench))
        self.bench.do("change-settings", title_block_id=self.block)
        self.assertIn("Plant", words_on(self.bench))
        again = self.bench.new("take-title-block", block="metric", name="Pellwick")
        self.assertEqual(self.bench.project.title_blocks[again].name, "Pellwick 2")
        self.bench.do("change-sheet", sheet_id=self.bench.sheet, title_block_id=again)
        self.assertNotIn("Plant", words_on(self.bench), "a sheet's own choice stands before the project's")

    def test_each_size_has_a_block_though_none_is_chosen(self) -> None:
        project, sheet = self.bench.project, self.bench.sheet
        self.assertEqual(block_of(project, project.sheets[sheet]).block.id, "metric")
        self.bench.do("change-sheet", sheet_id=sheet, size="ANSI B")
        self.assertEqual(block_of(project, project.sheets[sheet]).block.id, "ansi")

    def test_own_fields_are_shown_renamed_and_kept_while_they_are_used(self) -> None:
        bench, block = self.bench, self.block
        bench.do("change-settings", title_block_id=block)
        with self.assertRaisesRegex(RuleError, "no field {Order}"):
            bench.do("put-title-cell", block_id=block, cell_id=self.cell("Site"), content="{Order}")
        bench.do("set-own-field", name="Order", text="4711")
        bench.do("put-title-cell", block_id=block, cell_id=self.cell("Site"), content="No {Order}")
        self.assertIn("No 4711", words_on(bench))
        bench.do("change-sheet", sheet_id=bench.sheet, fields={"Order": "4712"})
        self.assertIn("No 4712", words_on(bench), "the sheet's own text stands before the project's")
        bench.do("set-own-field", name="Order", new_name="Order number")
        self.assertEqual(bench.project.title_cells[self.cell("Site")].content, "No {Order number}")
        self.assertIn("No 4711", words_on(bench))
        with self.assertRaisesRegex(RuleError, "title block Pellwick"):
            bench.do("remove-own-field", name="Order number")
        bench.do("remove-title-cells", cell_ids=[self.cell("Site")])
        bench.do("remove-own-field", name="Order number")
        self.assertEqual(bench.project.settings.own_fields, {})

    def test_names_of_fields_are_checked(self) -> None:
        for name, words in (("title", "field there is already"), ("a{b", "letters, digits"), (" a", "letters, digits")):
            with self.subTest(name), self.assertRaisesRegex(RuleError, words):
                self.bench.do("set-own-field", name=name, text="x")
        with self.assertRaisesRegex(RuleError, "brace is left open"):
            self.bench.do("put-title-cell", block_id=self.block, content="{title")

    def test_cells_stay_inside_their_block(self) -> None:
        bench, block = self.bench, self.block
        with self.assertRaisesRegex(RuleError, "reach beyond the title block of 180 x 36 mm"):
            bench.do("put-title-cell", block_id=block, x=170, y=0, width=20, height=10)
        with self.assertRaisesRegex(RuleError, "reach beyond"):
            bench.do("change-title-block", block_id=block, width_mm=100)
        bench.do("change-title-block", block_id=block, height_mm=48)
        bench.new("put-title-cell", block_id=block, x=0, y=36, width=180, height=12, content="{title}")
        other = bench.new("take-title-block", block="ansi")
        with self.assertRaisesRegex(RuleError, "another title block"):
            bench.do("put-title-cell", block_id=other, cell_id=self.cell("Site"), heading="x")

    def test_a_block_in_use_goes_only_when_it_is_said_what_its_sheets_get(self) -> None:
        bench = self.bench
        bench.do("change-settings", title_block_id=self.block)
        bench.do("change-sheet", sheet_id=bench.sheet, title_block_id=self.block)
        with self.assertRaisesRegex(RuleError, "of sheet 30 and the project"):
            bench.do("remove-title-block", block_id=self.block)
        other = bench.new("take-title-block", block="ansi")
        bench.do("remove-title-block", block_id=self.block, move_to=other)
        self.assertEqual(bench.project.sheets[bench.sheet].title_block_id, other)
        self.assertEqual({c.block_id for c in bench.project.title_cells.values()}, {other})
        bench.do("remove-title-block", block_id=other, move_to="")
        self.assertEqual(bench.project.settings.title_block_id, "")

    def test_a_block_of_the_library_brings_its_pictures_and_fields(self) -> None:
        logo = self.bench.new("add-picture", name="Logo", data=picture())
        self.bench.do("set-own-field", name="Order", text="1")
        self.bench.do("put-title-cell", block_id=self.block, x=0, y=0, content="{Order}", picture_id=logo)
        kept = pattern_of(self.bench.project, self.block)
        assert kept is not None
        through = pattern_from_json(pattern_to_json(kept))

        class Shelf(DemoLibrary):
            def title_block(self, id: str) -> BlockPattern | None:
                return through if id == "kept" else None

        fresh = Workbench()
        fresh.library = Shelf()
        block = fresh.new("take-title-block", block="kept")
        (copied,) = fresh.project.pictures.values()
        self.assertEqual(copied.data, self.bench.project.pictures[logo].data)
        cells = [c for c in fresh.project.title_cells.values() if c.picture_id == copied.id]
        self.assertEqual([c.block_id for c in cells], [block])
        self.assertEqual(fresh.project.settings.own_fields, {"Order": ""}, "its text is the new project's to say")
        with self.assertRaisesRegex(RuleError, "no longer in the library"):
            fresh.do("take-title-block", block="gone")

    def test_a_pattern_that_is_wrong_is_refused(self) -> None:
        wrong: list[Any] = [[], {"block": {}}, {"block": {"id": "a", "name": "b"}, "cells": [{"x": "left"}]}]
        for raw in wrong:
            with self.assertRaises(FileError):
                pattern_from_json(raw)


class Pictures(TestCase):
    def test_png_and_jpeg_are_taken_in_with_their_size(self) -> None:
        bench = Workbench()
        for format, media in (("PNG", "image/png"), ("JPEG", "image/jpeg")):
            id = bench.new("add-picture", name=format, data=picture(30, 20, format))
            found = bench.project.pictures[id]
            self.assertEqual((found.media_type, found.width_px, found.height_px), (media, 30, 20))

    def test_anything_else_is_refused_with_words(self) -> None:
        bench = Workbench()
        good = base64.b64decode(picture())
        cases = (
            (base64.b64encode(b"<svg/>").decode(), "not a PNG or JPEG"),
            (base64.b64encode(good[:30]).decode(), "not a PNG or JPEG"),
            (picture(format="GIF"), "not a PNG or JPEG"),
            ("abc", "not a PNG or JPEG"),
            (picture(4001, 1), "more than 4000 pixels"),
            ("A" * MAX_BASE64, "not a PNG or JPEG"),
            ("A" * (MAX_BASE64 + 4), "larger than 225 kB"),
        )
        for data, words in cases:
            with self.subTest(words), self.assertRaisesRegex(RuleError, words):
                bench.do("add-picture", name="x", data=data)

    def test_one_picture_is_kept_once_and_its_cells_are_left_without(self) -> None:
        bench = Workbench()
        id = bench.new("add-picture", name="Logo", data=picture())
        with self.assertRaisesRegex(RuleError, "there already, as “Logo”"):
            bench.do("add-picture", name="Again", data=picture())
        block = bench.new("take-title-block", block="ansi")
        cell = bench.new("put-title-cell", block_id=block, picture_id=id)
        bench.do("remove-picture", picture_id=id)
        self.assertEqual(bench.project.title_cells[cell].picture_id, "")
