"""Every kind of edit does the same, whichever entities were made first: undo, redo and loading order them otherwise."""

from __future__ import annotations

import random
from typing import Any
from unittest import TestCase

from pydantic import ValidationError

from jolly_core.edits import EDITS, compute, parse_edit
from jolly_core.exchange import read_project
from jolly_core.model import CoreError, IdSource, Project
from jolly_core.testing import DEMO, DemoLibrary, reordered

DRAWN = ("symbol", "wire", "device", "placing", "strip_item", "cable", "sheet", "rail", "duct")
TURNS = 2


class Chooser:
    """Fills in the examples of edits with entities of a project."""

    def __init__(self, project: Project, seed: str) -> None:
        self.project = project
        self.chance = random.Random(seed)

    def one(self, field: str) -> str:
        """Return the id of an entity of the kind a field names, of any drawn kind where it names none."""
        kind = field.removesuffix("_ids").removesuffix("_id")
        table = self.project.tables.get(kind) or self.project.tables.get(self.chance.choice(DRAWN))
        return self.chance.choice(sorted(table or self.project.symbols))

    def filled(self, example: Any, field: str = "") -> Any:
        """Return an example with ids of the project in place of its own, and some numbers changed."""
        if isinstance(example, dict):
            return {key: value if key == "kind" else self.filled(value, key) for key, value in example.items()}
        if field.endswith("ids") and isinstance(example, list):
            return [self.one(field) for _ in range(self.chance.choice((1, 2, 4, 8)))]
        if field.endswith("_id") and isinstance(example, str):
            return self.one(field)
        if isinstance(example, list):
            return [self.filled(value, field) for value in example]
        if isinstance(example, bool):
            return self.chance.random() < 0.5
        if isinstance(example, int) and self.chance.random() < 0.4:
            return example + self.chance.randint(-10, 60)
        return example


def outcome(project: Project, raw: dict[str, Any]) -> object:
    """Return what an edit would change, or why it is refused; None for what is no edit at all."""
    try:
        payload = parse_edit(raw)
    except (CoreError, ValidationError):
        return None
    try:
        found = compute(project, payload, ids=IdSource(1), library=DemoLibrary())
    except CoreError as error:
        return str(error)
    changed: dict[object, object] = {(change.kind, change.id): change.after for change in found.changes}
    return changed | {"said": (found.label, *found.remarks)}


class Reordered(TestCase):
    def test_edits_of_every_kind_on_both_demos(self) -> None:
        done: set[str] = set()
        for name in ("pellwick-kiln-2.spool.json", "sample-store-dehumidifier.spool.json"):
            project = read_project((DEMO / name).read_bytes())
            other = reordered(project, 5)
            for turn in range(TURNS):
                for kind, edit in sorted(EDITS.items()):
                    raw = Chooser(project, f"{turn} {kind}").filled(dict(edit.example))
                    first = outcome(project, raw)
                    self.assertEqual(outcome(other, raw), first, raw)
                    if isinstance(first, dict):
                        done.add(kind)
        self.assertGreater(len(done), 30)
