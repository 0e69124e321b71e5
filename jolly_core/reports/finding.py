"""Finding sheets, tags, wire numbers, texts and parts by a few letters, fast enough to do it while one types.

What is on a sheet is kept as lower-case texts until the sheet changes. Tags depend on more than their sheet, so
what is shown of a match is worked out anew; so are wire numbers, on the few sheets that can have the number typed.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from jolly_core.drawing import ladder_lines
from jolly_core.model import Block, Device, Node, Project, Seat, Sheet, derived
from jolly_core.tagging import full_tag, lead_of, natural
from jolly_core.wiring import sheet_groups, wire_numbers

from .findingmore import exactly, with_names

MOST_SHEETS = 24  # on which a running wire number is looked for
MOST_WITH_RULES = 300


@dataclass(slots=True, frozen=True)
class Found:
    """What was found: kind (sheet, device, wire, text, part, pin ...), label, and where it is.

    Attributes:
        sheet_id: the sheet it is on, "" for what is on none.
        id: what is selected there, or the thing itself.
        bench: the bench that shows what is on no sheet, where more is not known of it.
    """

    kind: str
    label: str
    sheet_id: str = ""
    id: str = ""
    bench: str = ""


@dataclass(slots=True, frozen=True)
class _Kept:
    """A text on a sheet: a device with its lead, a note or a continuation, in lower case."""

    kind: str
    text: str
    id: str
    device: Device | None


_All = list[tuple[Sheet, list[_Kept], str]]


def find_in(project: Project, words: str, limit: int = 30) -> list[Found]:
    """Return what has all the words typed, the likeliest first.

    Args:
        words: parts of numbers, tags or texts; upper and lower case are one.
        limit: how many at most; no kind takes more than half of them.
    """
    tokens = words.lower().split()
    if not tokens:
        return []
    most = max(1, limit // 2)
    kept = _all_kept(project)
    exact = [Found(*hit) for hit in exactly(project, words, most)]
    found = [
        *exact,
        *_sheets(project, tokens)[:most],
        *_devices(project, kept, tokens, most),
        *_wires(project, tokens, most),
        *_texts(project, kept, tokens, most),
        *_others(project, tokens, most),
    ]
    return found[:limit]


def _has(text: str, tokens: list[str]) -> bool:
    return tokens[0] in text and (len(tokens) == 1 or all(t in text for t in tokens))  # mostly it is one word


def _sheets(project: Project, tokens: list[str]) -> list[Found]:
    ranked = []
    for n, sheet in enumerate(project.sheets_in_order()):
        text = f"{sheet.number} {sheet.title} {sheet.subtitle}".lower()
        if _has(f"{text} sheet", tokens):
            rank = 0 if sheet.number.lower() in tokens[:2] else 1 if text.startswith(tokens[0]) else 2
            ranked.append((rank, n, sheet))
    return [Found("sheet", f"{s.number} {s.title}".strip(), s.id) for _, _, s in sorted(ranked, key=lambda r: r[:2])]


def _devices(project: Project, all_kept: _All, tokens: list[str], most: int) -> list[Found]:
    ranked: list[tuple[int, str, Found]] = []
    parts = {p.id: p.number.lower() for p in project.parts.values() if any(t in p.number.lower() for t in tokens)}
    for sheet, rows, blob in all_kept:
        if not parts and not _has(blob, tokens):
            continue
        for kept in rows:
            if kept.device is None:
                continue
            part = parts.get(kept.device.part_id)
            if not _has(f"{kept.text} {part}" if part else kept.text, tokens):
                continue
            lead = lead_of(project, kept.device.id)
            if lead is not None and lead.id != kept.id:
                continue
            tag = full_tag(project, kept.device)
            exact = any(tag.lower().endswith(f"-{t}") or tag.lower() == t for t in tokens)
            label = f"{tag}  {kept.device.text}".strip()
            ranked.append((0 if exact else 1, tag, Found("device", label, sheet.id, kept.id)))
        if len(ranked) > most * 4:
            break
    return [f for _, _, f in sorted(ranked, key=lambda r: r[:2])[:most]]


def _all_kept(project: Project) -> _All:
    return [(sheet, *_kept(project, sheet.id)) for sheet in project.sheets_in_order()]


@derived
def _kept(project: Project, sheet_id: str) -> tuple[list[_Kept], str]:
    """Return the texts on a sheet, each alone and all in one, which says sooner that none has what is looked for."""
    rows = []
    for symbol in project.symbols_on(sheet_id):
        device = project.devices.get(symbol.device_id)
        if device is not None:
            rows.append(_Kept("device", f"{full_tag(project, device)} {device.text}".lower(), symbol.id, device))
    rows += [_Kept("text", n.text.lower(), n.id, None) for n in project.notes_on(sheet_id)]
    rows += [_Kept("text", c.name.lower(), c.id, None) for c in project.continuations_on(sheet_id)]
    return rows, "\n".join(k.text for k in rows)


def _texts(project: Project, all_kept: _All, tokens: list[str], most: int) -> list[Found]:
    found = []
    for sheet, rows, blob in all_kept:
        for kept in rows if _has(blob, tokens) else ():
            if kept.device is None and _has(kept.text, tokens):
                note, mark = project.notes.get(kept.id), project.continuations.get(kept.id)
                label = note.text if note else f"continuation {mark.name}" if mark else ""
                found.append(Found("text", f"{label}  ({sheet.number})", sheet.id, kept.id))
                if len(found) >= most:
                    return found
    return found


def _wires(project: Project, tokens: list[str], most: int) -> list[Found]:
    """Return wires whose number begins with what was typed, if that is one word."""
    if len(tokens) != 1:
        return []
    typed = tokens[0]
    found: dict[str, Found] = {}
    for number in sorted(n for n in list(project.numbered_wires.keys()) if n.lower().startswith(typed))[:most]:
        wire = project.wires[project.numbered_wires.get(number)[0]]
        found[number] = Found("wire", number, wire.sheet_id, wire.id)
    # Rules of the project's own may begin with anything: then more sheets are looked through.
    own = bool(project.number_rules)
    likely = [(max(_may_have(s, typed), own), -n, s) for n, s in enumerate(project.sheets_in_order())]
    likely.sort(key=lambda x: x[:2], reverse=True)
    for _, _, sheet in [x for x in likely if x[0]][: MOST_WITH_RULES if own else MOST_SHEETS]:
        groups = sheet_groups(project, sheet.id).by_point
        begin = [n for n in wire_numbers(project, sheet.id).items() if n[1].lower().startswith(typed)]
        for index, number in sorted(begin, key=lambda n: natural(n[1])):
            if groups[index].wires:
                found.setdefault(number, Found("wire", number, sheet.id, min(groups[index].wires)))
        if len(found) >= most:
            break
    return [found[n] for n in sorted(found, key=lambda n: (len(n), n))][:most]


def _may_have(sheet: Sheet, typed: str) -> int:
    """Return how much of what was typed speaks for a running wire number of a sheet, 0 when it cannot be one.

    Running numbers begin with a ladder line, or with the sheet's number.
    """
    heads = [f"{sheet.number.lower()}-", *(str(number) for number, *_ in ladder_lines(sheet))]
    return max((min(len(h), len(typed)) for h in heads if h.startswith(typed) or typed.startswith(h)), default=0)


def _others(project: Project, tokens: list[str], most: int) -> list[Found]:
    """Return parts of the project, points, devices that are drawn on no sheet, and what else has a name."""
    found: list[Found] = []
    for part in sorted(project.parts.values(), key=lambda p: p.number):
        if _has(f"part {part.number} {part.maker} {part.text}".lower(), tokens):
            found.append(Found("part", f"{part.number}  {part.text}", id=part.id, bench="parts"))
    for point in sorted(project.io_points.values(), key=lambda p: p.order):
        if _has(f"point {point.tag} {point.text}".lower(), tokens):
            found.append(Found("point", f"{point.tag}  {point.text}", bench="io"))
    found += [Found(*hit) for hit in with_names(project) if _has(f"{hit[0]} {hit[1]}".lower(), tokens)]
    for device in _only_blocks(project):
        label = f"{full_tag(project, device)}  {device.text}".strip()
        if _has(label.lower(), tokens):
            found.append(Found("device", label, bench="harness"))
    by_kind: dict[str, list[Found]] = {}
    for one in found:
        by_kind.setdefault(one.kind, []).append(one)
    # Of each kind some, the parts last: they are many.
    shares = sorted(by_kind.items(), key=lambda kind: kind[0] == "part")
    each = max(2, most // max(1, len(shares)))
    return [one for _, those in shares for one in those[: each if len(shares) > 1 else most]]


def _only_blocks(project: Project) -> list[Device]:
    """Return the devices and connectors of harnesses that are drawn on no sheet."""
    tables: tuple[Iterable[Block | Seat | Node], ...] = (
        project.blocks.values(),
        project.seats.values(),
        project.nodes.values(),
    )
    ids = dict.fromkeys(e.device_id for table in tables for e in table if e.device_id)
    return [project.devices[id] for id in ids if not project.units_of(id)]
