"""What is seen is what is printed: a sheet painted by the browser and the same sheet from its PDF are one picture."""

from __future__ import annotations

import io

import pypdfium2
from django.conf import settings
from PIL import Image, ImageChops, ImageFilter
from playwright.sync_api import Page, expect

from jolly_core.exchange import sheets_pdf

from .base import NOT_FITTED, Story

POINT_MM = 25.4 / 72
WINDOW = {"width": 3400, "height": 2400}
BARE = """* { visibility: hidden !important }
[data-testid=sheet] g[data-kind], [data-testid=sheet] g[data-kind] * { visibility: visible !important }"""
DARK = 70  # how much darker than paper what is painted is, at least, of 255
NEAR_PX = 5  # the side of the square within which the other picture has ink, too
MOST = 0.005  # of what one picture has, that the other may lack


class SeenAndPrinted(Story):
    """Sheets with everything that is painted: symbols, wires of all colours, tables, bands, layouts at a scale."""

    def test_the_browser_and_the_pdf_paint_the_same(self) -> None:
        page = self.browser.new_context(viewport=WINDOW).new_page()  # type: ignore[arg-type]  # its stub is narrower
        page.goto(self.live_server_url)
        page.get_by_role("button", name="Open the demo project").click()
        expect(page.get_by_role("link", name="Kiln 2")).to_be_visible()
        project = self.project()
        for kind, number in (("schematic", "30"), ("schematic", "10"), ("contents", ""), ("panel-layout", "")):
            sheet = next(s for s in project.sheets.values() if s.kind == kind and number in ("", s.number))
            with self.subTest(kind=kind, number=sheet.number):
                seen, scale = self.seen(page, sheet.id)
                paper = Image.new("RGB", seen.size, "white")
                paper.paste(self.printed(sheet.id, scale), (0, 0))
                for one, other, what in ((seen, paper, "only seen"), (paper, seen, "only printed")):
                    alone, all_of_it = only_in(one, other)
                    self.assertGreater(all_of_it, 20_000)
                    self.assertLess(alone / all_of_it, MOST, what)

    def seen(self, page: Page, sheet_id: str) -> tuple[Image.Image, float]:
        """Return a sheet as the browser paints it, from its upper left corner on, and pixels for each mm."""
        page.goto(f"{self.live_server_url}/p/kiln-2/draw/{sheet_id}")
        sheet = page.get_by_test_id("sheet")
        expect(sheet.locator("[data-kind=frame]").first).to_be_attached()
        expect(sheet).not_to_have_attribute("data-view", NOT_FITTED)
        page.evaluate("() => document.fonts.ready")
        page.add_style_tag(content=BARE)
        x, y, scale = (float(v) for v in (sheet.get_attribute("data-view") or "").split(","))
        box = sheet.bounding_box() or {"x": 0.0, "y": 0.0, "width": 0.0, "height": 0.0}
        left, top = box["x"] - x * scale, box["y"] - y * scale
        picture = Image.open(io.BytesIO(page.screenshot())).convert("RGB")
        width, height = page.evaluate(
            "() => { const b = document.querySelector('[data-kind=frame]').getBBox(); return [b.width, b.height] }"
        )
        corner = (round(left), round(top))
        return picture.crop((*corner, round(left + (width + 20) * scale), round(top + (height + 20) * scale))), scale

    def printed(self, sheet_id: str, scale: float) -> Image.Image:
        """Return a sheet as its PDF shows it, at as many pixels for each mm."""
        content = sheets_pdf(self.project(), [sheet_id], settings.JOLLY.fonts)
        rendered = pypdfium2.PdfDocument(content)[0].render(scale=scale * POINT_MM)
        return rendered.to_pil().convert("RGB")


def only_in(one: Image.Image, other: Image.Image) -> tuple[int, int]:
    """Return how many pixels with ink one picture has where the other has none near by, and how many it has at all."""
    mine, theirs = ink_of(one), ink_of(other).filter(ImageFilter.MaxFilter(NEAR_PX))
    return ImageChops.subtract(mine, theirs).histogram()[255], mine.histogram()[255]


def ink_of(picture: Image.Image) -> Image.Image:
    """Return a mask of what is clearly darker than paper in any of its colours."""
    darkest = picture.split()
    least = ImageChops.darker(ImageChops.darker(darkest[0], darkest[1]), darkest[2])
    return least.point([255 if v < 255 - DARK else 0 for v in range(256)])
