# Real PDFs for tests and benchmarks, and what they are compared with, out of small packages of Debian.

# Unpacks packages below .data/documents and leaves the PDFs, unzipped, in a folder of each name.
fetch_documents() { # PACKAGE …
  local package work folder="$ROOT/.data/documents"
  mkdir -p "$folder"
  for package in "$@"; do
    [ -f "$folder/$package/.complete" ] && continue
    work="$(mktemp -d "$folder/fetch.XXXXXX")"
    unpack_package "$package" "$work"
    find "$work/unpacked" -type f -name '*.pdf.gz' -exec gunzip -f {} +
    mkdir -p "$folder/$package"
    find "$work/unpacked" -type f -name '*.pdf' -exec cp {} "$folder/$package/" \;
    rm -rf "$work"
    touch "$folder/$package/.complete"
  done
}

# Unpacks packages whole, as references for tests, in a folder of each name below .data/references.
fetch_references() { # PACKAGE …
  local package work folder="$ROOT/.data/references"
  mkdir -p "$folder"
  for package in "$@"; do
    [ -d "$folder/$package" ] && continue
    work="$(mktemp -d "$folder/fetch.XXXXXX")"
    unpack_package "$package" "$work"
    mv "$work/unpacked" "$folder/$package"
    rm -rf "$work"
  done
}

# Leaves what is in a package in FOLDER/unpacked.
unpack_package() { # PACKAGE FOLDER
  echo "Fetching $1"
  download_package "$1" "$2"
  dpkg -x "$2"/*.deb "$2/unpacked"
}

download_package() { # PACKAGE FOLDER
  # apt's own user must be able to write here.
  chmod 777 "$2"
  (cd "$2" && apt-get download "$1" >/dev/null 2>&1) && return
  apt-get update -qq >/dev/null 2>&1 || true
  (cd "$2" && apt-get download "$1" >/dev/null 2>&1) && return
  echo "Debian's package $1 cannot be fetched; check the network and /etc/apt."
  exit 1
}
