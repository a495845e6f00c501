#!/usr/bin/env bash
# Fails if the OpenAPI document, the front end's types or the list of the core's messages are not those of the Go code.
set -eu
tmp=$(mktemp -d)
trap 'rm -rf "$tmp"' EXIT
go run ./cmd/allcoats openapi >"$tmp/openapi.json"
(cd web && npx --no-install openapi-typescript "$tmp/openapi.json" -o "$tmp/types.gen.ts" >/dev/null 2>&1)
for f in openapi.json types.gen.ts; do
	cmp -s "$tmp/$f" "web/src/api/$f" || { echo "web/src/api/$f is not what the Go code says: run make api and commit it" >&2; exit 1; }
done
go run ./cmd/words >"$tmp/core.json"
cmp -s "$tmp/core.json" web/src/words/core.json || { echo "web/src/words/core.json is not what the Go code says: run make words and commit it" >&2; exit 1; }
echo "drift: the front end's types and the list of messages are those of the Go code"
