"""The last versions of what browsers show of a project, so that each is told what changed since the one it has."""

from __future__ import annotations

from collections import OrderedDict
from dataclasses import dataclass, field
from typing import Any

View = dict[str, dict[str, Any]]  # section -> id -> value

KEEP_SUBJECTS = 256  # of sheets and pages what is drawn and what is found, asked for longest ago forgotten first
KEEP_VERSIONS = 4  # of each


@dataclass(slots=True)
class Version:
    """A view, with the first and the last revision at which it was given out."""

    first: int
    last: int
    view: View


@dataclass(slots=True)
class Versions:
    """The last views of each subject, oldest first."""

    _kept: OrderedDict[str, list[Version]] = field(default_factory=OrderedDict)

    def note(self, subject: str, revision: int, view: View) -> None:
        """Note that a view is what there is to be seen of a subject at a revision."""
        kept = self._kept.setdefault(subject, [])
        self._kept.move_to_end(subject)
        if kept and kept[-1].view is view:
            kept[-1].last = revision
        else:
            kept.append(Version(revision, revision, view))
            del kept[:-KEEP_VERSIONS]
        while len(self._kept) > KEEP_SUBJECTS:
            self._kept.popitem(last=False)

    def at(self, subject: str, revision: int) -> View | None:
        """Return what was given out of a subject at a revision, None when that is not known any more."""
        kept = self._kept.get(subject, [])
        return next((v.view for v in reversed(kept) if v.first <= revision <= v.last), None)

    def clear(self) -> None:
        """Forget all."""
        self._kept.clear()


def difference(before: View | None, after: View) -> dict[str, Any]:
    """Return what a browser that shows `before` must put and drop to show `after`; everything when it has none."""
    if before is None:
        return {"whole": True, "put": after, "drop": {}}
    put: View = {}
    drop: dict[str, list[str]] = {}
    for section, values in after.items() if before is not after else ():
        old = before.get(section, {})
        if old is values:
            continue
        changed = {id: v for id, v in values.items() if (was := old.get(id)) is not v and was != v}
        gone = [id for id in old if id not in values]
        if changed:
            put[section] = changed
        if gone:
            drop[section] = gone
    return {"whole": False, "put": put, "drop": drop}
