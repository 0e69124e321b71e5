"""The languages of a project, and what its texts are in them."""

from __future__ import annotations

import re
from dataclasses import replace
from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from jolly_core.model import RuleError, said_texts
from jolly_core.model.entities.wording import Wording

from ..base.edit import LinedText, Payload, Work, edit

MOST_LANGUAGES = 4
CODE = re.compile(r"[a-z]{2,3}(-[A-Za-z]{2,4})?")  # of ISO 639, with a country or script where it matters


def _code(value: str) -> str:
    if not CODE.fullmatch(value):
        raise ValueError("A language is named by its code, for example de or pt-BR.")
    return value


LanguageCode = Annotated[str, AfterValidator(_code)]


class SetLanguages(Payload):
    """Say which languages the texts of the project are in beside that of the house; what was said in others goes."""

    kind: Literal["set-languages"] = "set-languages"
    languages: list[LanguageCode] = Field(max_length=MOST_LANGUAGES)


@edit(SetLanguages, {"languages": ["de"]})
def set_languages(work: Work, payload: SetLanguages) -> str:
    """Work out SetLanguages."""
    languages = tuple(dict.fromkeys(payload.languages))
    project = work.project
    for pack in project.packs.values():
        if pack.language and pack.language not in languages:
            words = f"The pack “{pack.name}” is in {pack.language}. Choose another language for it first."
            raise RuleError(words, field="languages", ids=(pack.id,))
    for id in [w.id for w in project.wordings.values() if w.language not in languages]:
        work.remove("wording", id)
    work.put("settings", replace(project.settings, languages=languages))
    return f"languages: {', '.join(languages) or 'none'}"


class SaidIn(Payload):
    """What a text is in a language, "" for not yet."""

    words: LinedText = Field(min_length=1)
    language: LanguageCode
    said: LinedText = ""


class WriteWordings(Payload):
    """Say what texts of the project are in its other languages, wherever they stand."""

    kind: Literal["write-wordings"] = "write-wordings"
    wordings: list[SaidIn] = Field(min_length=1, max_length=10_000)


@edit(WriteWordings, {"wordings": [{"words": "Auger run", "language": "de", "said": "Schnecke läuft"}]})
def write_wordings(work: Work, payload: WriteWordings) -> str:
    """Work out WriteWordings."""
    project = work.project
    known = {(w.words, w.language): w for w in project.wordings.values()}
    texts = {t.words for t in said_texts(project)} | {words for words, _ in known}
    for line in payload.wordings:
        if line.language not in project.settings.languages:
            words = f"The project is not in the language “{line.language}”. Add it first."
            raise RuleError(words, field="language")
        if line.words not in texts:
            raise RuleError(f"No text of the project is “{line.words}” any more.", field="words")
        before, said = known.get((line.words, line.language)), line.said.strip()
        if before is not None and not said:
            work.remove("wording", before.id)
            del known[line.words, line.language]
        elif said:
            made = replace(before, said=said) if before else Wording(work.ids.new(), line.words, line.language, said)
            known[line.words, line.language] = made
            work.put("wording", made)
    count = len(payload.wordings)
    return f"say {count} text{'s' if count > 1 else ''} in another language"
