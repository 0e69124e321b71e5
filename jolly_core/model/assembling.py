"""Whether all packages have been read that say something to those below them."""

from __future__ import annotations

_read: list[bool] = []


def assembled() -> None:
    """Note that they have: `jolly_core.assembly` says so."""
    _read.append(True)


def needs_assembly(what: str) -> None:
    """Refuse to go on with half of the core, whose lists would be short of something without a word.

    Args:
        what: would be wrong.

    Raises:
        RuntimeError: nobody has imported `jolly_core.assembly`.
    """
    if not _read:
        raise RuntimeError(f"{what} without all of the core: import jolly_core.assembly where the program starts.")
