"""The server killed in the middle of a stream of edits: every acknowledged edit is there afterwards."""

from __future__ import annotations

import http.client
import json
import os
import re
import signal
import socket
import subprocess
import sys
import tempfile
import threading
from pathlib import Path
from typing import Any
from unittest import TestCase

from jolly_core.testing import HANGS_S
from jolly_server.standins.listed import STANDINS

ROOT = Path(__file__).resolve().parents[2]
WITHOUT = [f"--no-{standin.key}" for standin in STANDINS]


class Server:
    """A server process of its own on a data folder."""

    def __init__(self, data: str) -> None:
        self.env = {**os.environ, "JOLLY_SPOOL_DATA": data, "JOLLY_SPOOL_DEMO": "1"}
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.cookies: dict[str, str] = {}

    def manage(self, *args: str) -> str:
        done = subprocess.run(
            [sys.executable, "manage.py", *args], cwd=ROOT, env=self.env, capture_output=True, text=True, check=True
        )
        return done.stdout

    def start(self) -> None:
        self.process = subprocess.Popen(
            [sys.executable, "-m", "jolly_server.entrance.launch", "--port", str(self.port), *WITHOUT],
            cwd=ROOT,
            env=self.env,
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
            text=True,
        )
        assert self.process.stdout is not None
        if "ready" not in self.process.stdout.readline():
            raise AssertionError("the server did not start")

    def stop(self) -> None:
        self.process.kill()
        self.process.wait()
        if self.process.stdout is not None:
            self.process.stdout.close()

    def ask(self, method: str, path: str, body: Any = None) -> Any:
        connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=HANGS_S)
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items())}
        headers |= {"X-CSRFToken": self.cookies.get("spool_csrf", ""), "Content-Type": "application/json"}
        connection.request(method, path, None if body is None else json.dumps(body), headers)
        answer = connection.getresponse()
        text = answer.read().decode()
        for name, value in re.findall(r"(spool_\w+)=([^;,]*);", str(answer.headers)):
            self.cookies[name] = value
        connection.close()
        if answer.status != 200:
            raise AssertionError(f"{method} {path}: {answer.status} {text[:200]}")
        return json.loads(text) if text.startswith(("{", "[")) else text


class Crash(TestCase):
    long = True

    def test_acknowledged_edits_survive_sigkill(self) -> None:
        with tempfile.TemporaryDirectory() as data:
            server = Server(data)
            server.start()
            self.addCleanup(server.stop)
            server.ask("GET", "/")
            server.ask("POST", "/api/demo-sign-in", {})
            outline = server.ask("GET", "/api/projects/kiln-2")
            sheet = next(s["id"] for s in outline["sheets"] if s["number"] == "30")
            acknowledged: list[str] = []
            enough = threading.Event()

            def stream() -> None:
                for number in range(10_000):
                    edit = {"kind": "place-note", "sheet_id": sheet, "x": 20, "y": 70, "text": f"note {number}"}
                    try:
                        server.ask("POST", "/api/projects/kiln-2/edits", {"edit": edit})
                    except (OSError, http.client.HTTPException):
                        return
                    acknowledged.append(f"note {number}")
                    if number == 25:
                        enough.set()

            sender = threading.Thread(target=stream)
            sender.start()
            self.assertTrue(enough.wait(HANGS_S))
            server.process.send_signal(signal.SIGKILL)
            sender.join()
            project = json.loads(server.manage("project_export", "kiln-2"))
            kept = {n["text"] for n in project["entities"]["note"] if n["text"].startswith("note ")}
            self.assertLessEqual(set(acknowledged), kept)
            self.assertLessEqual(len(kept) - len(acknowledged), 2, "more was kept than was sent")
            server.manage("check_project", "kiln-2")
            listed = {p["id"]: p["revision"] for p in json.loads(server.manage("project_list", "--json"))}
            self.assertEqual(listed["kiln-2"], len(kept))
            server.process.wait()
            server.start()
            answer = server.ask("POST", "/api/projects/kiln-2/undo", {"sheet_id": "", "since": -1})
            self.assertIn("note", answer["label"])
