"""Files as another program reads them."""

from __future__ import annotations

import io
from unittest import TestCase

import pypdfium2 as pdfium  # type: ignore[import-untyped]  # it brings no types
from ezdxf import recover
from ezdxf.document import Drawing


def read_dxf(test: TestCase, content: bytes) -> Drawing:
    """Return a drawing, after checking that nothing is to be mended and that no line lies outside of its bounds."""
    document, auditor = recover.read(io.BytesIO(content))
    test.assertEqual([*auditor.errors, *auditor.fixes], [])
    low, high = document.header["$EXTMIN"], document.header["$EXTMAX"]
    for line in document.modelspace().query("LINE"):
        for x, y, _ in (line.dxf.start, line.dxf.end):
            test.assertTrue(low[0] <= x <= high[0] and low[1] <= y <= high[1], (x, y, low, high))
    return document


def page_texts(content: bytes) -> list[str]:
    """Return the words of each page of a PDF."""
    with pdfium.PdfDocument(content) as pdf:
        return [page.get_textpage().get_text_range() for page in pdf]
