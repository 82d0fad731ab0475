# Everything the project does starts here. `make demo` and `make test` set up what they need.
PY := .venv/bin/python
STAMP := .venv/.stamps
PORT ?= 8417
export SWAPGLOW_PORT := $(PORT)
export PYTHONWARNINGS := ignore::DeprecationWarning
# A start that finds its modules compiled is half a second shorter; some machines are set to keep none.
export PYTHONDONTWRITEBYTECODE :=
# Small matrices cost more to share among threads than to solve.
export OPENBLAS_NUM_THREADS := 1

.PHONY: installed audit day-worth demo serve rebuild test test-core test-web build wheel schema shots bench load year fuzz-core faults mutants approve torture format lock clean lint lint-python lint-web debian

demo: $(STAMP)/run $(STAMP)/built
	@$(PY) -m swapglow.web.serve --demo

# Your own bench. Its records are where this system keeps a person's data, never in the checkout.
serve: $(STAMP)/run $(STAMP)/built
	@$(PY) -m swapglow.web.serve

# Three workers on two processors, for pages and servers wait much of their time. Which tests go together, and which
# begin, is said in tests/conftest.py.
test: installed lint
	$(PY) -m pytest -n 3 tests

# Both sides at once, and each waits for its packages.
installed: $(STAMP)/venv
	@$(MAKE) --no-print-directory -j 2 -O $(STAMP)/dev $(STAMP)/built debian

# The core alone: what the sum, the engine and the findings say. Seconds for one room of it:
# .venv/bin/python -m pytest tests/core/engine.
test-core: $(STAMP)/dev debian
	$(PY) -m pytest tests/core

# Everything around the core: inputs, records, API, documents, the command, and the front end's own tests.
test-web: $(STAMP)/dev $(STAMP)/npm
	$(PY) -m pytest tests/api tests/document tests/test_cli.py
	cd frontend && npm run --silent test

# A virtual environment, on Debian's Python where there is one.
$(STAMP)/venv:
	@python=$$(sh scripts/which-python) && $$python -m venv .venv
	@mkdir -p $(STAMP)
	@$(PY) -c "import pathlib, site; pathlib.Path(site.getsitepackages()[0], 'swapglow-source.pth').write_text(str(pathlib.Path.cwd()))"
	@printf '#!/bin/sh\nexec "$$(dirname "$$0")/python" -m swapglow.cli "$$@"\n' > .venv/bin/swapglow
	@chmod +x .venv/bin/swapglow
	@touch $@

# Packages are compiled as they are imported: most of them never are, and compiling all takes as long as fetching them.
$(STAMP)/run: requirements/run.txt | $(STAMP)/venv
	@echo "Installing the Python packages"
	@$(PY) -m pip install --quiet --no-compile --disable-pip-version-check --require-hashes -r requirements/run.txt
	@touch $@

$(STAMP)/dev: requirements/dev.txt | $(STAMP)/venv
	@echo "Installing the Python packages, with those for development"
	@$(PY) -m pip install --quiet --no-compile --disable-pip-version-check --require-hashes -r requirements/dev.txt
	@touch $@ $(STAMP)/run

$(STAMP)/mutants: requirements/mutants.txt | $(STAMP)/dev
	@echo "Installing the mutation tool"
	@$(PY) -m pip install --quiet --no-compile --disable-pip-version-check --require-hashes -r requirements/mutants.txt
	@touch $@

$(STAMP)/npm: frontend/package.json frontend/package-lock.json | $(STAMP)/venv
	@echo "Installing the front end's packages"
	@cd frontend && npm ci --silent
	@touch $@

FRONT := $(shell find frontend/src frontend/public -type f 2>/dev/null) frontend/index.html frontend/vite.config.ts frontend/tsconfig.json

$(STAMP)/built: $(STAMP)/npm $(FRONT)
	@echo "Building the front end"
	@cd frontend && npm run --silent build > ../.venv/build.log 2>&1 || { cat ../.venv/build.log; exit 1; }
	@touch $@

build: $(STAMP)/built

# Everything in one file for whoever installs it: program, tables, migrations, and the front end as it is built here. It
# is made from a copy, so that nothing here is touched.
WHEEL := .venv/wheel
wheel: $(STAMP)/dev $(STAMP)/built
	@rm -rf $(WHEEL) && mkdir -p $(WHEEL)/source
	@cp -R swapglow pyproject.toml requirements README.md $(WHEEL)/source
	@cp -R frontend/dist $(WHEEL)/source/swapglow/web/front && cp CHANGELOG.md $(WHEEL)/source/swapglow/web/front/changes.md
	@cd $(WHEEL)/source && ../../bin/python -m pip wheel --quiet --disable-pip-version-check --no-deps --wheel-dir .. .
	@rm -rf $(WHEEL)/source && ls $(WHEEL)/*.whl

rebuild:
	rm -rf $(STAMP)/built frontend/dist
	@$(MAKE) --no-print-directory build

# Chromium, built to run without a screen, and ngspice for the tests, from Debian's packages where they are missing.
debian:
	@sh scripts/debian-packages chromium-headless-shell ngspice fonts-liberation

# Both sides at once; then the front end's own tests, which take both cores.
lint: $(STAMP)/dev $(STAMP)/npm
	@$(MAKE) --no-print-directory -j 2 -O lint-python lint-web
	cd frontend && npm run --silent test

lint-python: $(STAMP)/dev
	.venv/bin/ruff check .
	.venv/bin/ruff format --check .
	.venv/bin/mypy
	.venv/bin/lint-imports --no-cache
	$(PY) -m scripts.unused

lint-web: $(STAMP)/npm
	cd frontend && npm run --silent format:check && npm run --silent lint && npm run --silent unused && npm run --silent check

format: $(STAMP)/dev $(STAMP)/npm
	.venv/bin/ruff check --fix .
	.venv/bin/ruff format .
	cd frontend && npm run --silent format

# The API's description, the document's schema, the front end's types from it, and the catalogue its tests show.
schema: $(STAMP)/dev $(STAMP)/npm
	$(PY) manage.py export_openapi_schema --api swapglow.api.app.api --indent 1 --output docs/openapi.json
	$(PY) -m swapglow.document.write_schema docs/equipment-3.schema.json
	$(PY) -m scripts.write_catalogue frontend/src/test/catalogue.json
	$(PY) -m scripts.write_colours docs/colours.md
	cd frontend && npm run --silent types

# One picture of each main view, from the demo data.
shots: $(STAMP)/dev $(STAMP)/built debian
	$(PY) -m scripts.shots

bench: $(STAMP)/dev debian
	$(PY) -m scripts.bench

# People at work at once: how long views and saves take, and whether anything is lost. Figures, no verdict.
load: $(STAMP)/dev $(STAMP)/built
	$(PY) -m scripts.load

# A year of use: how large the records become, how long a start and a backup take. CHANGES=500 for a taste.
year: $(STAMP)/dev $(STAMP)/built
	$(PY) -m scripts.year

# Random lamps through everything, each worked out a second time by other means. COUNT=200 for a taste.
COUNT ?= 20000
fuzz-core: $(STAMP)/dev
	$(PY) -m scripts.fuzz.run --count $(COUNT)

# Random lamps, damaged without knowing what the app suspects: is it right, and how sure? LAMPS=100 seeds for a taste.
LAMPS ?= 4000
faults: $(STAMP)/dev debian
	$(PY) -m scripts.fuzz.faults --count $(LAMPS)

# Small mistakes put into the code, one at a time: do the tests notice? SEED and MISTAKES draw others.
mutants: $(STAMP)/mutants $(STAMP)/npm debian
	$(PY) -m scripts.mutants.run $(if $(SEED),--seed $(SEED)) $(if $(MISTAKES),--count $(MISTAKES))

# Take what the demo's lamps are reported as now for what they should be; read the difference before it is kept.
approve: $(STAMP)/dev
	APPROVE=1 $(PY) -m pytest tests/approved
	git diff --stat tests/approved

# The bench day beside first come, first served, on seeded workloads.
day-worth: $(STAMP)/dev
	$(PY) -m scripts.day_worth

# Known holes in the packages the program is made with. LIST=folder, file or zip of OSV records works without a network.
audit: $(STAMP)/dev $(STAMP)/npm
	@$(PY) -m scripts.audit $(if $(LIST),--list $(LIST))
	@$(if $(LIST),echo "The front end's packages are looked up with a network only: npm audit.",cd frontend && npm audit --omit=dev)

# What make test does in a bounded form, long: kills, histories, the bad bench.
torture: $(STAMP)/dev $(STAMP)/built debian
	KILLS=300 TORTURE=1 $(PY) -m pytest -rP tests/reliability tests/hostile tests/core/test_cautions.py tests/core/test_plausible.py tests/api/test_one_answer.py tests/api/test_histories.py tests/api/test_ledger.py tests/browser/test_bad_bench.py tests/browser/test_first_hour.py

lock: | $(STAMP)/venv
	$(PY) -m pip install --quiet uv
	cd requirements && for name in run dev mutants; do ../.venv/bin/uv pip compile --quiet --generate-hashes --universal --python-version 3.11 --no-emit-index-url --custom-compile-command "make lock" $$name.in -o $$name.txt; done

# What was installed and built. Records are elsewhere.
clean:
	rm -rf .venv frontend/node_modules frontend/dist
