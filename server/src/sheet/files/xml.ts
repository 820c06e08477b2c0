import type { Readable } from 'node:stream';
import { problems } from '../../wording/problems.js';

/** Events of a document's markup, in its order. */
export interface XmlHandler {
  /** @param attributes as they are written, for `attributesOf` */
  open?(name: string, attributes: string): void;
  text?(text: string): void;
  close?(name: string): void;
  /**
   * May take an element as a whole, for speed: then it gets no events. Such an element is there to its end, and
   * well formed.
   *
   * @returns where it ends, or -1 when its events are wanted
   */
  take?(xml: string, start: number): number;
}

/** More than a tag or a stretch of text of any sheet is long, in characters; elements within each other. */
const LONGEST = 2 ** 20;
const DEEPEST = 256;

const [TAG_END, SLASH, QUESTION, EXCLAMATION, QUOTE, APOSTROPHE, SPACE] = [
  0x3e, 0x2f, 0x3f, 0x21, 0x22, 0x27, 0x20,
];

const COMMENT = '<!--';
const CDATA = '<![CDATA[';

/** A name without the prefix of its namespace, which programs choose as they like. */
export const localName = (name: string): string => {
  const colon = name.indexOf(':');
  return colon < 0 ? name : name.slice(colon + 1);
};

/**
 * Reads an XML document (XML 1.0, fifth edition) in pieces: elements, text, character references, comments and
 * CDATA. Document types are refused, as the formats of office documents have none. A worksheet of 100,000 rows has
 * millions of tags; a library that checks every character takes several times as long.
 *
 * @throws Error for what is not well formed
 */
export class XmlReader {
  readonly #handler: XmlHandler;
  readonly #path: string[] = [];
  #rest = '';
  /** What came since, until it is worth looking at the rest again: from its beginning, a long one many times. */
  #waiting: string[] = [];
  #waitingLength = 0;

  constructor(handler: XmlHandler) {
    this.#handler = handler;
  }

  write(piece: string): void {
    this.#waiting.push(piece);
    this.#waitingLength += piece.length;
    if (this.#waitingLength >= this.#rest.length) this.#read();
  }

  #read(): void {
    const xml = this.#rest + this.#waiting.join('');
    this.#waiting = [];
    this.#waitingLength = 0;
    let at = 0;
    for (;;) {
      const tag = xml.indexOf('<', at);
      const taken = tag === at ? (this.#handler.take?.(xml, tag) ?? -1) : -1;
      const end = taken >= 0 ? taken : tag < 0 ? -1 : endOfMarkup(xml, tag);
      // text is reported when its end is there
      if (end < 0) break;
      if (tag > at) this.#tellText(xml.slice(at, tag));
      if (taken < 0) this.#tellMarkup(xml, tag, end);
      at = end;
    }
    this.#rest = xml.slice(at);
    if (this.#rest.length > LONGEST)
      throw problems.unreadableSheet(
        `The workbook holds a stretch of more than ${LONGEST.toLocaleString('en')} characters in one piece, as no sheet of answers does: save it as CSV.`,
      );
  }

  /** Says that nothing follows. */
  end(): void {
    this.#read();
    if (this.#path.length > 0 || this.#rest.trim() !== '') throw new Error('XML: it was cut off');
  }

  #tellText(written: string): void {
    if (this.#path.length > 0) this.#handler.text?.(resolvedText(written));
  }

  #tellMarkup(xml: string, start: number, end: number): void {
    switch (xml.charCodeAt(start + 1)) {
      case QUESTION:
        return;
      case EXCLAMATION:
        if (xml.startsWith(CDATA, start))
          this.#handler.text?.(withLineEnds(xml.slice(start + CDATA.length, end - 3)));
        return;
      case SLASH: {
        const name = withoutBlanks(xml.slice(start + 2, end - 1));
        if (this.#path.pop() !== name) throw new Error(`XML: ${name} was not open`);
        return this.#handler.close?.(name);
      }
    }
    const isClosed = xml.charCodeAt(end - 2) === SLASH;
    const last = end - (isClosed ? 2 : 1);
    let nameEnd = start + 1;
    while (nameEnd < last && xml.charCodeAt(nameEnd) > SPACE) nameEnd++;
    const name = xml.slice(start + 1, nameEnd);
    this.#handler.open?.(name, xml.slice(nameEnd, last));
    if (isClosed) this.#handler.close?.(name);
    else if (this.#path.push(name) > DEEPEST)
      throw problems.unreadableSheet(
        `The workbook holds elements within each other, more than ${DEEPEST} deep, as no sheet of answers does: save it as CSV.`,
      );
  }
}

/** Where a tag, comment or the like is over; −1 while that is not there yet. */
function endOfMarkup(xml: string, start: number): number {
  const second = xml.charCodeAt(start + 1);
  if (second === QUESTION) return endOf(xml, '?>', start);
  if (second === EXCLAMATION) {
    if (xml.startsWith(COMMENT, start)) return endOf(xml, '-->', start + COMMENT.length);
    if (xml.startsWith(CDATA, start)) return endOf(xml, ']]>', start + CDATA.length);
    const begun = xml.slice(start, start + CDATA.length);
    if (COMMENT.startsWith(begun) || CDATA.startsWith(begun)) return -1;
    throw new Error('XML: a document type');
  }
  let quote = 0;
  for (let i = start + 1; i < xml.length; i++) {
    const code = xml.charCodeAt(i);
    if (quote !== 0) {
      if (code === quote) quote = 0;
    } else if (code === TAG_END) return i + 1;
    else if (code === QUOTE || code === APOSTROPHE) quote = code;
  }
  return -1;
}

function endOf(xml: string, mark: string, from: number): number {
  const found = xml.indexOf(mark, from);
  return found < 0 ? -1 : found + mark.length;
}

/** Attributes by their names. */
export function attributesOf(written: string): Map<string, string> {
  const attributes = new Map<string, string>();
  eachAttribute(written, (name, value) => attributes.set(name, value));
  return attributes;
}

/** The same one by one: a worksheet has millions of them. */
export function eachAttribute(written: string, tell: (name: string, value: string) => void): void {
  for (let at = afterBlanks(written, 0); at < written.length;) {
    const equals = written.indexOf('=', at);
    const start = afterBlanks(written, equals + 1);
    const mark = written.charCodeAt(start);
    const end =
      equals < 0 || (mark !== QUOTE && mark !== APOSTROPHE)
        ? -1
        : written.indexOf(mark === QUOTE ? '"' : "'", start + 1);
    if (end < 0) throw new Error('XML: an attribute without a value in quotes');
    tell(
      withoutBlanks(written.slice(at, equals)),
      decoded(withBlanks(written.slice(start + 1, end))),
    );
    at = afterBlanks(written, end + 1);
  }
}

/** Without blanks at its end: there mostly are none. */
const withoutBlanks = (name: string): string =>
  name.charCodeAt(name.length - 1) > SPACE ? name : name.trimEnd();

function afterBlanks(text: string, from: number): number {
  let at = from;
  while (text.charCodeAt(at) <= SPACE) at++;
  return at;
}

/** Line ends and tabs inside an attribute are blanks (3.3.3). */
const withBlanks = (value: string): string =>
  /[\t\n\r]/.test(value) ? value.replaceAll(/\r\n|[\t\n\r]/g, ' ') : value;

/** Every line end is one line feed (2.11). */
const withLineEnds = (text: string): string =>
  text.includes('\r') ? text.replaceAll(/\r\n?/g, '\n') : text;

/** Text with its line ends and its references to characters resolved. */
export const resolvedText = (written: string): string => decoded(withLineEnds(written));

const entities = new Map([
  ['amp', '&'],
  ['lt', '<'],
  ['gt', '>'],
  ['quot', '"'],
  ['apos', "'"],
]);

/** The text with its references to characters resolved. */
function decoded(text: string): string {
  if (!text.includes('&')) return text;
  return text.replaceAll(/&([^;&]*);?/g, (reference, name: string) => {
    const [, hex, decimal] = /^#(?:x([0-9a-f]+)|([0-9]+))$/i.exec(name) ?? [];
    const character =
      entities.get(name) ??
      (hex !== undefined ? String.fromCodePoint(Number.parseInt(hex, 16)) : undefined) ??
      (decimal !== undefined ? String.fromCodePoint(Number(decimal)) : undefined);
    if (character === undefined || !reference.endsWith(';'))
      throw new Error(`XML: what ${reference.slice(0, 20)} stands for is not known`);
    return character;
  });
}

/** Reads a document of UTF-8 from its beginning to its end. */
export async function readXml(bytes: Readable, handler: XmlHandler): Promise<void> {
  const steps = xmlSteps(bytes, handler);
  while (!(await steps.next()).done);
}

/** The same in steps: after each of them the handler got one more piece. */
export async function* xmlSteps(bytes: Readable, handler: XmlHandler): AsyncGenerator<undefined> {
  const reader = new XmlReader(handler);
  const decoder = new TextDecoder();
  for await (const piece of bytes as AsyncIterable<Uint8Array>) {
    reader.write(decoder.decode(piece, { stream: true }));
    yield;
  }
  reader.write(decoder.decode());
  reader.end();
}
