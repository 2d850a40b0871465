"""Django settings. Everything that changes at run time lives in the var folder."""

from __future__ import annotations

import os
import pathlib
import secrets
from typing import get_args

from csp.constants import NONCE, NONE, SELF
from django.core.exceptions import ImproperlyConfigured
from django.utils.log import CallbackFilter

from stillthread.accounts.names import SignUp
from stillthread.shelf import MOST_PATHS, SHELF_NAME
from stillthread.web.assets import unhashed
from stillthread.web.logs import log_file
from stillthread.web.mail import mail_settings

ROOT = pathlib.Path(__file__).resolve().parents[2]
VAR = pathlib.Path(os.environ.get("STILL_VAR", ROOT / "var"))
VAR.mkdir(parents=True, exist_ok=True)
DIST = ROOT / "frontend" / "dist"


def _secret_key() -> str:
    """Read the secret key, made at first use and kept readable by the owner only."""
    path = VAR / "secret_key"
    if not path.exists():
        path.touch(mode=0o600)
        path.write_text(secrets.token_urlsafe(50), "utf-8")
    return path.read_text("utf-8")


def _private(path: pathlib.Path) -> pathlib.Path:
    """Keep a file readable by its owner only; what SQLite lays beside it takes its mode."""
    path.touch(mode=0o600)
    if path.stat().st_mode & 0o077:
        path.chmod(0o600)
    return path


SECRET_KEY = _secret_key()
DEBUG = False
DEMO = os.environ.get("STILL_DEMO") == "1"


def _listed(name: str) -> list[str]:
    return [one.strip() for one in os.environ.get(name, "").split(",") if one.strip()]


# How it is served: by which names people reach it, whether they do so over TLS, the address of the proxy that speaks it (whose
# word is then taken for who asks and how), and the address to listen at. The demo is this machine's alone.
HOSTS = [] if DEMO else _listed("STILL_HOSTS")
SECURE = not DEMO and os.environ.get("STILL_HTTPS") == "1"
PROXY = "" if DEMO else os.environ.get("STILL_PROXY", "")
LISTEN = "127.0.0.1" if DEMO else os.environ.get("STILL_LISTEN", "127.0.0.1")
ALLOWED_HOSTS = ["localhost", "127.0.0.1", *HOSTS]
CSRF_TRUSTED_ORIGINS = [f"https://{name}" for name in HOSTS] if SECURE else []
# Where the server may listen to boat instruments, and where it asks for the weather: the stand-ins, unless told otherwise.
FEED_HOSTS = ["127.0.0.1", "localhost", *_listed("STILL_FEED_HOSTS")]
WEATHER_URL = os.environ.get("STILL_WEATHER_URL", "http://127.0.0.1:8471/weather")

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "axes",
    "ninja",
    "stillthread.accounts",
    "stillthread.waters",
    "stillthread.flybox",
    "stillthread.outings",
    "stillthread.plans",
    "stillthread.demo",
    "stillthread.site",
]

MIDDLEWARE = [
    "stillthread.web.edge.edge",
    "django.middleware.security.SecurityMiddleware",
    "csp.middleware.CSPMiddleware",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    "axes.middleware.AxesMiddleware",
]

ROOT_URLCONF = "stillthread.site.urls"
WSGI_APPLICATION = "stillthread.site.wsgi.application"
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": _private(VAR / "still.sqlite3"),
        "CONN_MAX_AGE": 60,  # opening one with its settings costs more than a write
        "OPTIONS": {
            "transaction_mode": "IMMEDIATE",
            "timeout": 10,
            "init_command": "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA busy_timeout=10000;"
            " PRAGMA foreign_keys=ON;",
        },
        "TEST": {"NAME": VAR / f"test-{os.getpid()}.sqlite3"},
    }
}

# Paths of casts, kept apart from what matters: this file may be deleted at any time.
EXPOSURES_FILE: pathlib.Path | None = VAR / SHELF_NAME
EXPOSURES_KEPT = MOST_PATHS

AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "stillthread.accounts.backend.AnglerBackend"]
PASSWORD_HASHERS = [
    "django.contrib.auth.hashers.Argon2PasswordHasher",
    "django.contrib.auth.hashers.PBKDF2PasswordHasher",  # of accounts made before; changed at their next sign-in
]
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
    {"NAME": "django.contrib.auth.password_validation.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.NumericPasswordValidator"},
]
AXES_FAILURE_LIMIT = 10
AXES_COOLOFF_TIME = 0.25  # hours
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_LOCKOUT_CALLABLE = "stillthread.accounts.services.locked_out"
AXES_VERBOSE = False
AXES_WHITELIST_CALLABLE = "stillthread.accounts.throttle.not_locked"
SIGN_UP = os.environ.get("STILL_SIGN_UP", "open")
if SIGN_UP not in get_args(SignUp):
    raise ImproperlyConfigured(f"STILL_SIGN_UP is '{SIGN_UP}'; accepted: {', '.join(get_args(SignUp))}")
# From one address in an hour; a club house behind one address may raise the first.
MOST_SIGN_UPS, MOST_WRONG_PAIRS = int(os.environ.get("STILL_SIGN_UPS", "20")), 60
CACHES = {"default": {"BACKEND": "django.core.cache.backends.locmem.LocMemCache", "OPTIONS": {"MAX_ENTRIES": 20_000}}}

SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_AGE = 60 * 60 * 24 * 60
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = SECURE
CSRF_COOKIE_SAMESITE = "Lax"
SECURE_SSL_REDIRECT = SECURE
SECURE_REDIRECT_EXEMPT = [r"^api/health$"]  # asked from this machine
SECURE_HSTS_SECONDS = 31536000 if SECURE else 0
SILENCED_SYSTEM_CHECKS = [
    "security.W005",
    "security.W021",
]  # other names of the same domain are their owner's to speak for
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"

CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [NONE],
        "script-src": [SELF],
        "style-src": [SELF, NONCE],  # the dialog library injects a style element, with the page's nonce on it
        "img-src": [SELF, "data:", "blob:"],
        "font-src": [SELF],
        "connect-src": [SELF],
        "manifest-src": [SELF],
        "worker-src": [SELF],
        "base-uri": [SELF],
        "form-action": [SELF],
        "frame-ancestors": [NONE],
    }
}

LANGUAGE_CODE = "en-gb"
TIME_ZONE = "UTC"
USE_TZ = True
STATIC_URL = "/static/"
WHITENOISE_ROOT = DIST
WHITENOISE_INDEX_FILE = False
WHITENOISE_MAX_AGE = 31536000  # the build's file names carry a hash of what is in them
WHITENOISE_ADD_HEADERS_FUNCTION = unhashed
DATA_UPLOAD_MAX_MEMORY_SIZE = 3_500_000  # the largest file that is read, with room for what wraps it
FILE_UPLOAD_MAX_MEMORY_SIZE = 1_100_000

# With STILL_LOGS, a folder (below the var folder unless it is absolute), what is logged also goes there: a line of JSON each, five
# files of two megabytes in turn. No names, no addresses, no bodies: what somebody asked for is told by its path.
LOGS = os.environ.get("STILL_LOGS", "")
_TO = ["console", "file"] if LOGS else ["console"]
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"lines": {"()": "stillthread.web.logs.JsonLines"}},
    "filters": {
        # An outside service that does not answer is told to whoever asked; it is no fault of this server.
        "own": {"()": CallbackFilter, "callback": lambda record: getattr(record, "status_code", 0) != 502}
    },
    "handlers": {
        "console": {"class": "logging.StreamHandler", "filters": ["own"]},
        **({"file": log_file(VAR / LOGS)} if LOGS else {}),
    },
    "loggers": {
        "stillthread": {"handlers": _TO, "level": "INFO"},
        "django": {"handlers": _TO, "level": "ERROR"},
        "axes": {"handlers": _TO, "level": "CRITICAL", "propagate": False},  # it would name names
    },
}

# Who forgot a password is sent a code, where there is a server for mail.
MAIL = os.environ.get("STILL_MAIL", "")
if MAIL:
    _mail = mail_settings(MAIL)
    EMAIL_HOST, EMAIL_PORT = _mail.host, _mail.port
    EMAIL_HOST_USER, EMAIL_HOST_PASSWORD = _mail.user, _mail.password
    EMAIL_USE_SSL, EMAIL_USE_TLS = _mail.ssl, _mail.starttls
    EMAIL_TIMEOUT = 10
DEFAULT_FROM_EMAIL = os.environ.get("STILL_MAIL_FROM", f"stillthread@{HOSTS[0] if HOSTS else 'localhost'}")

TEST_RUNNER = "tests.runner.StillRunner"
