"""Revisions: which sheets get a new index, what the papers say of it, and when freezing is refused."""

from __future__ import annotations

from dataclasses import replace
from itertools import combinations
from unittest import TestCase

from jolly_core.comparing import changed_sheets, drawing_change
from jolly_core.drawing import FRAME_MM
from jolly_core.edits.project.revisions import next_index
from jolly_core.edits.tests.test_titling import picture
from jolly_core.exchange import read_project, write_project
from jolly_core.model import ChangeSet, Picture, Project, RuleError, TitleBlock, TitleCell
from jolly_core.scenes import Text, sheet_scene, with_changed
from jolly_core.scenes.room.crowding import text_box
from jolly_core.tagging import filled, index_of, revisions
from jolly_core.testing import Workbench


def again(project: Project) -> Project:
    """Return the same project as a file would give it back."""
    return read_project(write_project(project))


class Freezing(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(name="Kiln")
        self.lamp = self.bench.place("lamp", 40, 16, part_id="tamwick-tw-l22-g")
        self.other = self.bench.new("add-sheet", number="40", frame="zones")
        self.cover = self.bench.new("add-sheet", number="1", sheet_kind="cover")
        self.bench.place("lamp", 40, 16, sheet_id=self.other, part_id="tamwick-tw-l22-g")

    def freeze(self, index: str, before: Project | None = None, **more: str) -> None:
        ids = changed_sheets(before, self.bench.project)
        more = {"reason": "It is a test", "text": f"What {index} is for", **more}
        self.bench.do("freeze-revision", index=index, sheet_ids=ids, **more)

    def index(self, sheet_id: str) -> str:
        project = self.bench.project
        return filled(project, project.sheets[sheet_id], "{revision}")

    def test_the_first_has_all_sheets_and_later_ones_only_what_changed_with_the_cover(self) -> None:
        self.freeze("A")
        frozen = again(self.bench.project)
        self.assertEqual({self.index(id) for id in self.bench.project.sheets}, {"A"})
        self.bench.do("set-text", device_id=self.bench.device(self.lamp), text="Runs")
        self.assertEqual(changed_sheets(frozen, self.bench.project), [self.bench.sheet, self.cover])
        self.freeze("B", frozen)
        self.assertEqual([self.index(id) for id in (self.bench.sheet, self.other, self.cover)], ["B", "A", "B"])
        self.assertEqual(self.bench.project.settings.revision, "B")
        self.assertEqual([r.index for r in revisions(self.bench.project)], ["A", "B"])

    def test_what_only_references_a_changed_sheet_and_looks_otherwise_has_changed_too(self) -> None:
        coil = self.bench.place("coil", 60, 16, part_id="hollin-hr-k22")
        contact = self.bench.place("contact-no", 60, 20, sheet_id=self.other, device_id=self.bench.device(coil))
        self.freeze("A")
        frozen = again(self.bench.project)
        self.bench.do("move-selection", ids=[contact], dx=0, dy=8)
        self.assertIn(self.bench.sheet, changed_sheets(frozen, self.bench.project), "its contact table says so")

    def test_a_title_is_on_paper_and_a_wire_type_that_nothing_uses_is_not(self) -> None:
        self.freeze("A")
        frozen = again(self.bench.project)
        self.bench.new("add-wire-type", name="Spare", colour="WH", cross_section_mm2=1.0)
        self.assertEqual(changed_sheets(frozen, self.bench.project), [])
        self.bench.do("change-sheet", sheet_id=self.other, title="Fans")
        self.assertEqual(changed_sheets(frozen, self.bench.project), [self.other, self.cover])

    def test_what_every_title_block_says_is_on_every_sheet_but_not_how_far_it_is_issued(self) -> None:
        self.freeze("A")
        frozen = again(self.bench.project)
        self.bench.do("change-settings", checked_by="J. Brand", checked_on="2026-11-28", drawn_by="V. Noor")
        self.assertEqual(changed_sheets(frozen, self.bench.project), [self.cover], "that says who they are")
        self.bench.do("change-settings", name="Kiln of the lower house")
        self.assertEqual(len(changed_sheets(frozen, self.bench.project)), len(self.bench.project.sheets))

    def test_lines_that_move_are_on_paper(self) -> None:
        self.bench.do("delete-selection", ids=[self.lamp])
        self.freeze("A")
        frozen = again(self.bench.project)
        self.bench.do("change-sheet", sheet_id=self.bench.sheet, line_spacing=12)
        self.assertEqual(changed_sheets(frozen, self.bench.project), [self.bench.sheet, self.cover])
        frozen = again(self.bench.project)
        self.bench.do("change-sheet", sheet_id=self.other, columns=10)
        self.assertEqual(changed_sheets(frozen, self.bench.project), [self.other, self.cover])

    def test_a_title_block_with_another_picture_is_other_on_its_sheets(self) -> None:
        project = self.bench.project
        block, cell = TitleBlock("b", "House", 100, 30), TitleCell("c", "b", 0, 0, 50, 30, picture_id="p")
        mark = Picture("p", "Mark", "image/png", 8, 4, picture(8, 4))
        changes = ChangeSet()
        for kind, record in (("picture", mark), ("title_block", block), ("title_cell", cell)):
            changes.record(kind, record.id, None, record)
        project.apply(changes)
        self.bench.do("change-sheet", sheet_id=self.other, title_block_id="b")
        self.freeze("A")
        frozen = again(project)
        changes = ChangeSet()
        changes.record("picture", "p", mark, replace(mark, data=picture(16, 8)))
        project.apply(changes)
        self.assertEqual(changed_sheets(frozen, project), [self.other, self.cover])

    def test_a_sheet_that_was_in_no_revision_yet_has_no_index(self) -> None:
        self.assertEqual(self.index(self.bench.sheet), "A", "before anything is frozen it is the project's")
        self.freeze("A")
        late = self.bench.new("add-sheet", number="50")
        self.assertEqual(index_of(self.bench.project, late), "")

    def test_papers_say_it_below_the_frame_and_on_the_cover(self) -> None:
        self.freeze("A", text="First issue", checked_by="J. Brand", released_by="V. Noor", issued_on="2026-11-28")
        frame = sheet_scene(self.bench.project, self.bench.sheet).items["frame"]
        words = [p.words for p in frame.prims if isinstance(p, Text)]
        self.assertIn("Rev A   2026-11-28   First issue   checked J. Brand   released V. Noor", words)

    def test_a_sheet_that_has_changed_since_says_so_beside_its_revisions_however_long_their_texts_are(self) -> None:
        long = "Fans, pumps and the burner control as agreed on site with the customer's people, second round"
        for index in ("A", "B"):
            self.freeze(index, text=long, checked_by="J. Brand", released_by="V. Noor", issued_on="2026-11-28")
            self.bench.do("set-text", device_id=self.bench.device(self.lamp), text=f"after {index}")
        project, here = self.bench.project, self.bench.sheet
        scene = sheet_scene(project, here)
        self.assertIs(with_changed(project, scene, [self.other]), scene)
        marked = with_changed(project, scene, [here])
        texts = [p for key in ("frame", "changed") for p in marked.items[key].prims if isinstance(p, Text)]
        below = [p for p in texts if p.y > scene.height - FRAME_MM]
        self.assertEqual(below[-1].words, "Changed since revision B, not issued")
        self.assertTrue(below[0].words.endswith("released V. Noor"), "the youngest is there in full")
        boxes = [text_box(p) for p in below]
        apart = [a[2] <= b[0] or b[2] <= a[0] or a[3] <= b[1] or b[3] <= a[1] for a, b in combinations(boxes, 2)]
        self.assertEqual((len(apart), all(apart)), (3, True))

    def test_freezing_with_errors_asks_for_a_reason_that_is_kept(self) -> None:
        twin = self.bench.place("lamp", 40, 25)
        self.bench.do("set-tag", device_id=self.bench.device(twin), tag="PF1")
        with self.assertRaisesRegex(RuleError, "or give the reason"):
            self.bench.do("freeze-revision", index="A", sheet_ids=[])
        self.assertEqual(revisions(self.bench.project), [])
        self.freeze("A", reason="The customer wants it so")
        self.assertEqual(revisions(self.bench.project)[0].reason, "The customer wants it so")

    def test_an_index_is_given_once_and_the_next_one_is_offered(self) -> None:
        self.assertEqual(next_index(self.bench.project), "A")
        for index, following in (("A", "B"), ("B", "C"), ("Z", "ZA"), ("09", "10")):
            self.freeze(index)
            self.assertEqual(next_index(self.bench.project), following)
        with self.assertRaisesRegex(RuleError, "Revision B is frozen already"):
            self.freeze("B")
        with self.assertRaisesRegex(RuleError, "Give the revision an index"):
            self.freeze(" ")

    def test_only_the_last_is_taken_out_again(self) -> None:
        self.freeze("A")
        self.freeze("B")
        first, last = revisions(self.bench.project)
        with self.assertRaisesRegex(RuleError, "Only the last revision can be taken out, B"):
            self.bench.do("remove-revision", revision_id=first.id)
        self.bench.do("remove-revision", revision_id=last.id)
        self.assertEqual(self.bench.project.settings.revision, "A")

    def test_one_drawing_is_compared_by_itself(self) -> None:
        before = again(self.bench.project)
        self.assertIsNone(drawing_change(before, self.bench.project, self.bench.sheet))
        self.bench.place("lamp", 40, 34)
        change = drawing_change(before, self.bench.project, self.bench.sheet)
        assert change is not None
        self.assertEqual((len(change.added), len(change.gone)), (1, 0))

    def test_an_empty_project_cannot_be_frozen(self) -> None:
        bench = Workbench()
        bench.do("delete-sheet", sheet_id=bench.sheet)
        with self.assertRaisesRegex(RuleError, "There is no sheet yet"):
            bench.do("freeze-revision", index="A")
