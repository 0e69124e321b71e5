"""Every link of a whole set, read back from its PDF: what it names is named where it leads to."""

from __future__ import annotations

import io
import re
from collections.abc import Iterator
from typing import Any
from unittest import TestCase

import pypdfium2 as pdfium  # type: ignore[import-untyped]  # it brings no types
from pypdf import PdfReader

from jolly_core.exchange import read_project, sheets_pdf, whole_set
from jolly_core.scenes import BLOCKS
from jolly_core.testing import DEMO, FONTS

from .test_textboxes import POINT_MM, Read, texts_on

TAG = re.compile(r"(?<![A-Z])-([A-Z]{1,3}\d+)(?::(\S+))?")
# What is seen of a page that opens at a place: mm to the left of it, to the right, above and below.
SEEN = (60, 120, 30, 120)
LEAST = {"pellwick-kiln-2.spool.json": 1500, "sample-store-dehumidifier.spool.json": 90}


def links_of(content: bytes) -> Iterator[tuple[int, tuple[float, ...], int, Any]]:
    """Yield page, box in mm, page led to, and the destination of each link."""
    reader = PdfReader(io.BytesIO(content))
    numbers = {page.indirect_reference.idnum: n for n, page in enumerate(reader.pages)}  # type: ignore[union-attr]
    for n, page in enumerate(reader.pages):
        for annotation in page.get("/Annots", ()):
            link = annotation.get_object()
            there = link["/Dest"]
            yield n, tuple(float(v) * POINT_MM for v in link["/Rect"]), numbers[there[0].idnum], there


def within(text: Read, box: tuple[float, ...]) -> bool:
    """Return whether the middle of a text lies in a box."""
    x, y = (text.box[0] + text.box[2]) / 2, (text.box[1] + text.box[3]) / 2
    return box[0] <= x <= box[2] and box[1] <= y <= box[3]


def seen_from(texts: list[Read], there: Any) -> list[str]:
    """Return the words that are in sight when a page opens at a destination."""
    x, y = float(there[2]) * POINT_MM, float(there[3]) * POINT_MM
    left, right, above, below = SEEN
    return [t.words.strip() for t in texts if x - left <= t.box[0] <= x + right and y - below <= t.box[1] <= y + above]


class Links(TestCase):
    def test_what_a_link_names_is_named_where_it_leads(self) -> None:
        for file in sorted(DEMO.glob("*.spool.json")):
            project = read_project(file.read_bytes())
            ids = whole_set(project)
            content = sheets_pdf(project, ids, FONTS)
            with pdfium.PdfDocument(content) as pdf:
                pages = [list(texts_on(page)) for page in pdf]
            # On the page of blocks a connector is where its mate is, which has another name.
            blocks = len(pages) - 1 if ids[-1] == BLOCKS else -1
            count = 0
            for page, box, led, there in links_of(content):
                words = [t.words.strip() for t in pages[page] if within(t, box)]
                self.assertTrue(words, f"{file.name} page {page + 1}: a link at {box} lies on no text")
                count += 1
                named = TAG.findall(words[0])
                if there[1] != "/XYZ" or not named or led == blocks:
                    continue
                tag, pin = named[-1]
                near = seen_from(pages[led], there)
                shown = any(re.search(rf"-{tag}\b", w) for w in near) or (pin and f":{pin}" in near)
                self.assertTrue(shown, f"{file.name} page {page + 1}: “{words[0]}” leads to page {led + 1}, {near[:9]}")
            self.assertGreater(count, LEAST[file.name])
