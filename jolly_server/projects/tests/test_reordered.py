"""What the server answers does not stand by the order in which a project's entities came to be in memory."""

from __future__ import annotations

import json

from jolly_core.testing import reordered
from jolly_server.projects.store import forget, loaded
from jolly_server.testing import KILN, DemoCase

BENCHES = (
    "",
    "cabinet",
    "cables",
    "harness",
    "io",
    "issue-check",
    "make",
    "outline",
    "parts",
    "places",
    "recipes",
    "sheets",
    "snags",
    "stamps",
    "terminals",
    "title-blocks",
    "wiring-habits",
)


class Reordered(DemoCase):
    def answers(self) -> dict[str, object]:
        client = self.person("anna")
        found: dict[str, object] = {}
        for bench in BENCHES:
            answer = client.get(f"/api/projects/{KILN}/{bench}".rstrip("/"))
            self.assertEqual(answer.status_code, 200, bench)
            found[bench] = json.loads(answer.content)
        return found

    def test_the_benches_of_the_demo_and_when_several_have_one_name(self) -> None:
        for habit in ("iec", "line"):  # by line, cables of all places have one name
            if loaded(KILN).project.settings.tag_habit != habit:
                self.accepted(self.person("anna"), kind="change-settings", tag_habit=habit)
            forget()
            first = self.answers()
            held = loaded(KILN)
            held.project = reordered(held.project, 11)
            self.assertEqual([bench for bench, said in self.answers().items() if first[bench] != said], [], habit)
