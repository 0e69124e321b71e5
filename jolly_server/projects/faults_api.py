"""Would anybody notice? Faults planted on trial in an open project, one kind after another; nothing of it is stored."""

from __future__ import annotations

from django.http import HttpRequest
from ninja import Router
from typing_extensions import TypedDict

from jolly_core.model import GoneError
from jolly_core.planting import FAULTS, HARMS, unseen_of

from .access import role_in
from .store import loaded

router = Router(tags=["drawing"])
EACH = 3  # faults of one kind that are planted


class FaultLine(TypedDict):
    """A kind of fault: what is done, and the harm it does."""

    key: str
    words: str
    harm: str


class UnseenLine(TypedDict):
    """A fault that nothing would tell: what was done, to what, where, and the harm it does."""

    words: str
    harm: str
    name: str
    place: str
    symbol_id: str
    sheet_id: str


class Planted(TypedDict):
    """How many faults of a kind were planted, and those that nothing tells."""

    count: int
    unseen: list[UnseenLine]


@router.get("/{project_id}/faults", response=list[FaultLine])
def faults(request: HttpRequest, project_id: str) -> list[FaultLine]:
    """Give the kinds of fault that can be planted, the most harmful first."""
    role_in(request, project_id)
    kinds = sorted(FAULTS.values(), key=lambda k: (HARMS.index(k.harm), k.words))
    return [{"key": k.key, "words": k.words, "harm": k.harm} for k in kinds]


@router.get("/{project_id}/faults/{fault_key}", response=Planted)
def planted(request: HttpRequest, project_id: str, fault_key: str) -> Planted:
    """Plant a few faults of one kind in trials of the project, and give those that nothing tells.

    Raises:
        GoneError: there is no such kind.
    """
    role_in(request, project_id)
    if fault_key not in FAULTS:
        raise GoneError(f"There is no kind of fault “{fault_key}”. Ask for the kinds first.")
    held = loaded(project_id)
    with held.lock:
        count, found = unseen_of(held.project, FAULTS[fault_key], each=EACH)
    return {
        "count": count,
        "unseen": [
            {
                "words": u.words,
                "harm": u.harm,
                "name": u.name,
                "place": u.place,
                "symbol_id": u.symbol_id,
                "sheet_id": u.sheet_id,
            }
            for u in found
        ],
    }
