import { problems } from '../../problems.js';
import { CellText } from './cellText.js';
import { formatsOf } from './numberFormats.js';
import type { RowBatch } from './text.js';
import { WorksheetRows, type SharedOfWorkbook } from './worksheetRows.js';
import { attributesOf, localName, readXml, xmlSteps } from './xml.js';
import type { Zip } from './zip.js';

const BATCH = 500;

/** A workbook (Office Open XML, ISO/IEC 29500) opened for reading. */
export async function openWorkbook(zip: Zip, fileName: string) {
  const { sheets, from1904 } = await readContents(zip);
  if (sheets.length === 0)
    throw problems.unreadableSheet(`“${fileName}” holds no worksheet: there is nothing to read.`);
  let shared: Promise<SharedOfWorkbook> | null = null;
  return {
    /** Names of the worksheets, those that are shown before hidden ones. */
    worksheets: sheets
      .toSorted((x, y) => Number(x.hidden) - Number(y.hidden))
      .map((sheet) => sheet.name),
    /** The rows of a worksheet as a person sees them: results of formulas, dates, text. */
    async *rows(worksheet: string): AsyncGenerator<RowBatch> {
      shared ??= readShared(zip, from1904);
      const sheet = sheets.find((one) => one.name === worksheet);
      if (!sheet) throw problems.unreadableSheet(`“${fileName}” has no worksheet “${worksheet}”.`);
      const reader = new WorksheetRows(await shared);
      let row = 1;
      const steps = xmlSteps(await zip.open(sheet.path), reader);
      while (!(await steps.next()).done)
        while (reader.rows.length >= BATCH) {
          yield { row, rows: reader.rows.splice(0, BATCH) };
          row += BATCH;
        }
      if (reader.rows.length > 0) yield { row, rows: reader.rows };
    },
  };
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
      if (!path.includes('worksheets/') || !zip.names.includes(path)) return;
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
