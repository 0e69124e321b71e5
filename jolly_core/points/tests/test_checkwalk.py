"""The wiring check: the order of the walk, what was seen, what has to be seen anew, and signatures that hold."""

from __future__ import annotations

from unittest import TestCase

from jolly_core.model import RuleError
from jolly_core.points.checkwalk import check_digest, check_rows, signatures
from jolly_core.reports import run_report
from jolly_core.testing import Workbench


class Walk(TestCase):
    def setUp(self) -> None:
        self.bench = Workbench(frame="zones")
        self.di = self.bench.new("add-card", part_id="hollin-hr-di16")
        points = [{"tag": f"B{n}", "io_type": "DI", "text": f"Hatch {n}"} for n in (1, 2, 3)]
        self.bench.do("take-in-points", points=points)
        self.bench.do("suggest-channels")
        self.ids = {p.tag: p.id for p in self.bench.project.io_points.values()}

    def see(self, result: str, *tags: str, remark: str = "") -> None:
        ids = [self.ids[t] for t in tags]
        self.bench.do("check-points", ids=ids, result=result, remark=remark, by="J. Bell", on="2026-03-02")

    def results(self) -> dict[str, str]:
        return {str(row[0]): str(row[6]) for row in run_report(self.bench.project, "wiring-check").rows}

    def test_points_come_card_by_card_in_the_order_of_channels(self) -> None:
        self.bench.do("swap-channels", io_type="DI", device_id=self.di, channel=1, other_id=self.di, other=3)
        rows = check_rows(self.bench.project)
        self.assertEqual(
            [(r.tag, r.address, r.done) for r in rows],
            [(t, a, False) for t, a in zip(("B3", "B2", "B1"), ("I0.0", "I0.1", "I0.2"), strict=True)],
        )

    def test_what_was_seen_is_kept_seen_anew_and_taken_back(self) -> None:
        self.assertEqual(run_report(self.bench.project, "wiring-check").rows, [])
        self.see("good", "B1", "B2")
        self.see("fault", "B2", remark="Sees B3 instead")
        self.assertEqual(self.results(), {"B1": "good", "B2": "fault", "B3": "open"})
        self.assertEqual(len(self.bench.project.point_checks), 2)
        self.see("", "B1")
        self.assertEqual(self.results()["B1"], "open")

    def test_a_fault_says_what_is_wrong_and_a_point_without_a_channel_is_not_looked_at(self) -> None:
        with self.assertRaisesRegex(RuleError, "Say what is wrong"):
            self.see("fault", "B1")
        self.bench.do("free-points", ids=[self.ids["B3"]])
        with self.assertRaisesRegex(RuleError, "B3 has no channel"):
            self.see("good", "B3")

    def test_a_point_that_moves_is_to_be_seen_anew(self) -> None:
        self.see("good", "B1", "B3")
        self.bench.do("swap-channels", io_type="DI", device_id=self.di, channel=1, other_id=self.di, other=4)
        self.assertEqual(self.results(), {"B1": "to be seen anew", "B2": "open", "B3": "good"})
        self.assertEqual([r.done for r in check_rows(self.bench.project)], [False, True, False])

    def test_a_deleted_point_takes_its_check_along(self) -> None:
        self.see("good", "B1")
        self.bench.do("delete-points", ids=[self.ids["B1"]])
        self.assertEqual(len(self.bench.project.point_checks), 0)

    def test_a_signature_holds_as_long_as_the_check_says_what_was_signed(self) -> None:
        with self.assertRaisesRegex(RuleError, "Nothing was looked at"):
            self.bench.do("sign-check", by="J. Bell")
        self.see("good", "B1")
        self.see("fault", "B2", remark="Dead")
        signed = self.bench.new("sign-check", by=" J. Bell ", on="2026-03-02", remark="First walk")
        told = self.bench.done[-1].remarks
        self.assertEqual(told, ["Signed with 1 point with a fault.", "Signed with 1 point not looked at."])
        self.assertEqual([(s.by, ok) for s, ok in signatures(self.bench.project)], [("J. Bell", True)])
        before = check_digest(self.bench.project)
        self.see("good", "B2")
        self.assertNotEqual(check_digest(self.bench.project), before)
        self.assertEqual([ok for _, ok in signatures(self.bench.project)], [False])
        self.assertEqual(self.results()["Signature"], "changed since")
        self.bench.do("remove-signature", id=signed)
        self.assertNotIn("Signature", self.results())
