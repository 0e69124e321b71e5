"""The browser of stories and benchmarks: where it is and how it is started, quiet and without a graphics card."""

from __future__ import annotations

import os

CHROMIUM = os.environ.get("CHROMIUM", "/usr/bin/chromium-headless-shell")
FLAGS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
]
