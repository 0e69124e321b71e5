"""All kinds of entity, with what is asked of them together."""

from __future__ import annotations

from . import entities as _all_kinds  # noqa: F401  # reading it makes the kinds known
from .kinds import Kind, in_order

# The kinds by name, in the order files and change sets write them.
KINDS: dict[str, Kind] = in_order()
# Kinds that lie on a sheet; the aggregate indexes them by sheet and stamps the sheet when they change.
ON_SHEET = tuple(name for name, spec in KINDS.items() if spec.on_sheet)
# Kinds whose records keep a device in the project though nothing of it is drawn; `attached` indexes them by device.
ATTACHED = tuple(name for name, spec in KINDS.items() if spec.keeps_device)
# Kinds whose entities can be locked; wires follow what they are fixed to.
LOCKABLE = tuple(name for name, spec in KINDS.items() if spec.lockable)
