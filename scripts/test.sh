#!/usr/bin/env bash
# Types, lint, unit tests, build, browser tests on the built app. Stops at the first that fails.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
bash scripts/ensure.sh browser
# A slice of what `npm run torture` does at length: kills in the middle of writes. Where it decides what lands, the same each
# time. It waits most of its time, and so stands beside what computes.
seed=$RANDOM; [ -z "${CI:-}" ] || seed=20261127
kills() { npx --no-install tsx torture/main.ts kills --rounds 14 --minutes 0.5 --rows 40000 --seed "$seed"; }
# Each of the two lanes computes on one core: together they take as long as the longer, so both are about as long.
echo "== lint, schema and list of exports in step, licences; types, uncertainties hold the truth, build, kills"
{
  npm run --silent rules && npx --no-install tsx scripts/schema.ts --check &&
    npx --no-install tsx scripts/build-core.ts --check && npm run --silent licences
} & lint=$!
{
  npm run --silent types && npm run --silent build && node scripts/first-load.mjs && { kills & killing=$!; } &&
    npm run --silent coverage -- --check && npm run --silent laid-out && wait "$killing"
} || { kill "$lint" ${killing:-} 2>/dev/null; exit 1; }
wait "$lint"
echo "== unit and whole"; npm run --silent tests
echo "== browser"; npm run --silent e2e
