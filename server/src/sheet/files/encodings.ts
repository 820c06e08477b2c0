import { encodingSchema, type FileSettings } from '@yellow-thread/contract';
import chardet from 'chardet';
import iconv from 'iconv-lite';
import { bytesOf, firstBytes, piecesOf, type FileSource } from './source.js';

export const ENCODINGS = encodingSchema.options;
export type Encoding = FileSettings['encoding'];
/** Some words of a file as they read in one encoding. */
export type EncodingReading = NonNullable<FileSettings['readings']>[number];

const HEAD = 64 * 1024;

/** UTF-16 where marked so or where every other byte is null; else UTF-8 unless that turns out not to fit. */
export async function guessEncoding(source: FileSource): Promise<Encoding> {
  const head = await firstBytes(source, HEAD);
  const [first, second] = head;
  if (first === 0xff && second === 0xfe) return 'utf-16le';
  if (first === 0xfe && second === 0xff) return 'utf-16be';
  const nulls = [0, 0];
  for (const [i, byte] of head.entries()) if (byte === 0) nulls[i % 2]! += 1;
  if (nulls[1]! > 0.3 * head.length) return 'utf-16le';
  if (nulls[0]! > 0.3 * head.length) return 'utf-16be';
  const decoder = new TextDecoder('utf-8', { fatal: true });
  try {
    for await (const bytes of bytesOf(source)) decoder.decode(bytes, { stream: true });
    decoder.decode();
    return 'utf-8';
  } catch {
    return guessOldEncoding(await linesBeyondAscii(source));
  }
}

/** What a detector calls an encoding that has another name here, or is part of one. */
const asKnown: Record<string, Encoding> = {
  'iso-8859-1': 'windows-1252',
  'iso-8859-6': 'windows-1256',
  'iso-8859-8': 'windows-1255',
  'iso-8859-9': 'windows-1254',
};
const multiByte = new Set<Encoding>(['gb18030', 'big5', 'shift_jis', 'euc-jp', 'euc-kr']);
/** With less confidence, of 100, a guess is no better than the most common encoding. */
const LEAST_CONFIDENCE = { oneByte: 20, multiByte: 50 };

/** By how often runs of letters occur in languages; where that says little, Windows-1252, in which every byte is something. */
function guessOldEncoding(text: Buffer): Encoding {
  for (const { known, confidence } of detected(text)) {
    const least = multiByte.has(known) ? LEAST_CONFIDENCE.multiByte : LEAST_CONFIDENCE.oneByte;
    if (confidence < least) return 'windows-1252';
    // Ά is the one letter in which the two Greek sets differ
    return known === 'iso-8859-7' && text.includes(0xa2) && !text.includes(0xb6)
      ? 'windows-1253'
      : known;
  }
  return 'windows-1252';
}

/** The detector's candidates that can be read here, the most likely first. */
const detected = (text: Buffer) =>
  chardet.analyse(text).flatMap(({ name, confidence }) => {
    const folded = name.toLowerCase();
    const known = asKnown[folded] ?? ENCODINGS.find((one) => one === folded);
    return known && !known.startsWith('utf') ? [{ known, confidence }] : [];
  });

const MOST_WORDS = 6;
const MOST_READINGS = 5;
const LONGEST_WORD = 30;
/** What exports of survey programs are often in, whatever a detector makes of the letters. */
const common: Encoding[] = ['windows-1252', 'macintosh', 'windows-1250'];

/**
 * Words of a file with letters that are not the same in all encodings, as they read in the chosen one and in others
 * that make sense, so that a person can tell which is right. Nothing where the file can only be read in one way.
 */
export async function compareEncodings(
  source: FileSource,
  chosen: Encoding,
  guess: Encoding,
): Promise<EncodingReading[]> {
  if (chosen === guess && guess.startsWith('utf')) return [];
  const text = await linesBeyondAscii(source);
  const words = tellingWords(text);
  const readings = new Map<string, EncodingReading>();
  // text that is valid UTF-8 is that by no chance
  const others = guess.startsWith('utf')
    ? []
    : [...common, ...detected(text).map(({ known }) => known)];
  for (const encoding of [chosen, guess, ...others]) {
    const read = words.map((word) => iconv.decode(word, encoding).slice(0, LONGEST_WORD));
    const makesSense = !read.some((word) => /[\p{Cc}\p{Co}\p{Cn}\uFFFD]/u.test(word));
    if (encoding !== chosen && !makesSense) continue;
    const key = read.join(' ');
    if (!readings.has(key)) readings.set(key, { encoding, words: read });
  }
  return readings.size < 2 ? [] : [...readings.values()].slice(0, MOST_READINGS);
}

/** Words that each bring a byte beyond ASCII that those before have not. */
function tellingWords(text: Buffer): Buffer[] {
  const seen = new Set<number>();
  const words: Buffer[] = [];
  // none of these bytes is part of a letter in any of the encodings
  const isBetween = (byte: number) =>
    byte <= 0x20 || byte === 0x22 || byte === 0x2c || byte === 0x3b;
  for (let start = 0; start < text.length && words.length < MOST_WORDS; start++) {
    if (isBetween(text[start]!)) continue;
    let end = start;
    while (end < text.length && !isBetween(text[end]!)) end++;
    const word = text.subarray(start, end);
    start = end;
    const fresh = word.filter((byte) => byte >= 0x80 && !seen.has(byte));
    if (fresh.length === 0) continue;
    for (const byte of fresh) seen.add(byte);
    words.push(word);
  }
  return words;
}

/** The first lines that hold more than ASCII: in the others all of these encodings are alike. */
async function linesBeyondAscii(source: FileSource): Promise<Buffer> {
  const lines: Buffer[] = [];
  let size = 0;
  for await (const bytes of piecesOf(source)) {
    const piece = Buffer.from(bytes);
    for (let at = 0; at < piece.length;) {
      const end = piece.indexOf(0x0a, at);
      const line = piece.subarray(at, end < 0 ? piece.length : end + 1);
      at += line.length;
      if (!line.some((byte) => byte >= 0x80)) continue;
      lines.push(line);
      size += line.length;
    }
    if (size > HEAD) break;
  }
  return Buffer.concat(lines);
}
