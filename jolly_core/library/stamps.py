"""Stamps that come with the application, as data, and what a stamp of a library is to an edit."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any

from .added import added


@dataclass(slots=True, frozen=True)
class KeptStamp:
    """A stamp outside a project; `body` as in jolly_core.model.Stamp."""

    id: str
    name: str
    text: str
    body: str


@cache
def built_in_stamps() -> dict[str, KeptStamp]:
    """Return the stamps that come with the application, by id, in the order of their names."""
    found = {}
    folder = files("jolly_core.library").joinpath("data", "stamps")
    for path in sorted(folder.iterdir(), key=lambda p: p.name):
        raw = json.loads(path.read_text(encoding="utf-8"))
        id = path.name.removesuffix(".json")
        found[id] = _read(id, raw)
    return found | {record["id"]: _read(record["id"], record) for _, record in added.stamps}


added.clear.append(built_in_stamps.cache_clear)


def _read(id: str, raw: Mapping[str, Any]) -> KeptStamp:
    return KeptStamp(id, raw["name"], raw["text"], json.dumps(raw["body"], ensure_ascii=False))
