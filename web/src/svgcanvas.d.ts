declare module 'svgcanvas' {
  /** A 2D context that draws into an SVG. */
  export class Context {
    constructor(width: number, height: number);
    getSerializedSvg(): string;
    canvas: unknown;
  }
}
