# make demo: set up, lay out the demo range and serve it on 127.0.0.1:8000.   make test: set up and check everything.
# make dev: the same with reload of both sides, on 127.0.0.1:5173.   More in CONTRIBUTING.md.
PYTHON ?= python3
BIN := .venv/bin
PAGE := src/improva/web/page/index.html
PAGE_SOURCES := $(shell find frontend/src frontend/public -type f) frontend/index.html frontend/vite.config.ts

.PHONY: demo dev dev-server dev-page test lint types format hooks stages pytest attack lock clean

demo: .venv/ready $(PAGE)
	$(BIN)/improva serve --demo --data data

dev: .venv/ready frontend/node_modules/.ready
	@$(MAKE) --no-print-directory -j2 dev-server dev-page

dev-server:
	$(BIN)/improva serve --demo --data data --reload

dev-page:
	cd frontend && npx --no-install vite --host 127.0.0.1 --port 5173

# What is fetched and what is only read need not wait for each other; the tests have the machine to themselves.
test:
	@$(MAKE) --no-print-directory -j3 --output-sync=target machine $(PAGE) lint
	@$(MAKE) --no-print-directory pytest

.venv/bin/pip:
	$(PYTHON) -m venv .venv

.venv/ready: requirements.txt pyproject.toml | .venv/bin/pip
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements.txt
	$(BIN)/pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation -e .
	touch $@

.venv/ready-to-test: requirements-test.txt .venv/ready
	$(BIN)/pip install --quiet --disable-pip-version-check --require-hashes -r requirements-test.txt
	touch $@

frontend/node_modules/.ready: frontend/package-lock.json
	cd frontend && npm ci --no-progress --loglevel=error
	touch $@

$(PAGE): frontend/node_modules/.ready $(PAGE_SOURCES)
	cd frontend && npm run --silent build

# What the tests need from Debian: a browser, readers of PDF and ZIP, LLVM for the path tracer, and a queue for many machines.
.PHONY: machine
machine:
	@command -v chromium >/dev/null && command -v pdfinfo >/dev/null && command -v unzip >/dev/null && command -v redis-server >/dev/null && ls /usr/lib/*/libLLVM.so.19.1 >/dev/null 2>&1 || { \
	  root=$$( [ "$$(id -u)" = 0 ] || echo sudo ); \
	  $$root apt-get update -qq && $$root apt-get install -y -qq chromium poppler-utils unzip libllvm19 redis-server >/dev/null; }

lint: .venv/ready-to-test frontend/node_modules/.ready
	$(BIN)/ruff check .
	$(BIN)/ruff format --check .
	$(BIN)/mypy
	$(BIN)/python docs/draw_imports.py --check
	mkdir -p build && $(BIN)/python -m improva.web.openapi > build/api.json
	cd frontend && npx --no-install openapi-typescript ../build/api.json -o ../build/generated.ts >/dev/null
	@cmp -s build/generated.ts frontend/src/api/generated.ts || { echo "frontend/src/api/generated.ts is stale: run 'make types'"; exit 1; }
	cd frontend && npm run --silent check

format: .venv/ready-to-test frontend/node_modules/.ready
	$(BIN)/ruff check --fix --quiet . ; $(BIN)/ruff format --quiet .
	cd frontend && npx --no-install biome check --write .

hooks: .venv/ready-to-test frontend/node_modules/.ready
	$(BIN)/pre-commit install

# Stages whose code has changed get a new version: what they made is made anew. SAME="stage …" keeps the version of some.
stages: .venv/ready
	$(BIN)/python -m improva.stages $(if $(SAME),same $(SAME),raise)

types: .venv/ready frontend/node_modules/.ready
	mkdir -p build && $(BIN)/python -m improva.web.openapi > build/api.json
	cd frontend && npm run --silent types

# Every processor has a worker of its own: threads of the libraries would only wait for each other.
pytest:
	VIPS_CONCURRENCY=1 OPENBLAS_NUM_THREADS=1 OPENCV_FOR_THREADS_NUM=1 $(BIN)/pytest -n auto --maxprocesses 4 --dist loadfile --no-loadscope-reorder

# The long attack on a real server: broken files, generated calls of the API, kills. About 40 minutes on two cores.
attack: .venv/ready-to-test $(PAGE)
	$(BIN)/python -m tests.attack

# Lock files carry hashes and no addresses.
lock: .venv/ready-to-test
	$(BIN)/uv pip compile --quiet --generate-hashes --no-emit-index-url --no-header --extra build pyproject.toml -o requirements.txt
	$(BIN)/uv pip compile --quiet --generate-hashes --no-emit-index-url --no-header --all-extras -c requirements.txt pyproject.toml -o requirements-test.txt

clean:
	rm -rf .venv build frontend/node_modules src/improva/web/page
