"""The space model of the mechanical colleague: asked, away, saying something else."""

from __future__ import annotations

import json
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import replace
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any

from django.conf import settings
from django.test import override_settings

from jolly_core.harness import harnesses, segments_of, span_of
from jolly_server.projects.store import loaded
from jolly_server.standins.space_model import SpaceModel, serve
from jolly_server.testing import KILN, DemoCase


@contextmanager
def answering(server: ThreadingHTTPServer) -> Iterator[str]:
    """Run a server and let the application look for the space model there."""
    threading.Thread(target=server.serve_forever, daemon=True).start()
    address = f"http://127.0.0.1:{server.server_port}"
    with override_settings(JOLLY=replace(settings.JOLLY, space=address)):
        yield address
    server.shutdown()
    server.server_close()


class Nonsense(BaseHTTPRequestHandler):
    said: dict[str, Any] = {}

    def do_POST(self) -> None:
        body = json.dumps(self.said).encode()
        self.send_response(200)
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.wfile.write(body)

    def log_message(self, format: str, *args: Any) -> None:
        return


class Asking(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.jory = self.person("jory")
        self.harness = harnesses(loaded(KILN).project)[0].id
        self.at = f"/projects/{KILN}/harnesses/{self.harness}/space/ask"

    def test_the_harness_is_assigned_and_what_it_says_changes_lengths(self) -> None:
        model = SpaceModel()
        with answering(serve(model, 0)):
            said = self.post(self.jory, self.at, {}).json()
        self.assertEqual(model.assigned, {f"XD{n}": f"=K2+KT2-XD{n}" for n in (1, 2, 3)})
        self.assertEqual({n["name"] for n in said["nodes"]} & {"B1", "C1", "-XD4"}, {"B1", "C1", "-XD4"})
        answer = self.accepted(self.jory, kind="take-in-space", harness_id=self.harness, **said)
        self.assertIn("-XD4 is in the space model and not in WH-T1.", answer["remarks"])
        project = loaded(KILN).project
        spans = [span_of(project, s.id) for s in segments_of(project, self.harness)]
        self.assertEqual([s.base_mm for s in spans[:2]], [550, 362.02])
        self.assertTrue(all(s.path for s in spans))

    def test_one_that_is_away_or_says_something_else_is_told_and_nothing_changes(self) -> None:
        with override_settings(JOLLY=replace(settings.JOLLY, space="http://127.0.0.1:9")):
            answer = self.post(self.jory, self.at, {})
        self.assertEqual(answer.status_code, 422)
        self.assertIn("The space model does not answer. Look whether it runs at", answer.json()["message"])
        for said, words in (
            ({"format": "else"}, "Something else answers"),
            ({"format": "jolly-spool-space", "nodes": [{"name": "B1"}]}, "nodes.0.at that cannot be read"),
        ):
            Nonsense.said = said
            with answering(ThreadingHTTPServer(("127.0.0.1", 0), Nonsense)):
                answer = self.post(self.jory, self.at, {})
            self.assertEqual(answer.status_code, 422)
            self.assertIn(words, answer.json()["message"])
