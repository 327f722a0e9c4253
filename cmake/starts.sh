#!/bin/sh
# Starts a program that was just built and says what the loader had against it.
#   starts.sh PROGRAM ARGUMENT...
if said=$("$@" 2>&1); then exit 0; fi
echo "$1 was built and does not start:" >&2
echo "$said" | tail -n 5 >&2
echo "Build it with the system's own linker (no -fuse-ld in LDFLAGS)." >&2
exit 1
