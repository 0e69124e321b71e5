"""Every setting that comes from outside, read once here.

JOLLY_SPOOL_DATA   data folder with database and secret key (default: ./data)
JOLLY_SPOOL_DEMO   "1" when the server was started with the demo; offers the one-button sign-in on loopback
JOLLY_SPOOL_DEBUG  "1" for Django's debug pages
JOLLY_SPOOL_CATALOGUE  address of the makers' catalogue (default: http://127.0.0.1:8002)
JOLLY_SPOOL_MEMORY_MB  what loaded projects may take in memory, about (default: 2000)
JOLLY_SPOOL_PLC    address of the PLC of the wiring check (default: http://127.0.0.1:8003)
JOLLY_SPOOL_SPACE  address of the space model (default: http://127.0.0.1:8004)
JOLLY_SPOOL_MACHINE  address of the wire-processing machine (default: http://127.0.0.1:8001)
"""

from __future__ import annotations

import os
import secrets
from dataclasses import dataclass
from pathlib import Path

BASE = Path(__file__).resolve().parents[2]
DATABASE = "jolly-spool.sqlite3"  # in the data folder


@dataclass(frozen=True, slots=True)
class Options:
    """The settings of this process."""

    data: Path
    demo: bool
    debug: bool
    machine: str = "http://127.0.0.1:8001"
    catalogue: str = "http://127.0.0.1:8002"
    plc: str = "http://127.0.0.1:8003"
    space: str = "http://127.0.0.1:8004"
    fonts: Path = BASE / "build" / "faces"  # put there by scripts/prepare
    front_end: Path = BASE / "web" / "dist"
    demo_files: Path = BASE / "demo"
    upload_limit_bytes: int = 20_000_000
    project_limit_bytes: int = 120_000_000  # of a project file: one of 1,000 full sheets has 42 MB
    presence_s: int = 12
    memory_mb: int = 2000
    sign_in_tries: int = 6
    sign_in_wait_s: int = 300


def read_options() -> Options:
    """Return the options of the environment, making the data folder when it is not there."""
    data = Path(os.environ.get("JOLLY_SPOOL_DATA") or BASE / "data").expanduser().resolve()
    data.mkdir(parents=True, exist_ok=True)
    return Options(
        data=data,
        demo=os.environ.get("JOLLY_SPOOL_DEMO") == "1",
        debug=os.environ.get("JOLLY_SPOOL_DEBUG") == "1",
        catalogue=os.environ.get("JOLLY_SPOOL_CATALOGUE") or "http://127.0.0.1:8002",
        plc=os.environ.get("JOLLY_SPOOL_PLC") or "http://127.0.0.1:8003",
        space=os.environ.get("JOLLY_SPOOL_SPACE") or "http://127.0.0.1:8004",
        memory_mb=int(os.environ.get("JOLLY_SPOOL_MEMORY_MB") or 2000),
        machine=os.environ.get("JOLLY_SPOOL_MACHINE") or "http://127.0.0.1:8001",
    )


def secret_key(data: Path) -> str:
    """Return the secret key kept in the data folder, made on the first call."""
    path = data / "secret-key"
    if not path.exists():
        path.write_text(secrets.token_urlsafe(48))
        path.chmod(0o600)
    return path.read_text().strip()
