"""Services outside: answers, nothing known, errors, nonsense, nobody there."""

from __future__ import annotations

import json
import threading
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any
from unittest import TestCase

from jolly_server.config.outside import Away, ask, ask_json


class Odd(BaseHTTPRequestHandler):
    """A service that answers as its path says, and gives back what it was sent."""

    def _answer(self, sent: bytes) -> None:
        kind = self.path.strip("/")
        body = {"list": b"[1]", "nonsense": b"<p>", "echo": sent}.get(kind, b'{"name": "odd"}')
        self.send_response({"gone": 404, "broken": 500}.get(kind, 200))
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)

    def do_GET(self) -> None:
        self._answer(b"")

    def do_POST(self) -> None:
        self._answer(self.rfile.read(int(self.headers["Content-Length"])))

    def log_message(self, format: str, *args: Any) -> None:
        return


class Outside(TestCase):
    def setUp(self) -> None:
        server = ThreadingHTTPServer(("127.0.0.1", 0), Odd)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        self.addCleanup(server.server_close)
        self.addCleanup(server.shutdown)
        self.address = f"http://127.0.0.1:{server.server_port}"

    def test_an_object_is_read_and_content_is_sent_as_json(self) -> None:
        self.assertEqual(ask_json(f"{self.address}/status", "It"), {"name": "odd"})
        sent = {"job": "a", "wires": [{"id": "ü"}]}
        self.assertEqual(ask_json(f"{self.address}/echo", "It", sent), sent)
        self.assertEqual(json.loads(ask(f"{self.address}/echo", "It", sent) or b""), sent)

    def test_what_it_does_not_know_is_nothing(self) -> None:
        self.assertIsNone(ask(f"{self.address}/gone", "It"))
        self.assertIsNone(ask_json(f"{self.address}/gone", "It"))

    def test_errors_nonsense_and_silence_are_told_by_its_name(self) -> None:
        for url, words in (
            (f"{self.address}/broken", "The saw answered 500."),
            (f"{self.address}/list", "The saw does not answer as it should."),
            (f"{self.address}/nonsense", "The saw does not answer."),
            ("http://127.0.0.1:9/status", "The saw does not answer."),
            ("nowhere", "The saw does not answer."),
        ):
            with self.subTest(url), self.assertRaises(Away) as caught:
                ask_json(url, "The saw")
            self.assertEqual(str(caught.exception), words)
