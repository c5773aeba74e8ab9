/** The part of the font parser that Mirvak uses; the package's own types pull in DOM names. */
declare module 'opentype.js/dist/opentype.mjs' {
  export interface Command {
    type: 'M' | 'L' | 'C' | 'Q' | 'Z';
    x: number;
    y: number;
    x1: number;
    y1: number;
    x2: number;
    y2: number;
  }
  export interface Glyph {
    index: number;
    advanceWidth: number;
    path: { commands: Command[] };
    getPath(x: number, y: number, size: number): { commands: Command[] };
  }
  export interface Font {
    unitsPerEm: number;
    ascender: number;
    getEnglishName(name: 'fullName' | 'fontFamily'): string | undefined;
    tables: { os2?: { sCapHeight?: number } };
    glyphs: { length: number };
    position?: {
      getKerningTables?: (script: string) => unknown;
      getKerningValue?: (tables: unknown, left: number, right: number) => number;
    };
    charToGlyph(c: string): Glyph;
    getKerningValue(left: Glyph, right: Glyph): number;
  }
  export function parse(buffer: ArrayBuffer): Font;
}
