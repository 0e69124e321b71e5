"""What no request may hold: characters that cannot be stored, and JSON nested beyond all use.

A person's own words never hold them; they come from broken programs and from those who try. They are refused before
anything is read, so that no part of the application has to think of them.
"""

from __future__ import annotations

import re
from collections.abc import Callable

from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponse, JsonResponse

DEEPEST = 60
_WORTH_COUNTING = 200  # brackets a body must have before its depth is counted
_UNSTORABLE = re.compile("[\0\ud800-\udfff]")
_ESCAPED = re.compile(rb"\\u(0000|[dD][89abAB][0-9a-fA-F]{2}|[dD][c-fC-F][0-9a-fA-F]{2})", re.ASCII)
_LOW = re.compile(rb"\\u[dD][c-fC-F][0-9a-fA-F]{2}", re.ASCII)
_BRACKET = re.compile(rb'"(?:[^"\\]|\\.)*"|[\[\]{}]', re.DOTALL)


def unstorable(text: str) -> bool:
    """Return whether a text holds a character that cannot be stored: NUL, or half of a pair of surrogates.

    Example:
        >>> unstorable("Kiln 2"), unstorable("a\\x00b"), unstorable("\\ud800")
        (False, True, True)
    """
    return _UNSTORABLE.search(text) is not None


def escaped_unstorable(body: bytes) -> bool:
    """Return whether a JSON text escapes such a character; whole pairs of surrogates are one character and right.

    Example:
        >>> escaped_unstorable(b'"\\\\ud83d\\\\ude00"'), escaped_unstorable(b'"\\\\ud83d"')
        (False, True)
    """
    at = 0
    while (found := _ESCAPED.search(body, at)) is not None:
        if found.start() and _backslashes(body, found.start()) % 2:
            at = found.start() + 2
            continue
        code = found[1].lower()
        if code[:2] in (b"d8", b"d9", b"da", b"db") and _LOW.match(body, found.end()):
            at = found.end() + 6
            continue
        return True
    return False


def _backslashes(body: bytes, before: int) -> int:
    count = 0
    while before - count > 0 and body[before - count - 1 : before - count] == b"\\":
        count += 1
    return count


def depth_of(body: bytes) -> int:
    """Return how deeply a JSON text is nested, looking no further than DEEPEST.

    Example:
        >>> depth_of(b'{"a": [1, "]["]}')
        2
    """
    depth = deepest = 0
    for found in _BRACKET.finditer(body):
        mark = found[0]
        if mark in (b"[", b"{"):
            depth += 1
            deepest = max(deepest, depth)
            if deepest > DEEPEST:
                break
        elif mark in (b"]", b"}"):
            depth -= 1
    return deepest


class Readable:
    """Refuse requests to the API that hold what cannot be stored or is nested too deeply, in words."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Answer the request, or say what is wrong with it."""
        problem = self._problem(request) if request.path.startswith("/api/") else ""
        if problem:
            body = {"code": "invalid", "message": f"{problem} Nothing was changed.", "field": "", "ids": []}
            return JsonResponse(body, status=400)
        return self.get_response(request)

    def _problem(self, request: HttpRequest) -> str:
        texts = [request.path, *request.GET, *(v for values in dict(request.GET.lists()).values() for v in values)]
        if any(unstorable(str(text)) for text in texts):
            return "The request holds a character that is none, such as a zero byte. Type the words again."
        if "json" not in (request.content_type or ""):
            return ""
        try:
            body = request.body
        except RequestDataTooBig:
            return ""  # told where it is read
        if b"\\u" in body and escaped_unstorable(body):
            return "The text holds a character that is none, such as half of one. Type it again."
        if body.count(b"[") + body.count(b"{") > _WORTH_COUNTING and depth_of(body) > DEEPEST:
            return f"The request is nested more than {DEEPEST} levels deep."
        return ""
