"""The simulated wire machine on its own: limits, progress, memory."""

from __future__ import annotations

import json
import subprocess
import sys
import tempfile
import threading
from pathlib import Path
from typing import Any
from unittest import TestCase
from urllib.error import HTTPError
from urllib.request import Request, urlopen

from jolly_server.standins.wire_machine import Limits, WireMachine, serve


def wire(id: str, **other: float) -> dict[str, Any]:
    return {"id": id, "length_mm": 500.0, "start_strip_mm": 8.0, "end_strip_mm": 8.0, "area_mm2": 1.0, **other}


class Machine(TestCase):
    def test_each_limit_is_a_reason_of_its_own(self) -> None:
        for field, value, words in (
            ("length_mm", 59.9, "length"),
            ("length_mm", 6000.1, "length"),
            ("start_strip_mm", 2.0, "strip length at the start"),
            ("end_strip_mm", 20.0, "strip length at the end"),
            ("area_mm2", 16.0, "cross-section"),
        ):
            (reason,) = Limits().reasons(wire("w", **{field: value}))
            self.assertIn(f"The {words} of {value:g}", reason)
        self.assertEqual(Limits().reasons(wire("w")), [])
        self.assertEqual(len(Limits().reasons(wire("w", length_mm=1, area_mm2=95))), 2)

    def test_it_cuts_wire_by_wire_and_refuses_what_it_cannot(self) -> None:
        machine = WireMachine()
        taken = machine.take("j1", [wire("a"), wire("b", length_mm=9000), wire("c")])
        self.assertEqual([w["state"] for w in taken["wires"]], ["waiting", "refused", "waiting"])
        self.assertEqual([machine.cut_next() for _ in range(3)], ["a", "c", ""])
        job = machine.job("j1")
        self.assertEqual((job or {})["done"], 2)
        self.assertIsNone(machine.job("j2"))

    def test_what_comes_twice_is_cut_once(self) -> None:
        machine = WireMachine()
        machine.take("j1", [wire("a")])
        machine.take("j1", [wire("a")])
        machine.cut_next()
        again = machine.take("j2", [wire("a"), wire("b")])
        self.assertEqual([w["state"] for w in again["wires"]], ["done", "waiting"])
        while machine.cut_next():
            pass
        self.assertEqual(machine.memory.cuts, {"a": 1, "b": 1})

    def test_two_waiting_jobs_with_one_wire_cut_it_once(self) -> None:
        machine = WireMachine()
        machine.take("j1", [wire("a")])
        machine.take("j2", [wire("a")])
        while machine.cut_next():
            pass
        self.assertEqual(machine.memory.cuts, {"a": 1})

    def test_it_remembers_over_a_restart(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            state = Path(folder) / "state.json"
            first = WireMachine(state)
            first.take("j1", [wire("a"), wire("b")])
            first.cut_next()
            second = WireMachine(state)
            self.assertEqual([w["state"] for w in second.job("j1")["wires"]], ["done", "waiting"])  # type: ignore[index]  # it is there
            self.assertEqual(second.cut_next(), "b")

    def test_stopped_it_cuts_nothing_until_it_goes_on(self) -> None:
        machine = WireMachine()
        machine.take("j1", [wire("a")])
        machine.stopped = True
        self.assertEqual(machine.cut_next(), "")
        machine.stopped = False
        self.assertEqual(machine.cut_next(), "a")


class Door(TestCase):
    def setUp(self) -> None:
        self.machine = WireMachine()
        self.server = serve(self.machine, 0)
        threading.Thread(target=self.server.serve_forever, daemon=True).start()
        self.addCleanup(self.server.server_close)
        self.addCleanup(self.server.shutdown)
        self.address = f"http://127.0.0.1:{self.server.server_port}"

    def ask(self, path: str, body: bytes | None = None) -> tuple[int, dict[str, Any]]:
        try:
            with urlopen(Request(self.address + path, data=body)) as answer:
                return answer.status, json.loads(answer.read())
        except HTTPError as error:
            with error:
                return error.code, json.loads(error.read())

    def test_the_requests_that_are_documented(self) -> None:
        self.assertEqual(self.ask("/status")[1]["state"], "running")
        self.assertEqual(self.ask("/jobs/none")[0], 404)
        job = json.dumps({"job": "j1", "wires": [wire("a")]}).encode()
        self.assertEqual(self.ask("/jobs", job)[1]["total"], 1)
        self.assertEqual(self.ask("/stop", b"")[1]["state"], "stopped")
        self.assertEqual(self.ask("/go", b"")[1]["state"], "running")
        self.machine.cut_next()
        self.assertEqual(self.ask("/jobs/j1")[1]["done"], 1)

    def test_what_is_no_job_is_refused_in_words(self) -> None:
        for body in (
            b"",
            b"[]",
            b'{"job": "j"}',
            b'{"job": "j", "wires": [{"id": "a"}]}',
            b'{"job": "j", "wires": [1]}',
        ):
            status, answer = self.ask("/jobs", body)
            self.assertEqual((status, "cannot be read" in answer["message"]), (400, True))
        self.assertEqual(self.machine.memory.jobs, {})

    def test_as_a_process_it_ends_with_the_one_it_follows(self) -> None:
        ended = subprocess.run([sys.executable, "-c", ""], check=True)
        self.assertEqual(ended.returncode, 0)
        follower = subprocess.run(
            [
                sys.executable,
                "-m",
                "jolly_server.standins.wire_machine",
                "--port",
                "0",
                "--follow",
                "4194303",
                "--pace",
                "0",
            ],
            check=False,
        )
        self.assertEqual(follower.returncode, 0)
