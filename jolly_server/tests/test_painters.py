"""All painters read one table of pens, tones, faces and colours; it has what scenes name, and wires may be coloured."""

from __future__ import annotations

import re
from pathlib import Path
from typing import get_args
from unittest import TestCase

from jolly_core.library import WIRE_COLOURS
from jolly_core.scenes.base.paints import COLOURS, FACES, INKS, LIGHT, PENS, ROLES, TONES, wire_paint
from jolly_core.scenes.base.primitives import PenName, RoleName, ToneName

ROOT = Path(__file__).resolve().parents[2]


class Painters(TestCase):
    def test_the_table_has_every_name_a_scene_may_use(self) -> None:
        self.assertEqual(set(PENS), set(get_args(PenName)))
        self.assertEqual(set(TONES), set(get_args(ToneName)))
        self.assertEqual(set(ROLES), set(get_args(RoleName)))
        self.assertTrue(all(role.face in FACES for role in ROLES.values()))
        self.assertEqual(set(COLOURS), set(WIRE_COLOURS))
        self.assertTrue(set(COLOURS) > LIGHT)

    def test_no_painter_has_colours_or_faces_of_its_own(self) -> None:
        painters = [
            *(ROOT / "jolly_core" / "exchange").glob("*.py"),
            *(ROOT / "web" / "src" / "scene" / name for name in ("Painter.tsx", "artPath.ts")),
        ]
        for path in painters:
            text = path.read_text(encoding="utf-8")
            for colour in {*INKS.values(), *TONES.values(), *COLOURS.values()}:
                self.assertNotIn(colour, text, path.name)
            for face in FACES.values():
                self.assertNotIn(face.file, text, path.name)

    def test_the_browser_ships_the_faces_of_drawings_and_has_no_colours_beside_it(self) -> None:
        text = (ROOT / "web" / "src" / "theme" / "paints.ts").read_text(encoding="utf-8")
        lettered = {FACES[role.face].file for role in ROLES.values()}
        self.assertEqual(set(re.findall(r"ttf/([\w-]+\.ttf)\?url", text)), lettered)
        self.assertEqual(re.findall(r"#[0-9a-fA-F]{3,8}\b", text), [])

    def test_light_wires_have_an_edge_and_an_unknown_colour_is_dark(self) -> None:
        self.assertTrue(wire_paint("WH").edged)
        self.assertFalse(wire_paint("BU").edged)
        self.assertEqual(wire_paint("BU").second, "")
        self.assertEqual(wire_paint("??").first, wire_paint("ZZZZ").second)
