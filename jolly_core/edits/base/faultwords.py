"""What is wrong with the fields of a request, in words for a person."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

# Kind of fault as the schema library names it -> what it says to a person, with the limit that was passed.
_PLAIN = {
    "missing": "is missing.",
    "string_too_short": "is empty. Type at least {min_length} character(s).",
    "string_too_long": "is longer than {max_length} characters.",
    "too_short": "is empty. Give at least {min_length}.",
    "too_long": "has more than {max_length} entries.",
    "greater_than_equal": "must be at least {ge}.",
    "less_than_equal": "must be at most {le}.",
    "int_parsing": "must be a whole number.",
    "int_type": "must be a whole number.",
    "float_parsing": "must be a number.",
    "float_type": "must be a number.",
    "string_type": "must be a text.",
    "bool_parsing": "must be true or false.",
    "literal_error": "must be one of {expected}.",
    "string_pattern_mismatch": "has characters that are not allowed here.",
    "extra_forbidden": "is not known here.",
    "finite_number": "must be a number.",
    "union_tag_not_found": "does not say of what kind it is.",
}


def fault_words(field: str, fault: Mapping[str, Any]) -> str:
    """Return a fault of a request in words for a person: the thing, what is wrong with it, what to do.

    Args:
        field: where it is, with points: the last name that is no number is said.
        fault: the fault as the schema library tells it, with its type, message and limits.

    Example:
        >>> fault_words("edit.rows.0.signal", {"type": "string_too_long", "ctx": {"max_length": 200}})
        '“signal” is longer than 200 characters.'
    """
    names = [p for p in field.split(".") if p and not p.isdecimal() and p not in ("edit", "edits")]
    name = (names[-1] if names else "request").removesuffix("_id").replace("_", " ")
    context = {k: v for k, v in (fault.get("ctx") or {}).items() if k != "error"}
    if fault.get("type") == "union_tag_invalid":
        return f"There is nothing of the kind “{context['tag']}” here."
    told = _PLAIN.get(fault.get("type", ""))
    if told is None:  # a rule of ours, which is in words already
        return str(fault["msg"]).removeprefix("Value error, ")
    try:
        return f"“{name}” {told.format(**context)}"
    except KeyError:
        return f"“{name}” cannot be read."
