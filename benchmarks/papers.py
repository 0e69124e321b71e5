"""Budgets of what leaves the office: lists, the difference of two states, and an edit beside a running pack."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable
from typing import Any

from waitress.server import create_server

from benchmarks.generate import synthetic
from benchmarks.measure import Pace, Result, percentile, timed
from benchmarks.server import Browser
from jolly_core.checks import all_snags
from jolly_core.comparing import difference
from jolly_core.edits import compute, parse_edit
from jolly_core.model import Project, copied
from jolly_core.reports import run_report
from jolly_server.entrance.wsgi import application
from jolly_server.projects.services import create_project

LIST_MS = DIFFERENCE_MS = 3000.0
PACKED = 40  # sheets


def _moved(project: Project, turn: int) -> None:
    """Move a lamp, as an edit of an open project does."""
    sheet = project.sheets_in_order()[len(project.sheets) // 2].id
    lamp = next(s for s in project.symbols_on(sheet) if s.definition == "lamp")
    edit = {"kind": "move-selection", "ids": [lamp.id], "dx": 1 if turn % 2 else -1, "dy": 0}
    project.apply(compute(project, parse_edit(edit)).changes)


def papers(sheets: int, rounds: int) -> list[Result]:
    """Measure the wire list, the parts list and the difference of two states: at first, then after each edit.

    Notes:
        The project is open: its snags are counted, which a browser asks for when it comes in.
    """
    project = synthetic(sheets)
    before = copied(project)
    opened = timed(all_snags, project)

    def both() -> None:
        for report in ("wires", "parts"):
            run_report(project, report)

    found: list[Result] = []

    def measured(words: str, act: Callable[[], object], budget_ms: float) -> None:
        at_first, after, later = Pace(), Pace(), []
        first = at_first.timed(act)
        for turn in range(rounds):
            _moved(project, turn)
            later.append(after.timed(act))
        found.append(at_first.within(f"{words}, at first", [first], budget_ms, None))
        found.append(after.within("the same after an edit", later, budget_ms, 0.95))

    found.append(Result(f"snags of {sheets} sheets counted, as it is opened", opened, opened, 0.0))
    measured(f"wire list and parts list of {sheets} sheets", both, 2 * LIST_MS)
    measured(f"difference of two states of {sheets} sheets", lambda: difference(before, project), DIFFERENCE_MS)
    return found


def beside_a_pack(rounds: int, sheets: int = PACKED) -> Result:
    """Measure the p95 of an edit over HTTP while all papers of the project are written, against the quiet one."""
    from django.contrib.auth import get_user_model

    project = synthetic(sheets)
    project_id = create_project(get_user_model().objects.get(username="anna"), project)
    server = create_server(application, host="127.0.0.1", port=0, threads=4, ident=None)
    threading.Thread(target=server.run, daemon=True).start()
    browser = Browser(server.effective_port)
    url = f"/api/projects/{project_id}"
    sheet = project.sheets_in_order()[sheets // 2].id
    lamp = next(s for s in project.symbols_on(sheet) if s.definition == "lamp")

    def edit(turn: int) -> float:
        body = {"edit": {"kind": "move-selection", "ids": [lamp.id], "dx": 1 if turn % 2 else -1, "dy": 0}}
        return timed(browser.ask, "POST", f"{url}/edits", body)

    edit(0)
    quiet = [edit(turn) for turn in range(1, 60 * rounds)]
    run: dict[str, Any] = browser.ask("POST", f"{url}/pack-runs", {"pack_id": ""})
    busy, began = [], time.monotonic()
    while run["state"] == "running" and time.monotonic() - began < 600:
        busy += [edit(turn) for turn in range(20)]
        run = browser.ask("GET", f"{url}/pack-runs/{run['id']}")
    server.close()
    if run["state"] != "done":
        raise RuntimeError(f"the pack of {sheets} sheets is {run['state']}: {run['why']}")
    name = f"edit over HTTP, p95, beside a pack of {sheets} sheets ({len(busy)} edits) / quiet"
    return Result(name, percentile(quiet, 0.95), percentile(busy, 0.95), 1.5)
