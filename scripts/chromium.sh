#!/usr/bin/env bash
# Installs what the tests need, where it is missing: Debian's Chromium without a
# window, poppler-utils to read the PDFs that it prints, and a C compiler, which
# the race detector links with. Where the first is not to be had, a whole Chromium
# does, more slowly.
set -eu
missing=()
[ -x "${CHROMIUM:-/usr/bin/chromium-headless-shell}" ] || missing+=(chromium-headless-shell)
command -v pdftotext >/dev/null || missing+=(poppler-utils)
command -v gcc >/dev/null || missing+=(gcc libc6-dev)
[ ${#missing[@]} -eq 0 ] && exit 0
enough() { command -v pdftotext >/dev/null && command -v gcc >/dev/null && [ -x "${CHROMIUM:-/usr/bin/chromium}" ]; }
as_root=""
if [ "$(id -u)" != 0 ]; then
	as_root=sudo
fi
install() {
	echo "installing from Debian: $*"
	$as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "$@" >/dev/null
}
if command -v apt-get >/dev/null && { [ -z "$as_root" ] || command -v sudo >/dev/null; }; then
	if $as_root apt-get update -qq && install "${missing[@]}"; then
		exit 0
	fi
	enough || install "${missing[@]/chromium-headless-shell/chromium}" || true
fi
enough || {
	echo "missing: ${missing[*]}. Install them (as root: apt-get install ${missing[*]}); CHROMIUM may be set to the path of a Chromium." >&2
	exit 1
}
