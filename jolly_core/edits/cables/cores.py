"""Cables: bands, facts, cores."""

from __future__ import annotations

from dataclasses import replace
from typing import Literal

from pydantic import Field

from jolly_core.cables import (
    PE,
    PROTECTIVE,
    CoreRow,
    cable_cores,
    cable_of,
    crossed_wires,
    ends_of,
    loops_among,
    pair_names,
    pairs_of,
    role_of,
)
from jolly_core.model import Band, Cable, CoreChoice, Device, Project, RuleError
from jolly_core.model.entities.building import PowerFactor
from jolly_core.tagging import natural, pin_name, short_tag
from jolly_core.tagging.natural import NaturalKey
from jolly_core.wiring import Conductor

from ..base.edit import Grid, Id, Length, Payload, Work, edit
from ..base.upkeep import new_device
from ..devices.parts import give_part


class DrawBand(Payload):
    """Draw a band across wires; they become cores of a new cable, or of the one named."""

    kind: Literal["draw-band"] = "draw-band"
    sheet_id: Id
    x1: Grid
    y1: Grid
    x2: Grid
    y2: Grid
    device_id: Id = ""
    part_id: Id = ""


@edit(DrawBand, {"sheet_id": "s1", "x1": 28, "y1": 78, "x2": 44, "y2": 78})
def draw_band(work: Work, payload: DrawBand) -> str:
    """Work out DrawBand."""
    project = work.project
    sheet = project.get("sheet", payload.sheet_id)
    if (payload.x1 != payload.x2) == (payload.y1 != payload.y2):
        raise RuleError("Draw the band level or upright, across the wires.", field="x2")
    if not crossed_wires(project, sheet.id, (payload.x1, payload.y1), (payload.x2, payload.y2)):
        raise RuleError("The band crosses no wire. Draw it at a right angle across the wires.", field="x2")
    device_id = payload.device_id
    if device_id:
        cable_named(project, device_id)
    else:
        device = new_device(work, "cable", (sheet.function_id, sheet.location_id))
        work.put("cable", Cable(work.ids.new(), device.id))
        device_id = device.id
    band = Band(work.ids.new(), sheet.id, payload.x1, payload.y1, payload.x2, payload.y2, device_id)
    work.put("band", band)
    if payload.part_id:
        give_part(work, project.devices[device_id], payload.part_id)
    work.outcome.placed = [band.id]
    return f"band of {short_tag(project, project.devices[device_id])}"


def cable_named(project: Project, device_id: str) -> tuple[Device, Cable]:
    """Return a cable's device and record.

    Raises:
        GoneError: there is no such device.
        RuleError: it is no cable.
    """
    device: Device = project.get("device", device_id)
    id = cable_of(project, device_id)
    if not id:
        raise RuleError(f"{short_tag(project, device)} is no cable.", field="device_id", ids=(device_id,))
    return device, project.cables[id]


class SetCable(Payload):
    """Say how long a cable is and what it carries; what is left out stays, 0 takes it from the part at its end."""

    kind: Literal["set-cable"] = "set-cable"
    device_id: Id
    length_m: Length | None = None
    load_a: Length | None = None
    voltage_v: Length | None = None
    power_factor: PowerFactor | None = None
    shield_landed: Literal["", "source", "destination", "both"] | None = None
    turned: bool | None = None
    numbered: bool | None = None
    laid: Literal["", "B1", "B2", "C", "E"] | None = None
    grouped: int | None = Field(default=None, ge=1, le=9)
    apart: bool | None = None


@edit(SetCable, {"device_id": "d1", "length_m": 35})
def set_cable(work: Work, payload: SetCable) -> str:
    """Work out SetCable."""
    device, cable = cable_named(work.project, payload.device_id)
    work.put("cable", replace(cable, **payload.model_dump(exclude={"kind", "device_id"}, exclude_none=True)))
    return f"facts of {short_tag(work.project, device)}"


class SwapCores(Payload):
    """Exchange what two cores of a cable serve; one may be spare. They stay so when it is filled anew.

    Cores of two twisted pairs take the whole pairs with them, unless they are asked for singly.
    """

    kind: Literal["swap-cores"] = "swap-cores"
    device_id: Id
    first: int = Field(ge=1, le=1000)
    second: int = Field(ge=1, le=1000)
    single: bool = False


@edit(SwapCores, {"device_id": "d1", "first": 1, "second": 2})
def swap_cores(work: Work, payload: SwapCores) -> str:
    """Work out SwapCores."""
    project = work.project
    device, _ = cable_named(project, payload.device_id)
    tag = short_tag(project, device)
    rows = {r.ordinal: r for r in cable_cores(project, device.id) if r.ordinal}
    a, b = rows.get(payload.first), rows.get(payload.second)
    if a is None or b is None or a is b:
        raise RuleError(f"{tag} has no two such cores.", field="second")
    if a.kind != "core" or b.kind != "core":
        raise RuleError("A shield serves no conductor.", field="second")
    names = pair_names(project.part_of(device))
    exchanged = {a.ordinal: b.ordinal, b.ordinal: a.ordinal}
    first, second = names.get(a.ordinal, ""), names.get(b.ordinal, "")
    whole = not payload.single and first and second and first != second
    if whole:
        pairs = pairs_of(project.part_of(device))
        for m, n in zip(pairs[first], pairs[second], strict=True):
            exchanged |= {m: n, n: m}
    for ordinal, other in exchanged.items():
        _allowed(project, rows[ordinal], rows[other])
    # A move into a spare core would let the others close up; all stay where they are seen.
    stays = any(rows[n].conductor is None for n in exchanged)
    for row in rows.values() if stays else [rows[n] for n in exchanged]:
        if row.conductor is not None:
            _choose(work, device.id, exchanged.get(row.ordinal, row.ordinal), row.conductor.key)
    words = f"pairs {first} and {second}" if whole else f"cores {a.name} and {b.name}"
    return f"swap {words} of {tag}"


def _allowed(project: Project, core: CoreRow, other: CoreRow) -> None:
    """Refuse a protective conductor in a live core, and the other way round (IEC 60204-1, 13.2.2)."""
    if core.conductor is None:
        return
    protective = role_of(project, core.conductor) == PE
    if protective and core.name == PROTECTIVE != other.name:
        raise RuleError("The protective conductor stays in the green-yellow core.", field="second")
    if not protective and other.name == PROTECTIVE:
        raise RuleError("The green-yellow core takes a protective conductor only.", field="second")


def _choose(work: Work, device_id: str, ordinal: int, conductor: str) -> None:
    for choice in list(work.project.core_choices.values()):
        if choice.device_id == device_id and choice.conductor == conductor:
            work.put("core_choice", replace(choice, ordinal=ordinal))
            return
    work.put("core_choice", CoreChoice(work.ids.new(), device_id, ordinal, conductor))


class DefaultCores(Payload):
    """Send all cores of a cable back to their default order."""

    kind: Literal["default-cores"] = "default-cores"
    device_id: Id


@edit(DefaultCores, {"device_id": "d1"})
def default_cores(work: Work, payload: DefaultCores) -> str:
    """Work out DefaultCores."""
    device, _ = cable_named(work.project, payload.device_id)
    for choice in [c for c in work.project.core_choices.values() if c.device_id == device.id]:
        work.remove("core_choice", choice.id)
    return f"cores of {short_tag(work.project, device)} in default order"


class FillCores(Payload):
    """Fill the cores of cables anew, of all when none is named: by the part's list, or by wire number or source pin.

    By number or pin, live conductors take the live cores in that order; protective ones keep green-yellow.
    """

    kind: Literal["fill-cores"] = "fill-cores"
    device_ids: list[Id] = Field(default_factory=list, max_length=2000)
    by: Literal["list", "number", "source"] = "list"


@edit(FillCores, {"device_ids": ["d1"], "by": "number"})
def fill_cores(work: Work, payload: FillCores) -> str:
    """Work out FillCores."""
    project = work.project
    ids = payload.device_ids or sorted({c.device_id for c in project.cables.values()})
    for id in ids:
        device, _ = cable_named(project, id)
        for choice in [c for c in project.core_choices.values() if c.device_id == device.id]:
            work.remove("core_choice", choice.id)
        if payload.by != "list":
            _fill_in_order(work, device.id, payload.by)
    count = len(ids)
    words = {"list": "in default order", "number": "by wire number", "source": "by source"}[payload.by]
    return f"cores of {count} cable{'s' if count != 1 else ''} {words}"


def _fill_in_order(work: Work, device_id: str, by: str) -> None:
    project = work.project
    rows = [r for r in cable_cores(project, device_id) if r.kind == "core" and r.ordinal]
    live = [r.conductor for r in rows if r.conductor is not None and role_of(project, r.conductor) != PE]
    free = [r.ordinal for r in rows if r.name != PROTECTIVE]

    def rank(c: Conductor) -> tuple[bool, NaturalKey]:
        name = c.number if by == "number" else pin_name(project, ends_of(project, device_id, c)[0])
        return not name, natural(name)

    ranked = sorted(live, key=rank)
    if pairs_of(project.part_of(project.devices[device_id])):
        loops = loops_among(project, [(c, ends_of(project, device_id, c)[1]) for c in ranked])
        places = {key: n for n, key in enumerate(key for loop in loops for key in loop)}
        ranked.sort(key=lambda c: places[c.key])
    for ordinal, conductor in zip(free, ranked, strict=False):
        _choose(work, device_id, ordinal, conductor.key)
