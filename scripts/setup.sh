# Sourced by ./start, ./test and ./bench: installs what is missing, in this folder, and says what it does.
# A stamp in .local/stamps remembers what a step was made from, so that a second run does only what changed.

cd "$(dirname "${BASH_SOURCE[0]}")/.."
ROOT=$PWD
STAMPS=$ROOT/.local/stamps
LOGS=$ROOT/.local/logs
mkdir -p "$STAMPS" "$LOGS"
# A machine that forbids compiled Python files would load every part three times slower.
unset PYTHONDONTWRITEBYTECODE
export UV_LINK_MODE=copy

fail() {
	printf '\n%s\n' "$*" >&2
	exit 1
}

# step NAME WHAT COMMAND…: runs a command with its output in a log; says how long it took, or why it failed.
step() {
	local name=$1 what=$2 began=$SECONDS
	shift 2
	printf '  %-46s' "$what"
	if "$@" >"$LOGS/setup-$name.log" 2>&1; then
		printf '%4d s\n' $((SECONDS - began))
	else
		printf 'failed\n\n' >&2
		tail -n 25 "$LOGS/setup-$name.log" >&2
		fail "This failed: $what
The command was: $*
All that it said is in $LOGS/setup-$name.log. Mend the cause and run the same command again; what is done stays done."
	fi
}

# made_from NAME FILE…: true when the step NAME was last done with just these files' contents.
digest() { cat "$@" 2>/dev/null | sha256sum | cut -d' ' -f1; }
made_from() { [ "$(cat "$STAMPS/$1" 2>/dev/null)" = "$(digest "${@:2}")" ]; }
mark_made() { digest "${@:2}" >"$STAMPS/$1"; }

as_root() {
	if [ "$(id -u)" = 0 ]; then
		env DEBIAN_FRONTEND=noninteractive "$@"
	elif command -v sudo >/dev/null; then
		sudo env DEBIAN_FRONTEND=noninteractive "$@"
	else
		fail "This needs root: $*
Run it as root, then run this again."
	fi
}

# need_packages PACKAGE…: installs those of Debian's packages that are missing.
need_packages() {
	local missing=() package
	for package in "$@"; do
		dpkg-query -W -f='${db:Status-Status}' "$package" 2>/dev/null | grep -qx installed || missing+=("$package")
	done
	[ ${#missing[@]} = 0 ] && return
	command -v apt-get >/dev/null || fail "These packages of Debian's are missing, and there is no apt-get to install them: ${missing[*]}"
	if [ "$(id -u)" != 0 ] && ! sudo -n true 2>/dev/null; then
		echo "  To install ${missing[*]}, sudo may ask for your password."
		sudo true || fail "Without sudo, have somebody install: ${missing[*]}"
	fi
	step apt-update "Debian's list of packages" as_root apt-get update -q
	step apt-install "Debian: ${missing[*]}" as_root apt-get install -q -y --no-install-recommends "${missing[@]}"
}

find_python() {
	local name
	for name in python3.11 python3; do
		command -v "$name" >/dev/null || continue
		"$name" -c 'import sys, venv, ensurepip; sys.exit(sys.version_info[:2] != (3, 11))' 2>/dev/null && PYTHON=$name && return
	done
	fail "Python 3.11 with its venv module is needed (Debian: apt-get install python3.11 python3.11-venv). Found: $(python3 --version 2>&1)"
}

# need_python LOCK: a virtual environment that holds just what the lock names.
need_python() {
	local lock=requirements/$1.lock
	[ -x .venv/bin/python ] && .venv/bin/python -c '' 2>/dev/null || rm -rf .venv "$STAMPS"/python-*
	if [ ! -x .venv/bin/uv ]; then
		command -v python3.11 >/dev/null || python3 -c 'import ensurepip' 2>/dev/null || need_packages python3 python3-venv
		find_python
		step venv "A virtual environment" "$PYTHON" -m venv --clear .venv
		step uv "uv, which installs the rest" .venv/bin/python -m pip install -q --require-hashes --no-deps -r requirements/boot.lock
	fi
	# What ./test needs holds all that ./start needs, so ./start leaves it standing.
	if [ "$1" = app ] && made_from python-dev requirements/dev.lock pyproject.toml; then return; fi
	made_from "python-$1" "$lock" pyproject.toml && return
	rm -f "$STAMPS"/python-*
	step python "Python packages" .venv/bin/uv pip sync -q --compile-bytecode --python .venv/bin/python "$lock"
	step uptick "The uptick command" .venv/bin/uv pip install -q --no-deps --no-build-isolation --python .venv/bin/python -e .
	mark_made "python-$1" "$lock" pyproject.toml
}

# need_node: Node 20.19 or newer, from the machine or else from PyPI's copy of it.
need_node() {
	local good='const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||a==20&&b>=19?0:1)'
	if ! node -e "$good" 2>/dev/null || ! command -v npm >/dev/null; then
		if [ ! -x .local/node/bin/node ]; then
			step node "Node, from PyPI" .venv/bin/uv pip install -q --python .venv/bin/python --target .local/node-wheel --no-deps --require-hashes -r requirements/node.lock
			local inside
			inside=$(dirname "$(find "$ROOT/.local/node-wheel" -path '*/bin/node' | head -1)")
			[ -n "$inside" ] || fail "The Node of PyPI has another layout than expected. Install Node 20.19 or newer by hand."
			mkdir -p .local/node/bin
			ln -sf "$inside/node" .local/node/bin/node
			local module
			for module in npm npx; do
				printf '#!/bin/sh\nexec "%s/node" "%s/lib/node_modules/npm/bin/%s-cli.js" "$@"\n' "$inside" "$(dirname "$inside")" "$module" >".local/node/bin/$module"
				chmod +x ".local/node/bin/$module"
			done
		fi
		export PATH="$ROOT/.local/node/bin:$PATH"
		node -e "$good" || fail "Node 20.19 or newer is needed; found $(node --version 2>&1)."
	fi
	if ! made_from npm package-lock.json || [ ! -d node_modules ]; then
		step npm "Front-end packages" npm ci --no-fund --no-audit --loglevel=error
		mark_made npm package-lock.json
	fi
}

# need_strangers: files that the tests did not make, from a lock of their own; nothing of it ships.
need_strangers() {
	local at=tests/strangers
	made_from strangers $at/package-lock.json && [ -d $at/node_modules ] && return
	step strangers "Files of others, for the tests" npm ci --prefix $at --ignore-scripts --omit=peer --omit=optional --no-fund --no-audit --loglevel=error
	mark_made strangers $at/package-lock.json
}

sources() { git ls-files -co --exclude-standard -- "$@" 2>/dev/null || find "$@" -type f -not -path '*/dist/*'; }

# need_builds: the storefront script and the studio, built anew only when a source of theirs changed.
need_builds() {
	local part files
	for part in storefront studio practice; do
		mapfile -t files < <(sources "$part" storefront/src | LC_ALL=C sort -u)
		[ -d "$part/dist" ] && made_from "build-$part" package-lock.json "${files[@]}" && continue
		step "build-$part" "Building the $part" npm run -s "build:$part"
		mark_made "build-$part" package-lock.json "${files[@]}"
	done
}
