#!/usr/bin/env bash
# Builds the app where anything of it has changed, and serves it on the loopback address.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
bash scripts/ensure.sh
built=web/dist/.built
of=(core/src core/package.json web/src web/public web/index.html web/vite.config.ts web/package.json package.json package-lock.json demo docs CHANGELOG.md scripts/licences)
if [ ! -f "$built" ] || [ -n "$(find "${of[@]}" ! -name '*.test.ts' -newer "$built" -print -quit)" ]; then
  # What is changed while it builds is newer than the beginning.
  begun=$(mktemp)
  npm run build --silent
  mv "$begun" "$built"
fi
# In place of this shell, so that a signal given to npm reaches the server.
exec node --import tsx server/src/main.ts
