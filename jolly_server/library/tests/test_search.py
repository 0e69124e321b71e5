"""Looking parts up."""

from __future__ import annotations

import json
import random
import tempfile
from pathlib import Path

from jolly_core.library import definitions, find_symbols, number_in, part_classes, values_of
from jolly_core.model import FileError, Part
from jolly_server.library.models import LibraryPart, Shelf
from jolly_server.library.search import FIELDS, Filter, search
from jolly_server.library.services import load_library
from jolly_server.testing import DemoCase


def _meets(asked: Filter, value: tuple[str, str, float | None]) -> bool:
    """Tell whether a value is what a filter asks for, looked at by itself."""
    field, text, number = value
    if field != asked.field:
        return False
    if asked.operator == "=":
        return text in {w.strip().lower() for w in asked.value.split(",")}
    limit = number_in(asked.value)
    if number is None or limit is None:
        return False
    return number >= limit if asked.operator == ">=" else number <= limit


class Search(DemoCase):
    def numbers(self, words: str = "", **more: object) -> list[str]:
        return [m.part.number for m in search(words, **more)]  # type: ignore[arg-type]  # passed through

    def test_part_of_a_number_in_any_case(self) -> None:
        self.assertIn("BW-C09-24D-31", self.numbers("c09-24d"))
        self.assertEqual(self.numbers("bw-c09-24d-62"), ["BW-C09-24D-62"])

    def test_words_ratings_makers_and_short_words(self) -> None:
        self.assertEqual(self.numbers("indicator yellow 230"), ["TW-L22-Y-230"])
        self.assertTrue(self.numbers("motor orrery") and all(n.startswith("OD-") for n in self.numbers("motor orrery")))
        self.assertIn("HR-P5", self.numbers("5 A supply"))
        self.assertEqual(self.numbers("%%"), [])

    def test_filters(self) -> None:
        self.assertLessEqual({"HR-T1", "HR-T2"}, set(self.numbers(part_class_key="timer")))
        found = search(part_class_key="contactor", maker="Brindlework", rating="230")
        self.assertTrue(found and all(m.part.ratings["coil_voltage_v"] == "230" for m in found))

    def test_needs_leave_only_parts_with_enough_units_smallest_first(self) -> None:
        found = self.numbers("c09", part_class_key="contactor", needs={"coil": 1, "no": 4, "nc": 1})
        self.assertEqual(found, ["BW-C09-24D-62"])
        self.assertEqual(self.numbers(part_class_key="contactor", needs={"no": 99}), [])

    def test_any_fields_together_find_what_a_look_at_each_part_finds(self) -> None:
        parts = [Part(**{f: getattr(row, f) for f in FIELDS}) for row in LibraryPart.objects.all()]
        had = {part.number: values_of(part) for part in parts}
        every = sorted({value for values in had.values() for value in values}, key=str)
        chance, hits = random.Random(5), 0
        for _ in range(150):
            picked = chance.sample(chance.choice(list(had.values())), 2) + [chance.choice(every)] * chance.randint(0, 1)
            filters = []
            for field, text, number in picked:
                operator = "=" if number is None else chance.choice(("=", ">=", "<="))
                filters.append(Filter(field, operator, text))
            words = chance.choice(("", "", "bw", "contactor"))
            asked = self.numbers(words, filters=filters, limit=9999)
            fits = {n for n, values in had.items() if all(any(_meets(f, v) for v in values) for f in filters)}
            self.assertEqual(set(asked), fits & set(self.numbers(words, limit=9999)), filters)
            self.assertEqual(len(asked), len(set(asked)), filters)
            hits += len(asked)
        self.assertGreater(hits, 500)

    def test_the_match_is_explained(self) -> None:
        match = search("tw-l22-g")[0]
        self.assertEqual(match.why, {"number": "TW-L22-G"})
        self.assertEqual(search("hr-k4 hollin")[0].why, {"number": "HR-K4", "maker": "Hollin Reeve"})

    def test_the_index_follows_changes(self) -> None:
        LibraryPart.objects.filter(number="TW-L22-G").update(text="Emerald pilot")
        self.assertEqual(self.numbers("emerald"), ["TW-L22-G"])
        LibraryPart.objects.filter(number="TW-L22-G").delete()
        self.assertEqual(self.numbers("emerald"), [])

    def test_over_http(self) -> None:
        anna = self.person("anna")
        rows = anna.get("/api/library/parts", {"q": "c09", "needs": "no:4,nc:1"}).json()
        self.assertEqual([(r["number"], r["units"]["no"]) for r in rows], [("BW-C09-24D-62", 6)])
        self.assertEqual(anna.get("/api/library/symbols", {"q": "coil"}).json()[0]["key"], "coil")
        self.assertEqual(len(anna.get("/api/library/classes").json()), len(part_classes()))
        self.assertIn("breaker-4", anna.get("/api/library/art/na").json())


class LibraryFile(DemoCase):
    def load(self, parts: list[dict[str, object]]) -> int:
        with tempfile.TemporaryDirectory() as folder:
            path = Path(folder) / "library.json"
            path.write_text(json.dumps({"format": "jolly-spool-library", "version": 1, "parts": parts}))
            return load_library(path, Shelf.objects.get(pk="house"))

    def test_a_wrong_part_is_named_and_nothing_is_loaded(self) -> None:
        good: dict[str, object] = {"id": "x-1", "maker": "Quillon", "number": "X1", "part_class": "lamp"}
        count = LibraryPart.objects.count()
        for change, words in (
            ({"part_class": "rocket"}, "rocket"),
            ({"units": [["coil", ["A1", "A2"]]]}, "X2: the class Indicator light has no unit coil"),
            ({"id": "x-1"}, "Two parts"),
            ({"maker": 7}, "maker"),
        ):
            with self.subTest(words), self.assertRaisesRegex(FileError, words):
                self.load([good, {**good, "id": "x-2", "number": "X2", **change}])
        self.assertEqual(LibraryPart.objects.count(), count)
        self.assertEqual(self.load([good]), 1)

    def test_symbols_cover_the_slice_and_both_standards(self) -> None:
        shapes = definitions()
        self.assertGreaterEqual(len(shapes), 30)
        both = ("coil", "contact-no", "contact-nc", "button-no", "button-nc", "lamp", "motor")
        self.assertTrue(all(shapes[k].art("na") != shapes[k].art("iec") for k in both))
        for shape in shapes.values():
            self.assertIn(shape, find_symbols(shape.nicknames[0]))
            self.assertIn(shape.part_class, part_classes())
            self.assertIn(shape.unit, part_classes()[shape.part_class].units)
            self.assertTrue(not shape.swap or shapes[shape.swap].swap == shape.key, shape.key)
