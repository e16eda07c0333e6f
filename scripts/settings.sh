# Where this instance keeps its data and listens. Sourced with ROOT set; INSTANCE is the default
# folder below .data and OFFSET keeps the ports of tests, benchmarks and faults apart.
DATA="${STYLET_DATA:-$ROOT/.data/$INSTANCE}"
# The demo is where people look for it; all else takes what is free, so that two checkouts can be tested side by side.
free_port() { # FROM
  local port="$1"
  while (exec 3<>"/dev/tcp/127.0.0.1/$port") 2>/dev/null; do port=$((port + 1)); done
  echo "$port"
}
if [ "$INSTANCE" = demo ]; then
  export PORT="${PORT:-4600}" STYLET_DB_PORT="${STYLET_DB_PORT:-54600}"
else
  OWN=$((20000 + 10 * (0x$(printf %s "$ROOT" | sha256sum | cut -c1-6) % 1000) + OFFSET))
  export PORT="${PORT:-$(free_port "$OWN")}" STYLET_DB_PORT="${STYLET_DB_PORT:-$(free_port "$((OWN + 5))")}"
fi
mkdir -p "$DATA"
DATA="$(cd "$DATA" && pwd)"
# The fonts that typed text is set in.
export STYLET_FONTS="$ROOT/.data/fonts"
export STYLET_CACHE="$DATA/cache"
# Where a certificate of one's own is, or will be; tests bring theirs.
TLS="${STYLET_TLS:-$ROOT/.data/tls}"
if [ "$INSTANCE" = demo ]; then export STYLET_TLS_AT="$TLS"; fi
