"""Every text of a whole set, read back from its PDF with its box: none on another, off its paper or too small."""

from __future__ import annotations

import ctypes
import random
from collections.abc import Iterator
from dataclasses import dataclass, replace
from itertools import pairwise
from unittest import TestCase

import pypdfium2 as pdfium  # type: ignore[import-untyped]  # it brings no types
from pypdfium2 import raw

from jolly_core.exchange import issue_check, read_project, sheets_pdf, whole_set
from jolly_core.model import ChangeSet, Project
from jolly_core.scenes.base.primitives import SMALLEST_MM
from jolly_core.scenes.tests.test_places import random_sheet
from jolly_core.testing import DEMO, FONTS

POINT_MM = 25.4 / 72
TOUCH_MM = 0.1  # letters may touch, not lie upon each other
LONG = "Circulation fan of the lower malting drum with soft starter and bypass, left-hand side"
# What people name at length, and up to how many letters.
NAMED = {"device": 88, "sheet": 60, "function": 60, "location": 60, "part": 88, "io_point": 88}


@dataclass(frozen=True)
class Read:
    """A text of a page: its words, the box of its ink in mm from the lower left corner, its size in mm."""

    words: str
    box: tuple[float, float, float, float]
    size: float


def texts_on(page: pdfium.PdfPage) -> Iterator[Read]:
    letters = page.get_textpage()
    for found in page.get_objects(filter=[raw.FPDF_PAGEOBJ_TEXT], max_depth=6):
        count = raw.FPDFTextObj_GetText(found.raw, letters.raw, None, 0)
        buffer = ctypes.create_string_buffer(count)
        raw.FPDFTextObj_GetText(found.raw, letters.raw, ctypes.cast(buffer, ctypes.POINTER(ctypes.c_ushort)), count)
        words = buffer.raw[:count].decode("utf-16-le").rstrip("\0")
        size = ctypes.c_float()
        raw.FPDFTextObj_GetFontSize(found.raw, size)
        matrix = found.get_matrix()
        left, low, right, high = (v * POINT_MM for v in found.get_bounds())
        if words.strip():
            yield Read(words, (left, low, right, high), size.value * (matrix.a**2 + matrix.b**2) ** 0.5 * POINT_MM)


def plain(words: str) -> str:
    """Return words with one space between them, as a file gives them back."""
    return " ".join(words.split())


def upon(a: Read, b: Read) -> bool:
    (left, low, right, high), (left2, low2, right2, high2) = a.box, b.box
    return min(right, right2) - max(left, left2) > TOUCH_MM and min(high, high2) - max(low, low2) > TOUCH_MM


def lengthened(project: Project, seed: int) -> Project:
    """Give a good part of what has a name a long one, as people who write whole sentences do."""
    chance = random.Random(seed)
    changes = ChangeSet()
    for kind, most in NAMED.items():
        field = "title" if kind == "sheet" else "text"
        for id, record in sorted(project.tables[kind].items()):
            if chance.random() < 0.5:
                changes.record(kind, id, record, replace(record, **{field: LONG[: chance.randrange(10, most)]}))
    project.apply(changes)
    return project


class Boxes(TestCase):
    def read_back(self, project: Project) -> list[str]:
        """Check every text of the whole set, and return those that are cut short."""
        cut = []
        count = 0
        with pdfium.PdfDocument(sheets_pdf(project, whole_set(project), FONTS)) as pdf:
            for number, page in enumerate(pdf, start=1):
                texts = sorted(texts_on(page), key=lambda t: t.box)
                wide, high = page.get_width() * POINT_MM, page.get_height() * POINT_MM
                for n, text in enumerate(texts):
                    where = f"page {number}: “{text.words}”"
                    self.assertGreaterEqual(text.size, SMALLEST_MM - 0.01, where)
                    left, low, right, top = text.box
                    self.assertTrue(left >= 0 and low >= 0 and right <= wide and top <= high, f"{where} off the paper")
                    for other in texts[n + 1 :]:
                        if other.box[0] > right:
                            break
                        self.assertFalse(upon(text, other), f"{where} upon “{other.words}”")
                cut += [t.words for t in texts if t.words.rstrip().endswith("…")]
                count += len(texts)
        self.assertGreater(count, 30)
        return cut

    def test_both_demos(self) -> None:
        for file in sorted(DEMO.glob("*.spool.json")):
            with self.subTest(file.name):
                self.assertEqual(self.read_back(read_project(file.read_bytes())), [])

    def test_long_names_lie_on_nothing_and_what_is_cut_short_is_told(self) -> None:
        for seed, file in enumerate(sorted(DEMO.glob("*.spool.json"))):
            with self.subTest(file.name):
                project = lengthened(read_project(file.read_bytes()), seed)
                cut = self.read_back(project)
                told = [f for f in issue_check(project, FONTS) if f.code == "cut-short"]
                names = plain(" ".join(name for f in told for name in f.names))
                self.assertEqual([words for words in cut if plain(words) not in names], [])

    def test_random_sheets(self) -> None:
        for seed in (3, 4, 5, 6):
            with self.subTest(seed):
                self.assertEqual(self.read_back(random_sheet(seed).project), [])

    def test_one_text_upon_another_would_be_seen(self) -> None:
        one, other = Read("a", (0, 0, 5, 2), 2.5), Read("b", (4, 1, 9, 3), 2.5)
        self.assertTrue(all(upon(a, b) for a, b in pairwise((one, other, one))))
        self.assertFalse(upon(one, Read("c", (5.05, 0, 9, 2), 2.5)))
