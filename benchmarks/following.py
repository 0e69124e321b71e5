"""The budgets of what follows an edit: snags, other people, sizes of projects, memory."""

from __future__ import annotations

import gc
import json
import time
from typing import Any

from django.contrib.auth import get_user_model
from django.test import Client

from benchmarks.generate import synthetic
from benchmarks.measure import Pace, Result, percentile
from jolly_core.checks import all_snags, snags_on
from jolly_core.edits import parse_edit, perform
from jolly_core.edits.base.history import take_back
from jolly_core.library import definition
from jolly_core.model import Project
from jolly_core.reports import traced
from jolly_server.projects.models import Membership
from jolly_server.projects.services import create_project
from jolly_server.projects.store import loaded

SNAGS_MS = 20.0
TRACE_MS = 20.0
LOADS = ("coil", "lamp", "load", "motor", "supply")  # units of symbols that take current
PEOPLE, PEOPLE_MS, PEOPLE_KB = 30, 30.0, 30.0
NO_OPS_MS = 15.0  # CPU of a POST that does nothing by each of these people, in a quiet minute of the usual machine


def moves(project: Project, turns: int) -> Any:
    """Yield once after each of some moves of a lamp in the middle of a project, there and back."""
    sheets = project.sheets_in_order()
    sheet = sheets[len(sheets) // 2].id
    lamp = next(s for s in project.symbols_on(sheet) if s.definition == "lamp")
    for turn in range(turns):
        edit = {"kind": "move-selection", "ids": [lamp.id], "dx": 1 if turn % 2 else -1, "dy": 0}
        perform(project, parse_edit(edit))
        yield sheet


def snags(sheets: int, rounds: int) -> list[Result]:
    """Measure all snags after one edit, in projects of 200 sheets and of many, and the many against the few."""
    times: dict[int, list[float]] = {}
    pace = Pace()
    for count in (min(200, sheets), 2 * sheets):
        project = synthetic(count)
        all_snags(project)
        gc.freeze()
        times[count] = [pace.timed(all_snags, project) for _ in moves(project, 4 * rounds)]
        own = percentile([pace.timed(snags_on, project, sheet) for sheet in moves(project, 4 * rounds)], 0.5)
    few, many = (percentile(values, 0.5) for values in times.values())
    return [
        *(pace.within(f"all snags after one edit, {n} sheets", values, SNAGS_MS) for n, values in times.items()),
        Result(f"the same, {list(times)[1]} sheets / {list(times)[0]} sheets", few, many, 1.3),
        Result("of it the snags of the sheet itself", many, own, 0),
    ]


def traces(sheets: int, rounds: int) -> Result:
    """Measure the traces of loads all over a project that is open, from source to return."""
    project = synthetic(min(200, sheets))
    loads = [id for id, symbol in sorted(project.symbols.items()) if definition(symbol.definition).unit in LOADS]
    some = loads[:: max(1, len(loads) // (20 * rounds))]
    pace = Pace()
    for id in some:
        traced(project, id)
    return pace.within("a trace of a load", [pace.timed(traced, project, id) for id in some], TRACE_MS)


def sizes(sheets: int, rounds: int) -> list[Result]:
    """Measure edits in a large project against the same in one of 50 sheets."""
    found: dict[str, list[float]] = {}
    for count in (50, 2 * sheets):
        project = synthetic(count)
        middle = project.sheets_in_order()[count // 2]
        kind = next(iter(project.wire_types))
        times: dict[str, list[float]] = {"draw-wire": [], "number-tags": [], "undo of a duplicated sheet": []}
        for turn in range(5 * rounds):
            x = 20 + 2 * (turn % 30)
            draw = {"kind": "draw-wire", "sheet_id": middle.id, "points": [[x, 98], [x, 104]], "wire_type_id": kind}
            start = time.perf_counter()
            done = perform(project, parse_edit(draw)).changes
            times["draw-wire"].append((time.perf_counter() - start) * 1000)
            project.apply(take_back(project, done))
            tags = {"kind": "number-tags", "sheet_ids": [middle.id], "start": 1 + turn % 2}
            start = time.perf_counter()
            done = perform(project, parse_edit(tags)).changes
            times["number-tags"].append((time.perf_counter() - start) * 1000)
            project.apply(take_back(project, done))
            copy = perform(
                project, parse_edit({"kind": "duplicate-sheet", "sheet_id": middle.id, "number": f"C{turn}"})
            ).changes
            start = time.perf_counter()
            project.apply(take_back(project, copy))
            times["undo of a duplicated sheet"].append((time.perf_counter() - start) * 1000)
        for name, values in times.items():
            found.setdefault(name, []).append(percentile(values, 0.5))
    return [Result(f"{name}, {2 * sheets} sheets / 50 sheets", *both, 1.3) for name, both in found.items()]


def people(sheets: int, rounds: int) -> list[Result]:
    """Measure one edit, with what it finds, and the next questions of 29 others, above as many requests for nothing."""
    project = synthetic(sheets)
    names = [f"person-{n}" for n in range(PEOPLE)]
    users = [get_user_model().objects.create(username=name) for name in names]
    project_id = create_project(users[0], project)
    Membership.objects.bulk_create(Membership(project_id=project_id, user=u, role="editor") for u in users[1:])
    ids = [s.id for s in project.sheets_in_order()]
    shown = [ids[n * len(ids) // PEOPLE] for n in range(PEOPLE)]
    lamp = next(s for s in project.symbols_on(shown[0]) if s.definition == "lamp")
    url = f"/api/projects/{project_id}"
    clients = [Client() for _ in users]
    for client, user in zip(clients, users, strict=True):
        client.force_login(user)

    def news(n: int, since: int, key: str) -> Any:
        return clients[n].get(f"{url}/changes?since={since}&sheet_id={shown[n]}&people_key={key}")

    known = [news(n, -1, "").json() for n in range(PEOPLE)]
    gc.freeze()
    costs, floors, sizes = [], [], []
    for turn in range(4 * rounds):
        edit = {"kind": "move-selection", "ids": [lamp.id], "dx": 1 if turn % 2 else -1, "dy": 0}
        start = time.process_time()
        for client in clients:
            client.post("/no-op", "{}", content_type="application/json")
        floors.append((time.process_time() - start) * 1000)
        body = json.dumps({"edit": edit, "sheet_id": shown[0], "since": known[0]["revision"]})
        start = time.process_time()
        answers = [clients[0].post(f"{url}/edits", body, content_type="application/json")]
        revision, before = answers[0].json()["revision"], known[0]["revision"]
        answers.append(clients[0].get(f"{url}/changes?since={revision}&found={before}&sheet_id={shown[0]}"))
        answers += [news(n, known[n]["revision"], known[n]["people_key"]) for n in range(1, PEOPLE)]
        costs.append((time.process_time() - start) * 1000)
        sizes.append(sum(len(a.content) for a in answers) / 1000)
        known = [{"people_key": "", **a.json()} for a in answers[1:]]
    name = f"{PEOPLE} people on {PEOPLE} of {sheets} sheets, an edit and all questions"
    return [
        Result(
            f"{name} ({PEOPLE_MS:g} ms of CPU more) / as many no-op POSTs",
            percentile(floors, 0.5),
            percentile(costs, 0.5),
            (NO_OPS_MS + PEOPLE_MS) / NO_OPS_MS,
        ),
        Result(f"the same, sent (kB) / {PEOPLE_KB:g} kB", PEOPLE_KB, percentile(sizes, 0.5), 1.0),
    ]


def memory(sheets: int) -> list[Result]:
    """Measure what a project takes in memory, loaded and with all snags found, against what the server counts."""
    from jolly_server.projects.store import ENTITY_BYTES, VALUE_BYTES

    anna = get_user_model().objects.get(username="anna")
    project_id = create_project(anna, synthetic(sheets))
    gc.collect()
    before = _resident_mb()
    held = loaded(project_id)
    empty = _resident_mb()
    all_snags(held.project)
    full = _resident_mb()
    return [
        Result(
            f"MB of {sheets} sheets loaded / as counted ({ENTITY_BYTES} B each)",
            held.entity_bytes / 1e6,
            empty - before,
            1.3,
        ),
        Result(
            f"MB of all that snags stand on / as counted ({VALUE_BYTES} B each)",
            held.value_bytes / 1e6,
            full - empty,
            1.3,
        ),
    ]


def _resident_mb() -> float:
    with open("/proc/self/statm") as file:
        return int(file.read().split()[1]) * 4096 / 1e6
