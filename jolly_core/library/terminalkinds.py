"""Kinds of terminal: what a terminal is drawn as, and what a part for terminals is."""

from __future__ import annotations

from jolly_core.model import Part

FEED_THROUGH = "feed-through"
PLAIN = "terminal"  # the symbol of a feed-through terminal
# Symbols of terminals by kind; one of a house's own is drawn as a feed-through terminal.
_DRAWN = {"terminal-earth": "earth", "terminal-fuse": "fuse", "terminal-disconnect": "disconnect"}
TERMINAL_WORDS = {
    FEED_THROUGH: ("feed-through terminal", "feed-through terminals"),
    "earth": ("earth terminal", "earth terminals"),
    "fuse": ("fuse terminal", "fuse terminals"),
    "disconnect": ("disconnect terminal", "disconnect terminals"),
}


def symbol_of_kind(kind: str) -> str:
    """Return the key of the symbol that a terminal of a kind is drawn as; the plain one for a kind without its own.

    Example:
        >>> symbol_of_kind("fuse")
        'terminal-fuse'
    """
    return next((key for key, known in _DRAWN.items() if known == kind), PLAIN)


def kind_drawn(definition_key: str) -> str:
    """Return the kind of terminal that a symbol stands for, a key of TERMINAL_WORDS."""
    return _DRAWN.get(definition_key, FEED_THROUGH)


def terminal_kind(part: Part) -> str:
    """Return the kind of terminal a part is: what it says, else a fuse terminal when it says what fuses it takes."""
    said = part.ratings.get("terminal_kind", "").strip()
    return said or ("fuse" if part.ratings.get("fuse_size", "").strip() else FEED_THROUGH)
