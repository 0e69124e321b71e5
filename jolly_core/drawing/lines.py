"""References of places on a sheet: ladder lines and zones."""

from __future__ import annotations

from collections.abc import Mapping

from jolly_core.model import DRAWN, SHEET_SIZES_MM, Project, Sheet, derived
from jolly_core.model.entities.structure import SheetHabit

from .geometry import GRID_MM

FRAME_MM = 10.0
TITLE_MM = 36.0
BESIDE = 8  # steps left of a second ladder that count to it already: its line numbers stand there
LEAD_IN = 2  # steps above a line that count to it already


ADVANCE = 0.6  # of the monospaced face that drawings are set in, as a share of its size


def size_mm(sheet: Sheet) -> tuple[float, float]:
    """Return width and height of a sheet in mm, landscape; an unknown size is taken as A3."""
    return SHEET_SIZES_MM.get(sheet.size, SHEET_SIZES_MM["A3"])


def grid_size(sheet: Sheet) -> tuple[int, int]:
    """Return the largest grid point of a sheet."""
    width, height = size_mm(sheet)
    return int(width // GRID_MM), int(height // GRID_MM)


def ladder_at(sheet: Sheet, x: int) -> int:
    """Return which ladder of a sheet a grid column belongs to, 0 for the first."""
    if sheet.ladders < 2 or x < sheet.rail_left + sheet.ladder_pitch - BESIDE:
        return 0
    return 1


def rails_at(sheet: Sheet, x: int) -> tuple[int, int]:
    """Return the columns of the two rails of the ladder a grid column belongs to."""
    move = ladder_at(sheet, x) * sheet.ladder_pitch
    return sheet.rail_left + move, sheet.rail_right + move


def ladder_line(sheet: Sheet, x: int, y: int) -> int:
    """Return the number of the ladder line a grid point belongs to.

    What lies above the first line counts to it, what lies below the last to that; in between a point belongs to
    the line above it, and within two steps above a line already to that line. The lines of a second ladder go on
    where those of the first end.

    Example:
        >>> ladder_line(Sheet("s", "30", first_line=301, line_top=16, line_spacing=9), 20, 25)
        302
        >>> two = Sheet("s", "3", first_line=301, line_count=8, ladders=2, ladder_pitch=80)
        >>> ladder_line(two, 100, two.line_top)
        309
    """
    index = (y - sheet.line_top + LEAD_IN) // max(1, sheet.line_spacing)
    within = min(max(index, 0), max(sheet.line_count - 1, 0))
    return sheet.first_line + ladder_at(sheet, x) * sheet.line_count + within


def ladder_lines(sheet: Sheet) -> list[tuple[int, int, int, int]]:
    """Return (number, y, first y and first x that count to it) of each ladder line; none on a sheet with zones.

    Ladder by ladder, top down: the last one whose first y and x a point has reached is its line.
    """
    if sheet.frame != "ladder":
        return []
    lines = []
    for ladder in range(sheet.ladders):
        left = sheet.rail_left + sheet.ladder_pitch - BESIDE if ladder else 0
        for i in range(sheet.line_count):
            y = sheet.line_top + i * sheet.line_spacing
            number = sheet.first_line + ladder * sheet.line_count + i
            lines.append((number, y, y - LEAD_IN if i else 0, left))
    return lines


def lines_of(sheet: Sheet) -> range:
    """Return the numbers of a sheet's ladder lines.

    Example:
        >>> lines_of(Sheet("s", "30", first_line=301, line_count=8, ladders=2))
        range(301, 317)
    """
    return range(sheet.first_line, sheet.first_line + sheet.line_count * sheet.ladders)


def counts_lines(project: Project, sheet: Sheet) -> bool:
    """Return whether something on a sheet is named by its lines: it is a ladder, or tags follow lines everywhere."""
    return sheet.kind in DRAWN and (sheet.frame == "ladder" or project.settings.tag_habit == "line")


@derived
def sheets_with_line(project: Project) -> Mapping[int, list[Sheet]]:
    """Return for each line number in use the sheets that have it, in order; kept until a sheet or a habit changes."""
    table: dict[int, list[Sheet]] = {}
    for sheet in project.sheets_in_order():
        if counts_lines(project, sheet):
            for line in lines_of(sheet):
                table.setdefault(line, []).append(sheet)
    return table


def shares_lines(project: Project, sheet: Sheet) -> bool:
    """Return whether another sheet has a line of the number of one of this sheet's."""
    table = sheets_with_line(project)
    return counts_lines(project, sheet) and any(len(table[line]) > 1 for line in lines_of(sheet))


def zone(sheet: Sheet, x: int, y: int) -> str:
    """Return the zone of a grid point, row letter and column number (ISO 5457), for example "B3"."""
    width, height = size_mm(sheet)
    across = (width - 2 * FRAME_MM) / sheet.columns
    down = (height - 2 * FRAME_MM) / sheet.rows
    column = min(max(int((x * GRID_MM - FRAME_MM) // across), 0), sheet.columns - 1)
    row = min(max(int((y * GRID_MM - FRAME_MM) // down), 0), sheet.rows - 1)
    return f"{chr(65 + row)}{column + 1}"


def place_on(sheet: Sheet, x: int, y: int) -> str:
    """Return the reference of a point within its sheet: the ladder line, or the zone."""
    return str(ladder_line(sheet, x, y)) if sheet.frame == "ladder" else zone(sheet, x, y)


def place_in(sheet: Sheet, x: int, y: int) -> str:
    """Return the reference of a point within the project: sheet.line or sheet/zone."""
    mark = "." if sheet.frame == "ladder" else "/"
    return f"{sheet.number}{mark}{place_on(sheet, x, y)}"


def habit_of(project: Project, kind: str, id: str = "") -> SheetHabit:
    """Return how new sheets of a kind begin: what the project says, else what its standard uses.

    Args:
        id: for a habit that is made up here.
    """
    for habit in project.sheet_habits.values():
        if habit.kind == kind:
            return habit
    metric = project.settings.standard == "iec"
    size = "A3" if metric else "ANSI B"
    if kind == "schematic":
        return SheetHabit(id, kind, size)
    return SheetHabit(id, kind, size, frame="zones")


def ladder_shape(size: str, ladders: int) -> tuple[int, int, int]:
    """Return the columns of the first ladder's rails and the distance to a second ladder, for a sheet size.

    One ladder leaves room for contact tables at its right; two share the width, each with such room.
    """
    width = int(SHEET_SIZES_MM[size][0] // GRID_MM)
    left = 14
    if ladders == 1:
        return left, min(82, width - 20), 0
    pitch = (width - 10) // 2
    return left, left + pitch - 27, pitch


def most_lines(sheet: Sheet) -> int:
    """Return how many ladder lines a sheet has room for above its title block."""
    height = grid_size(sheet)[1]
    return max(1, (height - 20 - sheet.line_top) // sheet.line_spacing + 1)
