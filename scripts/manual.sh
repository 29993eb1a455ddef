# Manuals that Debian ships as PDF: real input that this project did not write. Fetched, never committed; unpacked beside
# the project, since minimal systems leave documentation out when a package is installed.

# fetch_manual PACKAGE PATH: one file of a package, into the project's state.
fetch_manual() {
  local package=$1 path=$2
  [ -f "$STATE/manual/$(basename "$path")" ] && return
  say "fetching a manual of Debian's package $package"
  mkdir -p "$STATE/manual"
  local work
  work=$(mktemp -d)
  chmod 755 "$work"
  (cd "$work" && apt-get download -qq "$package" >/dev/null 2>&1) || {
    refresh_package_lists
    (cd "$work" && apt-get download -qq "$package")
  }
  dpkg-deb -x "$work/$package"_*.deb "$work/x"
  cp "$work/x/$path" "$STATE/manual/"
  rm -rf "$work"
}

# excerpt_manual NAME PAGES: the first pages of a manual with their labels and headings, beside it, for tests to which its
# length is nothing, since looking through a whole manual takes seconds.
excerpt_manual() {
  local from=$STATE/manual/$1.pdf to=$STATE/manual/$1-$2.pdf
  [ -f "$to" ] || qpdf "$from" --pages . "1-$2" -- "$to"
}
