#!/usr/bin/env bash
# npm run bench: speed, as ratios against a baseline in the same run. npm run bench:labels: how well labels are read.
source "$(dirname "${BASH_SOURCE[0]}")/setup.sh"
what=main
if [ "${1:-}" = labels ]; then what=labels; shift; fi
[ "$what" = main ] && need_packages mariadbd:mariadb-server-core my_print_defaults:mariadb-client-core
need_modules
exec node --import tsx "bench/$what.ts" "$@"
