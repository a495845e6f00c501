#!/usr/bin/env bash
# Installs what the tests of the interface need, where it is missing: Debian's
# Chromium without a window, and poppler-utils to read the PDFs that it prints.
# Where the former is not to be had, a whole Chromium does, more slowly.
set -eu
missing=()
[ -x "${CHROMIUM:-/usr/bin/chromium-headless-shell}" ] || missing+=(chromium-headless-shell)
command -v pdftotext >/dev/null || missing+=(poppler-utils)
[ ${#missing[@]} -eq 0 ] && exit 0
command -v apt-get >/dev/null || { echo "missing: ${missing[*]}. Install them; CHROMIUM may be set to the path of a Chromium." >&2; exit 1; }
as_root=""
if [ "$(id -u)" != 0 ]; then
	command -v sudo >/dev/null || { echo "missing: ${missing[*]}. Run as root: apt-get install ${missing[*]}" >&2; exit 1; }
	as_root=sudo
fi
install() {
	echo "installing from Debian: $*"
	$as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "$@" >/dev/null
}
$as_root apt-get update -qq
install "${missing[@]}" || install "${missing[@]/chromium-headless-shell/chromium}"
