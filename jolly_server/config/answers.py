"""Answers as JSON, written quickly: large ones are what one waits for after an edit."""

from __future__ import annotations

from typing import Any

from django.http import HttpRequest, HttpResponse
from ninja.renderers import BaseRenderer
from pydantic_core import to_json


class QuickJson(BaseRenderer):
    """JSON written by the compiled serializer that validates requests already."""

    media_type = "application/json"

    def render(self, request: HttpRequest, data: Any, *, response_status: int) -> bytes:
        """Return an answer's value as JSON."""
        return to_json(data)


def written(value: Any) -> HttpResponse:
    """Return a large value as JSON at once.

    Its type is that of the view's own declaration, which the type checker holds it to: to walk it twice more, to
    validate it and to copy it, would take longer than to work it out.
    """
    return HttpResponse(to_json(value), content_type="application/json; charset=utf-8")
