# How ./run and ./test speak, and how they install what Debian has.

say() { printf '%s\n' "$*"; }
step() { printf '\033[2m%s\033[0m  %s …\n' "$(date +%H:%M:%S)" "$*"; }
fail() { printf 'blue dawn: %s\n' "$*" >&2; exit 1; }

install_debian_packages() {
  local as=()
  if [ "$(id -u)" != 0 ]; then
    command -v sudo >/dev/null || { say "Not root and no sudo here: cannot install $*."; return 1; }
    as=(sudo)
  fi
  step "Installing $* from Debian's packages"
  "${as[@]}" apt-get update -qq >/dev/null && "${as[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "$@" >/dev/null
}

need_tools() {
  command -v dotnet >/dev/null || fail "The .NET 10 SDK is missing (dotnet is not on the path)."
  dotnet --list-sdks | grep -q '^10\.' || fail "The .NET 10 SDK is missing; found: $(dotnet --list-sdks | tr '\n' ' ')"
  command -v node >/dev/null || fail "Node.js 20 is missing (node is not on the path)."
  [ "$(node -p 'process.versions.node.split(".")[0]')" -ge 20 ] || fail "Node.js 20 or newer is needed; found $(node --version)."
}
