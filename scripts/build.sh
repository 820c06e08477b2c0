#!/usr/bin/env bash
# Compiles core, contract and server, and builds the web app, unless nothing changed since the last time.
set -euo pipefail
source "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
cd "$PROJECT"
stamp=$(find core/src contract/src server/src web/src docs/guide docs/screenshots web/index.html web/vite.config.ts tsconfig.base.json \
  package-lock.json ./*/tsconfig.json -type f -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1)
bash scripts/words.sh
[ "$(cat web/dist/.built 2>/dev/null)" = "$stamp" ] && [ -f server/dist/main.js ] && exit 0
say 'Building …'
npx tsc -b server
npx vite build web --logLevel warn
echo "$stamp" > web/dist/.built
