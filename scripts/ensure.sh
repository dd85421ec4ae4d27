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
# The shell without windows is a third quicker; where Debian has none, the whole browser does.
if [ "${1:-}" = browser ] && ! command -v chromium-headless-shell >/dev/null 2>&1; then
  echo "Installing Chromium…"
  export DEBIAN_FRONTEND=noninteractive
  if ! { apt-get update -qq && apt-get install -y -qq chromium-headless-shell >/dev/null; }; then
    command -v chromium >/dev/null 2>&1 || apt-get install -y -qq chromium >/dev/null
  fi
fi
