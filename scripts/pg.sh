#!/usr/bin/env bash
# A PostgreSQL of the project's own, on loopback. Works as root (drops to the postgres user) and as an
# ordinary user.
#   scripts/pg.sh start [--unsafe]   start (initdb first if needed) and print the URL; --unsafe: no fsync,
#                                    for tests only
#   scripts/pg.sh stop | url | running
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
DATA=$DIR/cluster; LOG=$DIR/server.log
PASSWORD=$DIR/password             # of the product's role, which owns its database and nothing else
ADMIN_PASSWORD=$DIR/admin-password # of the cluster's superuser, whom this script alone uses
PORT_FILE=$DIR/port                # kept from one start to the next, so that whoever was connected finds it again
SOCKETS=/tmp/yellow-thread-$key-$(id -u) # a socket's path must stay under 108 bytes

url() { echo "postgres://yellow_thread:$(cat "$PASSWORD")@127.0.0.1:$(sed -n 4p "$DATA/postmaster.pid")/yellow_thread"; }
# a killed server that nobody reaped still has its pid: its lock file would keep the next one out
drop_dead_lock() {
  local pid; pid=$(head -1 "$DATA/postmaster.pid" 2>/dev/null) || return 0
  if [ "$(sed 's/.*) //' "/proc/$pid/stat" 2>/dev/null | cut -c1)" = Z ]; then rm -f "$DATA/postmaster.pid"; fi
}
running() { as "$BIN/pg_ctl" -D "$DATA" status >/dev/null 2>&1; }
free_port() { node -e 's=require("net").createServer().listen(0,"127.0.0.1",()=>{process.stdout.write(String(s.address().port));s.close()})'; }
make_password() {
  (umask 077; node -e 'process.stdout.write(require("crypto").randomBytes(24).toString("base64url"))' > "$1")
  if [ "$(id -u)" = 0 ]; then chown $OWNER "$1"; fi
}
# sql ROLE DATABASE: runs what comes in
sql() {
  local file=$PASSWORD; [ "$1" = postgres ] && file=$ADMIN_PASSWORD
  PGPASSWORD=$(cat "$file") "$BIN/psql" -h 127.0.0.1 -p "$(sed -n 4p "$DATA/postmaster.pid")" -U "$1" -d "$2" \
    -v ON_ERROR_STOP=1 -Atq
}

make_cluster() {
  rm -rf "$DATA" # an initdb that was interrupted
  make_password "$ADMIN_PASSWORD"
  as "$BIN/initdb" -D "$DATA" -U postgres --pwfile="$ADMIN_PASSWORD" --auth=scram-sha-256 \
    --encoding=UTF8 --locale=C.UTF-8 >"/tmp/yellow-thread-initdb-$key.log" 2>&1 ||
    { cat "/tmp/yellow-thread-initdb-$key.log" >&2; exit 1; }
}

# clusters made before had the product's role as their superuser
take_power() {
  [ -f "$ADMIN_PASSWORD" ] && return
  make_password "$ADMIN_PASSWORD"
  sql yellow_thread postgres <<<"create role postgres superuser login password '$(cat "$ADMIN_PASSWORD")'"
  # PostgreSQL 16 and later leave a cluster's first role its power
  sql postgres postgres 2>/dev/null \
    <<<'alter role yellow_thread nosuperuser nocreaterole nocreatedb noreplication nobypassrls' || true
}

make_database() {
  [ -f "$PASSWORD" ] || make_password "$PASSWORD"
  sql postgres postgres <<SQL
    select 'create role yellow_thread login' where not exists (select from pg_roles where rolname = 'yellow_thread') \gexec
    alter role yellow_thread password '$(cat "$PASSWORD")';
    $([ "$mode" = --unsafe ] && echo 'alter role yellow_thread createdb;')
    -- imports check all their keys at once at their end
    grant set on parameter session_replication_role to yellow_thread;
    select 'create database yellow_thread owner yellow_thread'
      where not exists (select from pg_database where datname = 'yellow_thread') \gexec
SQL
}

start() {
  drop_dead_lock
  if running; then url; return; fi
  mkdir -p "$DIR" "$SOCKETS"
  if [ "$(id -u)" = 0 ]; then chown $OWNER "$DIR" "$SOCKETS"; chmod 0755 "$DIR"; fi
  chmod 0700 "$SOCKETS"
  [ -f "$DATA/PG_VERSION" ] || make_cluster
  # room for a sheet of 100,000 respondents without a checkpoint in the middle
  local opts="-c listen_addresses=127.0.0.1 -c unix_socket_directories=$SOCKETS -c shared_buffers=256MB -c max_wal_size=2GB"
  [ "$mode" = --unsafe ] && opts+=' -c fsync=off -c synchronous_commit=off -c full_page_writes=off'
  local port started=''
  port=$(cat "$PORT_FILE" 2>/dev/null || free_port)
  for _ in 1 2 3 4 5; do # somebody else may have taken the port
    if as "$BIN/pg_ctl" -D "$DATA" -l "$LOG" -w -t 60 -o "$opts -p $port" start >/dev/null 2>&1 </dev/null; then
      started=yes; break
    fi
    port=$(free_port)
  done
  [ -n "$started" ] || { as tail -20 "$LOG" >&2; exit 1; }
  echo "$port" > "$PORT_FILE"
  take_power
  make_database
  url
}

case $cmd in
  start) start ;;
  stop) if running; then as "$BIN/pg_ctl" -D "$DATA" -m fast -w stop >/dev/null; fi ;;
  url) url ;;
  running) running ;;
  *) say "unknown: $cmd"; exit 2 ;;
esac
