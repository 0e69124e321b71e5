"""What a pack may hold: each item by its name, with the formats it comes in and the files it gives.

To add one, write a function with `@item`. What it gives is made only when it is asked for.
"""

from __future__ import annotations

from collections.abc import Callable, Container, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from pathlib import Path

from jolly_core.cabinet import enclosures, surface_size
from jolly_core.harness import harnesses
from jolly_core.model import Project, RuleError
from jolly_core.reports import REPORTS, cook, recipe_called, trace_table, traced_loads
from jolly_core.scenes import generated_pages, leaves_of, page_of, plan_ids, scene_of, with_changed
from jolly_core.tagging import product_tag, short_tag

from .built import board_dxf, board_pdf, surface_pdf
from .cutfile import cut_json
from .filenames import safe
from .lists import LIST_FORMATS, write_list
from .platedxf import surface_dxf
from .projectfile import write_project
from .scenedxf import scenes_dxf
from .sheetpdf import sheets_pdf
from .sheetsvg import scene_svg
from .tables import tables_pdf

PDF, GREY = "pdf", "pdf black and white"


@dataclass(slots=True, frozen=True)
class PackFile:
    """A file of a pack: its kind as names of files have it, its ending, what it is in words, and what makes it.

    `rows` counts the rows of a list.
    """

    kind: str
    ending: str
    words: str
    make: Callable[[], bytes]
    rows: Callable[[], int] | None = None


@dataclass(slots=True, frozen=True)
class Asked:
    """What is asked of an item: the project, what follows the colon of its name, the format, the folder of fonts.

    `changed` has the ids of the sheets that are other than in the last frozen revision, which is said on them.
    """

    project: Project
    subject: str
    format: str
    fonts: Path
    changed: Container[str] = ()


Expand = Callable[[Asked], Iterator[PackFile]]


@dataclass(slots=True, frozen=True)
class PackItem:
    """Something a pack may hold; `kinds` are the subjects it may have beside none, each with its title."""

    name: str
    title: str
    formats: tuple[str, ...]
    expand: Expand
    kinds: Mapping[str, str] = field(default_factory=dict)


ITEMS: dict[str, PackItem] = {}


def item(name: str, title: str, *formats: str, **kinds: str) -> Callable[[Expand], Expand]:
    """Register an item by its name.

    Raises:
        RuntimeError: two items claim one name.
    """

    def register(expand: Expand) -> Expand:
        if name in ITEMS:
            raise RuntimeError(f"Two items of packs claim “{name}”.")
        ITEMS[name] = PackItem(name, title, formats, expand, kinds)
        return expand

    return register


def files_of(project: Project, what: str, format: str, fonts: Path, changed: Container[str] = ()) -> list[PackFile]:
    """Return the files that an item gives of a project: none where there is nothing of it.

    Args:
        what: an item's name, with its subject behind a colon where it has one.
        format: one of its formats, "" for its first.
        changed: ids of the sheets that are other than in the last frozen revision.

    Raises:
        RuleError: there is no such item, or it does not come in that format.
    """
    name, _, subject = what.partition(":")
    found = ITEMS.get(name)
    if found is None:
        raise RuleError(f"A pack cannot hold “{what}”. It can hold {', '.join(ITEMS)}.", field="files")
    if format and format not in found.formats:
        raise RuleError(f"{found.title} comes as {', '.join(found.formats)}, not as {format}.", field="files")
    return list(found.expand(Asked(project, subject, format or found.formats[0], fonts, changed)))


def _sheets_pdf(asked: Asked, ids: list[str], *, mono: bool = False) -> bytes:
    return sheets_pdf(asked.project, ids, asked.fonts, mono=mono, changed=asked.changed)


def _pdf(asked: Asked, kind: str, words: str, ids: list[str]) -> Iterator[PackFile]:
    if ids:
        mono = asked.format == GREY
        yield PackFile(kind, "pdf", words, lambda: _sheets_pdf(asked, ids, mono=mono))


@item("set", "The whole set: drawn, listed and planned pages", PDF, GREY)
def _set(asked: Asked) -> Iterator[PackFile]:
    """Sheets in the project's order, then what is made from the model."""
    yield from _pdf(asked, "set", "The whole set", whole_set(asked.project))


def whole_set(project: Project) -> list[str]:
    """Return the ids of all sheets and generated pages in the project's order."""
    return [s.id for s in project.sheets_in_order()] + [p.id for p in generated_pages(project)]


@item("drawings", "All sheets", PDF, GREY)
def _drawings(asked: Asked) -> Iterator[PackFile]:
    yield from _pdf(asked, "drawing", "All sheets", [s.id for s in asked.project.sheets_in_order()])


_PLANS = {
    "terminals": ("terminal-plan", "Terminal plans"),
    "cores": ("core-plan", "Core plans"),
    "cards": ("card-plan", "Card plans"),
}


@item("plans", "Terminal, core and card plans", PDF, GREY)
def _plans(asked: Asked) -> Iterator[PackFile]:
    """Plans of a kind, or of all: the subject is one of _PLANS or ""."""
    for kind, (name, words) in _PLANS.items():
        if asked.subject in ("", kind):
            yield from _pdf(asked, name, words, plan_ids(asked.project, kind))


@item("sheets", "Each sheet by itself", "dxf", "svg", PDF)
def _sheets(asked: Asked) -> Iterator[PackFile]:
    project = asked.project
    for id in whole_set(project):
        number = page_of(project, id).number if id.startswith("plan:") else project.sheets[id].number

        def make(id: str = id) -> bytes:
            if asked.format == PDF:
                return _sheets_pdf(asked, [id])
            if asked.format == "dxf":
                leaves = [with_changed(project, leaf, asked.changed) for leaf in leaves_of(project, id)]
                return scenes_dxf(project, leaves)
            return scene_svg(project, with_changed(project, scene_of(project, id), asked.changed)).encode()

        yield PackFile(f"sheet-{safe(number)}", asked.format, f"Sheet {number}", make)


@item("report", "A report as it is", *LIST_FORMATS)
def _report(asked: Asked) -> Iterator[PackFile]:
    report = REPORTS.get(asked.subject)
    if report is None:
        raise RuleError(f"There is no report “{asked.subject}”.", field="files")
    yield from _list(asked, REPORT_FILES.get(report.key, safe(report.title.lower())), report.title)


@item("list", "A list by recipe", *LIST_FORMATS)
def _recipe(asked: Asked) -> Iterator[PackFile]:
    recipe = asked.project.get("recipe", asked.subject)
    yield from _list(asked, safe(recipe.name), recipe.name)


def _list(asked: Asked, kind: str, words: str) -> Iterator[PackFile]:
    project, recipe = asked.project, recipe_called(asked.project, asked.subject)

    def make() -> bytes:
        return write_list(project, recipe, asked.format, asked.fonts)

    yield PackFile(kind, asked.format, words, make, lambda: len(cook(project, recipe).rows))


# What the files of reports are called where that is not their title.
REPORT_FILES = {
    "terminals": "terminal-plan",
    "cores": "core-plan",
    "cards": "card-plan",
    "labels": "labels",
    "spools": "spools",
    "harness-wires": "harness-cut-list",
    "harness-parts": "harness-parts",
    "assembly": "harness-assembly",
    "snags": "snags",
    "stock": "rail-and-duct-cuts",
    "io": "io-list",
}


@item("traces", "Traces, a page for each load", PDF, all="Traces of coils, lamps and sensors, too")
def _traces(asked: Asked) -> Iterator[PackFile]:
    """The way to each motor, heater, supply and the like; to coils, lamps and sensors, too, where "all" is asked."""
    if asked.subject not in ("", "all"):
        raise RuleError("Traces are of loads of power, or of “all”.", field="files")
    project = asked.project
    loads = traced_loads(project, control=asked.subject == "all")

    def make() -> bytes:
        return traces_pdf(project, loads, asked.fonts)

    if loads:
        yield PackFile("traces", "pdf", "Traces, a page for each load", make)


@item("cut-file", "Cut list for machines", "json")
def _cut(asked: Asked) -> Iterator[PackFile]:
    yield PackFile("cut-list", "json", "Cut list for machines", lambda: cut_json(asked.project))


@item("layouts", "Plates and doors", PDF, "dxf")
def _layouts(asked: Asked) -> Iterator[PackFile]:
    """Each surface that something stands on, of each enclosure whose size is known."""
    project = asked.project
    for enclosure in enclosures(project):
        try:
            surface_size(project, enclosure, "plate")
        except RuleError:
            continue
        device = project.devices[enclosure.device_id]
        tag, short = product_tag(project, device), short_tag(project, device)
        door = any(p.surface == "door" and p.enclosure_id == enclosure.id for p in project.placings.values())
        for surface in ("plate", "door")[: 2 if door else 1]:
            what = f"{'Mounting plate' if surface == 'plate' else 'Door'} of {short}"

            def make(id: str = enclosure.id, surface: str = surface) -> bytes:
                if asked.format == "dxf":
                    return surface_dxf(project, id, surface)
                return surface_pdf(project, id, surface, asked.fonts)

            words = f"{what} with holes" if asked.format == "dxf" else what
            yield PackFile(f"{surface}-{safe(tag)}", asked.format, words, make)


@item("boards", "Form boards", PDF, "pdf on A4", "dxf")
def _boards(asked: Asked) -> Iterator[PackFile]:
    """The board of each harness and variant at true scale, whole or on A4 tiles."""
    project = asked.project
    for page in (p for p in generated_pages(project) if p.kind == "board"):
        code = project.harnesses[page.subject].code
        name = " ".join(t for t in (code, page.title.rpartition(f"{code} ")[2] if page.variant else "") if t)
        tiled = asked.format == "pdf on A4"

        def make(id: str = page.subject, variant: str = page.variant, tiled: bool = tiled) -> bytes:
            if asked.format == "dxf":
                return board_dxf(project, id, variant)
            return board_pdf(project, id, asked.fonts, tiled=tiled, variant_id=variant)

        ending = "dxf" if asked.format == "dxf" else "pdf"
        words = f"Form board {name}, 1:1{' on A4 tiles' if tiled else ''}"
        yield PackFile(f"form-board-{safe(name)}{'-a4' if tiled else ''}", ending, words, make)


def traces_pdf(project: Project, ids: Sequence[str], fonts: Path) -> bytes:
    """Return the traces of loads as one PDF, a page for each.

    Args:
        ids: of the symbols of loads, or of what leads to one.
        fonts: folder of the font files.

    Raises:
        GoneError: there is nothing of an id.
        RuleError: nothing there takes a current.
    """
    tables = [trace_table(project, id) for id in ids]
    name = f"{project.settings.number} {project.settings.name}".strip()
    return tables_pdf(tables[0].title if len(tables) == 1 else "Traces", tables, name, fonts)


@item("project-file", "Project file", "json")
def _file(asked: Asked) -> Iterator[PackFile]:
    yield PackFile("project", "spool.json", "Project file", lambda: write_project(asked.project).encode())


def everything(project: Project) -> list[dict[str, str]]:
    """Return what a pack of everything holds of a project: no list of what it has none of."""
    found: list[tuple[str, str]] = [("drawings", PDF), ("report:parts", "xlsx"), ("report:wires", "csv")]
    for kind in _PLANS:
        if plan_ids(project, kind):
            found += [(f"plans:{kind}", PDF), (f"report:{kind}", "csv")]
    if project.io_points or project.cards:
        found.append(("report:io", "xlsx"))
    found += [("report:cut", "csv"), ("cut-file", "json"), ("report:labels", "csv"), ("report:spools", "csv")]
    if project.rails or project.ducts:
        found.append(("report:stock", "csv"))
    found += [("layouts", PDF), ("layouts", "dxf")]
    if harnesses(project):
        found += [("boards", PDF), ("boards", "pdf on A4"), ("report:connectors", "csv")]
        lists = ("harness-wires", "harness-parts", "assembly", "harness-labels", "continuity")
        found += [(f"report:{key}", "csv") for key in lists]
    found.append(("report:snags", "csv"))
    return [{"what": what, "format": format} for what, format in found]
