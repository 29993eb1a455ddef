#!/usr/bin/env bash
# Builds what changed since it was last built: sourced functions of setup.sh, as a program that takes the lock.
set -euo pipefail
source "$(dirname "$0")/setup.sh"
take_lock
build_all
