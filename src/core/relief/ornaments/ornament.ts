import type { Stroke } from './kit';

/** A carved piece of our own; its size and height are those of its strokes (`./carve.ts`). */
export interface Ornament {
  readonly name: string;
  readonly group: string;
  /** Other words by which it is looked for. */
  readonly words: string;
  strokes(): readonly Stroke[];
}
