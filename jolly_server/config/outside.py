"""Asking services outside this process over loopback HTTP."""

from __future__ import annotations

import json
from http.client import HTTPException
from typing import Any
from urllib.error import HTTPError, URLError
from urllib.request import ProxyHandler, Request, build_opener

TIMEOUT_S = 3.0
LARGEST = 20_000_000
_open = build_opener(ProxyHandler({})).open


class Away(Exception):
    """The service does not answer, or not as it should."""


def ask(url: str, name: str, content: dict[str, Any] | None = None) -> bytes | None:
    """Return what a service answers to a request, None when it knows nothing of what was asked (404).

    Args:
        name: what the service is called in messages.
        content: sent as JSON by POST; without it the request is a GET.

    Raises:
        Away: it does not answer, or with an error.
    """
    body = None if content is None else json.dumps(content).encode()
    try:
        with _open(Request(url, data=body, headers={"Content-Type": "application/json"}), timeout=TIMEOUT_S) as answer:
            found: bytes = answer.read(LARGEST)
            return found
    except HTTPError as error:
        if error.code == 404:
            return None
        raise Away(f"{name} answered {error.code}.") from error
    except (URLError, OSError, HTTPException, ValueError) as error:
        raise Away(f"{name} does not answer.") from error


def ask_json(url: str, name: str, content: dict[str, Any] | None = None) -> dict[str, Any] | None:
    """Return the JSON object a service answers with, None for 404.

    Raises:
        Away: it does not answer, or with something else.
    """
    raw = ask(url, name, content)
    if raw is None:
        return None
    try:
        found = json.loads(raw)
    except ValueError as error:
        raise Away(f"{name} does not answer.") from error
    if not isinstance(found, dict):
        raise Away(f"{name} does not answer as it should.")
    return found
