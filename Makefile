# Undaris: the commands of the project. A fresh machine needs Go, Node with npm,
# make and git; make test also fetches Chromium from Debian's packages.

export CGO_ENABLED := 0
VERSION := $(shell git describe --tags --always --dirty 2>/dev/null || echo dev)
WEB_SOURCES := $(shell find web/src web/public -type f) web/index.html web/package.json web/vite.config.ts web/tsconfig.json
GO_SOURCES := $(shell find . -name '*.go' -not -path './web/node_modules/*') go.mod go.sum

.PHONY: demo serve build test check e2e bench fmt api fuzz screenshots chromium clean

demo: bin/undaris ## start with the demo set
	./bin/undaris demo

serve: bin/undaris ## start with your own data
	./bin/undaris serve

build: bin/undaris

bin/undaris: web/dist/index.html $(GO_SOURCES) $(wildcard demo/*/*.json)
	go build -trimpath -ldflags "-s -w -X main.version=$(VERSION)" -o $@ ./cmd/undaris

web/node_modules/.package-lock.json: web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	touch $@

web/dist/index.html: web/node_modules/.package-lock.json $(WEB_SOURCES)
	cd web && npm run -s build
	touch $@

test: check e2e ## all that must hold before a change lands

check: web/dist/index.html
	test -z "$$(gofmt -l $$(git ls-files '*.go'))" || { gofmt -l $$(git ls-files '*.go'); exit 1; }
	go vet ./...
	go tool staticcheck ./...
	cd web && npm run -s api:check
	cd web && npm run -s lint && npm run -s format:check && npm run -s types && npm run -s unit
	go test $$(go list ./... | grep -v /e2e)

e2e: web/dist/index.html chromium
	go test -count=1 -timeout 14m -parallel 3 ./e2e

chromium:
	command -v chromium >/dev/null || { \
		apt-get -o DPkg::Lock::Timeout=400 update -qq && \
		DEBIAN_FRONTEND=noninteractive apt-get -o DPkg::Lock::Timeout=400 install -y --no-install-recommends chromium; }

bench: web/dist/index.html chromium ## figures, never asserted
	go test -run '^$$' -bench . -benchmem $$(go list ./... | grep -v /e2e)
	go test -run '^$$' -bench . -benchtime 1x ./e2e

fuzz: ## half a minute for each reader
	go test -run '^$$' -fuzz FuzzParseChord -fuzztime 30s ./core/harmony
	go test -run '^$$' -fuzz FuzzReadBar -fuzztime 30s ./core/chart
	go test -run '^$$' -fuzz FuzzReadTuning -fuzztime 30s ./core/neck
	for format in document grid chordpro musicxml midifile tabtext soundfile; do \
		for reader in $$(go test ./format/$$format -list '^Fuzz' | grep '^Fuzz'); do \
			go test -run '^$$' -fuzz "^$$reader\$$" -fuzzminimizetime 10x -fuzztime 30s ./format/$$format || exit 1; done; done

api: web/node_modules/.package-lock.json ## write openapi.json and the client from the Go types
	go test ./api -run TestOpenAPIFileIsCurrent -update
	cd web && npm run -s api

fmt: web/node_modules/.package-lock.json
	gofmt -w $$(git ls-files '*.go')
	cd web && npm run -s format

screenshots: web/dist/index.html chromium ## write docs/screenshots from the demo set
	go test -count=1 ./e2e -run TestScreenshots -screenshots ../docs/screenshots

clean:
	rm -rf bin web/dist web/node_modules e2e/failures
