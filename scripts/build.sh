# Builds the web application and the server into artifacts/server. Sourced by ./run and ./test after say.sh.

# own COMMAND…: ends with whoever started it, also when that one is killed: what is left of a build that was broken off does
# not get in the way of the next. What it starts besides does not hold the lock of this checkout.
own() { setpriv --pdeathsig KILL "$@" 9>&-; }

# The compiler runs once and ends: what it would learn of its own speed meanwhile costs a sixth of its time.
compiler() { own env DOTNET_TieredPGO=0 dotnet "$@"; }

npm_now() { sha256sum "$1/package-lock.json" | cut -c1-64; }
# Whole: with what only tests and linters need. What a start needs is less than half of it, and is there when all is.
npm_is_there() { [ "$(cat "$1/node_modules/.lock-hash" 2>/dev/null)" = "$(npm_now "$1") whole" ]; }
npm_is_there_for_start() { npm_is_there "$1" || [ "$(cat "$1/node_modules/.lock-hash" 2>/dev/null)" = "$(npm_now "$1") start" ]; }
npm_is_done() { echo "$(npm_now "$1") $2" >"$1/node_modules/.lock-hash"; }

# npm_install FOLDER: exactly what the lock says, only when it is not there yet.
npm_install() {
  npm_is_there "$1" && return
  step "Fetching packages for $1"
  own npm ci --prefix "$1" --no-fund --no-audit --loglevel=error >&2 || fail "npm ci failed in $1."
  npm_is_done "$1" whole
}

# Everything the built server is made of, as one hash.
source_hash() {
  {
    find src data -type f -not -path '*/node_modules/*' -not -path '*/bin/*' -not -path '*/obj/*' -not -path 'src/web/dist/*' \
      -not -path 'src/BlueDawn.Server/wwwroot/*' -not -name schema.d.ts -print0
    find . -maxdepth 1 -type f \( -name '*.props' -o -name '*.targets' -o -name '*.json' -o -name '*.slnx' \) -print0
  } | sort -z | xargs -0 sha256sum | sha256sum | cut -c1-64
}

server_is_built() { [ "$(cat artifacts/server/.source-hash 2>/dev/null)" = "$1" ]; }

# What a start needs of the build and no more: the compiler looks at style and analyses in ./test, the interface's document
# is written for the types of the pages, and over loopback nothing is gained by packing what is sent.
QUICKLY=(-p:RunAnalyzers=false -p:OpenApiGenerateDocuments=false -p:CompressionEnabled=false)

# pages: the web application, with its packages when they are not there yet. It needs nothing of the .NET side.
pages() {
  if ! npm_is_there_for_start src/web; then
    own npm ci --prefix src/web --omit=dev --no-fund --no-audit --loglevel=error || return 1
    npm_is_done src/web start
  fi
  own npm --prefix src/web run --silent build
}

# make_server HASH [FLAG…]: the server with the pages, in artifacts/server. It can be started; what is missing is what works
# without it.
make_server() {
  local log=artifacts/build.log mark=-p:SourceRevisionId=$1 now=$1 beside
  shift
  mkdir -p artifacts
  rm -rf artifacts/server
  step "Building the pages beside the rest (with their packages a minute)"
  pages >artifacts/pages.log 2>&1 &
  beside=$!
  step "Restoring .NET packages (half a minute when they are new)"
  compiler restore src/BlueDawn.Server --locked-mode >"$log" 2>&1 || { cat "$log" >&2; fail "dotnet restore failed."; }
  step "Compiling Core and the server (a minute)"
  # One mark for all that is built from these sources: a page knows by it whether its Core is the server's.
  { compiler build src/BlueDawn.Store -c Release --no-restore "$mark" "$@" && compiler build src/BlueDawn.Solvers -c Release --no-restore "$mark" "$@"; } >"$log" 2>&1 \
    || { cat "$log" >&2; fail "The server does not compile."; }
  wait $beside || { cat artifacts/pages.log >&2; fail "The web application does not build."; }
  rm -rf src/BlueDawn.Server/wwwroot
  cp -r src/web/dist src/BlueDawn.Server/wwwroot
  compiler publish src/BlueDawn.Server -c Release --no-restore "$mark" "$@" -o artifacts/server >"$log" 2>&1 || { cat "$log" >&2; fail "The server does not compile."; }
  echo "$now" >artifacts/server/.source-hash
}

# client_of_server: the web application's client, from the document that the server's build has written.
client_of_server() {
  own npm --prefix src/web run --silent generate >artifacts/client.log 2>&1 || { cat artifacts/client.log >&2; fail "The client could not be generated."; }
}

browser_core_is_there() { [ "$(cat artifacts/server/.core-hash 2>/dev/null)" = "$1" ]; }

# make_browser_core HASH [FLAG…]: Core for the browser, and the service worker that keeps all of it on the device. A server
# that runs already serves them from then on.
make_browser_core() {
  local log=artifacts/browser.log now=$1 root=artifacts/server/wwwroot
  shift
  compiler restore src/BlueDawn.Browser --locked-mode >"$log" 2>&1 || { cat "$log" >&2; fail "dotnet restore failed."; }
  rm -rf artifacts/browser "$root/core" "$root"/sw.js "$root"/workbox-*.js
  compiler publish src/BlueDawn.Browser -c Release --no-restore --no-dependencies -p:SourceRevisionId="$now" "$@" -o artifacts/browser >"$log" 2>&1 \
    || { cat "$log" >&2; fail "Core does not compile for the browser."; }
  mkdir -p "$root/core"
  # The file that says what the others are called comes last: a page finds all of it or none.
  find artifacts/browser/wwwroot/_framework -type f ! -name dotnet.js -exec cp {} "$root/core" \;
  cp artifacts/browser/wwwroot/_framework/dotnet.js "$root/core"
  own npm --prefix src/web run --silent service-worker "$PWD/$root" >"$log" 2>&1 || { cat "$log" >&2; fail "The service worker could not be written."; }
  # ./run --watch serves the sources.
  cp -r "$root/core" src/BlueDawn.Server/wwwroot/
  echo "$now" >artifacts/server/.core-hash
}

# The server, when it is not there yet.
build_server() {
  local now=$1
  server_is_built "$now" && return
  say "Building what has changed since the last start: a minute and a half the first time on two cores."
  make_server "$now" "${QUICKLY[@]}"
}

# Core for the browser, when it is not there yet.
build_browser_core() {
  browser_core_is_there "$1" || make_browser_core "$1" "${QUICKLY[@]}"
}
