"""Addresses of PLC channels. Prefixes are those of IEC 61131-3: I for inputs, Q for outputs, W for a word.

A digital channel takes a bit, an analog one a word of two bytes. Whole numbers are an address space of their own.
"""

from __future__ import annotations

from jolly_core.model import RuleError

BITS = 8
WORD_BITS = 16
PREFIX = {"DI": "I", "AI": "I", "DO": "Q", "AO": "Q"}
ANALOG = ("AI", "AO")
FIRST_ANALOG_WORD = 256


def parse_start(scheme: str, start: str) -> int:
    """Return the first address as a count: bits for "byte.bit" and "word", the number itself for "whole".

    Raises:
        RuleError: it is not written as the scheme asks.

    Example:
        >>> parse_start("byte.bit", "1.2"), parse_start("whole", "100"), parse_start("word", "256")
        (10, 100, 2048)
    """
    text = start.strip()
    if scheme == "word":
        if not text.isdecimal() or int(text) % 2:
            raise RuleError("The first address should be an even byte such as 256.", field="start")
        return int(text) * BITS
    if scheme == "whole":
        if not text.isdecimal():
            raise RuleError("The first address should be a whole number such as 100.", field="start")
        return int(text)
    byte, dot, bit = text.partition(".")
    if not dot or not byte.isdecimal() or not bit.isdecimal() or int(bit) >= BITS:
        raise RuleError("The first address should be byte.bit such as 0.0; the bit runs from 0 to 7.", field="start")
    return int(byte) * BITS + int(bit)


def address(scheme: str, start: str, channel: int, io_type: str, *, after_bits: int = 0) -> str:
    """Return the address of a channel.

    Args:
        channel: 1-based number among the card's channels of its type.
        io_type: DI, DO, AI or AO; gives the prefix.
        after_bits: what the card's digital channels of the direction take before its analog ones.

    Raises:
        RuleError: the start is not written as the scheme asks.

    Example:
        >>> address("byte.bit", "0.0", 11, "DI"), address("whole", "100", 3, "DO"), address("word", "256", 2, "AI")
        ('I1.2', 'Q102', 'IW258')
    """
    if scheme == "whole":
        return f"{PREFIX[io_type]}{parse_start(scheme, start) + after_bits + channel - 1}"
    bit = span(scheme, start, channel, io_type, after_bits=after_bits)[0]
    if scheme == "word" and io_type in ANALOG:
        return f"{PREFIX[io_type]}W{bit // BITS}"
    return f"{PREFIX[io_type]}{bit // BITS}.{bit % BITS}"


def span(scheme: str, start: str, channel: int, io_type: str, *, after_bits: int = 0) -> tuple[int, int]:
    """Return the first bit a channel takes in its direction, and the one after its last.

    Raises:
        RuleError: the start is not written as the scheme asks.

    Example:
        >>> span("byte.bit", "1.2", 1, "DI"), span("word", "0", 1, "AI")
        ((10, 11), (0, 16))
    """
    width = WORD_BITS if io_type in ANALOG else 1
    first = parse_start(scheme, start) + after_bits + (channel - 1) * width
    return first, first + width
