import { escapeUTF8 } from 'entities';
import { stitchDrawing, type Look } from '../lib/stitches.js';

/** How wide words are in a font, and how far its baseline lies under what `textBaseline` names, in pixels. */
export interface TextMeasure {
  width: (text: string, font: string) => number;
  baseline: (font: string, textBaseline: CanvasTextBaseline) => number;
}

type Matrix = readonly [a: number, b: number, c: number, d: number, e: number, f: number];

/** What `save` keeps and `restore` brings back. */
interface State {
  fillStyle: string;
  strokeStyle: string;
  lineWidth: number;
  lineCap: CanvasLineCap;
  lineJoin: CanvasLineJoin;
  miterLimit: number;
  lineDash: readonly number[];
  lineDashOffset: number;
  font: string;
  textAlign: CanvasTextAlign;
  textBaseline: CanvasTextBaseline;
  globalAlpha: number;
  matrix: Matrix;
  clip: string | null;
}

const initialState: State = {
  fillStyle: '#000000',
  strokeStyle: '#000000',
  lineWidth: 1,
  lineCap: 'butt',
  lineJoin: 'miter',
  miterLimit: 10,
  lineDash: [],
  lineDashOffset: 0,
  font: '10px sans-serif',
  textAlign: 'start',
  textBaseline: 'alphabetic',
  globalAlpha: 1,
  matrix: [1, 0, 0, 1, 0, 0],
  clip: null,
};

const anchors: Partial<Record<CanvasTextAlign, string>> = {
  center: 'middle',
  right: 'end',
  end: 'end',
};

const round = (value: number): number => Math.round(100 * value) / 100;
/** Text without characters that no XML may hold. */
const escaped = (text: string): string =>
  escapeUTF8(text.replaceAll(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, ''));

/**
 * The part of a 2D context that Chart.js draws with, written down as SVG: every fill and stroke is an element of its own,
 * in the pixels of the picture, and text stays text.
 *
 * @see HTML Living Standard, "2D rendering context"; SVG 1.1 (second edition), W3C 2011
 */
export class SvgContext {
  canvas: unknown = null;
  #state: State = { ...initialState };
  readonly #saved: State[] = [];
  #path: string[] = [];
  readonly #elements: string[] = [];
  /** Ids of what is referred to, by the element. */
  readonly #definitions = new Map<string, string>();

  readonly width: number;
  readonly height: number;
  readonly measure: TextMeasure;

  constructor(width: number, height: number, measure: TextMeasure) {
    this.width = width;
    this.height = height;
    this.measure = measure;
    // Chart.js sets these as properties
    const own = Object.keys(initialState).filter((key) => key !== 'matrix' && key !== 'clip');
    for (const key of own)
      Object.defineProperty(this, key, {
        get: (): unknown => Reflect.get(this.#state, key),
        set: (value: unknown) => Reflect.set(this.#state, key, value),
      });
  }

  save(): void {
    this.#saved.push({ ...this.#state });
  }
  restore(): void {
    this.#state = this.#saved.pop() ?? this.#state;
  }
  setTransform(...matrix: [number, number, number, number, number, number]): void {
    this.#state.matrix = matrix;
  }
  resetTransform(): void {
    this.#state.matrix = initialState.matrix;
  }
  transform(a: number, b: number, c: number, d: number, e: number, f: number): void {
    const [A, B, C, D, E, F] = this.#state.matrix;
    this.#state.matrix = [
      A * a + C * b,
      B * a + D * b,
      A * c + C * d,
      B * c + D * d,
      A * e + C * f + E,
      B * e + D * f + F,
    ];
  }
  translate(x: number, y: number): void {
    this.transform(1, 0, 0, 1, x, y);
  }
  scale(x: number, y: number): void {
    this.transform(x, 0, 0, y, 0, 0);
  }
  rotate(angle: number): void {
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    this.transform(cos, sin, -sin, cos, 0, 0);
  }

  beginPath(): void {
    this.#path = [];
  }
  closePath(): void {
    if (this.#path.length > 0) this.#path.push('Z');
  }
  moveTo(x: number, y: number): void {
    this.#path.push(`M${this.#at(x, y)}`);
  }
  lineTo(x: number, y: number): void {
    this.#path.push(`${this.#path.length > 0 ? 'L' : 'M'}${this.#at(x, y)}`);
  }
  bezierCurveTo(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    this.#path.push(`C${this.#at(x1, y1)} ${this.#at(x2, y2)} ${this.#at(x, y)}`);
  }
  quadraticCurveTo(x1: number, y1: number, x: number, y: number): void {
    this.#path.push(`Q${this.#at(x1, y1)} ${this.#at(x, y)}`);
  }
  rect(x: number, y: number, width: number, height: number): void {
    this.moveTo(x, y);
    this.lineTo(x + width, y);
    this.lineTo(x + width, y + height);
    this.lineTo(x, y + height);
    this.closePath();
  }
  /** In two halves: one command of SVG draws no whole circle. */
  arc(x: number, y: number, radius: number, from: number, to: number, isBackwards = false): void {
    const turn = 2 * Math.PI;
    const whole = Math.abs(to - from) >= turn;
    const way = ((to - from) % turn) + (isBackwards ? -turn : turn);
    const sweep = whole ? (isBackwards ? -turn : turn) : way % turn;
    const [a, b] = this.#state.matrix;
    const r = round(radius * Math.hypot(a, b));
    const on = (angle: number) =>
      [x + radius * Math.cos(angle), y + radius * Math.sin(angle)] as const;
    this.lineTo(...on(from));
    for (const part of [sweep / 2, sweep])
      this.#path.push(`A${r} ${r} 0 0 ${isBackwards ? 0 : 1} ${this.#at(...on(from + part))}`);
  }

  fill(rule: CanvasFillRule = 'nonzero'): void {
    this.#draw(
      this.#path,
      `fill="${this.#state.fillStyle}"${rule === 'evenodd' ? ' fill-rule="evenodd"' : ''}`,
    );
  }
  stroke(path?: unknown): void {
    if (path) throw new TypeError('Only the path of the context itself can be written down.');
    const { strokeStyle, lineWidth, lineCap, lineJoin, lineDash, lineDashOffset } = this.#state;
    const dashes =
      lineDash.length > 0
        ? ` stroke-dasharray="${lineDash.join(' ')}" stroke-dashoffset="${lineDashOffset}"`
        : '';
    this.#draw(
      this.#path,
      `fill="none" stroke="${strokeStyle}" stroke-width="${lineWidth}" stroke-linecap="${lineCap}" stroke-linejoin="${lineJoin}"${dashes}`,
    );
  }
  fillRect(x: number, y: number, width: number, height: number): void {
    this.#aside(() => {
      this.rect(x, y, width, height);
      this.fill();
    });
  }
  strokeRect(x: number, y: number, width: number, height: number): void {
    this.#aside(() => {
      this.rect(x, y, width, height);
      this.stroke();
    });
  }
  /** A chart clears its whole canvas before it draws, and nothing else. */
  clearRect(): void {
    this.#elements.length = 0;
  }
  clip(): void {
    const inside = this.#state.clip;
    const id = this.#define(
      'clip',
      `<clipPath${inside ? ` clip-path="url(#${inside})"` : ''}><path d="${this.#path.join('')}"/></clipPath>`,
    );
    this.#state.clip = id;
  }

  setLineDash(lineDash: readonly number[]): void {
    this.#state.lineDash = lineDash;
  }
  getLineDash(): readonly number[] {
    return this.#state.lineDash;
  }

  measureText(text: string): { width: number } {
    return { width: this.measure.width(text, this.#state.font) };
  }
  fillText(text: string, x: number, y: number): void {
    const { font, fillStyle, textAlign, textBaseline, matrix } = this.#state;
    const anchor = anchors[textAlign];
    const [a, b, c, d, e, f] = matrix.map(round);
    const isMoved = [a, b, c, d, e, f].join() !== initialState.matrix.join();
    const place = isMoved ? ` transform="matrix(${[a, b, c, d, e, f].join(' ')})"` : '';
    const y0 = round(y + this.measure.baseline(font, textBaseline));
    const element = `<text x="${round(x)}" y="${y0}" style="font: ${escaped(font)}" fill="${fillStyle}"${anchor ? ` text-anchor="${anchor}"` : ''}${place}>${escaped(text)}</text>`;
    // a clip would be moved with the text that it is on
    const common = this.#common();
    this.#elements.push(common ? `<g${common}>${element}</g>` : element);
  }

  /** A fill of stitches on a pale ground of their ink. */
  stitchFill({ ink, stitch }: Look, tile: { width: number; height: number }): string {
    const width = stitch === 'dots' ? 2.4 : 1.3;
    const id = this.#define(
      'stitch',
      `<pattern width="${tile.width}" height="${tile.height}" patternUnits="userSpaceOnUse"><path d="M0 0H${tile.width}V${tile.height}H0Z" fill="${ink}" fill-opacity="0.18"/><path d="${stitchDrawing(stitch)}" fill="none" stroke="${ink}" stroke-width="${width}" stroke-linecap="round"/></pattern>`,
    );
    return `url(#${id})`;
  }

  /** @param fonts a style sheet with the fonts that the text is set in */
  toSvg(fonts = ''): string {
    const definitions = [...this.#definitions]
      .map(([element, id]) => element.replace(/^<\w+/u, `$& id="${id}"`))
      .join('');
    const size = `width="${this.width}" height="${this.height}" viewBox="0 0 ${this.width} ${this.height}"`;
    return `<svg xmlns="http://www.w3.org/2000/svg" ${size}><defs>${fonts && `<style>${fonts}</style>`}${definitions}</defs>${this.#elements.join('\n')}</svg>`;
  }

  #at(x: number, y: number): string {
    const [a, b, c, d, e, f] = this.#state.matrix;
    return `${round(a * x + c * y + e)} ${round(b * x + d * y + f)}`;
  }
  #draw(path: readonly string[], paint: string): void {
    if (path.length > 0)
      this.#elements.push(`<path d="${path.join('')}" ${paint}${this.#common()}/>`);
  }
  #common(): string {
    const { globalAlpha, clip } = this.#state;
    return `${globalAlpha < 1 ? ` opacity="${globalAlpha}"` : ''}${clip ? ` clip-path="url(#${clip})"` : ''}`;
  }
  /** What is drawn without touching the path that is being made. */
  #aside(draw: () => void): void {
    const path = this.#path;
    this.#path = [];
    draw();
    this.#path = path;
  }
  /** Two definitions that say the same are one. */
  #define(kind: string, element: string): string {
    const known = this.#definitions.get(element);
    if (known) return known;
    const id = `${kind}-${this.#definitions.size}`;
    this.#definitions.set(element, id);
    return id;
  }
}
