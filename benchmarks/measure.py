"""Measuring: floor and subject in turn, so that a slow moment of the machine meets both.

A budget in milliseconds is meant for a quiet machine of the usual kind. Its floor is a yardstick, a fixed piece of work
that takes `YARD_MS` there: on a machine, or in a minute, half as fast the yardstick takes twice as long, too.
"""

from __future__ import annotations

import gc
import json
import statistics
import time
from collections.abc import Callable
from dataclasses import dataclass


@dataclass
class Result:
    """One line of the result: times in ms, the ratio of subject to floor, and its budget."""

    name: str
    floor_ms: float
    subject_ms: float
    budget: float

    def __str__(self) -> str:
        """Return the line as it is printed."""
        ratio = self.subject_ms / self.floor_ms if self.floor_ms else float("nan")
        verdict = "" if not self.budget else "met" if ratio <= self.budget else "MISSED"
        budget = f"{self.budget:4.1f}" if self.budget else "   -"
        return f"{self.name:72} {self.floor_ms:9.2f} {self.subject_ms:9.2f} {ratio:7.2f} {budget}  {verdict}"


YARD_MS = 4.6  # what the yardstick takes in a quiet minute of the machine that budgets in ms are meant for
SHARE = 0.05  # of the time of a long act that the yardstick is laid on after it
HEADING = f"{'what':72} {'floor ms':>9} {'ms':>9} {'ratio':>7} budget"


def from_sheets(least: int, sheets: int, budget: float) -> float:
    """Return a budget of projects of at least so many sheets, 0 for a smaller one: there the fixed costs weigh."""
    return budget if sheets >= least else 0.0


def timed(act: Callable[..., object], *args: object) -> float:
    """Return how long an act takes, in ms."""
    start = time.perf_counter()
    act(*args)
    return (time.perf_counter() - start) * 1000


@dataclass(slots=True, frozen=True)
class _Record:
    id: str
    x: int
    y: int


def yardstick() -> None:
    """Do a fixed piece of the kind of work that is measured: records made, looked up, sorted, written and read."""
    records = [_Record(f"r{n}", n * 7 % 1000, n * 13 % 997) for n in range(2000)]
    by_place = {(r.x, r.y): r for r in records}
    rows = sorted(by_place.values(), key=lambda r: (r.y, r.x))
    json.loads(json.dumps([[r.id, r.x, r.y] for r in rows]))


class Pace:
    """How fast the machine is in this minute, by the yardstick laid on in turn with what is measured."""

    def __init__(self) -> None:
        self._yards: list[float] = []

    def timed(self, act: Callable[..., object], *args: object) -> float:
        """Return how long an act takes, in ms; the yardstick is laid on before it, and after it for its length."""
        self.lay_on()
        took = timed(act, *args)
        for _ in range(int(took * SHARE / YARD_MS)):
            self.lay_on()
        return took

    def lay_on(self) -> None:
        """Time the yardstick once; nothing is collected meanwhile, as that takes by the size of what is measured."""
        collecting = gc.isenabled()
        gc.disable()
        self._yards.append(timed(yardstick))
        if collecting:
            gc.enable()

    def within(self, name: str, times: list[float], budget_ms: float, share: float | None = 0.5) -> Result:
        """Return times in ms against a budget for a quiet machine, as yardsticks.

        Args:
            share: the percentile that is taken of both; None takes the mean, as for one long act.
        """
        taken = [statistics.fmean(v) if share is None else percentile(v, share) for v in (self._yards, times)]
        return Result(f"{name} ({budget_ms:g} ms) / yardstick", *taken, budget_ms / YARD_MS)


def compare(
    name: str,
    floor: Callable[[], object],
    subject: Callable[[], object],
    budget: float,
    rounds: int,
    before: Callable[[], object] = lambda: None,
) -> Result:
    """Measure floor and subject in turn and return the medians.

    Args:
        before: done before each subject, not measured (such as dropping a cache).
    """
    floors, subjects = [], []
    for _ in range(rounds):
        gc.collect()
        floors.append(timed(floor))
        before()
        gc.collect()
        subjects.append(timed(subject))
    return Result(name, statistics.median(floors), statistics.median(subjects), budget)


def percentile(values: list[float], share: float) -> float:
    """Return the value below which a share of the values lies."""
    return sorted(values)[min(len(values) - 1, int(len(values) * share))]
