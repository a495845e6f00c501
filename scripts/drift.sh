#!/usr/bin/env bash
# Fails if the OpenAPI document or the front end's types are not those of the Go code.
set -eu
tmp=$(mktemp -d)
trap 'rm -rf "$tmp"' EXIT
go run ./cmd/allcoats openapi >"$tmp/openapi.json"
(cd web && npx --no-install openapi-typescript "$tmp/openapi.json" -o "$tmp/types.gen.ts" >/dev/null 2>&1)
for f in openapi.json types.gen.ts; do
	cmp -s "$tmp/$f" "web/src/api/$f" || { echo "web/src/api/$f is not what the Go code says: run make api and commit it" >&2; exit 1; }
done
echo "drift: the front end's types are those of the Go code"
