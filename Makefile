# Every target sets up what it needs; nothing is expected to be there but Python 3.11, Node 20, npm and make.
.DEFAULT_GOAL := help
SHELL := /bin/bash
PY := .venv/bin/python
# what is compiled is kept, so that each start of Zymon and each worker of the tests does not do it again
unexport PYTHONDONTWRITEBYTECODE
STAMP := .make
SOURCES := $(shell find web/src web/public web/index.html web/vite.config.ts web/vite.worker.config.ts -type f 2>/dev/null)

.PHONY: help setup demo serve test check bench drills mutants screenshots types wheel clean

help: ## Show the targets
	@grep -E '^[a-z]+:.*##' Makefile | sed 's/:.*## /\t/'

$(STAMP)/python: requirements-dev.txt pyproject.toml
	@mkdir -p $(STAMP)
	python3.11 -m venv .venv
	$(PY) -m pip install --quiet --disable-pip-version-check --require-hashes -r requirements-dev.txt
	$(PY) -m pip install --quiet --disable-pip-version-check --no-deps -e .
	$(PY) -m compileall -q -j 2 src tests
	@touch $@

$(STAMP)/node: web/package.json web/package-lock.json
	@mkdir -p $(STAMP)
	cd web && npm ci --no-fund --no-audit --loglevel=error
	@touch $@

$(STAMP)/web: $(STAMP)/node $(SOURCES)
	cd web && npm run --silent build
	@touch $@

$(STAMP)/chromium:
	@mkdir -p $(STAMP)
	@test -x /usr/bin/chromium-headless-shell || ./scripts/install-chromium
	@touch $@

setup: $(STAMP)/python $(STAMP)/web ## Install everything and build the front end

demo: setup ## Serve the made-up workshop on a loopback address
	@exec .venv/bin/zymon demo --db var/demo.db

serve: setup ## Serve your own workshop, kept with your data
	@exec .venv/bin/zymon serve

test: setup $(STAMP)/chromium ## Run every test, the browser's included
	cd web && npm run --silent test
	$(PY) -m pytest -n 2 --dist loadfile

check: setup ## Lint, types, import contract, published formats
	.venv/bin/ruff check .
	.venv/bin/ruff format --check .
	.venv/bin/mypy
	.venv/bin/lint-imports
	$(PY) scripts/formats.py --check
	cd web && npm run --silent check

types: $(STAMP)/python $(STAMP)/node ## Write docs/formats and the front end's types anew
	$(PY) scripts/formats.py
	cd web && npm run --silent types

bench: setup $(STAMP)/chromium ## Measure speed and accuracy
	$(PY) -m benchmarks

drills: setup $(STAMP)/chromium ## Kill, copy, restore, bring up and fuzz at length, and all that takes long; half an hour
	DRILLS=1 $(PY) -m pytest -n 2 --dist load -m drill --timeout 1800
	DRILLS=1 ANY_REQUEST_EXAMPLES=60 $(PY) -m pytest -n 2 --dist load -m "not drill" tests/house \
	  tests/api/test_any_request.py tests/store/test_migration.py --timeout 1800

mutants: setup ## Change every limit of safety by a fifth and see whether a test notices; takes minutes
	$(PY) scripts/mutants.py

wheel: setup ## Build a wheel with the page in it, into dist/
	rm -rf build dist src/zymon/web
	cp -r web/dist src/zymon/web
	$(PY) -m pip wheel --quiet --disable-pip-version-check --no-deps --wheel-dir dist .; status=$$?; rm -rf build src/zymon/web; exit $$status

screenshots: setup $(STAMP)/chromium ## Take the pictures in docs/screenshots anew
	$(PY) -m scripts.screenshots

clean: ## Remove what was installed and built; data in var/ stays
	rm -rf .venv $(STAMP) web/node_modules web/dist
