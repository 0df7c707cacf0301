# build_web: build the client when its source changed, and gather what the server hands out
build_web() {
  local word
  word=$(find "$ROOT/web/src" "$ROOT/web/public" "$ROOT/web/index.html" "$ROOT/web/vite.config.ts" "$ROOT/web/package-lock.json" -type f -print0 | sort -z | xargs -0 cat | cksum | tr ' ' '-')
  if ! stamped web "$word" || [ ! -f "$ROOT/web/dist/index.html" ] || [ ! -f "$ROOT/server/static_root/index.html" ]; then
    stage "Web client"
    (cd "$ROOT/web" && npx vite build --logLevel warn)
    rm -rf "$ROOT/server/static_root"
    TWIN_SECRET_KEY=build TWIN_DATABASE_URL=postgres://none/none "$PYTHON" "$ROOT/server/manage.py" collectstatic --noinput -v 0 --ignore ninja
    stamp web "$word"
  fi
}
