#!/bin/sh
# Chromium without its windows, where Debian's package of it is there: a sixth of the tests' work less.
# It opens no page by itself, and ChromeDriver waits for one. Not by /usr/bin: what stands there is a script
# that would be ended in the browser's stead.
shell=/usr/lib/chromium/chromium-headless-shell
if [ -x $shell ]; then exec $shell "$@" about:blank; fi
exec /usr/bin/chromium "$@"
