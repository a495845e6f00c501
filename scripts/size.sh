#!/usr/bin/env bash
# Fails if the first JavaScript is over 200 kB, compressed.
set -eu
limit=200000
size=0
for f in $(grep -oE 'assets/[^"]+\.js' web/dist/index.html | sort -u); do
	size=$((size + $(gzip -9 -c "web/dist/$f" | wc -c)))
done
[ "$size" -gt 0 ] || { echo "size: index.html names no script" >&2; exit 1; }
[ "$size" -le "$limit" ] || { echo "size: the first JavaScript is $size bytes compressed, over $limit" >&2; exit 1; }
echo "size: first JavaScript $size bytes compressed, of at most $limit"
