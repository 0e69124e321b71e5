"""Short sortable ids: nine characters of time, then three of a running count."""

from __future__ import annotations

import os
import threading
import time

_ALPHABET = "0123456789abcdefghjkmnpqrstvwxyz"


def _base32(value: int, width: int) -> str:
    digits = []
    for _ in range(width):
        digits.append(_ALPHABET[value & 31])
        value >>= 5
    return "".join(reversed(digits))


class IdSource:
    """Gives ids that sort in the order they were made.

    Args:
        start_ms: fixed clock for tests (milliseconds since 1970); None reads the system clock.

    Example:
        >>> ids = IdSource(start_ms=0)
        >>> ids.new() < ids.new()
        True
    """

    def __init__(self, start_ms: int | None = None) -> None:
        self._fixed = start_ms
        self._lock = threading.Lock()
        self._last = 0
        self._process = os.getpid() & 31 if start_ms is None else 0

    def new(self) -> str:
        """Return an id of 13 characters, larger than every one given before."""
        with self._lock:
            now = int(time.time() * 1000) if self._fixed is None else self._fixed
            self._last = max(now << 10, self._last + 1)
            return _base32(self._last, 12) + _ALPHABET[self._process]
