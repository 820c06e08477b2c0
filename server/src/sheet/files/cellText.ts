/** Gathers what a cell says out of its runs of text; how characters are to be spoken is no part of it. */
export class CellText {
  #text = '';
  #isInRun = false;
  #phonetic = 0;

  open(name: string): void {
    if (name === 't') this.#isInRun = this.#phonetic === 0;
    else if (name === 'rPh') this.#phonetic += 1;
  }

  add(text: string): void {
    if (this.#isInRun) this.#text += text;
  }

  close(name: string): void {
    if (name === 't') this.#isInRun = false;
    else if (name === 'rPh') this.#phonetic -= 1;
  }

  take(): string {
    const text = this.#text;
    this.#text = '';
    return withoutEscapes(text);
  }
}

/** Characters that XML cannot hold are written by their numbers: _x000B_ (ISO/IEC 29500-1, 22.9.2.19). */
export const withoutEscapes = (text: string): string =>
  text.includes('_x')
    ? text.replaceAll(/_x([0-9a-f]{4})_/gi, (_, code: string) =>
        String.fromCharCode(Number.parseInt(code, 16)),
      )
    : text;
