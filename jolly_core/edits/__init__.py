"""Edits: one payload class and one function each, in rooms that stand in layers.

To add one, write a module of its own in the room it belongs to; nothing needs to list it.
"""

from importlib import import_module
from pkgutil import walk_packages
from typing import TYPE_CHECKING, Annotated, Union

from pydantic import Field, TypeAdapter

from .base.edit import EDITS, EditKind, Outcome, Payload, Text, compute, perform
from .base.faultwords import fault_words
from .devices.choosing import Candidate, own_choices, ranked, wanted_for
from .devices.copies import stale_parts
from .devices.parts import own_symbols
from .draw.trying import symbol_on_wires

__all__ = [
    "EDITS",
    "AnyEdit",
    "Candidate",
    "EditKind",
    "Outcome",
    "Payload",
    "Text",
    "compute",
    "fault_words",
    "own_choices",
    "own_symbols",
    "parse_edit",
    "perform",
    "ranked",
    "stale_parts",
    "symbol_on_wires",
    "wanted_for",
]

for _module in walk_packages(__path__, f"{__name__}."):
    if f"{__name__}.tests" not in _module.name:
        import_module(_module.name)

if TYPE_CHECKING:
    AnyEdit = Payload
else:
    # Every registered payload, told apart by its kind: the schema of the HTTP API and its typed client are made of it.
    AnyEdit = Annotated[
        Union[tuple(EDITS[kind].payload for kind in sorted(EDITS))],  # noqa: UP007  # made of a list
        Field(discriminator="kind"),
    ]

_adapter: TypeAdapter[Payload] = TypeAdapter(AnyEdit)


def parse_edit(raw: object) -> Payload:
    """Return the payload a JSON value describes.

    Raises:
        pydantic.ValidationError: it is not an edit, or a field is wrong.
    """
    return _adapter.validate_python(raw)
