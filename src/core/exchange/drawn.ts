import type { Path } from '../geometry/path';
import type { Fill } from '../geometry/region';

/** One thing of a file that was read. mm, Y up. */
export interface DrawnThing {
  readonly name: string;
  readonly layer: string;
  /** Colour as #rrggbb, when the file says one. */
  readonly colour: string | null;
  readonly fill: Fill;
  readonly paths: Path[];
}

/** Text of a file that can stay text. */
export interface DrawnText {
  readonly text: string;
  readonly layer: string;
  /** Names of families as the file gives them. */
  readonly family: string;
  readonly bold: boolean;
  /** Size of the em and where the baseline begins (mm), its turn (degrees), how it is anchored. */
  readonly size: number;
  readonly x: number;
  readonly y: number;
  readonly angle: number;
  readonly anchor: 'left' | 'centre' | 'right';
}

export interface Drawn {
  readonly things: DrawnThing[];
  readonly texts: DrawnText[];
  /** Names and colours of layers in the order of the file. */
  readonly layers: { readonly name: string; readonly colour: string | null }[];
  /** What was left out or changed, in words. */
  readonly remarks: string[];
  /** Whether the file said its unit; when not, one of the size given was taken. */
  readonly unitKnown: boolean;
}

/** Raised when a file cannot be read; says which and why. */
export class ExchangeError extends Error {
  constructor(name: string, why: string) {
    super(`"${name}" was not read: ${why}`);
    this.name = 'ExchangeError';
  }
}

/** Things and segments beyond these counts are refused rather than left to fill the memory. */
export const MOST_THINGS = 200_000;
export const MOST_SEGMENTS = 3_000_000;
