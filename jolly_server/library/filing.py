"""Pictures and data sheets of parts: taken in by name, given out so that nothing in them can run."""

from __future__ import annotations

import re

from jolly_core.model import RuleError

from .models import LibraryFile

LARGEST = 5_000_000
# What the first bytes of a file should be, by its ending; an SVG is text and is looked into.
KINDS = {
    "png": ("image/png", b"\x89PNG"),
    "jpg": ("image/jpeg", b"\xff\xd8"),
    "jpeg": ("image/jpeg", b"\xff\xd8"),
    "pdf": ("application/pdf", b"%PDF"),
    "svg": ("image/svg+xml", b""),
}
PICTURES = ("png", "jpg", "jpeg", "svg")
_SAFE = re.compile(r"[^A-Za-z0-9._-]+")


def file_name(name: str) -> str:
    """Return the name a file is kept under: its own, without folders and odd signs.

    Example:
        >>> file_name("Data sheets/TW L22 (grün).PDF")
        'TW-L22-gr-n-.pdf'
    """
    stem, dot, ending = name.replace("\\", "/").rpartition("/")[2].rpartition(".")
    return f"{_SAFE.sub('-', stem)[:80].strip('.') or 'file'}{dot}{ending.lower()[:8]}"


def keep_file(name: str, content: bytes) -> str:
    """Keep a file and return the name it has here: another one than its own where that is a different file's.

    What parts show is never exchanged behind their backs: whoever may change a part gives it the new name.

    Raises:
        RuleError: it is too large, or not what its ending says.
    """
    kept = file_name(name)
    media_type, start = checked_file(kept, content)
    stem, _, ending = kept.rpartition(".")
    name, count = kept, 1
    while (held := LibraryFile.objects.filter(pk=name).first()) is not None and bytes(held.data) != content:
        count += 1
        name = f"{stem}-{count}.{ending}"
    if held is None:
        LibraryFile.objects.create(pk=name, media_type=media_type, data=content)
    return name


def checked_file(name: str, content: bytes) -> tuple[str, bytes]:
    """Return the media type of a file and how such files begin.

    Raises:
        RuleError: it is too large, or not what its ending says.
    """
    kind = KINDS.get(name.rpartition(".")[2].lower())
    if kind is None:
        raise RuleError(f"{name} is no picture or data sheet: choose {', '.join(KINDS)}.", field="file")
    if len(content) > LARGEST:
        raise RuleError(f"{name} is larger than {LARGEST // 1_000_000} MB.", field="file")
    if not content.startswith(kind[1]) or (not kind[1] and b"<svg" not in content[:2000]):
        raise RuleError(f"{name} is not what its ending says. Choose another file.", field="file")
    return kind
