#!/usr/bin/env bash
# Installs what is missing on a machine that has Node.js and Debian only. Sourced with a list of what is needed:
#   need_packages mariadb-server-core … ; need_modules
set -euo pipefail
root="$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)"
cd "$root"

node_major="$(node -p 'process.versions.node.split(".")[0]')"
if [ "$node_major" -lt 20 ]; then
  echo "Pasado needs Node.js 20 or newer; this is $(node --version)." >&2
  exit 1
fi

# command:package pairs; installs the packages whose command is not there.
need_packages() {
  local missing=() pair
  for pair in "$@"; do
    command -v "${pair%%:*}" >/dev/null 2>&1 || missing+=("${pair##*:}")
  done
  [ "${#missing[@]}" -eq 0 ] && return 0
  if [ "$(id -u)" -ne 0 ]; then
    echo "Missing on this machine: ${missing[*]}. Install them, then run this again:" >&2
    echo "  sudo apt-get update && sudo apt-get install -y --no-install-recommends ${missing[*]}" >&2
    exit 1
  fi
  echo "Installing ${missing[*]} …"
  export DEBIAN_FRONTEND=noninteractive
  { apt-get update -qq && apt-get install -y -qq --no-install-recommends "${missing[@]}"; } >"$root/.data/apt.log" 2>&1 \
    || { tail -20 "$root/.data/apt.log" >&2; echo "Debian's packages could not be installed: ${missing[*]}" >&2; exit 1; }
}

# Installs the npm packages where they are not those of the lock file.
need_modules() {
  local stamp="node_modules/.pasado-lock"
  if [ ! -f "$stamp" ] || ! cmp -s package-lock.json "$stamp"; then
    echo "Installing npm packages …"
    npm ci --no-audit --no-fund --loglevel=error
    cp package-lock.json "$stamp"
  fi
}

mkdir -p "$root/.data"
chmod 700 "$root/.data"
export PATH="$PATH:/usr/sbin:/sbin"
