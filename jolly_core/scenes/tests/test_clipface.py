"""The section of a clip: each wire where it lies, as thick as the measure drawn below says, named where legible."""

from __future__ import annotations

from jolly_core.harness import lead_through
from jolly_core.harness.tests.test_sharing import ClipCase
from jolly_core.model import GoneError
from jolly_core.scenes import clip_scene

from ..base.primitives import Circle, Dot, Item, Line, Scene, Strand, Text
from ..faces.clips import SCALE_MM, WIDE_MM


class Section(ClipCase):
    """A clip with three wires of 2 mm."""

    def scene(self) -> Scene:
        return clip_scene(self.bench.project, self.clip)

    def wires(self, scene: Scene) -> list[Item]:
        return [item for item in scene.items.values() if item.kind == "led"]

    def circle(self, item: Item) -> Circle:
        return next(p for p in item.prims if isinstance(p, Circle))

    def scale(self, scene: Scene) -> float:
        """Return how many mm of the picture one of the harness is, as the bar below it says."""
        bar = next(p for p in scene.items["scale"].prims if isinstance(p, Line))
        return (bar.x2 - bar.x1) / SCALE_MM

    def test_each_wire_lies_where_the_model_has_it_to_the_scale_drawn(self) -> None:
        for led in ({}, {"led": "offsets", "offsets": [-4, 1, 4, 0]}):
            if led:
                self.bench.do("change-node", node_id=self.clip, **led)
            scene, lead = self.scene(), lead_through(self.bench.project, self.clip)
            scale = self.scale(scene)
            circles = [self.circle(item) for item in self.wires(scene)]
            self.assertEqual(len(lead.inside), len(circles))
            for drawn, there in zip(circles, lead.inside, strict=True):
                self.assertAlmostEqual(there.run.diameter_mm / 2 * scale, drawn.radius, delta=0.01)
                self.assertAlmostEqual(WIDE_MM / 2 + there.x * scale, drawn.cx, delta=0.01)
                self.assertAlmostEqual(there.y - lead.inside[0].y, (drawn.cy - circles[0].cy) / scale, delta=0.01)

    def test_wires_are_named_and_have_their_colour(self) -> None:
        found = self.wires(self.scene())
        self.assertEqual(["1", "2", "3"], [next(p.words for p in item.prims if isinstance(p, Text)) for item in found])
        self.assertEqual({"BK"}, {next(p.colour for p in item.prims if isinstance(p, Strand)) for item in found})
        about = next(p for p in self.scene().items["about"].prims if isinstance(p, Circle))
        self.assertAlmostEqual(
            lead_through(self.bench.project, self.clip).diameter_mm / 2 * self.scale(self.scene()),
            about.radius,
            delta=0.01,
        )

    def test_nothing_of_it_is_cut_however_far_wires_are_put(self) -> None:
        self.bench.do("change-node", node_id=self.clip, led="offsets", offsets=[-40, 25, 0, -30, 60, 0])
        scene = self.scene()
        self.assertEqual(WIDE_MM, scene.width)
        for item in self.wires(scene):
            c = self.circle(item)
            self.assertTrue(c.radius <= c.cx <= WIDE_MM - c.radius and c.radius <= c.cy <= scene.height - c.radius)
        self.assertFalse([p for i in self.wires(scene) for p in i.prims if isinstance(p, Text)], "too small to read")

    def test_merged_they_are_one_point(self) -> None:
        self.bench.do("change-node", node_id=self.clip, led="merged")
        scene = self.scene()
        self.assertEqual([], self.wires(scene))
        self.assertTrue(any(isinstance(p, Dot) for p in scene.items["point"].prims))

    def test_one_that_is_gone_is_said_to_be(self) -> None:
        with self.assertRaises(GoneError):
            clip_scene(self.bench.project, "nothing")
