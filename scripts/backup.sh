# Backups of the shop's book, and bringing one back. Sourced by ./run and ./test after scripts/postgres.sh; the book is the
# database $BOOK of the cluster that PG_PORT points at.

BOOK=${BOOK:-blue_dawn}

# What a backup leaves out: who is signed in where, and the keys of their cookies. Everybody signs in again after a restore.
NOT_KEPT=(data_protection_keys sessions sign_in_tries import_pieces import_jobs)

pg_tool() { local tool=$1; shift; "$PG_BIN/$tool" -h 127.0.0.1 -p "$PG_PORT" -U $PG_USER "$@"; }
pg_ask() { pg_tool psql --quiet --no-psqlrc --set=ON_ERROR_STOP=1 -tA -d "$1" -c "$2"; }

# book_migrations: the versions of the book this version of Blue Dawn can read, one a line, oldest first.
book_migrations() { ls src/BlueDawn.Store/Migrations | sed -n 's/^\([0-9]\{14\}_[A-Za-z0-9]*\)\.cs$/\1/p' | sort; }

# backup_looks_right FILE: whether it is a whole backup of a book; sets BACKUP_WHY when it is not. Nothing is changed.
backup_looks_right() {
  local file=$1 list
  BACKUP_WHY=
  if [ ! -f "$file" ] || [ ! -r "$file" ]; then BACKUP_WHY="There is no readable file $file."
  elif [ ! -s "$file" ]; then BACKUP_WHY="$file is empty."
  elif [ "$(head -c 5 "$file")" != PGDMP ]; then BACKUP_WHY="$file is not a backup: ./run --backup did not write it."
  elif ! list=$("$PG_BIN/pg_restore" --list "$file" 2>/dev/null); then BACKUP_WHY="$file is damaged: its list of contents cannot be read."
  elif ! grep -q 'TABLE DATA public trays ' <<<"$list" || ! grep -q 'TABLE DATA public __EFMigrationsHistory ' <<<"$list"; then
    BACKUP_WHY="$file is a backup of something else: there are no trays in it."
  # All of it is read once: a cut or damaged file says so here, not half way through.
  elif ! "$PG_BIN/pg_restore" --file=/dev/null "$file" 2>/dev/null; then BACKUP_WHY="$file is damaged or was cut off."
  fi
  [ -z "$BACKUP_WHY" ]
}

# backup_write FILE: everything recorded in one file, readable by its owner only. It is written beside and takes the name
# when it has been read back whole; an earlier backup of that name stays until then.
backup_write() {
  local file=$1
  rm -f "$file.part"
  if ! (umask 077; pg_tool pg_dump --format=custom --no-owner --no-acl "${NOT_KEPT[@]/#/--exclude-table-data=}" --file="$file.part" "$BOOK") || ! backup_looks_right "$file.part"; then
    rm -f "$file.part"
    fail "The backup was not written. ${BACKUP_WHY:-}${BACKUP_WHY:+ }An earlier one of that name is as it was."
  fi
  sync "$file.part"
  mv -f "$file.part" "$file"
}

# backup_restore FILE: puts a backup in the place of the book. The book is untouched until the backup stands whole in a
# database of its own and this version can read it; then it is kept as ${BOOK}_before until the next restore.
backup_restore() {
  local file=$1 held newer
  backup_looks_right "$file" || fail "$BACKUP_WHY Nothing was changed."
  pg_fresh "${BOOK}_coming"
  if ! pg_tool pg_restore --exit-on-error --single-transaction --no-owner --no-acl --dbname="${BOOK}_coming" "$file" >&2; then
    pg_tool dropdb --if-exists --force "${BOOK}_coming"
    fail "The backup could not be read into a database. Nothing was changed."
  fi
  held=$(pg_ask "${BOOK}_coming" 'select migration_id from "__EFMigrationsHistory"') || held=
  newer=$(grep -vxFf <(book_migrations) <<<"$held" | head -n 1 || true)
  if [ -z "$held" ] || [ -n "$newer" ]; then
    pg_tool dropdb --if-exists --force "${BOOK}_coming"
    fail "The backup is from a newer version of Blue Dawn (${newer:-unknown}); this one cannot read it. Nothing was changed."
  fi
  book_swap "${BOOK}_coming"
  say "In it: $(pg_ask "$BOOK" 'select count(*) from trays') trays. What was here before is kept: ./run --undo-restore brings it back."
}

# backup_undo: the book from before the last restore comes back; what was restored is kept in its place.
backup_undo() {
  pg_has "${BOOK}_before" || fail "Nothing was restored here, so there is nothing to bring back."
  pg_ask postgres "alter database ${BOOK}_before rename to ${BOOK}_coming"
  book_swap "${BOOK}_coming"
}

pg_has() { [ "$(pg_ask postgres "select count(*) from pg_database where datname = '$1'")" = 1 ]; }

# book_swap NAME: that database becomes the book, the book becomes ${BOOK}_before.
book_swap() {
  if pg_has "$BOOK"; then
    PGOPTIONS="-c client_min_messages=warning" pg_tool dropdb --if-exists --force "${BOOK}_before"
    pg_ask postgres "alter database $BOOK rename to ${BOOK}_before"
  fi
  pg_ask postgres "alter database $1 rename to $BOOK"
}
