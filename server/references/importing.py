"""Import a file of statements: rows stream through a table of their own, then all good ones are kept at once."""

import csv
import json
import logging
from collections.abc import Iterator
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import dataclass
from datetime import datetime
from io import StringIO, TextIOWrapper
from itertools import islice
from pathlib import Path
from typing import Any
from uuid import UUID

from django.db import connection, transaction

from config.downloads import cell, text_of
from references import contradicting, files
from references.models import Import, Statement
from references.rows import values_of
from twincore.choose import COLUMNS, as_row, from_row, parse_statements
from twincore.errors import DocumentError
from twincore.profile import LARGEST_BYTES

logger = logging.getLogger(__name__)
CHUNK = 20_000
MOST_REFUSED = 100_000
STAGE = "incoming_statement"
NO_VALUE = "\x02"
COPIED = (
    "code", "original", "replacement", "relation", "members", "conditions", "needs", "companions", "words", "source",
    "dated", "valid_from", "valid_to", "cost", "days", "worked", "failed",
)  # fmt: skip


class Cancelled(Exception):
    """Somebody stopped the import."""


class Unreadable(Exception):
    """The file as a whole cannot be read; says why."""


@dataclass(slots=True)
class _Counts:
    rows: int = 0
    refused: int = 0


def run_import(id: UUID, now: datetime) -> Import:
    """Carry out an import that waits; whatever happens, either all good rows are kept or none."""
    job = Import.objects.get(pk=id)
    if job.ended:
        return job
    Import.objects.filter(pk=id).update(state=Import.State.READING, bytes_read=0, rows=0, refused=0)
    try:
        counts = _stage(id)
        Import.objects.filter(pk=id).update(state=Import.State.KEEPING)
        new = _keep(id)
        ended = {"state": Import.State.DONE, "rows": counts.rows, "refused": counts.refused, "new": new}
    except Cancelled:
        ended = {"state": Import.State.CANCELLED}
    except Unreadable as error:
        ended = {"state": Import.State.FAILED, "fault": str(error)[:2000]}
    except Exception:
        logger.exception("an import broke off")
        ended = {
            "state": Import.State.FAILED,
            "fault": "The import broke off. Send the file again; if it stays, tell us.",
        }
    finally:
        with connection.cursor() as cursor:
            cursor.execute(f"drop table if exists {STAGE}")
        files.upload_path(id).unlink(missing_ok=True)
    Import.objects.filter(pk=id).update(ended_at=now, **ended)
    if ended["state"] == Import.State.DONE:
        contradicting.find_again()
    return Import.objects.get(pk=id)


def _stage(id: UUID) -> _Counts:
    """Copy the good rows into a table that only this connection sees, and write the refused ones to the report."""
    counts = _Counts()
    columns = ", ".join(COPIED)
    with connection.cursor() as cursor:
        cursor.execute(f"drop table if exists {STAGE}")
        cursor.execute(f"create temp table {STAGE} as select {columns} from references_statement with no data")
    report = files.report_path(id)
    rows = _rows(files.upload_path(id))
    with report.open("w", newline="", encoding="utf-8") as out:
        refused = csv.DictWriter(out, [*COLUMNS, "line", "fault"], extrasaction="ignore")
        refused.writeheader()
        with ThreadPoolExecutor(1) as copying:
            under_way: Future[None] | None = None
            while found := list(islice(rows, CHUNK)):
                good = _good_rows(found, refused, counts)
                # the database takes one piece in while the next is read
                if under_way is not None:
                    under_way.result()
                    _tell(id, counts, found[-1][1])
                under_way = copying.submit(_copy, connection.connection, _as_csv(good))
                counts.rows += len(found)
            if under_way is not None:
                under_way.result()
        _tell(id, counts, files.upload_path(id).stat().st_size)
    return counts


def _good_rows(found: list[tuple[int, int, dict[str, str]]], refused: Any, counts: _Counts) -> list[list[Any]]:
    """The values of the rows that break no rule; the others go to the report."""
    good = []
    for line, _, row in found:
        try:
            good.append(_copied(row))
        except DocumentError as error:
            counts.refused += 1
            if counts.refused <= MOST_REFUSED:
                faults = "; ".join(str(fault) for fault in error.faults)
                refused.writerow(
                    {name: cell(str(each)) for name, each in {**row, "line": line, "fault": faults}.items()}
                )
    return good


def _copy(database: Any, text: str) -> None:
    """Copy rows into the staging table, over the connection that sees it."""
    with database.cursor() as cursor, cursor.copy(
        f"copy {STAGE} ({', '.join(COPIED)}) from stdin (format csv, null '{NO_VALUE}')"
    ) as copy:  # fmt: skip
        copy.write(text)


def _tell(id: UUID, counts: _Counts, at: int) -> None:
    """Say how far it is, and stop where somebody wants that."""
    Import.objects.filter(pk=id).update(rows=counts.rows, refused=counts.refused, bytes_read=at)
    if Import.objects.filter(pk=id, cancel_wanted=True).exists():
        raise Cancelled


def _rows(path: Path) -> Iterator[tuple[int, int, dict[str, str]]]:
    """Every row of a CSV file, or statement of a document, with its line and how many bytes were read until then."""
    with path.open("rb") as file:
        if file.read(64).lstrip(b"\xef\xbb\xbf \r\n\t").startswith(b"{"):
            yield from _statements(path)
            return
    with path.open("rb") as raw, TextIOWrapper(raw, encoding="utf-8-sig", newline="") as text:
        reader = csv.reader(text)
        try:
            header = [name.strip().lower() for name in next(reader, [])]
            unknown = [name for name in header if name not in (*COLUMNS, "line", "fault")]
            missing = [name for name in ("id", "original", "replacement", "relation") if name not in header]
            if unknown or missing:
                raise Unreadable(
                    f"line 1: expected the columns {', '.join(COLUMNS)}"
                    + (f"; missing: {', '.join(missing)}" if missing else "")
                    + (f"; unknown: {', '.join(unknown)[:200]}" if unknown else "")
                )
            for values in reader:
                if values:
                    yield reader.line_num, raw.tell(), dict(zip(header, map(text_of, values), strict=False))
        except UnicodeDecodeError as error:
            raise Unreadable(f"line {reader.line_num + 1}: expected UTF-8 text") from error
        except csv.Error as error:
            raise Unreadable(f"line {reader.line_num + 1}: expected CSV: {error}") from error


def _statements(path: Path) -> Iterator[tuple[int, int, dict[str, str]]]:
    """The statements of a document; a faulty document is refused whole, as every document is."""
    size = path.stat().st_size
    if size > LARGEST_BYTES:
        raise Unreadable(f"expected at most {LARGEST_BYTES // 1_000_000} MB of JSON; send more than that as CSV")
    try:
        found = parse_statements(path.read_bytes())
    except DocumentError as error:
        raise Unreadable("; ".join(str(fault) for fault in error.faults[:20])) from error
    for number, statement in enumerate(found, 1):
        yield number, size, as_row(statement)


def _copied(row: dict[str, str]) -> list[Any]:
    """A row's values as the staging table takes them in."""
    values = values_of(from_row(row))
    for name in ("members", "needs", "companions"):
        values[name] = _as_array(values[name])
    values["conditions"] = json.dumps(values["conditions"]) if values["conditions"] else "{}"
    return [values[name] for name in COPIED]


def _as_array(items: list[str] | None) -> str | None:
    """A list as PostgreSQL writes an array."""
    if not items:
        return None if items is None else "{}"
    escaped = (item.replace("\\", "\\\\").replace('"', '\\"') for item in items)
    return "{" + ",".join(f'"{item}"' for item in escaped) + "}"


def _as_csv(rows: list[list[Any]]) -> str:
    """Rows as COPY reads them; no value is a mark that no text can contain, for control characters are refused."""
    out = StringIO()
    csv.writer(out).writerows([[NO_VALUE if value is None else value for value in row] for row in rows])
    return out.getvalue()


def _keep(id: UUID) -> int:
    """Keep everything staged in one transaction; a statement whose id is there already is replaced. How many are new."""
    table = Statement._meta.db_table
    columns = ", ".join(COPIED)
    update = ", ".join(f"{name} = excluded.{name}" for name in COPIED if name != "code")
    with transaction.atomic(), connection.cursor() as cursor:
        cursor.execute("set local work_mem = '64MB'")
        cursor.execute(f"select count(*) from {table}")
        before = cursor.fetchone()[0]
        # of two rows with one id the later one counts
        cursor.execute(f"alter table {STAGE} add column line bigserial")
        cursor.execute(
            f"insert into {table} ({columns}, withdrawn_because) "
            f"select distinct on (code) {columns}, '' from {STAGE} order by code, line desc "
            f"on conflict (code) do update set {update}"
        )
        cursor.execute(f"select count(*) from {table}")
        after = cursor.fetchone()[0]
        if Import.objects.filter(pk=id, cancel_wanted=True).exists():
            raise Cancelled
    return int(after - before)
