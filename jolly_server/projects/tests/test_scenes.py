"""Scenes over HTTP: records of declared kinds, the acts of snags as edits that can be sent back as they are."""

from __future__ import annotations

from typing import Any, get_args

from jolly_core.checks import Act, Snag
from jolly_core.scenes import Prim
from jolly_server.projects.views import act_of
from jolly_server.testing import KILN, DemoCase

KINDS = {cls.__dataclass_fields__["kind"].default for cls in get_args(Prim)}


class Scenes(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")

    def items(self, number: str) -> list[dict[str, Any]]:
        view = self.anna.get(f"/api/projects/{KILN}/sheets/{self.sheet(number)}/view").json()
        return list(view["view"]["put"]["items"].values())

    def test_every_primitive_of_the_demo_says_what_it_is_and_all_kinds_are_told_apart(self) -> None:
        found: set[str] = set()
        for number in ("2", "10", "30", "50", "80"):
            for item in self.items(number):
                for prim in item["prims"]:
                    self.assertIn(prim["kind"], KINDS)
                    found.add(prim["kind"])
        self.assertTrue({"line", "rect", "wire", "art", "text", "dot", "poly", "circle", "picture"} <= found)

    def test_a_symbol_and_a_wire_say_what_a_hand_needs_to_know(self) -> None:
        items = self.items("30")
        coil = next(i for i in items if i["facts"].get("definition") == "coil")
        self.assertEqual((coil["facts"]["tag"], coil["facts"]["poles"]), ("-QA1", [1, 1]))
        left, top, right, bottom = coil["facts"]["body"]
        self.assertTrue(all(left <= x * 2.5 <= right and top <= y * 2.5 <= bottom for x, y in coil["facts"]["pins"]))
        wire = next(i for i in items if i["kind"] == "wire")
        (x1, y1), (x2, y2) = wire["facts"]["ends"]
        (stroke,) = wire["prims"]
        self.assertEqual([stroke[k] for k in ("x1", "y1", "x2", "y2")], [2.5 * v for v in (x1, y1, x2, y2)])

    def test_the_graphics_of_all_symbols_are_primitives_of_the_same_kinds(self) -> None:
        art = self.anna.get("/api/library/art/iec").json()
        self.assertIn("coil-1", art)
        self.assertTrue(all(p["kind"] in KINDS for prims in art.values() for p in prims))
        self.assertEqual({p["pen"] for p in art["breaker-3"] if "pen" in p}, {"ink", "dash"})

    def test_a_page_made_from_the_model_and_a_layout_are_scenes_too(self) -> None:
        cabinet = self.anna.get(f"/api/projects/{KILN}/cabinet").json()["enclosure"]["scene"]
        tones = {p["tone"] for i in cabinet["items"] for p in i["prims"] if p["kind"] == "rect"}
        self.assertTrue({"plate", "rail", "duct", "device"} <= tones)
        rail = next(i for i in cabinet["items"] if i["kind"] == "rail")
        self.assertEqual(len(rail["facts"]["run"]), 4)


class SnagActs(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")

    def snags(self, sheet: str) -> list[dict[str, Any]]:
        view = self.anna.get(f"/api/projects/{KILN}/sheets/{sheet}/view").json()
        return list(view["view"]["put"]["snags"].values())

    def test_the_act_of_a_snag_is_an_edit_that_is_accepted_as_it_stands(self) -> None:
        sheet = self.sheet("31")
        self.accepted(self.anna, kind="change-sheet", sheet_id=sheet, first_line=301)
        acts = [s["act"] for s in self.snags(sheet) if s["act"]]
        self.assertTrue(acts, "lines that are there twice can run on")
        before = len(self.snags(sheet))
        self.accepted(self.anna, **acts[0]["edit"])
        self.assertLess(len(self.snags(sheet)), before)

    def test_an_act_that_is_no_edit_gives_no_button(self) -> None:
        snag = Snag("own", "warning", "words", (), "s", 0, 0, act=Act("Do it", "no-such-edit"))
        self.assertIsNone(act_of(snag))
        self.assertIsNone(act_of(Snag("own", "warning", "words", (), "s", 0, 0)))
        lacking = Snag("own", "warning", "words", (), "s", 0, 0, act=Act("Do it", "swap-symbol"))
        self.assertIsNone(act_of(lacking), "what it changes is not said")
        good = act_of(Snag("own", "warning", "words", (), "s", 0, 0, act=Act("Do it", "run-lines-on")))
        assert good is not None
        self.assertEqual((good["label"], good["edit"].model_dump()["kind"]), ("Do it", "run-lines-on"))
