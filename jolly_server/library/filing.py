"""Pictures, data sheets and pictures in space of parts: taken in by name, given out so that nothing in them can run."""

from __future__ import annotations

import json
import re

from jolly_core.model import RuleError

from .models import LibraryFile

LARGEST = 5_000_000
LARGEST_SOLID = 20_000_000
# What the first bytes of a file should be, by its ending; an SVG is text and is looked into.
KINDS = {
    "png": ("image/png", b"\x89PNG"),
    "jpg": ("image/jpeg", b"\xff\xd8"),
    "jpeg": ("image/jpeg", b"\xff\xd8"),
    "pdf": ("application/pdf", b"%PDF"),
    "svg": ("image/svg+xml", b""),
    "glb": ("model/gltf-binary", b"glTF"),
    "gltf": ("model/gltf+json", b""),
    "stl": ("model/stl", b""),
}
SOLIDS = ("glb", "gltf", "stl")
STL_HEAD, STL_FACE = 84, 50  # bytes before the triangles of a binary STL, and of each
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
    ending = name.rpartition(".")[2].lower()
    most = LARGEST_SOLID if ending in SOLIDS else LARGEST
    if len(content) > most:
        raise RuleError(f"{name} is larger than {most // 1_000_000} MB.", field="file")
    looks_so = {"svg": _is_svg, "stl": _is_stl, "gltf": _is_gltf}.get(ending)
    if not content.startswith(kind[1]) or (looks_so and not looks_so(content)):
        raise RuleError(f"{name} is not what its ending says. Choose another file.", field="file")
    return kind


def _is_svg(content: bytes) -> bool:
    return b"<svg" in content[:2000]


def _is_stl(content: bytes) -> bool:
    """Return whether a file is STL: text with triangles, or a binary one as long as its count of triangles says."""
    if content[:5].lower() == b"solid" and b"facet" in content[:2000]:
        return True
    count = int.from_bytes(content[STL_HEAD - 4 : STL_HEAD], "little")
    return count > 0 and len(content) == STL_HEAD + STL_FACE * count


def _is_gltf(content: bytes) -> bool:
    """Return whether a file is glTF that holds all it needs: what lies in files beside it would not come along."""
    try:
        raw = json.loads(content)
        things = [*raw.get("buffers", []), *raw.get("images", [])]
        return "version" in raw["asset"] and all(str(t.get("uri", "data:")).startswith("data:") for t in things)
    except (ValueError, KeyError, AttributeError, TypeError):
        return False
