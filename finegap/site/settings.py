"""Settings. A works runs this on its own machine; nothing here reaches another host."""

import datetime as dt
import os
from ipaddress import ip_network
from pathlib import Path

from csp.constants import NONE, SELF, UNSAFE_INLINE
from django.core.exceptions import ImproperlyConfigured

from finegap.core import VERSION
from finegap.site.folder import secret_key

BASE_DIR = Path(__file__).resolve().parents[2]
_SHIPPED = BASE_DIR / "finegap" / "shipped"
"""What an installed package brings; a checkout has it elsewhere."""

FRONT_END = _SHIPPED / "frontend" if _SHIPPED.exists() else BASE_DIR / "frontend" / "dist"
FORMATS = _SHIPPED / "formats" if _SHIPPED.exists() else BASE_DIR / "docs" / "formats"
DEMO_FOLDER = _SHIPPED / "demo" if _SHIPPED.exists() else BASE_DIR / "demo"
VAR = Path(os.environ.get("FINEGAP_VAR", BASE_DIR / "var"))
VAR.mkdir(parents=True, exist_ok=True)


SECRET_KEY = os.environ.get("FINEGAP_SECRET_KEY") or secret_key(VAR)
DEBUG = os.environ.get("FINEGAP_DEBUG") == "1"
DEMO = os.environ.get("FINEGAP_DEMO") == "1"
"""Offer one-click sign-in as the demo people. Only ``make demo`` sets it."""

if DEBUG:
    CSRF_TRUSTED_ORIGINS = ["http://localhost:5173"]  # Vite, which passes the API on

ALLOWED_HOSTS = os.environ.get("FINEGAP_HOSTS", "localhost,127.0.0.1,[::1]").split(",")

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.sessions",
    "django.contrib.messages",
    "django.contrib.staticfiles",
    "axes",
    "csp",
    "django_filters",
    "django_otp",
    "django_otp.plugins.otp_static",
    "django_otp.plugins.otp_totp",
    "rest_framework",
    "drf_spectacular",
    "finegap.site.apps.Config",
    "finegap.people.apps.Config",
    "finegap.works.apps.Config",
    "finegap.sheets.apps.Config",
    "finegap.pumps.apps.Config",
    "finegap.inventory.apps.Config",
    "finegap.bench.apps.Config",
    "finegap.due.apps.Config",
    "finegap.sharing.apps.Config",
    "finegap.audit.apps.Config",
]

MIDDLEWARE = [
    "finegap.site.middleware.TrustedHops",
    "finegap.site.middleware.KeptNowhere",
    "django.middleware.security.SecurityMiddleware",
    "finegap.site.middleware.BodyLimit",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "finegap.site.middleware.CompressedJson",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "django.contrib.auth.middleware.AuthenticationMiddleware",
    "finegap.site.middleware.AsWhoAsks",
    "finegap.site.middleware.AsTheWorks",
    "django.contrib.messages.middleware.MessageMiddleware",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
    *([] if DEBUG else ["csp.middleware.CSPMiddleware"]),
    "axes.middleware.AxesMiddleware",
]

CSRF_FAILURE_VIEW = "finegap.site.error_pages.forged"
ROOT_URLCONF = "finegap.site.urls"
WSGI_APPLICATION = "finegap.site.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "DIRS": [FRONT_END],
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

DATABASES = {
    "default": {
        "ENGINE": "django.db.backends.sqlite3",
        "NAME": VAR / "finegap.sqlite3",
        "OPTIONS": {
            # A reading is acknowledged only once it is on the disk: WAL with full synchronisation.
            "init_command": ("PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; PRAGMA foreign_keys=ON; PRAGMA busy_timeout=5000"),
            "transaction_mode": "IMMEDIATE",
        },
        "CONN_MAX_AGE": 600,
        # Browser tests ask the server from several threads: their database is a file. Others may have it in memory.
        "TEST": {"NAME": os.environ.get("FINEGAP_TEST_DB") or VAR / "test.sqlite3"},
    }
}

AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
_RULES = "django.contrib.auth.password_validation"
AUTH_PASSWORD_VALIDATORS = [
    {"NAME": f"{_RULES}.MinimumLengthValidator", "OPTIONS": {"min_length": 10}},
    {"NAME": f"{_RULES}.UserAttributeSimilarityValidator"},
    {"NAME": f"{_RULES}.CommonPasswordValidator"},
    {"NAME": f"{_RULES}.NumericPasswordValidator"},
]
# Wrong tries lock an account where they were made, and nowhere else: a shared tablet goes on with everybody else.
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_FAILURE_LIMIT = 5
AXES_COOLOFF_TIME = dt.timedelta(minutes=15)
AXES_RESET_COOL_OFF_ON_FAILURE_DURING_LOCKOUT = False
AXES_RESET_ON_SUCCESS = True
AXES_ENABLE_ACCESS_FAILURE_LOG = True
AXES_ACCESS_FAILURE_LOG_PER_USER_LIMIT = 1_000_000  # it would let go of the newest: the keeper lets go of the oldest
AXES_DISABLE_ACCESS_LOG = True
AXES_ENABLE_ADMIN = AXES_VERBOSE = False
AXES_SENSITIVE_PARAMETERS: list[str] = []  # the log of the server says whose account, and where; a password it never says
AXES_CLIENT_IP_CALLABLE = "finegap.api.address.client_address"
AXES_LOCKOUT_CALLABLE = "finegap.people.sign_in.locked_out"
OTP_TOTP_ISSUER = "Fine Gap"
# Wrong codes are counted with wrong passwords. A pause of its own would call a right code wrong.
OTP_TOTP_THROTTLE_FACTOR = OTP_STATIC_THROTTLE_FACTOR = 0
LOGIN_URL = "sign-in"
LOGIN_REDIRECT_URL = "/"
SESSION_COOKIE_SAMESITE = "Lax"

_PROXY = os.environ.get("FINEGAP_PROXY", "")
try:
    TRUSTED_PROXIES = [
        ip_network(one.strip(), strict=False) for one in ("127.0.0.1,::1" if _PROXY == "1" else _PROXY).split(",") if one.strip()
    ]
    """Networks of the proxies before this server: what they say of a request's way is believed, of nobody else."""
except ValueError as wrong:
    raise ImproperlyConfigured(f"FINEGAP_PROXY: {wrong}. Expected 1, or addresses and networks with commas.") from None

TLS = os.environ.get("FINEGAP_TLS", "")
"""Every page comes over TLS: "1" from a proxy before this server, "own" from this server, with a certificate of the works' own
authority."""

if TLS in ("1", "own"):
    SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = True
    SECURE_SSL_REDIRECT = True
    # W005, W021: other hosts of a works' own domain are not ours to pin.
    SILENCED_SYSTEM_CHECKS = ["security.W005", "security.W021"]
if TLS == "1":
    # A day: long enough for a tablet in use, short enough for a works that goes back to this machine alone.
    SECURE_HSTS_SECONDS = 86_400
elif TLS == "own":
    # W004: a browser pinned to TLS would lock everybody out for good where a tablet loses its trust in the works' own authority.
    SILENCED_SYSTEM_CHECKS += ["security.W004"]
if TRUSTED_PROXIES:
    SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https")

LANGUAGE_CODE = "en-gb"
TIME_ZONE = os.environ.get("FINEGAP_TIME_ZONE", "UTC")
USE_TZ = True

STATIC_URL = "/static/"
STATIC_ROOT = VAR / "static"
STATIC_ROOT.mkdir(exist_ok=True)
STATICFILES_DIRS = [("app", FRONT_END / "app")] if (FRONT_END / "app").exists() else []
STORAGES = {
    "default": {
        "BACKEND": "django.core.files.storage.FileSystemStorage",
        "OPTIONS": {"file_permissions_mode": 0o600, "directory_permissions_mode": 0o700},
    },
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"},
}


def WHITENOISE_IMMUTABLE_FILE_TEST(path: str, url: str) -> bool:  # noqa: N802 - WhiteNoise's own name
    """Files the front-end build named by their content never change."""
    return "/app/" in url


DATA_UPLOAD_MAX_MEMORY_SIZE = 2 * 1024 * 1024
LARGEST_PHOTO_BODY = 16 * 1024 * 1024
MEDIA_ROOT = VAR / "media"
"""Photographs. Nothing here has an address of its own: a view serves them to whoever may see the job."""
BACKUPS = Path(os.environ.get("FINEGAP_BACKUPS") or VAR / "backups")
"""Where backups are kept; another disk is better than that of the data."""
RECEIVER_PORT = int(os.environ.get("FINEGAP_RECEIVER_PORT", "8951"))
"""Where the receiver of wireless gauges listens, on this machine only."""
SECURE_CONTENT_TYPE_NOSNIFF = True
SECURE_REFERRER_POLICY = "same-origin"
X_FRAME_OPTIONS = "DENY"
CONTENT_SECURITY_POLICY = {
    "DIRECTIVES": {
        "default-src": [SELF],
        "img-src": [SELF, "data:", "blob:"],
        "style-src": [SELF, UNSAFE_INLINE],
        "font-src": [SELF, "data:"],
        "object-src": [NONE],
        "base-uri": [NONE],
        "frame-ancestors": [NONE],
        "form-action": [SELF],
    }
}
"""The browser asks nothing of any other host."""

REST_FRAMEWORK = {
    "DEFAULT_AUTHENTICATION_CLASSES": ["finegap.api.permissions.Session"],
    "DEFAULT_PERMISSION_CLASSES": ["finegap.api.permissions.IsTechnician"],
    "DEFAULT_RENDERER_CLASSES": ["finegap.api.renderers.JSON"],
    "DEFAULT_PARSER_CLASSES": ["finegap.api.parsers.JSON"],
    "DEFAULT_SCHEMA_CLASS": "drf_spectacular.openapi.AutoSchema",
    "EXCEPTION_HANDLER": "finegap.api.handler.handle",
    "UNAUTHENTICATED_USER": None,
}
SPECTACULAR_SETTINGS = {
    "TITLE": "Fine Gap",
    "DESCRIPTION": "The bench sheet that thinks: jobs, readings, verdicts and the end clearance of rotary pumps.",
    "VERSION": VERSION,
    "ENUM_NAME_OVERRIDES": {"MarkEnum": "finegap.core.numerals.MARKS", "UnitEnum": "finegap.core.formatting.UNIT_NAMES"},
    "SERVE_INCLUDE_SCHEMA": False,
    "COMPONENT_SPLIT_REQUEST": True,
    "SCHEMA_PATH_PREFIX": "/api",
}
LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "filters": {"no secrets": {"()": "finegap.site.logs.NoSecrets"}},
    "handlers": {"console": {"class": "logging.StreamHandler", "filters": ["no secrets"]}},
    "root": {"handlers": ["console"], "level": "WARNING"},
}
