"""Sheets made from the project: cover, contents, technical data, plans, layouts, form boards, reports.

To add a kind, write what makes its leaves and name it in MAKERS; SHEET_KINDS lists the kinds.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence

from jolly_core.cabinet import enclosures
from jolly_core.drawing import FRAME_MM
from jolly_core.model import DRAWN, SHEET_SUBJECTS, Project, RuleError, Sheet, counted, shown_in
from jolly_core.plc import card_of
from jolly_core.reports import cook, recipe_called
from jolly_core.tagging import DOCUMENTS, full_tag, index_of, natural, path_of
from jolly_core.terminals import strips

from ..base.lettering import lay
from ..base.primitives import Item, Prim, Scene, text
from ..harness.blocks import blocks_scene
from ..harness.board import board_scene
from ..harness.leaves import board_leaves
from ..layout.leaves import layout_leaves
from ..lists.leaves import Columns, Given, LeafRow, blank_leaf, table_leaves
from ..lists.pages import generated_pages, is_generated, page_fields, page_of, sheet_of_page
from ..lists.reports import list_leaves
from ..plans.cards import card_leaves
from ..plans.tables import cable_leaves, strip_leaves
from .covers import cover_leaves

LEAF_GAP_MM = 8.0
MOST_ROWS = 20_000  # of a list on sheets: some five hundred of them
CONTENTS_COLUMNS: Columns = (
    ("Sheet", 22),
    ("Title", 100),
    ("Document", 40),
    ("Function", 40),
    ("Location", 40),
    ("Rev", 16),
)
DATA_COLUMNS: Columns = (("What", 80), ("Data", 178))
WIRE_WORDS = {
    "power": "power",
    "control-ac": "control, AC",
    "control-dc": "control, DC",
    "signal": "signal",
    "pe": "protective",
    "external": "external",
}
WANTED = {
    "terminal-plan": "Choose the terminal strip this sheet shows.",
    "cable-plan": "Choose the cable this sheet shows.",
    "card-plan": "Choose the PLC card this sheet shows.",
    "panel-layout": "Choose the enclosure this sheet shows.",
    "form-board": "Choose the harness this sheet shows.",
    "report": "Choose the report this sheet shows.",
}
Make = Callable[[Project, Sheet, Given], list[Scene]]


def made(project: Project, id: str) -> bool:
    """Return whether what is on a sheet or page is made from the project, and so not drawn on.

    Raises:
        GoneError: it is not in the project.
    """
    return is_generated(id) or project.get("sheet", id).kind not in DRAWN


def page_leaves(project: Project, page_id: str, of: Sequence[str] | None = None) -> list[Scene]:
    """Return the leaves of a sheet or page that is made from the project, each a scene of its own.

    Args:
        of: the sheets and pages of the set it is in, which a contents sheet lists; None for all.

    Raises:
        GoneError: it is not in the project.
    """
    if not is_generated(page_id):
        sheet = project.get("sheet", page_id)
        return _contents(project, sheet, None, of) if sheet.kind == "contents" else _leaves(project, sheet, None)
    page = page_of(project, page_id)
    if page.kind == "board":
        return [board_scene(project, page.subject, page.number, page.variant)]
    if page.kind == "blocks":
        return [blocks_scene(project, page.number)]
    return _leaves(project, sheet_of_page(project, page), page_fields(project, page))


def _leaves(project: Project, sheet: Sheet, given: Given) -> list[Scene]:
    wanted = SHEET_SUBJECTS.get(sheet.kind)
    if wanted and not getattr(sheet, wanted):
        return [_said(project, sheet, WANTED[sheet.kind])]
    try:
        return MAKERS[sheet.kind](project, sheet, given)
    except RuleError as error:  # such as an enclosure whose size is not known
        return [_said(project, sheet, error.message)]


def page_scene(project: Project, page_id: str) -> Scene:
    """Return what `page_leaves` gives as one scene, the leaves below each other.

    Raises:
        GoneError: it is not in the project.
    """
    leaves = page_leaves(project, page_id)
    if len(leaves) == 1:
        return leaves[0]
    items: dict[str, Item] = {}
    down = 0.0
    for n, leaf in enumerate(leaves):
        for item in leaf.items.values():
            left, top, right, bottom = item.box
            id = f"{item.id}@{n}" if item.id in items else item.id
            prims = [p.moved(0, down) for p in item.placed()]
            items[id] = Item(id, item.kind, prims, (left, top + down, right, bottom + down), item.facts)
        down += leaf.height + LEAF_GAP_MM
    return Scene(max(leaf.width for leaf in leaves), down - LEAF_GAP_MM, items)


def _said(project: Project, sheet: Sheet, words: str) -> Scene:
    """Return an empty leaf that says what is missing."""
    scene = blank_leaf(project, sheet, None, (1, 1))
    lines, size = lay(words, scene.width - 2 * FRAME_MM - 10, scene.height / 4, 5.0)
    prims: list[Prim] = [
        text(scene.width / 2, scene.height / 2 + n * 1.4 * size, size, line, anchor="middle", role="line")
        for n, line in enumerate(lines)
    ]
    scene.items["said"] = Item("said", "frame", prims, (0, 0, scene.width, scene.height))
    return scene


def _contents(project: Project, sheet: Sheet, given: Given, of: Sequence[str] | None = None) -> list[Scene]:
    rows: list[LeafRow] = []
    for s in project.sheets_in_order():
        if of is not None and s.id not in of:
            continue
        title = " ".join(t for t in (s.title, s.subtitle) if t)
        function = path_of(project.functions, s.function_id, "=")
        location = path_of(project.locations, s.location_id, "+")
        index = index_of(project, s.id)
        rows.append(
            [(s.number, s.id), (title, ""), (DOCUMENTS[s.kind], ""), (function, ""), (location, ""), (index, "")]
        )
    index = project.settings.revision
    for page in generated_pages(project):
        if of is not None and page.id not in of:
            continue
        made = sheet_of_page(project, page)
        function = path_of(project.functions, made.function_id, "=")
        location = path_of(project.locations, made.location_id, "+")
        words = DOCUMENTS[made.kind]
        rows.append(
            [(page.number, page.id), (page.title, ""), (words, ""), (function, ""), (location, ""), (index, "")]
        )
    return table_leaves(project, sheet, given, sheet.title or "Contents", CONTENTS_COLUMNS, rows)


def _data(project: Project, sheet: Sheet, given: Given) -> list[Scene]:
    s = project.settings
    facts = [
        ("Supply voltage", s.supply),
        ("System of the supply", s.supply_system),
        ("Control voltages", s.control_voltages),
        ("Degree of protection", s.protection),
        ("Standards", s.standards),
    ]
    for enclosure in enclosures(project):
        device = project.devices[enclosure.device_id]
        part = project.part_of(device)
        if part is not None:
            sides = (shown_in(s.length_unit, side) for side in (part.width_mm, part.height_mm, part.depth_mm))
            size = f"{' x '.join(sides)} {s.length_unit}"
            facts.append((f"Enclosure {full_tag(project, device)}", f"{part.number}  {size}"))
    for t in sorted(project.wire_types.values(), key=lambda t: (t.category, natural(t.name))):
        facts.append((f"Wire, {t.name}", f"{t.colour}  {t.size()}  {WIRE_WORDS[t.category]}"))
    facts += list(s.own_fields.items())
    rows: list[LeafRow] = [[(name, ""), (value or "not said yet", "")] for name, value in facts]
    return table_leaves(project, sheet, given, sheet.title or "Technical data", DATA_COLUMNS, rows)


def _report(project: Project, sheet: Sheet, given: Given) -> list[Scene]:
    cooked = cook(project, recipe_called(project, sheet.report), sheet)
    if len(cooked.rows) > MOST_ROWS:
        words = f"“{cooked.title}” has {counted(len(cooked.rows), 'row')}, too many for sheets."
        raise RuleError(f"{words} Issue it as a file, or choose a list that leaves some out.")
    return list_leaves(project, sheet, given, cooked)


def _strip(project: Project, sheet: Sheet, given: Given) -> list[Scene]:
    if not any(d.id == sheet.device_id for d in strips(project)):
        raise RuleError(WANTED["terminal-plan"])
    return strip_leaves(project, sheet, given)


def _cable(project: Project, sheet: Sheet, given: Given) -> list[Scene]:
    if not any(c.device_id == sheet.device_id for c in project.cables.values()):
        raise RuleError(WANTED["cable-plan"])
    return cable_leaves(project, sheet, given)


def _card(project: Project, sheet: Sheet, given: Given) -> list[Scene]:
    if card_of(project, sheet.device_id) is None:
        raise RuleError(WANTED["card-plan"])
    return card_leaves(project, sheet, given)


MAKERS: dict[str, Make] = {
    "cover": cover_leaves,
    "contents": _contents,
    "data": _data,
    "terminal-plan": _strip,
    "cable-plan": _cable,
    "card-plan": _card,
    "panel-layout": layout_leaves,
    "form-board": board_leaves,
    "report": _report,
}
