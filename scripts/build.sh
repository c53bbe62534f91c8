# Builds the web application and the server into artifacts/server. Sourced by ./run and ./test after say.sh.

# own COMMAND…: ends with whoever started it, also when that one is killed: what is left of a build that was broken off does
# not get in the way of the next. What it starts besides does not hold the lock of this checkout.
own() { setpriv --pdeathsig KILL "$@" 9>&-; }

# The compiler runs once and ends: what it would learn of its own speed meanwhile costs a sixth of its time.
compiler() { own env DOTNET_TieredPGO=0 dotnet "$@"; }

npm_now() { sha256sum "$1/package-lock.json" | cut -c1-64; }
npm_is_there() { [ "$(cat "$1/node_modules/.lock-hash" 2>/dev/null)" = "$(npm_now "$1")" ]; }
npm_is_done() { npm_now "$1" >"$1/node_modules/.lock-hash"; }

# npm_install FOLDER: exactly what the lock says, only when it is not there yet.
npm_install() {
  npm_is_there "$1" && return
  step "Fetching packages for $1"
  own npm ci --prefix "$1" --no-fund --no-audit --loglevel=error >&2 || fail "npm ci failed in $1."
  npm_is_done "$1"
}

# Everything the built server is made of, as one hash.
source_hash() {
  {
    find src data -type f -not -path '*/node_modules/*' -not -path '*/bin/*' -not -path '*/obj/*' -not -path 'src/web/dist/*' \
      -not -path 'src/BlueDawn.Server/wwwroot/*' -not -path 'src/web/public/core/*' -not -name schema.d.ts -print0
    find . -maxdepth 1 -type f \( -name '*.props' -o -name '*.targets' -o -name '*.json' -o -name '*.slnx' \) -print0
  } | sort -z | xargs -0 sha256sum | sha256sum | cut -c1-64
}

server_is_built() { [ "$(cat artifacts/server/.source-hash 2>/dev/null)" = "$1" ]; }

# What a start needs of the build and no more: the compiler looks at style and analyses in ./test, the interface's document
# is written for the types of the pages, and over loopback nothing is gained by packing what is sent.
QUICKLY=(-p:RunAnalyzers=false -p:OpenApiGenerateDocuments=false -p:CompressionEnabled=false)

# in_background LOG COMMAND…: runs it beside; sets BESIDE to its process, which wait tells the outcome of.
in_background() {
  local log=$1
  shift
  own "$@" >"$log" 2>&1 &
  BESIDE=$!
}

# compile_server HASH [FLAG…]: Core, then the server and Core for the browser beside each other. The packages of the web
# application come meanwhile.
compile_server() {
  local mark=-p:SourceRevisionId=$1 packages= core
  shift
  mkdir -p artifacts
  local log=artifacts/build.log
  if ! npm_is_there src/web; then
    step "Fetching packages for src/web (a minute, beside the rest)"
    setpriv --pdeathsig KILL npm ci --prefix src/web --no-fund --no-audit --loglevel=error >&2 9>&- &
    packages=$!
  fi
  step "Restoring .NET packages (half a minute when they are new)"
  { compiler restore src/BlueDawn.Server --locked-mode && compiler restore src/BlueDawn.Browser --locked-mode; } >"$log" 2>&1 \
    || { cat "$log" >&2; fail "dotnet restore failed."; }
  step "Compiling Core"
  # One mark for all that is built from these sources: a page knows by it whether its Core is the server's.
  compiler build src/BlueDawn.Core -c Release --no-restore "$mark" "$@" >"$log" 2>&1 || { cat "$log" >&2; fail "Core does not compile."; }
  step "Compiling the server, and Core for the browser beside it (a minute)"
  rm -rf artifacts/browser
  in_background artifacts/browser.log env DOTNET_TieredPGO=0 dotnet publish src/BlueDawn.Browser -c Release --no-restore --no-dependencies "$mark" "$@" -o artifacts/browser
  core=$BESIDE
  compiler build src/BlueDawn.Server -c Release --no-restore "$mark" "$@" >"$log" 2>&1 || { cat "$log" >&2; fail "The server does not compile."; }
  wait "$core" || { cat artifacts/browser.log >&2; fail "Core does not compile for the browser."; }
  rm -rf src/web/public/core
  cp -r artifacts/browser/wwwroot/_framework src/web/public/core
  [ -z "$packages" ] || { wait "$packages" && npm_is_done src/web; } || fail "The packages of the web application could not be fetched."
}

# client_of_server: the web application's client, from the document that the server's build has written.
client_of_server() {
  own npm --prefix src/web run --silent generate >artifacts/client.log 2>&1 || { cat artifacts/client.log >&2; fail "The client could not be generated."; }
}

# finish_server HASH [FLAG…]: the web application, and all of it in artifacts/server.
finish_server() {
  local log=artifacts/finish.log now=$1
  shift
  rm -rf artifacts/server
  step "Building the web application"
  own npm --prefix src/web run --silent build >"$log" 2>&1 || { cat "$log" >&2; fail "The web application does not build."; }
  rm -rf src/BlueDawn.Server/wwwroot
  cp -r src/web/dist src/BlueDawn.Server/wwwroot
  step "Putting the server together"
  compiler publish src/BlueDawn.Server -c Release --no-restore -p:SourceRevisionId="$now" "$@" -o artifacts/server >"$log" 2>&1 || { cat "$log" >&2; fail "dotnet publish failed."; }
  echo "$now" >artifacts/server/.source-hash
}

# Everything, when it is not there yet.
build_server() {
  local now; now=$(source_hash)
  if server_is_built "$now"; then return; fi
  say "Building what has changed since the last start: two to three minutes the first time on two cores."
  compile_server "$now" "${QUICKLY[@]}"
  finish_server "$now" "${QUICKLY[@]}"
}
