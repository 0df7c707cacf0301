"""Effort: what one question may cost in all, counted in work and in memory and handed down through every search that it needs.

Counted, not timed: the same question ends at the same place on every machine, on the server and in the browser.
"""

A_SECOND = 1_000_000
"""Units of work that take about a second (measured on the machine of the bench; in a browser three to four)."""
MEMORY = 150_000_000
"""Bytes that the zones of a question may take up, roughly counted."""
ARRIVAL = 250
"""Units of work that one of the arrivals of a limit stands for: 40,000 are ten seconds."""


class Spent(Exception):
    """A question has cost all that it may: what was found by then is the answer."""


class Effort:
    """What is left to spend. Of a share the share is spent, and all that it is a share of."""

    __slots__ = ("room", "whole", "work")

    def __init__(self, work: int, room: int = MEMORY, whole: "Effort | None" = None) -> None:
        self.work, self.room, self.whole = work, room, whole

    def spend(self, units: int) -> None:
        """Spend some units of work. Raises Spent where there are not so many left."""
        spent: Effort | None = self
        while spent is not None:
            spent.work -= units
            spent = spent.whole
        if self.work < 0:
            raise Spent

    def fill(self, places: int) -> None:
        """Take up memory by so many numbers that are kept. Raises Spent where there is no room."""
        self.room -= 40 * places
        if self.room < 0:
            raise Spent

    def share(self, part: float) -> "Effort":
        """A part of what is left, with all of the memory, which is given back when the part's search is over."""
        return Effort(int(self.work * part), self.room, self)

    @property
    def over(self) -> bool:
        """Whether nothing is left."""
        return self.work <= 0


def effort_of(limit: int) -> Effort:
    """The effort that a limit of arrivals stands for."""
    return Effort(limit * ARRIVAL)
