# Set-up shared by start.sh, test.sh and bench.sh: sourced, not run. Every step is skipped where its result is there.
# Folders: .foglio/ in the project holds all state that git does not (stamps, passwords, ports, printers' output).

cd "$(dirname "${BASH_SOURCE[0]}")/.."
ROOT=$PWD
STATE=$ROOT/.foglio
mkdir -p "$STATE"

say() { if [ -t 1 ]; then printf '\033[1mfoglio: %s\033[0m\n' "$*"; else printf 'foglio: %s\n' "$*"; fi; }
fail() {
  printf '%s\n' "foglio: $*" >&2
  exit 1
}

# Takes the lock that install, build and database start share; descriptor 9 is closed for whatever keeps running.
take_lock() {
  exec 9>"$STATE/lock"
  flock 9
}
release_lock() { exec 9>&-; }

require_node() {
  command -v node >/dev/null || fail "Node.js 20.19 or newer is needed; install it first"
  node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit(a > 20 || (a === 20 && b >= 19) ? 0 : 1)' ||
    fail "Node.js 20.19 or newer is needed; this is $(node --version)"
}

# How this user does what only root may: nothing for root, otherwise sudo; fails where there is neither.
as_root() {
  if [ "$(id -u)" -eq 0 ]; then
    "$@"
  else
    sudo "$@"
  fi
}

refresh_package_lists() { as_root apt-get update -qq; }

# Installs the Debian packages given as COMMAND=PACKAGE pairs whose command is missing.
require_debian() {
  local missing=() pair
  for pair in "$@"; do
    if [ "${pair%%=*}" = postgres ]; then
      compgen -G '/usr/lib/postgresql/*/bin/postgres' >/dev/null || missing+=("${pair#*=}")
    else
      command -v "${pair%%=*}" >/dev/null || missing+=("${pair#*=}")
    fi
  done
  [ ${#missing[@]} -eq 0 ] && return
  if [ "$(id -u)" -ne 0 ] && ! { command -v sudo >/dev/null && sudo -v 2>/dev/null; }; then
    fail "these Debian packages are missing and this user may not install them: ${missing[*]}"
  fi
  command -v apt-get >/dev/null || fail "these packages are missing and there is no apt-get: ${missing[*]}"
  say "installing Debian packages: ${missing[*]}"
  # Debian would otherwise make and start a cluster of its own with the package.
  as_root mkdir -p /etc/postgresql-common/createcluster.d
  echo 'create_main_cluster = false' |
    as_root tee /etc/postgresql-common/createcluster.d/foglio.conf >/dev/null
  refresh_package_lists
  as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}"
}

# Runs a command that may take long, so that a signal ends it at once: bash puts signals off while it waits for a command
# in the foreground. In a session of its own, so that all of it can be ended together.
task() {
  setsid "$@" 8>&- 9>&- &
  TASK=$!
  local status=0
  wait "$TASK" || status=$?
  TASK=
  return "$status"
}
stop_task() {
  [ -z "${TASK:-}" ] || kill -TERM -- "-$TASK" 2>/dev/null || true
}
trap stop_task EXIT

# Runs a command where what it depends on changed since it last succeeded. NAME, then the hash, then the command.
when_changed() {
  local stamp=$STATE/$1.stamp hash=$2
  shift 2
  [ -f "$stamp" ] && [ "$(cat "$stamp")" = "$hash" ] && return
  rm -f "$stamp"
  "$@"
  printf '%s' "$hash" >"$stamp"
}

# Of what lies in some folders and files; tests are no part of what is built.
hash_of() {
  find "$@" -type f -not -path '*/dist/*' -not -path '*/node_modules/*' -not -path '*/test/*' -not -name '*.spec.ts' -print0 |
    LC_ALL=C sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1
}

install_packages() {
  local hash
  hash=$(sha256sum package-lock.json | cut -d' ' -f1)
  [ -d node_modules/@angular/core ] || rm -f "$STATE/install.stamp"
  when_changed install "$hash" run_install
}
run_install() {
  say "installing npm packages"
  task npm ci --ignore-scripts --no-progress
}

# What every room is built with.
FOUNDATION=(packages package-lock.json tsconfig.base.json)

build_all() {
  [ -f apps/web/dist/browser/index.html ] || rm -f "$STATE/web.stamp"
  [ -f apps/server/dist/main.js ] && [ -f apps/printer/dist/main.js ] || rm -f "$STATE/programs.stamp"
  when_changed programs "$(hash_of "${FOUNDATION[@]}" apps/server apps/printer apps/cli demo scripts/bundle.mjs scripts/validators.mjs)" build_programs
  when_changed web "$(hash_of "${FOUNDATION[@]}" apps/web angular.json scripts/notices.mjs)" build_web
}
build_programs() {
  say "building the programs"
  task npm run --silent build:server
}
build_web() {
  say "building the screens"
  task npm run --silent build:web
}

# The demo's documents as files, for tests: drawing them takes seconds.
draw_demo() { when_changed demo "$(hash_of demo package-lock.json)" run_draw_demo; }
run_draw_demo() {
  say "drawing the documents of the demo"
  task npx tsx demo/src/draw.ts "$STATE/demo"
}

# A free loopback port: the one given, if it can be had.
free_port() {
  node -e '
    const net = require("node:net");
    const take = (port, next) => {
      const server = net.createServer().once("error", next);
      server.listen(port, "127.0.0.1", () => { const own = server.address().port; server.close(() => process.stdout.write(`${own}\n`)); });
    };
    take(Number(process.argv[1] || 0), () => take(0, (error) => { throw error; }));
  ' "${1:-0}"
}

# The one that is wanted, otherwise the same as last time under this name, otherwise the usual one; another where it is not free.
# $1: name, $2: usual, $3: wanted
remembered_port() {
  local file=$STATE/$1.port port
  # Read before it is written: both at once, the file would be emptied first now and then.
  port=$(free_port "${3:-$(cat "$file" 2>/dev/null || echo "${2:-0}")}")
  printf '%s\n' "$port" | tee "$file"
}
