"""The painters of papers: each kind of primitive with the pen, tone and face of the table, arcs the right way round."""

from __future__ import annotations

import io
from unittest import TestCase
from xml.etree import ElementTree

import ezdxf.filemanagement
import pypdfium2  # type: ignore[import-untyped]  # it brings no types
from ezdxf.entities.lwpolyline import LWPolyline
from PIL import Image as Picture
from PIL import ImageChops, ImageFilter

from jolly_core.cabinet.tests.test_layout import Cabinet
from jolly_core.exchange import read_project, scaled_pdf, scene_svg, scenes_dxf, surface_dxf
from jolly_core.model import Project
from jolly_core.scenes import Arc, Circle, Dot, Image, Item, Line, Poly, Prim, Rect, Scene, Strand, Text, sheet_scene
from jolly_core.scenes.base.paints import FACES, INKS, LAYERS, PENS, ROLES, TONES, WIRE_EDGE_MM, wire_paint
from jolly_core.scenes.faces.outlines import arc_points
from jolly_core.testing import DEMO, FONTS, Workbench

SVG = "{http://www.w3.org/2000/svg}"
PIXELS_A_POINT = 4.0


def scene(*prims: Prim) -> Scene:
    return Scene(60.0, 40.0, {"a": Item("a", "note", list(prims), (0, 0, 60, 40))})


def picture(*prims: Prim) -> Picture.Image:
    """Return what is painted on a page of 60 × 40 mm, black on white."""
    content = scaled_pdf(Project(), [("page", scene(*prims))], FONTS)
    page: Picture.Image = pypdfium2.PdfDocument(content)[0].render(scale=PIXELS_A_POINT).to_pil()
    return page.convert("L")


def missing(one: Picture.Image, other: Picture.Image) -> float:
    """Return the share of the ink of one picture that has none of the other's within two pixels."""
    mine, theirs = (p.point([255 if v < 160 else 0 for v in range(256)]) for p in (one, other))
    alone = ImageChops.subtract(mine, theirs.filter(ImageFilter.MaxFilter(5))).histogram()[255]
    return alone / max(1, mine.histogram()[255])


class Papers(TestCase):
    def test_an_arc_runs_the_same_way_as_the_points_along_it(self) -> None:
        for start, end in ((0, 90), (30, 200), (180, 360), (10, 350)):
            arc = picture(Arc(30, 20, 12, start, end, "frame"))
            points = picture(Poly(tuple(arc_points(30, 20, 12, start, end)), "frame"))
            self.assertLess(missing(arc, points), 0.02, (start, end))
            self.assertLess(missing(points, arc), 0.02, (start, end))

    def test_each_pen_is_as_broad_as_the_table_says(self) -> None:
        for name, pen in PENS.items():
            if pen.dash:
                continue
            line = picture(Line(10, 20, 50, 20, name))  # type: ignore[arg-type]  # each name of the table is one
            column = line.crop((line.width // 2, 0, line.width // 2 + 1, line.height))
            ink = sum((255 - value) / 255 for value in column.tobytes())
            self.assertAlmostEqual(ink / PIXELS_A_POINT * 25.4 / 72, pen.mm, delta=0.06 + 0.2 * pen.mm)

    def test_a_broken_line_has_gaps_and_its_neighbour_has_none(self) -> None:
        page = picture(Line(5, 10, 55, 10, "dash"), Line(5, 30, 55, 30, "thin"))
        gaps = {}
        for y in (10, 30):
            row = round(y / 25.4 * 72 * PIXELS_A_POINT)
            strip = page.crop((int(page.width * 0.1), row - 3, int(page.width * 0.9), row + 4))
            dark = [min(strip.crop((x, 0, x + 1, strip.height)).tobytes()) < 200 for x in range(strip.width)]
            gaps[y] = sum(a and not b for a, b in zip(dark, dark[1:], strict=False))
        self.assertGreater(gaps[10], 10)
        self.assertEqual(gaps[30], 0)

    def test_a_filled_rectangle_hides_what_lies_below_it(self) -> None:
        below: Prim = Line(5, 20, 55, 20, "edge")
        open_one = picture(below, Rect(20, 10, 20, 20, "thin"))
        filled = picture(below, Rect(20, 10, 20, 20, "thin", "device"))
        middle = (open_one.width // 2, open_one.height // 2)
        shades = [p.crop((*middle, middle[0] + 1, middle[1] + 1)).tobytes()[0] for p in (open_one, filled)]
        self.assertLess(shades[0], 100)
        self.assertGreater(shades[1], 250)


class Pictures(TestCase):
    def elements(self, *prims: Prim) -> list[ElementTree.Element]:
        root = ElementTree.fromstring(scene_svg(Project(), scene(*prims)))
        group = root.find(f"{SVG}g/{SVG}g")
        assert group is not None
        return list(group)

    def test_lines_and_shapes_have_pens_and_tones_of_the_table(self) -> None:
        line, dashed, circle, rect, arc = self.elements(
            Line(0, 0, 9, 0, "frame"),
            Line(0, 5, 9, 5, "dash"),
            Circle(5, 5, 2, "thin"),
            Rect(1, 2, 3, 4, "edge", "duct"),
            Arc(5, 5, 2, 0, 270, "ink"),
        )
        self.assertEqual(line.get("stroke-width"), f"{PENS['frame'].mm:g}")
        self.assertIsNone(line.get("stroke-dasharray"))
        self.assertEqual(dashed.get("stroke-dasharray"), "1.2 0.9")
        self.assertEqual(circle.get("r"), "2")
        self.assertEqual(rect.get("fill"), TONES["duct"])
        self.assertIn("A2 2 0 1 1 5.000 3.000", arc.get("d", ""), "the long way round, clockwise")

    def test_a_dot_is_filled_and_a_light_wire_has_an_edge(self) -> None:
        dot, edge, white = self.elements(Dot(1, 1, 0.7), Strand(0, 0, 9, 0, "WH"))
        self.assertEqual(dot.get("fill"), INKS["ink"])
        self.assertEqual((edge.get("stroke-width"), edge.get("stroke")), (f"{WIRE_EDGE_MM:g}", None))
        self.assertEqual((white.get("stroke-width"), white.get("stroke")), ("0.3", wire_paint("WH").first))
        for light in ("WH", "YE", "WHYE", "PK"):
            self.assertAlmostEqual(WIRE_EDGE_MM - wire_paint(light).mm, 2 * 0.2, msg="seen on either side")
        self.assertEqual((wire_paint("GNYE").edged, wire_paint("GNYE").mm, wire_paint("").mm), (True, 0.5, 0.5))
        (blue,) = self.elements(Strand(0, 0, 9, 0, "BU"))
        self.assertEqual(blue.get("stroke"), wire_paint("BU").first)

    def test_a_text_has_the_face_and_ink_of_its_role(self) -> None:
        for role, paint in ROLES.items():
            (shown,) = self.elements(Text(1, 1, 3, "start", role, "-KF1"))  # type: ignore[arg-type]  # each name of the table is one
            self.assertEqual(shown.get("fill"), paint.colour)
            self.assertEqual(shown.get("font-weight"), str(FACES[paint.face].weight))
            self.assertIn(FACES[paint.face].family, shown.get("font-family", ""))


class Cutting(TestCase):
    def test_layers_have_colours_and_pens_of_the_table(self) -> None:
        cabinet = Cabinet("run")
        cabinet.setUp()
        content = surface_dxf(cabinet.bench.project, cabinet.enclosure, "plate").decode()
        document = ezdxf.filemanagement.read(io.StringIO(content))
        for name, layer in LAYERS.items():
            made = document.layers.get(name)
            self.assertEqual((made.color, made.dxf.lineweight), (layer.colour, round(layer.pen.mm * 100)))


class Sheets(TestCase):
    def test_a_symbol_turned_and_mirrored_is_painted_where_its_pins_are(self) -> None:
        bench = Workbench(frame="zones")
        bench.place("lamp", 30, 30, rotation=90, mirror=True)
        svg = scene_svg(bench.project, sheet_scene(bench.project, bench.sheet))
        self.assertIn('rotate(90) scale(1 -1)"', svg)

    def test_a_dxf_has_the_frame_and_name_of_a_picture_where_it_stands(self) -> None:
        project = read_project((DEMO / "pellwick-kiln-2.spool.json").read_text(encoding="utf-8"))
        sheet = project.sheets_in_order()[3]
        scene = sheet_scene(project, sheet.id)
        (image,) = [p for i in scene.items.values() for p in i.placed() if isinstance(p, Image)]
        content = scenes_dxf(project, [scene]).decode()
        space = ezdxf.filemanagement.read(io.StringIO(content)).modelspace()
        (name,) = [t for t in space.query("TEXT") if t.dxf.text == project.pictures[image.picture].name]
        bottom, height = scene.height - image.y - image.height, name.dxf.height
        self.assertTrue(bottom < name.dxf.insert.y < bottom + image.height - height)
        left, wide = name.dxf.insert.x, name.dxf.align_point.x - name.dxf.insert.x
        self.assertTrue(image.x < left and left + 2 * wide < image.x + image.width)
        lines = [line for line in space.query("LWPOLYLINE") if isinstance(line, LWPolyline)]
        corners = {(round(x, 2), round(y, 2)) for line in lines for x, y, *_ in line.get_points()}
        self.assertIn((round(image.x, 2), round(bottom, 2)), corners)
