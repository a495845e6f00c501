#!/usr/bin/env bash
# Installs what the tests of the interface need, where it is missing: Debian's
# Chromium, and poppler-utils to read the PDFs that it prints.
set -eu
missing=()
[ -x "${CHROMIUM:-/usr/bin/chromium}" ] || missing+=(chromium)
command -v pdftotext >/dev/null || missing+=(poppler-utils)
[ ${#missing[@]} -eq 0 ] && exit 0
command -v apt-get >/dev/null || { echo "missing: ${missing[*]}. Install them; CHROMIUM may be set to the path of a Chromium." >&2; exit 1; }
as_root=""
if [ "$(id -u)" != 0 ]; then
	command -v sudo >/dev/null || { echo "missing: ${missing[*]}. Run as root: apt-get install ${missing[*]}" >&2; exit 1; }
	as_root=sudo
fi
echo "installing from Debian: ${missing[*]}"
$as_root apt-get update -qq
$as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
