# Builds the server and the web client when their sources have changed.

sources_digest() {
  (cd "$ROOT" && find core/src server/src server/migrations server/data server/build.mjs web/src web/join-chunks.mjs web/make-service-worker.mjs web/ngsw-config.json angular.json web/public \
    demo/src web/tsconfig*.json tsconfig.base.json package-lock.json -type f -print0 | sort -z |
    xargs -0 sha256sum | sha256sum)
}

build_all() {
  local want stamp="$ROOT/server/dist/.digest"
  want="$(sources_digest)"
  if [ "$want" = "$(cat "$stamp" 2>/dev/null || true)" ] && [ -d "$ROOT/web/dist/browser" ]; then return; fi
  echo "Building"
  (cd "$ROOT" && node server/build.mjs) || exit 1
  (cd "$ROOT" && NG_CLI_ANALYTICS=false npx ng build >"$DATA/web-build.log" 2>&1) ||
    { cat "$DATA/web-build.log"; exit 1; }
  (cd "$ROOT" && node web/join-chunks.mjs && node web/make-service-worker.mjs) || exit 1
  printf '%s\n' "$want" >"$stamp"
}
