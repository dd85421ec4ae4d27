#!/usr/bin/env bash
# Builds the app and serves it on the loopback address.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
bash scripts/ensure.sh
npm run build --silent
exec npx --no-install tsx server/src/main.ts
