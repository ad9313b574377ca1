# Two commands: `make demo` serves the application with demo songs, `make test` runs every check.
# Stamps under .stamps/ remember what is done, so that a second run is quick.

PORT ?= 8420
PYTHON ?= python3
BIN := .venv/bin
PAGES := clear_steps/web/static/index.html
PAGE_SOURCES := $(shell find frontend/src frontend/public -type f -not -name '*.d.ts' 2>/dev/null) $(wildcard frontend/*.json frontend/*.ts frontend/*.js frontend/*.html)

.PHONY: demo serve test bench faults check types versions fingerings laws formats pictures format pins clean
.DELETE_ON_ERROR:

demo: .stamps/run $(PAGES)
	@echo "Starting the demo; what you type there stays. Your own library: make serve"
	$(BIN)/clear-steps demo --port $(PORT)

serve: .stamps/run $(PAGES)
	@echo "Starting your own library"
	$(BIN)/clear-steps serve --port $(PORT)

test: .stamps/dev .stamps/browser $(PAGES) check
	$(BIN)/python -m pytest -n auto --dist loadfile

check: .stamps/dev .stamps/pages
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy
	$(BIN)/python -m clear_steps.web | diff -u frontend/openapi.json - || { echo "frontend/openapi.json is stale: run 'make types'"; exit 1; }
	$(BIN)/python -m clear_steps.web rows | diff -u frontend/src/rows.json - || { echo "frontend/src/rows.json is stale: run 'make types'"; exit 1; }
	cd frontend && npx prettier --check --log-level warn src
	cd frontend && npm run -s check
	cd frontend && npm run -s test

bench: .stamps/dev .stamps/browser $(PAGES)
	$(BIN)/python -m tests.bench

faults: .stamps/dev
	$(BIN)/python -W ignore -m tests.faults 2>/dev/null

types: .stamps/dev .stamps/pages
	$(BIN)/python -m clear_steps.web > frontend/openapi.json
	$(BIN)/python -m clear_steps.web rows > frontend/src/rows.json
	cd frontend && npm run -s types

versions: .stamps/dev
	$(BIN)/python -m clear_steps.demo
	$(BIN)/python -m tests.versions

fingerings: .stamps/dev
	$(BIN)/python -m tests.fingerings

laws: .stamps/dev
	$(BIN)/python -m tests.gradelaws

formats: .stamps/dev
	$(BIN)/python -m tests.formats_table

pictures: .stamps/dev .stamps/browser $(PAGES)
	$(BIN)/python -m tests.pictures

format: .stamps/dev .stamps/pages
	$(BIN)/ruff check --fix .
	$(BIN)/ruff format .
	cd frontend && npx prettier --write --log-level warn src

.stamps/venv:
	@echo "Setting up: a virtual environment, packages and the page (once, a minute or two)"
	@$(PYTHON) -c 'import sys; sys.exit(sys.version_info < (3, 11))' || { echo "Python 3.11 or newer is needed"; exit 1; }
	$(PYTHON) -m venv .venv
	@mkdir -p .stamps && touch $@

.stamps/run: .stamps/venv requirements.txt pyproject.toml
	@echo "Installing the packages ..."
	$(BIN)/pip install -q -r requirements.txt
	$(BIN)/pip install -q --no-deps -e .
	@touch $@

.stamps/dev: .stamps/run requirements-dev.txt
	$(BIN)/pip install -q -r requirements-dev.txt
	@touch $@

.stamps/pages: frontend/package-lock.json
	@node -e 'process.exit(process.versions.node.split(".")[0] < 20 ? 1 : 0)' || { echo "Node 20 or newer is needed"; exit 1; }
	cd frontend && npm ci --no-audit --no-fund --loglevel=error
	@mkdir -p .stamps && touch $@

$(PAGES): .stamps/pages $(PAGE_SOURCES)
	@echo "Building the page ..."
	cd frontend && npm run -s build
	@touch $@

.stamps/browser:
	@if ! { command -v chromium && command -v chromedriver; } >/dev/null; then \
		[ "$$(id -u)" = 0 ] || { echo "the browser tests need Debian's chromium and chromium-driver: run 'apt-get install chromium chromium-driver' as root"; exit 1; }; \
		apt-get update -q && apt-get install -q -y --no-install-recommends chromium chromium-driver; \
	fi
	@mkdir -p .stamps && touch $@

pins: .stamps/dev
	CUSTOM_COMPILE_COMMAND="make pins" $(BIN)/pip-compile -q --strip-extras --no-emit-index-url --no-emit-trusted-host --no-emit-find-links requirements.in -o requirements.txt
	CUSTOM_COMPILE_COMMAND="make pins" $(BIN)/pip-compile -q --strip-extras --allow-unsafe --no-emit-index-url --no-emit-trusted-host --no-emit-find-links requirements-dev.in -o requirements-dev.txt

clean:
	rm -rf .venv .stamps frontend/node_modules clear_steps/web/static
