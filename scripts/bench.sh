#!/usr/bin/env bash
# npm run bench: prints the figures of the benchmarks. Needs what npm test sets up.
set -euo pipefail
source "$(dirname "$0")/setup.sh"
source scripts/database.sh
source scripts/manual.sh

take_lock
require_node
require_debian postgres=postgresql chromium-headless-shell=chromium-headless-shell gs=ghostscript qpdf=qpdf time=time
install_packages
# What the template of databases is made with, and a thousand pages and more.
fetch_manual maint-guide usr/share/doc/maint-guide/maint-guide.en.pdf
fetch_manual octave-doc usr/share/doc/octave/octave.pdf
draw_demo
build_all
trap 'stop_task; db_stop test' EXIT
db_start test
release_lock
say "the planning core in Node"
# Built as the server is: what runs TypeScript as it stands adds costs of its own to every function.
npx esbuild bench/core.ts bench/commands.ts --bundle --splitting --platform=node --format=esm \
  --packages=external --alias:@cantoo/pdf-lib=./node_modules/@cantoo/pdf-lib/dist/pdf-lib.esm.min.js \
  --tsconfig=tsconfig.base.json --log-level=warning --out-extension:.js=.mjs --outdir="$STATE/bench"
node "$STATE/bench/core.mjs"
# A collection of garbage copies what is alive, and falls on few runs of the small works but on every run of the large
# one. With room for a whole run before it is due, the middle runs of both are comparable too.
say "the same with room for a whole run before garbage is collected"
node --max-semi-space-size=256 "$STATE/bench/core.mjs"
say "the command line, as whole processes"
node "$STATE/bench/commands.mjs" "$STATE/bench" "$STATE/manual/octave.pdf" "$STATE/demo"
say "with the server, and in Chromium"
npx playwright test --config bench/playwright.config.ts
