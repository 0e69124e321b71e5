"""The browser and the PDF paint with the same colours, pens and light wires."""

from __future__ import annotations

import re
from pathlib import Path
from unittest import TestCase

from jolly_core.exchange.sheetpdf import COLOURS, LIGHT
from jolly_core.scenes import PENS_MM

SCENE = Path(__file__).resolve().parents[2] / "web" / "src" / "scene"


class Painters(TestCase):
    def test_insulation_colours(self) -> None:
        text = (SCENE / "colours.ts").read_text(encoding="utf-8")
        self.assertEqual(dict(re.findall(r"^  ([A-Z]{2}): '(#[0-9A-F]{6})',$", text, re.M)), COLOURS)
        light = re.search(r"LIGHT = new Set\(\[(.*)\]\)", text)
        self.assertIsNotNone(light)
        self.assertEqual(set(re.findall(r"[A-Z]{2}", light[1] if light else "")), LIGHT)

    def test_pens(self) -> None:
        text = (SCENE / "Painter.tsx").read_text(encoding="utf-8")
        pens = re.search(r"const PENS: Record<string, number> = \{(.*)\}", text)
        found = {name: float(width) for name, width in re.findall(r"(\w+): ([\d.]+)", pens[1] if pens else "")}
        self.assertEqual(found, PENS_MM)
