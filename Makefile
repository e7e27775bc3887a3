# Two commands do everything: `make demo` serves Fortis with a made-up lifter, `make test` runs every check.

PYTHON ?= python3
PORT ?= 8000
BIN := .venv/bin
PIP := $(BIN)/pip install --quiet --disable-pip-version-check
NPM := npm --prefix web --no-audit --no-fund --loglevel=error
AT_ONCE := $(MAKE) --no-print-directory --output-sync=line --jobs
INSTALL := apt-get install -y -qq --no-install-recommends
SUDO := $(shell [ "$$(id -u)" = 0 ] || echo sudo)
PYTHON_SOURCES := $(shell find fortis -name '*.py' -o -name '*.lark')
WEB_SOURCES := $(shell find web/src web/public -type f) web/index.html web/vite.config.ts web/tsconfig.json

.PHONY: demo serve test test-ahead setup packages checks lint lint-python lint-web check-python check-web bench \
	bench-web fuzz schema golden chromium lock guide screenshots clean

demo: setup
	@$(BIN)/fortis demo --db data/demo.db
	@PORT=$(PORT) $(BIN)/fortis serve --db data/demo.db

serve: setup
	@PORT=$(PORT) $(BIN)/fortis serve

test: checks lint check-web check-python

setup: packages web/dist/.built

packages:
	@$(AT_ONCE) .venv/.installed web/node_modules/.installed

checks: setup chromium .venv/.checks

.venv/.installed: requirements.lock pyproject.toml
	@echo "Setting up Python packages in .venv …"
	@test -x $(BIN)/python || $(PYTHON) -m venv .venv
	@$(PIP) --require-hashes -r requirements.lock
	@$(PIP) --no-deps --no-build-isolation --editable .
	@touch $@

.venv/.checks: requirements-dev.lock .venv/.installed
	@echo "Setting up the packages of the checks …"
	@$(PIP) --require-hashes -r requirements-dev.lock
	@touch $@

web/node_modules/.installed: web/package.json web/package-lock.json
	@echo "Setting up web packages …"
	@$(NPM) ci --silent
	@touch $@

web/dist/.built: .venv/.installed web/node_modules/.installed $(PYTHON_SOURCES) $(WEB_SOURCES)
	@echo "Building the web client …"
	@$(BIN)/python -m fortis.api.schema > web/openapi.json
	@$(NPM) run --silent types > /dev/null
	@$(NPM) run --silent build
	@touch $@

chromium:
	@command -v chromium-headless-shell > /dev/null || { \
		echo "Installing headless Chromium for the browser tests …"; \
		$(SUDO) apt-get update -qq && $(SUDO) $(INSTALL) chromium-headless-shell > /dev/null; } || \
		command -v chromium > /dev/null || $(SUDO) $(INSTALL) chromium > /dev/null

lint: checks
	@$(AT_ONCE) lint-python lint-web

lint-python:
	@echo "Linting the Python …"
	@$(BIN)/ruff check .
	@$(BIN)/ruff format --check .
	@$(BIN)/mypy
	@$(BIN)/lint-imports

lint-web:
	@echo "Linting the web client …"
	@$(NPM) run --silent lint

check-web: packages
	@echo "Testing the score and the clock …"
	@$(NPM) run --silent test

check-python: checks
	@echo "Testing the core, the record, the interface and the browser …"
	@$(BIN)/pytest

test-ahead: checks
	@DAYS_AHEAD=$(DAYS) $(BIN)/pytest

bench: checks
	@$(BIN)/python -m bench

bench-web: checks
	@npm --prefix bench/lighthouse --no-audit --no-fund --loglevel=error ci --silent
	@$(BIN)/python -m bench.views

lock: LOCKED := pyproject.toml --universal --python-version 3.11 --generate-hashes --no-emit-index-url --no-header --quiet
lock:
	uv pip compile $(LOCKED) --extra setup --extra dev --output-file requirements-dev.lock
	uv pip compile $(LOCKED) --extra setup --constraint requirements-dev.lock --output-file requirements.lock

guide: setup
	@$(BIN)/python -m fortis.guide docs/guide

golden: .venv/.checks
	@$(BIN)/python -m tests.golden

docs/record.schema.json: fortis/formats/record.py .venv/.installed
	@$(BIN)/python -m fortis.formats.record > $@

schema: checks
	@EXAMPLES=60 $(BIN)/pytest tests/api/test_schema.py

fuzz: checks
	@$(BIN)/python -m tests.fuzz

screenshots: checks
	@$(BIN)/python -m tests.browser.screenshots

clean:
	rm -rf .venv web/node_modules web/dist data
