# Sourced by every script: where things are, and how a stage is told.
set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/../.." && pwd)
PYTHON="$ROOT/.venv/bin/python"
DATA="$ROOT/.data"
export PYTHONPATH="$ROOT/core:$ROOT/shown:$ROOT/server:$ROOT" DJANGO_SETTINGS_MODULE=config.settings
export PATH="$ROOT/.venv/bin:$PATH"

stage() { printf '\n== %s\n' "$*"; }
fail() { printf 'error: %s\n' "$*" >&2; exit 1; }

# fingerprint FILE…: one word that changes when any of the files does
fingerprint() { cat "$@" | cksum | tr ' ' '-'; }

# stamped NAME WORD: whether NAME was last stamped with WORD
stamped() { [ "$(cat "$DATA/stamps/$1" 2>/dev/null)" = "$2" ]; }
stamp() { mkdir -p "$DATA/stamps" && printf '%s' "$2" >"$DATA/stamps/$1"; }

free_port() { "$PYTHON" -c 'import socket; s = socket.socket(); s.bind(("127.0.0.1", 0)); print(s.getsockname()[1])'; }
secret() { "$PYTHON" -c 'import secrets; print(secrets.token_urlsafe(40))'; }
