import type { Line } from '../jobs/threads/line.js';

const escapes: Record<string, string> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r' };

/** Lines for PostgreSQL's COPY in its text format, gathered until they are written. */
export class CopyText {
  readonly #to: string;
  #text = '';
  constructor(to: string) {
    this.#to = to;
  }

  get length(): number {
    return this.#text.length;
  }

  add(values: readonly (string | number | boolean | null)[]): void {
    let line = '';
    for (const [v, value] of values.entries()) {
      if (v > 0) line += '\t';
      line +=
        value === null
          ? '\\N'
          : typeof value === 'string' && /[\\\t\n\r]/.test(value)
            ? value.replaceAll(/[\\\t\n\r]/g, (character) => escapes[character]!)
            : String(value);
    }
    this.#text += `${line}\n`;
  }

  /** Takes out what was gathered. */
  take(): CopyPiece {
    const piece = { to: this.#to, text: this.#text };
    this.#text = '';
    return piece;
  }
}

interface CopyPiece {
  to: string;
  text: string;
}

/** Writes pieces in order while the next ones are being gathered; never more than one lot is under way. */
export function copyWriter(line: Line) {
  let writing = Promise.resolve();
  const writeAll = async (pieces: readonly CopyPiece[]) => {
    for (const { to, text } of pieces) if (text !== '') await line.write(to, Buffer.from(text));
  };
  return {
    async write(texts: readonly CopyText[]): Promise<void> {
      await writing;
      writing = writeAll(texts.map((text) => text.take()));
      // told when the next lot or the end is waited for, not as a failure that nobody took care of
      writing.catch(() => {});
    },
    end: () => writing,
  };
}
