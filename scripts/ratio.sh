#!/usr/bin/env bash
# Prints the share of test lines in all code: lines that are not blank in
# tracked .go .ts .tsx .css .sql files, generated ones left out.
set -eu
git ls-files -co --exclude-standard -- '*.go' '*.ts' '*.tsx' '*.css' '*.sql' | grep -v types.gen.ts | while read -r f; do
	[ -f "$f" ] || continue
	kind=code
	case "$f" in *_test.go | *.test.ts | *.test.tsx | e2e/*) kind=test ;; esac
	echo "$kind $(grep -c . "$f" || true)"
done | awk '{ n[$1] += $2 } END { printf "code %d, tests %d: tests are %.0f %% of all\n", n["code"], n["test"], 100 * n["test"] / (n["code"] + n["test"]) }'
