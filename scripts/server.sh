# Exit code of a server that cannot start as it was asked to; trying again will not help.
CANNOT_START=78

# Starts a server. Sourced by ./run and ./test after scripts/postgres.sh.

# start_server PORT LOG COMMAND…: runs the command with --urls on a free port from PORT upwards until it says in its log
# that it listens; sets SERVER_PID and SERVER_PORT. A port lost between looking and binding is left for the next one.
start_server() {
  local from=$1 log=$2 attempt said
  shift 2
  touch "$log"
  for attempt in 1 2 3 4 5; do
    SERVER_PORT=$(free_port "$from")
    said=$(wc -c <"$log")
    # It ends with whoever started it, also when that one is killed.
    setsid setpriv --pdeathsig TERM "$@" --urls "http://127.0.0.1:$SERVER_PORT" >>"$log" 2>&1 9>&- &
    SERVER_PID=$!
    while kill -0 "$SERVER_PID" 2>/dev/null; do
      if tail -c "+$((said + 1))" "$log" | grep -q "Now listening on: http://127.0.0.1:$SERVER_PORT"; then return; fi
      sleep 0.1
    done
    SERVER_PID=
    tail -c "+$((said + 1))" "$log" | grep -qi 'address already in use' || break
    say "Port $SERVER_PORT was taken meanwhile."
    from=$((SERVER_PORT + 1))
  done
  tail -n 5 "$log" >&2
  fail "The server did not start; its log is $log."
}

# stop_server [SECONDS]: asks it and what it started to end; what has not ended by then is ended (dotnet watch does not listen).
stop_server() {
  [ -n "${SERVER_PID:-}" ] && kill -0 "$SERVER_PID" 2>/dev/null || return 0
  local i
  kill -TERM -- "-$SERVER_PID" 2>/dev/null || true
  for i in $(seq 1 $((${1:-40} * 10))); do
    kill -0 "$SERVER_PID" 2>/dev/null || break
    sleep 0.1
  done
  kill -KILL -- "-$SERVER_PID" 2>/dev/null || true
  wait "$SERVER_PID" 2>/dev/null || true
  SERVER_PID=
}
