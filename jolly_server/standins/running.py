"""How stand-ins run: for as long as the process that started them is there."""

from __future__ import annotations

import os
import threading
from collections.abc import Callable
from http.server import ThreadingHTTPServer


def _alive(process: int) -> bool:
    try:
        os.kill(process, 0)
    except OSError:
        return False
    return True


def run(server: ThreadingHTTPServer, follow: int, pace_s: float, step: Callable[[], object] = lambda: None) -> None:
    """Serve until the process of number `follow` is gone (0 for ever), doing a step every so many seconds."""
    threading.Thread(target=server.serve_forever, daemon=True).start()
    pause = threading.Event()
    while not follow or _alive(follow):
        step()
        pause.wait(pace_s)
    server.shutdown()
