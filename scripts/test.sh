#!/usr/bin/env bash
# npm test: sets up what is missing, then runs every check and test. Each step says what it does; the first failure ends it.
set -euo pipefail
source "$(dirname "$0")/setup.sh"
source scripts/database.sh

# A manual that Debian ships as A4 PDF: real input that this project did not write. Fetched, never committed; unpacked
# beside the project, since minimal systems leave documentation out when a package is installed.
fetch_manual() {
  [ -f "$STATE/manual/maint-guide.en.pdf" ] && return
  say "fetching a manual from Debian to test with"
  mkdir -p "$STATE/manual"
  local work
  work=$(mktemp -d)
  chmod 755 "$work"
  (cd "$work" && apt-get download -qq maint-guide >/dev/null 2>&1) || {
    refresh_package_lists
    (cd "$work" && apt-get download -qq maint-guide)
  }
  dpkg-deb -x "$work"/maint-guide_*.deb "$work/x"
  cp "$work/x/usr/share/doc/maint-guide/maint-guide.en.pdf" "$STATE/manual/"
  rm -rf "$work"
}

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
fetch_manual
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
