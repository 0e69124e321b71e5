"""Form boards: true scale, dimensions that are the lengths, nothing written or tabled upon a bundle or another."""

from __future__ import annotations

import random
from itertools import combinations
from math import hypot
from unittest import TestCase

from jolly_core.drawing import BoxMm
from jolly_core.harness import span_of
from jolly_core.scenes import Scene
from jolly_core.testing import Workbench

from ..base.primitives import Item, Text
from ..harness.board import board_scene
from ..room.roomfinding import Room, beside, crosses

PARTS = ("tamwick-tw-h2s", "tamwick-tw-h6s", "tamwick-tw-h12s", "tamwick-tw-h24s")


def harness(seed: int, nodes: int) -> tuple[Workbench, str]:
    """Return a harness of connectors of parts, each joined to some other one, with wires to the first."""
    chance = random.Random(seed)
    bench = Workbench(frame="zones")
    made = bench.new("add-harness", code=f"WH-{seed}", text="made at random")
    ids: list[str] = []
    for n in range(nodes):
        bench.do(
            "add-connector",
            harness_id=made,
            part_id="tamwick-tw-h24s" if n == 0 else chance.choice(PARTS),
            tag=f"XD{n + 1}",
            from_id=chance.choice(ids) if ids else "",
            length_mm=chance.randint(8, 60) * 10,
        )
        ids = [node.id for node in bench.project.nodes.values()]
    rows = [{"colour": "BK", "size": "0.5", "start": f"XD1:{n}", "end": f"XD{n + 1}:1"} for n in range(1, nodes)]
    bench.do("draw-harness-wires", harness_id=made, rows=rows)
    for segment in chance.sample(sorted(bench.project.segments), k=min(3, nodes - 1)):
        bench.do("cover-segment", ids=[segment], part_id="tamwick-tw-sv6")
    return bench, made


def of_kind(scene: Scene, *kinds: str) -> list[Item]:
    return [item for item in scene.items.values() if item.kind in kinds]


def meet(a: BoxMm, b: BoxMm) -> bool:
    return a[0] < b[2] - 0.01 and b[0] < a[2] - 0.01 and a[1] < b[3] - 0.01 and b[1] < a[3] - 0.01


class Boards(TestCase):
    def test_nothing_lies_on_a_bundle_or_on_another_and_all_is_at_true_scale(self) -> None:
        for seed, nodes in enumerate((2, 3, 5, 8, 12, 16, 20, 24), start=1):
            bench, made = harness(seed, nodes)
            scene = board_scene(bench.project, made, "F1")
            segments = of_kind(scene, "segment")
            self.assertEqual(len(segments), nodes - 1)
            for item in segments:
                (ax, ay), (bx, by) = item.facts["from"], item.facts["to"]
                self.assertAlmostEqual(hypot(ax - bx, ay - by), span_of(bench.project, item.id).length_mm, delta=0.1)
            lying = of_kind(scene, "table", "words", "covering")
            self.assertEqual(len(of_kind(scene, "table")), nodes)
            for item in lying:
                for other in segments:
                    line = (*other.facts["from"], *other.facts["to"])
                    self.assertFalse(crosses(item.box, line), f"{seed}: {item.id} lies on {other.id}")
            for one, other in combinations(lying, 2):
                self.assertFalse(meet(one.box, other.box), f"{seed}: {one.id} lies on {other.id}")
            for item in scene.items.values():
                x1, y1, x2, y2 = item.box
                self.assertTrue(x1 >= 0 and y1 >= 0 and x2 <= scene.width and y2 <= scene.height, item.id)

    def test_dimensions_are_the_lengths_with_what_is_added(self) -> None:
        bench, made = harness(3, 4)
        segment = sorted(bench.project.segments)[0]
        bench.do("set-segment", segment_id=segment, extra_mm=12.5)
        scene = board_scene(bench.project, made, "F1")
        words = {p.words for item in scene.items.values() for p in item.prims if isinstance(p, Text)}
        for s in bench.project.segments.values():
            self.assertIn(span_of(bench.project, s.id).words, words)
        self.assertIn(f"{bench.project.segments[segment].length_mm:g} + 12.5", words)

    def test_a_branch_leaves_at_the_angle_that_was_chosen(self) -> None:
        bench = Workbench(frame="zones")
        made = bench.new("add-harness", code="WH-A")
        for n, length in ((1, 10), (2, 400), (3, 300)):
            start = next((x.id for x in bench.project.nodes.values()), "")
            values = {"harness_id": made, "part_id": "tamwick-tw-h2s", "tag": f"XD{n}", "from_id": start}
            bench.do("add-connector", length_mm=length, **values)
        bench.do("add-connector", harness_id=made, part_id="tamwick-tw-h2s", tag="XD4", from_id=start, length_mm=150)
        branch = next(s.id for s in bench.project.segments.values() if s.length_mm == 150)
        bench.do("set-segment", segment_id=branch, angle_deg=60)
        facts = board_scene(bench.project, made, "F1").items[branch].facts
        (ax, ay), (bx, by) = facts["from"], facts["to"]
        self.assertAlmostEqual(bx - ax, 75, delta=0.1)
        self.assertAlmostEqual(by - ay, 129.9, delta=0.1)

    def test_each_end_has_its_label_on_its_own_bundle_and_headings_turn_the_board(self) -> None:
        bench, made = harness(3, 6)
        sizes = {}
        for heading in ("right", "down", "left", "up"):
            bench.do("change-harness", harness_id=made, heading=heading, label_mm=30)
            scene = board_scene(bench.project, made, "F1")
            sizes[heading] = scene.width > scene.height
            flags = of_kind(scene, "flag")
            self.assertGreater(len(flags), 2)
            segments = of_kind(scene, "segment")
            for flag in flags:
                under = [s for s in segments if crosses(flag.box, (*s.facts["from"], *s.facts["to"]))]
                self.assertEqual(len(under), 1, flag.id)
            for one, other in combinations([*flags, *of_kind(scene, "table", "words", "covering")], 2):
                self.assertFalse(meet(one.box, other.box), f"{heading}: {one.id} lies on {other.id}")
            for item in segments:
                (ax, ay), (bx, by) = item.facts["from"], item.facts["to"]
                self.assertAlmostEqual(hypot(ax - bx, ay - by), span_of(bench.project, item.id).length_mm, delta=0.1)
        bench.do("change-harness", harness_id=made, label_mm=0)
        self.assertEqual(of_kind(board_scene(bench.project, made, "F1"), "flag"), [])

    def test_from_the_mating_side_a_face_is_mirrored_and_its_table_says_so(self) -> None:
        bench, made = harness(1, 2)
        node = next(n for n in bench.project.nodes.values())

        def places() -> dict[str, float]:
            item = board_scene(bench.project, made, "F1").items[node.id]
            return {p.words: p.x for p in item.prims if isinstance(p, Text)}

        before = places()
        bench.do("change-node", node_id=node.id, from_mating=True)
        after = places()
        self.assertLess(before["1"], before["2"])
        self.assertEqual((after["1"], after["2"]), (before["2"], before["1"]))
        table = board_scene(bench.project, made, "F1").items[f"table:{node.device_id}"]
        self.assertIn("mating side", next(p.words for p in table.prims if isinstance(p, Text)))

    def test_room_is_found_beside_lines_and_boxes_and_at_last_aside(self) -> None:
        self.assertEqual(beside(0, 0, 10, 4, 6, 0), (6, -2, 16, 2))
        self.assertTrue(crosses((0, 0, 10, 10), (-5, -5, 15, 15)))
        self.assertFalse(crosses((0, 0, 10, 10), (-5, 6, 6, 17)))
        self.assertTrue(crosses((0, 0, 10, 10), (-5, 6, 6, 17), 2))
        room = Room()
        for y in range(-600, 601, 10):
            room.add_line((-1000, y, 1000, y), 3)
        self.assertIsNone(room.take(0, 0, 30, 20))
        self.assertGreater(room.take_aside(30, 20)[0], 1000)
