"""Many people at work at once: a small HTTP client on asyncio, and what each of them does.

The client shares the processors with what it measures, so it does no more for a request than the load needs.
"""

import asyncio
import gzip
import json
import time
from dataclasses import dataclass, field
from random import Random
from typing import Any
from uuid import uuid4

EVERY = ("jobs", "session", "JOB", "steps-done", "JOB/earlier")
PAGES = {
    "rule_out": ("JOB/rule-out",),
    "choose": ("JOB/candidates?page=1&size=12", "families/retarder-prover"),
    "make_safe": ("JOB/make-safe",),
    "record": ("JOB/boards/original", "JOB/record", "JOB/comparison"),
    "carry_over": (
        "JOB/comparison", "JOB/boards/original", "JOB/boards/replacement", "JOB/wiring", "JOB/presses", "JOB/leaflet",
        "families/deck-oven",
    ),
    "prove": ("JOB/comparison", "families/deck-oven", "JOB/proving"),
}  # fmt: skip
"""What the page of a job asks for at each of its steps, after the job list and what every page asks for."""


class Closed(Exception):
    """The server closed a connection while a request was on its way."""


@dataclass
class Measured:
    """Seconds of every answer, and what went wrong."""

    seconds: list[float] = field(default_factory=list)
    entries: list[float] = field(default_factory=list)
    statuses: dict[int, int] = field(default_factory=dict)
    closed: int = 0

    def percentile(self, share: float) -> float:
        """Milliseconds within which this share of the requests was answered."""
        every = sorted(self.seconds + self.entries)
        return every[min(len(every) - 1, int(share * len(every)))] * 1000


class Connection:
    """One kept connection of one person, opened anew where it was closed while nothing was on its way."""

    def __init__(self, port: int, cookie: str) -> None:
        self.port, self.cookie = port, cookie
        self.open: tuple[asyncio.StreamReader, asyncio.StreamWriter] | None = None

    async def ask(self, method: str, path: str, body: Any = None, **headers: str) -> tuple[int, dict[str, str], bytes]:
        """One request. Raises Closed where the connection ends in the middle."""
        fresh = self.open is None
        try:
            return await self._ask(method, path, body, headers)
        except (OSError, asyncio.IncompleteReadError) as error:
            self.close()
            if fresh or method != "GET":
                raise Closed from error
        # as a browser does: a kept connection that had ended meanwhile is opened anew
        return await self._ask(method, path, body, headers)

    async def _ask(
        self, method: str, path: str, body: Any, headers: dict[str, str]
    ) -> tuple[int, dict[str, str], bytes]:
        if self.open is None:
            self.open = await asyncio.open_connection("127.0.0.1", self.port)
        reader, writer = self.open
        data = b"" if body is None else json.dumps(body).encode()
        head = {"Host": "127.0.0.1", "Cookie": self.cookie, "Accept-Encoding": "gzip", **headers}
        if data:
            head |= {"Content-Type": "application/json", "Content-Length": str(len(data))}
        lines = "".join(f"{name}: {value}\r\n" for name, value in head.items())
        writer.write(f"{method} {path} HTTP/1.1\r\n{lines}\r\n".encode() + data)
        first, *rest = (await reader.readuntil(b"\r\n\r\n")).decode("latin-1").split("\r\n")
        status = int(first.split()[1])
        told = {name.lower(): value for name, _, value in (line.partition(": ") for line in rest if line)}
        answered = b"" if status in (204, 304) else await reader.readexactly(int(told.get("content-length", 0)))
        if told.get("connection", "").lower() == "close":
            self.close()
        return status, told, gzip.decompress(answered) if told.get("content-encoding") == "gzip" else answered

    def close(self) -> None:
        """Let go of the connection."""
        if self.open is not None:
            self.open[1].close()
        self.open = None


@dataclass
class Someone:
    """A person at work on one job: goes through what a page asks for, and says something in one of ten requests."""

    connection: Connection
    token: str
    job: str
    step: str
    rng: Random
    tags: dict[str, str] = field(default_factory=dict)
    id: str = field(default_factory=lambda: str(uuid4()))
    said: dict[str, Any] | None = None
    turn: int = 0

    async def work(self, thought_s: float, until: float, measured: Measured, warm: float) -> None:
        """Ask, think, ask, until it is time to go; what is before `warm` is not measured."""
        await asyncio.sleep(self.rng.random() * (thought_s or 0.5))
        while time.monotonic() < until:
            entry = self.rng.random() < 0.1
            start = time.monotonic()
            try:
                status = await (self.say() if entry else self.look())
            except Closed:
                measured.closed += 1
                continue
            if start >= warm:
                measured.statuses[status] = measured.statuses.get(status, 0) + 1
                (measured.entries if entry else measured.seconds).append(time.monotonic() - start)
            if thought_s:
                await asyncio.sleep(thought_s * (0.5 + self.rng.random()))
        self.connection.close()

    async def look(self) -> int:
        """The next thing that a page asks for."""
        page = EVERY + PAGES.get(self.step, ())
        path = "/api/" + page[self.turn % len(page)].replace("JOB", f"jobs/{self.job}")
        self.turn += 1
        had = {"If-None-Match": self.tags[path]} if path in self.tags else {}
        status, told, _ = await self.connection.ask("GET", path, **had)
        if "etag" in told:
            self.tags[path] = told["etag"]
        return status

    async def say(self) -> int:
        """An entry of one's own."""
        after = {"what": f"noted {self.rng.randrange(1000)}", "until": "2030-01-01", "who": "somebody", "done": False}
        body = {"id": str(uuid4()), "target": f"defect.{self.id}", "before": self.said, "after": after}
        status, _, _ = await self.connection.ask(
            "POST", f"/api/jobs/{self.job}/entries", body, **{"X-CSRFToken": self.token, "Referer": "http://127.0.0.1/"}
        )
        if status == 200:
            self.said = after
        return status


async def everybody(people: list[Someone], thought_s: float, seconds: float, warm_s: float = 5.0) -> Measured:
    """Everybody at work for some seconds; the first ones, in which they come in, are not measured."""
    measured = Measured()
    begun = time.monotonic()
    until = begun + warm_s + seconds
    await asyncio.gather(*(each.work(thought_s, until, measured, begun + warm_s) for each in people))
    return measured
