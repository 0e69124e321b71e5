"""Documents of a project: reports, sheets as PDF, the project file."""

from typing import Literal

from django.conf import settings
from django.http import HttpRequest, HttpResponse
from ninja import Router
from ninja.errors import HttpError
from typing_extensions import TypedDict

from jolly_core.exchange import (
    LIST_FORMATS,
    board_dxf,
    board_pdf,
    cabinet_gltf,
    cut_json,
    harness_gltf,
    scene_svg,
    scenes_dxf,
    sheets_pdf,
    space_json,
    surface_dxf,
    surface_pdf,
    table_csv,
    table_xlsx,
    traces_pdf,
    whole_set,
    write_list,
    write_pack,
    write_project,
)
from jolly_core.model import SURFACES, Project, in_language
from jolly_core.reports import REPORTS, plain_recipe, run_report
from jolly_core.scenes import is_generated, leaves_of, page_of, scene_of, surface_scene, with_changed
from jolly_server.benches.iolist import points_table
from jolly_server.benches.terminals import strip_table
from jolly_server.projects.access import role_in
from jolly_server.projects.store import loaded, snapshot
from jolly_server.projects.turns import prepared

from .files import TYPES, file_answer
from .lists_api import foot_of
from .revisions import READING, changed_now, changed_since

router = Router(tags=["issuing"])


class ReportLine(TypedDict):
    """A report there is."""

    key: str
    title: str
    help: str


class ColumnValue(TypedDict):
    """A column of a report; its width in mm."""

    key: str
    heading: str
    width: float


class ReportRows(TypedDict):
    """A report to look at."""

    title: str
    columns: list[ColumnValue]
    rows: list[tuple[str | float | int, ...]]
    foot: list[str]


@router.get("/{project_id}/reports", response=list[ReportLine])
def report_list(request: HttpRequest, project_id: str) -> list[ReportLine]:
    """List the reports there are."""
    role_in(request, project_id)
    return [{"key": r.key, "title": r.title, "help": r.help} for r in REPORTS.values()]


@router.get("/{project_id}/reports/{kind}/rows", response=ReportRows)
def report_rows(request: HttpRequest, project_id: str, kind: str) -> ReportRows:
    """Give a report's columns and rows to look at."""
    role_in(request, project_id)
    held = prepared(project_id)
    with held.lock:
        table = run_report(held.project, kind)
        foot = (*table.foot, *foot_of(held.project, kind, request.user))
    columns: list[ColumnValue] = [{"key": c.key, "heading": c.heading, "width": c.width} for c in table.columns]
    return {"title": table.title, "columns": columns, "rows": table.rows, "foot": list(foot)}


@router.get("/{project_id}/reports/{kind}/{format}")
def report_file(request: HttpRequest, project_id: str, kind: str, format: str) -> HttpResponse:
    """Give a report as a file."""
    role_in(request, project_id)
    if format not in LIST_FORMATS:
        raise HttpError(404, f"Reports come as {', '.join(LIST_FORMATS)}.")
    held = prepared(project_id)
    with held.lock:
        foot = foot_of(held.project, kind, request.user)
        content = write_list(held.project, plain_recipe(kind), format, settings.JOLLY.fonts, foot)
        number = held.project.settings.number
    return file_answer(content, TYPES[format], f"{number}-{kind}.{format}")


def _changed(project_id: str, sheet_id: str) -> list[str]:
    """Return the sheets that say on paper that they have changed; generated pages have no index of their own."""
    return [] if is_generated(sheet_id) else changed_now(project_id)


@router.get("/{project_id}/drawing.pdf")
def drawing(
    request: HttpRequest,
    project_id: str,
    sheet_id: str = "",
    inline: bool = False,
    plans: bool = False,
    language: str = "",
) -> HttpResponse:
    """Give one sheet, or all with or without plans, as a vector PDF; inline, to be printed from the browser.

    Raises:
        RuleError: the project is not in the language that is asked for.
    """
    role_in(request, project_id)
    changed = _changed(project_id, sheet_id)
    if sheet_id:
        held = loaded(project_id)
        with held.lock:
            said = in_language(held.project, language)
            content = sheets_pdf(said, [sheet_id], settings.JOLLY.fonts, changed=changed)
            name = f"{held.project.settings.number}-sheet-{_page_number(held.project, sheet_id)}.pdf"
    else:
        project = in_language(snapshot(project_id), language)
        ids = whole_set(project) if plans else [s.id for s in project.sheets_in_order()]
        content = sheets_pdf(project, ids, settings.JOLLY.fonts, changed=changed)
        name = f"{project.settings.number}.pdf"
    response = file_answer(content, TYPES["pdf"], name)
    if inline:
        response.headers["Content-Disposition"] = "inline"
    return response


@router.get("/{project_id}/trace.pdf")
def trace(request: HttpRequest, project_id: str, id: str, inline: bool = False) -> HttpResponse:
    """Give the trace of a load, or of the load on a wire, terminal or pole, as a page; inline, to be printed."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        content = traces_pdf(held.project, [id], settings.JOLLY.fonts)
        number = held.project.settings.number
    response = file_answer(content, TYPES["pdf"], f"{number}-trace.pdf")
    if inline:
        response.headers["Content-Disposition"] = "inline"
    return response


@router.get("/{project_id}/drawing.dxf")
def drawing_dxf(request: HttpRequest, project_id: str, sheet_id: str, language: str = "") -> HttpResponse:
    """Give a sheet or plan as DXF, its leaves beside each other."""
    role_in(request, project_id)
    changed = _changed(project_id, sheet_id)
    held = loaded(project_id)
    with held.lock:
        said = in_language(held.project, language)
        leaves = [with_changed(said, leaf, changed) for leaf in leaves_of(said, sheet_id)]
        content = scenes_dxf(said, leaves)
        name = f"{held.project.settings.number}-sheet-{_page_number(held.project, sheet_id)}.dxf"
    return file_answer(content, "image/vnd.dxf", name)


@router.get("/{project_id}/drawing.svg")
def drawing_svg(request: HttpRequest, project_id: str, sheet_id: str, language: str = "") -> HttpResponse:
    """Give a sheet or plan as SVG, its leaves below each other."""
    role_in(request, project_id)
    changed = _changed(project_id, sheet_id)
    held = loaded(project_id)
    with held.lock:
        said = in_language(held.project, language)
        scene = with_changed(said, scene_of(said, sheet_id), changed)
        content = scene_svg(said, scene).encode("utf-8")
        name = f"{held.project.settings.number}-sheet-{_page_number(held.project, sheet_id)}.svg"
    return file_answer(content, "image/svg+xml", name)


@router.get("/{project_id}/strips/{strip_id}.{format}")
def strip_file(request: HttpRequest, project_id: str, strip_id: str, format: str) -> HttpResponse:
    """Give the layout of a strip for a spreadsheet, as it can be taken in again."""
    role_in(request, project_id)
    if format not in ("csv", "xlsx"):
        raise HttpError(404, "A strip's layout comes as csv and xlsx.")
    held = loaded(project_id)
    with held.lock:
        table = strip_table(held.project, strip_id)
        number = held.project.settings.number
    content = table_xlsx(table) if format == "xlsx" else table_csv(table)
    return file_answer(content, TYPES[format], f"{number}-strip.{format}")


@router.get("/{project_id}/points.{format}")
def points_file(request: HttpRequest, project_id: str, format: str) -> HttpResponse:
    """Give the list of points for a spreadsheet, as it can be taken in again."""
    role_in(request, project_id)
    if format not in ("csv", "xlsx"):
        raise HttpError(404, "The list of points comes as csv and xlsx.")
    held = loaded(project_id)
    with held.lock:
        table = points_table(held.project)
        number = held.project.settings.number
    content = table_xlsx(table) if format == "xlsx" else table_csv(table)
    return file_answer(content, TYPES[format], f"{number}-points.{format}")


def _page_number(project: Project, id: str) -> str:
    return page_of(project, id).number if is_generated(id) else str(project.sheets[id].number)


@router.get("/{project_id}/pack.zip")
def pack(request: HttpRequest, project_id: str) -> HttpResponse:
    """Give everything that is issued of the project in one zip."""
    role_in(request, project_id)
    project = snapshot(project_id)
    with READING:
        changed = changed_since(project_id, project)
    content, s = write_pack(project, settings.JOLLY.fonts, changed=changed), project.settings
    return file_answer(content, "application/zip", f"{s.number}-{s.revision}.zip")


@router.get("/{project_id}/cut-list.json")
def cut(request: HttpRequest, project_id: str) -> HttpResponse:
    """Give the cut list for machines."""
    role_in(request, project_id)
    held = prepared(project_id)
    with held.lock:
        return file_answer(cut_json(held.project), TYPES["json"], f"{held.project.settings.number}-cut-list.json")


@router.get("/{project_id}/layouts/{enclosure_id}/{surface}.{format}")
def layout(request: HttpRequest, project_id: str, enclosure_id: str, surface: str, format: str) -> HttpResponse:
    """Give a surface of an enclosure as PDF, DXF or SVG, or all of it in space ("space.gltf")."""
    role_in(request, project_id)
    space = (surface, format) == ("space", "gltf")
    if not space and (surface not in SURFACES or format not in ("pdf", "dxf", "svg")):
        raise HttpError(404, "There are plate, door, walls, roof and gland plate, as pdf and dxf.")
    held = loaded(project_id)
    with held.lock:
        if space:
            content, type = cabinet_gltf(held.project, enclosure_id), "model/gltf+json"
        elif format == "svg":
            scene = surface_scene(held.project, enclosure_id, surface)
            content, type = scene_svg(held.project, scene).encode("utf-8"), "image/svg+xml"
        elif format == "dxf":
            content, type = surface_dxf(held.project, enclosure_id, surface), "image/vnd.dxf"
        else:
            content, type = surface_pdf(held.project, enclosure_id, surface, settings.JOLLY.fonts), TYPES["pdf"]
        number = held.project.settings.number
    return file_answer(content, type, f"{number}-{surface}.{format}")


@router.get("/{project_id}/boards/{harness_id}.{format}")
def board(
    request: HttpRequest,
    project_id: str,
    harness_id: str,
    format: Literal["pdf", "dxf"],
    tiled: bool = False,
    variant_id: str = "",
) -> HttpResponse:
    """Give a form board of a harness or variant at true scale: as PDF on one page or tiled on A4, or as DXF."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        code = held.project.get("harness", harness_id).code
        if format == "dxf":
            return file_answer(board_dxf(held.project, harness_id, variant_id), "image/vnd.dxf", f"{code}.dxf")
        content = board_pdf(held.project, harness_id, settings.JOLLY.fonts, tiled=tiled, variant_id=variant_id)
    return file_answer(content, TYPES["pdf"], f"{code}{'-a4' if tiled else ''}.pdf")


@router.get("/{project_id}/harnesses/{harness_id}/space.json")
def harness_space(request: HttpRequest, project_id: str, harness_id: str) -> HttpResponse:
    """Give a harness for a space model: connectors, wires, bundles with bend radii, and what is known of its paths."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        code = held.project.get("harness", harness_id).code
        content = space_json(held.project, harness_id).encode()
    return file_answer(content, "application/json", f"{code}.space.json")


@router.get("/{project_id}/harnesses/{harness_id}/space.gltf")
def harness_picture(request: HttpRequest, project_id: str, harness_id: str) -> HttpResponse:
    """Give a harness in space as glTF, to be looked at: bundles as tubes, connectors and clips as boxes."""
    role_in(request, project_id)
    held = loaded(project_id)
    with held.lock:
        code = held.project.get("harness", harness_id).code
        content = harness_gltf(held.project, harness_id)
    return file_answer(content, "model/gltf+json", f"{code}.gltf")


@router.get("/{project_id}/file")
def project_file(request: HttpRequest, project_id: str) -> HttpResponse:
    """Give the project file."""
    role_in(request, project_id)
    project = snapshot(project_id)
    return file_answer(write_project(project).encode(), "application/json", f"{project.settings.number}.spool.json")
