"""How the application is served. `gunicorn config.wsgi` reads this file by itself; its own options stand before it."""

import os
import shutil
import tempfile
from typing import Any

# what the processes count is gathered in files of theirs; said before the library that counts is loaded
COUNTS = "PROMETHEUS_MULTIPROC_DIR"
made_here = None if COUNTS in os.environ else tempfile.mkdtemp(prefix="worthy-twin-metrics-")
if made_here:
    os.environ[COUNTS] = made_here
from prometheus_client import multiprocess  # noqa: E402

# one computes while another waits for the database: as many workers as there are processors (see config/turns.py)
workers = int(os.environ.get("TWIN_WORKERS", os.cpu_count() or 2))
worker_class = "gthread"
threads = 8
# loaded once and shared: a worker that died is there again at once, without starving the others while it loads
preload_app = True
# no second way in, in the home of whoever runs this
control_socket_disable = True
# people think for longer than a request takes: their connections stay, and none is closed under what they send
keepalive = 75
worker_connections = 4000
backlog = 2048
graceful_timeout = 30
timeout = 120
loglevel = "warning"


def child_exit(server: Any, worker: Any) -> None:
    """Let go of what a process that ended kept open to be counted."""
    multiprocess.mark_process_dead(worker.pid)


def on_exit(server: Any) -> None:
    """Leave nothing behind that was made here."""
    if made_here:
        shutil.rmtree(made_here, ignore_errors=True)
