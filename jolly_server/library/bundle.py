"""A library as one zip: parts.json with drawn symbols' keys in it, and under files/ the pictures and data sheets."""

from __future__ import annotations

import io
import zipfile
from collections.abc import Iterable

from jolly_core.model import FileError, Part

from .filing import checked_file, file_name, keep_file
from .models import LibraryFile

LARGEST_OPEN = 200_000_000
FOLDER = "files/"
_DATE = (2026, 1, 1, 0, 0, 0)  # one for all, so that equal libraries give equal bytes
_TABLES = (".json", ".xlsx", ".csv")


def files_of(parts: Iterable[Part]) -> list[str]:
    """Return the names of the files of parts, each once."""
    return sorted({name for p in parts for name in (p.picture, p.datasheet, p.solid) if name})


def pack_bundle(library: bytes, names: Iterable[str]) -> bytes:
    """Return a zip of a library file and the files it names, as far as they are kept."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as bundle:
        bundle.writestr(zipfile.ZipInfo("parts.json", _DATE), library, zipfile.ZIP_DEFLATED)
        for row in LibraryFile.objects.filter(pk__in=list(names)).order_by("pk"):
            bundle.writestr(zipfile.ZipInfo(FOLDER + row.pk, _DATE), bytes(row.data), zipfile.ZIP_DEFLATED)
    return out.getvalue()


def open_bundle(content: bytes, name: str) -> tuple[str, bytes, dict[str, bytes]]:
    """Return the table or library file in a zip with its name, and the other files in it by name.

    Raises:
        FileError: it is no zip that can be read, too large when opened, or has no or several tables in it.
        RuleError: a file in it is not what its ending says.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(content)) as bundle:
            entries = [i for i in bundle.infolist() if not i.is_dir()]
            if sum(i.file_size for i in entries) > LARGEST_OPEN:
                raise FileError(f"{name} is larger than {LARGEST_OPEN // 1_000_000} MB when it is opened.")
            tables = [i for i in entries if i.filename.lower().endswith(_TABLES)]
            if len(tables) != 1:
                raise FileError(f"{name} should have one table or library file in it; it has {len(tables)}.")
            found = {file_name(i.filename): bundle.read(i) for i in entries if i is not tables[0]}
            table = bundle.read(tables[0])
    except (zipfile.BadZipFile, RuntimeError, NotImplementedError, OSError):
        raise FileError(f"{name} is not a zip file that can be read.") from None
    for kept, data in found.items():
        checked_file(kept, data)
    return tables[0].filename, table, found


def keep_files(found: dict[str, bytes], wanted: Iterable[str]) -> dict[str, str]:
    """Keep those of a zip's files that parts name, and return the name each has here."""
    return {name: keep_file(name, found[name]) for name in sorted(set(wanted) & set(found))}
