#!/bin/sh
# Chromium without its windows, where Debian's package of it is there: a sixth of the tests' work less.
# It opens no page by itself, and ChromeDriver waits for one.
shell=/usr/bin/chromium-headless-shell
if [ -x $shell ]; then exec $shell "$@" about:blank; fi
exec /usr/bin/chromium "$@"
