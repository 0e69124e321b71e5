"""Measuring: floor and subject in turn, so that a slow moment of the machine meets both."""

from __future__ import annotations

import gc
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


HEADING = f"{'what':72} {'floor ms':>9} {'ms':>9} {'ratio':>7} budget"


def timed(act: Callable[..., object], *args: object) -> float:
    """Return how long an act takes, in ms."""
    start = time.perf_counter()
    act(*args)
    return (time.perf_counter() - start) * 1000


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
