"""What failed in packages of a company's own: shown as snags of theirs."""

from __future__ import annotations

from collections.abc import Iterator

from jolly_core.model import Project, package_faults

from .registry import Snag, project_check


@project_check("package-fault", "Something failed that a package of the company's own adds.")
def package_fault(project: Project) -> Iterator[Snag]:
    """Yield a snag for each thing of a package that could not be added, or failed when it was used."""
    for package, words in package_faults(project):
        yield Snag(
            "package-fault", "warning", f"{words}. Tell who made it.", (), "", 0, 0, bench="snags", subject=package
        )
