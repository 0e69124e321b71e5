"""Files as answers: their type, and a name that any system takes."""

from django.http import HttpResponse
from django.utils.http import content_disposition_header

from jolly_core.exchange import file_stem

TYPES = {
    "csv": "text/csv; charset=utf-8",
    "json": "application/json",
    "xlsx": "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet",
    "pdf": "application/pdf",
    "zip": "application/zip",
}


def file_answer(content: bytes, type: str, name: str) -> HttpResponse:
    """Return a file to be downloaded under a name."""
    response = HttpResponse(content, content_type=type)
    response.headers["Content-Disposition"] = str(content_disposition_header(True, plain_name(name)))
    return response


def plain_name(name: str) -> str:
    """Return a file's name, its ending behind the last dot, without what some system does not take."""
    stem, _, ending = name.rpartition(".")
    return f"{file_stem(stem)}.{ending}"


def pack_zip_name(number: str, revision: str, pack: str) -> str:
    """Return what the zip of a pack of a project is called, before it is made plain."""
    return f"{number}-{revision}-{pack}.zip"
