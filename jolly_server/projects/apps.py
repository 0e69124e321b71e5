"""Beginning: what packages of the company's own add is there before the first request."""

from importlib.metadata import entry_points

from django.apps import AppConfig


class Projects(AppConfig):
    """The projects of this installation."""

    name = "jolly_server.projects"

    def ready(self) -> None:
        """Add what the installed packages add."""
        if entry_points(group="jolly_spool.extensions"):  # else there is no need to read half of the core for nothing
            from jolly_core.extending import load_extensions

            load_extensions()
