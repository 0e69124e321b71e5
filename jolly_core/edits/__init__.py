"""Edits: one payload class and one function each. To add one, write a module of its own; nothing needs to list it."""

from importlib import import_module
from pkgutil import iter_modules
from typing import TYPE_CHECKING, Annotated, Union

from pydantic import Field, TypeAdapter

from .base import EDITS, EditKind, Outcome, Payload, Text, compute, perform
from .choosing import Candidate, own_choices, ranked, wanted_for
from .copies import stale_parts
from .faultwords import fault_words
from .parts import own_symbols
from .trying import symbol_on_wires

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

for _module in iter_modules(__path__):
    if _module.name != "tests":
        import_module(f"{__name__}.{_module.name}")

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
