"""Where the browser shows a thing: its address behind that of the project."""

from __future__ import annotations

from jolly_core.model import Project
from jolly_core.reports import LIST, where_drawn
from jolly_core.scenes import BLOCKS

# Kinds of what is not drawn on sheets -> the address that shows it; {} is its id.
SHOWN = {
    "enclosure": "cabinet?enclosure={}",
    "harness": "harness?harness={}",
    "part": "parts/library?part={}",
    "wire_type": "brief/wire-types",
    "io_point": "io",
    "settings": "brief/project",
    "function": "brief/structure",
    "location": "brief/structure",
    "stamp": "draw",
    "recipe": "issue?show={}",
    "pack": "issue?show=pack:{}",
    "revision": "issue?show=revision:{}",
}
# Devices that are of such a kind -> the address that shows it as that; {} is the device's id.
BUILT = {
    "strip": "terminals?strip={}",
    "cable": "cables?cable={}",
    "card": "io",
    "block": f"draw/{BLOCKS}",
}
# Kinds of what is shown with something else -> the field that names it.
PART_OF = {
    **dict.fromkeys(("rail", "duct", "lane", "crossing"), "enclosure_id"),
    "covering": "segment_id",
    "segment": "harness_id",
}


def address_of(project: Project, id: str) -> str:
    """Return the address that shows a thing of a project, or a list of it, "" for what is shown nowhere.

    What is drawn is shown on its sheet; a device that is not, where it is built in.
    """
    if id.startswith(LIST):
        return f"issue?show={id.removeprefix(LIST)}"
    sheet_id, selected = where_drawn(project, id)
    if sheet_id:
        return f"draw/{sheet_id}" + (f"?sel={selected}" if selected else "")
    for kind, address in SHOWN.items():
        if id in project.tables[kind]:
            return address.format(id)
    for kind, field in PART_OF.items():
        record = project.tables[kind].get(id)
        if record is not None:
            return address_of(project, getattr(record, field))
    return _of_device(project, id) if id in project.devices else ""


def address_as(project: Project, kind: str, id: str) -> str:
    """Return the address that shows a thing as what it was found as: a cable with its cores, wherever it is drawn."""
    return BUILT[kind].format(id) if kind in BUILT else address_of(project, id)


def _of_device(project: Project, id: str) -> str:
    """Return the address of a device that is drawn nowhere."""
    for kind, address in BUILT.items():
        if project.naming(kind, "device_id", id):
            return address.format(id)
    for kind, field, shown in (
        ("enclosure", "id", "cabinet?enclosure={}"),
        ("placing", "enclosure_id", "cabinet?enclosure={}"),
        ("node", "harness_id", "harness?harness={}"),
    ):
        found = project.naming(kind, "device_id", id)
        if found:
            return shown.format(getattr(found[0], field))
    return "parts/project"
