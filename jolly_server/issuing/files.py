"""Files as answers: their type, and a name that any system takes."""

from django.http import HttpResponse

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
    safe = "".join(c if c.isalnum() or c in "-._" else "-" for c in name)
    response.headers["Content-Disposition"] = f'attachment; filename="{safe}"'
    return response
