"""Run the benchmarks: python -m benchmarks [--sheets N] [--rounds N]."""

from __future__ import annotations

import argparse
import os
import tempfile

FEWEST = 20  # sheets, so that each is opened out of nowhere
WHOLE = 200  # sheets from which on the other large things are as large as their budgets mean


def main() -> None:
    """Set up a place for it and measure."""
    parser = argparse.ArgumentParser(prog="benchmarks/run", description="Measure the budgets as ratios in one run.")
    parser.add_argument(
        "--sheets", type=int, default=1000, help="size of the large project (default 1000); below 200 all is less"
    )
    parser.add_argument("--rounds", type=int, default=5, help="how often each is measured (default 5)")
    options = parser.parse_args()
    sheets, rounds = options.sheets, options.rounds
    if sheets < FEWEST:
        parser.error(f"--sheets {sheets} is too few: the screen looks at {FEWEST} different ones.")
    with tempfile.TemporaryDirectory() as folder:
        os.environ |= {
            "JOLLY_SPOOL_DATA": folder,
            "JOLLY_SPOOL_DEMO": "1",
            "DJANGO_SETTINGS_MODULE": "jolly_server.config.settings",
            "DJANGO_ALLOW_ASYNC_UNSAFE": "true",  # the browser keeps an event loop in this thread
        }
        import django

        django.setup()
        from django.conf import settings
        from django.core.management import call_command

        settings.ROOT_URLCONF = "benchmarks.server"
        call_command("migrate", verbosity=0)
        call_command("seed_demo", verbosity=0)
        _measure(sheets, rounds)


def _measure(sheets: int, rounds: int) -> None:
    """Print one line for each budget; Django is set up."""
    from benchmarks import browser, core, following, loom, panel, papers, points, routing, server, strips
    from benchmarks.measure import HEADING

    share = min(1.0, sheets / WHOLE)
    print(HEADING)
    print(server.loading(sheets, rounds), flush=True)
    for result in core.nets(sheets, rounds):
        print(result, flush=True)
    for result in server.editing(min(200, sheets), rounds):
        print(result, flush=True)
    for result in following.people(min(200, sheets), rounds):
        print(result, flush=True)
    for result in following.sizes(sheets, rounds):
        print(result, flush=True)
    for result in following.snags(sheets, min(rounds, 3)):
        print(result, flush=True)
    print(following.traces(sheets, rounds), flush=True)
    for result in following.memory(min(200, sheets)):
        print(result, flush=True)
    for result in panel.cabinet(rounds, share):
        print(result, flush=True)
    for result in points.points(rounds, share):
        print(result, flush=True)
    for result in strips.terminals(rounds, share):
        print(result, flush=True)
    for result in loom.harness(rounds, share):
        print(result, flush=True)
    for result in papers.papers(sheets, rounds):
        print(result, flush=True)
    print(papers.beside_a_pack(rounds, round(papers.PACKED * share)), flush=True)
    print(core.pdf(min(100, sheets), rounds), flush=True)
    print(core.xlsx(round(20_000 * share), rounds), flush=True)
    print(routing.routing(round(2000 * share), rounds), flush=True)
    for result in core.finding(sheets, rounds):
        print(result, flush=True)
    for result in server.library(round(20_000 * share), rounds):
        print(result, flush=True)
    for result in browser.screen(min(200, sheets), rounds, share):
        print(result, flush=True)


if __name__ == "__main__":
    main()
