#!/usr/bin/env bash
# One part of the tests: testPart.sh unit|server|e2e [what the runner takes: files, -t NAME, -g NAME …]
set -euo pipefail
source "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
cd "$PROJECT"
part=$1; shift
check_node && need_packages
bash scripts/words.sh
export NODE_OPTIONS=--experimental-vm-modules NODE_NO_WARNINGS=1
case $part in
  unit) exec npx jest --selectProjects core page "$@" ;;
  server) need_postgresql; exec npx jest --selectProjects server "$@" ;;
  e2e)
    need_postgresql; need_chromium
    unset NODE_OPTIONS
    PG_FOLDER=$PROJECT/.test/product/postgres bash scripts/pg.sh stop
    rm -rf .test/product test-results
    exec npx playwright test --config tests/playwright.config.ts --project product "$@" ;;
  *) say "unknown: $part"; exit 2 ;;
esac
