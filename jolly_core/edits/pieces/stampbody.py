"""What a stamp is made of: a piece of circuit, the point of it that lies on the caret, and its questions.

The JSON is {"piece": as edits/pieces/pieces.py writes it, "anchor": [x, y], "questions": [{"name", "kind", "targets",
"suggestion"}]}. Targets are ids in the piece: devices, notes, continuations or wire types.
"""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from jolly_core.cables import project_laying
from jolly_core.circuits import control_volts, mains_of
from jolly_core.library import definition, part_class
from jolly_core.library.quantities import quantity
from jolly_core.model import FileError, Project, RuleError, WireType, check_text
from jolly_core.sizing import area_mm2, motor_choice
from jolly_core.tagging import path_of

from ..base.edit import Work
from .pieces import Piece, Wishes, piece_from_json, piece_to_json

QUESTION_KINDS = ("text", "tag", "part", "wire-type", "function", "location", "motor-kw")
# Kinds of question that need not say what they concern: they concern the whole stamp.
WHOLE = ("function", "location", "motor-kw")
SIZED = ("motor-breaker", "overload", "contactor", "motor")
MOST_QUESTIONS = 24
LEAST_MM2 = 1.5  # of a single conductor in a power circuit outside an enclosure, IEC 60204-1 table 5


@dataclass(slots=True, frozen=True)
class Question:
    """A question a stamp asks: its words, what the answer sets, for which things, and what is suggested."""

    name: str
    kind: str
    targets: tuple[str, ...]
    suggestion: str = ""


@dataclass(slots=True, frozen=True)
class StampBody:
    """A stamp as it is put down."""

    piece: Piece
    anchor: tuple[int, int]
    questions: tuple[Question, ...]


def is_layout(text: str) -> bool:
    """Return whether the body of a stamp is a piece of a layout (edits/cabinet/stamps.py), not of a circuit."""
    return text.startswith('{"layout"')


def body_to_text(body: StampBody) -> str:
    """Return the JSON of a stamp's body."""
    questions = [
        {"name": q.name, "kind": q.kind, "targets": list(q.targets), "suggestion": q.suggestion} for q in body.questions
    ]
    raw = {"piece": piece_to_json(body.piece), "anchor": list(body.anchor), "questions": questions}
    return json.dumps(raw, ensure_ascii=False, separators=(",", ":"))


def body_from_text(text: str) -> StampBody:
    """Return the stamp a JSON says, checked throughout.

    Raises:
        FileError: something in it is wrong.
    """
    try:
        raw = json.loads(text)
        anchor = tuple(raw["anchor"])
        listed = raw["questions"]
        questions = tuple(Question(q["name"], q["kind"], tuple(q["targets"]), q.get("suggestion", "")) for q in listed)
        piece = piece_from_json(raw["piece"])
    except (ValueError, KeyError, TypeError, AttributeError, RecursionError):
        raise FileError("This is no stamp: its JSON is not as docs/formats say.", field="body") from None
    if len(anchor) != 2 or any(type(v) is not int for v in anchor):
        raise FileError("The stamp's caret point should be two whole numbers.", field="anchor")
    check_questions(piece, questions)
    return StampBody(piece, (anchor[0], anchor[1]), questions)


def check_questions(piece: Piece, questions: tuple[Question, ...]) -> None:
    """Refuse questions of one name, of unknown kinds, or about what is not in the piece.

    Raises:
        FileError: naming the question.
    """
    if len(questions) > MOST_QUESTIONS:
        raise FileError(f"A stamp asks at most {MOST_QUESTIONS} questions.", field="questions")
    names: set[str] = set()
    for q in questions:
        for text in (q.name, q.suggestion):
            if not isinstance(text, str):
                raise FileError("A question's name and suggestion are texts.", field="questions")
            check_text(text, "name", "question")
        if not q.name or q.name in names:
            raise FileError(f"Two questions are called “{q.name}”. Give each a name of its own.", field="questions")
        names.add(q.name)
        if q.kind not in QUESTION_KINDS:
            raise FileError(f"The question “{q.name}” is of no known kind.", field="questions")
        kinds = _allowed(q.kind)
        for target in q.targets:
            if not any(target in piece.tables[kind] for kind in kinds):
                raise FileError(f"The question “{q.name}” concerns what is not in the stamp.", field="questions")
        if not q.targets and q.kind not in WHOLE:
            raise FileError(
                f"The question “{q.name}” concerns nothing. Choose what its answer sets.", field="questions"
            )


def _allowed(kind: str) -> tuple[str, ...]:
    if kind == "text":
        return ("device", "note", "continuation")
    return ("wire_type",) if kind == "wire-type" else ("device",)


def wishes_for(work: Work, body: StampBody, answers: Mapping[str, str]) -> tuple[Wishes, list[list[str]]]:
    """Return what the answers ask for, and rows (what, choice, reason) of what was chosen from ratings.

    Raises:
        RuleError: an answer names what is not there, or is no number where one is asked for.
    """
    texts: dict[str, str] = {}
    tags: dict[str, str] = {}
    parts: dict[str, str] = {}
    types: dict[str, str] = {}
    places: dict[str, str] = {}
    rows: list[list[str]] = []
    unknown = sorted(set(answers) - {q.name for q in body.questions})
    if unknown:
        raise RuleError(f"This stamp does not ask for “{unknown[0]}”.", field="answers")
    for q in body.questions:
        answer = answers.get(q.name, "").strip()
        if not answer:
            continue
        if q.kind == "motor-kw":
            rows += _sized(work, body, q, answer, parts, types)
        elif q.kind in ("function", "location"):
            places[q.kind] = _place(work.project, q, answer)
        elif q.kind == "wire-type":
            types.update((t, _type(work.project, q, answer)) for t in q.targets)
        else:
            {"text": texts, "tag": tags, "part": parts}[q.kind].update((t, answer) for t in q.targets)
    function_id, location_id = places.get("function", ""), places.get("location", "")
    return Wishes(texts, parts, tags, types, function_id, location_id), rows


def _place(project: Project, question: Question, answer: str) -> str:
    table: dict[str, Any] = project.tables[question.kind]
    mark = "=" if question.kind == "function" else "+"
    wanted = answer.lstrip("=+").lower()
    for id in sorted(table):
        if wanted in (table[id].code.lower(), path_of(table, id, mark).lstrip("=+").lower()):
            return id
    known = ", ".join(sorted(mark + e.code for e in table.values())[:8]) or "none yet"
    raise RuleError(f"{question.name}: there is no {question.kind} {answer}. There are {known}.", field="answers")


def _type(project: Project, question: Question, answer: str) -> str:
    for t in project.types_in_order():
        if t.name.lower() == answer.lower():
            return t.id
    raise RuleError(f"{question.name}: there is no wire type {answer} in the project.", field="answers")


def _sized(
    work: Work, body: StampBody, question: Question, answer: str, parts: dict[str, str], types: dict[str, str]
) -> list[list[str]]:
    """Choose parts and wires for a motor's power; what is answered by hand elsewhere stays."""
    said = quantity(answer, "kW")
    if said is None or said.low != said.high:
        raise RuleError(f"{question.name}: “{answer}” is no power in kW or hp.", field="answers")
    power = said.low
    piece = body.piece
    classes = {d.id: _class_of(piece, d.id) for d in piece.of("device")}
    asked = [d for d in question.targets or classes if classes.get(d) in SIZED]
    candidates = {key: work.library.parts_of(key) for key in sorted({classes[d] for d in asked})}
    power_types = [t for t in piece.of("wire_type") if t.category in ("power", "pe")]
    kept = next((p.ratings["coil_voltage_v"] for p in piece.of("part") if p.ratings.get("coil_voltage_v")), "24")
    control = control_volts(work.project, "")
    volts = f"{control:g}" if control else kept
    rows: list[list[str]] = []
    mains = mains_of(work.project)
    for chosen in motor_choice(power, candidates, volts, LEAST_MM2, project_laying(work.project), mains):
        if chosen.what == "conductor":
            for wire_type in power_types:
                types.setdefault(wire_type.id, _type_of_size(work, wire_type, chosen.area_mm2))
            rows.append(["conductor", f"{chosen.area_mm2:g} mm²", chosen.reason])
            continue
        for device_id in [d for d in asked if classes[d] == chosen.what]:
            if chosen.part is not None:
                parts.setdefault(device_id, chosen.part.id)
        rows.append([part_class(chosen.what).name, chosen.part.number if chosen.part else "none", chosen.reason])
    return rows


def _class_of(piece: Piece, device_id: str) -> str:
    """Return the part class of a device of a piece: its part's, else that of what is drawn of it."""
    part = piece.tables["part"].get(piece.tables["device"][device_id].part_id)
    if part is not None:
        return str(part.part_class)
    own = [definition(s.definition) for s in piece.of("symbol") if s.device_id == device_id]
    if any(d.part_class == "contactor" for d in own):  # a coil with power poles is a contactor's
        return "contactor"
    return min(own, key=lambda d: d.lead).part_class if own else ""


def _type_of_size(work: Work, wire_type: WireType, area: float) -> str:
    """Return the project's type that is like one of the piece and at least of a size; a thicker one where none is."""
    known = [
        t
        for t in work.project.types_in_order()
        if (t.colour, t.category) == (wire_type.colour, wire_type.category) and area_mm2(t) >= area - 1e-9
    ]
    if area_mm2(wire_type) >= area - 1e-9 and any(t.name == wire_type.name for t in known):
        return next(t.id for t in known if t.name == wire_type.name)
    if known:
        return min(known, key=lambda t: (area_mm2(t), t.id)).id
    base = wire_type.name.split(" ", maxsplit=1)[0]
    name = f"{base} {wire_type.colour} {area:g}"
    made = WireType(
        work.ids.new(), name, wire_type.colour, area, "", wire_type.category, wire_type.numbered, wire_type.outside
    )
    work.put("wire_type", made)
    work.outcome.remarks.append(f"The wire type {name} was added.")
    return made.id
