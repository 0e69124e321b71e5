"""What is stored beyond the bounds of its field, from before there were bounds: shown with what is used instead."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from jolly_core.model import KINDS, Project, places_of
from jolly_core.tagging import full_tag

from .registry import Snag, project_check

# Where things that lie on no sheet are put right; the others are facts of the project.
BENCHES = {
    "enclosure": "cabinet",
    "rail": "cabinet",
    "duct": "cabinet",
    "placing": "cabinet",
    "card": "io",
    "rack": "io",
    "io_point": "io",
    "cable": "cables",
    "strip_item": "terminals",
    "bridge": "terminals",
    "segment": "harness",
    "part": "parts",
    "device": "draw",
    "sheet": "draw",
}


@project_check("out-of-bounds", "What is stored is beyond what its field can hold, so that another value is used.")
def out_of_bounds(project: Project) -> Iterator[Snag]:
    """Yield a snag for each field that was put right when the project was loaded, until somebody sets it."""
    for (kind, id), (record, faults) in sorted(project.put_right.items(), key=lambda item: item[0]):
        now = project.tables[kind].get(id)
        for field, fault in faults.items():
            value = getattr(record, field)
            if now is None or getattr(now, field) != value:
                continue
            used = f"{value:g}" if isinstance(value, float) else str(value or "nothing")
            if isinstance(value, (tuple, dict)):
                used = f"only the first {len(value)} are used"
            else:
                used = f"{used} is used instead"
            message = f"{_named(project, kind, now)}: “{KINDS[kind].fields[field].words}” {fault}; {used}. Set it anew."
            yield _snag(kind, now, message)


def _snag(kind: str, record: Any, message: str) -> Snag:
    sheet_id = str(getattr(record, "sheet_id", record.id if kind == "sheet" else ""))
    x, y = next(places_of(record), (0, 0)) if KINDS[kind].on_sheet else (0, 0)
    bench = "draw" if sheet_id else BENCHES.get(kind, "brief")
    device_id = record.id if kind == "device" else ""
    ids = (record.id,) if KINDS[kind].on_sheet else ()
    subject = "" if sheet_id else str(getattr(record, "enclosure_id", ""))
    return Snag("out-of-bounds", "warning", message, ids, sheet_id, x, y, "", device_id, bench, subject)


def _named(project: Project, kind: str, record: Any) -> str:
    """Return a thing by its kind and what people know it by."""
    words = KINDS[kind].words
    device = project.devices.get(getattr(record, "device_id", "") or getattr(record, "strip_id", ""), None)
    if kind == "device" or device is not None:
        tag = full_tag(project, device or record)
        return tag if kind == "device" else f"The {words} of {tag}"
    name = next((v for f in ("number", "code", "tag", "name", "text") if (v := str(getattr(record, f, "")))), "")
    return f"The {words} {name}".strip()
