"""What a piece of work costs, measured in a process of its own; and how often a random test is run."""

import json
import os
import signal
from collections.abc import Callable
from dataclasses import dataclass
from resource import RUSAGE_SELF, getrusage
from time import process_time
from typing import Any

LONG = os.environ.get("TWIN_LONG") == "1"
"""Whether this is the long check: `script/check long`."""
LONGEST_S = 60


def rounds(short: int, long: int) -> int:
    """How many rounds a random test has."""
    return long if LONG else short


@dataclass(frozen=True, slots=True)
class Cost:
    """Seconds of one core, megabytes beyond what was there before, and how it ended."""

    seconds: float
    megabytes: float
    said: str


def cost(work: Callable[[], Any], refused: tuple[type[Exception], ...]) -> Cost:
    """What a piece of work costs. It ends as `done`, `refused: …`, or `failed: …` for whatever else it raises."""
    reading, writing = os.pipe()
    child = os.fork()
    if child == 0:
        os.close(reading)
        _tell(writing, work, refused)
    os.close(writing)
    with os.fdopen(reading) as told:
        text = told.read()
    os.waitpid(child, 0)
    return Cost(*json.loads(text)) if text else Cost(LONGEST_S, 0, "failed: it did not end")


def _tell(writing: int, work: Callable[[], Any], refused: tuple[type[Exception], ...]) -> None:
    said = "done"
    try:
        signal.alarm(LONGEST_S)
        before, began = getrusage(RUSAGE_SELF).ru_maxrss, process_time()
        try:
            work()
        except refused as error:
            said = f"refused: {error}"[:300]
        except BaseException as error:
            said = f"failed: {type(error).__name__} {error}"[:300]
        used = (getrusage(RUSAGE_SELF).ru_maxrss - before) / 1000
        os.write(writing, json.dumps([process_time() - began, used, said]).encode())
    finally:
        os._exit(0)
