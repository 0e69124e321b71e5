"""Signing in and out."""

from django.conf import settings
from django.contrib.auth import authenticate, get_user_model, login, logout
from django.http import HttpRequest
from django.views.decorators.csrf import csrf_protect
from ninja import Router, Schema
from ninja.decorators import decorate_view
from ninja.errors import HttpError

router = Router(tags=["accounts"])
DEMO_USER = "anna"


class Me(Schema):
    """Who is signed in, and whether the demo button is offered."""

    name: str
    full_name: str
    demo: bool


class SignIn(Schema):
    """Name and password."""

    name: str
    password: str


def demo_offered(request: HttpRequest) -> bool:
    """Return whether this server was started with the demo and is asked from the same machine."""
    return bool(settings.JOLLY.demo) and request.META.get("REMOTE_ADDR") in ("127.0.0.1", "::1")


def _me(request: HttpRequest) -> Me:
    user = request.user
    name = user.get_username() if user.is_authenticated else ""
    full = user.get_full_name() if user.is_authenticated else ""
    return Me(name=name, full_name=full or name, demo=demo_offered(request))


@router.get("/me", response=Me, auth=None)
def me(request: HttpRequest) -> Me:
    """Say who is signed in; an empty name means nobody."""
    return _me(request)


@router.post("/sign-in", response=Me, auth=None)
@decorate_view(csrf_protect)
def sign_in(request: HttpRequest, payload: SignIn) -> Me:
    """Sign in with name and password."""
    user = authenticate(request, username=payload.name, password=payload.password)
    if user is None:
        raise HttpError(403, "Name or password is wrong.")
    login(request, user)
    return _me(request)


@router.post("/demo-sign-in", response=Me, auth=None)
@decorate_view(csrf_protect)
def demo_sign_in(request: HttpRequest) -> Me:
    """Sign in as the demo's designer; only with the demo, and only from the same machine."""
    if not demo_offered(request):
        raise HttpError(403, "The demo sign-in is not offered here.")
    user = get_user_model().objects.filter(username=DEMO_USER).first()
    if user is None:
        raise HttpError(403, "The demo is not loaded. Run manage.py seed_demo.")
    login(request, user, backend="django.contrib.auth.backends.ModelBackend")
    return _me(request)


@router.post("/sign-out", response=Me)
def sign_out(request: HttpRequest) -> Me:
    """Sign out."""
    logout(request)
    return _me(request)
