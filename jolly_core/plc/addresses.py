"""Addresses of PLC channels. Prefixes are those of IEC 61131-3: I for inputs, Q for outputs."""

from __future__ import annotations

from jolly_core.model import RuleError

BITS = 8
PREFIX = {"DI": "I", "AI": "I", "DO": "Q", "AO": "Q"}


def parse_start(scheme: str, start: str) -> int:
    """Return the first address as a count: bits for "byte.bit", the number itself for "whole".

    Raises:
        RuleError: it is not written as the scheme asks.

    Example:
        >>> parse_start("byte.bit", "1.2"), parse_start("whole", "100")
        (10, 100)
    """
    text = start.strip()
    if scheme == "whole":
        if not text.isdecimal():
            raise RuleError("The first address should be a whole number such as 100.", field="start")
        return int(text)
    byte, dot, bit = text.partition(".")
    if not dot or not byte.isdecimal() or not bit.isdecimal() or int(bit) >= BITS:
        raise RuleError("The first address should be byte.bit such as 0.0; the bit runs from 0 to 7.", field="start")
    return int(byte) * BITS + int(bit)


def address(scheme: str, start: str, channel: int, io_type: str) -> str:
    """Return the address of a channel.

    Args:
        channel: 1-based number among the card's channels of its type.
        io_type: DI, DO, AI or AO; gives the prefix.

    Raises:
        RuleError: the start is not written as the scheme asks.

    Example:
        >>> address("byte.bit", "0.0", 11, "DI"), address("whole", "100", 3, "DO")
        ('I1.2', 'Q102')
    """
    count = parse_start(scheme, start) + channel - 1
    shown = str(count) if scheme == "whole" else f"{count // BITS}.{count % BITS}"
    return f"{PREFIX[io_type]}{shown}"
