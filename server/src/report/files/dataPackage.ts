import { once } from 'node:events';
import type { Writable } from 'node:stream';
import { strToU8, Zip, ZipDeflate } from 'fflate';
import { writeCsv } from '@yellow-thread/core/exchange';
import type { FileText, RespondentField, RespondentPages } from './respondentTypes.js';

const FILE = 'respondents.csv';

/**
 * The respondent-level file with its data dictionary, as a zip of an open Data Package.
 *
 * @see https://specs.frictionlessdata.io/data-package/ and /table-schema/ (from memory)
 */
export async function writeDataPackage(
  to: Writable,
  fields: readonly RespondentField[],
  pages: RespondentPages,
  { name, purpose, description }: FileText,
): Promise<void> {
  let full = false;
  const zip = new Zip((error, chunk, final) => {
    if (error) to.destroy(error);
    else if (!to.write(chunk)) full = true;
    if (final) to.end();
  });
  const add = (file: string) => {
    const entry = new ZipDeflate(file, { level: 6 });
    zip.add(entry);
    return entry;
  };
  const dictionary = {
    profile: 'tabular-data-package',
    name: 'yellow-thread-respondents',
    title: name,
    description: [purpose, description].filter(Boolean).join(' '),
    created: new Date().toISOString(),
    resources: [
      {
        ...{ profile: 'tabular-data-resource', name: 'respondents', path: FILE },
        ...{ format: 'csv', mediatype: 'text/csv', encoding: 'utf-8' },
        dialect: { delimiter: ',', lineTerminator: '\r\n', quoteChar: '"', header: true },
        schema: { fields, primaryKey: [fields[0]!.name], missingValues: [''] },
      },
    ],
  };
  add('datapackage.json').push(strToU8(JSON.stringify(dictionary, null, 2)), true);
  const table = add(FILE);
  table.push(strToU8(writeCsv([fields.map((field) => field.name)], 'programs')));
  for await (const page of pages) {
    table.push(strToU8(writeCsv(page, 'programs')));
    // what is not taken yet is waited for, so that it does not pile up
    if (full) await once(to, 'drain');
    full = false;
  }
  table.push(new Uint8Array(0), true);
  zip.end();
}
