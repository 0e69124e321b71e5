"""Serving the application on loopback with waitress."""

from __future__ import annotations

import errno
import sys
from importlib import import_module

from django.conf import settings
from waitress.server import create_server

from .arguments import HOST, NotPossible

THREADS = 8
ROUND_A_FILE_BYTES = 1_000_000  # of a request that brings a file: its other fields and what parts them
# One who draws papers keeps the interpreter for so long at a time; an edit gives it up and waits for it at each of its
# statements in the database, so beside a large PDF it takes four times as long with the interpreter's own 5 ms.
SWITCH_S = 0.001


def serve(port: int) -> None:
    """Serve until interrupted, and print the address once the port is open; Django is set up by the caller.

    Raises:
        NotPossible: the port is in use.
    """
    from jolly_server.config.options import read_options
    from jolly_server.entrance.wsgi import application
    from jolly_server.issuing.runs import end_runs
    from jolly_server.projects import warming

    import_module(settings.ROOT_URLCONF)  # all that answers is read now, not while the first person waits
    sys.setswitchinterval(SWITCH_S)
    try:
        server = create_server(
            application,
            host=HOST,
            port=port,
            threads=THREADS,
            ident=None,
            max_request_body_size=read_options().project_limit_bytes + ROUND_A_FILE_BYTES,
        )
    except OSError as error:
        if error.errno != errno.EADDRINUSE:
            raise
        raise NotPossible(f"Port {port} is in use. Choose another: ./start --port {port + 10}") from error
    warming.start()
    try:
        print(f"Jolly Spool is ready: http://{HOST}:{port}/   (Ctrl+C ends it)", flush=True)
        server.run()
    except KeyboardInterrupt:  # before it was at work, or as it ended
        pass
    finally:
        end_runs()
        print("Stopped.", flush=True)
