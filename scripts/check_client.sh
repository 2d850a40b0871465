#!/usr/bin/env bash
# Generate the API client's types afresh and say whether the committed ones are the same.
set -euo pipefail
cd "$(dirname "$0")/../frontend"
made="$(mktemp --suffix .ts)"
trap 'rm -f "$made"' EXIT
npx --no-install openapi-typescript ../docs/contracts/openapi.json -o "$made" >/dev/null
diff -q "$made" src/api/generated/schema.ts
