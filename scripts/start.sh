#!/usr/bin/env bash
# Installs what is missing, builds, starts the database and serves the app. Ctrl-C stops all of it.
#   PORT          where the app answers (default 4310)
#   DATABASE_URL  an existing PostgreSQL to use instead of the project's own
set -euo pipefail
source "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
check_node
need_packages
bash "$PROJECT/scripts/build.sh"

DATA_FOLDER=${DATA_FOLDER:-$PROJECT/.data}
mkdir -p "$DATA_FOLDER"
PID_FILE=$DATA_FOLDER/server.pid
# a server that a killed start left behind is stopped before its successor takes over
if [ -f "$PID_FILE" ] && old=$(cat "$PID_FILE") && grep -qa 'server/dist/main.js' "/proc/$old/cmdline" 2>/dev/null; then
  kill "$old"; while kill -0 "$old" 2>/dev/null; do sleep 0.1; done
fi

own_database=''
if [ -z "${DATABASE_URL:-}" ]; then
  need_postgresql
  own_database=yes
  export PG_FOLDER=$DATA_FOLDER/postgres
  DATABASE_URL=$(bash "$PROJECT/scripts/pg.sh" start)
fi
export DATABASE_URL NODE_ENV=production

server=''
stop() {
  trap '' INT TERM
  if [ -n "$server" ]; then kill -TERM "$server" 2>/dev/null || true; wait "$server" 2>/dev/null || true; fi
  rm -f "$PID_FILE"
  [ -z "$own_database" ] || bash "$PROJECT/scripts/pg.sh" stop
}
trap 'stop; exit 0' INT TERM

node "$PROJECT/server/dist/main.js" &
server=$!
echo "$server" > "$PID_FILE"
code=0; wait "$server" || code=$?
stop
exit "$code"
