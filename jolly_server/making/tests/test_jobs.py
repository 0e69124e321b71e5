"""Cut jobs: the machine away, refusing, stopping half way; nothing lost, nothing cut twice."""

from __future__ import annotations

import threading
from dataclasses import replace
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from unittest.mock import patch

from django.conf import settings
from django.test import override_settings

from jolly_core.testing import HANGS_S
from jolly_server.making.machine import MachineAway
from jolly_server.making.models import CutJob, CutPiece
from jolly_server.projects.store import loaded
from jolly_server.standins.wire_machine import Limits, WireMachine, serve
from jolly_server.testing import KILN, DemoCase

NOBODY = "http://127.0.0.1:9"  # the discard port: nothing answers there

ALL = 335  # pieces of the demo
LOOMS = 25  # of them in harnesses


class Jobs(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.jory = self.person("jory")
        folder = TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.state = Path(folder.name) / "state.json"
        self.machine = WireMachine(self.state)
        self.at(NOBODY)

    def at(self, address: str) -> None:
        """Point the application at a machine's address."""
        changed = override_settings(JOLLY=replace(settings.JOLLY, machine=address))
        changed.enable()
        self.addCleanup(changed.disable)

    def arrives(self, machine: WireMachine | None = None) -> None:
        """Let the machine be there."""
        self.machine = machine or self.machine
        self.server = serve(self.machine, 0)
        threading.Thread(target=self.server.serve_forever, daemon=True).start()
        self.addCleanup(self.server.server_close)
        self.addCleanup(self.server.shutdown)
        self.at(f"http://127.0.0.1:{self.server.server_port}")

    def cut(self, count: int = 1000) -> None:
        while count and self.machine.cut_next():
            count -= 1

    def look(self) -> dict[str, Any]:
        found: dict[str, Any] = self.jory.get(f"/api/projects/{KILN}/make").json()
        return found

    def give(self, **body: Any) -> Any:
        return self.post(self.jory, f"/projects/{KILN}/make/jobs", body)

    def states(self) -> dict[str, int]:
        found: dict[str, int] = {}
        for wire in self.look()["wires"]:
            found[wire["state"]] = found.get(wire["state"], 0) + 1
        return found

    def test_a_job_runs_to_its_end_wire_by_wire(self) -> None:
        self.arrives()
        self.assertEqual(self.states(), {"new": ALL})
        self.assertEqual(self.give().status_code, 200)
        self.cut(20)
        self.assertEqual(self.states(), {"done": 20, "waiting": ALL - 20})
        self.cut()
        self.assertEqual(self.states(), {"done": ALL})
        self.assertEqual(self.look()["open_jobs"], 0)
        answer = self.give()
        self.assertEqual((answer.status_code, "nothing left to cut" in answer.json()["message"]), (422, True))

    def test_the_machine_away_loses_nothing(self) -> None:
        self.assertEqual(self.give().status_code, 200)
        found = self.look()
        self.assertEqual(found["machine"]["problem"], "The machine does not answer.")
        self.assertEqual(self.states(), {"waiting": ALL})
        self.arrives()
        self.look()
        self.cut()
        self.assertEqual(self.states(), {"done": ALL})
        self.assertEqual(set(self.machine.memory.cuts.values()), {1})

    def test_the_machine_stopping_half_way_and_forgetting_nothing(self) -> None:
        self.arrives()
        self.give()
        self.cut(10)
        self.look()
        self.at(NOBODY)
        self.assertEqual(self.states(), {"done": 10, "waiting": ALL - 10})
        self.cut(5)  # it goes on while it cannot be reached
        self.arrives(WireMachine(self.state))
        self.assertEqual(self.states(), {"done": 15, "waiting": ALL - 15})
        self.cut()
        self.assertEqual(self.states(), {"done": ALL})
        self.assertEqual(sum(self.machine.memory.cuts.values()), ALL)

    def test_a_machine_that_lost_its_memory_is_not_told_to_cut_again_what_is_known_as_done(self) -> None:
        self.arrives()
        self.give()
        self.cut(10)
        self.assertEqual(self.states(), {"done": 10, "waiting": ALL - 10})
        self.arrives(WireMachine())
        self.look()
        self.assertEqual(sum(len(job) for job in self.machine.memory.jobs.values()), ALL - 10)
        self.cut()
        self.assertEqual(self.states(), {"done": ALL})
        self.assertEqual(sum(self.machine.memory.cuts.values()), ALL - 10)

    def test_refused_wires_say_why_and_can_be_tried_again(self) -> None:
        self.arrives(WireMachine(self.state, Limits(longest_mm=900)))
        self.give()
        self.cut()
        found = self.look()["wires"]
        long = [w for w in found if w["length_mm"] > 900]
        self.assertTrue(long)
        self.assertEqual({w["state"] for w in long}, {"refused"})
        self.assertIn("is outside 60 to 900 mm", long[0]["reasons"])
        self.assertEqual({w["state"] for w in found if w["length_mm"] <= 900}, {"done"})
        self.assertEqual(self.give().status_code, 422)
        self.arrives(WireMachine(self.state))
        self.assertEqual(self.give(again=True).status_code, 200)
        self.cut()
        self.assertEqual(self.states(), {"done": ALL})
        self.assertEqual(set(self.machine.memory.cuts.values()), {1})

    def test_a_wire_changed_after_it_was_cut_is_to_be_cut_anew_and_says_so(self) -> None:
        self.arrives()
        self.give()
        self.cut()
        self.look()
        self.accepted(self.jory, kind="change-settings", harness_allowance_mm=50)
        found = [w for w in self.look()["wires"] if w["state"] == "new"]
        self.assertEqual((len(found), {w["stale"] for w in found}), (LOOMS, {True}))
        self.assertEqual(len(self.look()["vain"]), LOOMS)
        self.post(self.jory, f"/projects/{KILN}/undo", {})
        self.assertEqual(self.states(), {"done": ALL})

    def test_what_is_not_cut_is_withdrawn_when_the_project_changes(self) -> None:
        self.arrives()
        self.give()
        inside = {w["id"] for w in self.look()["wires"] if w["run"] in ("WH-T1", "WH-T2")}
        self.cut(self.position_of(inside) + 3)
        self.accepted(self.jory, kind="change-settings", harness_allowance_mm=50)
        found = self.look()
        self.assertEqual(len(found["vain"]), 3)
        self.assertEqual({"number", "start", "end", "length_mm", "type_name"}, set(found["vain"][0]))
        self.cut()
        self.assertEqual(self.states(), {"done": ALL - LOOMS, "new": LOOMS})
        cuts = len(self.machine.memory.cuts)
        self.assertEqual(cuts, ALL - LOOMS + 3)
        self.assertEqual(self.give().status_code, 200)
        self.cut()
        self.assertEqual(self.states(), {"done": ALL})
        self.post(self.jory, f"/projects/{KILN}/undo", {})
        self.assertEqual(self.states(), {"done": ALL - (LOOMS - 3), "new": LOOMS - 3})

    def position_of(self, pieces: set[str]) -> int:
        """Cut nothing but what is not among some pieces: return how many stand before the first of them."""
        (job,) = self.machine.memory.jobs.values()
        job.sort(key=lambda w: w["id"].rsplit(":", 1)[-1] in pieces)
        return len(job) - len(pieces)

    def test_a_change_while_the_machine_is_away_is_withdrawn_later(self) -> None:
        self.give()
        self.accepted(self.jory, kind="change-settings", harness_allowance_mm=50)
        self.assertEqual(self.states(), {"waiting": ALL - LOOMS, "new": LOOMS})
        self.arrives()
        self.look()
        self.cut()
        self.assertEqual(self.states(), {"done": ALL - LOOMS, "new": LOOMS})
        self.assertEqual((len(self.machine.memory.cuts), self.look()["vain"]), (ALL - LOOMS, []))

    def test_a_machine_that_hangs_holds_no_project(self) -> None:
        held = loaded(KILN)
        free: list[bool] = []

        def another() -> None:
            """Ask for the project from another thread, as an editor's request would."""
            got = held.lock.acquire(timeout=HANGS_S)
            free.append(got)
            if got:
                held.lock.release()

        def hangs(*args: Any, **kwargs: Any) -> None:
            thread = threading.Thread(target=another)
            thread.start()
            thread.join()
            raise MachineAway("The machine does not answer.")

        with patch("jolly_server.making.machine.ask_json", hangs):
            self.give()
            self.look()
        self.assertTrue(free and all(free))

    def test_two_who_give_at_once_give_each_piece_once(self) -> None:
        self.arrives()
        self.assertEqual(self.give().status_code, 200)
        self.assertEqual(self.give().status_code, 422)
        self.assertEqual(CutPiece.objects.count(), ALL)
        self.assertEqual(CutJob.objects.count(), 1)

    def test_something_else_at_the_address_is_no_machine(self) -> None:
        self.arrives()
        self.at(settings.JOLLY.machine + "/elsewhere")
        self.assertIn("Something else answers", self.look()["machine"]["problem"])
