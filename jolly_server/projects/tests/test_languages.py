"""Layers and languages over HTTP: what is in them, a sheet in a language, papers in it."""

from __future__ import annotations

import io
from typing import Any

from pypdf import PdfReader

from jolly_server.testing import KILN, DemoCase


class Languages(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")
        self.control = self.sheet("30")

    def ask(self, path: str, status: int = 200) -> Any:
        """Get a path of the project."""
        answer = self.anna.get(f"/api/projects/{KILN}/{path}")
        self.assertEqual(answer.status_code, status, answer.content)
        return answer

    def say(self, words: str, said: str) -> None:
        wordings = [{"words": words, "language": "de", "said": said}]
        self.accepted(self.anna, kind="write-wordings", wordings=wordings)

    def test_texts_with_what_they_are_and_where_one_stands(self) -> None:
        self.assertEqual(self.ask("wordings").json()["languages"], [])
        self.accepted(self.anna, kind="set-languages", languages=["de"])
        self.say("Auger run", "Schnecke ein")
        found = self.ask("wordings").json()
        line = next(t for t in found["texts"] if t["words"] == "Auger run")
        self.assertEqual((found["languages"], line["said"]), (["de"], {"de": "Schnecke ein"}))
        self.assertEqual((line["kinds"], line["sheet_id"]), (["device"], self.control))
        self.assertIn(line["symbol_id"], self.stored().symbols)
        self.assert_memory_is_stored()

    def test_a_sheet_in_a_language_is_what_looks_otherwise_after_each_edit(self) -> None:
        self.accepted(self.anna, kind="set-languages", languages=["de"])
        where = f"sheets/{self.control}/said/de"
        self.assertEqual(self.ask(where).json()["items"], {})
        self.say("Auger run", "Schnecke ein")
        (item,) = self.ask(where).json()["items"].values()
        self.assertIn("Schnecke ein", [p.get("words") for p in item["prims"]])
        device = next(d.id for d in self.stored().devices.values() if d.text == "Auger run")
        self.accepted(self.anna, kind="set-text", device_id=device, text="Auger on")
        self.assertEqual(self.ask(where).json()["items"], {})
        self.accepted(self.anna, kind="set-languages", languages=[])
        self.assertIn("“de”", self.ask(where, 422).content.decode())

    def test_papers_in_a_language(self) -> None:
        self.accepted(self.anna, kind="set-languages", languages=["de"])
        self.say("Auger run", "Schnecke ein")
        for ending in ("pdf", "svg", "dxf"):
            for language, words in (("", "Auger run"), ("de", "Schnecke ein")):
                answer = self.ask(f"drawing.{ending}?sheet_id={self.control}&language={language}").content
                text = PdfReader(io.BytesIO(answer)).pages[0].extract_text() if ending == "pdf" else answer.decode()
                self.assertIn(words, text, (ending, language))
            self.ask(f"drawing.{ending}?sheet_id={self.control}&language=nl", 422)
        whole = self.ask("drawing.pdf?language=de").content
        self.assertIn("Schnecke ein", "".join(p.extract_text() for p in PdfReader(io.BytesIO(whole)).pages))

    def test_layers_with_how_much_is_in_them(self) -> None:
        layer = self.accepted(self.anna, kind="add-layer", name="Existing")["placed"][0]
        self.accepted(self.anna, kind="add-layer", name="By others")
        ids = [s.id for s in self.stored().symbols_on(self.control)][:3]
        self.accepted(self.anna, kind="put-in-layer", ids=ids, layer_id=layer)
        found = [(line["name"], line["printed"], line["used"]) for line in self.ask("layers").json()]
        self.assertEqual(found, [("Existing", True, 3), ("By others", True, 0)])
        before = self.ask(f"drawing.svg?sheet_id={self.control}").content
        self.accepted(self.anna, kind="change-layer", layer_id=layer, printed=False)
        self.assertLess(len(self.ask(f"drawing.svg?sheet_id={self.control}").content), len(before))
        self.assert_memory_is_stored()
