"""Whether all packages have been read that say something to those below them."""

from __future__ import annotations

# What packages above say to those that cannot know it: `cabinet` measures layouts, `scenes` finds texts outside.
NEEDED = frozenset({"layouts are measured", "texts are looked for outside of sheets"})
_said: set[str] = set()


def assembled(what: str) -> None:
    """Note that the package that says something of NEEDED has been read.

    Raises:
        KeyError: nobody needs it.
    """
    if what not in NEEDED:
        raise KeyError(what)
    _said.add(what)


def needs_assembly(what: str) -> None:
    """Refuse to go on with half of the core, whose lists would be short of something without a word.

    Args:
        what: would be wrong.

    Raises:
        RuntimeError: not all packages have been read; `jolly_core.assembly` reads them.
    """
    if NEEDED - _said:
        raise RuntimeError(f"{what} without all of the core: import jolly_core.assembly where the program starts.")
