# What the scripts share: long steps with their progress, and what went wrong. To be sourced, from the project's folder.

logs=build/logs

# seconds to "40 s" or "3 min 5 s"
as_time() {
  if [ "$1" -lt 60 ]; then echo "$1 s"; else echo "$(($1 / 60)) min $(($1 % 60)) s"; fi
}

# Runs a command with its output in build/logs/NAME.log. On a terminal a line says how far it is, elsewhere one line does
# when it starts and one when it ends. Where it fails: the last 30 lines of the log, and where that is.
#   step NAME "what it does" "how long about" COMMAND...
step() {
  local name=$1 what=$2 about=$3 log pid began=$SECONDS far
  shift 3
  log=$logs/$name.log
  mkdir -p "$logs"
  echo "$what (about $about)"
  "$@" >"$log" 2>&1 </dev/null &
  pid=$!
  if [ -t 1 ]; then
    while kill -0 "$pid" 2>/dev/null; do
      far=$(how_far "$log")
      printf '\r\033[K  %s%s' "$(as_time $((SECONDS - began)))" "${far:+, $far}"
      sleep 1
    done
    printf '\r\033[K'
  fi
  if wait "$pid"; then
    echo "  done in $(as_time $((SECONDS - began)))"
    return 0
  fi
  echo "failed: $what. The last lines of $log:" >&2
  tail -n 30 "$log" | sed 's/^/  | /' >&2
  echo "The whole log is in $log" >&2
  return 1
}

# How far a step is, from its log: "12 of 40 files" of a build, "30 of 85 packages" of an installation.
how_far() {
  local built
  built=$(tail -c 4000 "$1" 2>/dev/null | tr '\r' '\n' | grep -oE '^\[[0-9]+/[0-9]+\]' | tail -n 1 | tr -d '[]')
  if [ -n "$built" ]; then
    echo "${built%/*} of ${built#*/} steps"
    return
  fi
  local wanted ready
  wanted=$(grep -oE '[0-9]+ newly installed' "$1" 2>/dev/null | tail -n 1 | cut -d' ' -f1)
  ready=$(grep -cE '^Setting up ' "$1" 2>/dev/null || true)
  [ -n "$wanted" ] && echo "$ready of $wanted packages"
  return 0
}
