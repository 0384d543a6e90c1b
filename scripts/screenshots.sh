#!/usr/bin/env bash
# npm run screenshots: one picture of each main view, from the demo data, into docs/screenshots/.
source "$(dirname "${BASH_SOURCE[0]}")/setup.sh"
need_packages mariadbd:mariadb-server-core my_print_defaults:mariadb-client-core chromium:chromium
need_modules
exec node_modules/.bin/playwright test --config e2e/screenshots.config.ts --reporter=line
