# Fine Gap. `make demo` and `make test` do all the set-up on a fresh machine.
# Needs: Python 3.11, Node 20.19 or newer, make.

PORT ?= 8000
HOST ?= 127.0.0.1
WORKS ?= works
PYTHON ?= python3
VENV := .venv
PY := $(VENV)/bin/python
export FINEGAP_VAR ?= $(CURDIR)/var

.DEFAULT_GOAL := help
.PHONY: help demo serve backup restore works-check export import certificate wheel demo-reset dev test test-core test-apps test-front test-scale test-browser check fuzz bench scale soak types mutants lock screenshots clean machine

help: ## this list
	@grep -hE '^[a-z-]+:.*## ' $(MAKEFILE_LIST) | sed -E 's/:.*## /\t/' | expand -t 16

machine:
	@tools/machine $(PYTHON)

$(VENV)/.run: requirements/run.txt | machine
	@test -x $(PY) || $(PYTHON) -m venv $(VENV)
	@echo "Installing what the application needs ..."
	@$(PY) -m pip install --quiet --disable-pip-version-check --require-hashes -r requirements/run.txt
	@touch $@

$(VENV)/.dev: requirements/dev.txt $(VENV)/.run
	@echo "Installing what checks and tests need ..."
	@$(PY) -m pip install --quiet --disable-pip-version-check --require-hashes -r requirements/dev.txt
	@touch $@

frontend/node_modules/.done: frontend/package-lock.json | machine
	@echo "Installing the front end's packages ..."
	@cd frontend && npm ci --silent --no-audit --no-fund
	@touch $@

frontend/dist/index.html: frontend/node_modules/.done frontend/index.html frontend/vite.config.ts $(shell find frontend/src -type f)
	@echo "Building the front end ..."
	@cd frontend && npm run --silent build -- --logLevel warn

demo: $(VENV)/.run frontend/dist/index.html ## the demo works at http://127.0.0.1:8000 (PORT=8917 chooses another)
	@$(PY) -m finegap.command demo --port $(PORT)

serve: $(VENV)/.run frontend/dist/index.html ## a works of your own at http://127.0.0.1:8000, its data in WORKS (HOST=192.168.1.20 serves the network)
	@FINEGAP_VAR="$(abspath $(WORKS))" $(PY) -m finegap.command serve --host $(HOST) --port $(PORT)

backup: $(VENV)/.run ## copy the works in WORKS into one archive, FILE=name.zip, while it is in use
	@FINEGAP_VAR="$(abspath $(WORKS))" $(PY) -m finegap.command backup "$(FILE)"

restore: $(VENV)/.run ## put a works back from FILE into WORKS; ARGS=--over over the one that is there, after asking
	@FINEGAP_VAR="$(abspath $(WORKS))" $(PY) -m finegap.command restore "$(FILE)" $(ARGS)

works-check: $(VENV)/.run ## check the works in WORKS: its database, and the files it names
	@FINEGAP_VAR="$(abspath $(WORKS))" $(PY) -m finegap.command check

export: $(VENV)/.run ## write the whole works in WORKS into one archive of open files, FILE=name.zip
	@FINEGAP_VAR="$(abspath $(WORKS))" $(PY) -m finegap.command export "$(FILE)"

import: $(VENV)/.run ## put a works back from such an archive, FILE, into WORKS, which must hold none
	@FINEGAP_VAR="$(abspath $(WORKS))" $(PY) -m finegap.command import "$(FILE)"

certificate: $(VENV)/.run ## a certificate for TLS in WORKS, for HOST; made again it is renewed
	@FINEGAP_VAR="$(abspath $(WORKS))" $(PY) -m finegap.command certificate $(filter-out 127.0.0.1,$(HOST))

wheel: $(VENV)/.dev frontend/dist/index.html ## dist/fine_gap-*.whl: the command fine-gap, the built front end inside
	@$(PY) -m pip wheel --quiet --disable-pip-version-check --no-deps --no-build-isolation --wheel-dir dist .
	@ls dist/*.whl

demo-reset: $(VENV)/.run ## throw the demo's data away, after asking; the next `make demo` starts afresh
	@$(PY) -m finegap.command demo --reset

dev: $(VENV)/.run frontend/node_modules/.done ## Django and Vite side by side, reloading
	@$(PY) manage.py migrate -v0 && $(PY) manage.py load_demo
	@trap 'kill 0' INT TERM EXIT; FINEGAP_DEMO=1 FINEGAP_DEBUG=1 $(PY) manage.py runserver & cd frontend && npm run dev

check: $(VENV)/.dev frontend/node_modules/.done ## format, lint, types, import contracts, sizes, no family in the engine, stale generated files
	@$(VENV)/bin/ruff format --check --quiet . && $(VENV)/bin/ruff check --quiet .
	@$(VENV)/bin/mypy
	@$(VENV)/bin/lint-imports --no-logo 2>/dev/null || $(VENV)/bin/lint-imports
	@$(PY) tools/engine.py
	@$(PY) tools/sizes.py
	@$(PY) manage.py makemigrations --check --dry-run -v0
	@tools/generated --check
	@cd frontend && npm run --silent check

types: $(VENV)/.dev frontend/node_modules/.done ## the OpenAPI schema and the front end's types, from the code
	@tools/generated

test: $(VENV)/.dev frontend/node_modules/.done frontend/dist/index.html ## everything CI runs: what is checked at once, then two parts at a time
	@$(MAKE) --no-print-directory timed-check
	@$(MAKE) --no-print-directory -j2 --output-sync=target timed-test-apps timed-test-browser timed-test-scale timed-test-front timed-test-core

timed-%:
	@tools/timed $* $(MAKE) --no-print-directory $*

test-front: frontend/node_modules/.done
	@cd frontend && npm run --silent test

test-core: $(VENV)/.dev
	@$(PY) -W error -W "ignore::DeprecationWarning" manage.py test --testrunner tests.runner.TimedRunner tests.core

test-apps: $(VENV)/.dev frontend/dist/index.html
	@FINEGAP_TEST_DB=:memory: $(PY) -W error -W "ignore::DeprecationWarning" manage.py test --noinput --testrunner tests.runner.TimedRunner tests.apps

test-scale: $(VENV)/.dev
	@$(PY) tools/scale.py --pumps 1200 --jobs 1200 --sheets 10 --gauges 20 --people 10 --times 1

test-browser: $(VENV)/.dev frontend/dist/index.html
	@tools/chromium
	@$(PY) manage.py test --noinput --testrunner tests.runner.TimedRunner tests.browser

fuzz: $(VENV)/.dev ## the core's property tests with a thousand new examples each (half an hour)
	@FINEGAP_FUZZ=1 $(PY) manage.py test tests.core

bench: $(VENV)/.dev frontend/dist/index.html ## speed and size, as ratios in one run
	@$(PY) tools/bench.py

scale: $(VENV)/.dev ## a works of ten years (60,000 jobs) beside the demo's: what each list, page, job, save and report costs in both
	@$(PY) tools/scale.py $(ARGS)

soak: $(VENV)/.dev frontend/dist/index.html ## an hour of hard use: kills under writers, 16 people, 25,000 made-up requests a role (ARGS="kills --kills 10" for less)
	@$(PY) tools/soak.py $(ARGS)

screenshots: $(VENV)/.dev frontend/dist/index.html ## docs/screenshots from the demo data
	@tools/chromium && $(PY) tools/screenshots.py

mutants: $(VENV)/.dev ## do tests fail when the core is wrong? a sample of faults, every number of its tables (an hour; goes on where it stopped)
	@$(PY) tools/mutants.py

lock: $(VENV)/.dev ## compile the requirement locks
	@$(PY) -m pip install --quiet uv
	@$(VENV)/bin/uv pip compile --quiet --no-header --generate-hashes --python-version 3.11 pyproject.toml -o requirements/run.txt
	@$(VENV)/bin/uv pip compile --quiet --no-header --generate-hashes --python-version 3.11 pyproject.toml requirements/dev.in -o requirements/dev.txt

clean: ## remove what was built and installed; data in var/ stays
	@rm -rf $(VENV) frontend/node_modules frontend/dist
