#!/usr/bin/env bash
# Backups, good and bad, against the cluster that PG_PORT points at. ./test calls it with a book of the demo shop.
#   PG_PORT=… tests/backup/backup.sh DEMO_DATABASE
set -euo pipefail
cd "$(dirname "$(readlink -f "$0")")/../.."
. scripts/say.sh
. scripts/postgres.sh
BOOK=blue_dawn_backup_test
. scripts/backup.sh
pg_find_binaries

work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
passed=0
failed=0
# expect WHAT COMMAND…: counts whether it succeeds.
expect() {
  local what=$1; shift
  if "$@"; then passed=$((passed + 1)); echo "ok      $what"; else failed=$((failed + 1)); echo "FAILED  $what"; fi
}
trays() { pg_ask "$BOOK" 'select count(*) || $$ $$ || coalesce(max(number), 0) from trays'; }
refused() { local said; if said=$( (backup_restore "$1") 2>&1 ); then return 1; fi; grep -q "$2" <<<"$said" && [ "$(trays)" = "$before" ] && ! pg_has "${BOOK}_coming"; }
cannot_write() { ! (backup_write "$1") >/dev/null 2>&1; }

for name in "$BOOK" "${BOOK}_before" "${BOOK}_coming"; do PGOPTIONS="-c client_min_messages=warning" pg_tool dropdb --if-exists --force "$name"; done
pg_copy "$1" "$BOOK"
before=$(trays)

backup_write "$work/good"
expect "a backup is whole" backup_looks_right "$work/good"
expect "it is for its owner only" test "$(stat -c %a "$work/good")" = 600
expect "nothing is left beside it" test ! -e "$work/good.part"

size=$(stat -c %s "$work/good")
head -c $((size / 2)) "$work/good" >"$work/cut"
cp "$work/good" "$work/damaged"
head -c 4096 /dev/zero | dd of="$work/damaged" bs=1 seek=$((size / 2)) conv=notrunc status=none
: >"$work/empty"
echo "a letter about carburetors" >"$work/letter"
pg_fresh "${BOOK}_other"
pg_ask "${BOOK}_other" 'create table boats (name text)'
(pg_tool pg_dump --format=custom --file="$work/other" "${BOOK}_other")
expect "a file that is not there changes nothing" refused "$work/nowhere" "no readable file"
expect "a cut one changes nothing" refused "$work/cut" "damaged"
expect "a damaged one changes nothing" refused "$work/damaged" "damaged"
expect "an empty one changes nothing" refused "$work/empty" "is empty"
expect "a letter changes nothing" refused "$work/letter" "not a backup"
expect "another database's backup changes nothing" refused "$work/other" "something else"
pg_copy "$BOOK" "${BOOK}_newer"
pg_ask "${BOOK}_newer" "insert into \"__EFMigrationsHistory\" values ('29991231000000_FromTheFuture', '99')"
(pg_tool pg_dump --format=custom --file="$work/newer" "${BOOK}_newer")
expect "one from a newer version changes nothing" refused "$work/newer" "newer version"

pg_ask "$BOOK" "insert into owners (id, name, contact) select gen_random_uuid(), 'After the backup', ''" || true
marked=$(pg_ask "$BOOK" "select count(*) from owners where name = 'After the backup'")
backup_restore "$work/good" >/dev/null
expect "a good one takes the book's place" test "$(pg_ask "$BOOK" "select count(*) from owners where name = 'After the backup'")/$(trays)" = "0/$before"
backup_undo
expect "and can be undone" test "$marked/$(pg_ask "$BOOK" "select count(*) from owners where name = 'After the backup'")" = 1/1
backup_undo
expect "and done again" test "$(pg_ask "$BOOK" "select count(*) from owners where name = 'After the backup'")" = 0

# A backup that breaks off leaves the earlier one of that name whole.
sum=$(sha256sum <"$work/good")
(ulimit -f 8; cannot_write "$work/good") && broken=yes || broken=no
expect "one that breaks off says so" test $broken = yes
expect "and leaves the earlier one as it was" test "$(sha256sum <"$work/good")" = "$sum"

for name in "$BOOK" "${BOOK}_before" "${BOOK}_coming" "${BOOK}_other" "${BOOK}_newer"; do PGOPTIONS="-c client_min_messages=warning" pg_tool dropdb --if-exists --force "$name"; done
echo "$passed passed, $failed failed"
[ $failed = 0 ]
