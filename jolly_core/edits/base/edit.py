"""How edits are made: payload classes, their registry, and `compute`, which shows what an edit would do.

An edit is a pydantic payload with a literal `kind`, and one function that works it out on a `Work`. The function
changes the project as it goes, so that later steps see earlier ones; `compute` takes everything back at the end and
returns the change set. A refused edit therefore leaves nothing behind, and a preview is the same computation.
"""

from __future__ import annotations

from collections.abc import Callable, Container
from dataclasses import dataclass, field, replace
from typing import Annotated, Any, ClassVar, TypeVar

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError

from jolly_core.drawing import Point, SheetDraft
from jolly_core.library import Library, NoLibrary
from jolly_core.model import (
    DRAWN,
    KINDS,
    Change,
    ChangeSet,
    Entity,
    IdSource,
    Project,
    RuleError,
    Sheet,
    fields,
    text_fault,
    users_of,
)
from jolly_core.model.records import faults_of
from jolly_core.tagging import tag_on
from jolly_core.wiring import groups_numbered_with

from .faultwords import fault_words


def _printable(value: str) -> str:
    fault = text_fault(value, len(value))
    if fault:
        raise ValueError(f"The text {fault}.")
    return value


def _printable_lines(value: str) -> str:
    _printable(value.replace("\r\n", "\n").replace("\n", " "))
    return value.replace("\r\n", "\n")


# The types of the model with what a request may send besides: texts that cannot be printed, numbers that are none.
Text = Annotated[fields.Text, AfterValidator(_printable)]
LinedText = Annotated[fields.LinedText, AfterValidator(_printable_lines)]
TextLine = Annotated[str, Field(max_length=400), AfterValidator(_printable)]
Id = Annotated[fields.Id, AfterValidator(_printable)]
ConductorKey = Annotated[fields.LongText, AfterValidator(_printable)]  # of a conductor
SymbolKey = Annotated[fields.SymbolKey, AfterValidator(_printable)]
Grid = fields.Grid
Mm = Annotated[fields.Mm, Field(allow_inf_nan=False)]
Length = Annotated[fields.Length, Field(allow_inf_nan=False)]


class Payload(BaseModel):
    """Root of all edit payloads; unknown fields are refused.

    Attributes:
        own_door: of an edit that is a part of an act, and half of it by itself: where that act is done.
    """

    model_config = ConfigDict(extra="forbid")
    own_door: ClassVar[str] = ""


@dataclass(slots=True)
class Outcome:
    """What an edit did.

    Attributes:
        label: the edit in a few words, for the journal and the undo button.
        placed: ids of what it put down, to be selected.
        caret: where the caret goes next, None to leave it.
        remarks: what a person should know though the edit was accepted.
        table: what becomes what, as rows of texts, where a preview should list it.
    """

    changes: ChangeSet
    label: str = ""
    placed: list[str] = field(default_factory=list)
    caret: Point | None = None
    remarks: list[str] = field(default_factory=list)
    table: list[list[str]] = field(default_factory=list)


class Work:
    """A project while one edit is worked out on it."""

    def __init__(self, project: Project, ids: IdSource, library: Library, outcome: Outcome) -> None:
        self.project = project
        self.ids = ids
        self.library = library
        self.outcome = outcome

    def draft(self, sheet_id: str) -> SheetDraft:
        """Open a working copy of a sheet.

        Raises:
            GoneError: there is no such sheet.
            RuleError: what is on the sheet is made from the project.
        """
        self.drawable(sheet_id)
        return SheetDraft(self.project, sheet_id, self.ids)

    def drawable(self, sheet_id: str) -> Sheet:
        """Return a sheet one can draw on.

        Raises:
            GoneError: there is no such sheet.
            RuleError: what is on the sheet is made from the project.
        """
        sheet: Sheet = self.project.get("sheet", sheet_id)
        if sheet.kind not in DRAWN:
            words = f"Sheet {sheet.number} is made from the project and cannot be drawn on."
            raise RuleError(f"{words} Choose a schematic or free sheet.", field="sheet_id", ids=(sheet_id,))
        return sheet

    def close(self, draft: SheetDraft, *, tidied: bool = False, moved: Container[str] = ()) -> None:
        """Tidy a draft, unless that was just done, and take it over; what cannot be without what is gone goes too.

        Args:
            moved: ids that are gone from this sheet to come to another: what names them stays.
        """
        changes = ChangeSet()
        draft.close(changes, tidied=tidied)
        for change in changes:
            _within_bounds(change)
        self.project.commit(self.outcome.changes, changes)
        for change in changes:
            if change.after is None and change.id not in moved:
                self._let_go(change.kind, change.id)

    def put(self, kind: str, entity: Entity) -> None:
        """Add or replace an entity.

        Raises:
            RuleError: it would break the bounds of a field.
        """
        change = Change(kind, entity.id, self.project.tables[kind].get(entity.id), entity)
        _within_bounds(change)
        self.project.commit(self.outcome.changes, ChangeSet([change]))

    def remove(self, kind: str, id: str) -> None:
        """Remove an entity that is there, and what cannot be without it; what else names it names nothing then."""
        self.project.get(kind, id)
        self._let_go(kind, id)
        before = self.project.tables[kind].get(id)
        if before is not None:
            self.project.commit(self.outcome.changes, ChangeSet([Change(kind, id, before, None)]))

    def _let_go(self, kind: str, id: str) -> None:
        """Remove what cannot be without an entity, and take its name from what else names it."""
        for user, name in users_of(kind):
            needed = KINDS[user].names[name].needed
            for record in self.project.naming(user, name, id):
                empty: dict[str, Any] = {name: ""}
                if not needed:
                    self.put(user, replace(record, **empty))
                elif record.id in self.project.tables[user]:
                    self.remove(user, record.id)


def _unprintable(change: Change) -> dict[str, str]:
    """Return for each text that a change brings with characters that cannot be printed what is wrong with it."""
    brought = {
        name: value.replace("\n", " ") if field.mark(fields.Lined) else value
        for name, field in KINDS[change.kind].fields.items()
        if type(value := getattr(change.after, name)) is str
        and not value.isprintable()
        and (change.before is None or getattr(change.before, name) != value)
    }
    return {name: fault for name, value in brought.items() if (fault := text_fault(value, len(value)))}


def _within_bounds(change: Change) -> None:
    """Refuse what a project file could not hold, whichever edit comes to it; what was there before may stay."""
    if change.after is None:
        return
    spec = KINDS[change.kind]
    for name, fault in (faults_of(change.after, change.before) or _unprintable(change)).items():
        ids = (change.id,) if change.before is not None else ()
        raise RuleError(
            f"This cannot be: “{spec.fields[name].words}” of the {spec.words} {fault}.", field=name, ids=ids
        )


Apply = Callable[[Work, Any], str]
P = TypeVar("P", bound=type[Payload])


@dataclass(slots=True, frozen=True)
class EditKind:
    """A registered edit: its payload class, what works it out, one line of help, and an example payload."""

    kind: str
    payload: type[Payload]
    apply: Apply
    help: str
    example: dict[str, Any]


EDITS: dict[str, EditKind] = {}
# One source for the process, so that no two edits are ever given the same id.
_PROCESS_IDS = IdSource()


def edit(payload: type[Payload], example: dict[str, Any]) -> Callable[[Apply], Apply]:
    """Register the function that works out a payload and returns its label.

    Raises:
        RuntimeError: two edits claim one kind.
    """

    def register(apply: Apply) -> Apply:
        kind = str(payload.model_fields["kind"].default)
        if kind in EDITS:
            raise RuntimeError(f"{payload.__name__} and {EDITS[kind].payload.__name__} both claim “{kind}”.")
        help_line = (payload.__doc__ or "").strip().splitlines()[0]
        EDITS[kind] = EditKind(kind, payload, apply, help_line, {"kind": kind, **example})
        return apply

    return register


def numbers_met(project: Project, changes: ChangeSet) -> dict[frozenset[str], tuple[str, ...]]:
    """Return the sets of fixed numbers that meet on what an edit touched and has one number, each with their sheets.

    The first of a set, as texts are sorted, is shown.
    """
    sheets = {r.sheet_id for c in changes for r in (c.before, c.after) if r is not None and hasattr(r, "sheet_id")}
    found: dict[frozenset[str], tuple[str, ...]] = {}
    for sheet_id in [id for id in sheets if id in project.sheets]:
        for wire in [w for w in project.wires_on(sheet_id) if w.number]:
            fixed = [w for g in groups_numbered_with(project, wire) for i in g.wires if (w := project.wires[i]).number]
            numbers = frozenset(w.number for w in fixed)
            if len(numbers) > 1:
                found[numbers] = tuple(sorted({project.sheets[w.sheet_id].number for w in fixed}))
    return found


def note_met(project: Project, outcome: Outcome, joined: dict[frozenset[str], tuple[str, ...]]) -> None:
    """Say of fixed numbers that met by an edit which one won, and list those that are not shown any more."""
    before = numbers_met(project, outcome.changes)
    for numbers, sheets in sorted(joined.items(), key=lambda j: sorted(j[0])):
        if numbers in before:
            continue
        winner, *losers = sorted(numbers)
        outcome.remarks.append(f"Fixed numbers met: {winner} won, {', '.join(losers)} is not shown any more.")
        if not outcome.table:
            outcome.table = [["Number shown", "Number given up", "Sheets"]]
        if outcome.table[0][0] == "Number shown":
            outcome.table += [[winner, loser, ", ".join(sheets)] for loser in losers]


def _named(project: Project, error: RuleError) -> RuleError:
    """Return the refusal with {it} in its words as the tag of the symbol it concerns."""
    symbol = project.symbols.get(error.ids[0]) if error.ids else None
    device = project.devices.get(symbol.device_id) if symbol else None
    tag = tag_on(project, device, project.sheets[symbol.sheet_id]) if symbol and device else "a symbol"
    return RuleError(error.message.replace("{it}", tag), field=error.field, ids=error.ids)


def compute(
    project: Project, payload: Payload, *, ids: IdSource | None = None, library: Library | None = None
) -> Outcome:
    """Work out what an edit does, leaving the project as it is.

    Args:
        project: the model; it is changed while this runs and the same again afterwards.
        payload: any registered payload.
        ids: where new ids come from.
        library: where library parts are found.

    Returns:
        The outcome; apply its changes to make the edit happen.

    Raises:
        RuleError: the edit breaks a rule; the message says which and what to do.
        GoneError: it names something that is not in the project.
    """
    with project.trial() as total:
        outcome, joined = _worked_out(project, payload, total, ids, library)
    if joined:
        note_met(project, outcome, joined)
    return outcome


def perform(
    project: Project, payload: Payload, *, ids: IdSource | None = None, library: Library | None = None
) -> Outcome:
    """Do an edit: as `compute`, but its changes are made. If it is refused, the project is as it was.

    Raises:
        RuleError, GoneError: as `compute`.
    """
    with project.attempt() as total:
        outcome, joined = _worked_out(project, payload, total, ids, library)
    if joined:
        with project.trial() as back:
            project.commit(back, outcome.changes.inverse())
            note_met(project, outcome, joined)
    return outcome


def _check_names(project: Project, changes: ChangeSet) -> None:
    """Refuse what would name something that is not there: no file with it could be read again.

    Raises:
        GoneError: names the kind and the id.
    """
    for change in changes:
        if change.after is not None:
            for name, mark in KINDS[change.kind].names.items():
                named = getattr(change.after, name)
                if named and (change.before is None or getattr(change.before, name) != named):
                    project.get(mark.kind, named)


_NetsMet = dict[frozenset[str], tuple[str, ...]]


def _worked_out(
    project: Project, payload: Payload, total: ChangeSet, ids: IdSource | None, library: Library | None
) -> tuple[Outcome, _NetsMet]:
    """Return what an edit does on a project it is tried on, and the fixed numbers that meet by it."""
    kind = EDITS[payload.kind]  # type: ignore[attr-defined]  # every registered payload has a literal kind
    outcome = Outcome(total)
    try:
        outcome.label = kind.apply(Work(project, ids or _PROCESS_IDS, library or NoLibrary(), outcome), payload)
    except RuleError as error:
        raise _named(project, error) from error
    except ValidationError as error:  # of an edit that this one makes
        first = error.errors()[0]
        field = ".".join(str(step) for step in first["loc"])
        raise RuleError(fault_words(field, first), field=field) from error
    if not len(total):
        raise RuleError("Nothing would change.")
    # The trial empties nothing: the change set is what it recorded.
    outcome.changes = ChangeSet(list(total))
    _check_names(project, outcome.changes)
    joined = numbers_met(project, outcome.changes)
    return outcome, joined
