"""Card list, address list and spare channels: every channel is in one of the last two, once."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.checks import project_snags
from jolly_core.reports import run_report
from jolly_core.testing import Workbench


class Reports(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench()
        self.rack = self.bench.new("add-rack", part_id="HR-RK8")
        self.di = self.bench.new("add-card", part_id="hollin-hr-di8", rack_id=self.rack)
        self.ai = self.bench.new("add-card", part_id="hollin-hr-ai4")
        lines = [("B1", "DI", "Hatch closed"), ("B2", "DI", "Hopper low"), ("T1", "AI", "Air-on temperature")]
        points = [{"tag": t, "io_type": k, "text": x, "span": "0..100", "unit": "°C"} for t, k, x in lines]
        self.bench.do("take-in-points", points=points)
        self.bench.do("suggest-channels")

    def test_cards_with_rack_and_addresses(self) -> None:
        rows = run_report(self.bench.project, "cards").rows
        self.assertEqual(rows[0][0:2], ("-KF2", "HR-DI8"))
        self.assertEqual(rows[0][4:], ("-KF1", 1, "I0.0", "I0.7", 8, 2, 6))
        self.assertEqual(rows[1][4:], ("", "", "IW256", "IW262", 4, 1, 3))

    def test_addresses_for_the_programmer(self) -> None:
        rows = run_report(self.bench.project, "addresses").rows
        self.assertEqual(
            [r[:4] for r in rows[:2]], [("B1", "I0.0", "BOOL", "Hatch closed"), ("B2", "I0.1", "BOOL", "Hopper low")]
        )
        self.assertEqual(rows[2][:3], ("T1", "IW256", "INT"))
        self.assertEqual(rows[2][6:8], ("0..100", "°C"))

    def test_every_channel_is_taken_or_spare(self) -> None:
        taken = {r[1] for r in run_report(self.bench.project, "addresses").rows}
        spare = {r[0] for r in run_report(self.bench.project, "spare-channels").rows}
        every = {r[0] for r in run_report(self.bench.project, "io").rows if r[0]}
        self.assertEqual((taken | spare, taken & spare), (every, set()))
        self.assertEqual(len(every), 12)

    def test_texts_that_are_too_long_for_the_programmer(self) -> None:
        self.bench.do("change-settings", comment_limit=12)
        found = [s.message for s in project_snags(self.bench.project) if s.code == "comment-long"]
        self.assertEqual(found, ["T1 has a text of 18 letters, and the programmer's tool takes 12."])

    def test_an_empty_project_has_empty_reports(self) -> None:
        for key in ("cards", "addresses", "spare-channels"):
            self.assertEqual(run_report(Workbench().project, key).rows, [])
