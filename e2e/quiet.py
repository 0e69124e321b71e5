"""When the server of a story has nothing to do any more: what a page asked for last must not reach the next story."""

from __future__ import annotations

import threading
from typing import Any

from django.core.signals import request_finished, request_started

PATIENCE_S = 60.0  # then the next story begins all the same


class Requests:
    """Counts the requests that are being answered in this process."""

    def __init__(self) -> None:
        self._running, self._changed = 0, threading.Condition()
        request_started.connect(self._begin, weak=False)
        request_finished.connect(self._end, weak=False)

    def _begin(self, **_: Any) -> None:
        with self._changed:
            self._running += 1

    def _end(self, **_: Any) -> None:
        with self._changed:
            self._running = max(0, self._running - 1)
            self._changed.notify_all()

    def settle(self) -> None:
        """Wait until none is being answered."""
        with self._changed:
            self._changed.wait_for(lambda: self._running == 0, PATIENCE_S)
            self._running = 0
