"""Stamps: keeping a piece of circuit to be put down again, and putting it down, once or for each row of a table."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.drawing import GRID_MM, SheetDraft, extent_of, where_amiss
from jolly_core.library import built_in_stamps
from jolly_core.model import Continuation, Project, RuleError, Sheet, Stamp, Wire, counted
from jolly_core.wiring import sheet_groups, wire_numbers

from ..base.edit import Grid, Id, Payload, Text, Work, edit
from ..draw.selecting import sheet_of
from ..sheets.adding import AddSheet, add_sheet
from .pieces import piece_of, put_piece
from .stampbody import Question, StampBody, body_from_text, body_to_text, check_questions, is_layout, wishes_for

GAP = 8  # least steps between two copies of a stamp
LEFTMOST = 6  # grid steps: where a bus begins on a further sheet at the least


class QuestionIn(Payload):
    """A question a stamp asks: its words, what the answer sets, for which things of the stamp."""

    name: Text = Field(min_length=1, max_length=60)
    kind: Literal["text", "tag", "part", "wire-type", "function", "location", "motor-kw"] = "text"
    targets: list[Id] = Field(default_factory=list, max_length=200)
    suggestion: Text = ""


class KeepStamp(Payload):
    """Keep what is selected as a stamp of the project, with the point that shall lie on the caret and its questions."""

    kind: Literal["keep-stamp"] = "keep-stamp"
    ids: list[Id] = Field(min_length=1, max_length=2000)
    name: Text = Field(min_length=1)
    text: Text = ""
    anchor_x: Grid | None = None
    anchor_y: Grid | None = None
    questions: list[QuestionIn] = Field(default_factory=list, max_length=24)


@edit(KeepStamp, {"ids": ["y1", "w1"], "name": "Direct starter"})
def keep_stamp(work: Work, payload: KeepStamp) -> str:
    """Work out KeepStamp."""
    project = work.project
    free_name(project, payload.name)
    piece = piece_of(project, sheet_of(project, payload.ids), payload.ids)
    left, top, _, _ = piece.box()
    anchor = (
        left if payload.anchor_x is None else payload.anchor_x,
        top if payload.anchor_y is None else payload.anchor_y,
    )
    questions = _questions(payload.questions)
    check_questions(piece, questions)
    stamp = Stamp(work.ids.new(), payload.name, body_to_text(StampBody(piece, anchor, questions)), payload.text)
    work.put("stamp", stamp)
    work.outcome.placed = [stamp.id]
    return f"keep stamp {stamp.name}"


def _questions(given: list[QuestionIn]) -> tuple[Question, ...]:
    return tuple(Question(q.name, q.kind, tuple(q.targets), q.suggestion) for q in given)


def free_name(project: Project, name: str, but: str = "") -> None:
    """Refuse a name another stamp of the project has.

    Raises:
        RuleError: it is taken.
    """
    if any(s.name == name and s.id != but for s in project.stamps.values()):
        raise RuleError(f"There is already a stamp “{name}”. Choose another name.", field="name")


class ChangeStamp(Payload):
    """Change a stamp's name, text, caret point or questions; what is left out stays."""

    kind: Literal["change-stamp"] = "change-stamp"
    stamp_id: Id
    name: Text | None = Field(default=None, min_length=1)
    text: Text | None = None
    anchor_x: Grid | None = None
    anchor_y: Grid | None = None
    questions: list[QuestionIn] | None = Field(default=None, max_length=24)


@edit(ChangeStamp, {"stamp_id": "p1", "name": "Direct starter, 24 V"})
def change_stamp(work: Work, payload: ChangeStamp) -> str:
    """Work out ChangeStamp."""
    stamp: Stamp = work.project.get("stamp", payload.stamp_id)
    name = stamp.name if payload.name is None else payload.name
    free_name(work.project, name, but=stamp.id)
    if is_layout(stamp.body):
        work.put("stamp", replace(stamp, name=name, text=stamp.text if payload.text is None else payload.text))
        return f"change stamp {name}"
    body = body_from_text(stamp.body)
    anchor = (
        body.anchor[0] if payload.anchor_x is None else payload.anchor_x,
        body.anchor[1] if payload.anchor_y is None else payload.anchor_y,
    )
    questions = body.questions if payload.questions is None else _questions(payload.questions)
    check_questions(body.piece, questions)
    text = stamp.text if payload.text is None else payload.text
    changed = body_to_text(replace(body, anchor=anchor, questions=questions))
    work.put("stamp", Stamp(stamp.id, name, changed, text))
    return f"change stamp {name}"


class RemoveStamp(Payload):
    """Take a stamp out of the project; what was put down with it stays."""

    kind: Literal["remove-stamp"] = "remove-stamp"
    stamp_id: Id


@edit(RemoveStamp, {"stamp_id": "p1"})
def remove_stamp(work: Work, payload: RemoveStamp) -> str:
    """Work out RemoveStamp."""
    stamp: Stamp = work.project.get("stamp", payload.stamp_id)
    work.remove("stamp", stamp.id)
    return f"remove stamp {stamp.name}"


class PutStamp(Payload):
    """Put a stamp down, once for each row of answers, each copy one pitch further; on new sheets when one is full.

    The stamp is one of the project, of the library, or one that comes with the application. On a new sheet the bus the
    copies tie onto goes on, joined by continuations.
    """

    kind: Literal["put-stamp"] = "put-stamp"
    sheet_id: Id
    stamp_id: Id
    x: Grid
    y: Grid
    rows: list[dict[Text, Text]] = Field(default=[{}], min_length=1, max_length=200)
    dx: Grid | None = None
    dy: Grid | None = None


@edit(PutStamp, {"sheet_id": "s1", "stamp_id": "p1", "x": 20, "y": 20, "rows": [{"Text": "Loading auger"}]})
def put_stamp(work: Work, payload: PutStamp) -> str:
    """Work out PutStamp."""
    name, text = stamp_named(work, payload.stamp_id)
    if is_layout(text):
        raise RuleError(f"{name} is a piece of a layout. Put it down on the Cabinet bench.", field="stamp_id")
    body = body_from_text(text)
    _Stamping(work, payload, body).run()
    count = len(payload.rows)
    return f"put down {name}" if count == 1 else f"put down {name}, {count} times"


def stamp_named(work: Work, id: str) -> tuple[str, str]:
    """Return name and body of a stamp of the project, the library, or of those that come with the application.

    Raises:
        RuleError: there is none.
    """
    own = work.project.stamps.get(id)
    if own is not None:
        return own.name, own.body
    found = built_in_stamps().get(id) or work.library.stamp(id)
    if found is None:
        raise RuleError("This stamp is neither in the project nor in the library.", field="stamp_id")
    return found.name, found.body


class _Stamping:
    """Copies of one stamp, laid side by side over as many sheets as they need."""

    def __init__(self, work: Work, payload: PutStamp, body: StampBody) -> None:
        self.work, self.payload, self.body = work, payload, body
        self.sheet: Sheet = work.drawable(payload.sheet_id)
        left, top, right, bottom = body.piece.box()
        self.before = (body.anchor[0] - left, body.anchor[1] - top)
        standard = work.project.settings.standard
        drawn = [(left, top, right, bottom), *(extent_of(s, standard) for s in body.piece.of("symbol"))]
        ax, ay = body.anchor
        # How far a copy reaches from its caret point, grid steps: its symbols are larger than where their pins are.
        self.reach = (
            min(b[0] for b in drawn) - ax,
            min(b[1] for b in drawn) - ay,
            max(b[2] for b in drawn) - ax,
            max(b[3] for b in drawn) - ay,
        )
        across = right - left + GAP
        self.pitch = (
            (across if payload.dx is None else payload.dx),
            (0 if payload.dy is None else payload.dy),
        )
        if len(payload.rows) > 1 and self.pitch == (0, 0):
            raise RuleError("The copies would lie on each other. Give a pitch across or down.", field="dx")
        self.first = self.sheet
        self.table: list[list[str]] = []

    def run(self) -> None:
        at = (self.payload.x, self.payload.y)
        on_sheet, sheets = 0, 1
        for n, answers in enumerate(self.payload.rows, start=1):
            if on_sheet and self._amiss(at):
                self._next_sheet()
                at, on_sheet, sheets = (self._first_x(), self.payload.y), 0, sheets + 1
            amiss = self._amiss(at)
            if amiss:
                words = f"It would lie partly {amiss} of sheet {self.sheet.number}."
                words = f"{words} Choose another place, or a larger size for the sheet."
                if len(self.payload.rows) > 1:
                    raise RuleError(words, field="x")
                self.work.outcome.remarks.append(words)
            wishes, chosen = wishes_for(self.work, self.body, answers)
            dx, dy = at[0] - self.body.anchor[0], at[1] - self.body.anchor[1]
            draft = self.work.draft(self.sheet.id)
            self.work.outcome.placed += put_piece(self.work, draft, self.body.piece, dx, dy, wishes)
            label = next((a for a in answers.values() if a), "")
            self.table += [[f"{n} {label}".strip(), *row] for row in chosen]
            at = (at[0] + self.pitch[0], at[1] + self.pitch[1])
            on_sheet += 1
        if sheets > 1:
            last = self.sheet.number
            words = f"{len(self.payload.rows)} copies on {counted(sheets, 'sheet')}, {self.first.number} to {last}."
            self.work.outcome.remarks.insert(0, words)
        if self.table:
            self.work.outcome.table = [["Copy", "What", "Choice", "Why"], *self.table]
        self.work.outcome.caret = (max(1, at[0]), max(1, at[1])) if not self._amiss(at) else None

    def _first_x(self) -> int:
        """Return where the first copy on a further sheet stands: as far left as the frame lets it.

        The copies on the first sheet stand from where the hand put them, which may be far to the right.
        """
        x = self.payload.x
        if self.pitch[0] <= 0 or self.sheet.frame != "zones":
            return x
        least = LEFTMOST + GAP + self.before[0]
        return next((at for at in range(min(least, x), x) if not self._amiss((at, self.payload.y))), x)

    def _amiss(self, at: tuple[int, int]) -> str:
        """Return where a copy at a point would lie that does not lie inside the frame and clear of the title block."""
        left, top, right, bottom = self.reach
        x, y = at
        box = ((x + left) * GRID_MM, (y + top) * GRID_MM, (x + right) * GRID_MM, (y + bottom) * GRID_MM)
        return where_amiss(self.work.project, self.sheet, box)

    def _next_sheet(self) -> None:
        """Open a sheet like this one behind it, and carry the bus over to it."""
        old, work = self.sheet, self.work
        placed = list(work.outcome.placed)
        like = AddSheet(
            sheet_kind=old.kind,  # type: ignore[arg-type]  # a stored kind is one of SHEET_KINDS
            title=old.title,
            size=old.size,
            frame=old.frame,  # type: ignore[arg-type]  # as stored
            columns=old.columns,
            rows=old.rows,
            function_id=old.function_id,
            location_id=old.location_id,
            after_id=old.id,
        )
        add_sheet(work, like)
        made: Sheet = work.project.sheets[work.outcome.placed[0]]
        work.outcome.placed = placed
        self._carry_bus(old, made)
        self.sheet = made

    def _carry_bus(self, old: Sheet, made: Sheet) -> None:
        """Draw the wires that the copies tie onto on the new sheet too, joined by continuations."""
        project, work = self.work.project, self.work
        across = self.pitch[0] != 0
        start = (self.payload.x - self.before[0], self.payload.y - self.before[1])
        lanes = _lanes(project, old.id, self.body, start, across)
        if not lanes:
            return
        source, target = work.draft(old.id), work.draft(made.id)
        taken: set[str] = set()
        for wire in lanes:
            name = _name_of(project, wire)
            while name in taken:
                name += "'"
            taken.add(name)
            begin = self._first_x() - self.before[0] if across else start[1]
            low = max(LEFTMOST, begin - GAP)
            high = wire.x2 if across else wire.y2
            a = (low, wire.y1) if across else (wire.x1, low)
            b = (high, wire.y1) if across else (wire.x1, high)
            target.stroke(a, b, wire.type_id)
            mark = Continuation(work.ids.new(), made.id, *a, name, "left" if across else "up")
            target.continuations[mark.id] = mark
            self._mark_end(source, wire, name, across)
        work.close(source)
        work.close(target)

    def _mark_end(self, source: SheetDraft, wire: Wire, name: str, across: bool) -> None:
        """Put the mark at which a wire of the bus leaves its sheet, unless it has one of that name."""
        project = self.work.project
        if any(project.continuations[i].sheet_id == source.sheet_id for i in project.continuations_named.get(name)):
            return
        end = (wire.x2, wire.y2)
        if any((c.x, c.y) == end for c in source.continuations.values()):
            return
        mark = Continuation(self.work.ids.new(), source.sheet_id, *end, name, "right" if across else "down")
        source.continuations[mark.id] = mark


def _lanes(project: Project, sheet_id: str, body: StampBody, start: tuple[int, int], across: bool) -> list[Wire]:
    """Return, for each line that a copy's wires begin on, the last wire of that line: the bus the copies tie onto."""
    left, top, _, _ = body.piece.box()
    lines: set[int] = set()
    for w in body.piece.of("wire"):
        if (w.x1 == w.x2) == across:
            lines.add(w.y1 - top + start[1] if across else w.x1 - left + start[0])
    last: dict[int, Wire] = {}
    for w in project.wires_on(sheet_id):
        level = w.y1 == w.y2
        line = w.y1 if across else w.x1
        if level == across and line in lines:
            known = last.get(line)
            if known is None or (w.x2, w.y2) > (known.x2, known.y2):
                last[line] = w
    ends = {w.x2 if across else w.y2 for w in last.values()}
    far = max(ends, default=0)
    # A bus reaches past the copies; what ends before is a wire of a copy.
    reach = [w for w in last.values() if far - (w.x2 if across else w.y2) <= 2 * GAP]
    return sorted(reach, key=lambda w: (w.y1, w.x1)) if len(reach) > 1 else []


def _name_of(project: Project, wire: Wire) -> str:
    """Return the name a bus conductor's continuation has already, or one of its type and number."""
    groups = sheet_groups(project, wire.sheet_id)
    group = groups.by_point[groups.of_wire[wire.id]]
    for id in group.continuations:
        return project.continuations[id].name
    number = wire_numbers(project, wire.sheet_id).get(group.point, "")
    wire_type = project.wire_types.get(wire.type_id)
    return " ".join(t for t in (wire_type.name if wire_type else "", number) if t) or "bus"
