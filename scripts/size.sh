#!/usr/bin/env bash
# Fails if the first JavaScript is over 125 kB, as it is sent over https and to this machine.
set -eu
limit=125000
size=0
for f in $(grep -oE 'assets/[^"]+\.js' web/dist/index.html | sort -u); do
	size=$((size + $(wc -c < "web/dist/$f.br")))
done
[ "$size" -gt 0 ] || { echo "size: index.html names no script" >&2; exit 1; }
[ "$size" -le "$limit" ] || { echo "size: the first JavaScript is $size bytes compressed, over $limit" >&2; exit 1; }
echo "size: first JavaScript $size bytes compressed, of at most $limit"
