#!/usr/bin/env bash
# npm run bench: speed, as ratios against a baseline in the same run. npm run bench:labels: how well labels are read.
# npm run bench:diagnose: how well and how fast a planted fault is found.
source "$(dirname "${BASH_SOURCE[0]}")/setup.sh"
what=main
case "${1:-}" in labels|diagnose) what=$1; shift ;; esac
[ "$what" = main ] && need_packages mariadbd:mariadb-server-core my_print_defaults:mariadb-client-core
need_modules
exec node --import tsx "bench/$what.ts" "$@"
