# Undaris: the commands of the project. A fresh machine needs Go, Node with npm,
# make and git; make test also fetches Chromium from Debian's packages.

export CGO_ENABLED := 0
# Gin without MessagePack, which nothing here speaks: its codec takes longer to compile than the database.
export GOFLAGS := -tags=nomsgpack
VERSION := $(shell git describe --tags --always --dirty 2>/dev/null || echo dev)
WEB_SOURCES := $(shell find web/src web/public -type f) web/index.html web/package.json web/vite.config.ts web/tsconfig.json
GO_SOURCES := $(shell find . -name '*.go' -not -path './web/node_modules/*') go.mod go.sum

# What a release is built with: the same sources give the same bytes wherever and whenever they are built.
RELEASE_FLAGS := -trimpath -buildvcs=false -ldflags "-s -w -buildid= -X main.version=$(VERSION)"
PLATFORMS := linux/amd64 linux/arm64 darwin/amd64 darwin/arm64 windows/amd64 windows/arm64

.PHONY: help demo serve build test check compile-store check-types check-go check-web unit thorough race e2e bench fmt api fuzz mutants screenshots windows chromium release release-check audit clean
.DEFAULT_GOAL := help

help: ## this list
	@grep -hE '^[a-z0-9-]+:.*## ' $(MAKEFILE_LIST) | sort | awk -F ':.*## ' '{ printf "  make %-14s %s\n", $$1, $$2 }'

demo: bin/undaris ## start with the demo set
	./bin/undaris demo

serve: bin/undaris ## start with your own data
	./bin/undaris serve

build: bin/undaris ## build bin/undaris, the page embedded

bin/undaris: web/dist/index.html $(GO_SOURCES) $(wildcard demo/*/*.json)
	go build -trimpath -ldflags "-s -w -X main.version=$(VERSION)" -o $@ ./cmd/undaris

web/node_modules/.package-lock.json: web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	touch $@

web/dist/index.html: web/node_modules/.package-lock.json $(WEB_SOURCES)
	cd web && npm run -s build
	touch $@

test: check e2e ## all that must hold before a change lands

# Two at a time: a type checker or a linter is busy with one processor. What takes longest to compile begins at once.
check: ## all of test but the browser
	$(MAKE) --no-print-directory -j 2 compile-store check-types check-web check-go unit

compile-store:
	go build ./store

check-types: web/node_modules/.package-lock.json
	cd web && npm run -s types

check-go: web/dist/index.html compile-store
	test -z "$$(gofmt -l $$(git ls-files '*.go'))" || { gofmt -l $$(git ls-files '*.go'); exit 1; }
	go vet ./...
	go tool staticcheck ./...

check-web: web/dist/index.html
	cd web && npm run -s api:check && npm run -s lint && npm run -s format:check && npm run -s unit

unit: web/dist/index.html ## the tests of the Go code, without those of the browser; of long products a sample
	go test -short -vet=off $$(go list ./... | grep -v /e2e)

thorough: web/dist/index.html race ## the same with every case, and races of the store; fifteen minutes
	go test -count=1 -timeout 30m $$(go list ./... | grep -v /e2e)

# What runs several things at once; the core and the formats never do. The detector needs a C compiler, and nothing else here does.
race: web/dist/index.html ## what runs at once, watched for races
	CGO_ENABLED=1 go test -race -short -count=1 -vet=off -timeout 30m ./access ./store ./library/... ./api

e2e: web/dist/index.html chromium ## the browser tests alone
	go test -count=1 -timeout 40m -parallel 3 ./e2e

windows: web/dist/index.html chromium ## every view in every window, with large text too
	go test -count=1 -timeout 60m -parallel 3 ./e2e -run TestEveryView -every-window

# The headless shell draws no windows around the page; another Chromium does where it cannot be had.
chromium:
	command -v chromium-headless-shell >/dev/null || { \
		apt-get -o DPkg::Lock::Timeout=400 update -qq && \
		DEBIAN_FRONTEND=noninteractive apt-get -o DPkg::Lock::Timeout=400 install -y --no-install-recommends chromium-headless-shell; } || \
		command -v chromium || command -v chromium-browser || command -v google-chrome

bench: web/dist/index.html chromium ## figures, never asserted
	go test -run '^$$' -bench . -benchmem $$(go list ./... | grep -v /e2e)
	go test -run '^$$' -bench . -benchtime 1x ./e2e

# Each mutant is a change of one operator or number; which ones are drawn depends on SEED.
MUTANTS ?= 10
SEED ?= 1
mutants: ## changes of the core that its tests do not notice; half an hour
	go run ./cmd/mutants -short -n $(MUTANTS) -seed $(SEED) $$(go list -f '{{.Dir}}' ./core/... | sed "s|^$$PWD/|./|" | grep -v 'test$$')

fuzz: ## half a minute for each reader
	go test -run '^$$' -fuzz FuzzParseChord -fuzztime 30s ./core/harmony
	go test -run '^$$' -fuzz FuzzReadBar -fuzztime 30s ./core/chart
	go test -run '^$$' -fuzz FuzzReadTuning -fuzztime 30s ./core/neck
	for format in bundle document grid chordpro musicxml midifile tabtext soundfile; do \
		for reader in $$(go test ./format/$$format -list '^Fuzz' | grep '^Fuzz'); do \
			go test -run '^$$' -fuzz "^$$reader\$$" -fuzzminimizetime 10x -fuzztime 30s ./format/$$format || exit 1; done; done

api: web/node_modules/.package-lock.json ## write openapi.json and the client from the Go types
	go test ./api -run TestOpenAPIFileIsCurrent -update
	cd web && npm run -s api

fmt: web/node_modules/.package-lock.json ## format everything
	gofmt -w $$(git ls-files '*.go')
	cd web && npm run -s format

screenshots: web/dist/index.html chromium ## write docs/screenshots from the demo set
	go test -count=1 ./e2e -run TestScreenshots -screenshots ../docs/screenshots

release: web/dist/index.html ## build release/: one file for each system, checksums, licences, a bill of materials
	rm -rf release && mkdir release
	for platform in $(PLATFORMS); do \
		system=$${platform%/*} machine=$${platform#*/} suffix=; \
		test $$system != windows || suffix=.exe; \
		GOOS=$$system GOARCH=$$machine go build $(RELEASE_FLAGS) -o release/undaris-$(VERSION)-$$system-$$machine$$suffix ./cmd/undaris || exit 1; done
	cp web/public/licences.txt LICENSE CHANGELOG.md release/
	go run ./cmd/billofmaterials release/undaris-$(VERSION)-linux-amd64 web/package-lock.json $(VERSION) > release/bill-of-materials.json
	cd release && sha256sum -- * > checksums.txt

release-check: release ## build the release twice, the page too, and compare
	mv release/checksums.txt first-checksums.txt
	rm -rf web/dist && $(MAKE) --no-print-directory release
	diff first-checksums.txt release/checksums.txt && echo "both are equal"
	rm first-checksums.txt

audit: web/node_modules/.package-lock.json ## look for known faults of what we use; says when that cannot be known
	@go run golang.org/x/vuln/cmd/govulncheck@v1.1.4 ./... || echo "govulncheck: see above; where it could not fetch its data, nothing is known of the Go modules"
	@cd web && npm audit --omit=dev || echo "npm audit: see above; where it could not reach the registry's advisories, nothing is known of the packages"

clean: ## remove all that was built
	rm -rf bin release web/dist web/node_modules e2e/failures
