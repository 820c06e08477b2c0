import { Writable } from 'node:stream';
import { writeDataPackage } from './dataPackage.js';
import type {
  FileText,
  RespondentField,
  RespondentPages,
  RespondentValue,
} from './respondentTypes.js';
import { writeRespondentWorkbook } from './respondentWorkbook.js';

/** What a thread needs for a respondent-level file; its rows come page by page. */
export interface RespondentFile {
  format: 'zip' | 'xlsx';
  fields: RespondentField[];
  text: FileText;
}

interface FileLine {
  /** A page of rows as JSON; an empty one is the last. */
  part: (index: number) => Promise<Uint8Array>;
  write: (to: string, bytes: Uint8Array) => Promise<void>;
}

/** Writes the file on a thread, page by page, as fast as it is read. */
export async function writeRespondentFile(
  { format, fields, text }: RespondentFile,
  line: FileLine,
): Promise<void> {
  const to = new Writable({
    write(bytes: Buffer, _, done) {
      line.write('file', bytes).then(() => done(), done);
    },
  });
  const ended = new Promise<void>((resolve, reject) => {
    to.once('finish', resolve).once('error', reject);
  });
  const write = { zip: writeDataPackage, xlsx: writeRespondentWorkbook }[format];
  await Promise.all([write(to, fields, readPages(line), text), ended]);
}

async function* readPages({
  part,
}: FileLine): RespondentPages & AsyncGenerator<RespondentValue[][]> {
  for (let index = 0; ; index++) {
    // written by `asPart`, on the other side of the line
    const page = JSON.parse(Buffer.from(await part(index)).toString()) as RespondentValue[][];
    if (page.length === 0) return;
    yield page;
  }
}

/** A page as it goes to the thread. */
export const asPart = (page: RespondentValue[][]): Uint8Array => Buffer.from(JSON.stringify(page));
