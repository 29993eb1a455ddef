# A private PostgreSQL on loopback: sourced after setup.sh. db_start NAME sets DATABASE_URL; db_stop NAME stops it.
# PostgreSQL refuses to run as root, so root runs it as the postgres user in a folder under /var/lib.

db_paths() {
  DB_HOME=$STATE/$1
  mkdir -p "$DB_HOME"
  PG_BIN=$(ls -d /usr/lib/postgresql/*/bin | sort -V | tail -1)
  if [ "$(id -u)" -eq 0 ]; then
    DB_DATA=/var/lib/foglio/$(printf '%s' "$ROOT" | sha256sum | cut -c1-12)-$1/data
    AS_DB=(runuser -u postgres -- env -C /)
  else
    DB_DATA=$DB_HOME/postgres/data
    AS_DB=(env -C /)
  fi
}

db_start() {
  db_paths "$1"
  [ -f "$DB_DATA/PG_VERSION" ] && [ -f "$DB_HOME/password" ] || db_create
  if ! db_answers; then
    db_forget_dead
    local port
    port=$(remembered_port "$1/database")
    say "starting PostgreSQL on 127.0.0.1:$port"
    "${AS_DB[@]}" "$PG_BIN/pg_ctl" -D "$DB_DATA" -l "$DB_DATA/../log" -w -t 60 \
      -o "-c listen_addresses=127.0.0.1 -c port=$port -c unix_socket_directories=''" start >/dev/null 8>&- 9>&- ||
      fail "PostgreSQL did not start; its log is $(dirname "$DB_DATA")/log"
  fi
  DATABASE_URL=postgres://foglio:$(cat "$DB_HOME/password")@127.0.0.1:$(cat "$DB_HOME/database.port")/postgres
  export DATABASE_URL
}

db_stop() {
  db_paths "$1"
  "${AS_DB[@]}" "$PG_BIN/pg_ctl" -D "$DB_DATA" -m fast -w stop >/dev/null 2>&1 || true
}

db_create() {
  say "creating a database"
  local parent
  parent=$(dirname "$DB_DATA")
  rm -rf "$parent"
  mkdir -p "$parent"
  (umask 077 && node -p 'require("node:crypto").randomBytes(24).toString("hex")' >"$DB_HOME/password")
  (umask 077 && cp "$DB_HOME/password" "$parent/password")
  if [ "$(id -u)" -eq 0 ]; then
    chmod 711 /var/lib/foglio
    chown -R postgres: "$parent"
  fi
  "${AS_DB[@]}" "$PG_BIN/initdb" -D "$DB_DATA" -U foglio -A scram-sha-256 --pwfile="$parent/password" \
    --locale=C.UTF-8 --encoding=UTF8 >/dev/null || fail "initdb failed in $DB_DATA"
  rm -f "$parent/password"
}

db_answers() {
  [ -f "$DB_HOME/database.port" ] && "$PG_BIN/pg_isready" -q -h 127.0.0.1 -p "$(cat "$DB_HOME/database.port")" &&
    PGPASSWORD=$(cat "$DB_HOME/password") "$PG_BIN/psql" -qtA -h 127.0.0.1 -p "$(cat "$DB_HOME/database.port")" \
      -U foglio -d postgres -c 'select 1' >/dev/null 2>&1
}

# Whether the process that db_start started is there, ready or not.
db_runs() {
  local pid
  pid=$(head -n 1 "$DB_DATA/postmaster.pid" 2>/dev/null) && [ -n "$pid" ] && is_postgres "$pid"
}

is_postgres() { [ -d "/proc/$1" ] && ! grep -q '^State:\s*Z' "/proc/$1/status" && grep -q postgres "/proc/$1/comm"; }

# After a kill -9 the pid in postmaster.pid can be gone, a zombie, or somebody else's by now.
db_forget_dead() {
  local file=$DB_DATA/postmaster.pid pid
  [ -f "$file" ] || return 0
  pid=$(head -n 1 "$file")
  is_postgres "$pid" || rm -f "$file"
}
