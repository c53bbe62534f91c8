# PostgreSQL for this checkout: a private cluster on loopback, on a free port, never as root.
# Sourced by ./run and ./test after scripts/say.sh. Sets PG_PORT; pg_url NAME [ROLE] prints a connection string.
# Two roles with passwords: PG_USER owns the book and brings it up to date; PG_BENCH works in it and can only add to what
# is never changed. The passwords are in a file beside the cluster that its owner alone can read.

PG_USER=blue_dawn
PG_BENCH=blue_dawn_bench

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
  export PGPASSFILE=$1.pgpass
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
  # Made beside and renamed when it is whole: one that was broken off is made again.
  if [ ! -s "$PG_HOME/data/PG_VERSION" ]; then
    step "Making the database cluster"
    rm -rf "$PG_HOME/data.new" "$PG_HOME/data"
    rm -f "$PGPASSFILE"
    pg_as_owner "$PG_BIN/initdb" --pgdata="$PG_HOME/data.new" --username=$PG_USER --auth=trust --data-checksums --encoding=UTF8 --locale=C.UTF-8 >"$PG_HOME/initdb.log" 2>&1 \
      || { cat "$PG_HOME/initdb.log" >&2; fail "The database cluster could not be made."; }
    pg_as_owner mv "$PG_HOME/data.new" "$PG_HOME/data"
  fi
  # Whoever starts it holds the checkout's lock, so a database that still runs was left behind by a run that was killed.
  pg_stop
  pg_close
  local from=${PG_WANTED:-54320} attempt
  for attempt in 1 2 3 4 5; do
    PG_PORT=$(free_port "$from")
    local options="-c listen_addresses=127.0.0.1 -c port=$PG_PORT -c unix_socket_directories= -c logging_collector=off" setting
    for setting in "$@"; do options="$options -c $setting"; done
    step "Starting the database on port $PG_PORT"
    # In its own session, so that Ctrl-C reaches the server first and the database is stopped in order.
    pg_as_owner setsid "$PG_BIN/pg_ctl" --pgdata="$PG_HOME/data" --log="$PG_HOME/postgres.log" --options="$options" --wait --timeout=60 start >/dev/null 9>&- && return
    # What was killed may take a moment until the last of it is gone.
    if tail -n 5 "$PG_HOME/postgres.log" | grep -q 'shared memory block'; then sleep 1; continue; fi
    # Someone else took the port between looking and binding: the next one.
    is_taken "$PG_PORT" || break
    say "Port $PG_PORT was taken meanwhile."
    from=$((PG_PORT + 1))
  done
  tail -n 20 "$PG_HOME/postgres.log" >&2
  fail "The database did not start."
}

# pg_is_up: whether this cluster's own process runs.
pg_is_up() {
  local pid
  pid=$(head -n 1 "$PG_HOME/data/postmaster.pid" 2>/dev/null) && [ -n "$pid" ] && kill -0 "$pid" 2>/dev/null && [ "$(readlink -f "/proc/$pid/cwd")" = "$(readlink -f "$PG_HOME/data")" ]
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

# pg_close: only who knows a password comes in. Sets new ones when their file is not there, and guards the pages of a
# cluster of an earlier version with checksums; the cluster is down.
pg_close() {
  local data=$PG_HOME/data owner bench
  if [ ! -s "$PGPASSFILE" ]; then
    owner=$(head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n')
    bench=$(head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n')
    # One statement a line is how PostgreSQL takes them without a server.
    pg_as_owner "$PG_BIN/postgres" --single -c log_min_messages=fatal -D "$data" postgres >/dev/null 2>&1 <<EOF || fail "The passwords of the database could not be set; nobody may be using it."
alter role $PG_USER password '$owner'
do \$\$ begin if not exists (select 1 from pg_roles where rolname = '$PG_BENCH') then create role $PG_BENCH login; end if; end \$\$
alter role $PG_BENCH login nosuperuser nocreatedb nocreaterole password '$bench'
EOF
    (umask 077; printf '127.0.0.1:*:*:%s:%s\n' $PG_USER "$owner" $PG_BENCH "$bench" >"$PGPASSFILE.new" && mv -f "$PGPASSFILE.new" "$PGPASSFILE")
  fi
  printf 'host all all 127.0.0.1/32 scram-sha-256\n' | pg_as_owner tee "$data/pg_hba.conf" >/dev/null
  if pg_as_owner "$PG_BIN/pg_controldata" "$data" | grep -q '^Data page checksum version: *0$'; then
    step "Guarding the database's pages with checksums"
    pg_as_owner "$PG_BIN/pg_checksums" --enable --pgdata="$data" >/dev/null 2>&1 || say "That did not work; the database goes on without."
  fi
}

# pg_password ROLE
pg_password() { awk -F: -v role="$1" '$4 == role { print $5 }' "$PGPASSFILE"; }

pg_url() { echo "Host=127.0.0.1;Port=$PG_PORT;Username=${2:-$PG_USER};Password=$(pg_password "${2:-$PG_USER}");Database=$1"; }

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
