#!/usr/bin/env bash
# Brings the tree to where it can run; each step is done again only when what it is made from has changed.
#   set-up.sh install | prompt | build | chromium | shell | ffmpeg | postgres | engines
set -euo pipefail
cd "$(dirname "$(readlink -f "$0")")/.."

say() { printf '\033[2m· %s\033[0m\n' "$*"; }
sum() { cat "$@" | sha256sum | cut -d' ' -f1; }

need_node() {
  if ! command -v node >/dev/null || ! command -v npm >/dev/null; then
    echo 'Open Tide needs Node.js 20.19 or newer with npm. Install it and start again.' >&2
    exit 1
  fi
  if ! node -e 'const [a,b]=process.versions.node.split(".").map(Number); process.exit(a>20||(a===20&&b>=19)?0:1)'; then
    echo "Open Tide needs Node.js 20.19 or newer; this is $(node --version)." >&2
    exit 1
  fi
}

install() {
  need_node
  local want
  want=$(sum package.json package-lock.json)
  [ "$(cat node_modules/.tide-installed 2>/dev/null || true)" = "$want" ] && return
  say 'Installing packages (about a minute, the first time only) …'
  # The lock file is kept as it is: npm may drop packages of other systems from it.
  cp package-lock.json .tide-lock
  if ! npm install --no-audit --no-fund --loglevel=error; then
    mv .tide-lock package-lock.json
    echo 'The packages could not be installed. Check the connection to the npm registry and start again.' >&2
    exit 1
  fi
  mv .tide-lock package-lock.json
  echo "$want" > node_modules/.tide-installed
}

sources() { find app core public server demo cli/app-bundle.ts scripts/first-database.ts nuxt.config.ts package-lock.json -type f ! -name '*.test.ts' ! -name '*.json' -print0 | sort -z; }

build() {
  local want
  want=$(sources | xargs -0 sha256sum | sha256sum | cut -d' ' -f1)
  [ "$(cat .output/.tide-built 2>/dev/null || true)" = "$want" ] && return
  say 'Building (about a minute, after changes only) …'
  local log
  log=$(mktemp)
  if ! { npx --no-install jiti demo/write.ts && npx --no-install nuxt build && npx --no-install jiti scripts/first-database.ts .output/server/first; } > "$log" 2>&1; then
    tail -n 60 "$log" >&2
    echo 'The build failed; what it said stands above.' >&2
    exit 1
  fi
  rm -f "$log"
  echo "$want" > .output/.tide-built
}

# What the commands at a prompt need: the packages, and the demo as files to try them on.
prompt() {
  install
  [ -f demo/lantern-pier.json ] || npx --no-install jiti demo/write.ts
}

# A Debian package, and what is said when it cannot be had.
debian() {
  say "Installing $1 for the tests …"
  local as=''
  [ "$(id -u)" = 0 ] || as=sudo
  if ! { $as apt-get update -qq && $as apt-get install -y -qq --no-install-recommends "$1"; } >/dev/null; then
    echo "$1 could not be installed. $2" >&2
    exit 1
  fi
}

chromium() {
  [ -n "${CHROMIUM:-}" ] && return
  # Not `command -v`, which would find this very function.
  type -P chromium >/dev/null && return
  debian chromium 'Install it, or set CHROMIUM to its path.'
}

# For the tests alone; without it they run in Chromium itself, and take longer.
shell() {
  [ -n "${CHROMIUM:-}" ] && return
  type -P chromium-headless-shell >/dev/null && return
  (debian chromium-headless-shell 'The tests run in Chromium itself.') || true
}

# Films that are given out are read by somebody else's reader in the tests.
ffmpeg() {
  type -P ffprobe >/dev/null && return
  debian ffmpeg 'Install it; the tests need its ffmpeg and ffprobe.'
}

# The other browser engines, for `npm run engines` alone.
engines() {
  chromium
  type -P firefox-esr >/dev/null || debian firefox-esr 'Install it; it is asked for its values.'
  type -P WebKitWebDriver >/dev/null || debian webkit2gtk-driver 'Install it; it is asked for its values.'
  type -P xvfb-run >/dev/null || debian xvfb 'Install it; WebKit needs a screen.'
}

# The tests try the pieces on a PostgreSQL server too; it is started and ended by them alone.
postgres() {
  ls /usr/lib/postgresql/*/bin/initdb >/dev/null 2>&1 && return
  local as=''
  [ "$(id -u)" = 0 ] || as=sudo
  $as mkdir -p /etc/postgresql-common
  echo 'create_main_cluster = false' | $as tee /etc/postgresql-common/createcluster.conf >/dev/null
  debian postgresql 'Install it; the tests need its initdb and pg_ctl.'
}

"$1"
