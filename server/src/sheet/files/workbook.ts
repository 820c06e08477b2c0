import { problems } from '../../wording/problems.js';
import { CellText } from './cellText.js';
import { formatsOf } from './numberFormats.js';
import type { RowBatch } from './text.js';
import { WorksheetRows, type SharedOfWorkbook } from './worksheetRows.js';
import {
  isFilledRow,
  MOST_WORKSHEETS,
  ROWS_OF_FILLED,
  tooManyWorksheets,
  type Worksheets,
} from './worksheets.js';
import { attributesOf, localName, readXml, xmlSteps } from './xml.js';
import type { Zip } from '../../zip.js';
import { workbookTexts } from '../../wording/sheet.js';

const BATCH = 500;

/** A workbook (Office Open XML, ISO/IEC 29500) opened for reading. */
export async function openWorkbook(zip: Zip, fileName: string) {
  const { sheets, from1904 } = await readContents(zip);
  if (sheets.length === 0)
    throw problems.unreadableSheet(workbookTexts.holdsNoWorksheetNothing(fileName));
  if (sheets.length > MOST_WORKSHEETS) throw tooManyWorksheets(fileName);
  let shared: Promise<SharedOfWorkbook> | null = null;
  // those that are shown before hidden ones
  const names = sheets
    .toSorted((x, y) => Number(x.hidden) - Number(y.hidden))
    .map((sheet) => sheet.name);
  /** The rows of a worksheet as a person sees them: results of formulas, dates, text. */
  async function* rows(worksheet: string): AsyncGenerator<RowBatch> {
    shared ??= readShared(zip, from1904);
    const sheet = sheets.find((one) => one.name === worksheet);
    if (!sheet) throw problems.unreadableSheet(workbookTexts.noWorksheet(fileName, worksheet));
    const reader = new WorksheetRows(await shared, fileName);
    let row = 1;
    const steps = xmlSteps(await zip.open(sheet.path), reader);
    for (;;) {
      const { done } = await steps.next();
      const read = reader.rows.splice(0);
      for (let at = 0; at < read.length; at += BATCH) {
        const batch = read.slice(at, at + BATCH);
        yield { row, rows: batch };
        row += batch.length;
      }
      if (done) return;
    }
  }
  const worksheets: Worksheets = {
    names,
    async firstFilled() {
      for (const name of names) {
        let filled = 0;
        for await (const batch of rows(name)) {
          filled += batch.rows.filter(isFilledRow).length;
          if (filled >= ROWS_OF_FILLED) return name;
        }
      }
      return undefined;
    },
  };
  return { worksheets, rows };
}

/** Which worksheets there are and where they lie. */
async function readContents(zip: Zip) {
  const targets = new Map<string, string>();
  await readXml(await zip.open('xl/_rels/workbook.xml.rels'), {
    open(name, written) {
      if (localName(name) !== 'Relationship') return;
      const relation = attributesOf(written);
      const target = relation.get('Target') ?? '';
      const path = target.startsWith('/') ? target.slice(1) : `xl/${target}`;
      targets.set(relation.get('Id') ?? '', path);
    },
  });
  const parts = new Set(zip.names);
  const sheets: { name: string; path: string; hidden: boolean }[] = [];
  let from1904 = false;
  await readXml(await zip.open('xl/workbook.xml'), {
    open(name, written) {
      // an extension's element of this name says nothing of it
      const counting = localName(name) === 'workbookPr' && attributesOf(written).get('date1904');
      if (counting) from1904 = counting === '1' || counting === 'true';
      if (localName(name) !== 'sheet') return;
      const sheet = attributesOf(written);
      const relation = [...sheet].find(([key]) => key.endsWith(':id'))?.[1];
      const path = targets.get(relation ?? '') ?? '';
      // charts have sheets of their own
      if (!path.includes('worksheets/') || !parts.has(path)) return;
      const hidden = sheet.has('state') && sheet.get('state') !== 'visible';
      sheets.push({ name: sheet.get('name') ?? '', path, hidden });
    },
  });
  return { sheets, from1904 };
}

async function readShared(zip: Zip, from1904: boolean): Promise<SharedOfWorkbook> {
  const named = (part: string) => zip.names.find((name) => name.toLowerCase() === part);
  const strings = named('xl/sharedstrings.xml');
  const styles = named('xl/styles.xml');
  return {
    strings: strings ? await readStrings(zip, strings) : [],
    kinds: styles ? await formatsOf(await zip.open(styles)) : [],
    from1904,
  };
}

async function readStrings(zip: Zip, path: string): Promise<string[]> {
  const strings: string[] = [];
  const text = new CellText();
  await readXml(await zip.open(path), {
    open: (name) => text.open(localName(name)),
    text: (piece) => text.add(piece),
    close(name) {
      text.close(localName(name));
      if (localName(name) === 'si') strings.push(text.take());
    },
  });
  return strings;
}
