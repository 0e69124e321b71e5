"""Columns for the tuples and dicts of entities, read fast."""

import json
from functools import lru_cache
from typing import Any

from django.db import models


@lru_cache(maxsize=4096)
def _ints(text: str) -> tuple[int, ...]:
    return tuple(int(v) for v in text.split(",")) if text else ()


class IntsField(models.CharField):  # type: ignore[type-arg]  # the stubs' parameters are inferred
    """A tuple of whole numbers, stored as "1,2,3"."""

    def from_db_value(self, value: str | None, expression: Any, connection: Any) -> tuple[int, ...]:
        """Return the tuple of a stored text."""
        return _ints(value or "")

    def get_prep_value(self, value: Any) -> Any:
        """Return the text of a tuple."""
        return value if isinstance(value, str) else ",".join(str(v) for v in value)


class UnitsField(models.TextField):  # type: ignore[type-arg]  # the stubs' parameters are inferred
    """The units of a part, stored as JSON."""

    def from_db_value(self, value: str | None, expression: Any, connection: Any) -> tuple[Any, ...]:
        """Return the units of a stored text."""
        return tuple((kind, tuple(pins)) for kind, pins in json.loads(value or "[]"))

    def get_prep_value(self, value: Any) -> Any:
        """Return the text of units."""
        return value if isinstance(value, str) else json.dumps(value)


class NamesField(models.TextField):  # type: ignore[type-arg]  # the stubs' parameters are inferred
    """A tuple of texts, stored as JSON."""

    _pyi_private_set_type: Any  # what the stubs take such a field to be set to

    def from_db_value(self, value: str | None, expression: Any, connection: Any) -> tuple[str, ...]:
        """Return the tuple of a stored text."""
        return tuple(json.loads(value)) if value and value != "[]" else ()

    def get_prep_value(self, value: Any) -> Any:
        """Return the text of a tuple."""
        return value if isinstance(value, str) else json.dumps(value, ensure_ascii=False)


class FloatsField(NamesField):
    """A tuple of numbers, stored as JSON."""


class FactsField(NamesField):
    """A tuple of dicts of texts, stored as JSON."""


class TextsField(models.TextField):  # type: ignore[type-arg]  # the stubs' parameters are inferred
    """A dict of texts, stored as JSON."""

    _pyi_private_set_type: Any  # what the stubs take such a field to be set to

    def from_db_value(self, value: str | None, expression: Any, connection: Any) -> Any:
        """Return the dict of a stored text; most are empty, and need no reading."""
        return json.loads(value) if value and value != "{}" else {}

    def get_prep_value(self, value: Any) -> Any:
        """Return the text of a dict."""
        return value if isinstance(value, str) else json.dumps(value, ensure_ascii=False)
