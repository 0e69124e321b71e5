"""Pictures and data sheets of parts over HTTP."""

from __future__ import annotations

from django.http import HttpRequest, HttpResponse
from ninja import File, Router
from ninja.files import UploadedFile

from jolly_core.model import GoneError

from .filing import keep_file
from .models import LibraryFile

router = Router(tags=["files of parts"])


@router.post("/files", response=str)
def put_file(request: HttpRequest, file: File[UploadedFile]) -> str:
    """Keep a picture or data sheet and give the name under which parts may have it."""
    return keep_file(file.name or "", file.read())


@router.get("/files/{name}")
def get_file(request: HttpRequest, name: str) -> HttpResponse:
    """Give a picture or data sheet; what is in it cannot run."""
    row = LibraryFile.objects.filter(pk=name).first()
    if row is None:
        raise GoneError("This file is not in the library.", ids=(name,))
    response = HttpResponse(bytes(row.data), content_type=row.media_type)
    shown = "inline" if row.media_type.startswith("image/") else "attachment"
    response.headers["Content-Disposition"] = f'{shown}; filename="{row.pk}"'
    return inert(response)


def inert(response: HttpResponse) -> HttpResponse:
    """Return a response from which nothing can run, whatever is in it."""
    response.headers["Content-Security-Policy"] = "default-src 'none'; style-src 'unsafe-inline'; sandbox"
    response.headers["X-Content-Type-Options"] = "nosniff"
    return response
