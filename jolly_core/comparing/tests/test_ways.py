"""Where wires lie and pass by hand is told: lanes, crossings, and which wires ducts are for."""

from __future__ import annotations

from jolly_core.cabinet.tests.test_passing import PanelCase
from jolly_core.comparing import Difference, difference, work_list
from jolly_core.testing import rebuilt


class Ways(PanelCase):
    def setUp(self) -> None:
        super().setUp()
        self.lane, self.crossing = self.drawn()
        self.before = rebuilt(self.bench.project)

    def drawn(self) -> tuple[str, str]:
        """Draw a lane and a crossing, and return their ids."""
        lane = {"surface": "plate", "points": [[100, 110], [100, 320]]}
        ends = {"x": 0, "y": 100, "other_id": self.enclosure, "other_x": 0, "other_y": 110, "extra_mm": 300}
        return (
            self.bench.new("draw-lane", enclosure_id=self.enclosure, **lane),
            self.bench.new("draw-crossing", enclosure_id=self.enclosure, **ends),
        )

    def changed(self) -> Difference:
        return difference(self.before, rebuilt(self.bench.project))

    def jobs(self, found: Difference) -> list[tuple[str, str]]:
        return [(j.act, j.what) for j in work_list(found)]

    def test_another_use_of_a_duct_a_lane_and_a_crossing_is_told_and_no_job(self) -> None:
        ids = [self.ducts["top"], self.lane, self.crossing]
        self.bench.do("set-lane-use", ids=ids, categories=["power"])
        found = self.changed()
        told = {c.kind: c.words.partition(": ")[2] for c in found.changes}
        self.assertEqual(told, dict.fromkeys(("duct", "lane", "crossing"), "wires all, now power"))
        self.assertEqual(self.jobs(found), [])

    def test_a_crossing_elsewhere_is_told_and_moved_and_its_loop_is_told(self) -> None:
        self.bench.do("move-in-layout", ids=[self.crossing], dx=0, dy=200)
        found = self.changed()
        self.assertEqual([(c.kind, c.facts) for c in found.changes], [("crossing", ("position",))])
        self.assertEqual(self.jobs(found), [("move", "crossing plate to door")])
        self.before = rebuilt(self.bench.project)
        self.bench.do("set-lane-use", ids=[self.crossing], extra_mm=500)
        found = self.changed()
        self.assertEqual([c.words for c in found.changes], ["crossing plate to door: loop 300 mm, now 500 mm"])
        self.assertEqual(self.jobs(found), [])

    def test_what_is_drawn_and_taken_away_is_told(self) -> None:
        self.bench.do("remove-from-layout", ids=[self.lane, self.crossing])
        found = self.changed()
        self.assertEqual([(c.kind, c.act) for c in found.changes], [("lane", "taken out"), ("crossing", "taken out")])
        self.assertEqual(self.jobs(found), [("remove", "crossing plate to door")])
        back = difference(rebuilt(self.bench.project), self.before)
        self.assertEqual([(j.act, j.what) for j in work_list(back)], [("fit", "crossing plate to door")])

    def test_files_that_were_not_copied_from_each_other_are_told_apart_by_places(self) -> None:
        self.bench.do("remove-from-layout", ids=[self.lane, self.crossing])
        self.assertNotIn(self.lane, self.drawn())
        self.assertEqual(self.changed().changes, ())
