#!/usr/bin/env bash
# npm test: sets up what is missing, then runs every check and test. Each step says what it does; the first failure ends it.
set -euo pipefail
source "$(dirname "$0")/setup.sh"
source scripts/database.sh
source scripts/manual.sh

step() {
  local from=$SECONDS
  say "$1"
  shift
  "$@"
  say "  done in $((SECONDS - from)) s"
}

take_lock
require_node
require_debian postgres=postgresql chromium=chromium pdfinfo=poppler-utils qpdf=qpdf gs=ghostscript
fetch_manual maint-guide usr/share/doc/maint-guide/maint-guide.en.pdf
excerpt_manual maint-guide.en
install_packages
step "formatting" npm run --silent format:check
step "types" npm run --silent typecheck
step "lint" npm run --silent lint
build_all
trap 'db_stop test' EXIT
db_start test
release_lock
step "unit tests" npm run --silent unit
step "end-to-end tests in Chromium" npm run --silent e2e
say "all green in $SECONDS s"
