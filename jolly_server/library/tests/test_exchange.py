"""The library as files: out and in again, a table with faults, what is remembered of its columns."""

from __future__ import annotations

import json
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client

from jolly_server.library.models import ColumnMapping, LibraryPart, Shelf
from jolly_server.library.search import search
from jolly_server.testing import DemoCase

TABLE = (
    b"Maker;Part number;Class;Description;Spannung\n"
    b"Tamwick;N-1;Indicator light;First;24\n"
    b"Tamwick;TW-L22-G;Indicator light;Emerald;24\n"
    b";;Rocket;Faulty;\n"
)


class Tables(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.anna = self.person("anna")

    def send(self, act: str, content: bytes, name: str = "parts.csv", *, who: Client | None = None, **form: str) -> Any:
        body = {"file": SimpleUploadedFile(name, content), "shelf": "house", "mapping": "", **form}
        return (who or self.anna).post(f"/api/library/import/{act}", body)

    def test_two_columns_that_both_look_like_the_number_are_asked_for(self) -> None:
        content = b"Maker;Type;Article number;Class\nTamwick;N-1;48-1;Indicator light\n"
        look = self.send("look", content).json()
        self.assertIn("“Type” and “Article number” are both taken for number. Choose", look["problem"])
        self.assertEqual(look["rows"], [])
        mapping = {**look["mapping"], "Article number": "order_number"}
        look = self.send("look", content, mapping=json.dumps(mapping)).json()
        self.assertEqual((look["problem"], look["counts"]["new"]), ("", 1))

    def test_looked_at_first_then_only_the_good_rows_are_taken(self) -> None:
        before = LibraryPart.objects.count()
        look = self.send("look", TABLE).json()
        self.assertEqual(look["counts"], {"new": 1, "changed": 1, "same": 0, "bad": 1})
        self.assertEqual((look["rows"][0]["line"], look["rows"][0]["state"]), (4, "bad"))
        self.assertEqual(LibraryPart.objects.count(), before)
        self.assertEqual(self.send("take", TABLE).json(), {"taken": 2, "left": 1})
        self.assertEqual(LibraryPart.objects.count(), before + 1)
        self.assertEqual([m.part.number for m in search("emerald")], ["TW-L22-G"])
        history = self.anna.get("/api/library/part/tamwick-tw-l22-g").json()["history"]
        self.assertEqual((history[0]["act"], history[0]["version"]), ("taken in from parts.csv", 2))

    def test_what_a_column_means_is_remembered(self) -> None:
        first = self.send("look", TABLE).json()
        self.assertEqual(first["mapping"]["Spannung"], "")
        mapping = json.dumps({**first["mapping"], "Spannung": "voltage_v"})
        self.send("look", TABLE, mapping=mapping)
        self.assertEqual(self.send("look", TABLE).json()["mapping"]["Spannung"], "voltage_v")
        self.assertEqual(ColumnMapping.objects.count(), 1)
        self.send("take", TABLE)
        self.assertEqual(LibraryPart.objects.get(number="N-1").ratings, {"voltage_v": "24"})

    def test_out_as_each_format_and_in_again_changes_nothing(self) -> None:
        for format in ("json", "csv", "xlsx"):
            out = self.anna.get(f"/api/library/export.{format}?shelf=house")
            self.assertEqual(out.status_code, 200)
            look = self.send("look", out.content, f"parts.{format}").json()
            total = LibraryPart.objects.count()
            self.assertEqual(look["counts"], {"new": 0, "changed": 0, "same": total, "bad": 0}, format)
        some = self.anna.get("/api/library/export.json?ids=tamwick-tw-l22-g").json()
        self.assertEqual([p["id"] for p in some["parts"]], ["tamwick-tw-l22-g"])
        self.assertEqual(self.anna.get("/api/library/export.docx").status_code, 404)

    def test_a_library_file_goes_into_another_library(self) -> None:
        some = self.anna.get("/api/library/export.json?ids=tamwick-tw-l22-g,tamwick-tw-l22-r").content
        made = self.post(self.anna, "/library/shelves", {"name": "Mine", "own": True}).json()
        mine = next(s["id"] for s in made if s["name"] == "Mine")
        self.assertEqual(self.send("take", some, "some.json", shelf=mine).json(), {"taken": 2, "left": 0})
        self.assertEqual(Shelf.objects.get(pk=mine).parts.count(), 2)
        self.assertEqual(LibraryPart.objects.get(pk="tamwick-tw-l22-g").shelf_id, "house")

    def test_what_cannot_be_read_is_refused_and_nothing_is_taken(self) -> None:
        before = LibraryPart.objects.count()
        for content, name, words in (
            (b"\x00\x01", "parts.csv", "not a CSV"),
            (b"nonsense", "parts.xlsx", "not an XLSX"),
            (b"[]", "parts.json", "not a Jolly Spool library"),
            (b"{", "parts.json", "cannot be read as JSON"),
            (b"", "parts.csv", "no headings"),
        ):
            with self.subTest(words):
                answer = self.send("take", content, name)
                self.assertIn(answer.status_code, (400, 422))
                self.assertIn(words, answer.json()["message"])
        self.assertEqual(LibraryPart.objects.count(), before)
        look = self.send("look", b"Maker;Klasse\nA;B\n").json()
        self.assertEqual((look["rows"], look["mapping"]["Klasse"]), ([], ""))
        self.assertEqual(look["problem"], "Say which column has the part's number.")
