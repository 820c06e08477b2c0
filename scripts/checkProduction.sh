#!/usr/bin/env bash
# Whether the built product runs with nothing but what `npm ci --omit=dev` installs. Wants a build and DATABASE_URL.
set -euo pipefail
source "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
cd "$PROJECT"
copy=$(mktemp -d) server=''
trap '[ -z "$server" ] || kill "$server"; rm -rf "$copy"' EXIT
cp package.json package-lock.json "$copy"
for room in core contract server web demo tests bench; do
  mkdir "$copy/$room"
  cp "$room/package.json" "$copy/$room"
  [ ! -d "$room/dist" ] || cp -r "$room/dist" "$copy/$room"
done
cp -r server/words "$copy/server" 2>/dev/null || true
cp demo/*.csv demo/*.xlsx demo/*.json "$copy/demo" 2>/dev/null || true
cd "$copy"
npm ci --omit=dev --prefer-offline --no-audit --no-fund --loglevel=error
port=$(node -e 's=require("net").createServer().listen(0,"127.0.0.1",()=>{console.log(s.address().port);s.close()})')
PORT=$port LOG=off node server/dist/main.js >"$copy/log" 2>&1 &
server=$!
# as long as it starts up: a slow machine takes its time
while kill -0 "$server" 2>/dev/null; do
  grep -q 'is ready' "$copy/log" && exit 0
  sleep 0.2
done
cat "$copy/log" >&2
exit 1
