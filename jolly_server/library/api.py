"""Symbols and parts for the browser."""

from django.http import HttpRequest
from ninja import Router, Schema

from jolly_core.library import PartClass, definitions, find_symbols, part_class, part_classes
from jolly_core.scenes import Prim, art_of
from jolly_server.library.drawn import drawn_definitions
from jolly_server.library.search import filters_in, search
from jolly_server.library.shelves import shelves_for
from jolly_server.shapes.sceneshapes import AnyPrim

router = Router(tags=["library"])


class SymbolOut(Schema):
    """A symbol as the list at the caret shows it; art is in mm."""

    key: str
    name: str
    part_class: str
    unit: str
    leads: bool
    swap: str
    max_poles: int
    nicknames: list[str]


class PartOut(Schema):
    """A part found, with what of it matched."""

    id: str
    maker: str
    number: str
    part_class: str
    class_name: str
    text: str
    units: dict[str, int]
    ratings: dict[str, str]
    supplier: str
    shelf: str
    price: float
    currency: str
    why: dict[str, str]


@router.get("/symbols", response=list[SymbolOut])
def symbols(request: HttpRequest, q: str = "") -> list[SymbolOut]:
    """List the symbols that match what was typed, best first."""
    return [
        SymbolOut(
            key=d.key,
            name=d.name,
            part_class=d.part_class,
            unit=d.unit,
            leads=d.lead < 9,
            swap=d.swap,
            max_poles=d.max_poles,
            nicknames=list(d.nicknames),
        )
        for d in find_symbols(q, drawn_definitions())
    ]


@router.get("/art/{standard}", response=dict[str, list[AnyPrim]])
def art(request: HttpRequest, standard: str) -> dict[str, list[Prim]]:
    """Give the graphics of every symbol for every number of poles, keyed "key-poles"."""
    return {
        f"{d.key}-{poles}": art_of(d.key, poles, standard)
        for d in definitions().values()
        for poles in range(1, d.max_poles + 1)
    }


@router.get("/classes", response=list[PartClass])
def classes(request: HttpRequest) -> list[PartClass]:
    """List the part classes."""
    return list(part_classes().values())


@router.get("/parts", response=list[PartOut])
def parts(
    request: HttpRequest,
    q: str = "",
    part_class_key: str = "",
    maker: str = "",
    rating: str = "",
    needs: str = "",
    filters: str = "",
    shelf: str = "",
    limit: int = 40,
) -> list[PartOut]:
    """Look parts up; `needs` is like "no:3,nc:1", `filters` like "coil_voltage_v=24;units.no>=2;ac3_a>=9"."""
    wanted = dict(_need(piece) for piece in needs.split(",") if ":" in piece)
    found = search(
        q,
        part_class_key=part_class_key,
        maker=maker,
        rating=rating,
        needs=wanted or None,
        filters=filters_in(f for f in filters.split(";") if f.strip()),
        shelves=[s for s in shelves_for(request.user).values_list("pk", flat=True) if shelf in ("", s)],
        limit=max(1, min(limit, 200)),
    )
    result = []
    for match in found:
        p = match.part
        counts: dict[str, int] = {}
        for kind, _ in p.units:
            counts[kind] = counts.get(kind, 0) + 1
        result.append(
            PartOut(
                id=p.id,
                maker=p.maker,
                number=p.number,
                part_class=p.part_class,
                class_name=part_class(p.part_class).name,
                text=p.text,
                units=counts,
                ratings=p.ratings,
                supplier=p.supplier,
                shelf=match.shelf,
                price=p.price,
                currency=p.currency,
                why=match.why,
            )
        )
    return result


def _need(piece: str) -> tuple[str, int]:
    kind, _, count = piece.partition(":")
    return kind, int(count) if count.isdecimal() else 1
