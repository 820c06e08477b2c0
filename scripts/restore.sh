#!/usr/bin/env bash
# Restores a backup: npm run restore -- FILE [--replace]. A database with studies in it is replaced only with --replace, in
# one transaction: where it fails, everything is as before. Works with the server running and without.
set -euo pipefail
source "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
source "$PROJECT/scripts/database.sh"
file=${1:-}; replace=${2:-}
[ -f "$file" ] || { say 'Which backup? npm run restore -- FILE [--replace]'; exit 1; }
need_postgresql
PG_TOOLS=$(ls -d /usr/lib/postgresql/*/bin | sort -V | tail -1)
started=''
if [ -z "${DATABASE_URL:-}" ] && ! PG_FOLDER=$DATA_FOLDER/postgres bash "$PROJECT/scripts/pg.sh" running; then
  mkdir -p "$DATA_FOLDER"
  PG_FOLDER=$DATA_FOLDER/postgres bash "$PROJECT/scripts/pg.sh" start >/dev/null
  started=yes
fi
trap '[ -z "$started" ] || PG_FOLDER=$DATA_FOLDER/postgres bash "$PROJECT/scripts/pg.sh" stop; rm -f "${parts:-}"' EXIT
use_database
parts=$(mktemp)
# the schema itself is made below
"$PG_TOOLS/pg_restore" --list "$file" | grep -v ' SCHEMA - public ' > "$parts" ||
  { say "$file is no backup of Yellow Thread."; exit 1; }
grep -q ' TABLE DATA public study ' "$parts" || { say "$file is no backup of Yellow Thread."; exit 1; }
count=$("$PG_TOOLS/psql" -Atq -c "select case when to_regclass('public.study') is null then 0 else 1 end")
[ "$count" = 0 ] || count=$("$PG_TOOLS/psql" -Atq -c 'select count(*) from study')
if [ "$count" != 0 ] && [ "$replace" != --replace ]; then
  say "This database holds studies already: $count. To have all of them replaced by those of the backup: npm run restore -- $file --replace"
  exit 1
fi
{
  echo 'begin; drop schema public cascade; create schema public;'
  "$PG_TOOLS/pg_restore" --no-owner --no-privileges --use-list="$parts" --file=- "$file"
  echo 'commit;'
} | PGOPTIONS='-c client_min_messages=warning' "$PG_TOOLS/psql" -v ON_ERROR_STOP=1 -q -o /dev/null
say "Restored, studies: $("$PG_TOOLS/psql" -Atq -c 'select count(*) from public.study'). If Yellow Thread is running, start it anew: it brings an older backup up to date."
