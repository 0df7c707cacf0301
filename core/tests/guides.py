"""The pages `docs/add-*.md` as something that can be done: what they say to write, where, and what comes of it."""

import os
import re
import shutil
import subprocess
import sys
from dataclasses import dataclass
from pathlib import Path

ROOT = Path(__file__).parents[2]
BLOCK = re.compile(
    r"`(?P<file>[\w./]+)`(?:, after `(?P<after>[^`\n]+)`|, new)(?P<more>[^\n]*):\n\n```\w*\n(?P<code>.*?)```", re.S
)
CHECK = re.compile(r"What comes of it[^\n]*:\n\n```python\n(?P<code>.*?)```", re.S)


@dataclass(frozen=True, slots=True)
class Written:
    """Lines that a page has written in a file: after a line of it, or as a new one."""

    file: str
    after: str | None
    code: str
    everywhere: bool = False
    """Whether after every such line, and not the first alone."""


def written(page: str) -> list[Written]:
    """What a page has written, in its order."""
    text = (ROOT / "docs" / page).read_text()
    return [
        Written(each["file"], each["after"], each["code"], "every" in each["more"]) for each in BLOCK.finditer(text)
    ]


def check_of(page: str) -> str:
    """The lines of Python that show what comes of it."""
    found = CHECK.search((ROOT / "docs" / page).read_text())
    assert found is not None, page
    return found["code"]


def follow(page: str, folder: Path) -> None:
    """A copy of the core and of what pages show, with all that a page has written in them."""
    left_out = shutil.ignore_patterns("__pycache__", "tests")
    for name in ("core", "shown"):
        shutil.copytree(ROOT / name, folder / name, ignore=left_out)
    for each in written(page):
        path = folder / each.file
        if not each.file.startswith(("core/", "shown/")):
            continue
        if each.after is None:
            assert not path.exists(), each.file
            path.write_text(each.code)
            continue
        lines = path.read_text().splitlines(keepends=True)
        at = [number for number, line in enumerate(lines, 1) if line.strip() == each.after.strip()]
        assert at, f"{page}: {each.file} has no line {each.after}"
        for number in reversed(at if each.everywhere else at[:1]):
            lines.insert(number, each.code)
        path.write_text("".join(lines))


def comes_of(page: str, folder: Path) -> subprocess.CompletedProcess[str]:
    """What the lines of Python at the end of a page do, run by themselves in the copy."""
    path = os.pathsep.join([str(folder / "core"), str(folder / "shown")])
    return subprocess.run(
        [sys.executable, "-c", check_of(page)], capture_output=True, text=True, check=False, cwd=folder,
        env={**os.environ, "PYTHONPATH": path},
    )  # fmt: skip
