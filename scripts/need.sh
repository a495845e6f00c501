#!/usr/bin/env bash
# Says what is missing before anything is built.
set -u
missing=0
for tool in go node npm; do
	command -v "$tool" >/dev/null || { echo "missing: $tool (README, section Needs)" >&2; missing=1; }
done
[ "$missing" = 0 ] || exit 1
major=$(node --version | sed -E 's/v([0-9]+).*/\1/')
[ "$major" -ge 20 ] || { echo "Node 20 or later is needed; this is $(node --version)" >&2; exit 1; }
