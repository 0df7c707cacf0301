"""Ways from an original to what may replace it: chains of statements, with what they ask for and what ends them."""

from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from heapq import heappop, heappush
from math import prod
from typing import Any

from twincore.choose.statements import CHAINED, Statement
from twincore.profile.facts import missing_facts

LONGEST_CHAIN = 8
MOST_PATHS = 3
"""Ways kept for each board: the next best serves where the best is forbidden."""

Lookup = Callable[[Collection[str]], Iterable[Statement]]
"""All statements of which one of these boards is an original, or the replacement of a `same`."""


@dataclass(frozen=True, slots=True)
class Link:
    """A statement as a step of a way, from one board to another."""

    origin: str
    target: str
    statement: Statement


@dataclass(frozen=True, slots=True)
class Way:
    """How a candidate comes to stand for the original: links in order, and facts that would still decide.

    `mean` is the chance that every link holds, the links taken as independent.

    `forbidden` is a "not exchangeable" between two boards of the way; `perhaps_forbidden` one that hangs on facts.
    """

    replacement: str
    links: tuple[Link, ...]
    missing: tuple[str, ...]
    mean: float
    forbidden: Statement | None = None
    perhaps_forbidden: Statement | None = None

    @property
    def statements(self) -> tuple[Statement, ...]:
        """The statements of the way."""
        return tuple(link.statement for link in self.links)

    @property
    def relation(self) -> str:
        """What the last link says."""
        return self.links[-1].statement.relation

    @property
    def needs(self) -> tuple[str, ...]:
        """What all links together ask for, each once."""
        return tuple(dict.fromkeys(need for each in self.statements for need in each.needs))


@dataclass(frozen=True, slots=True)
class Ways:
    """Every candidate with its best way; other ways out; and statements that do not apply to this machine."""

    to: dict[str, Way]
    others: tuple[Statement, ...]
    elsewhere: tuple[Statement, ...]

    def elsewhere_of(self, replacement: str) -> list[Statement]:
        """What is said of a replacement for other machines."""
        return [each for each in self.elsewhere if each.replacement == replacement]


def find_ways(original: str, lookup: Lookup, facts: Mapping[str, Any], day: date | None = None) -> Ways:
    """All boards that statements lead to from an original, cheapest way first.

    Chains run over `same` (both directions) and `supersedes` (forward) only; a universal board or kit is reached
    from the original or from what is the same as it. `not exchangeable` between any two boards of a way ends it.
    """
    graph = _Graph(lookup, facts, day)
    found: dict[str, list[Way]] = {}
    others: dict[str, Statement] = {}
    queue: list[tuple[float, int, str, tuple[Link, ...]]] = [(0.0, 0, original, ())]
    count = 0
    visits: dict[str, int] = {}
    while queue:
        _, _, at, links = heappop(queue)
        if visits.get(at, 0) >= MOST_PATHS:
            continue
        visits[at] = visits.get(at, 0) + 1
        if links:
            found.setdefault(at, []).append(graph.way(original, links))
        if len(links) >= LONGEST_CHAIN:
            continue
        same_so_far = all(link.statement.relation == "same" for link in links)
        been = {original, *(link.target for link in links)}
        for link in graph.links_from(at):
            relation = link.statement.relation
            if relation in ("exchange", "repair", "donor"):
                if same_so_far:
                    others[link.statement.id] = link.statement
            elif relation in CHAINED and link.target not in been:
                count += 1
                longer = (*links, link)
                heappush(queue, (graph.cost(longer), count, link.target, longer))
            elif relation in ("universal", "kit") and same_so_far and link.target not in been:
                found.setdefault(link.target, []).append(graph.way(original, (*links, link)))
    best = {
        name: min(ways, key=lambda way: (way.forbidden is not None, len(way.missing), -way.mean, len(way.links)))
        for name, ways in found.items()
    }
    for name, statement in graph.forbidden_from(original).items():
        best.setdefault(name, Way(name, (Link(original, name, statement),), (), 0.0, statement))
    return Ways(best, tuple(others.values()), tuple(graph.elsewhere.values()))


class _Graph:
    """The statements met so far, read one board at a time from the lookup."""

    def __init__(self, lookup: Lookup, facts: Mapping[str, Any], day: date | None) -> None:
        self._lookup, self._facts, self._day = lookup, facts, day
        self._about: dict[str, list[Statement]] = {}
        self.elsewhere: dict[str, Statement] = {}

    def about(self, board: str) -> list[Statement]:
        if board not in self._about:
            self._about[board] = sorted(
                (each for each in self._lookup([board]) if each.valid_on(self._day)), key=lambda each: each.id
            )
        return self._about[board]

    def _applies(self, statement: Statement) -> bool:
        if missing_facts(statement.conditions, self._facts) is None:
            self.elsewhere[statement.id] = statement
            return False
        return True

    def links_from(self, board: str) -> list[Link]:
        links = []
        for each in self.about(board):
            if each.relation == "not exchangeable" or not self._applies(each):
                continue
            if board in each.originals:
                links.append(Link(board, each.replacement, each))
            elif each.relation == "same" and each.replacement == board:
                links.append(Link(board, each.original, each))
        return links

    def cost(self, links: Sequence[Link]) -> float:
        return len(self._missing(links)) * 10 + len(links) - prod(link.statement.mean for link in links)

    def _missing(self, links: Sequence[Link]) -> tuple[str, ...]:
        names = [name for link in links for name in missing_facts(link.statement.conditions, self._facts) or ()]
        return tuple(dict.fromkeys(names))

    def way(self, original: str, links: tuple[Link, ...]) -> Way:
        boards = [original, *(link.target for link in links)]
        forbidden = perhaps = None
        for index, one in enumerate(boards):
            for each in self.about(one):
                if each.relation != "not exchangeable" or each.original != one:
                    continue
                if each.replacement in boards[index + 1 :]:
                    missing = missing_facts(each.conditions, self._facts)
                    if missing == ():
                        forbidden = forbidden or each
                    elif missing is not None:
                        perhaps = perhaps or each
        mean = prod(link.statement.mean for link in links)
        return Way(boards[-1], links, self._missing(links), mean, forbidden, perhaps)

    def forbidden_from(self, board: str) -> dict[str, Statement]:
        return {
            each.replacement: each
            for each in self.about(board)
            if each.relation == "not exchangeable"
            and each.original == board
            and missing_facts(each.conditions, self._facts) == ()
        }
