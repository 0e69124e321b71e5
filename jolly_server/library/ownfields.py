"""Fields that people add to classes of parts."""

from __future__ import annotations

import re

from typing_extensions import TypedDict

from jolly_core.library import FIELD_KINDS, OWN, FieldKind, PartClass, part_class, part_fields
from jolly_core.model import RuleError

from .models import LibraryPart, OwnField


class OwnFieldValue(TypedDict):
    """A field that people added to a class of parts."""

    part_class: str
    key: str
    name: str
    unit: str
    kind: FieldKind
    choices: list[str]


def own_fields() -> list[OwnFieldValue]:
    """Return the fields that were added, by class and name."""
    return [
        {
            "part_class": f.part_class,
            "key": f.key,
            "name": f.name,
            "unit": f.unit,
            "kind": next(k for k in FIELD_KINDS if k == f.kind),
            "choices": list(f.choices),
        }
        for f in OwnField.objects.order_by("part_class", "name")
    ]


def own_classes() -> list[PartClass]:
    """Return the classes of the house's own that parts of the library have, by name."""
    keys = LibraryPart.objects.filter(part_class__startswith=OWN).values_list("part_class", flat=True).distinct()
    return sorted((part_class(key) for key in keys), key=lambda c: c.name)


def add_own_field(class_key: str, name: str, unit: str, kind: str, choices: list[str]) -> OwnField:
    """Add a field to a class; its key is made of name and unit.

    Raises:
        FileError: there is no such class.
        RuleError: it has no name, the class has such a field already, or a choice has no words.
    """
    known, name, unit = part_class(class_key), " ".join(name.split()), unit.strip()
    key = re.sub(r"[^a-z0-9]+", "_", f"{name} {unit}".lower()).strip("_")[:60]
    if not key:
        raise RuleError("Give the field a name.", field="name")
    if kind not in FIELD_KINDS:
        raise RuleError(f"“{kind}” is no kind of field.", field="kind")
    words = [c.strip() for c in choices if c.strip()]
    if kind == "choice" and len(words) < 2:
        raise RuleError("A choice needs at least two words to choose from.", field="choices")
    if key in part_fields() or OwnField.objects.filter(part_class=class_key, key=key).exists():
        raise RuleError(f"A {known.name.lower()} can have “{name}” already.", field="name")
    return OwnField.objects.create(part_class=class_key, key=key, name=name, unit=unit, kind=kind, choices=tuple(words))


def remove_own_field(class_key: str, key: str) -> None:
    """Take a field away; what parts say there stays with them."""
    OwnField.objects.filter(part_class=class_key, key=key).delete()
