"""Errors the core raises. Each is named by its outcome and says what to do about it."""

from __future__ import annotations


class CoreError(Exception):
    """Root of the errors of the core.

    Args:
        message: one or two short sentences for a person, naming the object and what to do.
        field: the payload field concerned, or "".
        ids: ids of the entities concerned.
    """

    status = "refused"

    def __init__(self, message: str, *, field: str = "", ids: tuple[str, ...] = ()) -> None:
        super().__init__(message)
        self.message = message
        self.field = field
        self.ids = ids


class RuleError(CoreError):
    """An edit breaks a rule; the project is unchanged."""


class GoneError(CoreError):
    """An edit names an entity that is not (or no longer) in the project."""

    status = "gone"


class ConflictError(CoreError):
    """An undo meets entities that somebody has changed since."""

    status = "conflict"


class FileError(CoreError):
    """A file that comes in cannot be read as what it should be."""

    status = "bad-file"
