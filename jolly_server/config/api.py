"""The API: its routers, and the one place where errors become responses."""

from typing import Any

from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.security import django_auth

from jolly_core.model import CoreError
from jolly_server.accounts.api import router as accounts
from jolly_server.benches.api import router as benches
from jolly_server.config.answers import QuickJson
from jolly_server.issuing.api import router as issuing
from jolly_server.issuing.lists_api import router as lists
from jolly_server.issuing.packs_api import router as packs
from jolly_server.issuing.revisions_api import router as revisions
from jolly_server.library.api import router as library
from jolly_server.library.catalogue_api import router as catalogue
from jolly_server.library.exchange_api import router as library_files
from jolly_server.library.files_api import router as part_files
from jolly_server.library.parts_api import router as library_parts
from jolly_server.library.symbols_api import router as symbols
from jolly_server.making.api import router as making
from jolly_server.projects.api import router as projects
from jolly_server.projects.drawing_api import router as drawing
from jolly_server.projects.editing_api import router as editing
from jolly_server.projects.journal_api import router as journal
from jolly_server.projects.list_api import router as project_list
from jolly_server.projects.parts_api import router as project_parts
from jolly_server.projects.people_api import router as people
from jolly_server.projects.titling_api import router as titling

api = NinjaAPI(title="Jolly Spool", version="1", auth=django_auth, docs_url=None, renderer=QuickJson())
# Django tries routes in order: what is asked again and again while people draw comes first.
api.add_router("/projects", editing)
api.add_router("", accounts)
api.add_router("", people)
api.add_router("/projects", project_list)
api.add_router("/projects", projects)
api.add_router("/projects", drawing)
api.add_router("/projects", project_parts)
api.add_router("/projects", journal)
api.add_router("/projects", titling)
api.add_router("/projects", issuing)
api.add_router("/projects", lists)
api.add_router("/projects", packs)
api.add_router("/projects", revisions)
api.add_router("/projects", benches)
api.add_router("/projects", making)
api.add_router("/library", library)
api.add_router("/library", library_parts)
api.add_router("/library", library_files)
api.add_router("/library", part_files)
api.add_router("/library", symbols)
api.add_router("/library/catalogue", catalogue)

STATUS = {"refused": 422, "gone": 404, "conflict": 409, "bad-file": 400}


def _answer(request: HttpRequest, status: int, code: str, message: str, **more: Any) -> HttpResponse:
    body = {"code": code, "message": message, "field": "", "ids": [], **more}
    return api.create_response(request, body, status=status)


@api.exception_handler(CoreError)
def core_error(request: HttpRequest, error: Any) -> HttpResponse:
    """Answer a refusal of the core."""
    return _answer(request, STATUS[error.status], error.status, error.message, field=error.field, ids=list(error.ids))


# Kind of fault as the schema library names it -> what it says to a person, with the limit that was passed.
PLAIN = {
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


def said_plainly(field: str, fault: dict[str, Any]) -> str:
    """Return a fault of a request in words for a person: the thing, what is wrong with it, what to do."""
    names = [p for p in field.split(".") if p and not p.isdecimal() and p not in ("edit", "edits")]
    name = (names[-1] if names else "request").removesuffix("_id").replace("_", " ")
    context = {k: v for k, v in (fault.get("ctx") or {}).items() if k != "error"}
    if fault.get("type") == "union_tag_invalid":
        return f"There is nothing of the kind “{context['tag']}” here."
    told = PLAIN.get(fault.get("type", ""))
    if told is None:  # a rule of ours, which is in words already
        return str(fault["msg"]).removeprefix("Value error, ")
    try:
        return f"“{name}” {told.format(**context)}"
    except KeyError:
        return f"“{name}” cannot be read."


@api.exception_handler(ValidationError)
def invalid(request: HttpRequest, error: Any) -> HttpResponse:
    """Answer a request that is not shaped as the schema says."""
    first = error.errors[0] if error.errors else {"msg": "The request cannot be read.", "loc": ()}
    field = ".".join(str(p) for p in first["loc"] if p not in ("body", "query", "path", "payload"))
    return _answer(request, 422, "invalid", said_plainly(field, first), field=field)


@api.exception_handler(AuthenticationError)
def stranger(request: HttpRequest, error: Any) -> HttpResponse:
    """Answer somebody who is not signed in."""
    return _answer(request, 401, "sign-in", "Please sign in.")


@api.exception_handler(RequestDataTooBig)
def too_big(request: HttpRequest, error: Any) -> HttpResponse:
    """Answer a request body that is larger than any edit."""
    return _answer(request, 413, "too-big", "The request is too large. Nothing was changed.")


@api.exception_handler(HttpError)
def plain(request: HttpRequest, error: Any) -> HttpResponse:
    """Answer a refusal of the server itself."""
    return _answer(request, error.status_code, "refused", str(error))
