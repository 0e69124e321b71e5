"""Budgets of the server: loading a project, an edit over HTTP, the library. Django is set up by the caller."""

from __future__ import annotations

import http.client
import json
import re
import sqlite3
import threading
from dataclasses import replace
from typing import Any

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from django.urls import include, path
from waitress.server import create_server

from benchmarks.generate import synthetic
from benchmarks.measure import Pace, Result, compare, from_sheets, percentile, timed
from jolly_core.exchange import check_rows, guessed_mapping, parts_table, read_cells, table_xlsx
from jolly_core.model import KINDS, Part
from jolly_server.entrance.wsgi import application
from jolly_server.library.models import Shelf
from jolly_server.library.search import filters_in, search
from jolly_server.library.storing import store_parts
from jolly_server.projects.models import ROWS
from jolly_server.projects.services import create_project
from jolly_server.projects.store import load_rows

SEARCH_MS, IMPORT_S = 50.0, 30.0


def no_op(request: HttpRequest) -> HttpResponse:
    """Answer a POST after session and CSRF checks, doing nothing."""
    if not request.user.is_authenticated:
        return HttpResponse(status=401)
    return HttpResponse("{}", content_type="application/json")


urlpatterns = [path("no-op", no_op), path("", include("jolly_server.entrance.urls"))]


def loading(sheets: int, rounds: int) -> Result:
    """Measure loading a project against reading the same rows raw."""
    project_id = create_project(None, synthetic(sheets))
    raw = sqlite3.connect(settings.DATABASES["default"]["NAME"])

    def read() -> None:
        for kind, model in ROWS.items():
            names = ", ".join(f'"{n}"' for n in KINDS[kind].fields)
            raw.execute(f"SELECT {names} FROM {model._meta.db_table} WHERE project_id = ?", [project_id]).fetchall()

    limit = from_sheets(1000, sheets, 2.0)
    result = compare(f"loading {sheets} sheets / raw rows", read, lambda: load_rows(project_id), limit, rounds)
    raw.close()
    return result


class Browser:
    """One connection to the server, signed in as the demo's designer."""

    def __init__(self, port: int) -> None:
        self.connection = http.client.HTTPConnection("127.0.0.1", port)
        self.cookies: dict[str, str] = {}
        self.ask("GET", "/")
        self.ask("POST", "/api/demo-sign-in", {})

    def ask(self, method: str, url: str, body: Any = None) -> Any:
        """Make a request and return the JSON of the answer."""
        headers = {"Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items())}
        headers |= {"X-CSRFToken": self.cookies.get("spool_csrf", ""), "Content-Type": "application/json"}
        self.connection.request(method, url, None if body is None else json.dumps(body), headers)
        answer = self.connection.getresponse()
        text = answer.read()
        for name, value in re.findall(r"(spool_\w+)=([^;,]*);", str(answer.headers)):
            self.cookies[name] = value
        if answer.status != 200:
            raise RuntimeError(f"{method} {url}: {answer.status} {text[:300]!r}")
        return json.loads(text) if text[:1] in (b"{", b"[") else None


def editing(sheets: int, rounds: int) -> list[Result]:
    """Measure edits over HTTP, stored and journalled, against a POST that does nothing."""
    from django.contrib.auth import get_user_model

    anna = get_user_model().objects.get(username="anna")
    project = synthetic(sheets)
    project_id = create_project(anna, project)
    server = create_server(application, host="127.0.0.1", port=0, threads=4, ident=None)
    threading.Thread(target=server.run, daemon=True).start()
    browser = Browser(server.effective_port)
    sheet = project.sheets_in_order()[sheets // 2].id
    lamp = next(s for s in project.symbols_on(sheet) if s.definition == "lamp")
    url = f"/api/projects/{project_id}"
    revision = browser.ask("GET", f"{url}/sheets/{sheet}/view")["revision"]
    floors, bare, shown, found, previews = [], [], [], [], []
    for turn in range(25 * rounds):
        edit = {"kind": "move-selection", "ids": [lamp.id], "dx": 1 if turn % 2 else -1, "dy": 0}
        body: dict[str, Any] = {"edit": edit}
        floors.append(timed(browser.ask, "POST", "/no-op", body))
        bare.append(timed(browser.ask, "POST", f"{url}/edits", body))
        back = {"edit": {**edit, "dx": -edit["dx"]}, "sheet_id": sheet, "since": -1}
        revision = browser.ask("GET", f"{url}/changes?since={revision}&sheet_id={sheet}")["revision"]
        back["since"] = revision
        previews.append(timed(browser.ask, "POST", f"{url}/preview", back))
        shown.append(timed(browser.ask, "POST", f"{url}/edits", back))
        revision += 1
        question = f"{url}/changes?since={revision}&found={revision - 1}&sheet_id={sheet}"
        found.append(timed(browser.ask, "GET", question))
    server.close()
    floor = percentile(floors, 0.95)
    return [
        Result(f"edit over HTTP, p95, {sheets} sheets / no-op POST", floor, percentile(bare, 0.95), 2.2),
        Result("the same with the drawing shown kept up to date", floor, percentile(shown, 0.95), 3.0),
        Result("its wires and snags, asked for when that is painted", floor, percentile(found, 0.95), 0),
        Result("preview of it, sheet shown", floor, percentile(previews, 0.95), 0),
    ]


def library(parts: int, rounds: int) -> list[Result]:
    """Measure looking up in a large library by words and by fields, and taking a table in."""
    shelf = Shelf.objects.create(pk="bench", name="Bench")
    store_parts(
        (
            Part(
                f"part-{i}",
                f"Maker {i % 40}",
                f"QX-{i:05d}-{i % 97}",
                "contactor",
                f"Contactor {i % 13} contacts, series {i}",
                (("coil", ("A1", "A2")), ("no", ("13", "14")), *([("no", ("23", "24"))] if i % 3 else [])),
                {"coil_voltage_v": ("24", "110", "230")[i % 3], "coil_kind": ("AC", "DC")[i % 2], "ac3_a": str(i % 95)},
            )
            for i in range(parts)
        ),
        shelf,
    )
    raw = sqlite3.connect(settings.DATABASES["default"]["NAME"])
    query = "SELECT id FROM library_librarypart WHERE number || maker || text LIKE ? LIMIT 40"
    result = compare(
        f"look-up of part of a number among {parts} / LIKE scan",
        lambda: raw.execute(query, ["%12345%"]).fetchall(),
        lambda: search("12345"),
        0,
        rounds * 5,
    )
    raw.close()
    asked = filters_in(["coil_voltage_v=24", "coil_kind=DC", "ac3_a>=9", "units.no>=1"])
    pace = Pace()
    fields = [
        pace.timed(lambda: search("", part_class_key="contactor", filters=asked, limit=200)) for _ in range(rounds * 3)
    ]
    words = [pace.timed(lambda w=w: search(w, limit=200)) for w in ("con", "series 12", "qx-01", "2no") * rounds]
    return [
        result,
        pace.within(f"search as one types among {parts}", words, SEARCH_MS, 0.95),
        pace.within(f"filter by fields among {parts}", fields, SEARCH_MS, 0.95),
        _taking_in(shelf, min(parts, 5000)),
    ]


def _taking_in(shelf: Shelf, rows: int) -> Result:
    """Measure reading and storing a table of parts as XLSX."""
    parts = [
        Part(f"in-{i}", "Maker", f"IN-{i:05d}", "relay", f"Relay {i}", ratings={"coil_voltage_v": "24"}, width_mm=20)
        for i in range(rows)
    ]
    content = table_xlsx(parts_table(parts))

    def take() -> None:
        cells = read_cells(content, "parts.xlsx", formulas=True)
        checked = check_rows(cells, guessed_mapping(cells[0]), lambda maker, number: None)
        good = [replace(r.part, id=f"in-{n}") for n, r in enumerate(checked) if r.part and not r.problems]
        store_parts(good, shelf, by="bench")

    limit = IMPORT_S * 1000 * rows / 5000
    pace = Pace()
    return pace.within(f"XLSX of {rows} parts taken in", [pace.timed(take)], limit, None)
