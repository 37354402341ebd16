#!/usr/bin/env bash
# Installs the system libraries that Qt needs, on Debian and its kin, if any is missing.
set -u
needed="libegl1 libgl1 libxkbcommon0 libdbus-1-3 libfontconfig1 libglib2.0-0 libxcb-cursor0
  libxcb-icccm4 libxcb-keysyms1 libxcb-shape0 libxcb-xkb1 libxcb-image0 libxcb-render-util0
  libxkbcommon-x11-0 xvfb desktop-file-utils shared-mime-info"
bash "$(dirname "$0")/find-python.sh" >/dev/null 2>&1 || needed="$needed python3 python3-venv"
command -v dpkg-query >/dev/null || exit 0
missing=""
for package in $needed; do
  dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'ok installed' ||
    missing="$missing $package"
done
[ -z "$missing" ] && exit 0
as_root=""
[ "$(id -u)" = 0 ] || as_root="sudo"
echo "Installing system libraries:$missing"
$as_root apt-get update -qq && $as_root apt-get install -y -qq $missing >/dev/null ||
  echo "Could not install$missing: if the window does not start, install them by hand." >&2
exit 0
