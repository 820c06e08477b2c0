# Shared by the scripts: where things are, and installing what a fresh Debian machine lacks.
PROJECT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
export LC_ALL=C.UTF-8

say() { printf '%s\n' "$*" >&2; }

as_root() {
  if [ "$(id -u)" = 0 ]; then "$@"; else sudo -n "$@" 2>/dev/null || sudo "$@"; fi
}

# need_debian COMMAND PACKAGE: installs the package unless the command (or file pattern) is there
need_debian() {
  command -v "$1" >/dev/null 2>&1 && return
  compgen -G "$1" >/dev/null && return
  say "Installing $2 from Debian's packages …"
  as_root env DEBIAN_FRONTEND=noninteractive apt-get update -q >&2
  # the project's own cluster is used: Debian need not make one of its own
  as_root mkdir -p /etc/postgresql-common
  [ -f /etc/postgresql-common/createcluster.conf ] ||
    echo 'create_main_cluster = false' | as_root tee /etc/postgresql-common/createcluster.conf >/dev/null
  as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends "$2" >&2
}

need_postgresql() { need_debian '/usr/lib/postgresql/*/bin/initdb' postgresql; }
need_chromium() { need_debian chromium chromium; }
# programs that the tests have read our files: none of them is needed to run the product
need_readers() {
  need_debian Rscript r-base-core && need_debian pspp pspp &&
    need_debian '/usr/lib/python3/dist-packages/openpyxl' python3-openpyxl &&
    need_debian '/usr/lib/python3/dist-packages/docx' python3-docx &&
    need_debian '/usr/lib/libreoffice/program/libsclo.so' libreoffice-calc-nogui &&
    need_debian '/usr/lib/libreoffice/program/libswlo.so' libreoffice-writer-nogui
}

check_node() {
  node -e 'const [a, b] = process.versions.node.split(".").map(Number); process.exit((a === 20 && b >= 19) || (a === 22 && b >= 12) || a === 24 ? 0 : 1)' ||
    { say "Yellow Thread runs on Node 20.19 or later 20.x, 22.12 or later 22.x, and 24; this is $(node --version)."; exit 1; }
}

# npm packages as the lock file says, unless that is what is installed
need_packages() {
  cd "$PROJECT"
  local want; want=$(sha256sum package-lock.json | cut -d' ' -f1)
  [ "$(cat node_modules/.yellow-thread-lock 2>/dev/null)" = "$want" ] && return
  say 'Installing npm packages …'
  npm ci --prefer-offline --no-audit --no-fund --loglevel=error >&2
  echo "$want" > node_modules/.yellow-thread-lock
}
