# Sourced by bin/start, bin/test and the other commands that need more than Ruby: installs what a fresh machine lacks.
# Each part is skipped in no time when it is there already.
ROOT="$(cd "$(dirname "${BASH_SOURCE[0]}")/../.." && pwd)"
cd "$ROOT" || exit 1
export LC_ALL=C.UTF-8 BUNDLE_GEMFILE="$ROOT/Gemfile" BUNDLE_PATH="$ROOT/vendor/bundle" BUNDLE_FROZEN=true

say() { printf '%s\n' "$*" >&2; }
die() { printf '\n%s\n' "$*" >&2; exit 1; }

# need_packages NAME...  (Debian packages)
need_packages() {
  local missing=()
  for name in "$@"; do
    dpkg-query -W -f='${Status}' "$name" 2>/dev/null | grep -q 'install ok installed' || missing+=("$name")
  done
  [ ${#missing[@]} -eq 0 ] && return 0
  say "Installing Debian packages: ${missing[*]}"
  local run=()
  if [ "$(id -u)" -ne 0 ]; then
    if command -v sudo >/dev/null && sudo -n true 2>/dev/null; then run=(sudo); else
      die "These Debian packages are missing: ${missing[*]}
Install them as root (apt-get install ${missing[*]}), then run this again."
    fi
  fi
  mkdir -p "$ROOT/data"
  { "${run[@]}" apt-get update && "${run[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "${missing[@]}"; } \
    >"$ROOT/data/apt.log" 2>&1 || die "Installing ${missing[*]} failed. What apt said is in data/apt.log."
}

need_node() {
  command -v node >/dev/null || die "Node.js 20 or newer is needed and was not found."
  local major; major="$(node -p 'process.versions.node.split(".")[0]')"
  [ "$major" -ge 20 ] || die "Node.js 20 or newer is needed; this is $(node --version)."
}

need_gems() {
  command -v bundle >/dev/null || need_packages ruby-bundler
  bundle check >/dev/null 2>&1 && return 0
  say "Installing gems (a minute or two, once)"
  mkdir -p "$ROOT/data"
  bundle install --jobs 4 >"$ROOT/data/bundle.log" 2>&1 || die "Installing gems failed. What bundler said is in data/bundle.log."
}

need_node_modules() {
  need_node
  local stamp="$ROOT/web/node_modules/.installed"
  [ -f "$stamp" ] && cmp -s "$stamp" "$ROOT/web/package-lock.json" && return 0
  say "Installing npm packages"
  mkdir -p "$ROOT/data"
  (cd web && npm ci --no-audit --no-fund >"$ROOT/data/npm.log" 2>&1) || die "Installing npm packages failed. What npm said is in data/npm.log."
  cp "$ROOT/web/package-lock.json" "$stamp"
}

# Builds the front end when its sources are newer than the last build.
build_pages() {
  local dist="$ROOT/web/dist/index.html"
  if [ -f "$dist" ] && [ -z "$(find web/src web/public web/sw.js web/index.html web/vite.config.ts web/package-lock.json formats/openapi.json -newer "$dist" -print -quit)" ]; then return 0; fi
  need_node_modules
  say "Building the pages"
  mkdir -p "$ROOT/data"
  (cd web && npm run build >"$ROOT/data/build.log" 2>&1) || { tail -n 30 "$ROOT/data/build.log" >&2; die "Building the pages failed. The whole log is in data/build.log."; }
}

SYSTEM_PACKAGES=(ruby ruby-dev build-essential libpq-dev postgresql-15 libyaml-dev libvips42)
BROWSER_PACKAGES=(chromium chromium-driver)

# Ruby as the web process runs it: with room before it cleans up (measured: half the pauses, about 60 MB more).
fast_ruby() {
  export RUBY_GC_HEAP_INIT_SLOTS=1000000
  export RUBY_GC_MALLOC_LIMIT=100000000 RUBY_GC_MALLOC_LIMIT_MAX=200000000 RUBY_GC_OLDMALLOC_LIMIT=200000000 RUBY_GC_OLDMALLOC_LIMIT_MAX=400000000
  # YJIT takes all of its memory for compiled code at once, 256 MB by default; what is compiled here is a tenth of that.
  local yjit="--yjit --yjit-exec-mem-size=24"
  if ruby $yjit -e "" 2>/dev/null; then export RUBYOPT="${RUBYOPT:+$RUBYOPT }$yjit"; fi
}
