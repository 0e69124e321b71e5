"""Strange projects: from a seed, of any size, in both habits, with all features together.

Machines as people draw them (`machines`), equipped with something of everything (`base`), and then acts at random of
every room (`ACTS`), of which what is refused leaves all as it was. Property tests take the acts they are about.
"""

from . import anything, blocks, cabinet, cables, drawing, harness, points, rebuilding, setup, sheets, strips
from .base import Workshop
from .registry import ACTS, Attempt, NamedAttempt, acts_of, one, perform_act
from .whole import strange

__all__ = [
    "ACTS",
    "Attempt",
    "NamedAttempt",
    "Workshop",
    "acts_of",
    "anything",
    "blocks",
    "cabinet",
    "cables",
    "drawing",
    "harness",
    "one",
    "perform_act",
    "points",
    "rebuilding",
    "setup",
    "sheets",
    "strange",
    "strips",
]
