"""Signing in and out, and the person's own password."""

from django.conf import settings
from django.contrib.auth import authenticate, get_user_model, login, logout, update_session_auth_hash
from django.contrib.auth.models import AbstractBaseUser
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.http import HttpRequest
from django.views.decorators.csrf import csrf_protect
from ninja import Router, Schema
from ninja.decorators import decorate_view
from ninja.errors import HttpError

from .limits import waiting_s

router = Router(tags=["accounts"])
DEMO_USER = "anna"
DEMO_PEOPLE = (DEMO_USER, "jory", "vera")


class Me(Schema):
    """Who is signed in, and whether the demo button is offered."""

    name: str
    full_name: str
    demo: bool
    staff: bool = False
    has_password: bool = False


class NewPassword(Schema):
    """The password there is and the one that is to be."""

    old: str
    new: str


class DemoPerson(Schema):
    """Which of the demo's people to be."""

    name: str = DEMO_USER


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
    return Me(
        name=name,
        full_name=full or name,
        demo=demo_offered(request),
        staff=bool(getattr(user, "is_staff", False)),
        has_password=isinstance(user, AbstractBaseUser) and user.has_usable_password(),
    )


@router.get("/me", response=Me, auth=None)
def me(request: HttpRequest) -> Me:
    """Say who is signed in; an empty name means nobody."""
    return _me(request)


@router.post("/sign-in", response=Me, auth=None)
@decorate_view(csrf_protect)
def sign_in(request: HttpRequest, payload: SignIn) -> Me:
    """Sign in with name and password; after some wrong tries the name has to wait."""
    wait = waiting_s(payload.name)
    if wait:
        raise HttpError(429, f"Too many tries. Wait {-(-wait // 60)} min, then try again.")
    user = authenticate(request, username=payload.name, password=payload.password)
    if user is None:
        raise HttpError(403, "Name or password is wrong.")
    login(request, user)
    return _me(request)


@router.post("/demo-sign-in", response=Me, auth=None)
@decorate_view(csrf_protect)
def demo_sign_in(request: HttpRequest, payload: DemoPerson | None = None) -> Me:
    """Sign in as one of the demo's people; only with the demo, and only from the same machine."""
    if not demo_offered(request):
        raise HttpError(403, "The demo sign-in is not offered here.")
    wanted = payload.name if payload is not None else DEMO_USER
    user = get_user_model().objects.filter(username=wanted if wanted in DEMO_PEOPLE else DEMO_USER).first()
    if user is None:
        raise HttpError(403, "The demo is not loaded. Run manage.py seed_demo.")
    login(request, user, backend="jolly_server.accounts.limits.PatientBackend")
    return _me(request)


@router.post("/password", response=Me)
def change_password(request: HttpRequest, payload: NewPassword) -> Me:
    """Change the person's own password; they stay signed in here, and are signed out elsewhere."""
    user = request.user
    if not isinstance(user, AbstractBaseUser) or not user.has_usable_password():
        raise HttpError(422, "This account has no password to change.")
    wait = waiting_s(user.get_username())
    if wait:
        raise HttpError(429, f"Too many tries. Wait {-(-wait // 60)} min, then try again.")
    if not authenticate(request, username=user.get_username(), password=payload.old):
        raise HttpError(422, "The password there is now is another one.")
    try:
        validate_password(payload.new, user)
    except ValidationError as error:
        raise HttpError(422, " ".join(error.messages)) from None
    user.set_password(payload.new)
    user.save(update_fields=["password"])
    update_session_auth_hash(request, user)
    return _me(request)


@router.post("/sign-out", response=Me)
def sign_out(request: HttpRequest) -> Me:
    """Sign out."""
    logout(request)
    return _me(request)
