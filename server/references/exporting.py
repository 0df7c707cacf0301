"""Statements out of the catalogue, as CSV or as a document, a piece at a time."""

import csv
import json
from collections.abc import Iterator

from config.downloads import cell
from references.queries import every_statement
from twincore.choose import COLUMNS, as_json, as_row


class _Line:
    """A file that keeps only the line written last."""

    text = ""

    def write(self, text: str) -> int:
        self.text = text
        return len(text)


def as_csv() -> Iterator[str]:
    """Every statement as a line of CSV, after the names of the columns."""
    line = _Line()
    writer = csv.DictWriter(line, COLUMNS)
    writer.writeheader()
    yield line.text
    for statement in every_statement():
        writer.writerow({name: cell(text) for name, text in as_row(statement).items()})
        yield line.text


def as_document() -> Iterator[str]:
    """Every statement as one `worthy-twin/statements` document."""
    yield '{"format": "worthy-twin/statements", "version": 1, "statements": [\n'
    comma = ""
    for statement in every_statement():
        yield comma + json.dumps(as_json(statement), ensure_ascii=False)
        comma = ",\n"
    yield "\n]}\n"
