#!/usr/bin/env bash
# npm run bench: prints the figures of the benchmarks. Needs what npm test sets up.
set -euo pipefail
source "$(dirname "$0")/setup.sh"
source scripts/database.sh

take_lock
require_node
require_debian postgres=postgresql chromium=chromium
install_packages
build_all
trap 'db_stop test' EXIT
db_start test
release_lock
npx playwright test --config bench/playwright.config.ts
