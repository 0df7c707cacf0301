"""The WSGI application."""

import gc
import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "config.settings")
application = get_wsgi_application()

# what is loaded now stays; collecting it again and again took a third of a second in one of twenty slow pages
gc.collect()
gc.freeze()
gc.set_threshold(50_000, 20, 100)
