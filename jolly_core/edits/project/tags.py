"""Rules of tags, and tags numbered again."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.library import is_class, part_class
from jolly_core.model import Device, Project, RuleError, TagRule, counted
from jolly_core.model.entities.habits import FirstNumber
from jolly_core.tagging import class_of, first_number, full_tag, lead_of, natural, product_tag, renamed_at, tag_taken

from ..base.edit import Grid, Id, Payload, Text, Work, edit
from ..base.upkeep import refresh_letters
from .numberrules import MOST_ROWS


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
