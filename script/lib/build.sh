# build_core: make the core ready for the browser when its source changed, in a folder that is called after what is in it
build_core() {
  local word sources
  word=$(find "$ROOT/core/twincore" "$ROOT/shown/twinshown" "$ROOT/requirements-browser.lock" "$ROOT/script/lib/pack.py" "$ROOT/web/pack.mjs" "$ROOT/web/node_modules/pyodide/package.json" -type f ! -name '*.pyc' ! -path '*/tests/*' -print0 | sort -z | xargs -0 cat | cksum | tr ' ' '-')
  if [ ! -f "$ROOT/web/public/core/$word/core.zip" ]; then
    stage "The core for the browser"
    sources=$(mktemp)
    "$PYTHON" "$ROOT/script/lib/pack.py" "$sources" "$DATA/wheels"
    rm -rf "$ROOT/web/public/core"
    (cd "$ROOT/web" && node pack.mjs "$sources" "public/core/$word")
    rm -f "$sources"
  fi
}

# build_web: build the client when its source changed, and gather what the server hands out
build_web() {
  local word
  build_core
  word=$( { ls "$ROOT/web/public/core"; find "$ROOT/web/src" "$ROOT/web/public" "$ROOT/web/index.html" "$ROOT/web/vite.config.ts" "$ROOT/web/package-lock.json" -type f ! -path '*/public/core/*' -print0 | sort -z | xargs -0 cat; } | cksum | tr ' ' '-')
  if ! stamped web "$word" || [ ! -f "$ROOT/web/dist/index.html" ] || [ ! -f "$ROOT/server/static_root/index.html" ]; then
    stage "Web client"
    (cd "$ROOT/web" && npx vite build --logLevel warn)
    rm -rf "$ROOT/server/static_root"
    TWIN_SECRET_KEY=build TWIN_DATABASE_URL=postgres://none/none "$PYTHON" "$ROOT/server/manage.py" collectstatic --noinput -v 0 --ignore ninja
    stamp web "$word"
  fi
}
