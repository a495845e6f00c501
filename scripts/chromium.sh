#!/usr/bin/env bash
# Installs Debian's Chromium if there is none.
set -eu
[ -x "${CHROMIUM:-/usr/bin/chromium}" ] && exit 0
command -v apt-get >/dev/null || { echo "missing: Chromium. Install it and set CHROMIUM to its path." >&2; exit 1; }
as_root=""
if [ "$(id -u)" != 0 ]; then
	command -v sudo >/dev/null || { echo "missing: Chromium. Run as root: apt-get install chromium" >&2; exit 1; }
	as_root=sudo
fi
echo "installing Debian's Chromium"
$as_root apt-get update -qq
$as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends chromium >/dev/null
