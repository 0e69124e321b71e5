"""What the benches after Draw show. Every value is computed by the core from the one model."""

from typing import Literal

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from ninja import Field, File, Form, Router, Schema
from ninja.errors import HttpError
from ninja.files import UploadedFile
from typing_extensions import TypedDict

from jolly_core.edits.project.structure import users
from jolly_core.exchange import PastedWire, space_json, wire_rows
from jolly_core.model import Function, Location, Project
from jolly_core.model.entities.structure import SIDES, Side
from jolly_core.plc import channel_address
from jolly_core.tagging import natural, path_of
from jolly_server.config.answers import written
from jolly_server.config.options import read_options
from jolly_server.library.services import StoredLibrary
from jolly_server.projects.access import role_in
from jolly_server.projects.store import loaded
from jolly_server.projects.turns import prepared

from .cabinet import CabinetView, Look, cabinet_bench
from .cabinetlanding import Landing, LandingIn, landing
from .cabinetproposal import LayoutProposal, proposal
from .cabinetways import WireWay, ways
from .cables import CablePicture, CablesView, cable_picture, cables_bench
from .harness import harness_bench
from .harnessblocks import BlocksView, blocks_bench
from .harnesschange import harness_change
from .harnessshapes import HarnessChange, HarnessView
from .harnessspace import SpaceSaid, space_said
from .io import IoView, io_bench
from .iocheck import CheckView, Plc, address_rows, io_check
from .iolist import ListRead, read_list, said_columns
from .iomap import MapValue, io_map
from .terminals import (
    LayoutValue,
    PlannedStrip,
    StripValue,
    TerminalsView,
    planned_terminals,
    read_strip,
    strip_view,
    terminals_bench,
)

router = Router(tags=["benches"])


@router.get("/{project_id}/terminals", response=TerminalsView)
def terminals(request: HttpRequest, project_id: str) -> TerminalsView:
    """Give the strips in short, and what waits to be drawn."""
    role_in(request, project_id)
    held = prepared(project_id)
    with held.lock:
        return terminals_bench(held.project)


@router.get("/{project_id}/terminals/{strip_id}", response=StripValue)
def strip(
    request: HttpRequest, project_id: str, strip_id: str, upright: bool = False, spare_percent: int = 10
) -> StripValue:
    """Give a strip with what lands on each terminal, its picture, and what is proposed for it."""
    role_in(request, project_id)
    held = loaded(project_id)
    library = StoredLibrary(request.user)
    percent = min(100, max(0, spare_percent))
    with held.lock:
        return strip_view(held.project, library, strip_id, upright=upright, spare_percent=percent)


@router.post("/{project_id}/strip-layout/read", response=LayoutValue)
def read_layout_file(request: HttpRequest, project_id: str, file: File[UploadedFile]) -> LayoutValue:
    """Read the layout of a strip from a spreadsheet; nothing is taken in."""
    role_in(request, project_id, "editor")
    limit = read_options().upload_limit_bytes
    if file.size is None or file.size > limit:
        raise HttpError(413, f"The file is larger than {limit // 1_000_000} MB. A layout of a strip is smaller.")
    return read_strip(file.read(), file.name or "")


@router.get("/{project_id}/planned-terminals", response=list[PlannedStrip])
def planned(request: HttpRequest, project_id: str) -> list[PlannedStrip]:
    """Give the terminals that are planned and wait to be drawn, strip by strip."""
    role_in(request, project_id)
    held = prepared(project_id)
    with held.lock:
        return planned_terminals(held.project)


@router.get("/{project_id}/cables", response=CablesView)
def cables(request: HttpRequest, project_id: str) -> CablesView:
    """Give the cables with their cores and voltage drops, and the field wires in no cable."""
    role_in(request, project_id)
    held = prepared(project_id)
    library = StoredLibrary(request.user)
    with held.lock:
        return cables_bench(held.project, library)


@router.get("/{project_id}/cables/{cable_id}", response=CablePicture)
def cable(request: HttpRequest, project_id: str, cable_id: str) -> CablePicture:
    """Give a cable with both of its ends."""
    role_in(request, project_id)
    held = loaded(project_id)
    library = StoredLibrary(request.user)
    with held.lock:
        return cable_picture(held.project, library, cable_id)


@router.get("/{project_id}/io", response=IoView)
def io(request: HttpRequest, project_id: str, by: Literal["", "location", "function"] = "", maker: str = "") -> IoView:
    """Give points, cards, racks, and what is needed; `by` counts it by place, `maker` says whose cards are proposed."""
    role_in(request, project_id)
    held = loaded(project_id)
    library = StoredLibrary(request.user)
    with held.lock:
        return io_bench(held.project, library, by, maker)


@router.get("/{project_id}/io/map", response=list[MapValue])
def address_spaces(request: HttpRequest, project_id: str) -> list[MapValue]:
    """Give the address map."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return io_map(held.project)


@router.get("/{project_id}/io/check", response=CheckView)
def wiring_check(request: HttpRequest, project_id: str) -> CheckView:
    """Give the wiring check: the points that have a channel, what was seen of each, and what the PLC shows."""
    role_in(request, project_id)
    held = loaded(project_id)
    look = Plc(project_id).look()
    with held.lock:
        return io_check(held.project, look)


@router.post("/{project_id}/io/check/list", response=CheckView)
def give_plc_list(request: HttpRequest, project_id: str) -> CheckView:
    """Give the PLC the address list as it is now; when it is away, the answer says so."""
    role_in(request, project_id, "editor")
    held = loaded(project_id)
    plc = Plc(project_id)
    with held.lock:
        rows = address_rows(held.project)
    refused = plc.take(rows)
    look = plc.look()
    with held.lock:
        return io_check(held.project, look, refused)


class FieldIn(Schema):
    """What a point is set to in the field, or by the program."""

    value: int


@router.post("/{project_id}/io/check/points/{point_id}", response=CheckView)
def set_in_field(request: HttpRequest, project_id: str, point_id: str, payload: FieldIn) -> CheckView:
    """Set a point as the field or the program would, and show what the PLC sees; the answer says when it is away."""
    role_in(request, project_id, "editor")
    held = loaded(project_id)
    plc = Plc(project_id)
    with held.lock:
        point = held.project.get("io_point", point_id)
        address = channel_address(held.project, point.device_id, point.io_type, point.channel)
    if not address:
        raise HttpError(422, f"{point.tag} has no channel to look at. Allocate it first.")
    plc.set(address, payload.value)
    look = plc.look()
    with held.lock:
        return io_check(held.project, look)


@router.post("/{project_id}/io/read", response=ListRead)
def read_io(
    request: HttpRequest,
    project_id: str,
    file: File[UploadedFile],
    sheet: Form[str] = "",
    mapping: Form[str] = "",
) -> ListRead:
    """Read a point list and say what taking it in would change; nothing is taken in.

    `mapping` says as JSON what columns hold, by their headings, where a person knows better.
    """
    role_in(request, project_id, "editor")
    limit = read_options().upload_limit_bytes
    if file.size is None or file.size > limit:
        raise HttpError(413, f"The file is larger than {limit // 1_000_000} MB. A point list is smaller.")
    held = loaded(project_id)
    with held.lock:
        return read_list(held.project, file.read(), file.name or "", sheet, said_columns(mapping))


@router.get("/{project_id}/cabinet", response=CabinetView)
def cabinet(request: HttpRequest, project_id: str, enclosure_id: str = "", surface: Look = "plate") -> HttpResponse:
    """Give an enclosure's layout, the tray, routes, fill and warmth."""
    role_in(request, project_id)
    library = StoredLibrary(request.user)
    held = loaded(project_id)
    with held.lock:
        return written(cabinet_bench(held.project, library, enclosure_id, surface))


@router.get("/{project_id}/cabinet/{enclosure_id}/ways", response=list[WireWay])
def cabinet_ways(request: HttpRequest, project_id: str, enclosure_id: str, things: str = "") -> HttpResponse:
    """Give the ways of wires that are shown for chosen things, or of all."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return written(ways(held.project, enclosure_id, things))


@router.get("/{project_id}/cabinet/{enclosure_id}/proposal", response=LayoutProposal, exclude_unset=True)
def layout_proposal(
    request: HttpRequest, project_id: str, enclosure_id: str, rail: str = "", duct: str = ""
) -> LayoutProposal:
    """Give a layout proposed for an enclosure, with its figures."""
    role_in(request, project_id)
    library = StoredLibrary(request.user)
    held = loaded(project_id)
    with held.lock:
        return proposal(held.project, library, enclosure_id, rail, duct)


@router.post("/{project_id}/cabinet/{enclosure_id}/landing", response=Landing)
def layout_landing(
    request: HttpRequest, project_id: str, enclosure_id: str, payload: LandingIn, surface: Look = "plate"
) -> Landing:
    """Say where things would land on a surface if they were let go; nothing is changed."""
    role_in(request, project_id, "editor")
    library = StoredLibrary(request.user)
    held = loaded(project_id)
    with held.lock:
        return landing(held.project, library, enclosure_id, surface, payload.edit)


@router.get("/{project_id}/harness", response=HarnessView)
def harness(request: HttpRequest, project_id: str, harness_id: str = "", variant_id: str = "") -> HttpResponse:
    """Give a harness as it is in a variant: its tree, wires, bundles, connectors and form board."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return written(harness_bench(held.project, harness_id, variant_id))


class PastedRows(Schema):
    """Rows as they were pasted."""

    text: str = Field(max_length=2_000_000)


@router.post("/{project_id}/harness/rows", response=list[PastedWire])
def harness_rows(request: HttpRequest, project_id: str, body: PastedRows) -> list[PastedWire]:
    """Read rows of a spreadsheet as wires; nothing is drawn."""
    role_in(request, project_id, "editor")
    return wire_rows(body.text)


@router.get("/{project_id}/harness/changes", response=HarnessChange)
def harness_changes(
    request: HttpRequest, project_id: str, harness_id: str = "", variant_id: str = "", since: int = -1
) -> HttpResponse:
    """Say what changed of a harness, as `harness` gives it, since a revision."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return written(harness_change(held, harness_id, variant_id, since))


@router.get("/{project_id}/harness/blocks", response=BlocksView)
def harness_blocks(request: HttpRequest, project_id: str) -> BlocksView:
    """Give harnesses as blocks: boxes of devices with their connectors, and what runs between them."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return blocks_bench(held.project)


@router.post("/{project_id}/harnesses/{harness_id}/space/ask", response=SpaceSaid)
def ask_space_model(request: HttpRequest, project_id: str, harness_id: str) -> SpaceSaid:
    """Give a harness to the space model and return what that says of it; nothing is taken in."""
    role_in(request, project_id, "editor")
    held = loaded(project_id)
    with held.lock:
        content = space_json(held.project, harness_id)
    return space_said(settings.JOLLY.space, content)


class FunctionPlace(TypedDict):
    """A function or location: its path, code and text, what it is inside of, and what uses it, in words."""

    id: str
    name: str
    code: str
    text: str
    parent_id: str
    used: str


class LocationPlace(FunctionPlace):
    """A location, with the side it is on."""

    side: Side


class Places(TypedDict):
    """The functions and locations of a project, each by path."""

    functions: list[FunctionPlace]
    locations: list[LocationPlace]


@router.get("/{project_id}/places", response=Places)
def places(request: HttpRequest, project_id: str) -> Places:
    """Give the functions and locations of the project."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        return _places(held.project)


def _places(project: Project) -> Places:
    def used(kind: str, id: str) -> str:
        return ", ".join(f"{n} {what}{'s' if n > 1 else ''}" for what, n in users(project, kind, id).items())

    def named(kind: str, mark: str, place: Function | Location) -> FunctionPlace:
        return {
            "id": place.id,
            "name": path_of(project.tables[kind], place.id, mark),
            "code": place.code,
            "text": place.text,
            "parent_id": place.parent_id,
            "used": used(kind, place.id),
        }

    functions = [named("function", "=", f) for f in project.functions.values()]
    locations: list[LocationPlace] = [
        {**named("location", "+", p), "side": next(s for s in SIDES if s == p.side)} for p in project.locations.values()
    ]
    return {
        "functions": sorted(functions, key=lambda f: natural(f["name"])),
        "locations": sorted(locations, key=lambda p: natural(p["name"])),
    }
