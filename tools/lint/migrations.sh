#!/usr/bin/env bash
# Fails where the tables have changed and no migration was made for it.
set -eu
copy=$(mktemp -d)
trap 'rm -rf "$copy"' EXIT
cp -r web/data/migrations "$copy/migrations"
npx drizzle-kit generate --dialect postgresql --schema './web/data/tables/*.ts' --out "$copy/migrations" >"$copy/said" 2>&1 || { cat "$copy/said"; exit 1; }
diff -rq web/data/migrations "$copy/migrations" || { echo "The tables have changed: run npx drizzle-kit generate."; exit 1; }
