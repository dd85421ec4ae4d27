#!/usr/bin/env bash
# Installs what is missing: npm packages always, Debian's Chromium when the first argument is "browser".
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
stamp=node_modules/.gristmill-lock
if [ ! -d node_modules ] || ! cmp -s package-lock.json "$stamp"; then
  echo "Installing packages…"
  npm ci --no-audit --no-fund --loglevel=error
  cp package-lock.json "$stamp"
fi
if [ "${1:-}" = browser ] && ! command -v chromium >/dev/null 2>&1; then
  echo "Installing Chromium…"
  apt-get update -qq
  DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium >/dev/null
fi
