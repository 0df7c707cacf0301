"""Settings, from the environment; the defaults suit a private server on loopback."""

from pathlib import Path

import environ

from config.policies import static_headers

env = environ.Env()
ROOT = Path(__file__).resolve().parents[2]

DEBUG = env.bool("TWIN_DEBUG", default=False)
SECRET_KEY = env.str("TWIN_SECRET_KEY")
ALLOWED_HOSTS = env.list("TWIN_HOSTS", default=["127.0.0.1", "localhost"])
CSRF_TRUSTED_ORIGINS = env.list("TWIN_ORIGINS", default=[])

INSTALLED_APPS = [
    "django.contrib.auth",
    "django.contrib.contenttypes",
    "django.contrib.postgres",
    "django.contrib.sessions",
    "django.contrib.staticfiles",
    "ninja",
    "axes",
    "django_otp",
    "django_otp.plugins.otp_totp",
    "django_otp.plugins.otp_static",
    "procrastinate.contrib.django",
    "people",
    "pictures",
    "catalogue",
    "references",
    "parts",
    "bench",
    "stock",
    "practice",
    "workshop",
    "jobs",
]
MIDDLEWARE = [
    "config.logs.told",
    "config.operating.counted",
    "config.turns.in_turn",
    "django.middleware.security.SecurityMiddleware",
    "config.headers.content_policy",
    "config.headers.for_the_moment",
    "config.headers.readable_address",
    "whitenoise.middleware.WhiteNoiseMiddleware",
    "django.middleware.gzip.GZipMiddleware",
    "people.lost.forgotten",
    "django.contrib.sessions.middleware.SessionMiddleware",
    "django.middleware.common.CommonMiddleware",
    "django.middleware.csrf.CsrfViewMiddleware",
    "people.asking.WhoAsks",
    "config.headers.forms",
    "people.watching.told",
    "people.bodies.limited",
    "jobs.kept_answers.KeptAnswers",
    "config.saving.SavedWithItsAnswer",
    "django.middleware.clickjacking.XFrameOptionsMiddleware",
]
ROOT_URLCONF = "config.urls"
WSGI_APPLICATION = "config.wsgi.application"
TEMPLATES = [
    {
        "BACKEND": "django.template.backends.django.DjangoTemplates",
        "APP_DIRS": True,
        "OPTIONS": {"string_if_invalid": ""},
    }
]

DATABASES = {
    "default": {
        **env.db("TWIN_DATABASE_URL"),
        "CONN_MAX_AGE": 600,
        "CONN_HEALTH_CHECKS": True,
        # what is asked again and again is planned once a connection: planning took most of the time of small queries
        "OPTIONS": {"server_side_binding": True, "prepare_threshold": 3},
    }
}
DEFAULT_AUTO_FIELD = "django.db.models.BigAutoField"

AUTH_USER_MODEL = "people.Person"
AUTHENTICATION_BACKENDS = ["axes.backends.AxesStandaloneBackend", "django.contrib.auth.backends.ModelBackend"]
# NIST SP 800-63B-4, 3.1.1.2: fifteen characters where a password is asked for alone, none that is common or says who one is,
# no rules of composition, none that runs out
AUTH_PASSWORD_VALIDATORS = [
    {
        "NAME": "django.contrib.auth.password_validation.MinimumLengthValidator",
        "OPTIONS": {"min_length": env.int("TWIN_PASSWORD_LENGTH", default=15)},
    },
    {"NAME": "django.contrib.auth.password_validation.CommonPasswordValidator"},
    {"NAME": "django.contrib.auth.password_validation.UserAttributeSimilarityValidator"},
]
OTP_TOTP_ISSUER = "Worthy Twin"
PASSWORD_HASHERS = env.list("TWIN_PASSWORD_HASHERS", default=["django.contrib.auth.hashers.PBKDF2PasswordHasher"])

# five wrong passwords for one name from one address: fifteen minutes of rest
AXES_FAILURE_LIMIT = 5
AXES_COOLOFF_TIME = 0.25
AXES_LOCKOUT_PARAMETERS = [["username", "ip_address"]]
AXES_RESET_ON_SUCCESS = True
AXES_VERBOSE = False
AXES_ENABLE_ACCESS_FAILURE_LOG = True
AXES_ACCESS_FAILURE_LOG_PER_USER_LIMIT = 1000
AXES_CLIENT_IP_CALLABLE = "people.tries.address_of"
# how many proxies of our own stand before the server: the address that the outermost of them saw is the sender's
PROXIES = env.int("TWIN_PROXIES", default=0)

SESSION_ENGINE = "people.session_store"
# from the sign-in on, however busy one is: a plant room has no signal to sign in again
SESSION_COOKIE_AGE = env.int("TWIN_SESSION_HOURS", default=14 * 24) * 3600
SESSION_COOKIE_HTTPONLY = True
SESSION_COOKIE_SAMESITE = "Lax"
SESSION_COOKIE_SECURE = CSRF_COOKIE_SECURE = SECURE_SSL_REDIRECT = env.bool("TWIN_HTTPS", default=False)
SECURE_HSTS_SECONDS = 31_536_000 if SESSION_COOKIE_SECURE else 0
# a proxy of our own says whether somebody came to it by TLS; from anybody else the header means nothing
SECURE_PROXY_SSL_HEADER = ("HTTP_X_FORWARDED_PROTO", "https") if PROXIES else None
# those who watch the processes ask them directly
SECURE_REDIRECT_EXEMPT = ["^health$", "^ready$", "^metrics$"]
CSRF_FAILURE_VIEW = "config.problems.csrf_failure"

CACHES = {
    "default": {"BACKEND": "django.core.cache.backends.locmem.LocMemCache", "OPTIONS": {"MAX_ENTRIES": 5000}},
    # carry-overs and proofs, shared by every worker; their keys name everything that they hang on
    "answers": {
        "BACKEND": "bench.store.AnswerStore",
        "LOCATION": "kept_answer",
        "TIMEOUT": None,
        "OPTIONS": {"MAX_ENTRIES": 200_000},
    },
}

LANGUAGE_CODE = "en-gb"
TIME_ZONE = env.str("TWIN_TIME_ZONE", default="UTC")
USE_TZ = True

STATIC_URL = "/static/"
STATIC_ROOT = ROOT / "server" / "static_root"
WEB_DIST = ROOT / "web" / "dist"
STATICFILES_DIRS = [WEB_DIST] if WEB_DIST.is_dir() else []
STORAGES = {
    "default": {"BACKEND": "django.core.files.storage.FileSystemStorage"},
    "staticfiles": {"BACKEND": "whitenoise.storage.CompressedStaticFilesStorage"},
}
WHITENOISE_IMMUTABLE_FILE_TEST = r"^/static/(assets|core)/"
WHITENOISE_ADD_HEADERS_FUNCTION = static_headers

UPLOADS = Path(env.str("TWIN_UPLOADS", default=str(ROOT / ".data" / "uploads")))
MEDIA_ROOT = Path(env.str("TWIN_PICTURE_STORE", default=str(ROOT / ".data" / "pictures")))
METRICS_TOKEN = env.str("TWIN_METRICS_TOKEN", default="")
BOARD_PORT = env.str("TWIN_BOARD_PORT", default="")
NEW_BOARD_PORT = env.str("TWIN_NEW_BOARD_PORT", default="") or BOARD_PORT
PARTS_DESK_URL = env.str("TWIN_PARTS_DESK", default="")

DATA_UPLOAD_MAX_MEMORY_SIZE = 2_500_000
FILE_UPLOAD_MAX_MEMORY_SIZE = 2_500_000

LOGGING = {
    "version": 1,
    "disable_existing_loggers": False,
    "formatters": {"line": {"()": "config.logs.Line"}},
    "handlers": {"console": {"class": "logging.StreamHandler", "formatter": "line"}},
    # a refused request is an answer, not an incident
    "loggers": {
        "worthy_twin.requests": {"level": env.str("TWIN_REQUEST_LOG", default="WARNING")},
        "django.request": {"level": "ERROR"},
        "axes": {"level": "ERROR"},
        "pymodbus": {"level": "CRITICAL"},
    },
    "root": {"handlers": ["console"], "level": env.str("TWIN_LOG_LEVEL", default="WARNING")},
}
SILENCED_SYSTEM_CHECKS = [
    "axes.W002",  # the middleware only shows the lockout page of form logins; the API answers with a problem document
    "security.W005", "security.W021",  # whether other names of a domain speak TLS alone is not ours to say
]  # fmt: skip
