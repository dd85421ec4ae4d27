#!/usr/bin/env bash
# Types, lint, unit tests, build, browser tests on the built app. Stops at the first that fails.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
bash scripts/ensure.sh browser
echo "== types"; npm run --silent types
echo "== lint"; npm run --silent lint
echo "== unit"; npm run --silent unit
echo "== schema in step"; npx --no-install tsx scripts/schema.ts --check
echo "== build"; npm run --silent build
node scripts/first-load.mjs
echo "== browser"; npm run --silent e2e
