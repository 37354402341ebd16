# Two commands do everything on a fresh machine: make demo, make test.
VENV := .venv
PY := $(VENV)/bin/python
READY := $(VENV)/.ready

.PHONY: demo test lint bench shots schema clean
.DEFAULT_GOAL := demo

$(READY): requirements.lock pyproject.toml tools/setup-system.sh
	bash tools/setup-system.sh
	test -x $(PY) || $$(bash tools/find-python.sh) -m venv $(VENV)
	$(PY) -m pip install --quiet --require-hashes -r requirements.lock
	$(PY) -m pip install --quiet --no-deps --no-build-isolation -e .
	touch $@

demo: $(READY)
	$(VENV)/bin/tessil --demo

test: $(READY)
	QT_QPA_PLATFORM=offscreen $(PY) -m pytest

lint: $(READY)
	$(VENV)/bin/ruff check src tests bench
	$(VENV)/bin/ruff format --check src tests bench
	$(VENV)/bin/mypy
	$(VENV)/bin/lint-imports

bench: $(READY)
	$(PY) -m pip install --quiet --require-hashes -r requirements-bench.lock
	QT_QPA_PLATFORM=offscreen $(PY) bench/run.py

shots: $(READY)
	$(VENV)/bin/tessil shots docs/screenshots

schema: $(READY)
	$(VENV)/bin/tessil schema > docs/project.schema.json

clean:
	rm -rf $(VENV) build dist src/*.egg-info
