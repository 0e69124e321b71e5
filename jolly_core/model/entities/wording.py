"""What texts of the project are in other languages."""

from __future__ import annotations

from dataclasses import dataclass

from ..fields import Id, LinedText
from ..kinds import Keyed, kind
from .structure import Language


@kind("wording", since=15, seen="nowhere", indexes=(Keyed("wordings_of", "words"),))
@dataclass(slots=True)
class Wording:
    """What a text is in a language: wherever these words stand alone in a field that is said, these stand instead.

    Attributes:
        words: the text as it stands in the project.
        language: code of the language, one of the project's.
        said: the text in that language.
    """

    id: Id
    words: LinedText
    language: Language
    said: LinedText
