"""Budgets of the screen, in headless Chromium: opening a sheet, frames while it is moved, from a key to the paint."""

from __future__ import annotations

import statistics
import sys
import threading
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import replace
from typing import Any

from playwright.sync_api import Locator, Page, sync_playwright
from waitress.server import create_server

from benchmarks.generate import synthetic, template
from benchmarks.measure import Result
from benchmarks.panel import panel
from e2e.chromium import CHROMIUM, FLAGS
from jolly_core.model import Project
from jolly_server.entrance.serving import SWITCH_S
from jolly_server.entrance.wsgi import application
from jolly_server.projects.services import create_project

FRAME_MS = 1000 / 60
STEPS = 90  # in which what is shown is moved
OPEN_MS, EDIT_MS = 150.0, 40.0
NOTHING_MS = 7.5  # what NOTHING takes in a quiet minute of the machine that budgets in ms are meant for
SCROLL_TO = """(list, row) => {
    const [one, next] = Array.from(list.querySelectorAll('a'), (a) => a.getBoundingClientRect().top)
    list.scrollTop = row * (next - one)
}"""
LOOKED_AT_MS = 1_000  # before one pages on
ALONE_FROM = 60  # the place of the first of sheets that are opened one at a time
POINTED_MS = 250  # from when the pointer comes to rest until it clicks
PAGE_DOWN = "document.body.dispatchEvent(new KeyboardEvent('keydown', {key: 'PageDown', bubbles: true}))"
REST_MS = 400  # between two keys, so that one edit is measured and not a queue of them
COPIES, PITCH = (3, 3), (150, 100)  # copies of the template across and down a dense sheet, and their pitch in steps
SETTLED = "() => !document.querySelector('svg[data-testid=sheet]').getAnimations().length"
# Notes the time of each key and, after what it changed on the sheet was painted, how long that took.
WATCH = """() => {
    window.paints = []
    let pressed = 0
    addEventListener('keydown', () => { pressed = performance.now() }, true)
    new MutationObserver(() => {
        if (!pressed) return
        const from = pressed
        pressed = 0
        requestAnimationFrame(() => {
            const channel = new MessageChannel()
            channel.port1.onmessage = () => window.paints.push(performance.now() - from)
            channel.port2.postMessage(0)
        })
    }).observe(document.querySelector('svg[data-testid=sheet]'), {childList: true, subtree: true, attributes: true,
        attributeFilter: ['data-id', 'x1', 'x2', 'y1', 'y2', 'transform', 'x', 'y', 'd']})
}"""
# The least that an edit needs: the server is told, does nothing, answers, and a frame comes.
NOTHING = """async () => {
    const from = performance.now()
    const token = document.cookie.match(/spool_csrf=([^;]+)/)[1]
    const headers = {'X-CSRFToken': token, 'Content-Type': 'application/json'}
    await (await fetch('/no-op', {method: 'POST', headers, body: '{}'})).text()
    return new Promise((done) => requestAnimationFrame(() => {
        const channel = new MessageChannel()
        channel.port1.onmessage = () => done(performance.now() - from)
        channel.port2.postMessage(0)
    }))
}"""
FRAMES = """() => {
    window.frames_ms = []
    let last = 0
    const step = (now) => {
        if (last) window.frames_ms.push(now - last)
        last = now
        window.frameLoop = requestAnimationFrame(step)
    }
    window.frameLoop = requestAnimationFrame(step)
}"""


def dense(share: float = 1.0) -> Project:
    """Return a project whose one sheet has about 1,500 wires and symbols, and junctions, numbers, contact tables.

    Args:
        share: how much of it.
    """
    project = template().project
    sheet = next(iter(project.sheets.values()))
    project.load("sheet", [replace(sheet, size="A0")])
    for kind in ("device", "symbol", "wire"):
        copies: list[Any] = []
        for n in range(1, max(2, round(COPIES[0] * COPIES[1] * share))):
            dx, dy = PITCH[0] * (n % COPIES[0]), PITCH[1] * (n // COPIES[0])
            for e in list(project.tables[kind].values()):
                if kind == "device":
                    copies.append(replace(e, id=f"{e.id}-{n}", number=e.number + 100 * n))
                elif kind == "symbol":
                    owner = e.device_id and f"{e.device_id}-{n}"
                    copies.append(replace(e, id=f"{e.id}-{n}", x=e.x + dx, y=e.y + dy, device_id=owner))
                else:
                    at = {"x1": e.x1 + dx, "x2": e.x2 + dx, "y1": e.y1 + dy, "y2": e.y2 + dy}
                    copies.append(replace(e, id=f"{e.id}-{n}", **at))
        project.load(kind, copies)
    return project


@contextmanager
def browser() -> Iterator[tuple[Page, str]]:
    """Give a page that is signed in as the demo's designer, and the server's address."""
    sys.setswitchinterval(SWITCH_S)
    server = create_server(application, host="127.0.0.1", port=0, threads=4, ident=None)
    threading.Thread(target=server.run, daemon=True).start()
    address = f"http://127.0.0.1:{server.effective_port}"
    with sync_playwright() as player:
        chromium = player.chromium.launch(executable_path=CHROMIUM, args=FLAGS)
        page = chromium.new_page(viewport={"width": 1280, "height": 800})
        page.set_default_timeout(60_000)
        page.goto(address)
        page.get_by_role("button", name="Open the demo project").click()
        page.get_by_role("link", name="Kiln 2").wait_for()
        yield page, address
        chromium.close()


def _painted(page: Page) -> None:
    page.locator("svg[data-testid=sheet] [data-kind=symbol]").first.wait_for()
    page.wait_for_function(SETTLED)


def _frames(page: Page, steps: int, act: Any) -> float:
    page.evaluate(FRAMES)
    for step in range(steps):
        act(step)
        page.evaluate("() => new Promise((done) => requestAnimationFrame(done))")
    found = page.evaluate("() => { cancelAnimationFrame(window.frameLoop); return window.frames_ms }")
    page.wait_for_function(SETTLED)
    return statistics.median(found)


def _moved(page: Page, steps: int) -> tuple[float, float]:
    """Return how long a frame takes while what is shown is moved there and back in steps, and zoomed, ms."""
    half = steps // 2
    page.mouse.move(640, 400)
    page.keyboard.down("Space")
    page.mouse.down()
    pan = _frames(page, steps, lambda n: page.mouse.move(640 + 2 * (n if n < half else steps - n), 400))
    page.mouse.up()
    page.keyboard.up("Space")
    return pan, _frames(page, steps, lambda n: page.mouse.wheel(0, -12 if n < half else 12))


def screen(sheets: int, rounds: int, share: float = 1.0) -> list[Result]:
    """Measure the screen's budgets on a dense sheet and in a project of many sheets."""
    from django.contrib.auth import get_user_model

    anna = get_user_model().objects.get(username="anna")
    crowded, large = dense(share), synthetic(sheets)
    steps = max(10, round(STEPS * share))
    names = create_project(anna, crowded), create_project(anna, large), create_project(anna, panel(share))
    with browser() as (page, address):
        page.goto(f"{address}/p/{names[0]}/draw")
        _painted(page)
        things = page.locator("svg[data-testid=sheet] [data-kind]").count()
        pan, zoom = _moved(page, steps)
        page.goto(f"{address}/p/{names[2]}/cabinet")
        page.locator("svg[data-testid=sheet] [data-kind=placing]").first.wait_for()
        page.wait_for_function(SETTLED)
        devices = page.locator("svg[data-testid=sheet] [data-kind=placing]").count()
        plate_pan, plate_zoom = _moved(page, steps)
        page.goto(f"{address}/p/{names[1]}/draw")
        _painted(page)
        floors = _nothing(page, 5 * rounds)
        opened = [_opening(page, _click(n)) for n in range(2, 2 + 4 * rounds)]
        alone = _alone(page, sheets, rounds)
        paged = [_opening(page, PAGE_DOWN) for _ in _looked_at(page, 4 * rounds)]
        rows = page.locator("[data-testid=sheet-tree] a:not([href*=':'])")  # drawn ones, no plans and lists
        pointed = [_pointed(page, rows, 2 * n) for n in range(2, 2 + 2 * rounds)]
        floors += _nothing(page, 5 * rounds)
        edits = _edits(page, rounds)
        floors += _nothing(page, 5 * rounds)
    frame = FRAME_MS

    def within(name: str, times: list[float], budget_ms: float) -> Result:
        floor = statistics.median(floors)
        words = f"{name} ({budget_ms:g} ms) / a no-op POST and a frame"
        return Result(words, floor, statistics.median(times), budget_ms / NOTHING_MS)

    return [
        Result(f"a frame while {things} things are moved / 60 a second", frame, pan, 1.1),
        Result(f"a frame while {things} things are zoomed / 60 a second", frame, zoom, 1.1),
        Result(f"a frame while a plate of {devices} devices is moved / 60 a second", frame, plate_pan, 1.1),
        Result(f"a frame while a plate of {devices} devices is zoomed / 60 a second", frame, plate_zoom, 1.1),
        within(f"a sheet of {sheets} opened after another", opened, OPEN_MS),
        *([within("each looked at first", alone, OPEN_MS)] if alone else []),
        within(f"the next of {sheets} sheets opened", paged, OPEN_MS),
        within(f"one of {sheets} sheets pointed at, opened", pointed, OPEN_MS),
        within(f"key to painted edit, {sheets} sheets", edits, EDIT_MS),
    ]


def _nothing(page: Page, times: int) -> list[float]:
    """Return how long the least that an edit needs takes, so many times, ms."""
    found = []
    for _ in range(times):
        page.wait_for_timeout(REST_MS / 4)
        found.append(float(page.evaluate(NOTHING)))
    return found


def _alone(page: Page, sheets: int, rounds: int) -> list[float]:
    """Return how long sheets take that are neither seen before nor beside the one looked at; [] where there are few."""
    rows = range(ALONE_FROM, ALONE_FROM + 6 * rounds, 3)
    if rows.stop > sheets:
        return []
    tree, found = page.get_by_test_id("sheet-tree"), []
    for row in rows:  # only the rows that are in sight are in the page
        tree.evaluate(SCROLL_TO, row)
        page.wait_for_timeout(LOOKED_AT_MS)
        found.append(_opening(page, "rows[rows.length >> 1].click()"))
    return found


def _click(row: int) -> str:
    return f"rows[{row} % rows.length].click()"


def _looked_at(page: Page, times: int) -> Iterator[None]:
    """Give as many turns, before each of which a sheet is looked at."""
    for _ in range(times):
        page.wait_for_timeout(LOOKED_AT_MS)
        yield


def _opening(page: Page, act: str) -> float:
    """Return how long it takes from an act in the page until another sheet is painted, ms."""
    took: float = page.evaluate(
        """(act) => new Promise((done, fail) => {
            const rows = [...document.querySelectorAll('[data-testid=sheet-tree] a')]
            const sheet = () => document.querySelector('svg[data-testid=sheet] [data-kind=symbol]')?.dataset.id
            const before = sheet(), from = performance.now()
            const look = () => {
                if (sheet() && sheet() !== before) requestAnimationFrame(() => done(performance.now() - from))
                else if (performance.now() - from > 30_000) fail(new Error(`No other sheet came after ${act}`))
                else requestAnimationFrame(look)
            }
            new Function('rows', act)(rows)
            look()
        })""",
        act,
    )
    return took


def _pointed(page: Page, rows: Locator, place: int) -> float:
    """Return how long it takes when the pointer comes to a row as a hand moves it, and clicks, ms."""
    page.wait_for_timeout(LOOKED_AT_MS)  # the list has followed to the sheet that was opened last
    # Only what is in sight is in the page.
    seen: list[str] = rows.evaluate_all("(rows) => rows.map((row) => row.getAttribute('href'))")
    others = [href for href in seen if not page.url.endswith(href)]
    row = page.get_by_test_id("sheet-tree").locator(f"a[href='{others[place % len(others)]}']")
    row.hover()
    page.wait_for_timeout(POINTED_MS)
    at = row.evaluate("(row) => [...document.querySelectorAll('[data-testid=sheet-tree] a')].indexOf(row)")
    return _opening(page, _click(at))


def _edits(page: Page, rounds: int) -> list[float]:
    """Return the times from a key that changes the selected symbol to the paint of it, ms.

    A letter by itself waits for a second one, which would make a word of it; the key after it says that none comes, so
    that the application is measured and not that wait.
    """
    page.locator("svg[data-testid=sheet] [data-kind=symbol]").first.click()
    page.evaluate(WATCH)
    for turn in range(6 * rounds):
        page.keyboard.press("f")
        page.keyboard.press("Control")
        page.wait_for_function("(n) => window.paints.length > n", arg=turn)
        page.wait_for_timeout(REST_MS)
    found: list[float] = page.evaluate("() => window.paints")
    return found[2:]
