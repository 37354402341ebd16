# Two commands do everything on a fresh machine: make demo, make test.
VENV := .venv
PY := $(VENV)/bin/python
READY := $(VENV)/.ready

.PHONY: demo test lint bench shots schema install uninstall clean
.DEFAULT_GOAL := demo

$(READY): requirements.lock pyproject.toml tools/setup-system.sh
	bash tools/setup-system.sh
	test -x $(PY) || $$(bash tools/find-python.sh) -m venv $(VENV)
	$(PY) -m pip install --quiet --require-hashes -r requirements.lock
	$(PY) -m pip install --quiet --no-deps --no-build-isolation -e .
	$(PY) -m compileall -q src
	touch $@

demo: $(READY)
	$(VENV)/bin/tessil --demo

test: $(READY)
	PYTHONDONTWRITEBYTECODE= QT_QPA_PLATFORM=offscreen $(PY) -m pytest -n auto --dist worksteal

lint: $(READY)
	$(VENV)/bin/ruff check src tests bench tools
	$(VENV)/bin/ruff format --check src tests bench tools
	$(VENV)/bin/mypy
	$(VENV)/bin/lint-imports

bench: $(READY)
	$(PY) -m pip install --quiet --require-hashes -r requirements-bench.lock
	QT_QPA_PLATFORM=offscreen $(PY) bench/run.py
	$(PY) bench/cutting.py

shots: $(READY)
	$(VENV)/bin/tessil shots docs/screenshots

schema: $(READY)
	$(VENV)/bin/tessil schema > docs/project.schema.json

PREFIX ?= /usr/local
HOME_OF := $(DESTDIR)$(PREFIX)/lib/tessil
SHARE := $(DESTDIR)$(PREFIX)/share

install: $(READY)
	test -x $(HOME_OF)/bin/python || $$(bash tools/find-python.sh) -m venv $(HOME_OF)
	$(HOME_OF)/bin/python -m pip install --quiet --require-hashes -r requirements.lock
	$(HOME_OF)/bin/python -m pip install --quiet --no-deps --no-build-isolation --force-reinstall .
	install -d $(DESTDIR)$(PREFIX)/bin
	ln -sfn $(PREFIX)/lib/tessil/bin/tessil $(DESTDIR)$(PREFIX)/bin/tessil
	install -Dm644 data/tessil.desktop $(SHARE)/applications/tessil.desktop
	install -Dm644 data/tessil-mime.xml $(SHARE)/mime/packages/tessil.xml
	install -Dm644 src/tessil/icons/tessil.svg $(SHARE)/icons/hicolor/scalable/apps/tessil.svg
	install -Dm644 LICENSE $(SHARE)/doc/tessil/LICENSE
	-test -n "$(DESTDIR)" || update-mime-database $(SHARE)/mime 2>/dev/null
	-test -n "$(DESTDIR)" || update-desktop-database $(SHARE)/applications 2>/dev/null

uninstall:
	rm -rf $(HOME_OF) $(SHARE)/doc/tessil
	rm -f $(DESTDIR)$(PREFIX)/bin/tessil $(SHARE)/applications/tessil.desktop
	rm -f $(SHARE)/mime/packages/tessil.xml $(SHARE)/icons/hicolor/scalable/apps/tessil.svg

clean:
	rm -rf $(VENV) build dist src/*.egg-info
