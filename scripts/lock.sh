#!/usr/bin/env bash
# Writes the lock files of Python anew: pinned and hashed, without any registry's address.
set -euo pipefail
cd "$(dirname "$0")/../requirements"
for name in app dev node; do
	../.venv/bin/uv pip compile -q --no-header --no-annotate --generate-hashes --no-emit-index-url --no-emit-find-links \
		--allow-unsafe -p 3.11 "$name.in" -o "$name.lock" "$@"
done
# What installs the rest: the one package that pip itself has to bring.
awk '/^[^ ]/ { take = /^uv==/ } take' app.lock >boot.lock
