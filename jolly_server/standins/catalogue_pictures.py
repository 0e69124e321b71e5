"""Pictures of the simulated catalogue's parts, drawn as SVG from what the parts say of themselves."""

from __future__ import annotations

from html import escape
from typing import Any

INK, BODY, DARK, METAL = "#2B3245", "#E9E4D8", "#5C6478", "#B9BDC6"
SHADES = {
    "green": "#2E8B57",
    "red": "#C0392B",
    "yellow": "#E0B82E",
    "blue": "#2F6DB5",
    "white": "#F7F7F2",
    "black": "#26282E",
}


def picture(offer: dict[str, Any]) -> str:
    """Return a part's picture as an SVG of 160 by 120."""
    kind = offer["part_class"]
    if kind in ("push-button", "lamp", "selector"):
        body = _operator(offer)
    elif kind == "cable":
        body = _cable(offer)
    elif kind == "proximity-sensor":
        body = _sensor()
    else:
        body = _box(offer)
    return (
        '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 160 120" width="160" height="120">'
        f'<rect width="160" height="120" fill="#FFFFFF"/>{body}</svg>'
    )


def _box(offer: dict[str, Any]) -> str:
    width, height = offer.get("width_mm") or 45.0, offer.get("height_mm") or 80.0
    scale = min(130 / width, 96 / height)
    w, h = width * scale, height * scale
    x, y = 80 - w / 2, 60 - h / 2
    pins = [pin for _, names in offer["units"] for pin in names if pin]
    half = (len(pins) + 1) // 2
    marks = ""
    for row, names in ((y + 7, pins[:half]), (y + h - 7, pins[half:])):
        for i, _ in enumerate(names):
            cx = x + w * (i + 0.5) / len(names)
            radius = max(1.2, min(3.2, w / len(names) / 3))
            place = f'cx="{cx:.1f}" cy="{row:.1f}" r="{radius:.1f}"'
            marks += f'<circle {place} fill="{METAL}" stroke="{INK}" stroke-width="0.6"/>'
    handle = ""
    if offer["part_class"] in ("breaker", "motor-breaker"):
        handle = f'<rect x="{80 - 5}" y="54" width="10" height="16" rx="2" fill="{DARK}"/>'
    return (
        f'<rect x="{x:.1f}" y="{y:.1f}" width="{w:.1f}" height="{h:.1f}" rx="3" fill="{BODY}" stroke="{INK}"/>'
        f'<rect x="{x + w * 0.12:.1f}" y="{y + h * 0.34:.1f}" width="{w * 0.76:.1f}" height="{h * 0.3:.1f}" '
        f'fill="#D9D2C1"/>'
        f'{marks}{handle}<text x="80" y="{y + h * 0.31:.1f}" font-size="7" text-anchor="middle" '
        f'font-family="sans-serif" fill="{INK}">{escape(offer["number"])}</text>'
    )


def _operator(offer: dict[str, Any]) -> str:
    shade = SHADES.get(offer["ratings"].get("colour", ""), DARK)
    cap = f'<circle cx="80" cy="60" r="26" fill="{shade}" stroke="{INK}"/>'
    if offer["part_class"] == "lamp":
        cap += '<circle cx="72" cy="52" r="8" fill="#FFFFFF" opacity="0.35"/>'
    if offer["part_class"] == "selector":
        handle = f'fill="{METAL}" stroke="{INK}" transform="rotate(35 80 60)"'
        cap += f'<rect x="75" y="36" width="10" height="48" rx="4" {handle}/>'
    return f'<circle cx="80" cy="60" r="38" fill="{METAL}" stroke="{INK}"/>{cap}'


def _cable(offer: dict[str, Any]) -> str:
    cores = min(len(offer["units"]), 12)
    ends = ""
    for i in range(cores):
        y = 60 + (i - (cores - 1) / 2) * 6
        shade = "#3C8F3C" if i == cores - 1 else DARK
        ends += f'<path d="M92 60 Q108 {y:.0f} 140 {y:.0f}" fill="none" stroke="{shade}" stroke-width="4"/>'
    return f'{ends}<rect x="14" y="46" width="80" height="28" rx="6" fill="{DARK}" stroke="{INK}"/>'


def _sensor() -> str:
    rings = "".join(f'<path d="M{x} 48V72" stroke="{INK}" stroke-width="0.7"/>' for x in range(46, 104, 5))
    return (
        f'<rect x="30" y="46" width="14" height="28" fill="{SHADES["blue"]}" stroke="{INK}"/>'
        f'<rect x="44" y="48" width="62" height="24" fill="{METAL}" stroke="{INK}"/>{rings}'
        f'<path d="M106 60 H146" stroke="{DARK}" stroke-width="7"/>'
    )
