"""Numbering rules of wires; each edit lists what changes."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Literal

from pydantic import Field

from jolly_core.model import NumberRule, RuleError
from jolly_core.wiring import GroupKey, rules_in_order, sheet_groups, wire_numbers

from ..base.edit import Id, Payload, Text, Work, edit

MOST_ROWS = 400


PieceKind = Literal["sheet", "line", "column", "running", "address", "potential", "text"]


class NumberPiece(Payload):
    """A piece of a number; a running one says digits and first number, a text its words."""

    piece: PieceKind
    text: Text = Field(default="", max_length=20)
    digits: int = Field(default=1, ge=1, le=6)
    start: int = Field(default=1, ge=0, le=99_999)


class PutNumberRule(Payload):
    """Add a numbering rule, or change one; the table says what becomes of each number."""

    kind: Literal["put-number-rule"] = "put-number-rule"
    rule_id: Id = ""
    name: Text = Field(min_length=1)
    pieces: list[NumberPiece] = Field(min_length=1, max_length=8)
    category: Literal["", "power", "control-ac", "control-dc", "signal", "pe", "external"] = ""
    type_id: Id = ""
    at_channel: bool = False
    potential: Text = ""
    function_id: Id = ""
    location_id: Id = ""
    scope: Literal["potential", "net"] = "potential"


@edit(PutNumberRule, {"name": "By address", "at_channel": True, "pieces": [{"piece": "address"}]})
def put_number_rule(work: Work, payload: PutNumberRule) -> str:
    """Work out PutNumberRule."""
    project = work.project
    for kind, id in (
        ("wire_type", payload.type_id),
        ("function", payload.function_id),
        ("location", payload.location_id),
    ):
        if id:
            project.get(kind, id)
    pieces = tuple(_stored(p) for p in payload.pieces)
    if sum(p == "running" for p, _ in pieces) > 1:
        raise RuleError("A number has at most one running piece.", field="pieces")
    if any(p.piece == "text" and not p.text.strip() for p in payload.pieces):
        raise RuleError("A fixed text has no words. Type them, or take the piece away.", field="pieces")
    if not any(p in ("running", "address", "potential") for p, _ in pieces):
        raise RuleError(
            "All nets would get one number. Add a running number, an address or a potential.", field="pieces"
        )
    if any(r.name == payload.name and r.id != payload.rule_id for r in project.number_rules.values()):
        raise RuleError(f"There is already a rule “{payload.name}”. Choose another name.", field="name")
    old = project.get("number_rule", payload.rule_id) if payload.rule_id else None
    order = old.order if old else max((r.order for r in project.number_rules.values()), default=0) + 1
    values = payload.model_dump(exclude={"kind", "rule_id", "pieces", "name"})
    with NumbersListed(work):
        rule = NumberRule(old.id if old else work.ids.new(), order, payload.name, pieces, **values)
        work.put("number_rule", rule)
    work.outcome.placed = [rule.id]
    return f"numbering rule {rule.name}"


def _stored(piece: NumberPiece) -> tuple[str, tuple[str, ...]]:
    if piece.piece == "running":
        return piece.piece, (str(piece.digits), str(piece.start))
    return piece.piece, (piece.text,) if piece.piece == "text" else ()


class RemoveNumberRule(Payload):
    """Take a numbering rule away; the next that holds names its nets."""

    kind: Literal["remove-number-rule"] = "remove-number-rule"
    rule_id: Id


@edit(RemoveNumberRule, {"rule_id": "n1"})
def remove_number_rule(work: Work, payload: RemoveNumberRule) -> str:
    """Work out RemoveNumberRule."""
    rule: NumberRule = work.project.get("number_rule", payload.rule_id)
    with NumbersListed(work):
        work.remove("number_rule", rule.id)
    return f"remove numbering rule {rule.name}"


class OrderNumberRules(Payload):
    """Put the numbering rules in another order; the first that holds names a net."""

    kind: Literal["order-number-rules"] = "order-number-rules"
    ids: list[Id] = Field(min_length=1, max_length=200)


@edit(OrderNumberRules, {"ids": ["n2", "n1"]})
def order_number_rules(work: Work, payload: OrderNumberRules) -> str:
    """Work out OrderNumberRules."""
    known = [r.id for r in rules_in_order(work.project)]
    wanted = [i for i in payload.ids if i in known]
    with NumbersListed(work):
        for order, id in enumerate([*wanted, *(i for i in known if i not in wanted)], start=1):
            work.put("number_rule", replace(work.project.number_rules[id], order=order))
    return "order of numbering rules"


class NumbersListed:
    """Writes into the outcome which wire numbers of the project became others while its block ran."""

    def __init__(self, work: Work) -> None:
        self.work = work
        self.before: dict[GroupKey, str] = {}

    def __enter__(self) -> None:
        self.before = self._numbers()

    def __exit__(self, *error: Any) -> None:
        if error[0] is not None:
            return
        after = self._numbers()
        rows = []
        for key in sorted({*self.before, *after}):
            was, now = self.before.get(key, ""), after.get(key, "")
            if was != now:
                rows.append([self.work.project.sheets[key[0]].number, was or "none", now or "none"])
        unique = list(dict.fromkeys(map(tuple, rows)))
        if unique:
            self.work.outcome.table = [["Sheet", "Number now", "Number then"], *map(list, unique[:MOST_ROWS])]
            if len(unique) > MOST_ROWS:
                self.work.outcome.remarks.append(f"{len(unique) - MOST_ROWS} more numbers change.")

    def _numbers(self) -> dict[GroupKey, str]:
        project = self.work.project
        return {
            (s.id, index): number
            for s in project.sheets_in_order()
            for index, number in wire_numbers(project, s.id).items()
            if sheet_groups(project, s.id).by_point[index].wires
        }
