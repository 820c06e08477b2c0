import type { ThreadChannel } from '../jobs/threads/threadChannel.js';

const escapes: Record<string, string> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r' };

/** So much is made room for at first; a lot that grows beyond finds more. */
const ROOM = 1024 * 1024;
/** A character of a string takes three bytes at most in UTF-8 (one beyond U+FFFF is two of them and takes four). */
const BYTES_A_UNIT = 3;

/**
 * Lines for PostgreSQL's COPY in its text format, gathered until they are written: as bytes from the start, since
 * strings of megabytes that grow line by line keep the collector of garbage busier than the work itself.
 */
export class CopyText {
  readonly #to: string;
  #bytes = Buffer.allocUnsafe(ROOM);
  #length = 0;
  constructor(to: string) {
    this.#to = to;
  }

  /** In bytes. */
  get length(): number {
    return this.#length;
  }

  add(values: readonly (string | number | boolean | null)[]): void {
    let line = '';
    for (let v = 0; v < values.length; v++) {
      const value = values[v];
      if (v > 0) line += '\t';
      line +=
        value === null
          ? '\\N'
          : typeof value === 'string' && /[\\\t\n\r]/.test(value)
            ? value.replaceAll(/[\\\t\n\r]/g, (character) => escapes[character]!)
            : String(value);
    }
    line += '\n';
    const most = this.#length + line.length * BYTES_A_UNIT;
    if (most > this.#bytes.length) {
      const larger = Buffer.allocUnsafe(Math.max(most, this.#bytes.length * 2));
      this.#bytes.copy(larger, 0, 0, this.#length);
      this.#bytes = larger;
    }
    this.#length += this.#bytes.write(line, this.#length);
  }

  /** Takes out what was gathered. */
  take(): CopyPiece {
    const piece = { to: this.#to, bytes: Buffer.from(this.#bytes.subarray(0, this.#length)) };
    this.#length = 0;
    return piece;
  }
}

interface CopyPiece {
  to: string;
  bytes: Uint8Array;
}

/** Writes pieces in order while the next ones are being gathered; never more than one lot is in progress. */
export function copyWriter(channel: ThreadChannel) {
  let writing: Promise<unknown> = Promise.resolve();
  return {
    async write(texts: readonly CopyText[]): Promise<void> {
      await writing;
      const pieces = texts.map((text) => text.take()).filter(({ bytes }) => bytes.length > 0);
      // handed over together: a thread that is busy with the next lot could not send one after another
      writing = Promise.all(pieces.map(({ to, bytes }) => channel.write(to, bytes)));
      // reported when the next lot or the end is awaited, not as an unhandled rejection
      writing.catch(() => {});
    },
    async end(): Promise<void> {
      await writing;
    },
  };
}
