#!/usr/bin/env bash
# Installs what is missing, builds, starts the database and serves the app. Ctrl-C stops all of it. The database is
# started again if it dies; where that fails, all of it ends with status 1, for whatever runs it to start it anew
# (scripts/yellow-thread.service). What can be set: README.
set -euo pipefail
source "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
source "$PROJECT/scripts/database.sh"
check_node

mkdir -p "$DATA_FOLDER"
# held as long as this script or the server lives; the second to come is refused
exec 9>>"$DATA_FOLDER/lock"
# a server that a killed start left behind is stopped before its successor takes over
if ! flock -n 9 && ! kill -0 "$(cat "$DATA_FOLDER/start.pid")" 2>/dev/null; then
  kill "$(cat "$DATA_FOLDER/server.pid")" 2>/dev/null || true
  flock -w 30 9 || true
fi
if ! flock -n 9; then
  say "Yellow Thread runs already with the data in $DATA_FOLDER: stop it first, or give this one a DATA_FOLDER of its own."
  exit 1
fi
echo $$ > "$DATA_FOLDER/start.pid"
need_packages
bash "$PROJECT/scripts/build.sh" 9>&-

own_database=''
if [ -z "${DATABASE_URL:-}" ]; then
  need_postgresql
  own_database=yes
  export PG_FOLDER=$DATA_FOLDER/postgres
  DATABASE_URL=$(bash "$PROJECT/scripts/pg.sh" start 9>&-)
fi
export DATABASE_URL NODE_ENV=production

BACKUP_HOURS=${BACKUP_HOURS:-24}
server='' watch='' backups=''
stop() {
  trap '' INT TERM
  [ -z "$watch" ] || kill "$watch" 2>/dev/null || true
  [ -z "$backups" ] || kill "$backups" 2>/dev/null || true
  if [ -n "$server" ]; then kill -TERM "$server" 2>/dev/null || true; wait "$server" 2>/dev/null || true; fi
  [ -z "$own_database" ] || bash "$PROJECT/scripts/pg.sh" stop 9>&-
}
trap 'stop; exit 0' INT TERM

# keep_database SERVER: the server finds it again at the same port; one that does not come back ends the server
keep_database() {
  trap 'kill $! 2>/dev/null; exit 0' TERM
  while true; do
    sleep 1 & wait $!
    kill -0 "$1" 2>/dev/null || return 0
    bash "$PROJECT/scripts/pg.sh" running && continue
    say 'The database has ended: it is started again.'
    bash "$PROJECT/scripts/pg.sh" start >/dev/null 9>&- && continue
    say "The database cannot be started, so Yellow Thread ends. Its last words are above; its log is $PG_FOLDER/server.log."
    kill -TERM "$1"; return
  done
}

# keep_backups SERVER: one is made when the newest is older than BACKUP_HOURS
keep_backups() {
  trap 'kill $! 2>/dev/null; exit 0' TERM
  while true; do
    sleep "${BACKUP_CHECK_SECONDS:-600}" & wait $!
    kill -0 "$1" 2>/dev/null || return 0
    [ -n "$(find "$BACKUP_FOLDER" -name 'yellow-thread-*.dump' -mmin "-$((BACKUP_HOURS * 60))" 2>/dev/null | head -1)" ] ||
      bash "$PROJECT/scripts/backup.sh" >/dev/null || say "The backup failed: see above. It is tried again."
  done
}

node "$PROJECT/server/dist/main.js" &
server=$!
echo "$server" > "$DATA_FOLDER/server.pid"
if [ -n "$own_database" ]; then keep_database "$server" 9>&- & watch=$!; fi
if [ "$BACKUP_HOURS" != 0 ]; then
  keep_backups "$server" 9>&- & backups=$!
  echo "Backups: $BACKUP_FOLDER, every $BACKUP_HOURS hours; the $BACKUPS_KEPT newest are kept."
fi
code=0; wait "$server" || code=$?
# told to end by nobody but the watch, it did not end well
[ -z "$watch" ] || kill -0 "$watch" 2>/dev/null || code=1
stop
exit "$code"
