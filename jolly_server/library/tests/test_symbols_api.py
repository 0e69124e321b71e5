"""The symbol maker over HTTP: looked at, kept, offered at the caret, followed by parts; graphics and outlines."""

from __future__ import annotations

from dataclasses import asdict
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile

from jolly_core.library.tests.test_drawn import BEACON
from jolly_core.scenes import drawn
from jolly_server.library.models import LibrarySymbol
from jolly_server.testing import KILN, DemoCase

SVG = (
    b'<svg xmlns="http://www.w3.org/2000/svg" width="10mm" height="5mm" viewBox="0 0 10 5"><path d="M0 0H10V5"/></svg>'
)


def sent(sketch: dict[str, Any]) -> dict[str, Any]:
    """Return a sketch as the browser sends it: its graphics as records."""
    return {**sketch, **{s: [asdict(drawn(p, "ink")) for p in sketch[s]] for s in ("iec", "na") if s in sketch}}


class Maker(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")

    def keep(self, sketch: dict[str, Any], id: str = "") -> Any:
        return self.post(self.anna, "/library/drawn-symbols", {"sketch": sent(sketch), "id": id})

    def test_looked_at_on_wires_before_it_is_kept(self) -> None:
        look = self.post(self.anna, "/library/symbol-look", {"sketch": sent(BEACON)}).json()
        kinds = sorted(i["kind"] for i in look["items"])
        self.assertEqual((kinds.count("symbol"), kinds.count("wire")), (2, 4))
        self.assertEqual(LibrarySymbol.objects.count(), 0)
        bad = self.post(self.anna, "/library/symbol-look", {"sketch": sent({**BEACON, "pins": []})})
        self.assertEqual(bad.status_code, 400)
        self.assertIn("1 to 48 pins", bad.json()["message"])

    def test_graphics_that_no_symbol_has_are_refused_in_words(self) -> None:
        sketch = sent(BEACON)
        logo = {"kind": "picture", "x": 0, "y": 0, "width": 2, "height": 2, "picture": "logo"}
        refused = self.post(self.anna, "/library/symbol-look", {"sketch": {**sketch, "iec": [logo]}})
        self.assertEqual(refused.status_code, 400)
        self.assertIn("A picture is no part of a symbol's graphics", refused.json()["message"])
        unknown = self.post(self.anna, "/library/symbol-look", {"sketch": {**sketch, "iec": [{"kind": "cube"}]}})
        self.assertEqual(
            (unknown.status_code, unknown.json()["message"]), (422, "There is nothing of the kind “cube” here.")
        )
        lacking = self.post(
            self.anna, "/library/outline", {"art": [{"kind": "circle", "cx": 1, "cy": 1, "pen": "ink"}]}
        )
        self.assertEqual((lacking.status_code, lacking.json()["message"]), (422, "“radius” is missing."))
        self.assertEqual(LibrarySymbol.objects.count(), 0)

    def test_kept_it_is_offered_at_the_caret_with_its_graphics_and_placed(self) -> None:
        row = self.keep(BEACON).json()
        sheet = self.sheet("30")
        offers = self.anna.get(f"/api/projects/{KILN}/offers", {"q": "beacon", "sheet_id": sheet}).json()
        self.assertEqual(offers[0]["definition"], row["key"])
        self.assertEqual(offers[0]["art"][0]["kind"], "circle")
        self.assertIsNone(
            self.anna.get(f"/api/projects/{KILN}/offers", {"q": "lamp", "sheet_id": sheet}).json()[0]["art"]
        )
        self.accepted(self.anna, kind="place-symbol", sheet_id=sheet, definition=row["key"], x=60, y=70)
        self.assertIn(row["key"], [s.definition for s in self.stored().symbols_on(sheet)])
        self.assert_memory_is_stored()
        self.assertEqual(self.anna.get(f"/api/projects/{KILN}/drawing.pdf?sheet={sheet}").status_code, 200)
        # What is drawn with it stays when it goes from the library.
        self.assertTrue(self.anna.delete(f"/api/library/drawn-symbols/{row['id']}").json())
        self.assertFalse(self.anna.delete(f"/api/library/drawn-symbols/{row['id']}").json())
        self.assertIn(row["key"], [s.definition for s in self.stored().symbols_on(sheet)])

    def test_two_cannot_have_one_name(self) -> None:
        self.keep(BEACON)
        again = self.keep({**BEACON, "name": "rotating BEACON"})
        self.assertEqual(again.status_code, 422)
        self.assertIn("already", again.json()["message"])
        self.assertEqual(self.keep(BEACON, id="gone").status_code, 422)

    def test_parts_drawn_with_it_follow_and_their_copies_become_stale(self) -> None:
        row = self.keep(BEACON).json()
        lamp = self.anna.get("/api/library/part/tamwick-tw-l22-g").json()["record"]
        lamp["symbols"] = {"lamp": row["key"]}
        kept = self.post(self.anna, "/library/part", {"shelf": "house", "record": lamp}).json()
        changed = self.keep({**BEACON, "iec": [["rect", 3.5, 1, 6.5, 3]]}, id=row["id"]).json()
        part = self.anna.get("/api/library/part/tamwick-tw-l22-g").json()
        self.assertEqual(part["record"]["symbols"]["lamp"], changed["key"])
        self.assertEqual(part["record"]["version"], kept["record"]["version"] + 1)
        self.assertIn("drawn anew", part["history"][0]["act"])

    def test_what_comes_along_begins_another_one(self) -> None:
        sketch = self.anna.get("/api/library/symbol-sketch", {"key": "coil"}).json()
        self.assertEqual((sketch["class"], sketch["unit"]), ("relay", "coil"))
        self.assertEqual({p["kind"] for p in sketch["iec"]}, {"line", "rect"})
        kept = self.post(self.anna, "/library/drawn-symbols", {"sketch": {**sketch, "name": "Coil with flag"}})
        self.assertEqual(kept.status_code, 200)
        listed = self.anna.get("/api/library/symbols-for/coil", {"class_key": "relay"}).json()
        self.assertIn("Coil with flag", [s["name"] for s in listed])
        self.assertEqual(self.anna.get("/api/library/symbol-sketch", {"key": "none"}).status_code, 400)
        self.assertIn("Coil with flag", [s["name"] for s in self.anna.get("/api/library/symbols").json()])

    def test_graphics_of_a_file_and_an_outline_of_them(self) -> None:
        file = SimpleUploadedFile("lamp.svg", SVG)
        steps = self.anna.post("/api/library/symbol-graphics", {"file": file, "unit": "steps"}).json()
        self.assertEqual(steps, [{"kind": "poly", "points": [0, 0, 4, 0, 4, 2], "pen": "ink"}])
        file = SimpleUploadedFile("lamp.svg", SVG)
        wide = self.anna.post("/api/library/symbol-graphics", {"file": file, "unit": "mm", "width": "45"}).json()
        self.assertEqual(wide, [{"kind": "poly", "points": [0, 0, 45, 0, 45, 22.5], "pen": "ink"}])
        key = self.post(self.anna, "/library/outline", {"art": wide}).json()
        self.assertEqual(self.post(self.anna, "/library/outline-art", {"key": key}).json(), wide)
        self.assertEqual(self.post(self.anna, "/library/outline", {"art": []}).status_code, 400)
