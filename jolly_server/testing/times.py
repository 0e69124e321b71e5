"""How long tests take: measured where they run, kept by the one who counts, and written to a file that is named."""

from __future__ import annotations

import os
import time
from typing import Any
from unittest import TestCase, TextTestResult

from django.test.runner import RemoteTestResult, RemoteTestRunner

FILE = os.environ.get("JOLLY_SPOOL_TIMES", "")


def set_up_of(test: TestCase) -> str:
    """Return what the time before a test is noted as: what its class made for all of its tests."""
    return f"set-up ({type(test).__module__}.{type(test).__qualname__})"


class Watch:
    """Tells how many seconds have passed since it was last asked: by the clock, and of this process alone."""

    def __init__(self) -> None:
        self.asked()

    def asked(self) -> tuple[float, float]:
        """Return both times since the last question."""
        now = time.perf_counter(), time.process_time()
        before = getattr(self, "_last", now)
        self._last = now
        return now[0] - before[0], now[1] - before[1]


class Kept(TextTestResult):
    """The usual result, which also keeps what tests and the set-ups of classes took."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.took: list[tuple[float, float, str]] = []

    def add_took(self, test: TestCase, name: str, wall_s: float, own_s: float) -> None:
        """Keep what a test, or what was made before it, took."""
        self.took.append((wall_s, own_s, name or str(test)))

    def stopTestRun(self) -> None:
        """Write what was kept as lines of a table, where a file for it is named."""
        super().stopTestRun()
        if FILE:
            with open(FILE, "a", encoding="utf-8") as file:
                file.writelines(f"{wall:.2f}\t{own:.2f}\t{name}\n" for wall, own, name in self.took)


class Measured(Kept):
    """For tests that run in this very process: measures as they begin and end."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.watch = Watch()

    def startTest(self, test: Any) -> None:
        """Keep what stood before the test as the set-up of its class."""
        self.add_took(test, set_up_of(test), *self.watch.asked())
        super().startTest(test)

    def stopTest(self, test: Any) -> None:
        """Keep what the test took."""
        super().stopTest(test)
        self.add_took(test, "", *self.watch.asked())


class MeasuredAfar(RemoteTestResult):
    """For tests in a worker: measures there, and sends it along with the results."""

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        super().__init__(*args, **kwargs)
        self.watch = Watch()

    def startTest(self, test: Any) -> None:
        """Send what stood before the test as the set-up of its class."""
        super().startTest(test)
        self.events.append(("add_took", self.test_index, set_up_of(test), *self.watch.asked()))

    def stopTest(self, test: Any) -> None:
        """Send what the test took."""
        super().stopTest(test)
        self.events.append(("add_took", self.test_index, "", *self.watch.asked()))


class RunnerAfar(RemoteTestRunner):
    """Runs the tests of a class in a worker and measures them."""

    resultclass = MeasuredAfar
