"""Sheets for other programs: DXF and SVG with layers by what things are, symbols drawn once, texts as texts."""

from __future__ import annotations

from unittest import TestCase
from xml.etree import ElementTree

from ezdxf.document import Drawing
from ezdxf.entities.insert import Insert
from ezdxf.entities.text import Text as DxfText

from jolly_core.cabinet import surface_size
from jolly_core.drawing import ADVANCE, GRID_MM, pin_points
from jolly_core.exchange import read_project, scene_svg, scenes_dxf, surface_dxf, whole_set
from jolly_core.exchange.layers import LAYERS
from jolly_core.exchange.packitems import files_of
from jolly_core.model import Project
from jolly_core.scenes import Art, Text, leaves_of, scene_of, sheet_scene
from jolly_core.testing import DEMO, FONTS, Workbench

from .reading import read_dxf

SVG = "{http://www.w3.org/2000/svg}"


def demos() -> list[Project]:
    return [read_project(file.read_bytes()) for file in sorted(DEMO.glob("*.spool.json"))]


class Dxf(TestCase):
    def read(self, content: bytes) -> Drawing:
        return read_dxf(self, content)

    def test_every_page_of_both_demos_is_read_again_with_nothing_to_mend_and_all_its_texts(self) -> None:
        for project in demos():
            for id in whole_set(project):
                leaves = leaves_of(project, id)
                space = self.read(scenes_dxf(project, leaves)).modelspace()
                shown = sorted(e.dxf.text for e in space.query("TEXT"))
                prims = [p for leaf in leaves for item in leaf.items.values() for p in item.placed()]
                words = [p.words for p in prims if isinstance(p, Text)]
                self.assertLessEqual(set(words), set(shown), id)
                self.assertLessEqual({e.dxf.layer for e in space}, set(LAYERS), id)
                self.assertEqual(len(space.query("INSERT")), sum(isinstance(p, Art) for p in prims), id)

    def test_the_header_says_how_large_the_drawing_is_so_that_viewers_find_it(self) -> None:
        project = demos()[0]
        enclosure = next(iter(project.enclosures))
        leaves = leaves_of(project, project.sheets_in_order()[0].id)
        width, height = sum(s.width + 20 for s in leaves) - 20, leaves[0].height
        plate = surface_size(project, project.enclosures[enclosure], "plate")
        for content, size in (
            (scenes_dxf(project, leaves), (width, height)),
            (surface_dxf(project, enclosure), plate),
            (scenes_dxf(project, []), (0.0, 0.0)),
        ):
            document = self.read(content)
            self.assertEqual(document.header["$EXTMIN"], (0, 0, 0))
            self.assertEqual(document.header["$EXTMAX"], (*size, 0))
            self.assertEqual(document.header["$LIMMAX"], size)
            self.assertEqual(document.viewports.get_config("*Active")[0].dxf.center, (size[0] / 2, size[1] / 2))

    def test_a_text_begins_where_it_would_without_its_alignment(self) -> None:
        project = demos()[0]
        sheet = next(s for s in project.sheets_in_order() if s.number == "30")
        space = self.read(scenes_dxf(project, [sheet_scene(project, sheet.id)])).modelspace()
        seen = set()
        for text in space.query("TEXT"):
            assert isinstance(text, DxfText)
            _, at, second = text.get_placement()
            start, upward = text.dxf.insert, text.dxf.rotation == 90
            along = at.y - start.y if upward else at.x - start.x
            long = len(text.dxf.text) * ADVANCE * text.dxf.height / 0.72
            share = {0: 0.0, 1: 0.5, 2: 1.0}[text.dxf.halign]
            self.assertAlmostEqual(along, share * long, places=3, msg=text.dxf.text)
            self.assertIsNone(second)
            seen.add((text.dxf.halign, upward))
        self.assertLessEqual({(0, False), (1, False), (2, False)}, seen)

    def test_things_lie_on_the_layers_of_what_they_are(self) -> None:
        project = demos()[0]
        sheet = next(s for s in project.sheets_in_order() if s.number == "30")
        space = self.read(scenes_dxf(project, [sheet_scene(project, sheet.id)])).modelspace()
        on = {name: {e.dxf.text for e in space.query(f'TEXT[layer=="{name}"]')} for name in LAYERS}
        self.assertIn("-QA1", " ".join(on["TAGS"]))
        self.assertIn("A1", on["PINS"])
        self.assertTrue({"Kiln 2", sheet.title} & {w for w in on["FRAME"] for w in (w, w.split(" ", 1)[-1])})
        wires = len(project.wires_on(sheet.id))
        self.assertEqual(len(space.query('LINE[layer=="WIRES"]')), wires)
        self.assertTrue(on["WIRE-NUMBERS"] and not on["WIRES"])

    def test_a_white_wire_is_seen_on_white_paper(self) -> None:
        bench = Workbench()
        for n, colour in enumerate(("WH", "YE", "BU")):
            kind = bench.new("add-wire-type", name=colour, colour=colour, cross_section_mm2=1.0)
            bench.wire((20, 20 + 10 * n), (40, 20 + 10 * n), type_id=kind)
        space = self.read(scenes_dxf(bench.project, [sheet_scene(bench.project, bench.sheet)])).modelspace()
        lines = sorted(space.query('LINE[layer=="WIRES"]'), key=lambda e: -e.dxf.start.y)
        colours = [(e.dxf.get("color", 256), e.dxf.get("true_color")) for e in lines]
        self.assertEqual(colours[0], (7, None), "black on paper, white on a dark screen")
        self.assertEqual([true for _, true in colours[1:]], [0xE8C81E, 0x2463AE])

    def test_a_block_turned_and_mirrored_ends_where_its_pins_are(self) -> None:
        bench = Workbench(frame="zones")
        for n, (rotation, mirror) in enumerate(((0, False), (90, False), (180, True), (270, True), (90, True))):
            bench.place("contact-no", 20 + 20 * n, 30, rotation=rotation, mirror=mirror)
        scene = sheet_scene(bench.project, bench.sheet)
        document = self.read(scenes_dxf(bench.project, [scene]))
        found = {
            (round(v.x, 2), round(scene.height - v.y, 2))
            for insert in document.modelspace().query("INSERT")
            if isinstance(insert, Insert)
            for e in insert.virtual_entities()
            if e.dxftype() == "LINE"
            for v in (e.dxf.start, e.dxf.end)
        }
        for symbol in bench.project.symbols.values():
            for x, y in pin_points(symbol):
                self.assertIn((round(x * GRID_MM, 2), round(y * GRID_MM, 2)), found, symbol)
        self.assertEqual(len([b for b in document.blocks if not b.name.startswith("*")]), 1, "one drawing for all")


class Svg(TestCase):
    def test_groups_are_the_layers_and_a_symbol_is_drawn_once(self) -> None:
        project = demos()[0]
        for id in whole_set(project):
            scene = scene_of(project, id)
            root = ElementTree.fromstring(scene_svg(project, scene))
            groups = {g.get("class", "").upper() for g in root.findall(f"{SVG}g/{SVG}g")}
            self.assertLessEqual(groups, set(LAYERS))
            arts = {(p.key, p.poles) for item in scene.items.values() for p in item.prims if isinstance(p, Art)}
            drawn = [g.get("id") for g in root.findall(f"{SVG}defs/{SVG}g")]
            self.assertEqual(len(drawn), len(arts))
            used = {u.get("href", "")[1:] for u in root.iter(f"{SVG}use")}
            self.assertEqual(used, set(drawn))

    def test_a_list_of_several_pages_has_all_of_them(self) -> None:
        project = demos()[0]
        long = next(id for id in whole_set(project) if len(leaves_of(project, id)) > 1)
        files = files_of(project, "sheets", "svg", FONTS)
        content = next(f for f, id in zip(files, whole_set(project), strict=True) if id == long).make().decode()
        prims = [p for leaf in leaves_of(project, long) for item in leaf.items.values() for p in item.prims]
        shown = {t.text for t in ElementTree.fromstring(content).iter(f"{SVG}text")}
        self.assertLessEqual({p.words for p in prims if isinstance(p, Text) and p.words}, shown)
