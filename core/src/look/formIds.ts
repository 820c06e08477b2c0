const FIRST_SIZE = 1 << 12;
const NONE = -1;

/**
 * Numbers forms of words where they stand in a text, without a string for each: of a million words nearly all have been
 * met before.
 */
export class FormIds {
  readonly #forms: string[] = [];
  readonly #hashes: number[] = [];
  /** Numbers by hash, each at the first place from its own on that was free. */
  #table = new Int32Array(FIRST_SIZE).fill(NONE);

  /** The number of a form that stands in a text; −1 for one that was not added. */
  find(text: string, start: number, end: number): number {
    return this.#table[this.#placeOf(text, start, end, hashOf(text, start, end))]!;
  }

  /** Numbers a form that has no number yet. */
  add(form: string): number {
    const id = this.#forms.length;
    const hash = hashOf(form, 0, form.length);
    this.#forms.push(form);
    this.#hashes.push(hash);
    this.#table[this.#placeOf(form, 0, form.length, hash)] = id;
    if (2 * this.#forms.length > this.#table.length) this.#grow();
    return id;
  }

  #placeOf(text: string, start: number, end: number, hash: number): number {
    const mask = this.#table.length - 1;
    let place = hash & mask;
    for (;;) {
      const id = this.#table[place]!;
      if (id === NONE || (this.#hashes[id] === hash && isAt(this.#forms[id]!, text, start, end)))
        return place;
      place = (place + 1) & mask;
    }
  }

  #grow(): void {
    const table = new Int32Array(2 * this.#table.length).fill(NONE);
    for (const [id, hash] of this.#hashes.entries()) {
      let place = hash & (table.length - 1);
      while (table[place] !== NONE) place = (place + 1) & (table.length - 1);
      table[place] = id;
    }
    this.#table = table;
  }
}

/** @see Fowler, Noll & Vo (1991) for FNV-1a; mixed once more, since tables look at the lowest bits */
function hashOf(text: string, start: number, end: number): number {
  let hash = 0x811c9dc5;
  for (let at = start; at < end; at++) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193);
  return hash ^ (hash >>> 15);
}

function isAt(form: string, text: string, start: number, end: number): boolean {
  if (form.length !== end - start) return false;
  for (let i = 0; i < form.length; i++)
    if (form.charCodeAt(i) !== text.charCodeAt(start + i)) return false;
  return true;
}
