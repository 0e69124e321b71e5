"""Serve the application on loopback with waitress."""

import argparse
import errno
import sys
from importlib import import_module

from django.conf import settings
from waitress.server import create_server

HOST = "127.0.0.1"
THREADS = 8
ROUND_A_FILE_BYTES = 1_000_000  # of a request that brings a file: its other fields and what parts them
# One who draws papers keeps the interpreter for so long at a time; an edit gives it up and waits for it at each of its
# statements in the database, so beside a large PDF it takes four times as long with the interpreter's own 5 ms.
SWITCH_S = 0.001


def main() -> int:
    """Serve until interrupted, and print the address once the port is open."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--port", type=int, default=8000)
    port = parser.parse_args().port
    from jolly_server.config.options import read_options
    from jolly_server.config.wsgi import application
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
        print(f"Port {port} is in use. Choose another: ./start --port {port + 1}", file=sys.stderr)
        return 1
    warming.start()
    print(f"Jolly Spool is ready: http://{HOST}:{port}/", flush=True)
    try:
        server.run()
    except KeyboardInterrupt:
        print("Stopped.")
    return 0


if __name__ == "__main__":
    sys.exit(main())
