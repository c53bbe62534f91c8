# PostgreSQL for this checkout: a private cluster on loopback, on a free port, never as root.
# Sourced by ./run and ./test after scripts/say.sh. Sets PG_PORT; pg_url NAME prints a connection string.

PG_USER=blue_dawn

pg_find_binaries() {
  PG_BIN=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -t/ -k5 -n | tail -n 1)
  [ -n "$PG_BIN" ] && [ -x "$PG_BIN/initdb" ]
}

# As root the cluster belongs to the account that Debian's package makes; otherwise to whoever runs this.
pg_as_owner() {
  if [ "$(id -u)" = 0 ]; then runuser -u postgres -- "$@"; else "$@"; fi
}

pg_install() {
  pg_find_binaries && return
  install_debian_packages postgresql || fail "PostgreSQL is missing and could not be installed. Install Debian's package 'postgresql', or set BLUE_DAWN_DATABASE to a server you have."
  pg_find_binaries || fail "PostgreSQL was installed but initdb is not under /usr/lib/postgresql."
}

# pg_place WANTED: sets PG_HOME to a folder the cluster's owner can reach.
pg_place() {
  PG_HOME=$1
  mkdir -p "$PG_HOME"
  if [ "$(id -u)" = 0 ]; then
    chown postgres "$PG_HOME"
    if ! runuser -u postgres -- test -w "$PG_HOME"; then
      local key; key=$(printf '%s' "$1" | sha256sum | cut -c1-12)
      PG_HOME=/var/lib/blue-dawn/$key
      mkdir -p "$PG_HOME"
      chmod 755 /var/lib/blue-dawn
      chown postgres "$PG_HOME"
      say "This folder is closed to the postgres account; the data is kept in $PG_HOME instead."
    fi
  fi
}

# is_taken PORT: whether anybody listens on it.
is_taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

# A port of the loopback interface that nobody listens on, from the one given upwards.
free_port() {
  local port=$1
  while is_taken "$port"; do port=$((port + 1)); done
  echo "$port"
}

# pg_start HOME [setting=value ...]: makes the cluster when it is new and starts it.
pg_start() {
  local home=$1; shift
  pg_install
  pg_place "$home"
  if [ ! -s "$PG_HOME/data/PG_VERSION" ]; then
    step "Making the database cluster"
    pg_as_owner "$PG_BIN/initdb" --pgdata="$PG_HOME/data" --username=$PG_USER --auth=trust --encoding=UTF8 --locale=C.UTF-8 >"$PG_HOME/initdb.log" 2>&1 \
      || { cat "$PG_HOME/initdb.log" >&2; fail "The database cluster could not be made."; }
  fi
  # Whoever starts it holds the checkout's lock, so a database that still runs was left behind by a run that was killed.
  pg_stop
  local from=54320 attempt
  for attempt in 1 2 3 4 5; do
    PG_PORT=$(free_port "$from")
    local options="-c listen_addresses=127.0.0.1 -c port=$PG_PORT -c unix_socket_directories= -c logging_collector=off" setting
    for setting in "$@"; do options="$options -c $setting"; done
    step "Starting the database on port $PG_PORT"
    # In its own session, so that Ctrl-C reaches the server first and the database is stopped in order.
    pg_as_owner setsid "$PG_BIN/pg_ctl" --pgdata="$PG_HOME/data" --log="$PG_HOME/postgres.log" --options="$options" --wait --timeout=60 start >/dev/null 9>&- && return
    # Someone else took the port between looking and binding: the next one.
    is_taken "$PG_PORT" || break
    say "Port $PG_PORT was taken meanwhile."
    from=$((PG_PORT + 1))
  done
  tail -n 20 "$PG_HOME/postgres.log" >&2
  fail "The database did not start."
}

pg_stop() {
  [ -n "${PG_HOME:-}" ] && [ -e "$PG_HOME/data/postmaster.pid" ] || return 0
  pg_as_owner "$PG_BIN/pg_ctl" --pgdata="$PG_HOME/data" --mode=fast --wait stop >/dev/null 2>&1 || true
}

# Sets PG_PORT to the port of this checkout's cluster when it is up; false when it is not.
pg_find_running() {
  [ -r "$PG_HOME/data/postmaster.pid" ] || return 1
  PG_PORT=$(sed -n 4p "$PG_HOME/data/postmaster.pid")
  "$PG_BIN/pg_isready" --quiet -h 127.0.0.1 -p "$PG_PORT" || return 1
  # A pid file that a killed run left behind may name a port that another cluster has by now.
  [ "$("$PG_BIN/psql" --no-psqlrc -h 127.0.0.1 -p "$PG_PORT" -U $PG_USER -d postgres -tAc 'show data_directory' 2>/dev/null)" = "$(readlink -f "$PG_HOME/data")" ]
}

pg_url() { echo "Host=127.0.0.1;Port=$PG_PORT;Username=$PG_USER;Database=$1"; }

pg_create() {
  "$PG_BIN/psql" --quiet --no-psqlrc -h 127.0.0.1 -p "$PG_PORT" -U $PG_USER -d postgres -tAc "select 1 from pg_database where datname = '$1'" | grep -q 1 \
    || "$PG_BIN/createdb" -h 127.0.0.1 -p "$PG_PORT" -U $PG_USER "$1"
}

# pg_fresh NAME: an empty database of that name, whatever was in it before.
pg_fresh() {
  PGOPTIONS="-c client_min_messages=warning" "$PG_BIN/dropdb" --if-exists --force -h 127.0.0.1 -p "$PG_PORT" -U $PG_USER "$1"
  pg_create "$1"
}

# pg_copy FROM NAME: a database of that name with what is in another that nobody is using.
pg_copy() {
  PGOPTIONS="-c client_min_messages=warning" "$PG_BIN/dropdb" --if-exists --force -h 127.0.0.1 -p "$PG_PORT" -U $PG_USER "$2"
  "$PG_BIN/createdb" --template="$1" -h 127.0.0.1 -p "$PG_PORT" -U $PG_USER "$2"
}
