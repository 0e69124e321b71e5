"""What is connected to a point, from the words of a list: the symbol it is drawn as, and the device it belongs to."""

from __future__ import annotations

import re
from dataclasses import dataclass

from jolly_core.model import Device, IoPoint, Project
from jolly_core.tagging import full_tag, product_tag

# Words, and the symbols drawn for them while open and while closed at rest; the first that is found counts.
_WORDS: tuple[tuple[tuple[str, ...], str, str], ...] = (
    (("emergency stop", "e-stop", "estop"), "estop", "estop"),
    (("push button", "pushbutton", "button"), "button-no", "button-nc"),
    (("selector", "key switch"), "selector-no", "selector-nc"),
    (("overload",), "overload-no", "overload-nc"),
    (("limit", "door switch", "rope switch", "end switch", "position switch", "flap switch"), "limit-no", "limit-nc"),
    (("float", "level switch", "pressure switch", "flow switch", "proximity", "switch"), "limit-no", "limit-nc"),
    (("thermostat",), "thermostat", "thermostat"),
    (("moisture", "humidity"), "moisture-probe", "moisture-probe"),
    (
        ("transmitter", "sensor", "probe", "pt100", "pt1000", "rtd", "thermocouple"),
        "two-wire-sensor",
        "two-wire-sensor",
    ),
    (("solenoid", "valve"), "valve", "valve"),
    (("horn", "buzzer", "sounder"), "horn", "horn"),
    (("lamp", "light", "beacon", "indicator"), "lamp", "lamp"),
    (("auxiliary", "contact"), "contact-no", "contact-nc"),
    (("relay", "contactor", "coil"), "coil", "coil"),
)
_OF = re.compile(r"\bof\s+([-=+]\S+)", re.IGNORECASE)
# What a type can be wired to at all.
_FOR_TYPE: dict[str, tuple[str, ...]] = {
    "DI": ("estop", "button", "selector", "overload", "limit", "thermostat", "contact", "two-wire-sensor", "moisture"),
    "DO": ("valve", "horn", "lamp", "coil"),
    "AI": ("two-wire-sensor", "moisture"),
    "AO": ("valve", "two-wire-sensor"),
}


@dataclass(slots=True, frozen=True)
class Element:
    """What a point is wired to.

    Attributes:
        definition: key of its symbol, "" where nothing is drawn.
        device_id: the device it belongs to, "" for a new one or none.
        why: why nothing is drawn, or why the device named is not used; "" when all is well.
    """

    definition: str
    device_id: str = ""
    why: str = ""


def element_of(project: Project, point: IoPoint) -> Element:
    """Return what a point's words say is connected to it, and to which device that belongs.

    "contact of -QA3" belongs to that device; else the point's device does, where there is one of that tag.

    Example:
        "limit switch", normally closed, is `limit-nc`; "lamp" is `lamp`; "transmitter 2 wires" is `two-wire-sensor`.
    """
    words = point.connected.strip().lower()
    if not words:
        return Element("", "", "nothing is said to be connected")
    closed = point.normal == "closed" or bool(re.search(r"\bnc\b|normally closed", words))
    found = next((c if closed else o for known, o, c in _WORDS if any(w in words for w in known)), "")
    if not found:
        return Element("", "", f"“{point.connected}” is no element that is drawn by itself")
    if not found.startswith(_FOR_TYPE[point.io_type]):
        if point.io_type == "DI" and found == "coil":
            found = "contact-nc" if closed else "contact-no"  # of a relay, an input sees the contact
        else:
            return Element("", "", f"“{point.connected}” cannot be wired to {point.io_type}")
    named = _OF.search(point.connected)
    tag = named.group(1) if named else point.device
    device = device_tagged(project, tag, point.function_id, point.location_id) if tag else None
    if named and device is None:
        return Element(found, "", f"there is no {tag}")
    return Element(found, device.id if device else "")


def device_tagged(project: Project, tag: str, function_id: str = "", location_id: str = "") -> Device | None:
    """Return the device that people call so: by its whole tag, else by its own among those of a place, else of all.

    None when there is none, or several alike.
    """
    word = tag.strip()
    whole = [d for d in project.devices.values() if full_tag(project, d) == word]
    if len(whole) == 1:
        return whole[0]
    own = word.lstrip("-")
    alike = [d for d in project.devices.values() if product_tag(project, d) == own]
    there = [d for d in alike if (d.function_id, d.location_id) == (function_id, location_id)]
    for found in (there, alike):
        if len(found) == 1:
            return found[0]
    return None
