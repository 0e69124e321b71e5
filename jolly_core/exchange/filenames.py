"""Names of files that every system takes: those of packs go by mail to people with any."""

from __future__ import annotations

import re

LONGEST = 120  # bytes of a name before its ending; file systems take 255 of the whole, a path of folders comes to it
# Devices of an old system that nothing may be called after, whatever the ending; its successors still keep to it.
TAKEN = {"con", "prn", "aux", "nul", *(f"{port}{n}" for port in ("com", "lpt") for n in range(10))}


def safe(name: str) -> str:
    """Return a text as a part of a file's name: letters, digits, dots and strokes.

    Example:
        >>> safe("Kiln 2: fans/pumps")
        'Kiln-2-fans-pumps'
    """
    return re.sub(r"-{2,}", "-", "".join(c if c.isalnum() or c in "-_." else "-" for c in name)).strip("-")


def file_stem(name: str, otherwise: str = "file") -> str:
    """Return a text as a file's name without its ending: not hidden, not too long, and no word that is taken.

    Args:
        name: made of anything.
        otherwise: what it is called where nothing of the name is left.

    Example:
        >>> file_stem("AUX"), file_stem(".."), file_stem("Kiln 2, list")
        ('file-AUX', 'file', 'Kiln-2-list')
    """
    short = safe(name).encode()[:LONGEST].decode(errors="ignore").strip("-.")
    if not short:
        return otherwise
    return f"file-{short}" if short.split(".")[0].casefold() in TAKEN else short
