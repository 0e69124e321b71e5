"""Graphics of symbols and outlines from SVG and DXF files.

Both are brought into millimetres with y downwards. What a file leaves open is taken as drawn: an SVG without a physical
size has 96 units to the inch (SVG 2, 7.10), a DXF without units is in mm. Curves become lines of several points.
"""

from __future__ import annotations

import io
import math
from itertools import islice
from typing import Any, cast

from svgelements import (
    SVG,
    Arc,
    Circle,
    Close,
    CubicBezier,
    Ellipse,
    Line,
    Move,
    Path,
    Point,
    QuadraticBezier,
    Shape,
    Text,
)

from jolly_core.model import FileError

LARGEST = 2_000_000
MOST_POINTS = 3000
MOST_COPIES = 20
CURVE_STEPS = 12
PX_PER_MM = 96 / 25.4
CLOSE_MM = 0.05
Art = list[list[Any]]


def graphics_in(content: bytes, name: str, *, scale: float = 1.0, width: float = 0.0) -> Art:
    """Return the graphics of a file, its upper left corner at (0, 0).

    Args:
        content: the file; name: what it is called, its ending tells the format.
        scale: units of the result for each mm of the file, such as 0.4 for grid steps of 2.5 mm.
        width: how wide the result shall be instead, in its own units; 0 for true to scale.

    Returns:
        Primitives as symbols have them: line, poly, circle, arc, text.

    Raises:
        FileError: it is neither SVG nor DXF, cannot be read, or has nothing or too much in it.
    """
    if len(content) > LARGEST:
        raise FileError(f"{name} is larger than {LARGEST // 1_000_000} MB. Choose a simpler drawing.", field="file")
    kind = name.lower().rpartition(".")[2]
    if kind == "svg":
        found = _from_svg(content, name)
    elif kind == "dxf":
        found = _from_dxf(content, name)
    else:
        raise FileError(f"{name} is neither an SVG nor a DXF file.", field="file")
    if not found:
        raise FileError(f"There is nothing to draw in {name}.", field="file")
    points = sum(len(p[1]) // 2 if p[0] == "poly" else 1 for p in found)
    if points > MOST_POINTS:
        raise FileError(f"{name} has {points} points; at most {MOST_POINTS} can be kept.", field="file")
    numbers = (n for p in found for v in p[1:] for n in (v if isinstance(v, list) else [v]) if isinstance(n, float))
    if not all(map(math.isfinite, numbers)):
        raise FileError(f"{name} has a place that is no number. Draw it anew.", field="file")
    left, top, right, _ = extent(found)
    factor = width / (right - left) if width and right > left else scale
    return [_placed(p, -left, -top, factor) for p in found]


def extent(art: Art) -> tuple[float, float, float, float]:
    """Return left, top, right, bottom of graphics; an arc counts as its whole circle.

    Example:
        >>> extent([["circle", 5, 5, 2], ["line", 0, 5, 3, 5]])
        (0, 3, 7, 7)
    """
    xs: list[float] = []
    ys: list[float] = []
    for kind, *v in art:
        if kind in ("circle", "arc"):
            xs += [v[0] - v[2], v[0] + v[2]]
            ys += [v[1] - v[2], v[1] + v[2]]
        elif kind == "poly":
            xs += v[0][0::2]
            ys += v[0][1::2]
        else:
            xs += [v[0]] if kind == "text" else [v[0], v[2]]
            ys += [v[1]] if kind == "text" else [v[1], v[3]]
    return min(xs), min(ys), max(xs), max(ys)


def _placed(prim: list[Any], dx: float, dy: float, factor: float) -> list[Any]:
    kind, *v = prim

    def at(value: float, offset: float) -> float:
        return round((value + offset) * factor, 3)

    if kind == "poly":
        return [kind, [at(n, dy if i % 2 else dx) for i, n in enumerate(v[0])]]
    if kind in ("circle", "arc"):
        return [kind, at(v[0], dx), at(v[1], dy), round(v[2] * factor, 3), *(round(a, 2) for a in v[3:])]
    if kind == "text":
        return [kind, at(v[0], dx), at(v[1], dy), v[2], round(v[3] * factor, 3)]
    return [kind, at(v[0], dx), at(v[1], dy), at(v[2], dx), at(v[3], dy)]


def _from_svg(content: bytes, name: str) -> Art:
    if b"<!ENTITY" in content or b"<!DOCTYPE" in content:
        raise FileError(f"{name} has a document type in it, which is not read. Save it as plain SVG.", field="file")
    if content.count(b"<use") > MOST_COPIES:
        # Copies of copies grow without end in a small file.
        raise FileError(f"{name} has too many copies in it. Save it with its copies drawn out.", field="file")
    try:
        drawing = SVG.parse(io.BytesIO(content), ppi=96.0, reify=True)
        elements = list(drawing.elements())
    except Exception as error:  # the reader lets through whatever a damaged file provokes
        raise FileError(f"{name} cannot be read as SVG.", field="file") from error
    found: Art = []
    for element in elements:
        if isinstance(element, Text):
            words = " ".join(str(element.text or "").split())[:40]
            if words:
                # The reader turns shapes into what is seen; a text keeps its own place and size beside its transform.
                where, matrix = Point(element.x, element.y) * element.transform, element.transform
                size = float(element.font_size or 10) * math.sqrt(abs(matrix.a * matrix.d - matrix.b * matrix.c))
                found.append(["text", where.x / PX_PER_MM, where.y / PX_PER_MM, words, size / PX_PER_MM])
        elif isinstance(element, Circle | Ellipse) and abs(element.rx - element.ry) < 1e-6 * max(1, element.rx):
            centre = element.implicit_center
            radius = float(element.implicit_rx) / PX_PER_MM
            found.append(["circle", centre.x / PX_PER_MM, centre.y / PX_PER_MM, radius])
        elif isinstance(element, Shape):
            found += _svg_path(abs(Path(element)))
    return found


def _svg_path(path: Any) -> Art:
    found: Art = []
    points: list[float] = []
    for part in path:
        if isinstance(part, Move):
            found += _strokes(points)
            points = []
            if part.end is not None:
                points = [part.end.x / PX_PER_MM, part.end.y / PX_PER_MM]
            continue
        if isinstance(part, Line | Close):
            steps = 1
        elif isinstance(part, Arc | CubicBezier | QuadraticBezier):
            steps = CURVE_STEPS
        else:
            continue
        for n in range(1, steps + 1):
            where = part.point(n / steps)
            if where is not None:
                points += [where.x / PX_PER_MM, where.y / PX_PER_MM]
    return found + _strokes(points)


def _strokes(points: list[float]) -> Art:
    """Return points as one line, or one of several points, without those that lie on the one before."""
    kept = points[:2]
    for i in range(2, len(points), 2):
        if math.hypot(points[i] - kept[-2], points[i + 1] - kept[-1]) > CLOSE_MM / 10:
            kept += points[i : i + 2]
    if len(kept) < 4:
        return []
    return [["line", *kept]] if len(kept) == 4 else [["poly", kept]]


def _from_dxf(content: bytes, name: str) -> Art:
    import ezdxf.filemanagement  # they take long to come, and few drawings come in
    from ezdxf.disassemble import recursive_decompose
    from ezdxf.enums import InsertUnits
    from ezdxf.lldxf.const import DXFError
    from ezdxf.path import make_path
    from ezdxf.units import conversion_factor

    try:
        document = ezdxf.filemanagement.read(io.StringIO(content.decode("utf-8", errors="replace")))
        factor = conversion_factor(InsertUnits(document.units), InsertUnits.Millimeters) if document.units else 1.0
        entities = list(islice(recursive_decompose(document.modelspace()), MOST_POINTS + 1))
    except (DXFError, OSError, ValueError, TypeError, LookupError, AttributeError, ArithmeticError) as error:
        raise FileError(f"{name} cannot be read as DXF.", field="file") from error
    except RecursionError:
        raise FileError(f"{name} has a block that holds itself. Explode it first.", field="file") from None
    if len(entities) > MOST_POINTS:
        raise FileError(f"{name} has more than {MOST_POINTS} things in it. Choose a simpler drawing.", field="file")
    found: Art = []
    for entity in entities:
        kind, drawn = entity.dxftype(), cast(Any, entity)
        if kind == "CIRCLE":
            c = entity.dxf.center
            found.append(["circle", c.x * factor, -c.y * factor, entity.dxf.radius * factor])
        elif kind == "ARC":
            c, first, last = entity.dxf.center, entity.dxf.start_angle, entity.dxf.end_angle
            # Angles run the other way where y grows downwards.
            start, end = -last % 360, -first % 360
            end += 360 if end <= start else 0
            found.append(["arc", c.x * factor, -c.y * factor, entity.dxf.radius * factor, start, end])
        elif kind in ("TEXT", "MTEXT"):
            words = " ".join((drawn.plain_text() or "").split())[:40]
            at = entity.dxf.insert
            size = (entity.dxf.height if kind == "TEXT" else entity.dxf.char_height) * factor
            if words:
                found.append(["text", at.x * factor, -at.y * factor, words, size])
        else:
            try:
                path = make_path(entity)
            except TypeError:
                continue  # points, hatches and the like are no strokes
            try:
                flat = list(path.flattening(CLOSE_MM / factor))
            except (ArithmeticError, ValueError, RecursionError) as error:
                raise FileError(f"{name} has a curve that cannot be drawn.", field="file") from error
            points = [n for p in flat for n in (p.x * factor, -p.y * factor)]
            found += _strokes(points)
    return found
