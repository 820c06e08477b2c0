#!/usr/bin/env bash
# Makes the files that other programs wrote, anew: needs python3, R and LibreOffice Calc (Debian's packages
# python3-openpyxl, python3-xlsxwriter, r-base-core and libreoffice-calc). The files are kept in the repository, so that the tests need none of them.
set -euo pipefail
cd "$(dirname "$0")"
python3 - <<'PY'
import csv, json
rows = json.load(open('rows.json'))
with open('python.csv', 'w', newline='', encoding='utf-8') as f: csv.writer(f).writerows(rows)
with open('python-excel-tab-utf16.tsv', 'w', newline='', encoding='utf-16') as f: csv.writer(f, 'excel-tab').writerows(rows)
with open('python-unix-semicolon.csv', 'w', newline='', encoding='utf-8-sig') as f: csv.writer(f, 'unix', delimiter=';').writerows(rows)
PY
/usr/bin/python3 - <<'PY'
import datetime, json, openpyxl, xlsxwriter
rows = json.load(open('rows.json'))
typed = lambda c, cell: float(cell) if c == 3 else datetime.date.fromisoformat(cell) if c == 4 else cell
book = openpyxl.Workbook()
for r, row in enumerate(rows, 1):
    for c, cell in enumerate(row, 1):
        if cell == '': continue
        at = book.active.cell(r, c)
        at.value = cell if r == 1 else typed(c - 1, cell)
        if isinstance(at.value, datetime.date): at.number_format = 'dd"."mm"."yyyy'
        if isinstance(at.value, str): at.data_type = 's'
book.save('openpyxl.xlsx')
# strings in the cells themselves, some in two runs
book = xlsxwriter.Workbook('xlsxwriter.xlsx', {'constant_memory': True})
sheet = book.add_worksheet()
date = book.add_format({'num_format': 14})
bold = book.add_format({'bold': True})
for r, row in enumerate(rows):
    for c, cell in enumerate(row):
        value = cell if r == 0 else typed(c, cell)
        if isinstance(value, datetime.date): sheet.write_datetime(r, c, value, date)
        elif isinstance(value, float): sheet.write_number(r, c, value)
        elif len(value) > 12: sheet.write_rich_string(r, c, value[:5], bold, value[5:])
        elif value: sheet.write_string(r, c, value)
book.close()
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
