"""Packs: files that are issued together, in one zip with a page of contents and a list of what looks wrong.

The zip carries no time of writing: the same project gives the same bytes.
"""

from __future__ import annotations

import io
import zipfile
from collections.abc import Callable, Container, Sequence
from dataclasses import dataclass
from hashlib import sha256
from pathlib import Path

from pypdf import PdfReader

from jolly_core.model import Pack, Project, RuleError, Sheet, in_language
from jolly_core.reports import Cell, Column, Table
from jolly_core.tagging import check_fields, filled

from .filenames import file_stem
from .packitems import PackFile, everything, files_of, whole_set
from .tables import table_pdf

DATE = (2000, 1, 1, 0, 0, 0)
CONTENTS = "00-contents.pdf"
EVERYTHING = "Everything"
IN_ALL_LANGUAGES = ("project-file",)  # items that hold the texts of the house and what they are in other languages
PIECES = ("kind", "date")  # of a file's name, beside the project's fields
# Files done, files in all, and the one that is made now.
Progress = Callable[[int, int, str], None]


@dataclass(slots=True, frozen=True)
class Written:
    """A file of a pack that was written: its name, what it is, bytes, pages of a PDF, rows of a list, and a digest."""

    name: str
    words: str
    size: int
    pages: int
    rows: int
    digest: str


def everything_pack(project: Project) -> Pack:
    """Return the pack that every project has: all there is of it."""
    return Pack("", EVERYTHING, tuple(everything(project)), "{kind}")


def check_pack(project: Project, pack: Pack, fonts: Path) -> None:
    """Refuse a pack that cannot be issued.

    Raises:
        RuleError: it names what there is not, is in a language the project is not in, or its file names use fields
            that nobody knows.
    """
    if not pack.files:
        raise RuleError(f"The pack “{pack.name}” holds nothing yet. Add files to it.", field="files")
    in_language(project, pack.language)
    check_fields(project, pack.pattern, PIECES)
    for file in pack.files:
        files_of(project, file.get("what", ""), file.get("format", ""), fonts)


def named_files(project: Project, pack: Pack, fonts: Path, changed: Container[str] = ()) -> list[tuple[str, PackFile]]:
    """Return the files of a pack with their names; names that some system holds for equal are numbered on.

    Raises:
        RuleError: as `check_pack`.
    """
    check_pack(project, pack, fonts)
    said = in_language(project, pack.language)
    found: dict[str, PackFile] = {}
    known = {CONTENTS}
    for file in pack.files:
        what = file.get("what", "")
        source = project if what in IN_ALL_LANGUAGES else said
        for made in files_of(source, what, file.get("format", ""), fonts, changed):
            given = {"kind": made.kind, "date": project.settings.issued_on}
            stem = file_stem(filled(said, Sheet("", ""), pack.pattern, given), made.kind or "list")
            name, count = f"{stem}.{made.ending}", 1
            while name.casefold() in known:
                count += 1
                name = f"{stem}-{count}.{made.ending}"
            known.add(name.casefold())
            found[name] = made
    return list(found.items())


def _told(done: int, count: int, doing: str) -> None:
    """Tell nobody."""


def pack_files(
    project: Project, fonts: Path, pack: Pack | None = None, step: Progress = _told, changed: Container[str] = ()
) -> dict[str, bytes]:
    """Return the files of a pack by name, the page of contents first.

    Args:
        project: it is only read.
        fonts: folder of the font files.
        pack: None for everything.
        step: told before each file is made, and when all are.
        changed: ids of the sheets that are other than in the last frozen revision, which is said on them.

    Raises:
        RuleError: as `check_pack`.
    """
    listed = named_files(project, pack or everything_pack(project), fonts, changed)
    rows: list[tuple[Cell, ...]] = [(n, name, file.words) for n, (name, file) in enumerate(listed, start=1)]
    columns = (Column("n", "No", 5, number=True), Column("file", "File", 40), Column("what", "What it is", 50))
    s = project.settings
    name = f"{s.number} {s.name}, revision {s.revision}".strip()
    found = {CONTENTS: table_pdf(Table("Contents", columns, rows), name, fonts)}
    for n, (name, file) in enumerate(listed):
        step(n, len(listed), name)
        found[name] = file.make()
    step(len(listed), len(listed), "")
    return found


def zipped(files: dict[str, bytes]) -> bytes:
    """Return files as a zip, in order."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, content in files.items():
            info = zipfile.ZipInfo(name, DATE)
            info.compress_type = zipfile.ZIP_DEFLATED
            info.external_attr = 0o644 << 16
            archive.writestr(info, content)
    return out.getvalue()


def write_pack(project: Project, fonts: Path, pack: Pack | None = None, changed: Container[str] = ()) -> bytes:
    """Return a pack as a zip, of everything when none is given; `changed` as for `pack_files`."""
    return zipped(pack_files(project, fonts, pack, changed=changed))


def written(project: Project, pack: Pack, fonts: Path, files: dict[str, bytes]) -> list[Written]:
    """Return what was written of a pack, with pages and rows."""
    made = dict(named_files(project, pack, fonts))
    found = []
    for name, content in files.items():
        file = made.get(name)
        words = file.words if file is not None else "Contents"
        pages = len(PdfReader(io.BytesIO(content)).pages) if name.endswith(".pdf") else 0
        rows = file.rows() if file is not None and file.rows is not None else 0
        found.append(Written(name, words, len(content), pages, rows, sha256(content).hexdigest()))
    return found


def outside(project: Project, pack: Pack) -> list[str]:
    """Return the numbers of the sheets that are in no drawing of a pack that has some."""
    kinds = {file.get("what", "").partition(":")[0] for file in pack.files}
    if kinds & {"set", "sheets"} or not kinds & {"drawings", "plans"}:
        return []
    ids: Sequence[str] = [s.id for s in project.sheets_in_order()] if "drawings" in kinds else []
    return [project.sheets[id].number for id in whole_set(project) if id in project.sheets and id not in ids]
