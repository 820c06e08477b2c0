#!/usr/bin/env bash
# Backs up the whole installation as it is at one moment, with the server running: npm run backup. Prints the file.
# BACKUP_FOLDER: where to (default: backups in DATA_FOLDER). BACKUPS_KEPT: how many, 14 unless told otherwise.
set -euo pipefail
source "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
source "$PROJECT/scripts/database.sh"
use_database
umask 077
mkdir -p "$BACKUP_FOLDER"
file=$BACKUP_FOLDER/yellow-thread-$(date -u +%Y-%m-%dT%H-%M-%SZ).dump
trap 'rm -f "$file.part"' EXIT
"$PG_TOOLS/pg_dump" --format=custom --no-owner --no-privileges --file="$file.part"
# what cannot be read is no backup
"$PG_TOOLS/pg_restore" --list "$file.part" | grep ' TABLE DATA public study ' >/dev/null ||
  { say "The backup cannot be read, and is not kept: $file"; exit 1; }
mv "$file.part" "$file"
# the newest by their names, which are dates
find "$BACKUP_FOLDER" -maxdepth 1 -name 'yellow-thread-*.dump' | sort -r | tail -n "+$((BACKUPS_KEPT + 1))" |
  while read -r old; do rm -f "$old"; done
echo "$file"
