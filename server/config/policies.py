"""Where pages and workers may load from, and what files bear that are handed out as they are."""

from collections.abc import MutableMapping

POLICY = (
    "default-src 'self'; img-src 'self' data: blob:; style-src 'self' 'unsafe-inline'; "
    "object-src 'none'; base-uri 'none'; frame-ancestors 'none'; form-action 'self'"
)


CORE_POLICY = f"{POLICY}; script-src 'self' 'wasm-unsafe-eval'"
"""Of the worker in which the core runs, and of nothing else: it may compile the WebAssembly that we hand out."""
ISOLATED = "require-corp"
"""The embedder policy: pages take nothing in that is another's, so that they may share memory with the worker, and have it let
go of what it computes when something is entered.
"""
WORKER, DEVICE = "/static/assets/worker-", "/static/device.js"


def static_headers(headers: MutableMapping[str, str], path: str, url: str) -> None:
    """What files that are handed out as they are bear."""
    headers["Content-Security-Policy"] = CORE_POLICY if url.startswith(WORKER) else POLICY
    headers["Cross-Origin-Embedder-Policy"] = ISOLATED
    if url == DEVICE:
        # it answers for every page, not only for what lies beside it; and it is looked for anew at every opening
        headers["Service-Worker-Allowed"] = "/"
        headers["Cache-Control"] = "no-cache"
