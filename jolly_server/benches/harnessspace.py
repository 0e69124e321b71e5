"""Asking the space model of the mechanical colleague where a harness lies."""

from __future__ import annotations

import json
from typing import Any

from pydantic import TypeAdapter, ValidationError
from typing_extensions import TypedDict

from jolly_core.edits.harness.spacepaths import SpaceNode, SpacePath
from jolly_core.exchange import SPACE_FORMAT
from jolly_core.model import RuleError
from jolly_server.config.outside import Away, ask_json

NAME = "The space model"


class SpaceSaid(TypedDict):
    """What a space model says of a harness, as the edit `take-in-space` takes it in."""

    nodes: list[SpaceNode]
    paths: list[SpacePath]


_SAID: TypeAdapter[SpaceSaid] = TypeAdapter(SpaceSaid)


def space_said(address: str, content: str) -> SpaceSaid:
    """Return what the space model at an address says of a harness.

    Raises:
        RuleError: it does not answer, or with something else.
    """
    try:
        found: dict[str, Any] | None = ask_json(f"{address}/harness", NAME, json.loads(content))
    except Away as error:
        raise RuleError(f"{error} Look whether it runs at {address}, then try again.", field="space") from error
    if found is None or found.get("format") != SPACE_FORMAT:
        raise RuleError(f"Something else answers at {address}. Look whether the space model runs there.", field="space")
    try:
        return _SAID.validate_python({"nodes": found.get("nodes", []), "paths": found.get("paths", [])})
    except ValidationError as error:
        where = ".".join(str(part) for part in error.errors()[0]["loc"])
        raise RuleError(f"The space model says something at {where} that cannot be read.", field="space") from error
