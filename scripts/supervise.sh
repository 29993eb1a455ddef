# Keeps programs running: sourced by start.sh. launch NAME COMMAND starts one, supervise brings back what ends by itself.

# Seconds from an end to the next start: doubled each time, and from the beginning again after a while of running well.
FIRST_WAIT=1
LONGEST_WAIT=60
RAN_WELL=300

NAMES=()
COMMANDS=()
PIDS=()
BEGAN=()
WAITS=()
DUE=()

# In sessions of their own, so that Ctrl+C reaches this script alone and it can stop them in order.
begin_program() {
  local -a command
  eval "command=(${COMMANDS[$1]})"
  setsid "${command[@]}" 8>&- 9>&- &
  PIDS[$1]=$!
  BEGAN[$1]=$SECONDS
  DUE[$1]=
  note_program "${PIDS[$1]}"
}

launch() {
  local at=${#NAMES[@]}
  NAMES[at]=$1
  shift
  COMMANDS[at]=$(printf '%q ' "$@")
  WAITS[at]=$FIRST_WAIT
  begin_program "$at"
}

# One ended: says so, and when it is started again.
plan_restart() {
  local at=$1 status=$2
  ((SECONDS - BEGAN[at] < RAN_WELL)) || WAITS[at]=$FIRST_WAIT
  say "${NAMES[at]} ended by itself ($status); starting it again in ${WAITS[at]} s"
  PIDS[at]=
  DUE[at]=$((SECONDS + WAITS[at]))
  WAITS[at]=$((WAITS[at] * 2 > LONGEST_WAIT ? LONGEST_WAIT : WAITS[at] * 2))
}

# The database is no child of this script: it is looked for.
DB_WAIT=$FIRST_WAIT
DB_BEGAN=0
DB_DUE=
watch_database() {
  if db_runs; then return; fi
  if [ -z "$DB_DUE" ]; then
    ((SECONDS - DB_BEGAN < RAN_WELL)) || DB_WAIT=$FIRST_WAIT
    say "the database ended by itself; starting it again in $DB_WAIT s"
    DB_DUE=$((SECONDS + DB_WAIT))
    DB_WAIT=$((DB_WAIT * 2 > LONGEST_WAIT ? LONGEST_WAIT : DB_WAIT * 2))
  elif ((SECONDS >= DB_DUE)); then
    DB_DUE=
    DB_BEGAN=$SECONDS
    # In a shell of its own: what does not start now says so, is tried again, and ends nothing.
    (db_start "$1") || true
  fi
}

# Never returns. Looks every second for what ended and what is due, and hears at once of an end.
supervise() {
  local database=$1 tick status at alive
  while :; do
    sleep 1 8>&- 9>&- &
    tick=$!
    alive=("$tick")
    for at in "${!PIDS[@]}"; do [ -z "${PIDS[at]}" ] || alive+=("${PIDS[at]}"); done
    wait -n "${alive[@]}" 2>/dev/null || true
    for at in "${!PIDS[@]}"; do
      # Of several that end at once only one is told, so that each is looked at.
      if [ -z "${PIDS[at]}" ] || kill -0 "${PIDS[at]}" 2>/dev/null; then continue; fi
      status=0
      wait "${PIDS[at]}" 2>/dev/null || status=$?
      plan_restart "$at" "$status"
    done
    kill "$tick" 2>/dev/null && wait "$tick" 2>/dev/null || true
    watch_database "$database"
    for at in "${!DUE[@]}"; do
      if [ -n "${DUE[at]}" ] && ((SECONDS >= DUE[at])); then begin_program "$at"; fi
    done
  done
}
