"""Look for statements that cannot all be true: the database finds the suspicious ones, the core decides."""

from collections.abc import Iterator

import numpy
from django.db import connection, transaction
from scipy.sparse import coo_array
from scipy.sparse.csgraph import connected_components

from references.models import Contradiction, Statement
from references.rows import as_core
from twincore.choose.contradictions import Contradiction as Found
from twincore.choose.contradictions import contradictions

MOST = 2_000
"""Contradictions listed of each kind; a list that long is not settled by hand anyway."""
AT_ONCE = 2_000
NO_CLAIM = "('exchange', 'repair', 'donor')"
LIVE = "withdrawn_at is null"


def find_again() -> int:
    """Find every contradiction anew and list it; how many there are."""
    found = [*_small_groups("both ways"), *_small_groups("two successors"), *_rings()]
    with transaction.atomic():
        Contradiction.objects.all().delete()
        Contradiction.objects.bulk_create(
            Contradiction(kind=each.kind, boards=list(each.boards), codes=list(each.statements)) for each in found
        )
    return len(found)


SUSPICIOUS = {
    # pairs that are both allowed and forbidden, in either direction
    "both ways": f"""
        select s.code, s.original from references_statement n join references_statement s
          on s.withdrawn_at is null and s.relation not in {NO_CLAIM} and s.relation <> 'not exchangeable'
         and ((s.original = n.original and s.replacement = n.replacement)
           or (s.relation = 'same' and s.original = n.replacement and s.replacement = n.original))
        where n.relation = 'not exchangeable' and n.withdrawn_at is null
        union all
        select n.code, n.original from references_statement n
        where n.relation = 'not exchangeable' and n.withdrawn_at is null and exists (
          select 1 from references_statement s where s.withdrawn_at is null and s.relation not in {NO_CLAIM}
           and s.relation <> 'not exchangeable'
           and ((s.original = n.original and s.replacement = n.replacement)
             or (s.relation = 'same' and s.original = n.replacement and s.replacement = n.original)))""",
    "two successors": f"""
        select s.code, s.original from references_statement s join (
          select original from references_statement where relation = 'supersedes' and {LIVE}
          group by original having count(distinct replacement) > 1 order by original limit {MOST}) many using (original)
        where s.relation = 'supersedes' and s.withdrawn_at is null""",
}


def _small_groups(kind: str) -> Iterator[Found]:
    """Let the core decide on the statements that the database found suspicious, some at a time."""
    with connection.cursor() as cursor:
        cursor.execute(f"select code from ({SUSPICIOUS[kind]}) found order by original, code limit {MOST * 4}")
        codes = [row[0] for row in cursor.fetchall()]
    rows = [as_core(row) for row in Statement.objects.filter(code__in=codes)]
    yield from [each for each in contradictions(rows) if each.kind == kind][:MOST]


def _rings() -> Iterator[Found]:
    """Boards that supersede each other in a ring: strongly connected components of the whole graph."""
    names: dict[str, int] = {}
    starts, ends = [], []
    with connection.cursor() as cursor:
        cursor.execute(
            f"select original, replacement from references_statement where relation = 'supersedes' and {LIVE}"
        )
        while rows := cursor.fetchmany(50_000):
            for original, replacement in rows:
                starts.append(names.setdefault(original, len(names)))
                ends.append(names.setdefault(replacement, len(names)))
    if not names:
        return
    graph = coo_array((numpy.ones(len(starts), dtype=numpy.int8), (starts, ends)), shape=(len(names), len(names)))
    _, component = connected_components(graph, directed=True, connection="strong")
    sizes = numpy.bincount(component)
    ringed = {name for name, index in names.items() if sizes[component[index]] > 1}
    rows = Statement.objects.filter(
        relation="supersedes", withdrawn_at__isnull=True, original__in=sorted(ringed)[: MOST * 4]
    )
    kept = [as_core(row) for row in rows if row.replacement in ringed]
    yield from [each for each in contradictions(kept) if each.kind == "cycle"][:MOST]
