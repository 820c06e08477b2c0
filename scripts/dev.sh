#!/usr/bin/env bash
# The app with hot reload: the server restarts, the page updates, as files change.
set -euo pipefail
source "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
check_node
need_packages
need_postgresql
export PG_FOLDER=$PROJECT/.data/postgres
DATABASE_URL=$(bash "$PROJECT/scripts/pg.sh" start)
export DATABASE_URL API_PORT=${API_PORT:-4311}
trap 'trap "" INT TERM; kill 0; wait; bash "$PROJECT/scripts/pg.sh" stop; exit 0' INT TERM
cd "$PROJECT"
WATCH_EVENT_LOOP=on PORT=$API_PORT node --conditions=source --watch-path=server/src --watch-path=core/src \
  --watch-path=contract/src --import tsx server/src/main.ts &
npx vite web --port "${PORT:-4310}" --strictPort &
wait
