"""The WSGI application."""

import os

from django.core.wsgi import get_wsgi_application

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "jolly_server.config.settings")
application = get_wsgi_application()
