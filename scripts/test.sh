#!/usr/bin/env bash
# npm test: types, lint, unit, integration and browser tests, from a fresh machine.
source "$(dirname "${BASH_SOURCE[0]}")/setup.sh"
need_packages mariadbd:mariadb-server-core my_print_defaults:mariadb-client-core mariadb-dump:mariadb-client chromium-headless-shell:chromium-headless-shell pdftotext:poppler-utils
need_modules
exec node --import tsx scripts/test.ts "$@"
