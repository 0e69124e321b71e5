"""The simulated PLC on its own: lists, states, refusals, and its door."""

from __future__ import annotations

import json
import threading
from typing import Any
from unittest import TestCase
from urllib.error import HTTPError
from urllib.request import Request, urlopen

from jolly_server.standins.plc import Plc, Refused, serve


def row(name: str, address: str, kind: str = "BOOL") -> dict[str, Any]:
    return {"name": name, "address": address, "type": kind, "comment": f"what {name} is"}


class Lists(TestCase):
    def test_a_list_takes_the_place_of_the_one_before_and_states_stay(self) -> None:
        plc = Plc()
        plc.take("p", [row("B1", "I0.0"), row("T1", "IW256", "INT")])
        plc.set("p", "I0.0", 1)
        plc.set("p", "IW256", -32768)
        self.assertEqual(plc.take("p", [row("B7", "I0.0"), row("B2", "I0.1")])["taken"], 2)
        self.assertEqual([(c["name"], c["value"]) for c in plc.channels("p")], [("B7", 1), ("B2", 0)])
        self.assertEqual(plc.channels("another"), [])
        self.assertEqual(plc.status()["lists"], {"p": 2})

    def test_rows_it_cannot_use_are_named(self) -> None:
        rows = [row("B1", "I0.0"), row("B2", "I0.0"), row("B3", ""), row("B4", "I0.3", "REAL")]
        found = Plc().take("p", rows)
        self.assertEqual(found["taken"], 1)
        self.assertEqual([r["name"] for r in found["refused"]], ["B2", "B3", "B4"])
        self.assertIn("B1 has this address", found["refused"][0]["why"])

    def test_values_stay_within_their_type(self) -> None:
        plc = Plc()
        plc.take("p", [row("B1", "I0.0"), row("T1", "IW256", "INT")])
        for address, value, words in (("I0.0", 2, "no BOOL"), ("IW256", 40000, "no INT"), ("I9.9", 1, "no channel")):
            with self.subTest(address=address), self.assertRaisesRegex(Refused, words):
                plc.set("p", address, value)


class Doorway(TestCase):
    def setUp(self) -> None:
        self.server = serve(Plc(), 0)
        self.addCleanup(self.server.server_close)
        self.addCleanup(self.server.shutdown)
        threading.Thread(target=self.server.serve_forever, daemon=True).start()

    def ask(self, path: str, content: object = None) -> tuple[int, dict[str, Any]]:
        body = None if content is None else json.dumps(content).encode()
        try:
            with urlopen(Request(f"http://127.0.0.1:{self.server.server_port}{path}", data=body)) as answer:
                return answer.status, json.loads(answer.read())
        except HTTPError as error:
            return error.code, json.loads(error.read())

    def test_a_list_comes_in_and_channels_are_seen(self) -> None:
        self.assertEqual(self.ask("/list", {"project": "p", "rows": [row("B1", "I0.0")]})[1]["taken"], 1)
        self.assertEqual(self.ask("/set", {"project": "p", "address": "I0.0", "value": 1})[1]["value"], 1)
        self.assertEqual(self.ask("/channels/p")[1]["channels"][0]["value"], 1)
        self.assertEqual(self.ask("/status")[1]["lists"], {"p": 1})

    def test_what_cannot_be_read_is_said(self) -> None:
        self.assertIn("no channel", self.ask("/set", {"project": "p", "address": "I0.0", "value": 1})[1]["message"])
        for path, content, status in (
            ("/list", [], 400),
            ("/set", {"project": "p"}, 400),
            ("/other", {"project": "p"}, 404),
        ):
            with self.subTest(path=path):
                self.assertEqual(self.ask(path, content)[0], status)
        self.assertEqual(self.ask("/nothing")[0], 404)
