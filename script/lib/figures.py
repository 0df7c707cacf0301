"""Figures as data: `script/bench` writes what it measured into docs/figures.json, and the README's table from there."""

import json
from pathlib import Path

ROOT = Path(__file__).resolve().parents[2]
DATA = ROOT / "docs/figures.json"
README = ROOT / "README.md"
BEGIN, END = "<!-- figures: written by script/bench -->", "<!-- end of figures -->"
PARTS = ("prove", "carry", "end", "server", "load", "hour", "page", "away", "stock", "practice", "pictures", "front")

Line = dict[str, str]


def keep(part: str, lines: list[Line]) -> None:
    """Keep what a part measured in place of what it measured last, and write the README's table anew."""
    known = json.loads(DATA.read_text()) if DATA.exists() else {}
    known[part] = lines
    DATA.write_text(
        json.dumps({each: known[each] for each in PARTS if each in known}, indent=1, ensure_ascii=False) + "\n"
    )
    README.write_text(with_table(README.read_text(), known))


def with_table(text: str, known: dict[str, list[Line]]) -> str:
    """The README with the table of these figures between its marks. Raises ValueError without the marks."""
    before, _, rest = text.partition(BEGIN)
    _, _, after = rest.partition(END)
    if not after:
        raise ValueError(f"expected {BEGIN} and {END} in the README")
    return f"{before}{BEGIN}\n{table(known)}{END}{after}"


def table(known: dict[str, list[Line]]) -> str:
    """Every figure of which something is wanted, or that stands beside a reference; the rest is in the data."""
    shown = [line for part in PARTS for line in known.get(part, []) if line["wanted"]]
    rows = [f"| {line['what'].strip()} | {line['figure']} | {line['wanted']} |" for line in shown]
    return "\n".join(["| what | measured | wanted, or against the reference |", "| --- | --- | --- |", *rows]) + "\n"
