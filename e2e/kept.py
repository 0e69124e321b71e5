"""The page that is kept from story to story: what its process knows of the scripts need not be compiled each time."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, TypeVar

from playwright.sync_api import Browser, BrowserContext, Error, Page

WINDOW = {"width": 1280, "height": 800}
IDLE = "/mark.svg"  # of the same server, so that the process stays, and nothing runs there
# What would go on in the stories after the one that says it.
LASTING = ("on", "once", "route", "add_init_script", "expose_function", "expose_binding")
Story = TypeVar("Story", bound=Callable[..., None])


def apart(story: Story) -> Story:
    """Give a story a page of its own: one that listens to what is asked, or holds it up."""
    story.__dict__["apart"] = True
    return story


def _refused(*_: Any, **__: Any) -> None:
    raise AssertionError("This page is kept for other stories: mark this one with @apart.")


def new_page(browser: Browser, slowest_ms: int, problems: list[str]) -> Page:
    """Return a page of a context of its own; what its scripts do not catch is added to the problems."""
    context = browser.new_context(viewport=WINDOW, reduced_motion="reduce")  # type: ignore[arg-type]  # its stub is narrower
    context.set_default_timeout(slowest_ms)
    page = context.new_page()
    page.on("pageerror", lambda error: problems.append(str(error)))
    return page


class KeptPage:
    """The page in which stories begin, of one browser."""

    def __init__(self) -> None:
        self._page: Page | None = None
        self.problems: list[str] = []

    def begin(self, browser: Browser, slowest_ms: int) -> Page:
        """Return the page, with nothing in it of what was before; its problems are those of the story that begins."""
        self.problems.clear()
        if self._page is None:
            self._page = new_page(browser, slowest_ms, self.problems)
            for name in LASTING:
                setattr(self._page, name, _refused)
        return self._page

    def end(self, address: str) -> BrowserContext | None:
        """Leave the page on an address of the server, with the scripts it has loaded and nothing else of the story.

        Returns:
            its context; None where it could not be left so, and is to be closed.
        """
        page, self._page = self._page, None
        assert page is not None
        try:
            for other in page.context.pages:
                if other is not page:
                    other.close()
            page.goto(address + IDLE)
            self._emptied(page.context, page, address)
            if page.viewport_size != WINDOW:
                page.set_viewport_size(WINDOW)  # type: ignore[arg-type]  # its stub is narrower
        except Error:
            return None
        self._page = page
        return page.context

    @staticmethod
    def _emptied(context: BrowserContext, page: Page, address: str) -> None:
        page.evaluate("sessionStorage.clear()")
        kept = {"origin": address, "storageTypes": "cookies,local_storage,indexeddb"}
        session = context.new_cdp_session(page)
        session.send("Storage.clearDataForOrigin", kept)
        session.detach()
