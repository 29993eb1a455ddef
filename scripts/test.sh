#!/usr/bin/env bash
# npm test: sets up what is missing, then runs every check and test (checks.mjs). npm test -- PATTERN runs those tests
# whose file or title fits.
set -euo pipefail
source "$(dirname "$0")/setup.sh"
source scripts/database.sh
source scripts/manual.sh

take_lock
require_node
require_debian postgres=postgresql chromium-headless-shell=chromium-headless-shell pdfinfo=poppler-utils qpdf=qpdf gs=ghostscript openssl=openssl
fetch_manual maint-guide usr/share/doc/maint-guide/maint-guide.en.pdf
excerpt_manual maint-guide.en 8
excerpt_manual maint-guide.en 20
install_packages
draw_demo
trap 'stop_task; db_stop test' EXIT
db_start test
release_lock
task node scripts/checks.mjs "$@"
