"""What leaves the office is the same whichever was made first: steps back and forth put entities into other orders."""

from __future__ import annotations

from collections import Counter
from unittest import TestCase

from jolly_core.checks import all_snags
from jolly_core.exchange import cut_json, issue_check, read_project, sheets_pdf, write_project
from jolly_core.making import cut_list
from jolly_core.model import Project
from jolly_core.reports import REPORTS, full_report
from jolly_core.scenes import generated_pages
from jolly_core.tagging import full_tag
from jolly_core.testing import DEMO, FONTS, Workbench, reordered

DEMOS = ("pellwick-kiln-2.spool.json", "sample-store-dehumidifier.spool.json")


def told(project: Project) -> dict[str, object]:
    """Return all lists, snags and files of what is cut of a project, by name."""
    found: dict[str, object] = {key: full_report(project, key).rows for key in REPORTS}
    found["found"] = [(s.code, s.message, s.ids) for s in all_snags(project)]
    found["cut"] = cut_json(project)
    found["pages"] = [(page.number, page.title) for page in generated_pages(project)]
    found["file"] = write_project(project)
    return found


class Reordered(TestCase):
    def test_lists_snags_and_files_of_the_demos(self) -> None:
        for name in DEMOS:
            project = read_project((DEMO / name).read_bytes())
            first = told(project)
            self.assertTrue(all(first[key] for key in ("wires", "parts", "cut", "pages")), name)
            again = told(reordered(project, 7))
            self.assertEqual([key for key, rows in first.items() if again[key] != rows], [], name)

    def test_lists_in_which_several_have_one_name(self) -> None:
        bench = Workbench()
        bench.project = read_project((DEMO / DEMOS[0]).read_bytes())
        bench.do("change-settings", tag_habit="line")  # places are not told then, so that cables of all have one name
        project = bench.project
        tags = Counter(full_tag(project, project.devices[c.device_id]) for c in project.cables.values())
        self.assertGreater(max(tags.values()), 3)
        first, again = told(project), told(reordered(project, 2))
        self.assertEqual([key for key, rows in first.items() if again[key] != rows], [])
        self.assertEqual(issue_check(project, FONTS), issue_check(reordered(project, 2), FONTS))

    def test_the_drawing_to_the_byte(self) -> None:
        project = read_project((DEMO / DEMOS[1]).read_bytes())
        ids = [s.id for s in project.sheets_in_order()]
        self.assertEqual(sheets_pdf(project, ids, FONTS), sheets_pdf(reordered(project, 3), ids, FONTS))

    def test_what_would_be_wrong_on_paper(self) -> None:
        bench = Workbench(frame="zones")
        for x in (20, 40, 60):
            bench.place("contact-no", x, 20)
            bench.wire((x, 40), (x + 10, 40))
        first = issue_check(bench.project, FONTS)
        self.assertTrue(first)
        self.assertEqual(issue_check(reordered(bench.project, 1), FONTS), first)

    def test_wires_of_one_number_stand_by_the_number_of_their_pins(self) -> None:
        project = read_project((DEMO / DEMOS[0]).read_bytes())
        wires = [(w.type_name, w.length_mm, w.number, w.start) for w in cut_list(project)]
        self.assertGreater(len(wires), 300)
        alike = [
            (a[3], b[3])
            for a, b in zip(wires, wires[1:], strict=False)
            if a[:3] == b[:3] and a[3].rpartition(":")[0] == b[3].rpartition(":")[0]
        ]
        pins = [(a.rpartition(":")[2], b.rpartition(":")[2]) for a, b in alike]
        self.assertEqual([p for p in pins if p[0].isdecimal() and p[1].isdecimal() and int(p[0]) > int(p[1])], [])
