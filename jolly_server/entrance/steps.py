"""Saying what is done while it is done, with the seconds it took."""

from __future__ import annotations

import sys
import time
from collections.abc import Iterator
from contextlib import contextmanager


@contextmanager
def step(words: str) -> Iterator[None]:
    """Say what is begun, and behind it the seconds it took, or that it failed."""
    print(f"{words} ... ", end="", file=sys.stderr, flush=True)
    began = time.monotonic()
    try:
        yield
    except BaseException:
        print("not done.", file=sys.stderr, flush=True)
        raise
    print(f"{time.monotonic() - began:.0f} s", file=sys.stderr, flush=True)
