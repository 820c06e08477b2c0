#!/usr/bin/env bash
# Everything, from a clean clone: packages, formatting, lint, types, boundaries, Jest, the build, Playwright.
# The last line is the sum of all runners: "N passed, N failed".
set -uo pipefail
source "$(dirname "${BASH_SOURCE[0]}")/lib.sh"
cd "$PROJECT"
check_node && need_packages && need_postgresql && need_chromium && need_readers || { echo '0 passed, 1 failed'; exit 1; }
passed=0 failed=0

# check NAME COMMAND …: one check that passes or fails as a whole
check() {
  local name=$1; shift
  say "— $name"
  if "$@"; then passed=$((passed + 1)); else failed=$((failed + 1)); say "✗ $name"; fi
}
# tally NAME FILE SCRIPT: adds what a runner reported in FILE; no report is a failure
tally() {
  local counts
  if counts=$(node -e "const r = JSON.parse(require('fs').readFileSync('$2', 'utf8')); console.log($3)" 2>/dev/null); then
    passed=$((passed + ${counts% *})) failed=$((failed + ${counts#* }))
  else
    failed=$((failed + 1)); say "✗ $1 made no report"
  fi
}

rm -rf test-results .test/product .test/product2 && mkdir -p test-results
check formatting npx prettier --check --log-level warn .
check types npx tsc -b
check lint npx eslint . --max-warnings 0
check boundaries npx depcruise core contract server web demo tests bench
check words bash scripts/words.sh
say '— core and server'
NODE_OPTIONS=--experimental-vm-modules NODE_NO_WARNINGS=1 npx jest --silent --maxWorkers=2 --json --outputFile=test-results/jest.json >/dev/null
tally jest test-results/jest.json \
  '`${r.numPassedTests} ${r.numFailedTests + r.numRuntimeErrorTestSuites + r.numPendingTests}`'
check build bash scripts/build.sh

DATABASE_URL=$(PG_FOLDER=$PROJECT/.test/postgres bash scripts/pg.sh start --unsafe) \
  check 'production packages alone' bash scripts/checkProduction.sh
say '— the product in the browser'
# two lanes side by side, each with a product of its own; then what measures, alone
LANES=2 npx playwright test --config tests/playwright.config.ts --project product-alone --project product --project product-beside
tally playwright test-results/playwright.json \
  '`${r.stats.expected} ${r.stats.unexpected + r.stats.flaky + r.stats.skipped + r.errors.length}`'
# what stood on the pages where it failed
for page in test-results/*/error-context.md; do [ ! -f "$page" ] || { say "✗ $page"; head -c 6000 "$page"; }; done
PG_FOLDER=$PROJECT/.test/postgres bash scripts/pg.sh stop
for lane in product product2; do PG_FOLDER=$PROJECT/.test/$lane/postgres bash scripts/pg.sh stop; done

echo "$passed passed, $failed failed"
[ "$failed" = 0 ] && [ "$passed" -gt 0 ]
