"""What an installed Python package of a company's own may add: checks, reports, symbols, part classes and stamps.

A package names a function under the entry point group `jolly_spool.extensions`; it is called with an `Extension` and
says there what it adds (docs/extending/README.md, with a sample package). What cannot be added is left out and shown as
a snag of that package; so is what fails when it is used.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Iterable, Mapping
from importlib.metadata import EntryPoint, entry_points
from typing import Any

from jolly_core import checks, reports
from jolly_core.checks import Snag
from jolly_core.edits.pieces.stampbody import body_from_text
from jolly_core.library import part_classes, part_fields, unit_kinds
from jolly_core.library.added import added
from jolly_core.library.classes import read_class
from jolly_core.library.stamps import built_in_stamps
from jolly_core.library.symbols import check_symbol
from jolly_core.model import FileError, note_fault
from jolly_core.model.packages import forget_faults
from jolly_core.reports import Cell, Column

__all__ = ["GROUP", "Cell", "Column", "Extension", "Snag", "load_extensions"]

GROUP = "jolly_spool.extensions"
_loaded: dict[str, Extension] = {}


class Extension:
    """What one package adds. Nothing is added before its function has come to its end.

    Attributes:
        package: the name of the installed package.
    """

    def __init__(self, package: str) -> None:
        self.package = package
        self._steps: list[tuple[str, Callable[[], None]]] = []
        self._undo: list[Callable[[], object]] = []

    def check(self, code: str, help: str, function: checks.Check) -> None:
        """Add a check of what is on a sheet: it is given the project and the sheet's id, and yields snags."""
        self._check(checks.CHECKS, checks.check, code, help, function)

    def project_check(self, code: str, help: str, function: checks.ProjectCheck) -> None:
        """Add a check of the whole project."""
        self._check(checks.PROJECT_CHECKS, checks.project_check, code, help, function)

    def _check(self, table: dict[str, Any], register: Any, code: str, help: str, function: Any) -> None:
        def put() -> None:
            register(code, help)(checks.guarded(self.package, code, function))
            self._undo.append(lambda: table.pop(code))

        self._steps.append((f"The check “{code}”", put))

    def report(self, key: str, title: str, help: str, columns: tuple[Column, ...], build: reports.Build) -> None:
        """Add a report: its builder is given the project and returns a row for each line, a cell for each column."""

        def put() -> None:
            guarded = reports.guarded(self.package, key, columns, build)
            reports.report(key, title, help, columns, keeps=False)(guarded)
            self._undo.append(lambda: reports.REPORTS.pop(key))

        self._steps.append((f"The report “{key}”", put))

    def symbol(self, record: Mapping[str, Any]) -> None:
        """Add a symbol, as those in `jolly_core/library/data/symbols` are written."""

        def put() -> None:
            check_symbol(record)
            added.symbols.append((self.package, record))
            added.changed()

        self._steps.append((f"The symbol “{record.get('key', '?')}”", put))

    def part_class(self, record: Mapping[str, Any]) -> None:
        """Add a class of parts, as those in `jolly_core/library/data/part_classes.json` are written."""

        def put() -> None:
            _check_class(record)
            added.classes.append((self.package, record))
            added.changed()

        self._steps.append((f"The part class “{record.get('key', '?')}”", put))

    def stamp(self, id: str, record: Mapping[str, Any]) -> None:
        """Add a stamp, as those in `jolly_core/library/data/stamps` are written: name, text and body."""

        def put() -> None:
            if id in built_in_stamps():
                raise FileError(f"There is already a stamp “{id}”.")
            body_from_text(json.dumps(record["body"]))
            added.stamps.append((self.package, {"id": id, "name": str(record["name"]), **record}))
            added.changed()

        self._steps.append((f"The stamp “{id}”", put))

    def add(self) -> None:
        """Add all of it; what cannot be is noted as a fault of the package."""
        for what, put in self._steps:
            try:
                put()
            except Exception as error:  # one thing that cannot be added must not stop the others
                note_fault(self.package, what, getattr(error, "message", "") or error)

    def withdraw(self) -> None:
        """Take all of it away again."""
        for undo in reversed(self._undo):
            undo()
        added.withdraw(self.package)
        forget_faults(self.package)


def _check_class(record: Mapping[str, Any]) -> None:
    """Refuse a class that is there already, is malformed, or names units or ratings that are not known."""
    made = read_class(record)
    if made.key in part_classes():
        raise FileError(f"There is already a class “{made.key}”.")
    lacking = [u for u in made.units if u not in unit_kinds()] + [r for r in made.ratings if r not in part_fields()]
    if lacking:
        raise FileError(f"The class names “{lacking[0]}”, which is not known here.")


def load_extensions(points: Iterable[EntryPoint] | None = None) -> list[Extension]:
    """Add what the installed packages add, each once, and return those that were added now.

    Args:
        points: where they begin; those of the installed packages when left out.
    """
    found: list[Extension] = []
    for point in entry_points(group=GROUP) if points is None else points:
        package = point.dist.name if point.dist is not None else point.name
        if package in _loaded:
            continue
        extension = _loaded[package] = Extension(package)
        try:
            point.load()(extension)
        except Exception as error:  # a package that cannot be read must not stop the application
            note_fault(package, f"“{point.value}”", error)
            continue
        extension.add()
        found.append(extension)
    return found


def withdraw(package: str) -> None:
    """Take away what a package added, as when it was not installed."""
    extension = _loaded.pop(package, None)
    if extension is not None:
        extension.withdraw()
