"""What is connected to a point, from the words of a list: its symbol and the device that belongs to, or a stamp."""

from __future__ import annotations

import json
import re
from dataclasses import dataclass

from jolly_core.library import built_in_stamps
from jolly_core.model import Device, IoPoint, Project, derived
from jolly_core.tagging import full_tag, product_tag

# Words, and the symbols drawn for them while open and while closed at rest; the first that fits the type counts.
_WORDS: tuple[tuple[tuple[str, ...], str, str], ...] = (
    (("emergency stop", "e-stop", "estop"), "estop", "estop"),
    (("push button", "pushbutton", "button"), "button-no", "button-nc"),
    (("selector", "key switch"), "selector-no", "selector-nc"),
    (("overload",), "overload-no", "overload-nc"),
    (("npn", "switching minus"), "three-wire-sensor-minus", "three-wire-sensor-minus"),
    (
        ("pnp", "switching plus", "3 wire", "3-wire", "three wire", "three-wire", "proximity", "inductive"),
        "three-wire-sensor",
        "three-wire-sensor",
    ),
    (("4 wire", "4-wire", "four wire", "four-wire"), "four-wire-sensor", "four-wire-sensor"),
    (("limit", "door switch", "rope switch", "end switch", "position switch", "flap switch"), "limit-no", "limit-nc"),
    (("float", "level switch"), "level-no", "level-nc"),
    (("pressure switch", "pressostat"), "pressure-no", "pressure-nc"),
    (("flow switch",), "flow-no", "flow-nc"),
    (("temperature switch",), "temperature-no", "thermostat"),
    (("thermostat",), "thermostat", "thermostat"),
    (("switch",), "limit-no", "limit-nc"),
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
    (("relay", "coil"), "coil", "coil"),
)
_BY_WIRES = ("three-wire-sensor", "three-wire-sensor-minus", "four-wire-sensor")
_SWITCHES = {"three-wire-sensor": "plus", "three-wire-sensor-minus": "minus"}
_OF = re.compile(r"\bof\s+([-=+]\S+)", re.IGNORECASE)
_STAMP = re.compile(r"\s*stamp\b[\s:“\"]*(.*?)[\s”\"]*$", re.IGNORECASE)
# What a type can be wired to at all.
_FOR_TYPE: dict[str, tuple[str, ...]] = {
    "DI": (
        *("estop", "button", "selector", "overload", "limit", "level", "pressure", "flow", "temperature", "thermostat"),
        *("contact", "two-wire-sensor", "moisture", "three-wire-sensor"),
    ),
    "DO": ("valve", "horn", "lamp", "coil"),
    "AI": ("two-wire-sensor", "three-wire-sensor", "four-wire-sensor", "moisture"),
    "AO": ("valve", "two-wire-sensor"),
}


@dataclass(slots=True, frozen=True)
class Element:
    """What a point is wired to.

    Attributes:
        definition: key of its symbol, "" where nothing is drawn or a stamp is.
        device_id: the device it belongs to, "" for a new one or none.
        why: why nothing is drawn, or why the device named is not used; "" when all is well.
        stamp: id of the stamp that is put down for it, of the project or of those that come with the application.
    """

    definition: str
    device_id: str = ""
    why: str = ""
    stamp: str = ""

    @property
    def drawn(self) -> bool:
        """Whether anything is drawn at the channel."""
        return bool(self.definition or self.stamp)


def stamp_called(project: Project, name: str) -> str:
    """Return the id of the stamp of a name: of the project, else of those that come along; "" for none.

    Small and capital letters are the same.
    """
    wanted = name.strip().lower()
    known = [(s.name, s.id) for s in sorted(project.stamps.values(), key=lambda s: s.id)]
    known += [(s.name, s.id) for s in built_in_stamps().values()]
    return next((id for name, id in known if name.lower() == wanted), "")


def element_of(project: Project, point: IoPoint) -> Element:
    """Return what a point's words say is connected to it, and to which device that belongs.

    "contact of -QA3" belongs to that device; else the point's device does, where there is one of that tag. "stamp Flap
    drive", or the mere name of a stamp, is that stamp.

    Example:
        "limit switch", normally closed, is `limit-nc`; "lamp" is `lamp`; "transmitter 2 wires" is `two-wire-sensor`.
    """
    shown = shown_as(project, point)
    if not shown.definition:
        return shown
    named = _OF.search(point.connected)
    tag = named.group(1) if named else point.device
    device = device_tagged(project, tag, point.function_id, point.location_id) if tag else None
    if named and device is None:
        return Element(shown.definition, "", f"there is no {tag}")
    return Element(shown.definition, device.id if device else "")


def shown_as(project: Project, point: IoPoint) -> Element:
    """Return the symbol or stamp that a point's words say, without looking for the device it belongs to."""
    words = point.connected.strip().lower()
    if not words:
        return Element("", "", "nothing is said to be connected")
    asked = _STAMP.match(point.connected)
    stamp = stamp_called(project, asked.group(1) if asked else point.connected)
    if asked and not stamp:
        return Element("", "", f"there is no stamp “{asked.group(1)}” in the project")
    if stamp:
        return Element("", stamp=stamp)
    closed = point.normal == "closed" or bool(re.search(r"\bnc\b|normally closed", words))
    said = words.replace("contactor", "relay")  # which is no contact
    found = [c if closed else o for known, o, c in _WORDS if any(w in said for w in known)]
    if not found:
        return Element("", "", f"“{point.connected}” is no element that is drawn by itself")
    said_wires = found[:1] if found[0] in _BY_WIRES else found  # how many wires it has is not passed over
    fitting = [f for f in said_wires if f.startswith(_FOR_TYPE[point.io_type])]
    if not fitting and point.io_type == "DI" and "coil" in found:
        fitting = ["contact-nc" if closed else "contact-no"]  # of a relay, an input sees the contact
    if not fitting:
        return Element("", "", f"“{point.connected}” cannot be wired to {point.io_type}")
    return Element(fitting[0])


def switched_to(project: Project, point: IoPoint) -> str:
    """Return the side that the sensor of a point switches its output to, "plus" or "minus", "" where it may be either.

    Example:
        A PNP sensor switches plus, an NPN sensor minus; a limit switch is wired as its channel wants.
    """
    return _SWITCHES.get(shown_as(project, point).definition, "")


def said_of(project: Project, point: IoPoint) -> str:
    """Return what the list says of how a point is drawn, as a JSON object of texts: compared, it tells what changed.

    Its keys are "element" (symbol or stamp), "wishes" (terminals, cable), "device" and "text".
    """
    element = shown_as(project, point)
    wishes = [word for word, wanted in (("terminals", point.terminals), ("cable", point.cable)) if wanted]
    said = {
        "element": element.definition or element.stamp,
        "wishes": ", ".join(wishes),
        "device": point.device.strip(),
        "text": point.text,
    }
    return json.dumps(said, ensure_ascii=False, separators=(",", ":"))


def device_tagged(project: Project, tag: str, function_id: str = "", location_id: str = "") -> Device | None:
    """Return the device that people call so: by its whole tag, else by its own among those of a place, else of all.

    None when there is none, or several alike.
    """
    word = tag.strip()
    suffixes = {word} | {word[n + 1 :] for n, letter in enumerate(word) if letter == "-"}
    found = {d.id: d for own in suffixes for d in _called(project, own)}
    whole = [d for d in found.values() if full_tag(project, d) == word]
    if len(whole) == 1:
        return whole[0]
    alike = _called(project, word.lstrip("-"))
    there = [d for d in alike if (d.function_id, d.location_id) == (function_id, location_id)]
    return next((some[0] for some in (there, alike) if len(some) == 1), None)


def _called(project: Project, own: str) -> list[Device]:
    """Return the devices whose own tag, without places, is so."""
    if project.settings.tag_habit == "iec":
        known = (project.devices[id] for id in project.devices_tagged.get(own))
        return [d for d in known if product_tag(project, d) == own]
    return [project.devices[id] for id in _by_tag(project).get(own, ())]


@derived
def _by_tag(project: Project) -> dict[str, tuple[str, ...]]:
    """Return the devices by their own tags, where these follow from where they are drawn."""
    found: dict[str, list[str]] = {}
    for device in project.devices.values():
        found.setdefault(product_tag(project, device), []).append(device.id)
    return {tag: tuple(ids) for tag, ids in found.items()}
