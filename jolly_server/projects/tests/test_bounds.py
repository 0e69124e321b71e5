"""A project stored before there were bounds: it opens, every bench answers, and a snag says what was put right."""

from __future__ import annotations

from jolly_server.projects.models import ROWS
from jolly_server.projects.store import forget, load_rows, loaded
from jolly_server.testing import KILN, DemoCase


class StoredBeyond(DemoCase):
    def spoil(self, kind: str, **values: object) -> str:
        """Store values in the first row of a kind, past all that would refuse them."""
        row = ROWS[kind].objects.filter(project_id=KILN).order_by("id").first()
        ROWS[kind].objects.filter(pk=row.pk).update(**values)
        forget()
        return str(row.id)

    def test_it_opens_with_a_snag_and_every_bench_answers(self) -> None:
        sheet = self.spoil("sheet", columns=10**8, rows=10**6)
        self.spoil("rail", x2=1e9)
        self.spoil("part", units=(("no", ("13", "14")),) * 300_000)
        self.spoil("card", start="99999999999.9")
        self.spoil("location", parent_id=self.spoil("location", text="x"))
        anna = self.person("anna")
        found = anna.get(f"/api/projects/{KILN}/snags").json()["open"]
        said = [s["message"] for s in found if s["code"] == "out-of-bounds"]
        self.assertEqual(len(said), 6, said)
        self.assertTrue(any("“columns” should be from 1 to 40, not 100000000; 40 is used" in m for m in said), said)
        benches = ("terminals", "cables", "io", "cabinet", "harness", "make")
        pages = (*benches, "reports/wires/rows", "drawing.pdf", f"sheets/{sheet}/view")
        self.assertEqual({anna.get(f"/api/projects/{KILN}/{page}").status_code for page in pages}, {200})

    def test_what_was_put_right_is_stored_with_the_next_edit_of_it(self) -> None:
        sheet = self.spoil("sheet", columns=10**8)
        self.assertEqual(loaded(KILN).project.sheets[sheet].columns, 40)
        self.accepted(self.person("anna"), kind="change-sheet", sheet_id=sheet, title="As new")
        self.assertEqual(ROWS["sheet"].objects.get(project_id=KILN, id=sheet).columns, 40)
        self.assertEqual(load_rows(KILN).put_right, {})
