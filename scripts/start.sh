#!/usr/bin/env bash
# npm start: sets up what is missing, then runs the database, the simulated printers and the server until Ctrl+C, and brings
# back what ends by itself.
set -euo pipefail
source "$(dirname "$0")/setup.sh"
source scripts/database.sh
source scripts/supervise.sh

# Several may run beside each other under different names, each with data of its own.
NAME=${FOGLIO_NAME:-app}

take_lock
require_node

# Whether the server answers: asked by node only once something listens, since node takes a while to start.
answers() {
  (exec 3<>"/dev/tcp/127.0.0.1/$PORT") 2>/dev/null &&
    node -e 'fetch(process.argv[1] + "/api/jobs").then((r) => process.exit(r.ok ? 0 : 1), () => process.exit(1))' "$1"
}

# Held for as long as this script lives, and by nothing that it starts: so whoever finds it free, and programs running all
# the same, knows that a start was killed hard.
mkdir -p "$STATE/$NAME"
exec 8>"$STATE/$NAME/running"
if ! flock -n 8; then
  say "already running at $(cat "$STATE/$NAME/address")"
  exit 0
fi

# When a process began, in ticks since the machine did (proc(5), stat, field 22): numbers of processes are given again.
begun() { sed 's/.*) //' "/proc/$1/stat" 2>/dev/null | cut -d' ' -f20; }

# What the programs file tells and still runs is ended in order, the server first.
end_leftovers() {
  local file=$STATE/$NAME/programs pid ticks
  [ -f "$file" ] || return 0
  while read -r pid ticks; do
    [ "$(begun "$pid")" = "$ticks" ] || continue
    say "ending what a start that was killed has left running ($pid)"
    kill -TERM "$pid" 2>/dev/null || continue
    for _ in $(seq 600); do [ "$(begun "$pid")" = "$ticks" ] && sleep 0.1 || break; done
    [ "$(begun "$pid")" = "$ticks" ] && kill -KILL "$pid" 2>/dev/null || true
  done < <(tac "$file")
  rm -f "$file"
}

# Notes a program that was just started, so that the next start finds it whatever becomes of this one.
note_program() {
  printf '%s %s\n' "$1" "$(begun "$1")" >>"$STATE/$NAME/programs"
}

stop() {
  # A closed terminal must not keep this from its end: nobody may be left to read what it says.
  trap '' INT TERM HUP PIPE EXIT
  say "stopping" || true
  # What set-up is under way, then the server first, so that what it is sending reaches a printer that is still there.
  stop_task
  local index
  for ((index = ${#PIDS[@]} - 1; index >= 0; index--)); do
    [ -n "${PIDS[index]}" ] || continue
    kill -TERM "${PIDS[index]}" 2>/dev/null && wait "${PIDS[index]}" 2>/dev/null || true
  done
  rm -f "$STATE/$NAME/address" "$STATE/$NAME/programs"
  db_stop "$NAME"
  say "stopped; everything is kept for the next start" || true
}
trap stop EXIT
trap 'exit 130' INT
trap 'exit 143' TERM
trap 'exit 129' HUP

require_debian postgres=postgresql chromium-headless-shell=chromium-headless-shell gs=ghostscript qpdf=qpdf
install_packages
build_all
end_leftovers

db_start "$NAME"

PRINTERS=()
# The first is the one that new jobs are for.
for PRINTER in upper-office library box-office; do
  PROFILE=demo/printers/$PRINTER.json
  PRINTER_PORT=$(remembered_port "$NAME/$PRINTER")
  launch "the printer $PRINTER" node --enable-source-maps apps/printer/dist/main.js --profile "$PROFILE" \
    --folder "$STATE/$NAME/printers/$PRINTER" --port "$PRINTER_PORT" --sheet-ms "${FOGLIO_SHEET_MS:-400}" \
    --keep-days "${FOGLIO_KEEP_DAYS:-90}"
  PRINTERS+=("$PRINTER" "$PRINTER_PORT" "$PROFILE")
done

PORT=$(remembered_port "$NAME/server" 4800 "${PORT:-}")
export PORT
FOGLIO_IPP_PORT=$(remembered_port "$NAME/ipp" 8632 "${FOGLIO_IPP_PORT:-}")
export FOGLIO_IPP_PORT
FOGLIO_PRINTERS=$(node -p '
  const entries = [];
  for (let at = 1; at < process.argv.length; at += 3) {
    const [id, port, profile] = process.argv.slice(at, at + 3);
    const host = `127.0.0.1:${port}`;
    entries.push({ id, uri: `ipp://${host}/ipp/print`, panel: `http://${host}/panel`, profile });
  }
  JSON.stringify(entries);
' "${PRINTERS[@]}")
export FOGLIO_PRINTERS
# The key of printers' passwords, which the database keeps encrypted.
export FOGLIO_SECRET=${FOGLIO_SECRET:-$STATE/$NAME/secret}
export FOGLIO_LOG=${FOGLIO_LOG:-$STATE/$NAME/server.log}
launch "the server" node --enable-source-maps apps/server/dist/main.js
SERVER=${PIDS[-1]}

ADDRESS=http://127.0.0.1:$PORT
for _ in $(seq 200); do
  answers "$ADDRESS" && break
  kill -0 "$SERVER" 2>/dev/null || fail "the server did not start; its message stands above"
  sleep 0.1
done
printf '%s' "$ADDRESS" >"$STATE/$NAME/address"
task node demo/dist/main.js "$ADDRESS"
task node demo/dist/past.js "$ADDRESS" "$DATABASE_URL"
release_lock
say "the server's log is ${FOGLIO_LOG#"$PWD"/}"
say "serving at $ADDRESS; Ctrl+C stops it"

supervise "$NAME"
