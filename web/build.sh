#!/usr/bin/env bash
# Builds the pages. npm ci wipes node_modules, so it runs only when the lock file has changed.
set -eu
cd "$(dirname "$0")"
mkdir -p target
hash=$(sha256sum package-lock.json package.json | sha256sum | cut -d' ' -f1)
if [ ! -d node_modules ] || [ "$(cat node_modules/.lock-hash 2>/dev/null || true)" != "$hash" ]; then
  npm ci --ignore-scripts --no-audit --no-fund --loglevel=error
  echo "$hash" > node_modules/.lock-hash
fi
# Nothing changed since the last whole build: nothing to do.
inputs=$(find src build.sh sizes.mjs vite.config.ts tsconfig.json eslint.config.js index.html client.html public -type f \
  ! -name schema.d.ts -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1)-$hash
if [ -f dist/index.html ] && [ "$(cat target/built 2>/dev/null || true)" = "$inputs" ]; then
  echo "pages are up to date"; node sizes.mjs
else
  npm run --silent build
  echo "$inputs" > target/built
fi
