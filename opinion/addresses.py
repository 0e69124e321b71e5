"""Addresses of the channels of cards, counted one after another as a person counts them at the card."""

from __future__ import annotations

from .book import Book, Record

_TYPES = {"di": "DI", "do": "DO", "ai": "AI", "ao": "AO"}
_OF_WORDS = ("AI", "AO")


def channel_addresses(book: Book) -> dict[tuple[str, str, int], str]:
    """Return the address of each channel: by the card's device, the type and the number among those of its type."""
    found: dict[tuple[str, str, int], str] = {}
    for card in book.all("card"):
        device = book.find("device", card["device_id"])
        part = book.find("part", device["part_id"]) if device else None
        counts: dict[str, int] = {}
        for kind, _ in part["units"] if part else []:
            if kind in _TYPES:
                io_type = _TYPES[kind]
                counts[io_type] = counts.get(io_type, 0) + 1
        for io_type, count in counts.items():
            before = counts.get("D" + io_type[1], 0) if io_type in _OF_WORDS else 0
            for n, address in enumerate(_from(book, card, io_type, count, before), start=1):
                found[card["device_id"], io_type, n] = address
    return found


def _from(book: Book, card: Record, io_type: str, count: int, before: int) -> list[str]:
    """Return so many addresses from the card's first one on.

    Args:
        before: how many digital channels of the direction the card has before its analog ones.
    """
    head = str(book.settings["input_prefix" if io_type.endswith("I") else "output_prefix"])
    scheme, start = card["scheme"], str(card["start"])
    found: list[str] = []
    if scheme in ("whole", "octal", "slot"):
        for n in range(before, before + count):
            if scheme == "slot":
                found.append(f"{head}{start}/{n}")
            elif scheme == "octal":
                found.append(f"{head}{int(start, 8) + n:o}")
            else:
                found.append(f"{head}{int(start) + n}")
        return found
    byte, bit = (int(part) for part in (start if "." in start else f"{start}.0").split("."))
    if io_type in _OF_WORDS:
        byte += 2 * ((before + 15) // 16)  # its bits come first, in whole words
        for _ in range(count):
            found.append(f"{head}W{byte}" if scheme == "word" else f"{head}{byte}.{bit}")
            byte += 2
        return found
    for _ in range(count):
        found.append(f"{head}{byte}.{bit}")
        bit += 1
        if bit == 8:
            byte, bit = byte + 1, 0
    return found
