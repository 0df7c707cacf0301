"""What the stand-ins' HTTP controls have in common: JSON answers, and not a word of each question."""

import json
from http.server import BaseHTTPRequestHandler
from typing import Any


class JsonHandler(BaseHTTPRequestHandler):
    """A request handler that answers in JSON."""

    def send_json(self, status: int, body: Any) -> None:
        """An answer, whole."""
        data = json.dumps(body).encode()
        self.send_response(status)
        self.send_header("Content-Type", "application/json")
        self.send_header("Content-Length", str(len(data)))
        self.end_headers()
        self.wfile.write(data)

    def log_message(self, format: str, *args: Any) -> None:
        """Say nothing of each question."""
