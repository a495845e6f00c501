#!/usr/bin/env bash
# Runs Vite and the server; the server is built anew when a Go file changes.
set -u
export CGO_ENABLED=0
mkdir -p bin
(cd web && exec node node_modules/vite/bin/vite.js) &
vite=$!
server=
stop() { kill "$vite" $server 2>/dev/null; }
trap 'stop; exit 0' INT TERM
while true; do
	touch bin/.dev
	if go build -o bin/allcoats-dev ./cmd/allcoats; then
		[ -n "$server" ] && kill "$server" 2>/dev/null && wait "$server" 2>/dev/null
		bin/allcoats-dev demo --db bin/dev.db &
		server=$!
	fi
	while [ -z "$(find . -path ./web/node_modules -prune -o \( -name '*.go' -o -name '*.sql' \) -newer bin/.dev -print -quit)" ]; do
		sleep 1
		kill -0 "$vite" 2>/dev/null || { stop; exit 1; }
	done
done
