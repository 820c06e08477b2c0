#!/usr/bin/env bash
# Makes the files that other programs wrote, anew: needs python3, R and LibreOffice Calc (Debian's packages
# r-base-core and libreoffice-calc). The files are kept in the repository, so that the tests need none of them.
set -euo pipefail
cd "$(dirname "$0")"
python3 - <<'PY'
import csv, json
rows = json.load(open('rows.json'))
with open('python.csv', 'w', newline='', encoding='utf-8') as f: csv.writer(f).writerows(rows)
with open('python-excel-tab-utf16.tsv', 'w', newline='', encoding='utf-16') as f: csv.writer(f, 'excel-tab').writerows(rows)
with open('python-unix-semicolon.csv', 'w', newline='', encoding='utf-8-sig') as f: csv.writer(f, 'unix', delimiter=';').writerows(rows)
PY
Rscript -e '
  t <- read.csv("python.csv", colClasses = "character", check.names = FALSE, encoding = "UTF-8")
  write.csv(t, "r.csv", row.names = FALSE, fileEncoding = "UTF-8")
  write.csv2(t, "r-csv2.csv", row.names = FALSE, fileEncoding = "UTF-8")'
# columns: id, text, text, number, date (year first), text
for format in xlsx ods; do
  soffice --headless --infilter='CSV:44,34,76,1,1/2/2/2/3/2/4/1/5/5/6/2' --convert-to "$format" python.csv >/dev/null
  mv "python.$format" "libreoffice.$format"
done
