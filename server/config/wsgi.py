"""The WSGI application."""

import gc
import os
from importlib import import_module

from django.conf import settings
from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
application = get_wsgi_application()
import_module(settings.ROOT_URLCONF)  # else the first page would load the API, after what is below

# what is loaded now stays; collecting it again and again took a third of a second in one of twenty slow pages
gc.collect()
gc.freeze()
gc.set_threshold(50_000, 20, 100)
