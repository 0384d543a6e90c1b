#!/usr/bin/env bash
# npm run bench: speed, as ratios against a baseline in the same run.
source "$(dirname "${BASH_SOURCE[0]}")/setup.sh"
need_packages mariadbd:mariadb-server-core my_print_defaults:mariadb-client-core
need_modules
exec node --import tsx bench/main.ts "$@"
