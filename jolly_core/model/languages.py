"""A project in another language: the same project, with the texts that are said in it in place of those of the house.

Whatever is made of a project, a drawing, a list or a pack, is made in the language by making it of this project.
"""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass, field, replace
from typing import Any

from .changes import ChangeSet, Entity
from .entities.structure import SETTINGS_ID
from .errors import RuleError
from .fields import MAX_TEXT, Longest, Said
from .project import Project
from .registry import KINDS

# For each kind its fields with texts that are said in every language of the project.
SAID = {
    name: fields
    for name, spec in KINDS.items()
    if (fields := tuple(f.name for f in spec.fields.values() if f.mark(Said) is not None))
}


@dataclass(frozen=True, slots=True)
class SaidText:
    """A text of the project that is to be said in its languages.

    Attributes:
        words: the text as it stands in the project.
        where: kind and id of everything that says it, in the order of kinds and ids.
        said: what it is in other languages, by their code.
    """

    words: str
    where: tuple[tuple[str, str], ...]
    said: dict[str, str]


def said_fields(kind: str, record: Entity) -> tuple[str, ...]:
    """Return the fields of a record with texts that are said in every language; a table's text is a key."""
    return () if kind == "figure" and record.kind == "table" else SAID.get(kind, ())


def said_texts(project: Project) -> list[SaidText]:
    """Return all texts of a project that are said in its languages, by the alphabet; those without a letter are not."""
    where: defaultdict[str, list[tuple[str, str]]] = defaultdict(list)
    for kind in SAID:
        table = project.tables[kind]
        for id in sorted(table):
            for words in dict.fromkeys(getattr(table[id], name) for name in said_fields(kind, table[id])):
                if any(map(str.isalpha, words)):
                    where[words].append((kind, id))
    return [
        SaidText(words, tuple(where[words]), {w.language: w.said for w in wordings_of(project, words)})
        for words in sorted(where, key=lambda words: (words.casefold(), words))
    ]


def wordings_of(project: Project, words: str) -> list[Any]:
    """Return what a text is in other languages, in the order of ids."""
    return [project.wordings[id] for id in sorted(project.index("wordings_of").get(words))]


def unsaid(project: Project, language: str) -> list[SaidText]:
    """Return the texts of a project that nobody said in a language yet."""
    return [t for t in said_texts(project) if not t.said.get(language, "").strip()]


@dataclass(slots=True)
class _Twin:
    """A project in a language, as far as it follows the other.

    Attributes:
        project: with the texts in that language.
        sources: for each kind and id the record of the other project that its own was made of.
        said: what each text is in the language.
        stamp: of the other project when it last followed.
    """

    project: Project = field(default_factory=Project)
    sources: dict[str, dict[str, Entity]] = field(default_factory=lambda: defaultdict(dict))
    said: dict[str, str] = field(default_factory=dict)
    stamp: int = -1


def in_language(project: Project, language: str) -> Project:
    """Return a project with its texts in a language; what nobody said in it stays as it is.

    It is kept with the project and follows it: what was worked out of it before is worked out again only where
    something has changed. It is only to be read. For "" it is the project itself.

    Raises:
        RuleError: the project is not in that language.
    """
    if not language:
        return project
    if language not in project.settings.languages:
        known = ", ".join(project.settings.languages) or "none but its own"
        raise RuleError(f"The project is not in the language “{language}”. It has {known}.", field="language")
    twins: dict[str, _Twin] = project.kept.setdefault("languages", {})
    twin = twins.setdefault(language, _Twin())
    if twin.stamp != project.stamp:
        _follow(twin, project, language)
        twin.stamp = project.stamp
    return twin.project


def _follow(twin: _Twin, project: Project, language: str) -> None:
    said = {w.words: w.said for w in project.wordings.values() if w.language == language and w.said.strip()}
    other = {words for words in said.keys() | twin.said.keys() if said.get(words) != twin.said.get(words)}
    changes = ChangeSet()
    for kind, table in project.tables.items():
        mine, sources = twin.project.tables[kind], twin.sources[kind]
        for id, record in table.items():
            names = said_fields(kind, record)
            if sources.get(id) is record and not (other and any(getattr(record, n) in other for n in names)):
                continue
            sources[id] = record
            changes.record(kind, id, mine.get(id), _spoken(kind, record, names, said, language))
        for id in [id for id in mine if id not in table]:
            sources.pop(id, None)
            changes.record(kind, id, mine[id], None)
    twin.said = said
    twin.project.apply(changes)


def _spoken(kind: str, record: Entity, names: tuple[str, ...], said: dict[str, str], language: str) -> Entity:
    """Return a record as it is in a language; texts of parts are chosen by the settings."""
    if kind == "settings" and record.id == SETTINGS_ID:
        return replace(record, part_language=language)
    other = {n: said[words][: _longest(kind, n)] for n in names if (words := getattr(record, n)) in said}
    return replace(record, **other) if other else record


def _longest(kind: str, name: str) -> int:
    longest = KINDS[kind].fields[name].mark(Longest)
    return longest.most if longest is not None else MAX_TEXT
