#!/usr/bin/env bash
# Everything that is tested, in one go. The last line counts over all suites. Called by ./mossbell test.
set -uo pipefail
cd "$(dirname "$0")"
passed=0
failed=0
results=test-results
mkdir -p "$results"

if [ ! -x /usr/bin/chromium ]; then
  echo "Moss Bell: installing Debian's Chromium for the tests of the interface ..." >&2
  sudo=""
  [ "$(id -u)" = 0 ] || sudo=sudo
  $sudo apt-get update -qq && $sudo env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium fonts-liberation >/dev/null || { echo "Moss Bell: Chromium could not be installed; the tests of the interface cannot run." >&2; }
fi

# one step of the list: a name and a command that either holds or not
holds() {
  local name=$1
  shift
  echo "== $name"
  if "$@"; then passed=$((passed + 1)); else failed=$((failed + 1)); echo "!! $name failed"; fi
}
# adds what a JSON report counted: file, passed, failed
count() {
  read -r p f < <(node -e "
    const fs = require('fs');
    try {
      const r = JSON.parse(fs.readFileSync(process.argv[1], 'utf8'));
      // errors of its own, such as a port that is taken: nothing was tried, and that is no success
      if (r.stats) console.log(r.stats.expected + r.stats.flaky, r.stats.unexpected + r.errors.length);
      else console.log(r.numPassedTests, r.numFailedTests + r.numFailedTestSuites * (r.numFailedTests ? 0 : 1));
    } catch { console.log(0, 1); }" "$1")
  passed=$((passed + p))
  failed=$((failed + f))
}

npx svelte-kit sync >/dev/null 2>&1
# on the second core, while the first looks at the code
./mossbell build >"$results/build.txt" 2>&1 &
building=$!
npx eslint . >"$results/lint.txt" 2>&1 &
linting=$!
holds "format: prettier" npx prettier --check --log-level warn .
holds "types: the core, without DOM and Node" npx tsc -p core/tsconfig.json
holds "types: the application" npx svelte-check --tsconfig ./tsconfig.json --threshold error --output human
linted() {
  wait "$linting"
  local came=$?
  cat "$results/lint.txt"
  return $came
}
holds "lint: eslint, with the rule of who imports whom" linted

echo "== unit and conformance tests"
rm -f "$results/unit.json"
npx vitest run --reporter=default --reporter=json --outputFile.json="$results/unit.json"
count "$results/unit.json"

echo "== unit tests ended after $SECONDS s"
if wait "$building"; then
  echo "== end-to-end tests in Chromium"
  rm -f "$results/e2e.json"
  npx playwright test
  count "$results/e2e.json"
else
  cat "$results/build.txt"
  failed=$((failed + 1))
fi
echo "== all ended after $SECONDS s"
echo "$passed passed, $failed failed"
[ "$failed" -eq 0 ]
