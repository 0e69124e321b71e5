"""Primitives: moved and scaled alike, kept in files and drawn again; crowds that are asked little; texts that stay."""

from __future__ import annotations

from typing import Any
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from jolly_core.library import definitions
from jolly_core.model import FileError
from jolly_core.scenes import (
    Arc,
    Circle,
    Dot,
    Image,
    Item,
    Line,
    Poly,
    Prim,
    Rect,
    Strand,
    Text,
    art_of,
    drawn,
    kept,
    sheet_scene,
    texts_in,
)
from jolly_core.testing import Workbench

from ..base.primitives import text_at
from ..room.crowding import Crowd, Lately, meet, text_box

lengths = st.integers(-400, 400).map(lambda n: n / 4)
sizes = st.integers(1, 200).map(lambda n: n / 4)
angles = st.integers(0, 360)
words = st.text("AB1 -", min_size=1, max_size=8)
placed = st.one_of(
    st.builds(Line, lengths, lengths, lengths, lengths, st.sampled_from(["ink", "dash"])),
    st.builds(
        lambda points: Poly(tuple(points), "ink"),
        st.lists(lengths, min_size=4, max_size=12).map(lambda p: p[: len(p) // 2 * 2]),
    ),
    st.builds(Rect, lengths, lengths, sizes, sizes, st.just("ink"), st.sampled_from([None, "ink"])),
    st.builds(Circle, lengths, lengths, sizes, st.just("ink")),
    st.builds(Arc, lengths, lengths, sizes, angles, angles, st.just("ink")),
    st.builds(Text, lengths, lengths, sizes, st.just("middle"), st.just("label"), words),
)
others = st.one_of(
    st.builds(Dot, lengths, lengths, sizes),
    st.builds(Strand, lengths, lengths, lengths, lengths, st.just("BU")),
    st.builds(Image, lengths, lengths, sizes, sizes, st.just("logo")),
)
boxes = st.tuples(lengths, lengths, sizes, sizes).map(lambda b: (b[0], b[1], b[0] + b[2], b[1] + b[3]))


class Kept(TestCase):
    @given(placed)
    def test_what_is_kept_in_a_file_is_drawn_as_it_was(self, prim: Prim) -> None:
        self.assertEqual(drawn(kept(prim), "ink"), prim)

    @given(others)
    def test_what_no_symbol_has_is_refused_by_name(self, prim: Prim) -> None:
        with self.assertRaisesRegex(FileError, f"A {prim.kind} is no part of a symbol's graphics"):
            kept(prim)

    def test_every_symbol_that_comes_along_is_kept_and_drawn_the_same(self) -> None:
        for key, shape in definitions().items():
            for standard in ("iec", "na"):
                for poles in (1, shape.max_poles):
                    art = art_of(key, poles, standard)
                    self.assertEqual([drawn(kept(p), "ink") for p in art], art, key)

    def test_a_rectangle_drawn_from_any_corner_is_one_rectangle(self) -> None:
        corners: list[list[Any]] = [["rect", 1, 2, 4, 6], ["rect", 4, 6, 1, 2], ["rect", 1, 6, 4, 2]]
        self.assertEqual({drawn(c, "thin") for c in corners}, {Rect(1, 2, 3, 4, "thin")})

    def test_poles_are_the_same_graphics_further_down_joined_by_a_broken_line(self) -> None:
        one, three = art_of("breaker", 1, "iec"), art_of("breaker", 3, "iec")
        self.assertEqual(len(three), 3 * len(one) + 1)
        self.assertEqual(three[: len(one)], one)
        self.assertEqual([p.moved(0, 10.0) for p in one], three[len(one) : 2 * len(one)])
        joint = three[-1]
        assert isinstance(joint, Line)
        self.assertEqual((joint.pen, joint.x1), ("dash", joint.x2))


class Placed(TestCase):
    @given(st.one_of(placed, others), lengths, lengths, st.sampled_from([0.5, 2.0, 4.0]))
    def test_moved_then_scaled_is_scaled_then_moved(self, prim: Prim, dx: float, dy: float, factor: float) -> None:
        self.assertEqual(prim.moved(dx, dy).scaled(factor), prim.scaled(factor).moved(dx * factor, dy * factor))

    @given(lengths, lengths, sizes, words)
    def test_a_text_takes_as_much_room_whichever_way_it_is_anchored(
        self, x: float, y: float, size: float, content: str
    ) -> None:
        found = {a: text_box(Text(x, y, size, a, "tag", content)) for a in ("start", "middle", "end")}
        widths = {round(right - left, 6) for left, _, right, _ in found.values()}
        self.assertEqual(len(widths), 1)
        self.assertAlmostEqual(found["start"][0], x)
        self.assertAlmostEqual(found["end"][2], x)
        self.assertAlmostEqual(sum(found["middle"][0::2]) / 2, x)

    def test_a_text_is_asked_for_by_its_place_among_the_primitives(self) -> None:
        item = Item(
            "a",
            "note",
            [Dot(0, 0, 1), Text(0, 0, 3, "start", "label", "", ""), Text(1, 1, 3, "start", "tag", "-KF1")],
            (0, 0, 1, 1),
        )
        self.assertEqual(text_at(item, 2).words, "-KF1")
        self.assertEqual([t.words for t in texts_in(item)], ["-KF1"], "empty ones are none")
        with self.assertRaisesRegex(TypeError, "Primitive 0 of a is no text"):
            text_at(item, 0)


class Crowds(TestCase):
    @given(st.lists(boxes, max_size=20), st.lists(boxes, min_size=1, max_size=60), st.integers(0, 60))
    def test_a_crowd_that_is_asked_little_answers_like_one_that_is_sorted(
        self, taken: list[Any], asked: list[Any], late: int
    ) -> None:
        sorted_one, lately = Crowd(), Lately(taken)
        for box in taken:
            sorted_one.add(box)
        for n, box in enumerate(asked):
            if n == late:  # one comes in between, before or after it has been sorted
                sorted_one.add(asked[0])
                lately.add(asked[0])
            self.assertEqual(lately.is_free(box), sorted_one.is_free(box))
        self.assertAlmostEqual(lately.overlap(asked[0]), sorted_one.overlap(asked[0]), places=6)

    def test_it_is_sorted_only_when_that_pays(self) -> None:
        lately = Lately([(0.0, 0.0, 1.0, 1.0)])
        for _ in range(Lately.PATIENCE):
            lately.is_free((5.0, 5.0, 6.0, 6.0))
        self.assertIsNone(lately._crowd)
        lately.is_free((5.0, 5.0, 6.0, 6.0))
        self.assertIsNotNone(lately._crowd)


class Staying(TestCase):
    def test_what_does_not_change_is_the_same_item_also_where_its_text_has_moved(self) -> None:
        bench = Workbench(frame="zones")
        lamp = bench.place("lamp", 40, 30)
        bench.wire((30, 28), (60, 28))  # through the usual place of its tag
        before = sheet_scene(bench.project, bench.sheet).items[lamp]
        self.assertIn("tag", before.facts["settled"])
        bench.place("lamp", 100, 60)
        after = sheet_scene(bench.project, bench.sheet).items[lamp]
        self.assertIs(after, before)
        bench.wire((30, 26), (60, 26))  # through where it stands now
        self.assertIsNot(sheet_scene(bench.project, bench.sheet).items[lamp], before)

    def test_a_text_that_found_its_place_lies_on_no_wire(self) -> None:
        bench = Workbench(frame="zones")
        lamp = bench.place("lamp", 40, 30)
        for y in (26, 27, 28):
            bench.wire((30, y), (60, y))
        tag = next(t for t in texts_in(sheet_scene(bench.project, bench.sheet).items[lamp]) if t.role == "tag")
        wires = [i for i in sheet_scene(bench.project, bench.sheet).items.values() if i.kind == "wire"]
        for wire in wires:
            stroke = wire.prims[0]
            assert isinstance(stroke, Strand)
            self.assertFalse(meet(text_box(tag), (stroke.x1, stroke.y1 - 0.05, stroke.x2, stroke.y2 + 0.05)))
