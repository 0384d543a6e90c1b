#!/usr/bin/env bash
# npm start: everything from a fresh machine to a running Pasado.
source "$(dirname "${BASH_SOURCE[0]}")/setup.sh"
if [ -z "${DATABASE_URL:-}" ]; then
  need_packages mariadbd:mariadb-server-core my_print_defaults:mariadb-client-core
fi
need_modules
exec node scripts/run.mjs scripts/start.ts "$@"
