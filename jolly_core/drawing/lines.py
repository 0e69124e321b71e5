"""References of places on a sheet: ladder lines and zones."""

from __future__ import annotations

from jolly_core.model import SHEET_SIZES_MM, Sheet

from .geometry import GRID_MM

FRAME_MM = 10.0
TITLE_MM = 36.0
LEAD_IN = 2  # steps above a line that count to it already


def size_mm(sheet: Sheet) -> tuple[float, float]:
    """Return width and height of a sheet in mm, landscape; an unknown size is taken as A3."""
    return SHEET_SIZES_MM.get(sheet.size, SHEET_SIZES_MM["A3"])


def grid_size(sheet: Sheet) -> tuple[int, int]:
    """Return the largest grid point of a sheet."""
    width, height = size_mm(sheet)
    return int(width // GRID_MM), int(height // GRID_MM)


def ladder_line(sheet: Sheet, y: int) -> int:
    """Return the number of the ladder line a grid height belongs to.

    What lies above the first line counts to it, what lies below the last to that; in between a point belongs to
    the line above it, and within two steps above a line already to that line.

    Example:
        >>> ladder_line(Sheet("s", "30", first_line=301, line_top=16, line_spacing=9), 25)
        302
    """
    index = (y - sheet.line_top + LEAD_IN) // max(1, sheet.line_spacing)
    return sheet.first_line + min(max(index, 0), max(sheet.line_count - 1, 0))


def ladder_lines(sheet: Sheet) -> list[tuple[int, int, int]]:
    """Return (number, y, first y that counts to it) of each ladder line, top down; none on a sheet with zones."""
    if sheet.frame != "ladder":
        return []
    heights = [sheet.line_top + i * sheet.line_spacing for i in range(sheet.line_count)]
    return [(sheet.first_line + i, y, y - LEAD_IN if i else 0) for i, y in enumerate(heights)]


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
    return str(ladder_line(sheet, y)) if sheet.frame == "ladder" else zone(sheet, x, y)


def place_in(sheet: Sheet, x: int, y: int) -> str:
    """Return the reference of a point within the project: sheet.line or sheet/zone."""
    mark = "." if sheet.frame == "ladder" else "/"
    return f"{sheet.number}{mark}{place_on(sheet, x, y)}"
