"""A project in other languages: what is said once stands everywhere, and what is made of it follows each edit."""

from __future__ import annotations

import random
from unittest import TestCase

from jolly_core.exchange import write_project
from jolly_core.exchange.issuecheck import issue_check
from jolly_core.model import Pack, Project, RuleError, in_language, said_texts, unsaid
from jolly_core.reports import REPORTS, run_report
from jolly_core.scenes import Text, sheet_scene
from jolly_core.testing import FONTS, Workbench, demo_anew, rebuilt
from jolly_core.testing.machines import Machine


def words_on(project: Project, sheet_id: str) -> list[str]:
    items = sheet_scene(project, sheet_id).items.values()
    return [p.words for item in items for p in item.prims if isinstance(p, Text)]


class Said(TestCase):
    def setUp(self) -> None:
        self.bench = bench = Workbench()
        self.lamp = bench.place("lamp", 40, 30, text="Running")
        self.other = bench.place("lamp", 80, 30, text="Running")
        self.note = bench.new("place-note", sheet_id=bench.sheet, x=40, y=60, text="Lock out\nfor cleaning")
        bench.do("set-languages", languages=["de", "fr"])

    def say(self, words: str, said: str, language: str = "de") -> None:
        self.bench.do("write-wordings", wordings=[{"words": words, "language": language, "said": said}])

    def test_a_text_is_said_once_for_all_places(self) -> None:
        self.say("Running", "Läuft")
        shown = words_on(in_language(self.bench.project, "de"), self.bench.sheet)
        self.assertEqual((shown.count("Läuft"), shown.count("Running")), (2, 0))
        self.assertEqual(words_on(self.bench.project, self.bench.sheet).count("Running"), 2)
        self.assertEqual(words_on(in_language(self.bench.project, "fr"), self.bench.sheet).count("Running"), 2)

    def test_lines_of_a_note_are_those_of_the_language(self) -> None:
        self.say("Lock out\nfor cleaning", "Zum Reinigen\nsperren\nund sichern")
        shown = words_on(in_language(self.bench.project, "de"), self.bench.sheet)
        self.assertLessEqual({"Zum Reinigen", "sperren", "und sichern"}, set(shown))

    def test_it_follows_what_is_edited_said_anew_and_taken_back(self) -> None:
        self.say("Running", "Läuft")
        said = in_language(self.bench.project, "de")
        self.bench.do("set-text", device_id=self.bench.device(self.lamp), text="Fault")
        self.assertEqual(words_on(in_language(self.bench.project, "de"), self.bench.sheet).count("Läuft"), 1)
        self.say("Fault", "Störung")
        self.assertIn("Störung", words_on(in_language(self.bench.project, "de"), self.bench.sheet))
        self.say("Running", "")
        self.assertNotIn("Läuft", words_on(in_language(self.bench.project, "de"), self.bench.sheet))
        self.assertIs(in_language(self.bench.project, "de"), said, "it is kept, with what is known of it")

    def test_what_nobody_said_is_named(self) -> None:
        self.assertIn("Running", [t.words for t in unsaid(self.bench.project, "de")])
        self.say("Running", "Läuft")
        self.assertNotIn("Running", [t.words for t in unsaid(self.bench.project, "de")])
        found = {f.code: f.names for f in issue_check(self.bench.project, FONTS)}
        self.assertIn("Lock out for cleaning", found["unsaid-de"])
        self.assertNotIn("Running", found["unsaid-de"])
        self.assertIn("Running", found["unsaid-fr"])

    def test_a_language_that_the_project_is_not_in_is_refused_by_name(self) -> None:
        for act in (
            lambda: in_language(self.bench.project, "nl"),
            lambda: self.say("Running", "Loopt", "nl"),
            lambda: self.bench.do("keep-pack", name="Dutch", files=[{"what": "drawings"}], language="nl"),
        ):
            with self.assertRaisesRegex(RuleError, "“nl”"):
                act()
        with self.assertRaisesRegex(RuleError, "No text of the project"):
            self.say("Runing", "Läuft")

    def test_a_language_goes_with_what_was_said_in_it_but_not_from_under_a_pack(self) -> None:
        self.say("Running", "Läuft")
        pack = self.bench.new("keep-pack", name="German", files=[{"what": "drawings"}], language="de")
        with self.assertRaisesRegex(RuleError, "German"):
            self.bench.do("set-languages", languages=["fr"])
        self.bench.do("remove-pack", pack_id=pack)
        self.bench.do("set-languages", languages=["fr"])
        self.assertEqual(list(self.bench.project.wordings), [])

    def test_what_is_deleted_is_gone_and_back_again_in_each_language(self) -> None:
        self.say("Running", "Läuft")
        in_language(self.bench.project, "de")
        done = self.bench.do("delete-selection", ids=[self.lamp])
        self.assertEqual(words_on(in_language(self.bench.project, "de"), self.bench.sheet).count("Läuft"), 1)
        self.bench.project.apply(done.changes.inverse())
        self.assertEqual(words_on(in_language(self.bench.project, "de"), self.bench.sheet).count("Läuft"), 2)

    def test_what_a_table_shows_is_no_text(self) -> None:
        place = {"x1": 60, "y1": 60, "x2": 100, "y2": 80}
        self.bench.do("draw-figure", sheet_id=self.bench.sheet, figure="table", text="sheet-parts", **place)
        self.assertNotIn("sheet-parts", [t.words for t in said_texts(self.bench.project)])
        self.bench.do("draw-figure", sheet_id=self.bench.sheet, text="On the door", **place)
        self.assertIn("On the door", [t.words for t in said_texts(self.bench.project)])

    def test_texts_without_a_letter_are_not_asked_for(self) -> None:
        self.bench.do("set-text", device_id=self.bench.device(self.lamp), text="230 / 400")
        self.assertNotIn("230 / 400", [t.words for t in said_texts(self.bench.project)])


class Papers(TestCase):
    def test_a_pack_in_a_language_has_its_lists_and_drawings_in_it_and_the_project_in_all(self) -> None:
        from jolly_core.exchange import pack_files

        bench = Workbench()
        bench.place("lamp", 40, 30, text="Running")
        bench.do("set-languages", languages=["de"])
        bench.do("write-wordings", wordings=[{"words": "Running", "language": "de", "said": "Läuft"}])
        files = (
            {"what": "report:devices", "format": "csv"},
            {"what": "sheets", "format": "svg"},
            {"what": "project-file"},
        )
        made = pack_files(bench.project, FONTS, Pack("k1", "German", files, "{kind}", "de"))
        for ending in (".csv", ".svg"):
            content = next(c.decode("utf-8-sig") for name, c in made.items() if name.endswith(ending))
            self.assertIn("Läuft", content)
            self.assertNotIn("Running", content)
        kept = next(c.decode() for name, c in made.items() if name.endswith(".spool.json"))
        self.assertEqual(kept, write_project(bench.project))


class Anywhere(TestCase):
    """In any project, edited in any order, it is as if it had been written in that language."""

    def translated(self, project: Project) -> Project:
        """Return the project with its texts replaced one by one, by a rule of its own."""
        from dataclasses import replace

        said = {w.words: w.said for w in project.wordings.values() if w.language == "de"}
        anew = Project()
        for kind, table in project.tables.items():
            records = []
            for record in table.values():
                for name in ("text", "title", "subtitle", "heading", "field_heading", "panel_heading"):
                    if kind not in ("stamp", "revision", "part", "figure") and getattr(record, name, "") in said:
                        record = replace(record, **{name: said[getattr(record, name)]})
                if kind == "figure" and record.kind != "table" and record.text in said:
                    record = replace(record, text=said[record.text])
                if kind == "settings":
                    record = replace(record, part_language="de")
                records.append(record)
            anew.load(kind, records)
        return anew

    def check(self, project: Project) -> None:
        said, anew = in_language(project, "de"), self.translated(project)
        for sheet in project.sheets_in_order():
            self.assertEqual(sheet_scene(said, sheet.id), sheet_scene(anew, sheet.id), sheet.number)
        for key in ("devices", "sheets", "wires", "parts"):
            if key in REPORTS:
                self.assertEqual(run_report(said, key).rows, run_report(anew, key).rows, key)

    def test_machines_said_and_edited_in_turn(self) -> None:
        for seed in range(3):
            with self.subTest(seed=seed):
                bench, chance = Machine(seed).bench, random.Random(seed)
                bench.do("set-languages", languages=["de"])
                for n in range(4):
                    texts = said_texts(bench.project)
                    some = chance.sample(texts, min(len(texts), 5))
                    lines = [{"words": t.words, "language": "de", "said": f"{n} {t.words}"[:200]} for t in some]
                    bench.do("write-wordings", wordings=lines)
                    device = chance.choice(sorted(bench.project.devices))
                    bench.do("set-text", device_id=device, text=f"{chance.choice(texts).words} {n}"[:200])
                    self.check(bench.project)

    def test_the_demo_in_two_orders(self) -> None:
        bench = Workbench()
        bench.project = demo_anew()
        bench.do("set-languages", languages=["de"])
        lines = [{"words": t.words, "language": "de", "said": f"Ü {t.words}"[:200]} for t in said_texts(bench.project)]
        in_language(bench.project, "de")
        bench.do("write-wordings", wordings=lines)
        self.assertEqual(unsaid(bench.project, "de"), [])
        self.check(bench.project)
        self.check(rebuilt(bench.project))
