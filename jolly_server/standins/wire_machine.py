"""A stand-in for a wire-processing machine: a small process of its own that takes cut jobs over loopback HTTP.

    python -m jolly_server.standins.wire_machine --port 8001 --state FILE

It checks each wire against its limits, cuts the others one by one, and keeps what it did in a file, so that it knows
after a restart what was cut. A job or wire that comes twice is not cut twice. docs/formats/wire-machine.md describes
the requests.
"""

from __future__ import annotations

import argparse
import json
import os
import sys
import threading
from dataclasses import asdict, dataclass, field
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from typing import Any

from .door import JsonDoor
from .running import run


@dataclass(frozen=True)
class Limits:
    """What the machine can do; all lengths in mm, areas in mm²."""

    shortest_mm: float = 60.0
    longest_mm: float = 6000.0
    strip_min_mm: float = 3.0
    strip_max_mm: float = 18.0
    area_min_mm2: float = 0.25
    area_max_mm2: float = 10.0

    def reasons(self, wire: dict[str, Any]) -> list[str]:
        """Return why a wire cannot be made, nothing when it can."""
        found = []
        for name, value, low, high, unit in (
            ("length", wire["length_mm"], self.shortest_mm, self.longest_mm, "mm"),
            ("strip length at the start", wire["start_strip_mm"], self.strip_min_mm, self.strip_max_mm, "mm"),
            ("strip length at the end", wire["end_strip_mm"], self.strip_min_mm, self.strip_max_mm, "mm"),
            ("cross-section", wire["area_mm2"], self.area_min_mm2, self.area_max_mm2, "mm²"),
        ):
            if not low <= value <= high:
                found.append(f"The {name} of {value:g} {unit} is outside {low:g} to {high:g} {unit}.")
        return found


@dataclass
class Memory:
    """What the machine knows: jobs with their wires in order, and how often each wire was cut."""

    jobs: dict[str, list[dict[str, Any]]] = field(default_factory=dict)
    cuts: dict[str, int] = field(default_factory=dict)


class WireMachine:
    """The machine itself, without its HTTP door.

    Args:
        state: file it remembers in, None to forget at the end.
    """

    name = "Simulated wire machine"

    def __init__(self, state: Path | None = None, limits: Limits | None = None) -> None:
        self.limits = limits or Limits()
        self.state = state
        self.stopped = False
        self.lock = threading.Lock()
        self.memory = Memory()
        if state is not None and state.exists():
            self.memory = Memory(**json.loads(state.read_text(encoding="utf-8")))

    def _remember(self) -> None:
        if self.state is not None:
            beside = self.state.with_suffix(".new")
            beside.write_text(json.dumps(vars(self.memory)), encoding="utf-8")
            os.replace(beside, self.state)

    def status(self) -> dict[str, Any]:
        """Return name, limits, and whether it runs."""
        with self.lock:
            waiting = sum(1 for job in self.memory.jobs.values() for w in job if w["state"] == "waiting")
            return {
                "name": self.name,
                "limits": asdict(self.limits),
                "state": "stopped" if self.stopped else "running",
                "waiting": waiting,
            }

    def take(self, job_id: str, wires: list[dict[str, Any]]) -> dict[str, Any]:
        """Take a job; one that is known already is answered as it stands, not taken again."""
        with self.lock:
            if job_id not in self.memory.jobs:
                taken = []
                for wire in wires:
                    reasons = self.limits.reasons(wire)
                    state = "done" if self.memory.cuts.get(wire["id"]) else "refused" if reasons else "waiting"
                    taken.append({"id": wire["id"], "state": state, "reasons": reasons})
                self.memory.jobs[job_id] = taken
                self._remember()
            return self._answer(job_id)

    def withdraw(self, ids: list[str]) -> dict[str, Any]:
        """Take wires that are not cut yet off their jobs; answer how each stands: withdrawn, done, refused, unknown."""
        wanted, found = set(ids), dict.fromkeys(ids, "unknown")
        with self.lock:
            for job in self.memory.jobs.values():
                for wire in job:
                    if wire["id"] in wanted:
                        if wire["state"] == "waiting":
                            wire["state"] = "withdrawn"
                        if found[wire["id"]] != "done":
                            found[wire["id"]] = wire["state"]
            self._remember()
        return {"wires": [{"id": id, "state": state} for id, state in found.items()]}

    def job(self, job_id: str) -> dict[str, Any] | None:
        """Return a job as it stands, None when it never came."""
        with self.lock:
            return self._answer(job_id) if job_id in self.memory.jobs else None

    def _answer(self, job_id: str) -> dict[str, Any]:
        wires = [dict(w) for w in self.memory.jobs[job_id]]
        done = sum(1 for w in wires if w["state"] == "done")
        return {"job": job_id, "done": done, "total": len(wires), "wires": wires}

    def cut_next(self) -> str:
        """Cut the next waiting wire and return its id, "" when none waits or the machine is stopped."""
        with self.lock:
            if self.stopped:
                return ""
            for job in self.memory.jobs.values():
                for wire in job:
                    if wire["state"] == "waiting":
                        if not self.memory.cuts.get(wire["id"]):
                            self.memory.cuts[wire["id"]] = self.memory.cuts.get(wire["id"], 0) + 1
                        wire["state"] = "done"
                        self._remember()
                        return str(wire["id"])
            return ""


def door(machine: WireMachine) -> type[BaseHTTPRequestHandler]:
    """Return the handler class through which a machine is reached."""

    class Door(JsonDoor):
        def do_GET(self) -> None:
            if self.path == "/status":
                self.say(200, machine.status())
            elif self.path.startswith("/jobs/"):
                found = machine.job(self.path.removeprefix("/jobs/"))
                self.say(200, found) if found else self.say(404, {"message": "This job never came."})
            else:
                self.say(404, {"message": "Ask for /status or /jobs/ID."})

        def do_POST(self) -> None:
            raw = self.taken("The job is too large. Split it.")
            if raw is None:
                return
            if self.path in ("/stop", "/go"):
                machine.stopped = self.path == "/stop"
                self.say(200, machine.status())
                return
            try:
                content = json.loads(raw)
                if self.path == "/withdraw":
                    self.say(200, machine.withdraw([str(id) for id in content["wires"]]))
                    return
                wires = [_checked(w) for w in content["wires"]]
                self.say(200, machine.take(str(content["job"]), wires))
            except (ValueError, KeyError, TypeError) as error:
                self.say(400, {"message": f"The job cannot be read: {error}."})

    return Door


def _checked(wire: dict[str, Any]) -> dict[str, Any]:
    numbers = {name: float(wire[name]) for name in ("length_mm", "start_strip_mm", "end_strip_mm", "area_mm2")}
    return {"id": str(wire["id"]), **numbers}


def serve(machine: WireMachine, port: int) -> ThreadingHTTPServer:
    """Open a machine's door on loopback; port 0 takes any free one. The caller runs and closes it."""
    return ThreadingHTTPServer(("127.0.0.1", port), door(machine))


def main() -> None:
    """Run the machine until it is stopped, or until the process it follows is gone."""
    parser = argparse.ArgumentParser(description="A simulated wire-processing machine on loopback HTTP.")
    parser.add_argument("--port", type=int, default=8001)
    parser.add_argument("--state", type=Path, help="file in which it remembers what it cut")
    parser.add_argument("--pace", type=float, default=0.4, help="seconds for each wire")
    parser.add_argument("--follow", type=int, default=0, help="end when this process is gone")
    chosen = parser.parse_args()
    machine = WireMachine(chosen.state)
    try:
        server = serve(machine, chosen.port)
    except OSError as error:
        sys.exit(f"wire machine: port {chosen.port} cannot be used: {error.strerror}")
    run(server, chosen.follow, chosen.pace, machine.cut_next)


if __name__ == "__main__":
    main()
