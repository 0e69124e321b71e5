"""What went wrong in packages of a company's own that add to the application: nothing of theirs stops the rest."""

from __future__ import annotations

from .project import Project

_CELL = "faults of packages"
_faults: dict[tuple[str, str], str] = {}


def fault_words(package: str, what: str, error: BaseException | str) -> str:
    """Return in words that something of a package failed."""
    why = error if isinstance(error, str) else f"{type(error).__name__}: {error}"
    return f"{what} of the package {package} failed: {why[:300]}"


def note_fault(package: str, what: str, error: BaseException | str, project: Project | None = None) -> str:
    """Note that something of a package failed, and return it in words.

    Args:
        project: where it failed, so that what was found in it about packages is looked for again.
    """
    words = fault_words(package, what, error)
    if _faults.get((package, what)) != words:
        _faults[package, what] = words
        # What is computed just now reads the project as it is; it is asked for again at the next change.
        if project is not None and project.memo.reads is None:
            project.memo.fire((_CELL,))
    return words


def package_faults(project: Project) -> list[tuple[str, str]]:
    """Return (package, words) for each thing that failed, by package."""
    if project.memo.reads is not None:
        project.memo.reads.cells.add(_CELL)
    return [(package, words) for (package, _), words in sorted(_faults.items())]


def forget_faults(package: str) -> None:
    """Forget what failed in a package."""
    for key in [k for k in _faults if k[0] == package]:
        del _faults[key]
