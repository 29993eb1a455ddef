#!/usr/bin/env bash
# npm run bench: prints the figures of the benchmarks. Needs what npm test sets up.
set -euo pipefail
source "$(dirname "$0")/setup.sh"
source scripts/database.sh

take_lock
require_node
require_debian postgres=postgresql chromium=chromium gs=ghostscript
install_packages
build_all
trap 'db_stop test' EXIT
db_start test
release_lock
say "the planning core in Node"
# Built as the server is: what runs TypeScript as it stands adds costs of its own to every function.
npx esbuild bench/core.ts --bundle --platform=node --format=esm --packages=external --tsconfig=tsconfig.base.json \
  --log-level=warning --outfile="$STATE/bench/core.mjs"
node "$STATE/bench/core.mjs"
say "in Chromium"
npx playwright test --config bench/playwright.config.ts
