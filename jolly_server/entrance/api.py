"""The API: its routers, and the one place where errors become responses."""

from typing import Any

from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.security import django_auth

from jolly_core.edits import fault_words
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
from jolly_server.projects.faults_api import router as faults
from jolly_server.projects.journal_api import router as journal
from jolly_server.projects.languages_api import router as languages
from jolly_server.projects.list_api import router as project_list
from jolly_server.projects.parts_api import router as project_parts
from jolly_server.projects.partuses_api import router as part_uses
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
api.add_router("/projects", languages)
api.add_router("/projects", faults)
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
api.add_router("/library", part_uses)
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


@api.exception_handler(ValidationError)
def invalid(request: HttpRequest, error: Any) -> HttpResponse:
    """Answer a request that is not shaped as the schema says."""
    first = error.errors[0] if error.errors else {"msg": "The request cannot be read.", "loc": ()}
    field = ".".join(str(p) for p in first["loc"] if p not in ("body", "query", "path", "payload"))
    return _answer(request, 422, "invalid", fault_words(field, first), field=field)


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
