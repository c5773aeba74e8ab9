import bidiFactory from 'bidi-js';

/** A part of a line that runs in one direction and is of one script. */
export interface Run {
  /** Where it lies in the line, UTF-16 units: from its first to before its end. */
  readonly from: number;
  readonly to: number;
  readonly rightToLeft: boolean;
  /** The four letters of its script (ISO 15924); null for one that is set without rules of its own. */
  readonly script: string | null;
}

/** Nothing before this character runs from right to left (the Hebrew block is the first that does). */
const FIRST_RIGHT_TO_LEFT = 0x590;
/** Scripts whose letters are set by rules of their own; all others are set alike. */
const scripts = ['Latn', 'Grek', 'Cyrl', 'Arab', 'Hebr', 'Deva', 'Thai', 'Hani', 'Hang'].map(
  (code) => [code, new RegExp(`\\p{Script=${code}}`, 'u')] as const,
);
const scriptOf = (char: string): string | null => scripts.find(([, s]) => s.test(char))?.[0] ?? null;
/** Characters that belong to whichever script stands before them. */
const common = /[\p{Script=Common}\p{Script=Inherited}]/u;

let bidi: ReturnType<typeof bidiFactory> | null = null;

/**
 * The parts of a line in the order in which they are seen from left to right (Unicode Standard Annex 9, rule L2, on whole
 * parts).
 *
 *     "Lock 7 מנעול open"  ->  "Lock 7 " | "מנעול" (from the right) | " open"
 */
export function runsOf(line: string): Run[] {
  if (!line) return [];
  const plain = ![...line].some((q) => q.codePointAt(0)! >= FIRST_RIGHT_TO_LEFT);
  const levels = plain ? null : (bidi ??= bidiFactory()).getEmbeddingLevels(line).levels;
  const parts: {
    from: number;
    to: number;
    level: number;
    rightToLeft: boolean;
    script: string | null;
    open: boolean;
  }[] = [];
  // What belongs to every script goes with the one before it that runs the same way; at first, with one that does.
  const before = ['Latn', 'Hebr'] as (string | null)[];
  let at = 0;
  for (const char of line) {
    const level = levels ? levels[at] : 0;
    const way = level % 2;
    const any = common.test(char);
    const script = any ? before[way] : scriptOf(char);
    const last = parts.at(-1);
    if (last && last.level === level && (last.script === script || last.open)) {
      last.to += char.length;
      last.script = script;
      last.open &&= any;
    } else parts.push({ from: at, to: at + char.length, level, rightToLeft: way === 1, script, open: any });
    before[way] = script;
    at += char.length;
  }
  const most = Math.max(...parts.map((p) => p.level));
  for (let level = most; level > 0; level--)
    for (let i = 0; i < parts.length; i++) {
      let end = i;
      while (end < parts.length && parts[end].level >= level) end++;
      if (end > i) {
        parts.splice(i, end - i, ...parts.slice(i, end).reverse());
        i = end;
      }
    }
  return parts.map(({ from, to, rightToLeft, script }) => ({ from, to, rightToLeft, script }));
}
