#!/usr/bin/env bash
# A PostgreSQL of the project's own, on loopback. Works as root (drops to the postgres user) and as an
# ordinary user.
#   scripts/pg.sh start [--unsafe]   start (initdb first if needed) and print the URL; --unsafe: no fsync,
#                                    for tests only
#   scripts/pg.sh stop | url
# PG_FOLDER: where the cluster is (default .data/postgres)
set -euo pipefail
source "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
cmd=${1:-start}; mode=${2:-}
BIN=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1 || true)
[ -x "${BIN:-}/initdb" ] || { say 'PostgreSQL is not installed: apt-get install postgresql'; exit 1; }

if [ "$(id -u)" = 0 ]; then
  OWNER=postgres
  # cd /: the server's user may not be allowed to read this folder
  as() { (cd / && exec setpriv --reuid=$OWNER --regid="$(id -gn $OWNER)" --init-groups \
           env -i PATH="$PATH" LC_ALL="$LC_ALL" HOME=/tmp "$@"); }
else
  OWNER=$(id -un); as() { (cd / && "$@"); }
fi

DIR=${PG_FOLDER:-$PROJECT/.data/postgres}
key=$(printf %s "$DIR" | sha256sum | cut -c1-10)
# the server's user must be able to reach the folder; /root, for one, is closed to it
if [ "$(id -u)" = 0 ] && ! as test -x "$PROJECT"; then DIR=/var/tmp/yellow-thread-$key; fi
DATA=$DIR/cluster; LOG=$DIR/server.log; PASSWORD=$DIR/password
SOCKETS=/tmp/yellow-thread-$key-$(id -u) # a socket's path must stay under 108 bytes

url() { echo "postgres://yellow_thread:$(cat "$PASSWORD")@127.0.0.1:$(sed -n 4p "$DATA/postmaster.pid")/yellow_thread"; }
# a killed server that nobody reaped still has its pid: its lock file would keep the next one out
drop_dead_lock() {
  local pid; pid=$(head -1 "$DATA/postmaster.pid" 2>/dev/null) || return 0
  if [ "$(sed 's/.*) //' "/proc/$pid/stat" 2>/dev/null | cut -c1)" = Z ]; then rm -f "$DATA/postmaster.pid"; fi
}
running() { as "$BIN/pg_ctl" -D "$DATA" status >/dev/null 2>&1; }
free_port() { node -e 's=require("net").createServer().listen(0,"127.0.0.1",()=>{process.stdout.write(String(s.address().port));s.close()})'; }

start() {
  drop_dead_lock
  if running; then url; return; fi
  mkdir -p "$DIR" "$SOCKETS"
  if [ "$(id -u)" = 0 ]; then chown $OWNER "$DIR" "$SOCKETS"; chmod 0755 "$DIR"; fi
  chmod 0700 "$SOCKETS"
  if [ ! -f "$DATA/PG_VERSION" ]; then
    rm -rf "$DATA" # an initdb that was interrupted
    (umask 077; node -e 'process.stdout.write(require("crypto").randomBytes(24).toString("base64url"))' > "$PASSWORD")
    [ "$(id -u)" = 0 ] && chown $OWNER "$PASSWORD"
    as "$BIN/initdb" -D "$DATA" -U yellow_thread --pwfile="$PASSWORD" --auth=scram-sha-256 \
      --encoding=UTF8 --locale=C.UTF-8 >"/tmp/yellow-thread-initdb-$key.log" 2>&1 ||
      { cat "/tmp/yellow-thread-initdb-$key.log" >&2; exit 1; }
  fi
  # room for a sheet of 100,000 respondents without a checkpoint in the middle
  local opts="-c listen_addresses=127.0.0.1 -c unix_socket_directories=$SOCKETS -c shared_buffers=256MB -c max_wal_size=2GB"
  [ "$mode" = --unsafe ] && opts+=' -c fsync=off -c synchronous_commit=off -c full_page_writes=off'
  local port started=''
  for _ in 1 2 3 4 5; do # the free port can be taken between asking and binding
    port=$(free_port)
    if as "$BIN/pg_ctl" -D "$DATA" -l "$LOG" -w -t 60 -o "$opts -p $port" start >/dev/null 2>&1 </dev/null; then
      started=yes; break
    fi
  done
  [ -n "$started" ] || { as tail -20 "$LOG" >&2; exit 1; }
  export PGPASSWORD; PGPASSWORD=$(cat "$PASSWORD")
  "$BIN/psql" -h 127.0.0.1 -p "$port" -U yellow_thread -d postgres -Atqc \
    "select 1 from pg_database where datname = 'yellow_thread'" | grep -q 1 ||
    "$BIN/createdb" -h 127.0.0.1 -p "$port" -U yellow_thread yellow_thread
  url
}

case $cmd in
  start) start ;;
  stop) if running; then as "$BIN/pg_ctl" -D "$DATA" -m fast -w stop >/dev/null; fi ;;
  url) url ;;
  *) say "unknown: $cmd"; exit 2 ;;
esac
