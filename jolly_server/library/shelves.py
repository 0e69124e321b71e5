"""Libraries of parts: which there are, in which order, and who may change what is on them."""

from __future__ import annotations

from django.contrib.auth.models import AbstractBaseUser, AnonymousUser
from django.db import transaction
from django.db.models import Max, Q, QuerySet
from typing_extensions import TypedDict

from jolly_core.model import IdSource, RuleError

from .models import Shelf
from .storing import remove_parts

HOUSE = "house"
_ids = IdSource()
User = AbstractBaseUser | AnonymousUser


def shelves_for(user: User) -> QuerySet[Shelf]:
    """Return the shelves a person sees, in their order: the company's and one's own."""
    return Shelf.objects.filter(Q(owner=None) | Q(owner_id=user.pk)).order_by("order", "name")


def may_change(shelf: Shelf, user: User) -> bool:
    """Return whether a person may change the parts on a shelf: not on a read-only one, nor on somebody else's."""
    return not shelf.read_only and shelf.owner_id in (None, user.pk)


def shelf_to_change(shelf_id: str, user: User) -> Shelf:
    """Return a shelf whose parts a person may change.

    Raises:
        RuleError: there is none of that id, or it is read only for the person.
    """
    shelf = shelves_for(user).filter(pk=shelf_id).first()
    if shelf is None:
        raise RuleError("This library is gone. Choose another.", field="shelf")
    if not may_change(shelf, user):
        raise RuleError(f"“{shelf.name}” is read only. Take the part into a library of your own.", field="shelf")
    return shelf


def add_shelf(name: str, user: User, *, own: bool, text: str = "", read_only: bool = False) -> Shelf:
    """Add a library after all others, one's own or the company's.

    Raises:
        RuleError: it has no name, or one that is taken.
    """
    name = " ".join(name.split())
    if not name:
        raise RuleError("Give the library a name.", field="name")
    if Shelf.objects.filter(name__iexact=name).exists():
        raise RuleError(f"There is a library “{name}” already.", field="name")
    last = Shelf.objects.aggregate(last=Max("order"))["last"] or 0
    return Shelf.objects.create(
        pk=_ids.new(), name=name, text=text, order=last + 1, read_only=read_only, owner_id=user.pk if own else None
    )


def rename_shelf(shelf_id: str, name: str, user: User) -> None:
    """Give a library that a person may change another name.

    Raises:
        RuleError: it is gone or read only, or the name is empty or taken.
    """
    shelf = shelf_to_change(shelf_id, user)
    name = " ".join(name.split())
    if not name:
        raise RuleError("Give the library a name.", field="name")
    if Shelf.objects.filter(name__iexact=name).exclude(pk=shelf.pk).exists():
        raise RuleError(f"There is a library “{name}” already.", field="name")
    Shelf.objects.filter(pk=shelf.pk).update(name=name)


def remove_shelf(shelf_id: str, user: User) -> None:
    """Take a library away with its parts; projects keep their copies, and its parts' history stays.

    Raises:
        RuleError: it is gone or read only, or the last one of the company.
    """
    shelf = shelf_to_change(shelf_id, user)
    if shelf.owner_id is None and Shelf.objects.filter(owner=None).count() == 1:
        raise RuleError("This is the last library of the company. Add another one first.", field="shelf")
    with transaction.atomic():
        remove_parts(shelf.parts.values_list("pk", flat=True), shelf, user.get_username())
        shelf.delete()


def order_shelves(ids: list[str], user: User) -> None:
    """Put the shelves a person sees in an order: where two have a number, the first one's part is taken."""
    seen = {s.pk: s for s in shelves_for(user)}
    for order, id in enumerate([i for i in ids if i in seen], start=1):
        Shelf.objects.filter(pk=id).update(order=order)


class ShelfLine(TypedDict):
    """A library a person sees, and how many parts are in it."""

    id: str
    name: str
    text: str
    read_only: bool
    own: bool
    may_change: bool
    parts: int


def shelf_rows(user: User) -> list[ShelfLine]:
    """Return the shelves a person sees as JSON values, with how many parts are on each."""
    return [
        {
            "id": s.pk,
            "name": s.name,
            "text": s.text,
            "read_only": s.read_only,
            "own": s.owner_id is not None,
            "may_change": may_change(s, user),
            "parts": s.parts.count(),
        }
        for s in shelves_for(user)
    ]
