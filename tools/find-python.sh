#!/usr/bin/env bash
# Prints the first Python that is new enough (3.11 or later) and can make a virtual environment.
for name in python3.11 python3.12 python3.13 python3; do
  path=$(command -v "$name") || continue
  if "$path" -c 'import sys, venv, ensurepip; sys.exit(sys.version_info < (3, 11))' 2>/dev/null; then
    echo "$path"
    exit 0
  fi
done
echo "Tessil needs Python 3.11 or later with its venv module (Debian: python3-venv)." >&2
exit 1
