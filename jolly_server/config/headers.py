"""Response headers that hold for every page."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

POLICY = (
    "default-src 'self'; img-src 'self' data:; style-src 'self' 'unsafe-inline'; font-src 'self' data:; "
    "connect-src 'self'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
)


class ContentSecurityPolicy:
    """Allow nothing from outside; inline styles only, which the component library needs."""

    def __init__(self, get_response: Callable[[HttpRequest], HttpResponse]) -> None:
        self.get_response = get_response

    def __call__(self, request: HttpRequest) -> HttpResponse:
        """Add the policy to the response."""
        response = self.get_response(request)
        response.headers.setdefault("Content-Security-Policy", POLICY)
        return response
