"""Ask the registries for advisories about what is locked; what they do not tell here is said, and what they warn of is an error."""

import json
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parent.parent.parent


def said(*command: str, folder: Path = ROOT) -> dict[str, object]:
    """What a command writes, as JSON; nothing where it writes none."""
    done = subprocess.run(command, cwd=folder, capture_output=True, text=True, check=False)
    try:
        found: dict[str, object] = json.loads(done.stdout)
    except json.JSONDecodeError:
        return {}
    return found


def of_python() -> tuple[list[str], str]:
    """Warnings, and what could not be asked."""
    lock = ROOT / "requirements.lock"
    audit = (sys.executable, "-m", "pip_audit", "-r", str(lock), "--no-deps", "--disable-pip", "-f", "json")
    packages = said(*audit).get("dependencies") or []
    assert isinstance(packages, list)
    asked = [each for each in packages if "vulns" in each]
    warned = [
        f"{each['name']} {each['version']}: {', '.join(v['id'] for v in each['vulns'])}"
        for each in asked
        if each["vulns"]
    ]
    left = len(packages) - len(asked)
    return (
        warned,
        "" if asked and not left else f"Python: {left or 'all'} packages, of which the registry says nothing here",
    )


def of_the_client() -> tuple[list[str], str]:
    """Warnings, and what could not be asked."""
    found = said("npm", "audit", "--omit=dev", "--json", folder=ROOT / "web").get("vulnerabilities")
    if not isinstance(found, dict):
        return [], "client: all packages, for the registry answers no audit here"
    return [f"{name}: {each['severity']}" for name, each in found.items()], ""


if __name__ == "__main__":
    warnings: list[str] = []
    for warned, not_asked in (of_python(), of_the_client()):
        warnings += warned
        if not_asked:
            print(f"not asked about: {not_asked}")
    print("\n".join(warnings) or "no warning among what was asked")
    sys.exit(bool(warnings))
