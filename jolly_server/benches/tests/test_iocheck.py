"""The wiring check over HTTP: with and without the PLC, lists given, points set, the report; drawing again."""

from __future__ import annotations

import threading
from dataclasses import replace
from typing import Any

from django.conf import settings
from django.test import override_settings

from jolly_server.standins.plc import Plc, serve
from jolly_server.testing import KILN, DemoCase

BASE = f"/api/projects/{KILN}"


class Check(DemoCase):
    def setUp(self) -> None:
        super().setUp()
        self.jory, self.vera = self.person("jory"), self.person("vera")
        self.plc = Plc()
        self.server = serve(self.plc, 0)
        threading.Thread(target=self.server.serve_forever, daemon=True).start()
        self.addCleanup(self.server.server_close)
        self.addCleanup(self.server.shutdown)
        self.at(self.server.server_port)

    def at(self, port: int) -> None:
        there = override_settings(JOLLY=replace(settings.JOLLY, plc=f"http://127.0.0.1:{port}"))
        there.enable()
        self.addCleanup(there.disable)

    def see(self) -> dict[str, Any]:
        answer = self.vera.get(f"{BASE}/io/check")
        self.assertEqual(answer.status_code, 200, answer.content[:300])
        found: dict[str, Any] = answer.json()
        return found

    def row(self, tag: str) -> dict[str, Any]:
        return next(r for r in self.see()["rows"] if r["tag"] == tag)

    def point(self, tag: str) -> str:
        return next(p.id for p in self.stored().io_points.values() if p.tag == tag)

    def ask(self, path: str, **content: object) -> Any:
        return self.jory.post(f"{BASE}/io/check/{path}", content, content_type="application/json")

    def test_a_list_is_given_and_points_are_set_and_seen(self) -> None:
        view = self.see()
        self.assertEqual((len(view["rows"]), view["plc"]["channels"], view["plc"]["stale"]), (59, 0, False))
        self.assertEqual(self.row("B1")["value"], None)
        given = self.ask("list").json()
        self.assertEqual((given["plc"]["channels"], given["plc"]["stale"], given["plc"]["refused"]), (59, False, []))
        self.assertEqual(self.ask(f"points/{self.point('B1')}", value=1).status_code, 200)
        seen = self.row("B1")
        self.assertEqual((seen["address"], seen["seen"], seen["value"]), ("I0.0", "B1", 1))
        self.ask(f"points/{self.point('T1')}", value=-5)
        self.assertEqual(self.row("T1")["value"], -5)
        refused = self.ask(f"points/{self.point('B2')}", value=3)
        self.assertEqual(refused.status_code, 422)
        self.assertIn("3 is no BOOL", refused.json()["message"])

    def test_a_list_that_is_older_than_the_project_is_told(self) -> None:
        self.ask("list")
        self.accepted(self.jory, kind="free-points", ids=[self.point("B4")])
        self.assertTrue(self.see()["plc"]["stale"])
        self.assertEqual(self.ask(f"points/{self.point('B4')}", value=1).status_code, 422)

    def test_without_a_plc_the_walk_goes_on(self) -> None:
        self.at(9)
        view = self.see()
        self.assertIn("does not answer", view["plc"]["away"])
        self.assertEqual(len(view["rows"]), 59)
        for path, content in (("list", {}), (f"points/{self.point('B1')}", {"value": 1})):
            answer = self.ask(path, **content)
            self.assertEqual(answer.status_code, 200)
            self.assertIn("does not answer", answer.json()["plc"]["away"])

    def test_ticks_faults_and_the_signature_are_in_the_report(self) -> None:
        who = {"by": "J. Bell", "on": "2026-03-02"}
        self.accepted(self.jory, kind="check-points", ids=[self.point("B1")], result="good", **who)
        self.accepted(self.jory, kind="check-points", ids=[self.point("B2")], result="fault", remark="=dead", **who)
        self.accepted(self.jory, kind="sign-check", **who)
        view = self.see()
        self.assertEqual([(s["by"], s["current"]) for s in view["signatures"]], [("J. Bell", True)])
        self.assertEqual((self.row("B1")["result"], self.row("B2")["remark"]), ("good", "=dead"))
        for kind, start in (("csv", b"\xef\xbb\xbf"), ("pdf", b"%PDF"), ("xlsx", b"PK")):
            report = self.vera.get(f"{BASE}/reports/wiring-check/{kind}")
            self.assertEqual(report.status_code, 200)
            self.assertTrue(report.getvalue().startswith(start), kind)
        rows = self.vera.get(f"{BASE}/reports/wiring-check/rows").json()["rows"]
        self.assertEqual(rows[-1][0], "Signature")

    def test_a_viewer_looks_and_sets_nothing(self) -> None:
        self.assertEqual(self.vera.post(f"{BASE}/io/check/list", {}, content_type="application/json").status_code, 403)
        self.assertEqual(self.plc.channels(KILN), [])


class DrawnAgain(DemoCase):
    def test_the_bench_says_which_cards_are_behind_the_list_and_the_edit_what_becomes(self) -> None:
        jory = self.person("jory")
        card = next(c for c in jory.get(f"{BASE}/io").json()["cards"] if c["tag"] == "=K2+KP2-KF91")
        self.assertEqual((card["changes"], card["plan_id"]), (0, f"plan:cards:{card['id']}"))
        points = {p.tag: p.id for p in self.stored().io_points.values()}
        self.accepted(jory, kind="delete-points", ids=[points["B12"], points["B13"]])
        cells = [{"id": points["B14"], "key": "connected", "value": "push button"}]
        self.accepted(jory, kind="write-points", cells=cells)
        card = next(c for c in jory.get(f"{BASE}/io").json()["cards"] if c["tag"] == "=K2+KP2-KF91")
        self.assertEqual(card["changes"], 3)
        edit: dict[str, Any] = {"kind": "redraw-channels", "device_ids": [card["id"]]}
        asked = {"edit": edit, "sheet_id": "", "since": -1, "key": ""}
        shown = self.post(jory, f"/projects/{KILN}/preview", asked).json()
        self.assertEqual([row[0] for row in shown["table"]], ["removed", "removed", "changed"])
        self.accepted(jory, **edit)
        card = next(c for c in jory.get(f"{BASE}/io").json()["cards"] if c["tag"] == "=K2+KP2-KF91")
        self.assertEqual(card["changes"], 0)
        self.assert_memory_is_stored()
