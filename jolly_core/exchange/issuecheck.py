"""What would be wrong on paper: gathered by weight before anything is issued or frozen."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from pathlib import Path

from jolly_core.checks import causes, muted_snags
from jolly_core.drawing import FRAME_MM
from jolly_core.making import not_cut
from jolly_core.model import DRAWN, Project, counted, derived, unsaid
from jolly_core.reports.needs import without_length
from jolly_core.reports.parts import without_part
from jolly_core.scenes import Scene, Text, leaves_of
from jolly_core.scenes.room.crowding import text_box
from jolly_core.tagging import index_of, natural, revisions
from jolly_core.terminals import strips

from .fonts import runs, use_fonts
from .packitems import whole_set

WEIGHTS = ("error", "warning", "note")
SOME = 6  # that are named; of more, how many there are
TYPED = ("text", "title", "subtitle", "name")  # fields in which people name things


@dataclass(slots=True, frozen=True)
class Finding:
    """What would be wrong on paper.

    Attributes:
        weight: one of WEIGHTS.
        code: stable name of what was looked for.
        words: a sentence with the figure.
        names: the things concerned, by name, all of them.
        leads: ids that lead to them, as far as they are drawn, in the same order as far as they go.
    """

    weight: str
    code: str
    words: str
    names: tuple[str, ...] = ()
    leads: tuple[str, ...] = ()

    @property
    def sentence(self) -> str:
        """The words with the first of the things concerned."""
        sentences = any(name.endswith(".") for name in self.names)  # such as snags say
        shown = ("; " if sentences else ", ").join(name.rstrip(".") for name in self.names[:SOME])
        more = f" and {len(self.names) - SOME} more" if len(self.names) > SOME else ""
        return f"{self.words}: {shown}{more}" if self.names else self.words


def issue_check(project: Project, fonts: Path, stale: Iterable[str] = (), changed: Iterable[str] = ()) -> list[Finding]:
    """Return what would be wrong on paper, the heaviest first; [] when all is well.

    Args:
        project: the project.
        fonts: folder of the font files.
        stale: numbers of parts whose copy differs from the library.
        changed: ids of sheets that are other than in the last frozen revision.
    """
    found = [*_of_model(project), *_of_papers(project, fonts), *_of_facts(project)]
    numbers = sorted(stale, key=natural)
    if numbers:
        found.append(
            Finding("warning", "stale", _count(len(numbers), "part", "differs from the library"), tuple(numbers))
        )
    found += _same_index(project, changed)
    found += _unsaid(project)
    return sorted(found, key=lambda f: WEIGHTS.index(f.weight))


def _unsaid(project: Project) -> Iterator[Finding]:
    """Yield for each language of the project the texts that nobody said in it."""
    for language in project.settings.languages:
        texts = unsaid(project, language)
        if texts:
            words = _count(len(texts), "text", f"is not said in {language}")
            names = tuple(text.words.replace("\n", " ") for text in texts)
            yield Finding("warning", f"unsaid-{language}", words, names, tuple(text.where[0][1] for text in texts))


def _same_index(project: Project, changed: Iterable[str]) -> Iterator[Finding]:
    """Yield the sheets that bear the index of a revision they are not like any more."""
    ids = set(changed)
    sheets = [s for s in project.sheets_in_order() if s.id in ids and index_of(project, s.id)]
    if sheets:
        index = revisions(project)[-1].index
        words = _count(len(sheets), "sheet", f"has changed since revision {index} without a new index")
        names = tuple(f"sheet {s.number}, index {index_of(project, s.id)}" for s in sheets)
        yield Finding("warning", "same-index", words, names, tuple(s.id for s in sheets))


def _bare_words(project: Project, bare: list[tuple[str, int, str]]) -> str:
    """Return how many devices have no part, and how many pieces on strips, which are named strip by strip."""
    on_strips = {s.id for s in strips(project)}
    pieces = sum(n for _, n, id in bare if id in on_strips)
    devices = sum(n for _, n, _ in bare) - pieces
    if not pieces:
        return _count(devices, "device", "has no part")
    also = f"{counted(devices, 'device')} and " if devices else ""
    return f"{also}{counted(pieces, 'piece')} on strips {'have' if devices or pieces > 1 else 'has'} no part"


_PLURAL = {"is": "are", "has": "have", "differs": "differ"}


def _count(n: int, thing: str, what: str) -> str:
    """Return a number of things with what they do, said of one.

    Example:
        >>> _count(2, "wire", "has no length")
        '2 wires have no length'
    """
    verb, _, rest = what.partition(" ")
    return f"1 {thing} {what}" if n == 1 else f"{n} {thing}s {_PLURAL[verb]} {rest}"


def _of_model(project: Project) -> Iterator[Finding]:
    snags = [s for s, _ in causes(project)]
    for severity, weight in (("error", "error"), ("warning", "warning")):
        these = [s for s in snags if s.severity == severity]
        if these:
            times = Counter(s.message for s in these)
            first = {s.message: s.ids[0] if s.ids else s.device_id for s in reversed(these)}
            names = tuple(message if n == 1 else f"{message.rstrip('.')} ({n} times)" for message, n in times.items())
            words = _count(len(these), "error" if severity == "error" else "snag", "is left")
            yield Finding(weight, f"snags-{severity}", words, names, tuple(first[message] for message in times))
    uncut = not_cut(project)
    if uncut:
        names = tuple(f"{d.number} {d.start.name} to {d.end.name}".strip() for d in uncut)
        leads = tuple(d.conductor.wire_id or d.start.pin[0] for d in uncut)
        yield Finding("warning", "uncut", _count(len(uncut), "wire", "has no length"), names, leads)
    endless = without_length(project)
    if endless:
        names, leads = tuple(tag for tag, _ in endless), tuple(id for _, id in endless)
        yield Finding("warning", "no-length", _count(len(endless), "cable", "has no length"), names, leads)
    bare = without_part(project)
    if bare:
        names, leads = tuple(name for name, _, _ in bare), tuple(id for _, _, id in bare)
        yield Finding("warning", "no-part", _bare_words(project, bare), names, leads)
    muted = muted_snags(project)
    if muted:
        names = tuple(f"{s.message} ({m.reason})" for s, m in muted)
        leads = tuple(s.ids[0] if s.ids else s.device_id for s, _ in muted)
        yield Finding("note", "muted", _count(len(muted), "snag", "is muted"), names, leads)


def _of_facts(project: Project) -> Iterator[Finding]:
    s = project.settings
    for field, words in (("number", "number"), ("name", "name"), ("customer", "customer"), ("revision", "revision")):
        if not getattr(s, field):
            yield Finding("warning" if field != "customer" else "note", f"no-{field}", f"The project has no {words}")
    bare = [sheet for sheet in project.sheets_in_order() if not sheet.title]
    if bare:
        numbers, ids = tuple(f"sheet {b.number}" for b in bare), tuple(b.id for b in bare)
        yield Finding("note", "no-title", _count(len(bare), "sheet", "has no title"), numbers, ids)
    blank = [sheet for sheet in project.sheets_in_order() if sheet.kind in DRAWN and _is_blank(project, sheet.id)]
    if blank:
        names, ids = tuple(f"sheet {b.number}" for b in blank), tuple(b.id for b in blank)
        yield Finding("note", "blank", _count(len(blank), "sheet", "has nothing drawn on it"), names, ids)
    if not project.sheets:
        yield Finding("error", "no-sheets", "There is no sheet yet: nothing can be issued")


def _is_blank(project: Project, sheet_id: str) -> bool:
    """Return whether nothing lies on a sheet but wires, such as the rails it began with."""
    return not any(index.has(sheet_id) for kind, index in project.on_sheet.items() if kind != "wire")


@dataclass(slots=True, frozen=True)
class _Misprint:
    """A text that does not come out on paper as it is: on which sheet, and what is wrong with it.

    Attributes:
        cut: it is cut short because there is no room for it where it stands.
        letters: those of it that no face has.
        lost: how many names the whole leaf leaves out; there is no text then.
        instead: it stands in place of what the sheet should show.
    """

    sheet: str
    words: str
    off_paper: bool = False
    cut: bool = False
    letters: str = ""
    lost: int = 0
    instead: bool = False

    @property
    def named(self) -> str:
        """It as people find it."""
        return f"“{self.words}” on sheet {self.sheet}"


def _of_papers(project: Project, fonts: Path) -> Iterator[Finding]:
    use_fonts(fonts)
    found = [(text, id) for id in whole_set(project) for text in _misprints(project, id)]
    off = [(text.named, id) for text, id in found if text.off_paper]
    if off:
        words = _count(len(off), "text", "is cut by the edge of the paper")
        yield Finding("error", "off-paper", words, tuple(n for n, _ in off), tuple(i for _, i in off))
    bare = [(f"sheet {text.sheet}: {text.words}", id) for text, id in found if text.instead]
    if bare:
        words = _count(len(bare), "sheet", "has nothing to show")
        yield Finding("error", "bare", words, tuple(n for n, _ in bare), tuple(i for _, i in bare))
    short = [(text, id) for text, id in found if text.cut]
    typed = _typed_so(project) if short else []
    cut = [(text.named, id) for text, id in short if not any(own.endswith(text.words) for own in typed)]
    if cut:
        words = _count(len(cut), "text", "is cut short where it stands")
        yield Finding("warning", "cut-short", words, tuple(n for n, _ in cut), tuple(i for _, i in cut))
    lost = [(text, id) for text, id in found if text.lost]
    if lost:
        words = _count(sum(text.lost for text, _ in lost), "name", "has no room at the scale of the sheet")
        names = tuple(f"{counted(text.lost, 'name')} on sheet {text.sheet}" for text, _ in lost)
        yield Finding("warning", "no-room", words, names, tuple(id for _, id in lost))
    strange = {letter: id for text, id in reversed(found) for letter in text.letters}
    if strange:
        names = tuple(f"{c} (U+{ord(c):04X})" for c in sorted(strange))
        words = _count(len(strange), "letter", "is in no face and printed as its code")
        yield Finding("warning", "letters", words, names, tuple(strange[c] for c in sorted(strange)))


@derived
def _misprints(project: Project, id: str) -> list[_Misprint]:
    """Return the texts of a sheet or page that cannot be printed as they are."""
    found = []
    for leaf in leaves_of(project, id):
        number = leaf.sheet.number if leaf.sheet else ""
        if leaf.lost:
            found.append(_Misprint(number, "", lost=leaf.lost))
        if said := leaf.items.get("said"):
            words = " ".join(p.words for p in said.prims if isinstance(p, Text))
            found.append(_Misprint(number, words, instead=True))
        for prim in (p for item in leaf.items.values() for p in item.placed() if isinstance(p, Text)):
            letters = "" if prim.words.isascii() else _strange(prim.words)
            outside, cut = _off(leaf, prim), prim.words.endswith("…")
            if outside or cut or letters:
                found.append(_Misprint(number, prim.words, outside, cut, letters))
    return found


def _typed_so(project: Project) -> list[str]:
    """Return what people have typed that ends as a text does which is cut short."""
    records = [record for _, record in project.entities()]
    texts = (getattr(record, name, "") for record in records for name in TYPED)
    return [words for words in texts if words.endswith("…")]


def _strange(words: str) -> str:
    """Return the letters of a text that are printed as their code, because no face has them."""
    return "".join(c for c in words if not c.isascii() and any(p == f"[U+{ord(c):04X}]" for _, p in runs(c, "sans")))


def _off(leaf: Scene, prim: Text) -> bool:
    """Whether a text goes beyond the paper."""
    left, top, right, bottom = text_box(prim)
    edge = FRAME_MM / 4
    return left < edge or top < edge or right > leaf.width - edge or bottom > leaf.height - edge
