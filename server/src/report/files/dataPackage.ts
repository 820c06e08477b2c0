import { once } from 'node:events';
import type { Writable } from 'node:stream';
import { strToU8, Zip, ZipDeflate } from 'fflate';
import { writeCsv } from '@yellow-thread/core/exchange';
import { asRSyntax, asSpssSyntax, asStataSyntax } from './syntax.js';
import type { FileText, RespondentField, RespondentPages } from './respondentTypes.js';

const FILE = 'respondents.csv';

/**
 * The respondent-level file with its data dictionary, as a zip of an open Data Package.
 *
 * @see https://specs.frictionlessdata.io/data-package/ and /table-schema/; no copy could be had here, so that
 *   the names of properties are common practice
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
        profile: 'tabular-data-resource',
        name: 'respondents',
        path: FILE,
        format: 'csv',
        mediatype: 'text/csv',
        encoding: 'utf-8',
        dialect: { delimiter: ',', lineTerminator: '\r\n', quoteChar: '"', header: true },
        schema: {
          fields: fields.map(asTableField),
          primaryKey: [fields[0]!.name],
          missingValues: [''],
        },
      },
    ],
  };
  add('datapackage.json').push(strToU8(JSON.stringify(dictionary, null, 2)), true);
  for (const [file, text] of [
    ['read_respondents.R', asRSyntax(fields)],
    ['read_respondents.sps', asSpssSyntax(fields)],
    ['read_respondents.do', asStataSyntax(fields)],
  ] as const)
    add(file).push(strToU8(text), true);
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

/** A column as the dictionary has it: its values as what it may hold, and what they are called. */
const asTableField = ({ name, type, title, description, values }: RespondentField) => ({
  name,
  type,
  title,
  description,
  ...(values.length > 0 && {
    constraints: { enum: values.map(({ value }) => value) },
    categories: values,
  }),
});
