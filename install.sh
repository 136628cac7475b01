#!/bin/sh
# Builds vlei as one native program and installs it, with completion and manual pages.
#
#   ./install.sh              into ~/.local
#   ./install.sh --prefix DIR into DIR
set -eu
cd "$(dirname "$0")"

prefix="$HOME/.local"
while [ $# -gt 0 ]; do
    case "$1" in
        --prefix) prefix=${2:?--prefix needs a folder}; shift 2 ;;
        --prefix=*) prefix=${1#--prefix=}; shift ;;
        *) echo "install.sh: $1 is unknown; it takes --prefix DIR" >&2; exit 2 ;;
    esac
done

./build/publish.sh
mkdir -p "$prefix/bin" "$prefix/lib/vlei" "$prefix/share/man/man1" \
    "$prefix/share/bash-completion/completions" "$prefix/share/zsh/site-functions" "$prefix/share/fish/vendor_completions.d"
from=artifacts/publish/Vlei/release_linux-x64
for file in vlei libe_sqlite3.so vlei-browse vlei-charts vlei-postbox libSkiaSharp.so libHarfBuzzSharp.so; do
    cp "$from/$file" "$prefix/lib/vlei/$file.new"
    mv "$prefix/lib/vlei/$file.new" "$prefix/lib/vlei/$file"
done
chmod 755 "$prefix/lib/vlei/vlei" "$prefix/lib/vlei/vlei-browse" "$prefix/lib/vlei/vlei-charts" "$prefix/lib/vlei/vlei-postbox"
ln -sf ../lib/vlei/vlei-postbox "$prefix/bin/vlei-postbox"
ln -sf ../lib/vlei/vlei "$prefix/bin/vlei"
vlei="$prefix/bin/vlei"
"$vlei" manual --to "$prefix/share/man/man1"
"$vlei" completion bash > "$prefix/share/bash-completion/completions/vlei"
"$vlei" completion zsh > "$prefix/share/zsh/site-functions/_vlei"
"$vlei" completion fish > "$prefix/share/fish/vendor_completions.d/vlei.fish"
echo "$vlei $("$vlei" --version) is installed."
case ":$PATH:" in *":$prefix/bin:"*) ;; *) echo "Put $prefix/bin on your PATH to call it by its name." ;; esac
