"""A stand-in for a parts desk: one question over HTTP, answered from a seed. Run: python -m standins.parts_desk --port N.

GET /parts?part_number=… answers {"part_number", "price", "stock", "on_van", "days"} as JSON, or 404 for a part that it
does not know. PUT /mood with {"mood": "well" | "slow" | "failing" | "nonsense" | "away"} changes how it behaves.
"""

import argparse
import json
import random
import time
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from urllib.parse import parse_qs, urlparse

from standins.answering import JsonHandler

MOODS = ("well", "slow", "failing", "nonsense", "away")
SLOW_S = 5.0


class Desk:
    """What the desk knows, made up from a seed: the same part always has the same answer."""

    def __init__(self, seed: int, mood: str = "well") -> None:
        self.seed, self.mood = seed, mood

    def answer(self, part_number: str) -> dict[str, object] | None:
        """Price, stock and days of a part; None for numbers that are no part's."""
        if not part_number.strip() or part_number.startswith(("SQ-", "LRT-")):
            return None
        rng = random.Random(f"{self.seed} {part_number}")
        universal = part_number.startswith("OFN")
        stock = rng.choice([0, 0, 1, 2, 5]) if not universal else rng.choice([1, 2, 5, 8])
        return {
            "part_number": part_number,
            "price": round(rng.uniform(45, 110) if universal else rng.uniform(80, 320), 2),
            "stock": stock,
            "on_van": stock > 0 and rng.random() < 0.4,
            "days": None if rng.random() < 0.1 and not stock else rng.choice([1, 2, 3, 5, 9, 21]),
        }


def handler_of(desk: Desk) -> type[BaseHTTPRequestHandler]:
    """The request handler of a desk."""

    class Handler(JsonHandler):
        def do_GET(self) -> None:
            address = urlparse(self.path)
            if address.path == "/mood":
                self.send_json(200, {"mood": desk.mood})
            elif address.path != "/parts":
                self.send_json(404, {"error": "expected /parts"})
            elif desk.mood == "failing":
                self.send_json(503, {"error": "stock list is being counted"})
            elif desk.mood == "nonsense":
                self.send_json(200, {"part_number": "?", "price": "ask Berrit", "stock": -3})
            elif desk.mood == "away":
                self.close_connection = True
            else:
                if desk.mood == "slow":
                    time.sleep(SLOW_S)
                part_number = parse_qs(address.query).get("part_number", [""])[0]
                found = desk.answer(part_number)
                self.send_json(200 if found else 404, found or {"error": "not a part of ours"})

        def do_PUT(self) -> None:
            body = self.rfile.read(min(int(self.headers.get("Content-Length", 0)), 10_000))
            try:
                mood = json.loads(body)["mood"]
            except (ValueError, KeyError, TypeError):
                mood = None
            if self.path != "/mood" or mood not in MOODS:
                self.send_json(400, {"error": f"expected PUT /mood with one of {', '.join(MOODS)}"})
                return
            desk.mood = mood
            self.send_json(200, {"mood": mood})

    return Handler


class _Server(ThreadingHTTPServer):
    daemon_threads = True

    def handle_error(self, request: object, client_address: object) -> None:
        """Say nothing where a client did not wait for its answer."""


def serve(port: int = 0, seed: int = 7, mood: str = "well") -> ThreadingHTTPServer:
    """A desk on loopback, not yet answering; port 0 takes a free one."""
    return _Server(("127.0.0.1", port), handler_of(Desk(seed, mood)))


def main() -> None:
    """Serve until stopped."""
    parser = argparse.ArgumentParser(description="A simulated parts desk on loopback.")
    parser.add_argument("--port", type=int, default=8801)
    parser.add_argument("--seed", type=int, default=7)
    parser.add_argument("--mood", choices=MOODS, default="well")
    args = parser.parse_args()
    server = serve(args.port, args.seed, args.mood)
    print(f"parts desk on http://127.0.0.1:{server.server_address[1]}", flush=True)
    try:
        server.serve_forever()
    except KeyboardInterrupt:
        server.server_close()
