"""Where acts at random begin: with something of everything, or most of them would find nothing."""

from __future__ import annotations

from .. import Workbench

CABLE = "quillon-ql-c7g1-5"


class Workshop(Workbench):
    """A panel lamp row wired to field lamps, three connectors wired to each other, an enclosure, points and a card."""

    def __init__(self) -> None:
        super().__init__(frame="zones")
        self.places = [
            self.new("add-location", code=c, side=s) for c, s in (("P", "panel"), ("D", "door"), ("F", "field"))
        ]
        for n, y in enumerate((20, 26, 32, 38)):
            for x, place in ((12, self.places[n % 2]), (60, self.places[2])):
                lamp = self.place("lamp", x, y, part_id="tamwick-tw-l22-g" if n else "")
                self.do("set-place", device_id=self.device(lamp), function_id="", location_id=place)
            self.wire((16, y), (60, y), type_id=self.pe if n == 3 else self.blue)
        relay = self.place("coil", 80, 20, part_id="hollin-hr-k22")
        self.do("set-place", device_id=self.device(relay), function_id="", location_id=self.places[0])
        for n, y in enumerate((50, 56, 62)):
            self.wire((20, y), (60, y))
            self.place("connector", 60, y, part_id="tamwick-tw-p4")
            self.place("connector", 20, y, rotation=180, part_id="tamwick-tw-p4" if n else "")
        for step in STEPS:
            step(self, self.places[0])
        self.done.clear()


def enclose(b: Workbench, panel: str) -> None:
    """Add an enclosure in a panel, by its location's id, with two rails between ducts."""
    enclosure = b.new("add-enclosure", part_id="brindlework-bw-e6825", location_id=panel)
    rail, duct = "brindlework-bw-r35", "brindlework-bw-d4060"
    for what, part, y in (("rail", rail, 200), ("rail", rail, 440), ("duct", duct, 100), ("duct", duct, 320)):
        b.do("draw-run", what=what, enclosure_id=enclosure, part_id=part, x1=30, y1=y, x2=500, y2=y)
    b.do("draw-run", what="duct", enclosure_id=enclosure, part_id=duct, x1=30, y1=100, x2=30, y2=600)


def collect(b: Workbench, panel: str) -> None:
    """Add a card in a panel, by its location's id, and points of both directions."""
    b.do("add-card", part_id="hollin-hr-di8", location_id=panel)
    b.do("take-in-points", points=[{"tag": f"B{n}", "io_type": ("DI", "DO")[n % 2]} for n in range(4)])


def gather(b: Workbench, panel: str) -> None:
    """Put terminals and a cable across what lies beside the left edge of the first sheet."""
    b.do("place-terminals", sheet_id=b.sheet, x1=24, y1=18, x2=24, y2=40)
    b.do("draw-band", sheet_id=b.sheet, x1=40, y1=18, x2=40, y2=40, part_id=CABLE)


def bundle(b: Workbench, panel: str) -> None:
    """Add a harness; where two connectors are drawn it joins them."""
    harness = b.new("add-harness", code="WH-1")
    connectors = sorted({s.device_id for s in b.project.symbols.values() if s.definition == "connector"})
    if len(connectors) > 1:
        start = b.new("add-node", harness_id=harness, device_id=connectors[0])
        b.do("add-node", harness_id=harness, device_id=connectors[1], from_id=start, length_mm=400)


STEPS = (enclose, gather, collect, bundle)
