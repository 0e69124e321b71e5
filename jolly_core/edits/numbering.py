"""Numbering rules of wires, numbers fixed and let run by scope, tags numbered again; each lists what changes."""

from __future__ import annotations

from dataclasses import replace
from typing import Any, Literal

from pydantic import Field

from jolly_core.library import is_class, part_class
from jolly_core.model import Device, NumberRule, Project, RuleError, TagRule, counted
from jolly_core.model.entities.habits import FirstNumber
from jolly_core.tagging import class_of, first_number, full_tag, lead_of, natural, product_tag, renamed_at, tag_taken
from jolly_core.wiring import GroupKey, rules_in_order, sheet_groups, wire_numbers

from .base import Grid, Id, Payload, Text, Work, edit
from .upkeep import refresh_letters

MOST_ROWS = 400
Piece = Literal["sheet", "line", "column", "running", "address", "potential", "text"]


class NumberPiece(Payload):
    """A piece of a number; a running one says digits and first number, a text its words."""

    piece: Piece
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
    with _listed(work):
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
    with _listed(work):
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
    with _listed(work):
        for order, id in enumerate([*wanted, *(i for i in known if i not in wanted)], start=1):
            work.put("number_rule", replace(work.project.number_rules[id], order=order))
    return "order of numbering rules"


class FixNumbers(Payload):
    """Fix wire numbers as they are now, so that nothing moves them, or let them run again.

    What is named counts: wires, else sheets, else the whole project.
    """

    kind: Literal["fix-numbers"] = "fix-numbers"
    ids: list[Id] = Field(default_factory=list, max_length=2000)
    sheet_ids: list[Id] = Field(default_factory=list, max_length=2000)
    fixed: bool


@edit(FixNumbers, {"sheet_ids": ["s1"], "fixed": True})
def fix_numbers(work: Work, payload: FixNumbers) -> str:
    """Work out FixNumbers."""
    project = work.project
    sheet_ids = payload.sheet_ids or sorted({project.get("wire", id).sheet_id for id in payload.ids})
    sheets = [project.get("sheet", id).id for id in sheet_ids] if sheet_ids else list(project.sheets)
    chosen = set(payload.ids)
    with _listed(work):
        wanted: dict[str, str] = {}
        for sheet_id in sheets:
            numbers = wire_numbers(project, sheet_id)
            for group in sheet_groups(project, sheet_id).groups:
                if not group.wires or (chosen and not chosen & set(group.wires)):
                    continue
                held = [id for id in group.wires if project.wires[id].number]
                if payload.fixed and not held and numbers.get(group.point):
                    wanted[min(group.wires)] = numbers[group.point]
                elif not payload.fixed:
                    wanted.update((id, "") for id in held)
        for id, number in sorted(wanted.items()):
            work.put("wire", replace(project.wires[id], number=number))
    return f"{'fix' if payload.fixed else 'let run'} {len(wanted)} wire number(s)"


class NumberTags(Payload):
    """Number devices again in reading order, class by class in each function and location; fixed tags stay.

    What is named counts: devices, else sheets, else the whole project.
    """

    kind: Literal["number-tags"] = "number-tags"
    device_ids: list[Id] = Field(default_factory=list, max_length=5000)
    sheet_ids: list[Id] = Field(default_factory=list, max_length=2000)
    start: Grid = Field(default=1, ge=1, le=2000)
    free_fixed: bool = False


@edit(NumberTags, {"sheet_ids": ["s1"], "start": 1})
def number_tags(work: Work, payload: NumberTags) -> str:
    """Work out NumberTags."""
    project = work.project
    if project.settings.tag_habit == "line" and not payload.free_fixed:
        raise RuleError("Tags follow the ladder lines here: they are never behind. Free fixed tags, if you want that.")
    chosen = [d for d in _named_devices(project, payload) if payload.free_fixed or not d.fixed_tag]
    # A tag of the line habit follows from others on its line, too; else only what is numbered changes.
    watched = list(project.devices) if project.settings.tag_habit == "line" else [d.id for d in chosen]
    before = {id: full_tag(project, project.devices[id]) for id in watched}
    for device in chosen:  # all give their numbers up first, so that the order alone decides
        work.put("device", replace(device, number=0, fixed_tag=""))
    last: dict[tuple[str, str, str], int] = {}  # of each kind the number given last: what is below is taken
    for device in sorted(chosen, key=lambda d: _reading(project, d)):
        fresh = project.devices[device.id]
        kind = fresh.letters, fresh.function_id, fresh.location_id
        number = last.get(kind, payload.start)
        while tag_taken(project, f"{fresh.letters}{number}", fresh.function_id, fresh.location_id, but=fresh.id):
            number += 1
        last[kind] = number
        work.put("device", replace(fresh, number=number))
    rows = [[tag, full_tag(project, project.devices[id])] for id, tag in before.items()]
    changed = sorted((r for r in rows if r[0] != r[1]), key=lambda r: [natural(words) for words in r])
    work.outcome.table = [["Tag now", "Tag then"], *changed[:MOST_ROWS]] if changed else []
    return f"number {counted(len(changed), 'tag')} again"


def _named_devices(project: Project, payload: NumberTags) -> list[Device]:
    """Return the devices that a payload names: by themselves, by the sheets of their leads, else all."""
    sheets = [project.get("sheet", id).id for id in dict.fromkeys(payload.sheet_ids)]
    if payload.device_ids:
        named = [project.get("device", id) for id in payload.device_ids]
        leads = [(d, lead_of(project, d.id)) for d in named]
        return [d for d, lead in leads if not sheets or (lead is not None and lead.sheet_id in sheets)]
    if not sheets:
        return list(project.devices.values())
    drawn = [(s, project.devices.get(s.device_id)) for id in sheets for s in project.symbols_on(id)]
    return [d for s, d in drawn if d is not None and lead_of(project, d.id) == s]


def _reading(project: Project, device: Device) -> tuple[int, int, int, int, str]:
    lead = lead_of(project, device.id)
    if lead is None:
        return 1, 0, 0, 0, device.id
    return 0, project.sheets[lead.sheet_id].order, lead.y, lead.x, device.id


class PutTagRule(Payload):
    """Name the devices of a class otherwise than usual, everywhere or at a place: by own letters, or from a number on.

    A rule for the same class and place is changed; without letters and start it goes.
    """

    kind: Literal["put-tag-rule"] = "put-tag-rule"
    part_class: Text
    function_id: Id = ""
    location_id: Id = ""
    letters: Text = Field(default="", max_length=6)
    start: FirstNumber = 0


@edit(PutTagRule, {"part_class": "contactor", "letters": "K", "start": 101})
def put_tag_rule(work: Work, payload: PutTagRule) -> str:
    """Work out PutTagRule."""
    project = work.project
    if not all(c.isascii() and c.isalpha() for c in payload.letters):
        raise RuleError(f"“{payload.letters}” are no letters of a tag. Use A to Z only.", field="letters")
    if not is_class(payload.part_class):
        raise RuleError(f"There is no part class “{payload.part_class}”.", field="part_class")
    for kind, id in (("function", payload.function_id), ("location", payload.location_id)):
        if id:
            project.get(kind, id)
    subject = (payload.part_class, payload.function_id, payload.location_id)
    old = next((r for r in project.tag_rules.values() if (r.part_class, r.function_id, r.location_id) == subject), None)
    if old is None and not payload.letters and not payload.start:
        raise RuleError("Say which letters, or which first number, these devices have.", field="letters")
    before = {d.id: product_tag(project, d) for d in project.devices.values()}
    starts = {d.id: _start(project, d) for d in project.devices.values()}
    if payload.letters or payload.start:
        work.put("tag_rule", TagRule(old.id if old else work.ids.new(), *subject, payload.letters, payload.start))
    elif old is not None:
        work.remove("tag_rule", old.id)
    for device_id in sorted(project.devices):
        refresh_letters(work, device_id)
        device = project.devices[device_id]
        start = _start(project, device)
        if start != starts[device_id] and device.number < start:
            work.put("device", renamed_at(project, device, (device.function_id, device.location_id)))
    rows = [[before[d.id], product_tag(project, d)] for d in project.devices.values()]
    changed = sorted((r for r in rows if r[0] != r[1]), key=lambda r: [natural(words) for words in r])
    work.outcome.table = [["Tag now", "Tag then"], *changed[:MOST_ROWS]] if changed else []
    name = part_class(payload.part_class).name
    return f"tags of {name}: {payload.letters or 'the usual letters'} from {payload.start or 1}"


def _start(project: Project, device: Device) -> int:
    key = class_of(project, device)
    return first_number(project, key, (device.function_id, device.location_id)) if key else 1


class _listed:
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
