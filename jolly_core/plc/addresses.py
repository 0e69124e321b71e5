"""Addresses of PLC channels: schemes, what each channel takes, and how it is written.

A digital channel takes a bit, an analog one a word of two bytes (IEC 61131-3 writes W for a word). Whole and octal
numbers and the points of a slot are address spaces of their own, in which each channel takes one place. What an address
begins with is the project's; I and Q are those of IEC 61131-3.
"""

from __future__ import annotations

from dataclasses import dataclass

from jolly_core.model import RuleError

BITS = 8
WORD_BITS = 16
# The direction of each type, by which address spaces are told apart.
PREFIX = {"DI": "I", "AI": "I", "DO": "Q", "AO": "Q"}
ANALOG = ("AI", "AO")
FIRST_ANALOG_WORD = 256
BIT_SCHEMES = ("byte.bit", "word")  # in one space of bits
SLOT_POINTS = 1000  # places kept for each slot in its space
LARGEST = 65_535  # byte, number or slot


@dataclass(slots=True, frozen=True)
class Prefixes:
    """What addresses of inputs and of outputs begin with."""

    inputs: str = "I"
    outputs: str = "Q"

    def of(self, io_type: str) -> str:
        """Return what an address of a type begins with."""
        return self.inputs if PREFIX[io_type] == "I" else self.outputs


USUAL_PREFIXES = Prefixes()


def parse_start(scheme: str, start: str) -> int:
    """Return the first address as a count: bits for "byte.bit" and "word", else the place in the scheme's own space.

    Raises:
        RuleError: it is not written as the scheme asks.

    Example:
        >>> [parse_start(*s) for s in (("byte.bit", "1.2"), ("whole", "100"), ("word", "256"), ("octal", "17"))]
        [10, 100, 2048, 15]
        >>> parse_start("slot", "3")
        3000
    """
    text = start.strip()
    if scheme == "byte.bit":
        byte, dot, bit = text.partition(".")
        if not dot or not _is_number(byte) or not _is_number(bit) or int(bit) >= BITS:
            words = "The first address should be byte.bit such as 0.0; the bit runs from 0 to 7."
            raise RuleError(words, field="start")
        return int(byte) * BITS + int(bit)
    if scheme == "word":
        if not _is_number(text) or int(text) % 2:
            raise RuleError("The first address should be an even byte such as 256.", field="start")
        return int(text) * BITS
    if scheme == "octal":
        if not _is_number(text) or any(c in "89" for c in text):
            raise RuleError("The first address should be an octal number such as 20; digits run to 7.", field="start")
        return int(text, 8)
    if not _is_number(text):
        what = "number of the slot such as 3" if scheme == "slot" else "whole number such as 100"
        raise RuleError(f"The first address should be a {what}.", field="start")
    return int(text) * (SLOT_POINTS if scheme == "slot" else 1)


def _is_number(text: str) -> bool:
    return text.isascii() and text.isdecimal() and int(text) <= LARGEST


def space_of(scheme: str, io_type: str) -> str:
    """Return the address space that a channel is in: its direction, with the scheme where that counts for itself."""
    return PREFIX[io_type] if scheme in BIT_SCHEMES else f"{scheme} {PREFIX[io_type]}"


def width_of(scheme: str, io_type: str) -> int:
    """Return how many places of its space a channel takes: bits, or 1 in a space of numbers."""
    return (WORD_BITS if io_type in ANALOG else 1) if scheme in BIT_SCHEMES else 1


def span(scheme: str, start: str, channel: int, io_type: str, *, after: int = 0) -> tuple[int, int]:
    """Return the first place a channel takes in its space, and the one after its last.

    Args:
        channel: 1-based number among the card's channels of its type.
        after: what the card's digital channels of the direction take before its analog ones.

    Raises:
        RuleError: the start is not written as the scheme asks.

    Example:
        >>> span("byte.bit", "1.2", 1, "DI"), span("word", "0", 1, "AI"), span("octal", "10", 3, "DI")
        ((10, 11), (0, 16), (10, 11))
    """
    width = width_of(scheme, io_type)
    first = parse_start(scheme, start) + after + (channel - 1) * width
    return first, first + width


def written(scheme: str, place: int, io_type: str, prefixes: Prefixes = USUAL_PREFIXES) -> str:
    """Return how a place of an address space is written.

    Example:
        >>> [written(*p) for p in (("byte.bit", 10, "DI"), ("word", 2064, "AI"), ("octal", 8, "DO"))]
        ['I1.2', 'IW258', 'Q10']
        >>> written("slot", 3005, "DI", Prefixes("E", "A")), written("whole", 102, "DO", Prefixes("%I", "%Q"))
        ('E3/5', '%Q102')
    """
    head = prefixes.of(io_type)
    if scheme == "octal":
        return f"{head}{place:o}"
    if scheme == "slot":
        return f"{head}{place // SLOT_POINTS}/{place % SLOT_POINTS}"
    if scheme == "whole":
        return f"{head}{place}"
    if scheme == "word" and io_type in ANALOG:
        return f"{head}W{place // BITS}"
    return f"{head}{place // BITS}.{place % BITS}"


def address(
    scheme: str, start: str, channel: int, io_type: str, *, after: int = 0, prefixes: Prefixes = USUAL_PREFIXES
) -> str:
    """Return the address of a channel.

    Args:
        channel: 1-based number among the card's channels of its type.
        io_type: DI, DO, AI or AO.
        after: what the card's digital channels of the direction take before its analog ones.

    Raises:
        RuleError: the start is not written as the scheme asks.

    Example:
        >>> address("byte.bit", "0.0", 11, "DI"), address("whole", "100", 3, "DO"), address("word", "256", 2, "AI")
        ('I1.2', 'Q102', 'IW258')
        >>> [address("octal", "0", n, "DI") for n in (8, 9)], address("slot", "3", 1, "DO")
        (['I7', 'I10'], 'Q3/0')
    """
    return written(scheme, span(scheme, start, channel, io_type, after=after)[0], io_type, prefixes)


def start_at(scheme: str, place: int) -> str:
    """Return how the first address is written that begins at a place of a space; the other way of parse_start.

    Example:
        >>> start_at("byte.bit", 16), start_at("word", 2048), start_at("octal", 16), start_at("slot", 4000)
        ('2.0', '256', '20', '4')
    """
    if scheme == "byte.bit":
        return f"{place // BITS}.{place % BITS}"
    if scheme == "word":
        return str(place // BITS)
    if scheme == "octal":
        return f"{place:o}"
    return str(place // SLOT_POINTS if scheme == "slot" else place)
