# Where this instance keeps its data and listens. Sourced with ROOT set; INSTANCE is the default
# folder below .data and OFFSET moves the default ports, so that tests never meet the demo.
DATA="${STYLET_DATA:-$ROOT/.data/$INSTANCE}"
export PORT="${PORT:-$((4600 + OFFSET))}"
export STYLET_DB_PORT="${STYLET_DB_PORT:-$((54600 + OFFSET))}"
mkdir -p "$DATA"
DATA="$(cd "$DATA" && pwd)"
export STYLET_CACHE="$DATA/cache"
# A certificate of one's own; tests bring theirs.
TLS="${STYLET_TLS:-$ROOT/.data/tls}"
if [ "$INSTANCE" = demo ] && [ -f "$TLS/server.pem" ]; then export STYLET_TLS="$TLS"; fi
