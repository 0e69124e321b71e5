"""What browser stories share: the server with the demo, a browser, and the gestures of a person at the sheet."""

from __future__ import annotations

import os
import socket
import sqlite3
from dataclasses import replace
from typing import Any

from django.conf import settings
from django.contrib.auth import get_user_model
from django.core.cache import cache
from django.db import connection
from django.test import Client, LiveServerTestCase, override_settings
from django.test.testcases import LiveServerThread, QuietWSGIRequestHandler
from playwright.sync_api import Browser, Locator, Page, Playwright, expect, sync_playwright

from jolly_core.drawing import is_canonical, pin_points, through_spans
from jolly_core.model import Project
from jolly_core.testing import HANGS_S
from jolly_server.accounts.api import DEMO_USER
from jolly_server.demo.services import PROJECTS, seed
from jolly_server.projects.store import load_rows
from jolly_server.testing.warmth import as_seeded

from .chromium import CHROMIUM, FLAGS
from .kept import KeptPage, new_page
from .quiet import Requests

os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "true")  # playwright keeps an event loop in this thread
# For pictures in space: without a graphics card, WebGL is worked out by the processor.
SPACE_FLAGS = [f for f in FLAGS if f != "--disable-gpu"] + ["--enable-unsafe-swiftshader"]
SLOWEST_MS = int(HANGS_S * 1000)  # a busy machine is slower, not wrong
expect.set_options(timeout=SLOWEST_MS)
SHEET_MM = 2.5
NOT_FITTED = "0,0,3"  # the view before the sheet is fitted into it
SEEDED: list[sqlite3.Connection] = []
EMPTY: list[sqlite3.Connection] = []
DEMO = override_settings(JOLLY=replace(settings.JOLLY, demo=True))


def _free_port() -> int:
    with socket.socket() as found:
        found.bind(("127.0.0.1", 0))
        return int(found.getsockname()[1])


PORT = _free_port()  # one for all stories, so that scripts once loaded are known in the next one
PLAYWRIGHT: list[Playwright] = []
REQUESTS = Requests()
BROWSERS: dict[tuple[str, ...], Browser] = {}
KEPT: dict[tuple[str, ...], KeptPage] = {}


def browser_with(flags: tuple[str, ...]) -> Browser:
    """Return the browser started with some flags, the same one for all stories."""
    if flags not in BROWSERS:
        if not BROWSERS:
            PLAYWRIGHT.append(sync_playwright().start())
        BROWSERS[flags] = PLAYWRIGHT[0].chromium.launch(executable_path=CHROMIUM, args=list(flags))
    return BROWSERS[flags]


def copied_out() -> sqlite3.Connection:
    """Return a copy of the database in memory."""
    copy = sqlite3.connect(":memory:")
    connection.connection.backup(copy)
    return copy


class ServerOnOnePort(LiveServerThread):
    """The live server of a story, on the port that the one before has just left."""

    def _create_server(self, connections_override: Any = None) -> Any:
        return self.server_class(
            (self.host, self.port),
            QuietWSGIRequestHandler,
            allow_reuse_address=True,
            connections_override=connections_override,
        )


@DEMO
class Story(LiveServerTestCase):
    """A browser story against a live server with the demo loaded."""

    flags = FLAGS
    port = PORT
    server_thread_class = ServerOnOnePort

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.browser = browser_with(tuple(cls.flags))

    def setUp(self) -> None:
        connection.ensure_connection()
        if not EMPTY:
            EMPTY.append(copied_out())
        self.seeded()
        as_seeded(PROJECTS)
        self.kept = KEPT.setdefault(tuple(self.flags), KeptPage())
        alone = getattr(getattr(self, self._testMethodName), "apart", False)
        page = self.kept.begin(self.browser, SLOWEST_MS)
        self.problems = self.kept.problems
        self.page = self.visitor() if alone else page

    def tearDown(self) -> None:
        kept = self.kept.end(self.live_server_url)
        for context in self.browser.contexts:
            if context is not kept:
                context.close()
        cache.clear()  # sessions, too: what is still on its way comes from nobody
        REQUESTS.settle()
        self.assertEqual(self.problems, [], "the browser reported errors")

    def _fixture_teardown(self) -> None:
        """Empty the database by a copy of what it was: to flush it takes half a second."""
        connection.ensure_connection()
        EMPTY[0].backup(connection.connection)

    @staticmethod
    def seeded() -> None:
        """Fill the database as the demo does: once in full, after that from a copy of what that gave."""
        connection.ensure_connection()
        if not SEEDED:
            seed(settings.JOLLY.demo_files)
            SEEDED.append(copied_out())
        else:
            SEEDED[0].backup(connection.connection)

    def visitor(self) -> Page:
        """Open a browser of its own, at no page yet."""
        return new_page(self.browser, SLOWEST_MS, self.problems)

    def at_the_door(self) -> Page:
        """Open the first page, as nobody."""
        self.page.goto(self.live_server_url)
        return self.page

    def sign_in(self, page: Page, address: str = "") -> None:
        """Come in as Anna, at an address or on the first sheet of the kiln project."""
        client = Client()
        client.force_login(get_user_model().objects.get(username=DEMO_USER))
        name = settings.SESSION_COOKIE_NAME
        page.context.add_cookies([{"name": name, "value": client.cookies[name].value, "url": self.live_server_url}])
        page.goto(f"{self.live_server_url}/{address or 'p/kiln-2'}")
        if not address:
            self.symbols(page).first.wait_for()

    def new_sheet(self, page: Page, number: str, title: str) -> None:
        """Add an empty ladder sheet and wait for its rails."""
        page.get_by_role("button", name="Add a sheet", exact=True).click()
        page.get_by_label("Number", exact=True).first.fill(number)
        page.get_by_label("Title", exact=True).first.fill(title)
        page.get_by_role("button", name="Add", exact=True).click()
        expect(page.locator("[data-kind=wire]")).to_have_count(2)
        expect(page.get_by_test_id("place")).to_contain_text(f"line {number}1")

    def paste(self, page: Page, text: str) -> None:
        """Paste a text into what has the focus, as from a spreadsheet."""
        page.evaluate(
            """text => {
                const data = new DataTransfer()
                data.setData('text/plain', text)
                const event = new ClipboardEvent('paste', {clipboardData: data, bubbles: true, cancelable: true})
                document.activeElement.dispatchEvent(event)
            }""",
            text,
        )

    @staticmethod
    def symbols(page: Page) -> Locator:
        return page.locator("svg[data-testid=sheet] [data-kind=symbol]")

    def pixel(self, page: Page, gx: float, gy: float) -> tuple[float, float]:
        """Return where a grid point is on the screen."""
        sheet = page.get_by_test_id("sheet")
        expect(sheet).not_to_have_attribute("data-view", NOT_FITTED)
        x, y, scale = (float(v) for v in (sheet.get_attribute("data-view") or "").split(","))
        box = sheet.bounding_box() or {"x": 0.0, "y": 0.0}
        return box["x"] + (gx * SHEET_MM - x) * scale, box["y"] + (gy * SHEET_MM - y) * scale

    def fit(self, page: Page) -> None:
        """Bring all that is drawn into view, and wait until it has settled there."""
        page.get_by_test_id("place").click()
        page.keyboard.press("0")
        page.wait_for_function("() => !document.querySelector('svg[data-testid=sheet]').getAnimations().length")

    @staticmethod
    def core(page: Page, name: str) -> Locator:
        """Return the row of a core in the table of a cable."""
        cell = page.locator("[data-key=name]").get_by_text(name, exact=True)
        return page.get_by_role("grid").get_by_role("row").filter(has=cell)

    def click(self, page: Page, gx: float, gy: float) -> None:
        """Click a grid point."""
        page.mouse.click(*self.pixel(page, gx, gy))

    def wire(self, page: Page, *points: tuple[int, int]) -> None:
        """Draw a wire by clicking its corners; the last click on something ends it, Enter elsewhere."""
        before = self.revision()
        page.keyboard.press("w")
        for gx, gy in points:
            page.mouse.move(*self.pixel(page, gx, gy))
            self.click(page, gx, gy)
        page.keyboard.press("Enter")
        self.accepted(page, before)

    def drag(self, page: Page, start: tuple[float, float], end: tuple[float, float]) -> None:
        """Drag from a grid point to another, by way of the middle."""
        page.mouse.move(*self.pixel(page, *start))
        page.mouse.down()
        page.mouse.move(*self.pixel(page, (start[0] + end[0]) / 2, (start[1] + end[1]) / 2))
        page.mouse.move(*self.pixel(page, *end))
        page.mouse.up()

    def place(self, page: Page, gx: int, gy: int, typed: str, line: str) -> None:
        """Put the caret somewhere, type, and choose a line of the list."""
        before = self.revision()
        self.click(page, gx, gy)
        page.keyboard.press("Escape")
        page.keyboard.type(typed)
        option = page.get_by_test_id("place-box").get_by_role("option").filter(has_text=line).first
        option.click()
        self.accepted(page, before)

    def accepted(self, page: Page, before: int) -> None:
        """Wait until the page shows a revision later than the one given, and no list or preview any more."""
        page.wait_for_function(
            "(before) => Number(document.querySelector('[data-revision]')?.dataset.revision ?? -1) > before",
            arg=before,
        )
        expect(page.get_by_test_id("place-box")).to_have_count(0)
        expect(page.locator("[data-look=preview]")).to_have_count(0)

    def project(self, project_id: str = "kiln-2") -> Project:
        """Return the project as it is stored."""
        return load_rows(project_id)

    @staticmethod
    def revision(project_id: str = "kiln-2") -> int:
        from jolly_server.projects.models import ProjectRow

        return ProjectRow.objects.values_list("revision", flat=True).get(pk=project_id)

    def assert_canonical(self, project: Project) -> None:
        """Check the wires of every sheet."""
        for sheet in project.sheets.values():
            symbols = project.symbols_on(sheet.id)
            pins = [p for s in symbols for p in pin_points(s)]
            pins += [(c.x, c.y) for c in project.continuations_on(sheet.id)]
            spans: list[Any] = [span for s in symbols for span in through_spans(s)]
            self.assertTrue(is_canonical(project.wires_on(sheet.id), pins, spans), sheet.number)
