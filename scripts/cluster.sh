#!/usr/bin/env bash
# npm run chaos: the same, with people who write while one thing after another goes wrong.
# npm run cluster: three MariaDB nodes with Galera, haproxy before them, three Pasado processes behind haproxy, on this machine, to try.
source "$(dirname "${BASH_SOURCE[0]}")/setup.sh"
need_packages mariadbd:mariadb-server-core my_print_defaults:mariadb-client-core mariadb-dump:mariadb-client \
  rsync:rsync haproxy:haproxy lsof:lsof ss:iproute2
[ -f /usr/lib/galera/libgalera_smm.so ] || need_packages no-such-command:galera-4
need_modules
# The scripts by which a node gets the data of another are in Debian's mariadb-server: unpacked here, as installing it would start one.
tools="$root/.data/cluster-tools"
if [ ! -x "$tools/usr/bin/wsrep_sst_rsync" ]; then
  mkdir -p "$tools"
  (cd "$tools" && apt-get download -qq mariadb-server >"$root/.data/apt.log" 2>&1 && dpkg-deb -x mariadb-server_*.deb . && rm mariadb-server_*.deb) \
    || { tail -5 "$root/.data/apt.log" >&2; echo "Debian's mariadb-server could not be fetched." >&2; exit 1; }
fi
# Here it may all run as root, from whom rsync would change to nobody, who may not read the folder.
if [ "$(id -u)" -eq 0 ] && ! grep -q '^uid = root$' "$tools/usr/bin/wsrep_sst_rsync"; then
  sed -i 's/^use chroot = no$/use chroot = no\nuid = root\ngid = root/' "$tools/usr/bin/wsrep_sst_rsync"
fi
# A clock that is off is made by Debian's libfaketime, for the one process that is to have it.
if [ ! -d "$tools/usr/lib" ] || ! find "$tools/usr/lib" -name libfaketime.so.1 | grep -q .; then
  (cd "$tools" && apt-get download -qq libfaketime >"$root/.data/apt.log" 2>&1 && dpkg-deb -x libfaketime_*.deb . && rm libfaketime_*.deb) \
    || { tail -5 "$root/.data/apt.log" >&2; echo "Debian's libfaketime could not be fetched." >&2; exit 1; }
fi
PASADO_FAKETIME="$(find "$tools/usr/lib" -name libfaketime.so.1 | head -1)"
export PASADO_FAKETIME
export PATH="$tools/usr/bin:$PATH"
if [ "${1:-}" = chaos ]; then
  shift
  exec node --import tsx scripts/chaos.ts "$@"
fi
exec node --import tsx scripts/cluster/main.ts "$@"
