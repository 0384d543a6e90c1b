#!/usr/bin/env bash
# npm run bench: speed, as ratios against a baseline in the same run. npm run bench:labels: how well labels are read.
# npm run bench:diagnose: how well and how fast a planted fault is found.
# npm run bench:browser: how long a page is busy with a press.
# npm run bench:company: searches over a generated company, and a long visit.
# npm run bench:growth: every call in a small company and in a large one.
source "$(dirname "${BASH_SOURCE[0]}")/setup.sh"
what=main
case "${1:-}" in labels|diagnose|company|growth|browser) what=$1; shift ;; esac
case "$what" in main|company|growth|browser) need_packages mariadbd:mariadb-server-core my_print_defaults:mariadb-client-core ;; esac
case "$what" in browser) need_packages chromium-headless-shell:chromium-headless-shell ;; esac
need_modules
exec node --import tsx "bench/$what.ts" "$@"
