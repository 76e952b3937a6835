# Two commands are all that is needed: make demo and make test.
export GOAMD64 = v1
# One set of flags for building, running and testing: else everything is compiled twice. Nothing here speaks MessagePack, and
# what gin speaks it with is the dearest package of all to compile: 45 s.
export GOFLAGS := $(GOFLAGS) -trimpath -tags=nomsgpack
GO     ?= go
ADDR   ?= 127.0.0.1:4680
DATA   ?= data
SITE    = internal/server/site
TOOL    = $(GO) tool -modfile=tools.mod
GOFILES = $(shell find cmd internal -name '*.go') go.mod
WEBSRC  = $(shell find web/src web/public web/index.html web/vite.config.ts -type f -not -path '*/gen/*' -not -name schema.d.ts)

.PHONY: fmt demo demo-fresh build generate test test-go test-web test-e2e smoke-firefox lint lint-go lint-web bench performance sound gestures faults screenshots docs clean chromium

demo: build
	bin/shoal demo --addr $(ADDR) --data $(DATA)

demo-fresh: build
	rm -rf $(DATA)
	bin/shoal demo --addr $(ADDR) --data $(DATA)

# npm, the engine and its description do not wait for one another
build:
	@$(MAKE) --no-print-directory -j3 bin/shoal

web/node_modules/.done: web/package.json web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	touch $@

build/openapi.json: $(GOFILES)
	mkdir -p build
	$(GO) run ./cmd/shoal openapi > $@.new && mv $@.new $@

web/src/api/schema.d.ts: build/openapi.json web/node_modules/.done
	cd web && npm run --silent types

web/src/engine/gen/engine.wasm: $(GOFILES)
	mkdir -p web/src/engine/gen
	mkdir -p build
	GOOS=js GOARCH=wasm $(GO) build -o build/engine.wasm ./cmd/engine
	$(GO) run ./cmd/reshape build/engine.wasm $@
	cp "$$($(GO) env GOROOT)/lib/wasm/wasm_exec.js" web/src/engine/gen/wasm_exec.js

generate: web/src/api/schema.d.ts web/src/engine/gen/engine.wasm

build/site: web/src/api/schema.d.ts web/src/engine/gen/engine.wasm $(WEBSRC)
	cd web && npm run --silent build
	find $(SITE) -mindepth 1 -not -name README -delete
	cp -r web/dist/. $(SITE)/
	find $(SITE) \( -name '*.wasm' -o -name '*.js' -o -name '*.css' \) -exec gzip -9 -n {} \;
	touch $@

bin/shoal: build/site $(GOFILES)
	mkdir -p bin
	$(GO) build -o $@ ./cmd/shoal

fmt:
	gofmt -w cmd internal
	cd web && npx prettier --write --log-level warn src
	cd e2e && npx prettier --write --log-level warn "**/*.ts"

clean:
	rm -rf bin build web/dist web/src/engine/gen web/src/api/schema.d.ts
	find $(SITE) -mindepth 1 -not -name README -delete

# Tests: the whole thing, in the order in which failures are cheapest.
test: build lint test-go test-web test-e2e

# Go's and the front end's do not wait for one another.
lint: generate build/site e2e/node_modules/.done
	@$(MAKE) --no-print-directory -j2 --output-sync=line lint-go lint-web

lint-go:
	@test -z "$$(gofmt -l cmd internal)" || { gofmt -l cmd internal; echo 'gofmt these files'; exit 1; }
	$(GO) vet ./...
	GOOS=js GOARCH=wasm $(GO) vet ./cmd/engine
	$(TOOL) staticcheck ./...
	$(TOOL) errcheck -ignoretests -exclude .errcheck ./...
	$(GO) mod tidy -diff

lint-web:
	cd web && npm run --silent check && npm run --silent lint
	cd e2e && npm run --silent check && npm run --silent lint

# These do one thing after the other, and watched for races they take minutes.
ALONE = TestEveryOperationIsForWhomItIsFor|TestTheDemoIsMadeOnceAndTakenOutOfTheBin|TestWhatIsMadePermanentSoundsTheSame

test-go: build/site
	$(TOOL) gotestsum --format pkgname -- ./...
	$(TOOL) gotestsum --format pkgname -- -race -skip '$(ALONE)' ./internal/server ./internal/printing ./internal/store
	$(TOOL) gotestsum --format pkgname -- -race -run 'AtOnce|Lanes' ./internal/effect ./internal/demo ./internal/engine
	GOOS=js GOARCH=wasm $(GO) test -c -o build/effect.test.wasm ./internal/effect
	$(GO) run ./cmd/reshape build/effect.test.wasm build/effect.reshaped.wasm
	cd internal/effect && "$$($(GO) env GOROOT)/lib/wasm/go_js_wasm_exec" ../../build/effect.reshaped.wasm -test.run AlwaysDid

test-web: generate
	cd web && npm test --silent

e2e/node_modules/.done: e2e/package.json e2e/package-lock.json
	cd e2e && PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --no-audit --no-fund
	touch $@

chromium:
	@test -x /usr/bin/chromium || { apt-get update && apt-get install -y --no-install-recommends chromium; }

test-e2e: bin/shoal e2e/node_modules/.done chromium
	cd e2e && npx playwright test --project=journeys

# Debian's own Firefox, by WebDriver BiDi: no part of make test.
smoke-firefox: bin/shoal e2e/node_modules/.done
	@command -v firefox-esr >/dev/null || { apt-get update && apt-get install -y --no-install-recommends firefox-esr; }
	cd e2e && NODE_OPTIONS=--experimental-websocket npx playwright test --project=firefox

# Timings are for people to read, never for tests to judge.
bench: build/bench.txt
	$(GO) run ./cmd/benchtable

# The table that `make bench` compares with, and docs/performance.md, made anew.
performance: build/bench.txt
	$(GO) run ./cmd/benchtable -keep

.PHONY: build/bench.txt
build/bench.txt: bin/shoal e2e/node_modules/.done chromium
	$(GO) test -run '^$$' -bench . -benchtime 300ms -count 3 -timeout 30m \
		./internal/effect ./internal/engine ./internal/stretch ./internal/project ./internal/server ./internal/store > $@.new
	cd e2e && npx playwright test --project=bench >> ../$@.new
	mv $@.new $@

# The table of gestures is what a journey counts.
gestures: bin/shoal e2e/node_modules/.done chromium
	cd e2e && GESTURES=1 npx playwright test --project=journeys journeys/gestures.spec.ts

# What a data folder survives, a thousand times; `make test` tries a few.
faults:
	FAULTS=1000 $(GO) test ./internal/faults -count=1 -v -timeout 90m

screenshots: bin/shoal e2e/node_modules/.done chromium
	cd e2e && npx playwright test --project=screenshots

# Everything that is claimed of the sound, measured: minutes. `make test` holds those that take a moment.
sound:
	SOUND=1 $(GO) test ./internal/soundtest
	$(GO) run ./cmd/soundreport -docs docs

# What docs hold of the code is made from the code.
docs: bin/shoal
	bin/shoal schema > docs/project.schema.json
	$(GO) run ./cmd/audiodoc
	cd web && npx vitest run -u src/keys
