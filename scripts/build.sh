# Builds the server and the web client when their sources have changed.

sources_digest() {
  (cd "$ROOT" && find core/src server/src server/migrations server/data server/build.mjs web/src web/join-chunks.mjs web/make-service-worker.mjs web/ngsw-config.json angular.json web/public \
    demo/src web/tsconfig*.json tsconfig.base.json package-lock.json -type f -print0 | sort -z |
    xargs -0 sha256sum | sha256sum)
}

# Lays the fonts of typed text where the server, the web client's build and tests take them from.
gather_fonts() {
  local want stamp="$STYLET_FONTS/.stamp"
  want="$(sha256sum <"$ROOT/scripts/gather-fonts.mjs")$(sha256sum <"$ROOT/package-lock.json")"
  [ "$want" = "$(cat "$stamp" 2>/dev/null || true)" ] && return
  . "$ROOT/scripts/documents.sh"
  fetch_references fonts-droid-fallback fonts-unifont
  node "$ROOT/scripts/gather-fonts.mjs" "$STYLET_FONTS" "$ROOT/.data/references" || exit 1
  printf '%s\n' "$want" >"$stamp"
}

build_all() {
  gather_fonts
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
