"""Search and replace over texts, tags and parts, listed before it is done."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Any, Literal

from pydantic import Field

from jolly_core.drawing import place_in
from jolly_core.model import Project, RuleError, counted
from jolly_core.tagging import full_tag, lead_of, tag_taken

from ..base.edit import Id, Payload, Text, Work, edit
from .parts import give_part

Where = Literal["texts", "tags", "notes", "continuations", "sheets", "parts"]
# Where -> kind and fields that are looked through.
_FIELDS: dict[str, tuple[str, tuple[str, ...]]] = {
    "texts": ("device", ("text",)),
    "tags": ("device", ("fixed_tag",)),
    "notes": ("note", ("text",)),
    "continuations": ("continuation", ("name",)),
    "sheets": ("sheet", ("title", "subtitle")),
}
MOST = 2000
LONGEST = 200


class ReplaceTexts(Payload):
    """Replace a text wherever it is, or a part by another; the table lists each place, now and then.

    `only` names rows of the table by their first column: what is not named stays.
    """

    kind: Literal["replace-texts"] = "replace-texts"
    find: Text = Field(min_length=1)
    replace: Text
    where: list[Where] = Field(min_length=1, max_length=6)
    match_case: bool = False
    whole_words: bool = False
    sheet_ids: list[Id] = Field(default_factory=list, max_length=2000)
    only: list[str] | None = Field(default=None, max_length=MOST)


@edit(ReplaceTexts, {"find": "auger", "replace": "screw", "where": ["texts", "notes"]})
def replace_texts(work: Work, payload: ReplaceTexts) -> str:
    """Work out ReplaceTexts."""
    project = work.project
    pattern = re.escape(payload.find)
    if payload.whole_words:
        pattern = rf"(?<!\w){pattern}(?!\w)"
    finder = re.compile(pattern, 0 if payload.match_case else re.IGNORECASE)
    sheets = {project.get("sheet", id).id for id in payload.sheet_ids}
    rows: list[list[str]] = []
    for where in dict.fromkeys(payload.where):
        if where == "parts":
            rows += _parts(work, payload, sheets)
            continue
        kind, fields = _FIELDS[where]
        for entity in [project.tables[kind][id] for id in sorted(project.tables[kind])]:
            place, sheet_id = _place(project, kind, entity)
            if sheets and sheet_id not in sheets:
                continue
            for name in fields:
                now = getattr(entity, name)
                then = finder.sub(lambda _: payload.replace, now)
                key = f"{kind}:{entity.id}:{name}"
                if then == now or (payload.only is not None and key not in payload.only):
                    continue
                _check(project, kind, entity, name, then)
                values: dict[str, Any] = {name: then}
                work.put(kind, replace(project.tables[kind][entity.id], **values))
                rows.append([key, place, now, then])
    if not rows:
        raise RuleError(f"“{payload.find}” is nowhere in what you look through.", field="find")
    if len(rows) > MOST:
        raise RuleError(f"{len(rows)} places have “{payload.find}”. Look through fewer sheets at a time.", field="find")
    work.outcome.table = [["", "Where", "Now", "Then"], *rows]
    return f"replace {payload.find} by {payload.replace or 'nothing'}, {counted(len(rows), 'time')}"


def _place(project: Project, kind: str, entity: Any) -> tuple[str, str]:
    """Return where a thing is in words, and its sheet, "" when it is on none."""
    if kind == "sheet":
        return f"sheet {entity.number}", entity.id
    if kind == "device":
        lead = lead_of(project, entity.id)
        return full_tag(project, entity), lead.sheet_id if lead else ""
    return place_in(project.sheets[entity.sheet_id], entity.x, entity.y), entity.sheet_id


def _check(project: Project, kind: str, entity: Any, name: str, then: str) -> None:
    if len(then) > LONGEST:
        raise RuleError(f"“{then[:30]}…” would be longer than {LONGEST} characters.", field="replace", ids=(entity.id,))
    if kind == "continuation" and not then.strip():
        raise RuleError(f"The continuation {entity.name} would have no name.", field="replace", ids=(entity.id,))
    if name == "fixed_tag" and then:
        if not re.fullmatch(r"[A-Za-z0-9][A-Za-z0-9._/]*", then):
            raise RuleError(f"“{then}” is no tag. A tag is made of letters, digits, dots and strokes.", field="replace")
        if tag_taken(project, then, entity.function_id, entity.location_id, but=entity.id):
            raise RuleError(f"The tag {then} is used already. Leave this one out.", field="replace", ids=(entity.id,))


def _parts(work: Work, payload: ReplaceTexts, sheets: set[str]) -> list[list[str]]:
    """Replace a part of the whole number typed by another one."""
    project = work.project
    old = next((p for p in project.parts.values() if p.number.lower() == payload.find.strip().lower()), None)
    if old is None:
        return []
    new = next((p for p in project.parts.values() if p.number.lower() == payload.replace.strip().lower()), None)
    new = new or work.library.part(payload.replace.strip())
    if new is None:
        raise RuleError(f"There is no part {payload.replace} in the library. Type its whole number.", field="replace")
    rows: list[list[str]] = []
    for id in project.devices_of_part.get(old.id):
        place, sheet_id = _place(project, "device", project.devices[id])
        key = f"device:{id}:part"
        if (sheets and sheet_id not in sheets) or (payload.only is not None and key not in payload.only):
            continue
        give_part(work, project.devices[id], new.id)
        rows.append([key, place, old.number, new.number])
    return rows
