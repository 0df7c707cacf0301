"""What a board's port shows, streamed to the browser as it changes; a port that goes silent and comes back is told."""

import json
from collections.abc import Callable, Iterator
from threading import BoundedSemaphore
from time import monotonic, sleep, time
from typing import Any

from jobs.ports.reading import BoardPort, PortSilent, connected, look
from twinshown.refusals import Refused

EVERY_S = 0.1


RETRY_S = 0.5


LONGEST_S = 300.0
"""After this the browser asks anew: no stream holds a server's thread for ever."""


BEAT_S = 2.0


MOST_STREAMS = 3


_open = BoundedSemaphore(MOST_STREAMS)


def stream_port(
    at: BoardPort, wait: Callable[[float], None] = sleep, clock: Callable[[], float] = monotonic,
    longest_s: float = LONGEST_S, allowed: Callable[[], bool] = lambda: True,
) -> Iterator[str]:  # fmt: skip
    """Server-sent events: `now` with what is on whenever it changes, `here` while nothing does, `lost` and `back` when
    the port does.

    Each `now` says how old the look before it was (`within`): the change came in that time. Raises Refused, before anything
    is sent, when too many look already. Once nobody who may look is signed in (`allowed`), it ends within a beat.
    """
    if not _open.acquire(blocking=False):
        raise Refused("Too many screens watch a port just now. Close one, or go on by tapping.")
    return _events(at, wait, clock, longest_s, allowed)


def _events(
    at: BoardPort, wait: Callable[[float], None], clock: Callable[[], float], longest_s: float,
    allowed: Callable[[], bool],
) -> Iterator[str]:  # fmt: skip
    begun = clock()
    last: dict[str, list[str]] | None = None
    looked, beat, silent = begun, begun, False
    asked = begun

    def goes_on() -> bool:
        """Whether somebody who may look still does, and not for too long."""
        nonlocal asked
        if clock() - begun >= longest_s:
            return False
        if clock() - asked < BEAT_S:
            return True
        asked = clock()
        return allowed()

    try:
        while goes_on():
            try:
                with connected(at) as client:
                    while goes_on():
                        on = look(client, at.map)
                        now = clock()
                        if silent:
                            silent = False
                            yield _event("back", {})
                        if on != last:
                            yield _event("now", {**on, "at": time(), "within": round(now - looked, 3)})
                            last, beat = on, now
                        elif now - beat >= BEAT_S:
                            # nothing changed until now; and a browser that has gone away is found out by writing to it
                            yield _event("here", {"at": time()})
                            beat = now
                        looked = now
                        wait(EVERY_S)
            except PortSilent as error:
                if not silent:
                    silent = True
                    yield _event("lost", {"why": str(error)})
                wait(RETRY_S)
        yield _event("end", {})
    finally:
        _open.release()


def _event(name: str, data: dict[str, Any]) -> str:
    return f"event: {name}\ndata: {json.dumps(data)}\n\n"
