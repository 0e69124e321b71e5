"""What ./start runs once all is installed: the database brought up to date, the demo, the stand-ins, the server.

All of it is one process, so that a second start takes a few seconds, and what it started ends with it.
"""

from __future__ import annotations

import os
import signal
import sys
from collections.abc import Sequence
from types import FrameType

from .arguments import Arguments, NotPossible, check_data, check_port, read
from .helpers import Helpers
from .steps import step

BROKEN_OFF = 130  # as a shell has it for what was ended by Ctrl+C


class Ended(KeyboardInterrupt):
    """Somebody asked the process to end by a signal."""


def _end(number: int, frame: FrameType | None) -> None:
    raise Ended


def set_up(asked: Arguments) -> None:
    """Let the settings be read with what was asked for."""
    os.environ["JOLLY_SPOOL_DATA"] = str(asked.data)
    os.environ["JOLLY_SPOOL_DEMO"] = str(int(asked.demo))
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "jolly_server.config.settings")
    import django

    django.setup()


def prepare_database() -> None:
    """Make the database, or bring it up to date.

    Raises:
        DatabaseFault: it is newer than this code, or no database.
    """
    from django.core.management import call_command

    from jolly_server.config.database import refuse_newer, standing

    found = standing()
    refuse_newer(found)
    if found.is_new or found.missing:
        with step("Making the database" if found.is_new else "Bringing the database up to date"):
            call_command("migrate", verbosity=0)


def load_demo() -> None:
    """Load of the demo what is not there."""
    from django.conf import settings

    from jolly_server.demo.services import is_seeded, seed

    if not is_seeded():
        with step("Loading the demo"):
            seed(settings.JOLLY.demo_files)


def run(asked: Arguments, helpers: Helpers) -> int:
    """Do all that is between the arguments and the end of the server. Return the exit code."""
    told = helpers.start(asked.port, asked.data, asked.without)
    with step("Starting"):
        set_up(asked)
    from jolly_core.model import CoreError
    from jolly_server.config.database import DatabaseFault

    from .serving import serve

    try:
        prepare_database()
        if asked.demo:
            load_demo()
    except DatabaseFault as error:
        raise NotPossible(str(error)) from error
    except CoreError as error:
        raise NotPossible(f"The demo cannot be loaded: {error.message} ./start --empty starts without it.") from error
    for line in told:
        print(line, flush=True)
    serve(asked.port)
    return 0


def main(given: Sequence[str] | None = None) -> int:
    """Start the application and serve until somebody ends it."""
    signal.signal(signal.SIGTERM, _end)
    asked = read(given)
    helpers = Helpers()
    try:
        check_port(asked.port)
        check_data(asked.data)
        return run(asked, helpers)
    except NotPossible as error:
        print(f"start: {error}", file=sys.stderr)
        return 2
    except KeyboardInterrupt:
        print("Stopped before it was ready.", file=sys.stderr)
        return BROKEN_OFF
    finally:
        helpers.end()


if __name__ == "__main__":
    sys.exit(main())
