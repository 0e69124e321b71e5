"""Graphics from SVG and DXF files: true to scale, curves as lines, damaged files named."""

from __future__ import annotations

import io
from collections.abc import Callable
from typing import Any
from unittest import TestCase

import ezdxf.filemanagement

from jolly_core.exchange import extent, graphics_in
from jolly_core.library import checked_art
from jolly_core.model import FileError

SVG = b"""<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="20mm" viewBox="0 0 400 200">
<g transform="translate(100 50)"><rect x="0" y="0" width="200" height="100"/><circle cx="100" cy="50" r="25"/>
<path d="M0 0 L50 0 Q75 25 50 50"/></g><line x1="0" y1="100" x2="100" y2="100"/>
<text x="120" y="90" font-size="30">kW</text></svg>"""


def dxf(units: int = 4) -> bytes:
    """Return a DXF with a line, a circle, an arc and a closed polyline."""
    document = ezdxf.filemanagement.new("R2010", units=units)
    space = document.modelspace()
    space.add_line((0, 0), (10, 0))
    space.add_circle((5, 5), 2)
    space.add_arc((5, 5), 3, 0, 90)
    space.add_lwpolyline([(0, 0), (10, 0), (10, 10)], close=True)
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


def nested_blocks() -> bytes:
    """Return a DXF of blocks that hold each other many times over."""
    document = ezdxf.filemanagement.new("R2010", units=4)
    document.blocks.new("B0").add_line((0, 0), (1, 0))
    for level in range(1, 8):
        block = document.blocks.new(f"B{level}")
        for _ in range(6):
            block.add_blockref(f"B{level - 1}", (0, 0))
    document.modelspace().add_blockref("B7", (0, 0))
    out = io.StringIO()
    document.write(out)
    return out.getvalue().encode()


class FromSvg(TestCase):
    def test_it_is_true_to_scale_in_mm_with_transforms_applied(self) -> None:
        found = graphics_in(SVG, "lamp.svg")
        circle = next(p for p in found if p[0] == "circle")
        self.assertEqual([round(v, 2) for v in circle[1:]], [20, 5, 2.5])
        left, top, right, bottom = extent([p for p in found if p[0] != "text"])
        self.assertEqual([round(v, 2) for v in (left, top, right, bottom)], [0, 0, 30, 10])
        words = next(p for p in found if p[0] == "text")
        self.assertEqual(words[3], "kW")
        self.assertEqual(round(words[4], 1), 3.0)

    def test_steps_or_a_width_may_be_asked_for(self) -> None:
        steps = graphics_in(SVG, "lamp.svg", scale=0.4)
        self.assertEqual(round(extent(steps)[2], 2), 12)
        wide = graphics_in(SVG, "lamp.svg", width=6)
        self.assertEqual(round(extent(wide)[2] - extent(wide)[0], 2), 6)
        self.assertEqual(len(checked_art(wide, 120, "lamp")), len(wide))

    def test_a_curve_becomes_a_line_of_points(self) -> None:
        curve = next(p for p in graphics_in(SVG, "x.svg") if p[0] == "poly" and len(p[1]) > 12)
        self.assertGreater(len(curve[1]), 20)

    def test_what_cannot_be_read_is_named(self) -> None:
        for content, name, words in (
            (b"not a drawing", "a.svg", "cannot be read as SVG"),
            (b"<svg xmlns='http://www.w3.org/2000/svg'/>", "b.svg", "nothing to draw in b.svg"),
            (b'<!DOCTYPE svg [<!ENTITY a "b">]><svg/>', "c.svg", "document type"),
            (b"GIF89a", "d.gif", "neither an SVG nor a DXF"),
            (b"0\nSECTION\n", "e.dxf", "cannot be read as DXF"),
            (b"x" * 2_000_001, "f.svg", "larger than 2 MB"),
            (b"<svg>" + b'<use href="#a"/>' * 21 + b"</svg>", "g.svg", "too many copies"),
            (nested_blocks(), "h.dxf", "more than 3000 things"),
        ):
            with self.assertRaises(FileError) as caught:
                graphics_in(content, name)
            self.assertIn(words, caught.exception.message)


class FromDxf(TestCase):
    def test_lines_circles_and_arcs_with_y_downwards(self) -> None:
        found = graphics_in(dxf(), "plate.dxf")
        kinds = sorted(p[0] for p in found)
        self.assertEqual(kinds, ["arc", "circle", "line", "poly"])
        circle = next(p for p in found if p[0] == "circle")
        self.assertEqual(circle[1:], [5, 5, 2])
        arc = next(p for p in found if p[0] == "arc")
        self.assertEqual(arc[4:], [270, 360])  # the upper right quarter, clockwise as y grows downwards
        self.assertEqual(extent(found), (0, 0, 10, 10))

    def test_inches_become_millimetres(self) -> None:
        self.assertAlmostEqual(extent(graphics_in(dxf(1), "plate.dxf"))[2], 254.0, places=2)


class BrokenDrawings(TestCase):
    def dxf(self, fill: Callable[[Any], None]) -> bytes:
        document = ezdxf.filemanagement.new()
        fill(document)
        out = io.StringIO()
        document.write(out)
        return out.getvalue().encode()

    def refused(self, content: bytes) -> str:
        with self.assertRaises(FileError) as caught:
            graphics_in(content, "outline.dxf")
        return caught.exception.message

    def test_a_block_that_holds_itself(self) -> None:
        def fill(document: Any) -> None:
            block = document.blocks.new("LOOP")
            block.add_line((0, 0), (10, 0))
            block.add_blockref("LOOP", (1, 1))
            document.modelspace().add_blockref("LOOP", (0, 0))

        self.assertTrue(self.refused(self.dxf(fill)))

    def test_places_that_are_no_numbers(self) -> None:
        for bad in ("nan", "inf"):
            content = self.dxf(lambda d: d.modelspace().add_line((0, 0), (12345.5, 7)))
            self.assertTrue(self.refused(content.replace(b"12345.5", bad.encode())), bad)
            circle = self.dxf(lambda d: d.modelspace().add_circle((0, 0), 12345.5))
            self.assertTrue(self.refused(circle.replace(b"12345.5", bad.encode())), bad)
