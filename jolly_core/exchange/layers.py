"""The layers of drawings in files: what each item is, so that another program can show, hide or plot it by itself."""

from __future__ import annotations

from typing import Final

from jolly_core.scenes import Item, Prim, Text

# By kinds of items; others lie on the layer of lines.
OF_KIND: Final = {
    "frame": "FRAME",
    "wire": "WIRES",
    "dot": "WIRES",
    "number": "WIRE-NUMBERS",
    "symbol": "SYMBOLS",
    "continuation": "CONTINUATIONS",
    "band": "CABLES",
    "table": "TABLES",
    "note": "NOTES",
    "figure": "FIGURES",
    "plate": "PLATE",
    "rail": "RAILS",
    "duct": "DUCTS",
    "placing": "DEVICES",
    "dimension": "DIMENSIONS",
    "segment": "BUNDLES",
    "sheath": "BUNDLES",
    "node": "CONNECTORS",
}
# Texts of symbols by their role.
OF_ROLE: Final = {"tag": "TAGS", "text": "TEXTS", "pin": "PINS", "reference": "REFERENCES"}
LINES: Final = "LINES"
FILLS: Final = "FILLS"  # outlines of what is filled
LAYERS: Final = tuple(dict.fromkeys((LINES, FILLS, *OF_KIND.values(), *OF_ROLE.values())))


def layer_of(item: Item, prim: Prim | None = None) -> str:
    """Return the layer of an item, or of one of its primitives: what is written of a symbol has layers of its own.

    Example:
        >>> layer_of(Item("w1", "wire", [], (0, 0, 0, 0)))
        'WIRES'
    """
    if isinstance(prim, Text) and item.kind == "symbol":
        return OF_ROLE.get(prim.role, "SYMBOLS")
    return OF_KIND.get(item.kind, LINES)
