"""Notes as they stand, strokes without meaning, layers, and things that move together."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.edits.pieces.pieces import piece_of, piece_to_json
from jolly_core.model import RuleError
from jolly_core.scenes import Text, leaves_of, sheet_scene
from jolly_core.scenes.room.crowding import text_box
from jolly_core.testing import Workbench, rebuilt


class Notes(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench()
        self.note = self.bench.new("place-note", sheet_id=self.bench.sheet, x=40, y=40, text="Old guard\nto be removed")

    def test_the_box_of_a_note_holds_its_lines_however_it_stands(self) -> None:
        for turned in (False, True):
            for align in ("start", "middle", "end"):
                for size in (2.5, 3.0, 10.0):
                    with self.subTest(turned=turned, align=align, size=size):
                        self.bench.do("change-note", note_id=self.note, turned=turned, align=align, size_mm=size)
                        item = sheet_scene(self.bench.project, self.bench.sheet).items[self.note]
                        texts = [p for p in item.placed() if isinstance(p, Text)]
                        self.assertEqual([t.words for t in texts], ["Old guard", "to be removed"])
                        for box in map(text_box, texts):
                            self.assertTrue(item.box[0] - 0.01 <= box[0] and box[2] <= item.box[2] + 0.01)
                            self.assertTrue(item.box[1] - 0.01 <= box[1] and box[3] <= item.box[3] + 0.01)
                        first, second = texts
                        apart = (second.x - first.x, second.y - first.y)
                        self.assertEqual(apart, (size * 1.5, 0) if turned else (0, size * 1.5))

    def test_a_note_is_turned_with_the_symbols_and_back_but_not_flipped(self) -> None:
        self.bench.do("turn-selection", ids=[self.note], how="turn")
        self.assertEqual(self.bench.project.notes[self.note].rotation, 90)
        self.bench.do("turn-selection", ids=[self.note], how="turn")
        self.assertEqual(self.bench.project.notes[self.note].rotation, 0)
        with self.assertRaisesRegex(RuleError, "only symbols flipped"):
            self.bench.do("turn-selection", ids=[self.note], how="flip")

    def test_a_large_note_that_leaves_the_frame_is_told(self) -> None:
        from jolly_core.checks import snags_on

        def told() -> bool:
            return any(s.code == "outside-frame" for s in snags_on(self.bench.project, self.bench.sheet))

        self.assertFalse(told())
        self.bench.do("change-note", note_id=self.note, size_mm=20, align="end")
        self.assertTrue(told())

    def test_words_are_left_without_blanks_and_none_are_refused(self) -> None:
        self.bench.do("change-note", note_id=self.note, text="\nOne  \r\n\r\ntwo\n\n")
        self.assertEqual(self.bench.project.notes[self.note].text, "One\n\ntwo")
        with self.assertRaisesRegex(RuleError, "no words"):
            self.bench.do("change-note", note_id=self.note, text=" \n ")


class Strokes(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench()

    def words(self, figure: str) -> list[str]:
        item = sheet_scene(self.bench.project, self.bench.sheet).items[figure]
        return [p.words for p in item.prims if isinstance(p, Text)]

    def draw(self, figure: str, *ends: int, **values: object) -> str:
        x1, y1, x2, y2 = ends
        places = {"x1": x1, "y1": y1, "x2": x2, "y2": y2}
        return self.bench.new("draw-figure", sheet_id=self.bench.sheet, figure=figure, **places, **values)

    def test_a_dimension_tells_its_length_on_the_sheet_or_what_is_typed(self) -> None:
        level, upright = self.draw("dimension", 20, 40, 60, 40), self.draw("dimension", 80, 40, 80, 20)
        step = 40 * 2.5
        self.assertEqual(self.words(level), [f"{step:g}"])
        self.assertEqual(self.words(upright), [f"{step / 2:g}"])
        self.bench.do("change-figure", figure_id=level, text="1250 to the wall")
        self.assertEqual(self.words(level), ["1250 to the wall"])

    def test_an_arrow_points_at_its_second_end_in_any_direction(self) -> None:
        for x, y in ((60, 40), (20, 40), (40, 60), (40, 20), (60, 60), (22, 31)):
            arrow = self.draw("arrow", 40, 40, x, y)
            item = sheet_scene(self.bench.project, self.bench.sheet).items[arrow]
            starts = [(p.x1 / 2.5, p.y1 / 2.5) for p in item.prims if p.kind == "line"]
            self.assertEqual(starts, [(40, 40), (x, y), (x, y)])

    def test_a_stroke_has_a_length_and_may_not_lose_it(self) -> None:
        with self.assertRaisesRegex(RuleError, "arrow has no length"):
            self.draw("arrow", 40, 40, 40, 40)
        line = self.draw("line", 40, 40, 60, 40)
        with self.assertRaisesRegex(RuleError, "no length"):
            self.bench.do("change-figure", figure_id=line, x2=40)


class Together(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench()
        self.lamp = self.bench.place("lamp", 40, 30)
        self.note = self.bench.new("place-note", sheet_id=self.bench.sheet, x=40, y=50, text="Seen from the door")
        self.alone = self.bench.new("place-note", sheet_id=self.bench.sheet, x=90, y=60, text="Alone")
        self.bench.do("group-selection", ids=[self.lamp, self.note])

    def test_what_is_grouped_moves_though_one_of_it_is_selected(self) -> None:
        self.bench.do("move-selection", ids=[self.note], dx=3, dy=2)
        project = self.bench.project
        self.assertEqual((project.symbols[self.lamp].x, project.notes[self.note].x), (43, 43))
        self.assertEqual(project.notes[self.alone].x, 90)
        self.bench.do("ungroup-selection", ids=[self.note])
        self.bench.do("move-selection", ids=[self.note], dx=3, dy=2)
        self.assertEqual((project.symbols[self.lamp].x, project.notes[self.note].x), (43, 46))

    def test_a_group_is_not_moved_where_one_of_it_is_locked(self) -> None:
        self.bench.do("set-lock", ids=[self.lamp], locked=True)
        with self.assertRaisesRegex(RuleError, "locked"):
            self.bench.do("move-selection", ids=[self.note], dx=3, dy=2)
        self.assertEqual(self.bench.project.notes[self.note].x, 40)

    def test_a_copy_is_a_group_of_its_own(self) -> None:
        bench = self.bench
        piece = piece_to_json(piece_of(bench.project, bench.sheet, [self.lamp, self.note]))
        for x in (60, 80):
            made = bench.do("paste-piece", sheet_id=bench.sheet, piece=piece, x=x, y=30).placed
            names = {t.together for k in ("symbol", "note") for id, t in bench.project.tables[k].items() if id in made}
            self.assertEqual(len(names), 1)
            self.assertTrue(names.isdisjoint({"", bench.project.notes[self.note].together}))
        groups = {n.together for n in bench.project.notes.values() if n.text == "Seen from the door"}
        self.assertEqual(len(groups), 3)

    def test_one_thing_alone_and_wires_are_no_group(self) -> None:
        self.bench.wire((10, 70), (30, 70))
        wires = list(self.bench.project.wires)
        with self.assertRaises(RuleError):
            self.bench.do("group-selection", ids=[self.alone, *wires])


class Layers(TestCase):
    def setUp(self) -> None:
        self.bench = bench = Workbench()
        self.old, self.new = bench.place("lamp", 40, 30), bench.place("lamp", 80, 30)
        self.contact = bench.place("contact-no", 20, 30)
        bench.wire((20, 30), (40, 30))
        self.note = bench.new("place-note", sheet_id=bench.sheet, x=40, y=50, text="Stays")
        self.layer = bench.new("add-layer", name="Existing")

    def seen(self) -> set[str]:
        (leaf,) = leaves_of(self.bench.project, self.bench.sheet)
        return set(leaf.items)

    def test_what_is_in_a_layer_that_is_not_printed_is_on_no_paper_with_its_wires(self) -> None:
        bench = self.bench
        before = self.seen()
        bench.do("put-in-layer", ids=[self.old, self.note], layer_id=self.layer)
        bench.do("change-layer", layer_id=self.layer, printed=False)
        wires = set(bench.project.wires)
        self.assertEqual(before - self.seen(), {self.old, self.note})
        self.assertTrue(wires <= self.seen(), "a wire between what is in a layer and what is in none is in none")
        bench.do("put-in-layer", ids=[self.contact], layer_id=self.layer)
        for project in (bench.project, rebuilt(bench.project)):
            (leaf,) = leaves_of(project, bench.sheet)
            self.assertTrue(wires.isdisjoint(leaf.items))
            self.assertFalse(any(i.kind in ("number", "dot") for i in leaf.items.values()))
        self.assertTrue(wires <= set(sheet_scene(bench.project, bench.sheet).items), "it is there to be drawn at")
        bench.do("change-layer", layer_id=self.layer, printed=True)
        self.assertEqual(self.seen(), before)

    def test_a_wire_between_two_layers_is_in_neither(self) -> None:
        bench = self.bench
        other = bench.new("add-layer", name="New")
        bench.do("put-in-layer", ids=[self.old], layer_id=self.layer)
        bench.do("put-in-layer", ids=[self.contact], layer_id=other)
        for hidden, shown in ((self.layer, other), (other, self.layer)):
            bench.do("change-layer", layer_id=hidden, printed=False)
            self.assertTrue(set(bench.project.wires) <= self.seen())
            bench.do("change-layer", layer_id=hidden, printed=True)
            self.assertTrue(bench.project.layers[shown].printed)

    def test_a_layer_that_is_taken_away_leaves_its_things(self) -> None:
        self.bench.do("put-in-layer", ids=[self.old], layer_id=self.layer)
        self.bench.do("remove-layer", layer_id=self.layer)
        self.assertEqual(self.bench.project.symbols[self.old].layer_id, "")

    def test_names_are_told_apart(self) -> None:
        with self.assertRaisesRegex(RuleError, "already"):
            self.bench.do("add-layer", name=" existing ")
        other = self.bench.new("add-layer", name="New")
        with self.assertRaisesRegex(RuleError, "already"):
            self.bench.do("change-layer", layer_id=other, name="EXISTING")
        self.bench.do("change-layer", layer_id=other, name="new")

    def test_in_another_project_the_layer_of_that_name_is_meant(self) -> None:
        bench = self.bench
        bench.do("put-in-layer", ids=[self.old, self.note], layer_id=self.layer)
        piece = piece_to_json(piece_of(bench.project, bench.sheet, [self.old, self.note]))
        for known in (True, False):
            other = Workbench()
            mine = other.new("add-layer", name="existing") if known else ""
            other.do("paste-piece", sheet_id=other.sheet, piece=piece, x=60, y=30)
            (layer,) = other.project.layers.values()
            self.assertEqual(layer.id, mine or layer.id)
            found = {s.layer_id for s in other.project.symbols.values()}
            self.assertEqual(found | {n.layer_id for n in other.project.notes.values()}, {layer.id})

    def test_only_wires_are_in_no_layer(self) -> None:
        with self.assertRaisesRegex(RuleError, "follows what it ends at"):
            self.bench.do("put-in-layer", ids=list(self.bench.project.wires), layer_id=self.layer)
