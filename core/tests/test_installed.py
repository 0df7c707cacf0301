"""The core installed by itself, as somebody would who has no use for the server."""

import json
import os
import shutil
import subprocess
import sys
import tempfile
import tomllib
from pathlib import Path

from django.test import SimpleTestCase

from tests.builders import DEMO

CORE = Path(__file__).parents[1]


class Installed(SimpleTestCase):
    def test_pip_installs_the_core_with_its_command(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            source, target = Path(folder, "core"), Path(folder, "site")
            left_out = shutil.ignore_patterns("__pycache__", "tests", "*.egg-info", "build")
            shutil.copytree(CORE, source, ignore=left_out)
            # what it needs is here already, and is not fetched again
            run = [
                sys.executable,
                "-m",
                "pip",
                "install",
                "-q",
                "--no-deps",
                "--no-build-isolation",
                "--target",
                target,
                source,
            ]
            done = subprocess.run(run, capture_output=True, text=True, check=False)
            self.assertEqual(done.returncode, 0, done.stderr[-2000:])
            board = next((DEMO / "boards").glob("*.board.json"))
            outside = {name: value for name, value in os.environ.items() if name != "PYTHONPATH"}
            called = subprocess.run(
                [sys.executable, target / "bin" / "twin", "check", board], capture_output=True, text=True, check=False,
                cwd=folder, env={**outside, "PYTHONPATH": str(target)},
            )  # fmt: skip
            self.assertEqual(called.returncode, 0, called.stderr[-2000:])
            self.assertEqual(json.loads(called.stdout), {"ok": True})

    def test_what_it_needs_is_what_the_whole_needs(self) -> None:
        whole = tomllib.loads((CORE.parent / "pyproject.toml").read_text())["project"]["dependencies"]
        for each in tomllib.loads((CORE / "pyproject.toml").read_text())["project"]["dependencies"]:
            self.assertIn(each, [*whole, "typing-extensions>=4.12"])
