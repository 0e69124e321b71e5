"""Routes: the API, the administrator pages, and the front end for everything else."""

from django.conf import settings
from django.contrib import admin
from django.http import HttpRequest, HttpResponse
from django.urls import path, re_path
from django.views.decorators.csrf import ensure_csrf_cookie

from .api import api

admin.site.site_header = admin.site.site_title = "Jolly Spool accounts"
admin.site.index_title = "Accounts"


@ensure_csrf_cookie
def front_end(request: HttpRequest) -> HttpResponse:
    """Return the page of the front end, which makes its own routes."""
    page = settings.JOLLY.front_end / "index.html"
    if not page.is_file():
        return HttpResponse("The front end is not built yet. Run ./start.", status=503, content_type="text/plain")
    return HttpResponse(page.read_bytes(), content_type="text/html; charset=utf-8")


urlpatterns = [
    path("api/", api.urls),
    path("admin/", admin.site.urls),
    re_path(r"^(?!api/|admin/|assets/|static/).*$", front_end),
]
