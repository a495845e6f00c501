# All Coats. `make demo` and `make test` need Go, Node, npm and make; the rest
# they install themselves.
SHELL := bash
.SHELLFLAGS := -eu -o pipefail -c
.DEFAULT_GOAL := help
export CGO_ENABLED := 0
# Paths of this machine stay out of what is built, and what was built in one folder serves in another.
# Nor is a codec of gin's that is not used, nor what only a debugger reads.
export GOFLAGS := -trimpath -tags=nomsgpack -gcflags=all=-dwarf=false

# What is compiled or tested is short-lived: it may leave rubbish about.
ROOM := GOGC=400

VERSION := $(shell git describe --tags --always --dirty 2>/dev/null || echo dev)
BIN := bin/allcoats
LINT := bin/staticcheck
VET := bin/vet
DEPS := web/node_modules/.stamp
POCKET := web/src/pocket/core.wasm
ADDR ?= 127.0.0.1:8080
GO_FILES := $(shell find . -name '*.go' -not -path './web/node_modules/*') $(shell find core store -name '*.json' -o -name '*.sql')
WEB_FILES := $(shell find web/src web/public -type f) web/index.html web/package.json web/vite.config.ts

.PHONY: mutants race race-short torture accessible help demo run test lint types drift web-test e2e-test go-test size bench fuzz fuzz-short shots released ratio dev build api words chromium need clean

help: ## list the targets
	@grep -E '^[a-z-]+:.*##' $(MAKEFILE_LIST) | sed -E 's/:.*## /\t/' | expand -t 12

need:
	@scripts/need.sh

$(DEPS): web/package.json web/package-lock.json | need
	cd web && node -e 'const w = require("./package.json"), l = require("./package-lock.json").packages[""]; for (const k of ["dependencies", "devDependencies"]) if (JSON.stringify(w[k]) !== JSON.stringify(l[k])) { console.error("web/package-lock.json does not fit web/package.json: run npm install in web and commit the lock"); process.exit(1) }'
	cd web && npm install --no-save --ignore-scripts --no-audit --no-fund --loglevel=error
	@touch $@

# The core for phones, and Go's loader of it.
$(POCKET): $(GO_FILES) go.mod | need
	$(ROOM) GOOS=js GOARCH=wasm go build -ldflags "-s -w" -o $@ ./cmd/pocket
	cp "$$(go env GOROOT)/lib/wasm/wasm_exec.js" $(dir $@)

web/dist/index.html: $(WEB_FILES) $(DEPS) $(POCKET)
	cd web && npx --no-install vite build --logLevel warn
	node scripts/pack.mjs
	@touch web/dist/.gitkeep $@

$(BIN): $(GO_FILES) go.mod go.sum web/dist/index.html | need
	$(ROOM) go build -ldflags "-s -w -X main.version=$(VERSION)" -o $@ ./cmd/allcoats

build: $(BIN) ## build the binary with the web application in it

demo: $(BIN) ## start the application with demo data
	$(BIN) demo --addr $(ADDR)

run: $(BIN) ## start the application on your own database, allcoats.db
	$(BIN) serve --addr $(ADDR)

dev: $(DEPS) ## Vite and the server, both reloading, on demo data
	scripts/dev.sh

test: ## everything that must pass
	@$(MAKE) -s -j3 need chromium web/dist/index.html # what is fetched beside what is compiled
	@$(MAKE) -s -j2 -O e2e-test lint types drift size web-test go-test
	@$(MAKE) -s -j2 -O fuzz-short race-short
	@echo "make test: all passed"

$(LINT): tools/go.mod tools/go.sum
	cd tools && $(ROOM) go build -o ../$@ honnef.co/go/tools/cmd/staticcheck

$(VET): tools/go.mod tools/go.sum tools/vet/main.go
	cd tools && $(ROOM) go build -o ../$@ ./vet

lint: $(DEPS) $(LINT) $(VET) web/dist/index.html
	@test -z "$$(gofmt -l $$(git ls-files '*.go' 2>/dev/null || find . -name '*.go'))" || { echo "gofmt: these files are not formatted:"; gofmt -l .; exit 1; }
	@awk 'length($$0) > 120 && !/["`]/ && !/^\t*\/\// { print FILENAME ":" FNR ": over 120 columns"; bad = 1 } END { exit bad }' $$(git ls-files '*.go' 2>/dev/null || find . -name '*.go')
	$(ROOM) $(LINT) ./...
	$(ROOM) go vet -vettool=$(CURDIR)/$(VET) -exhaustive.d -exhaustive.typeonly='^allcoats/' ./...
	cd web && npx --no-install biome check --error-on-warnings .

types: $(DEPS) $(POCKET)
	cd web && npm run -s types

api: $(DEPS) ## regenerate the OpenAPI document and the front end's types from the Go types
	go run ./cmd/allcoats openapi > web/src/api/openapi.json
	cd web && npx --no-install openapi-typescript src/api/openapi.json -o src/api/types.gen.ts

words: ## list anew what the core can say, for the catalogues of the interface
	go run ./cmd/words > web/src/words/core.json

N ?= 60
SEED ?= 1
mutants: ## change N operators, comparisons and constants of the core and tell which no test notices
	cd tools && go run ./mutants -n $(N) -seed $(SEED) ../core

drift: $(DEPS) web/dist/index.html
	@scripts/drift.sh

web-test: $(DEPS) $(POCKET)
	cd web && npx --no-install vitest run --testTimeout 20000 # beside the Go tests a form of many fields takes its time

RACE ?= ./core/... ./calc/... ./formats
race: ## look for two that write at once, in all of RACE; needs a C compiler
	CGO_ENABLED=1 $(ROOM) go test -race -vet=off -timeout 60m $(RACE)

race-short: web/dist/index.html # what asks and writes at once
	CGO_ENABLED=1 $(ROOM) go test -race -vet=off -timeout 20m -run 'Each|Once|WhileOneWrites' ./core/base/parallel ./store ./app

accessible: web/dist/index.html chromium ## axe over every screen, in both themes at both widths
	ALL=1 go test -count=1 -run TestScreensAreAccessible ./e2e

size: web/dist/index.html
	@scripts/size.sh

e2e-test: web/dist/index.html chromium # first, for it takes longest
	$(ROOM) go test -vet=off -timeout 20m ./e2e/...

go-test: web/dist/index.html
	$(ROOM) go test -vet=off -timeout 20m $$(go list ./... | grep -v '^allcoats/e2e') # lint vets more

torture: web/dist/index.html ## kill the program a few hundred times while it writes, imports, restores, backs up and migrates
	TORTURE=40 go test -count=1 -timeout 30m -v -run TestKilledAnywhere ./cmd/allcoats
	go test -count=20 -timeout 30m -run TestKilledWhileWriting ./cmd/allcoats
	go test -count=40 -timeout 30m -run 'TestBackupsUnderWriters|TestAFullDisk' ./store

chromium: | need
	@scripts/chromium.sh

bench: web/dist/index.html ## benchmarks
	go test -run '^$$' -bench . -benchmem ./...

FUZZTIME ?= 30s
GUIDED ?= -fuzz Fuzz
READERS := EPW Arrays Weather Days STL OBJ Offsets SVG DXF Readings ReadingLines Forecast Gaps Scan Gauge ValueLines
fuzz-short: # without coverage, for which all would be compiled anew
	@$(MAKE) -s fuzz FUZZTIME=2000x GUIDED=

fuzz: ## fuzz the readers of outside files
	@go test -c $(GUIDED) -o bin/formats.test ./formats
	@for r in $(READERS); do \
		(cd formats && ../bin/formats.test -test.run '^$$' -test.fuzz "^FuzzRead$$r\$$" -test.fuzztime $(FUZZTIME) -test.fuzzcachedir ../bin/fuzz) > bin/fuzz.log 2>&1 || { cat bin/fuzz.log; exit 1; }; \
		echo "fuzz: Read$$r withstood $(FUZZTIME)"; \
	done

shots: $(BIN) chromium ## redraw docs/screenshots from the demo data
	go run ./e2e/shots docs/screenshots

released: web/dist/index.html ## keep the demo of version KEEP for the tests of later ones
	KEEP=$(KEEP) go test -count=1 -run TestKeepReleased ./app

ratio: ## how much of the code is tests
	@scripts/ratio.sh

clean: ## remove what was built
	rm -rf bin web/dist/* web/node_modules
	@touch web/dist/.gitkeep
