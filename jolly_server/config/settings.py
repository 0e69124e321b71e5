"""Django settings."""

from jolly_server.config.options import BASE, DATABASE, read_options, secret_key

JOLLY = read_options()
BASE_DIR = BASE
SECRET_KEY = secret_key(JOLLY.data)
DEBUG = JOLLY.debug
ALLOWED_HOSTS = ["127.0.0.1", "localhost", "[::1]", "testserver"]

INSTALLED_APPS = [
    "django.contrib.admin",
    "django.contrib.messages",
    "django.contrib.staticfiles",
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "ninja",
    "jolly_server.accounts",
    "jolly_server.projects",
    "jolly_server.library",
    "jolly_server.issuing",
    "jolly_server.benches",
    "jolly_server.making",
    "jolly_server.demo",
]
MIDDLEWARE = [
    "django.middleware.security.SecurityMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "jolly_server.config.headers.ContentSecurityPolicy",
    "jolly_server.config.requests.Readable",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.contrib.messages.middleware.MessageMiddleware",
]
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "APP_DIRS": True,
        "OPTIONS": {
            "context_processors": [
                "django.template.context_processors.request",
                "django.contrib.auth.context_processors.auth",
                "django.contrib.messages.context_processors.messages",
            ]
        },
    }
]
AUTHENTICATION_BACKENDS = ["jolly_server.accounts.limits.PatientBackend"]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"django.contrib.auth.password_validation.{name}"}
    for name in ("UserAttributeSimilarityValidator", "MinimumLengthValidator", "CommonPasswordValidator")
]
ROOT_URLCONF = "jolly_server.entrance.urls"
WSGI_APPLICATION = "jolly_server.entrance.wsgi.application"
DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": JOLLY.data / DATABASE,
        "CONN_MAX_AGE": None,
        # A file, so that the threads of a live test server have connections of their own.
        "TEST": {"NAME": JOLLY.data / "test.sqlite3"},
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 20,
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON;",
        },
    }
}
CACHES = {"default": {"BACKEND": "django.core.cache.backends.locmem.LocMemCache"}}
SESSION_ENGINE = "django.contrib.sessions.backends.cached_db"
SESSION_COOKIE_NAME = "spool_session"
CSRF_COOKIE_NAME = "spool_csrf"
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"
TEST_RUNNER = "jolly_server.testing.runner.Runner"
DATA_UPLOAD_MAX_MEMORY_SIZE = JOLLY.upload_limit_bytes
FILE_UPLOAD_MAX_MEMORY_SIZE = JOLLY.upload_limit_bytes
USE_TZ = True
TIME_ZONE = "UTC"
STATIC_URL = "/static/"
WHITENOISE_ROOT = JOLLY.front_end if JOLLY.front_end.is_dir() else None
WHITENOISE_INDEX_FILE = False
# Vite puts a hash of what is in it into the name of each of these: kept for good by the browser.
WHITENOISE_IMMUTABLE_FILE_TEST = r"^/assets/.+-[\w-]{8}\.\w+$"
WHITENOISE_USE_FINDERS = True  # the administrator pages bring their own styles
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "handlers": {"console": {"class": "logging.StreamHandler"}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
