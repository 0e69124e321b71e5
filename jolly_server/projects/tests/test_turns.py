"""Long work on a project: others have it in between, and what comes out is of one state."""

from __future__ import annotations

import threading
from typing import Any
from unittest.mock import patch

from jolly_core.checks import all_snags
from jolly_core.making import dossiers
from jolly_core.model import Project
from jolly_core.reports import run_report
from jolly_core.testing import HANGS_S
from jolly_server.projects import turns
from jolly_server.projects.store import forget, loaded, snapshot
from jolly_server.testing import KILN, DemoCase


class Turns(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        forget()
        self.held = loaded(KILN)

    def asked(self, path: str) -> dict[str, Any]:
        answer: dict[str, Any] = self.person("anna").get(f"/api/projects/{KILN}/{path}").json()
        return answer

    def count(self) -> int | None:
        found: int | None = self.asked("snags/count")["count"]
        return found

    def test_who_waits_for_the_project_has_it_before_the_work_is_done(self) -> None:
        """Whoever takes the project again at once after a turn is before all who wait: in a breath it is free."""
        worked: list[str] = []
        seen: list[int] = []
        about, had = threading.Event(), threading.Event()

        def other() -> None:
            about.set()
            with self.held.lock:
                seen.append(len(worked))
            had.set()

        visitor = threading.Thread(target=other)

        def work(project: Project, sheet_id: str) -> None:
            if not worked:
                visitor.start()
                about.wait(HANGS_S)
            worked.append(sheet_id)

        def breath(seconds: float) -> None:
            self.assertGreater(seconds, 0)
            had.wait(HANGS_S)

        with patch.object(turns, "TURN_S", 0), patch("time.sleep", breath):
            turns.by_sheet(self.held, work)
        visitor.join(HANGS_S)
        self.assertEqual(worked, [s.id for s in self.held.project.sheets_in_order()])
        self.assertEqual(seen, [1])

    def test_turns_end_by_the_clock_and_all_is_done_once(self) -> None:
        sheets = [s.id for s in self.held.project.sheets_in_order()]
        for turn in (0, 60):
            with patch.object(turns, "TURN_S", turn), patch.object(turns, "_turn", wraps=turns._turn) as taken:
                done = turns.by_sheet(self.held, lambda _, id: id, lambda _: "last")
            self.assertEqual(done, [*sheets, "last"])
            self.assertEqual(taken.call_count, len(sheets) + 2 if turn == 0 else 1)

    def waited(self, patience_s: float, opened: int) -> float:
        """Return how long a count waits by a clock of its own, s; sheets are opened so often before it goes on."""
        clock, left = [100.0], [opened]

        def sleep(seconds: float) -> None:
            clock[0] += seconds
            if left[0] > 0:
                left[0] -= 1
                self.held.opened_at = clock[0]

        self.held.opened_at = float("-inf")
        with (
            patch.object(turns, "TURN_S", 0),
            patch.object(turns, "_count_on", return_value=1),
            patch.object(turns, "_count_of_whole", return_value=0),
            patch("time.monotonic", lambda: clock[0]),
            patch("time.sleep", sleep),
        ):
            self.assertEqual(turns.count_snags(self.held, 0.001, patience_s), len(self.held.project.sheets))
        return clock[0] - 100

    def test_a_count_lets_who_goes_from_sheet_to_sheet_go_first_but_not_for_ever(self) -> None:
        at_once = self.waited(5, 0)
        self.assertEqual(self.waited(0, 1_000), at_once)
        self.assertLess(at_once, 0.2)
        self.assertAlmostEqual(self.waited(5, 1), at_once + turns.LOOKING_S, delta=0.1)
        self.assertAlmostEqual(self.waited(5, 1_000), at_once + 5, delta=0.1)

    def test_a_count_lets_lists_that_somebody_waits_for_go_first_but_not_for_ever(self) -> None:
        at_once = self.waited(5, 0)
        seen: list[float] = []
        turns.by_sheet(self.held, lambda *_: seen.append(self.waited(5, 0)) if not seen else None)
        self.assertAlmostEqual(seen[0], at_once + 5, delta=0.1)
        self.assertEqual(self.waited(5, 0), at_once, "the list is there")
        with self.assertRaises(ZeroDivisionError):
            turns.by_sheet(self.held, lambda *_: 1 / 0)
        self.assertEqual(self.waited(5, 0), at_once, "the list failed")
        seen.clear()
        turns.by_sheet(self.held, lambda *_: seen.append(self.waited(5, 0)), patience_s=5)
        self.assertEqual(set(seen), {at_once}, "what counts waits for no other that counts")

    def test_a_sheet_that_is_opened_is_told_to_what_counts(self) -> None:
        self.held.opened_at = float("-inf")
        self.asked("changes?since=0")
        self.assertEqual(self.held.opened_at, float("-inf"))
        self.asked(f"sheets/{self.sheet('30')}/view?drawn=true")
        self.assertGreater(self.held.opened_at, 0)

    def test_of_a_project_that_is_changed_meanwhile_nothing_is_counted(self) -> None:
        def changed(project: Project, sheet_id: str) -> int:
            self.held.revision += 1
            return 0

        with patch.object(turns, "TURN_S", 0), patch.object(turns, "_count_on", changed):
            self.assertIsNone(turns.count_snags(self.held))
            self.held.revision = 0
            self.assertIsNone(self.count())

    def test_the_wires_of_all_sheets_are_known_before_a_snag_is_counted(self) -> None:
        known: list[int] = []

        def counted(project: Project, sheet_id: str) -> int:
            known.append(len(project.memo.tables["jolly_core.making.dossiers.dossiers_from"]))
            return 1

        with patch.object(turns, "_count_on", counted), patch.object(turns, "_count_of_whole", return_value=3):
            count = turns.count_snags(self.held)
        sheets = len(self.held.project.sheets)
        self.assertEqual(known, [sheets] * sheets, "a list that is asked for next has little left to do")
        self.assertEqual(count, sheets + 3, "what came before is not counted")

    def test_the_count_is_that_of_all_snags(self) -> None:
        client = self.person("anna")
        self.accepted(client, kind="place-symbol", sheet_id=self.sheet("30"), definition="lamp", x=40, y=61)
        wanted = len(all_snags(loaded(KILN).project))
        self.assertGreater(wanted, 0)
        self.assertEqual(self.count(), wanted)

    def test_a_list_is_prepared_sheet_by_sheet_however_often_the_project_is_changed(self) -> None:
        asked = patch.object(turns, "by_sheet", side_effect=[None, None, None])
        with asked as tries:
            rows = self.asked("reports/wires/rows")["rows"]
        self.assertEqual(tries.call_count, turns.TRIES)
        self.assertEqual(len(rows), len(run_report(snapshot(KILN), "wires").rows))

    def test_after_it_is_prepared_a_list_finds_every_conductor_known(self) -> None:
        turns.prepared(KILN)
        before = len(self.held.project.memo.tables["jolly_core.making.dossiers.dossiers_from"])
        self.assertEqual(before, len(self.held.project.sheets))
        with patch.object(self.held.project.memo, "make", wraps=self.held.project.memo.make) as made:
            dossiers(self.held.project)
        self.assertNotIn("dossiers_from", {call.args[1].rpartition(".")[2] for call in made.call_args_list})
        self.assertLess(made.call_count, 5)

    def test_a_snapshot_is_what_the_project_is_and_stays_what_it_was(self) -> None:
        copy = snapshot(KILN)
        self.assertEqual(list(copy.entities()), list(self.held.project.entities()))
        self.accepted(self.person("anna"), kind="change-sheet", sheet_id=self.sheet("30"), title="Another")
        self.assertNotIn("Another", [s.title for s in copy.sheets.values()])
