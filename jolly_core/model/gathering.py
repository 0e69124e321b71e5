"""Values of all sheets together, put together block by block so that a change costs its sheet's block and no more."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import TYPE_CHECKING, TypeVar

from .derived import derived_as

if TYPE_CHECKING:
    from .project import Project

T = TypeVar("T")
K = TypeVar("K")

BLOCK = 32  # sheets


def _blocks(project: Project) -> tuple[tuple[str, ...], ...]:
    ids = [s.id for s in project.sheets_in_order()]
    return tuple(tuple(ids[n : n + BLOCK]) for n in range(0, len(ids), BLOCK))


_sheet_blocks = derived_as("blocks of sheets", _blocks)


def listed(
    of_sheet: Callable[[Project, str], Iterable[T]], last: Callable[[Project], Iterable[T]] | None = None
) -> Callable[[Project], list[T]]:
    """Return a derived function that gives what another gives for each sheet, in the order of sheets, as one list.

    Args:
        of_sheet: what gives it for a sheet.
        last: what gives the end of the list, which is of no sheet.
    """
    name = f"{of_sheet.__module__}.{of_sheet.__qualname__}"

    def block(project: Project, ids: tuple[str, ...]) -> list[T]:
        found: list[T] = []
        for id in ids:
            found += of_sheet(project, id)
        return found

    of_block = derived_as(f"{name}, block", block)

    def whole(project: Project) -> list[T]:
        found: list[T] = []
        for ids in _sheet_blocks(project):
            found += of_block(project, ids)
        if last is not None:
            found += last(project)
        return found

    return derived_as(f"{name}, all", whole)


def merged(of_sheet: Callable[[Project, str], dict[K, T]]) -> Callable[[Project], dict[K, T]]:
    """Return a derived function that gives what another gives for each sheet, in the order of sheets, as one dict."""
    name = f"{of_sheet.__module__}.{of_sheet.__qualname__}"

    def block(project: Project, ids: tuple[str, ...]) -> dict[K, T]:
        found: dict[K, T] = {}
        for id in ids:
            found.update(of_sheet(project, id))
        return found

    of_block = derived_as(f"{name}, block", block)

    def whole(project: Project) -> dict[K, T]:
        found: dict[K, T] = {}
        for ids in _sheet_blocks(project):
            found.update(of_block(project, ids))
        return found

    return derived_as(f"{name}, all", whole)
