import bidiFactory from 'bidi-js';

/** A part of a line that runs in one direction and is of one script. */
export interface Run {
  /** Where it lies in the line, UTF-16 units: from its first to before its end. */
  readonly from: number;
  readonly to: number;
  readonly rightToLeft: boolean;
}

/** Nothing before this character runs from right to left (the Hebrew block is the first that does). */
const FIRST_RIGHT_TO_LEFT = 0x590;
/** Scripts whose letters are set by rules of their own; all others are set alike. */
const scripts = ['Latin', 'Greek', 'Cyrillic', 'Arabic', 'Hebrew', 'Devanagari', 'Thai', 'Han', 'Hangul'].map(
  (name) => new RegExp(`\\p{Script=${name}}`, 'u'),
);
const scriptOf = (char: string): number => scripts.findIndex((s) => s.test(char));
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
  const parts: { from: number; to: number; level: number; script: number }[] = [];
  let at = 0;
  for (const char of line) {
    const level = levels ? levels[at] : 0;
    const script = common.test(char) ? null : scriptOf(char);
    const last = parts.at(-1);
    if (last && last.level === level && (script === null || last.script === script || last.script === -2)) {
      last.to += char.length;
      if (script !== null) last.script = script;
    } else parts.push({ from: at, to: at + char.length, level, script: script ?? -2 });
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
  return parts.map(({ from, to, level }) => ({ from, to, rightToLeft: level % 2 === 1 }));
}
