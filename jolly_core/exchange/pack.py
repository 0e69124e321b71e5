"""The pack: everything that is issued of a project, in one zip with a page of contents.

The zip carries no time of writing: the same project gives the same bytes.
"""

from __future__ import annotations

import io
import zipfile
from collections.abc import Callable, Iterator
from pathlib import Path

from jolly_core.cabinet import SURFACE_WORDS, enclosures, surface_size
from jolly_core.harness import harnesses
from jolly_core.model import Project, RuleError
from jolly_core.reports import Column, Table, run_report
from jolly_core.scenes import Scene, generated_pages, page_scene, plan_ids, surface_leaves
from jolly_core.tagging import product_tag

from .cutfile import cut_json
from .platedxf import surface_dxf
from .scenedxf import scenes_dxf
from .sheetpdf import page_title, scaled_pdf, sheets_pdf, tiled_pdf
from .tables import table_csv, table_pdf, table_xlsx

DATE = (2000, 1, 1, 0, 0, 0)
CONTENTS = "00-contents.pdf"
# Paper mm for each mm of a layout, the largest that fits an A3 page.
Entry = tuple[str, str, Callable[[], bytes]]  # file name, what it is, what makes it


# Kind of generated page, name of its file, and what it is called.
_PLANS = (
    ("terminals", "terminal-plan", "Terminal plans"),
    ("cores", "core-plan", "Core plans"),
    ("cards", "card-plan", "Card plans"),
)


def surface_pdf(project: Project, enclosure_id: str, surface: str, fonts: Path) -> bytes:
    """Return a surface of an enclosure as PDF in the project's frame: dimensions and balloons, holes, their table.

    Raises:
        GoneError: the enclosure is not in the project.
        RuleError: its size is not known.
    """
    leaves = surface_leaves(project, enclosure_id, surface)
    words = SURFACE_WORDS[surface]
    return scaled_pdf(project, [(f"{words} {n}", leaf) for n, leaf in enumerate(leaves, start=1)], fonts)


_HARNESS_LISTS = (
    ("harness-wires", "harness-cut-list", "Harness cut list"),
    ("harness-parts", "harness-parts", "Harness parts"),
    ("assembly", "harness-assembly", "Assembly order"),
    ("harness-labels", "harness-labels", "Harness labels"),
    ("continuity", "continuity-test", "Continuity test"),
)


def board_pdf(project: Project, harness_id: str, fonts: Path, *, tiled: bool = False, variant_id: str = "") -> bytes:
    """Return the form board of a harness or variant as PDF at true scale, on one page or tiled on A4.

    Raises:
        RuleError: the harness has no segments yet.
    """
    title, scene = _board(project, harness_id, variant_id)
    return tiled_pdf(project, title, scene, fonts) if tiled else scaled_pdf(project, [(title, scene)], fonts)


def board_dxf(project: Project, harness_id: str, variant_id: str = "") -> bytes:
    """Return the form board of a harness or variant as DXF at true scale, in mm.

    Raises:
        RuleError: the harness has no segments yet.
    """
    return scenes_dxf(project, [_board(project, harness_id, variant_id)[1]])


def _board(project: Project, harness_id: str, variant_id: str = "") -> tuple[str, Scene]:
    wanted = ("board", harness_id, variant_id)
    page = next((p for p in generated_pages(project) if (p.kind, p.subject, p.variant) == wanted), None)
    if page is None:
        code = project.get("harness", harness_id).code
        raise RuleError(f"{code} has no segments yet. Add its connectors first.", ids=(harness_id,))
    return page_title(project, page.id), page_scene(project, page.id)


def entries(project: Project, fonts: Path) -> Iterator[Entry]:
    """Yield what a pack of the project holds, in order, without making it yet."""
    drawn = [s.id for s in project.sheets_in_order()]
    if drawn:
        yield "drawing.pdf", "All sheets", lambda: sheets_pdf(project, drawn, fonts)
    yield "parts-list.xlsx", "Parts list", lambda: table_xlsx(run_report(project, "parts"))
    yield "wire-list.csv", "Wire list with lengths", lambda: table_csv(run_report(project, "wires"))
    for kind, name, words in _PLANS:
        pages = plan_ids(project, kind)
        if pages:
            yield f"{name}.pdf", words, lambda pages=pages: sheets_pdf(project, pages, fonts)  # type: ignore[misc]
            yield f"{name}.csv", f"{words} as a table", lambda kind=kind: table_csv(run_report(project, kind))  # type: ignore[misc]
    if project.io_points or project.cards:
        yield "io-list.xlsx", "I/O list", lambda: table_xlsx(run_report(project, "io"))
    yield "cut-list.csv", "Cut list", lambda: table_csv(run_report(project, "cut"))
    yield "cut-list.json", "Cut list for machines", lambda: cut_json(project)
    yield "labels.csv", "Label texts", lambda: table_csv(run_report(project, "labels"))
    yield "spools.csv", "Spools of each wire type", lambda: table_csv(run_report(project, "spools"))
    if project.rails or project.ducts:
        yield "rail-and-duct-cuts.csv", "Rail and duct cuts", lambda: table_csv(run_report(project, "stock"))
    yield from _layouts(project, fonts)
    for harness in harnesses(project):
        if any(p.subject == harness.id for p in generated_pages(project)):
            id, name = harness.id, f"form-board-{_safe(harness.code)}"
            yield f"{name}.pdf", f"Form board {harness.code}, 1:1", lambda id=id: board_pdf(project, id, fonts)  # type: ignore[misc]
            yield (
                f"{name}-a4.pdf",
                f"Form board {harness.code}, 1:1 on A4 tiles",
                lambda id=id: board_pdf(project, id, fonts, tiled=True),  # type: ignore[misc]
            )
    if project.harnesses:
        yield "connector-table.csv", "Connector table", lambda: table_csv(run_report(project, "connectors"))
        for key, name, words in _HARNESS_LISTS:
            yield f"{name}.csv", words, lambda key=key: table_csv(run_report(project, key))  # type: ignore[misc]
    yield "snags.csv", "Snags that are left", lambda: table_csv(run_report(project, "snags"))


def _layouts(project: Project, fonts: Path) -> Iterator[Entry]:
    for enclosure in enclosures(project):
        tag = product_tag(project, project.devices[enclosure.device_id])
        surfaces = ["plate"]
        if any(p.surface == "door" and p.enclosure_id == enclosure.id for p in project.placings.values()):
            surfaces.append("door")
        try:
            surface_size(project, enclosure, "plate")
        except RuleError:
            continue
        for surface in surfaces:
            name, what = f"{surface}-{_safe(tag)}", f"{'Mounting plate' if surface == 'plate' else 'Door'} of -{tag}"
            id = enclosure.id
            yield f"{name}.pdf", what, lambda id=id, s=surface: surface_pdf(project, id, s, fonts)  # type: ignore[misc]
            yield f"{name}.dxf", f"{what} with holes", lambda id=id, s=surface: surface_dxf(project, id, s)  # type: ignore[misc]


def _safe(name: str) -> str:
    return "".join(c if c.isalnum() or c in "-_." else "-" for c in name)


def pack_files(project: Project, fonts: Path) -> dict[str, bytes]:
    """Return the files of a pack by name, the page of contents first."""
    listed = list(entries(project, fonts))
    rows = [(n, name, what) for n, (name, what, _) in enumerate(listed, start=1)]
    columns = (Column("n", "No", 5, number=True), Column("file", "File", 40), Column("what", "What it is", 50))
    s = project.settings
    name = f"{s.number} {s.name}, revision {s.revision}".strip()
    contents = table_pdf(Table("Contents", columns, list(rows)), name, fonts)
    return {CONTENTS: contents, **{file: make() for file, _, make in listed}}


def write_pack(project: Project, fonts: Path) -> bytes:
    """Return the pack as a zip."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in pack_files(project, fonts).items():
            info = zipfile.ZipInfo(name, DATE)
            info.compress_type = zipfile.ZIP_DEFLATED
            info.external_attr = 0o644 << 16
            archive.writestr(info, content)
    return out.getvalue()
