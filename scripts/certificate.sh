# A certificate of one's own, so that other devices of the local network reach Stylet over https: browsers give much
# of what Stylet needs only there. Sourced with TLS, the folder, and the names and addresses as arguments.
make_certificate() {
  local names=("$@") alternatives=() name
  if [ ${#names[@]} -eq 0 ]; then
    names=("$(hostname)" "$(hostname).local")
    for name in $(hostname -I 2>/dev/null); do [[ "$name" == *:* ]] || names+=("$name"); done
  fi
  for name in localhost 127.0.0.1 "${names[@]}"; do
    if [[ "$name" =~ ^[0-9]+(\.[0-9]+){3}$ ]]; then alternatives+=("IP:$name"); else alternatives+=("DNS:$name"); fi
  done
  mkdir -p "$TLS"
  chmod 700 "$TLS"
  # The authority stays when names are added: devices that trust it need not be told again.
  if [ ! -f "$TLS/authority.key" ]; then
    openssl req -x509 -newkey ec -pkeyopt ec_paramgen_curve:P-256 -nodes -days 3650 -subj "/CN=Stylet on $(hostname)" \
      -addext "basicConstraints=critical,CA:TRUE,pathlen:0" -addext "keyUsage=critical,keyCertSign" \
      -keyout "$TLS/authority.key" -out "$TLS/authority.pem" 2>/dev/null
  fi
  openssl req -newkey ec -pkeyopt ec_paramgen_curve:P-256 -nodes -subj "/CN=${names[0]}" \
    -keyout "$TLS/server.key" -out "$TLS/server.csr" 2>/dev/null
  # Some devices trust none that is valid for longer (common practice, no source).
  openssl x509 -req -in "$TLS/server.csr" -CA "$TLS/authority.pem" -CAkey "$TLS/authority.key" -CAcreateserial -days 820 \
    -extfile <(printf 'subjectAltName=%s\nextendedKeyUsage=serverAuth\nbasicConstraints=CA:FALSE\n' \
      "$(IFS=,; echo "${alternatives[*]}")") -out "$TLS/server.pem" 2>/dev/null
  rm -f "$TLS/server.csr"
  cat <<TOLD
There is a certificate now for: ${names[*]}
1. Stylet answers at https://${names[0]}:${STYLET_TLS_PORT:-4643} in a few seconds; start it if it does not run.
2. On each device open https://${names[0]}:${STYLET_TLS_PORT:-4643}/authority.crt once, go on in spite of the warning,
   and have the device trust that certificate. It speaks for this machine alone; its key never leaves $TLS
TOLD
}
