"""What a check is, and the one list of them.

A check looks at one sheet, a project check at what is built from the sheets; both yield snags and never mend. To add
one, write a function in a module of its family and decorate it; the package's `__init__` names the module.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from itertools import islice
from typing import Any, TypeVar

from jolly_core.drawing import place_in
from jolly_core.model import CoreError, Mute, Project, derived, listed, needs_assembly, uncollected
from jolly_core.model.gathering import joined
from jolly_core.model.packages import fault_words
from jolly_core.tagging import natural
from jolly_core.wiring import GroupKey

from .causes import cause_of

SEVERITIES = ("error", "warning")
_natural = lru_cache(maxsize=20_000)(natural)  # the same messages are put in order after every edit


@dataclass(slots=True, frozen=True)
class Act:
    """An edit that puts a snag right in one step: a word for its button, the edit's kind and its values."""

    label: str
    kind: str
    values: tuple[tuple[str, Any], ...] = ()

    def payload(self) -> dict[str, Any]:
        """Return the edit as a JSON object."""
        return {"kind": self.kind, **dict(self.values)}


@dataclass(slots=True, frozen=True)
class Snag:
    """A finding.

    Attributes:
        code: stable name of the check.
        severity: one of SEVERITIES.
        message: names the object and says what is wrong.
        ids: what to select to see it.
        x, y: grid point to show.
        mend: what a person has to choose to put it right: "choose-part", "choose-device", or "".
        act: the edit that puts it right, None where there is no single one.
        device_id: the device concerned, "".
        bench: where it is mended; "draw" for what lies on a sheet.
        subject: what to open on that bench, "".
        of: the potentials it speaks of, where another snag of them may be its cause.
        cause: the key of the snag that it follows from, "".
    """

    code: str
    severity: str
    message: str
    ids: tuple[str, ...]
    sheet_id: str
    x: int
    y: int
    mend: str = ""
    device_id: str = ""
    bench: str = "draw"
    subject: str = ""
    act: Act | None = None
    of: tuple[GroupKey, ...] = ()
    cause: str = ""

    @property
    def place(self) -> tuple[str, int, int] | None:
        """Sheet and grid point where it lies; None for what lies on no sheet."""
        return (self.sheet_id, self.x, self.y) if self.sheet_id else None

    @property
    def key(self) -> str:
        """What names the finding as long as it is there, wherever its things are moved."""
        return f"{self.code}:{','.join(sorted(self.ids)) or self.subject or self.message}"


Check = Callable[[Project, str], Iterator[Snag]]  # of a project and a sheet's id
ProjectCheck = Callable[[Project], Iterator[Snag]]
CHECKS: dict[str, tuple[Check, str]] = {}
PROJECT_CHECKS: dict[str, tuple[ProjectCheck, str]] = {}
BUILT_CHECKS: dict[str, tuple[Check, str]] = {}


F = TypeVar("F", bound=Callable[..., Iterator[Snag]])


def _registered(table: dict[str, tuple[F, str]], code: str, help: str) -> Callable[[F], F]:
    """Return what puts a check into a table under a code that no other check has."""

    def register(function: F) -> F:
        claimed = {**CHECKS, **PROJECT_CHECKS, **BUILT_CHECKS}.get(code)
        if claimed is not None:
            raise RuntimeError(f"{function.__name__} and {claimed[0].__name__} both claim “{code}”.")
        table[code] = (function, help)
        return function

    return register


def check(code: str, help: str) -> Callable[[Check], Check]:
    """Register a check of what is on a sheet under a code, with a line of help.

    Raises:
        RuntimeError: two checks claim one code.
    """
    return _registered(CHECKS, code, help)


def project_check(code: str, help: str) -> Callable[[ProjectCheck], ProjectCheck]:
    """Register a check of the whole project under a code, with a line of help.

    Raises:
        RuntimeError: two checks claim one code.
    """
    return _registered(PROJECT_CHECKS, code, help)


def built_check(code: str, help: str) -> Callable[[Check], Check]:
    """Register a check of what is built from one sheet's nets and devices: its snags are the project's.

    Raises:
        RuntimeError: two checks claim one code.
    """
    return _registered(BUILT_CHECKS, code, help)


def built(
    code: str,
    severity: str,
    message: str,
    bench: str,
    subject: str,
    ids: tuple[str, ...] = (),
    device_id: str = "",
    act: Act | None = None,
    of: tuple[GroupKey, ...] = (),
) -> Snag:
    """Return a snag of something that lies on no sheet; `of` are the potentials it speaks of."""
    place = ("", 0, 0)
    return Snag(code, severity, message, ids, *place, device_id=device_id, bench=bench, subject=subject, act=act, of=of)


def place_in_words(project: Project, snag: Snag) -> str:
    """Return where a snag lies as people say it: sheet and line, else the bench where it is mended."""
    if snag.place is None or snag.sheet_id not in project.sheets:
        return snag.bench
    return place_in(project.sheets[snag.sheet_id], snag.x, snag.y)


MOST_SNAGS = 2000  # of one check of a package


def guarded(package: str, code: str, function: F) -> F:
    """Return a check of a package that ends in a snag of the package where it fails, or yields what is no snag."""

    def run(*given: Any) -> Iterator[Snag]:
        sheet_id = given[1] if len(given) > 1 else ""
        try:
            for snag in islice(function(*given), MOST_SNAGS):
                if not isinstance(snag, Snag):
                    raise TypeError(f"it yields a {type(snag).__name__} where a Snag is meant")
                yield snag
        except Exception as error:  # whatever a package does, the rest goes on
            words = fault_words(package, f"The check “{code}”", error)
            yield Snag("package-fault", "warning", f"{words}. Tell who made it.", (), sheet_id, 0, 0, bench="snags")

    guard: Any = run
    result: F = guard
    return result


def _all_of(code: str, help: str, snags: Iterator[Snag], sheet_id: str = "") -> list[Snag]:
    """Return what a check yields; where it comes upon what no rule holds for, that is a snag, and the others go on."""
    found: list[Snag] = []
    try:
        found.extend(snags)
    except CoreError as error:
        message = f"Not all could be checked ({help.removesuffix('.')}): {error.message}"
        found.append(
            Snag(
                "check-stopped",
                "error",
                message,
                error.ids,
                sheet_id,
                0,
                0,
                bench="snags",
                subject=f"{code} {sheet_id}",
            )
        )
    return found


@derived
def project_snags(project: Project) -> list[Snag]:
    """Return what the checks of the whole project found and nobody muted, errors first."""
    return [s for s in _of_project(project) if s.key not in _muted_keys(project)]


def snags_coded(project: Project, prefix: str) -> list[Snag]:
    """Return what the checks of the whole project whose codes begin so found and nobody muted, errors first."""
    codes = [code for code in PROJECT_CHECKS if code.startswith(prefix)]
    found = [snag for code in codes for snag in _by(project, code) if snag.key not in _muted_keys(project)]
    return sorted(found, key=lambda s: (s.severity != "error", s.code, _natural(s.message), s.ids))


@derived
def _of_project(project: Project) -> list[Snag]:
    needs_assembly("Not all is checked")
    found = [_with_cause(project, s) if s.of else s for code in PROJECT_CHECKS for s in _by(project, code)]
    found += _built_on_sheets(project)
    return sorted(found, key=lambda s: (s.severity != "error", s.bench, s.code, _natural(s.message), s.ids))


@derived
def _by(project: Project, code: str) -> list[Snag]:
    function, help = PROJECT_CHECKS[code]
    return _all_of(code, help, function(project))


@derived
def _built_from(project: Project, sheet_id: str) -> list[Snag]:
    checks = BUILT_CHECKS.items()
    return [s for code, (function, help) in checks for s in _all_of(code, help, function(project, sheet_id))]


_built_on_sheets = listed(_built_from)


@derived
def _of_sheet(project: Project, sheet_id: str) -> list[Snag]:
    needs_assembly("Not all is checked")
    found = [_with_cause(project, snag) for code in CHECKS for snag in _on(project, code, sheet_id)]
    return sorted(found, key=lambda s: (s.severity != "error", s.y, s.x, s.code, s.ids))


def _with_cause(project: Project, snag: Snag) -> Snag:
    """Return a snag with what it follows from; what follows from a muted one stands for itself."""
    cause = cause_of(project, snag.of, snag.key) if snag.of else ""
    return replace(snag, cause=cause) if cause and cause not in _muted_keys(project) else snag


@derived
def _on(project: Project, code: str, sheet_id: str) -> list[Snag]:
    function, help = CHECKS[code]
    return _all_of(code, help, function(project, sheet_id), sheet_id)


def told_on(project: Project, code: str, sheet_id: str) -> list[Snag]:
    """Return the snags of one check on a sheet that nobody muted."""
    muted = _muted_keys(project)
    return [s for s in _on(project, code, sheet_id) if s.key not in muted]


@derived
def _muted_keys(project: Project) -> set[str]:
    return {m.key for m in project.mutes.values()}


@derived
def snags_on(project: Project, sheet_id: str) -> list[Snag]:
    """Return the snags of a sheet that nobody muted, errors first, then by place."""
    muted = _muted_keys(project)
    return [s for s in _of_sheet(project, sheet_id) if s.key not in muted]


_all = joined(snags_on, last=project_snags)


@uncollected
def all_snags(project: Project) -> Sequence[Snag]:
    """Return the snags of all sheets in order that nobody muted, then those of what is built from them."""
    return _all(project)


def causes(project: Project) -> list[tuple[Snag, int]]:
    """Return the snags of the whole project that follow from no other, each with how many follow from it."""
    found = all_snags(project)
    after = Counter(snag.cause for snag in found if snag.cause)
    return [(snag, after[snag.key]) for snag in found if not snag.cause]


def cause_in_words(snag: Snag, after: int) -> str:
    """Return the message of a snag, with how many others follow from it.

    Example:
        "0 V and 24 V are joined. 45 more follow from it."
    """
    if not after:
        return snag.message
    return f"{snag.message} {after} more follow{'s' if after == 1 else ''} from it."


def muted_snags(project: Project) -> list[tuple[Snag, Mute]]:
    """Return the snags that are there and muted, each with the record that says why; the sheets' first, in order."""
    mutes = {m.key: m for m in project.mutes.values()}
    if not mutes:
        return []
    found = [s for sheet in project.sheets_in_order() for s in _of_sheet(project, sheet.id)] + _of_project(project)
    return [(s, mutes[s.key]) for s in found if s.key in mutes]
