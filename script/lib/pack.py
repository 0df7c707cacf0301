"""Put the source of the core, of what pages show, and of the packages that they need in the browser into one archive.

pack.py ARCHIVE WHEELS: the archive to write, and the folder of the wheels.
"""

import sys
from pathlib import Path
from zipfile import ZipFile

ROOT = Path(__file__).resolve().parents[2]
OURS = (ROOT / "core" / "twincore", ROOT / "shown" / "twinshown")
LEFT_OUT = {"tests", "cli", "certificate", "__pycache__"}
"""Folders of ours that no page of a job needs."""
OF_A_PACKAGE = {
    "stdnum": ("stdnum/__init__.py", "stdnum/luhn.py", "stdnum/exceptions.py", "stdnum/util.py", "stdnum/iso7064/__init__.py", "stdnum/iso7064/mod_97_10.py"),
}  # fmt: skip
"""Packages of which a few modules are needed."""
MUST_BE_THERE = ("pydantic", "pydantic_core", "stdnum", "typing_extensions")
"""Packages without which the core does not load in a browser."""
NOT_NEEDED = ("pydantic/v1/", "pydantic/mypy.py", "pydantic/_hypothesis_plugin.py", "pydantic/annotated_handlers.pyi")


def wanted(name: str) -> bool:
    """Whether a file of a wheel is packed."""
    package = name.partition("/")[0]
    if package in OF_A_PACKAGE:
        return name in OF_A_PACKAGE[package]
    return name.endswith((".py", ".so")) and ".dist-info/" not in name and not name.startswith(NOT_NEEDED)


def main(archive: Path, wheels: Path) -> None:
    """Write the archive."""
    with ZipFile(archive, "w") as out:
        for folder in OURS:
            for path in sorted(folder.rglob("*")):
                inside = path.relative_to(folder.parent)
                if path.suffix in (".py", ".json") and not LEFT_OUT.intersection(inside.parts):
                    out.write(path, str(inside))
        for wheel in sorted(wheels.glob("*.whl")):
            with ZipFile(wheel) as package:
                for name in filter(wanted, package.namelist()):
                    out.writestr(name, package.read(name))
        packed = {name.partition("/")[0].removesuffix(".py") for name in out.namelist()}
    if missing := [name for name in MUST_BE_THERE if name not in packed]:
        archive.unlink()
        sys.exit(
            f"error: {wheels} has no {', '.join(missing)} for the browser: remove that folder and run script/bootstrap again"
        )


if __name__ == "__main__":
    main(Path(sys.argv[1]), Path(sys.argv[2]))
