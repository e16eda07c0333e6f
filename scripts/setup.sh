# Installs what is missing: Debian's packages and the npm packages of the lock file.

need_package() { # COMMAND-OR-FILE PACKAGE
  command -v "$1" >/dev/null 2>&1 || compgen -G "$1" >/dev/null || MISSING+=("$2")
}

# What is needed always, and more: PROGRAM:PACKAGE …
install_debian_packages() {
  MISSING=()
  local more
  need_package '/usr/lib/postgresql/*/bin/initdb' postgresql
  need_package chromium-headless-shell chromium-headless-shell
  need_package qpdf qpdf
  need_package pdftotext poppler-utils
  need_package mutool mupdf-tools
  need_package rsvg-convert librsvg2-bin
  for more in "$@"; do need_package "${more%%:*}" "${more#*:}"; done
  [ ${#MISSING[@]} -eq 0 ] && return
  echo "Installing Debian packages: ${MISSING[*]}"
  local as_root=()
  [ "$(id -u)" -eq 0 ] || as_root=(sudo)
  "${as_root[@]}" apt-get update -qq
  DEBIAN_FRONTEND=noninteractive "${as_root[@]}" apt-get install -y -qq --no-install-recommends \
    "${MISSING[@]}" >"$DATA/apt.log" 2>&1 || { tail -20 "$DATA/apt.log"; exit 1; }
}

install_npm_packages() {
  local want have stamp="$ROOT/node_modules/.stylet-lock"
  want="$(sha256sum <"$ROOT/package-lock.json")"
  have="$(cat "$stamp" 2>/dev/null || true)"
  [ "$want" = "$have" ] && return
  echo "Installing npm packages"
  (cd "$ROOT" && PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --loglevel=error >"$DATA/npm.log" 2>&1) ||
    { tail -20 "$DATA/npm.log"; exit 1; }
  printf '%s\n' "$want" >"$stamp"
}

check_node() {
  node -e 'process.exit(Number(process.versions.node.split(".")[0]) >= 20 ? 0 : 1)' 2>/dev/null ||
    { echo "Stylet needs Node.js 20 or newer on the PATH."; exit 1; }
}
