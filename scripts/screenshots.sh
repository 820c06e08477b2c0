#!/usr/bin/env bash
# Takes docs/screenshots/ anew from the demo study, at 1280 × 800.
set -euo pipefail
source "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
cd "$PROJECT"
check_node
need_packages
need_postgresql
need_chromium
rm -rf .test/product
npx playwright test --config tests/playwright.config.ts --project screenshots
PG_FOLDER=$PROJECT/.test/product/postgres bash scripts/pg.sh stop
