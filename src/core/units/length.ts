/** Lengths: parsing of what makers type, and display. Millimetres inside. */
export type Unit = 'mm' | 'in';

export const MM: Readonly<Record<string, number>> = {
  mm: 1,
  cm: 10,
  m: 1000,
  in: 25.4,
  inch: 25.4,
  inches: 25.4,
  '"': 25.4,
  '\u2033': 25.4,
  ft: 304.8,
  "'": 304.8,
  '\u2032': 304.8,
  thou: 0.0254,
  mil: 0.0254,
  um: 0.001,
  '\u00b5m': 0.001,
};

export type Parsed = { ok: true; mm: number } | { ok: false; error: string };

/** A number or a length: `dim` counts length factors, so that 1/8" can be told from 1 divided by 8 inches. */
interface Value {
  n: number;
  dim: 0 | 1;
}

class Bad extends Error {}

/** No length is written with more letters; brackets in brackets end with them. */
const LONGEST = 200;

/**
 * Reads a length such as `12.5`, `0.5in`, `1/8"`, `1 1/2in`, `100/3`, `2*(3mm+1/4")`.
 * A bare number is in `unit`. A unit right after a fraction belongs to the whole fraction; `1-1/2"` is an inch and a half. A
 * comma is a decimal one, but `1,500` could be either and is refused with both readings.
 */
export function parseLength(text: string, unit: Unit): Parsed {
  if (text.length > LONGEST) return { ok: false, error: `This is too long for a length. Try 12.5, 1/8" or 100/3.` };
  const thousands = /(?<![\d.])([1-9]\d{0,2}),(\d{3})(?![\d,])/.exec(text);
  if (thousands)
    return {
      ok: false,
      error: `"${text.trim()}" can be read as ${thousands[1]}${thousands[2]} or as ${Number(`${thousands[1]}.${thousands[2]}`)}. Type the one that you mean, without the comma.`,
    };
  const mixed = text
    .replace(/(\d)-(\d+\s*\/\s*\d+)(?=\s*(?:["\u2033]|in))/gi, '$1 $2')
    .replace(/^(\s*\d+)-(\d+\/\d+\s*)$/, unit === 'in' ? '$1 $2' : '$1-$2');
  const tokens =
    mixed
      .replace(/,(?=\d)/g, '.')
      .match(/\d+\.?\d*(?:e[+-]?\d+)?|\.\d+|[a-zA-Z\u00b5]+|["'\u2032\u2033]|[-+*/()]|\S/g) ?? [];
  let at = 0;
  const isNumber = (t: string | undefined) => t !== undefined && /^[\d.]/.test(t) && Number.isFinite(Number(t));
  const scale = () => {
    const t = tokens[at]?.toLowerCase();
    if (t !== undefined && t in MM) {
      at++;
      return MM[t];
    }
    return null;
  };
  const primary = (): Value => {
    const t = tokens[at];
    if (t === undefined) throw new Bad('ends too early');
    if (t === '-' || t === '+') {
      at++;
      const v = primary();
      return t === '-' ? { n: -v.n, dim: v.dim } : v;
    }
    if (t === '(') {
      at++;
      const v = sum();
      if (tokens[at++] !== ')') throw new Bad('lacks a closing bracket');
      const s = v.dim === 0 ? scale() : null;
      return s === null ? v : { n: v.n * s, dim: 1 };
    }
    if (!isNumber(t)) throw new Bad(`has "${t}" where a number should be`);
    at++;
    let n = Number(t);
    // `1 1/2` and `1/8"`: a fraction of plain numbers that a unit follows is one number.
    const fraction = (i: number) => isNumber(tokens[i]) && tokens[i + 1] === '/' && isNumber(tokens[i + 2]);
    if (fraction(at)) {
      n += Number(tokens[at]) / Number(tokens[at + 2]);
      at += 3;
    } else if (tokens[at] === '/' && isNumber(tokens[at + 1]) && (tokens[at + 2]?.toLowerCase() ?? '') in MM) {
      n /= Number(tokens[at + 1]);
      at += 2;
    }
    const s = scale();
    return s === null ? { n, dim: 0 } : { n: n * s, dim: 1 };
  };
  const product = (): Value => {
    let v = primary();
    while (tokens[at] === '*' || tokens[at] === '/') {
      const op = tokens[at++];
      const w = primary();
      if (op === '*') {
        if (v.dim && w.dim) throw new Bad('multiplies two lengths');
        v = { n: v.n * w.n, dim: v.dim || w.dim ? 1 : 0 };
      } else {
        if (w.dim && !v.dim) throw new Bad('divides by a length');
        if (w.n === 0) throw new Bad('divides by zero');
        v = { n: v.n / w.n, dim: v.dim && !w.dim ? 1 : 0 };
      }
    }
    return v;
  };
  const bare = (v: Value) => (v.dim ? v.n : v.n * MM[unit]);
  const sum = (): Value => {
    let v = product();
    while (tokens[at] === '+' || tokens[at] === '-') {
      const op = tokens[at++];
      const w = product();
      const sign = op === '+' ? 1 : -1;
      v = v.dim === w.dim ? { n: v.n + sign * w.n, dim: v.dim } : { n: bare(v) + sign * bare(w), dim: 1 };
    }
    return v;
  };
  try {
    if (tokens.length === 0) throw new Bad('is empty');
    let v = sum();
    // 5' 6" and the like: lengths side by side add up.
    while (at < tokens.length && v.dim === 1 && isNumber(tokens[at])) v = { n: v.n + bare(product()), dim: 1 };
    if (at < tokens.length) throw new Bad(`has "${tokens[at]}" too much`);
    const mm = bare(v);
    if (!Number.isFinite(mm)) throw new Bad('is not a finite number');
    return { ok: true, mm };
  } catch (e) {
    if (e instanceof Bad) return { ok: false, error: `"${text.trim()}" ${e.message}. Try 12.5, 1/8" or 100/3.` };
    throw e;
  }
}

/** Several lengths in a row, parted by semicolons, or by commas with a space after them: a comma alone may be a decimal one. */
export function parseLengths(
  text: string,
  unit: Unit,
): { readonly ok: true; readonly mm: number[] } | { readonly ok: false; readonly error: string } {
  const parts = text
    .split(/;|,\s/)
    .map((p) => p.trim())
    .filter(Boolean);
  if (!parts.length) return { ok: false, error: 'Type a length, such as 2; several are parted by semicolons.' };
  const mm: number[] = [];
  for (const part of parts) {
    const r = parseLength(part, unit);
    if (!r.ok) return r;
    mm.push(r.mm);
  }
  return { ok: true, mm };
}

/** A plain number with arithmetic but no length, for counts, angles and percentages. */
export function parseNumber(text: string): { ok: true; value: number } | { ok: false; error: string } {
  if (/[a-z"'\u2032\u2033\u00b5]/i.test(text.replace(/\d+e[+-]?\d+/gi, '')))
    return {
      ok: false,
      error: `"${text.trim()}" has a unit of length or a word in it; a plain number is meant here. Try 12.5 or 100/3.`,
    };
  const r = parseLength(text.replace(/[\u00b0%]\s*$/, ''), 'mm');
  return r.ok ? { ok: true, value: r.mm } : r;
}

const trim = (s: string) => (s.includes('.') ? s.replace(/0+$/, '').replace(/\.$/, '') : s);

/** A length as a number in the unit, without the unit's name; at most 3 decimals in mm, 4 in inches. */
export function formatLength(mm: number, unit: Unit, decimals = unit === 'mm' ? 3 : 4): string {
  const text = trim((mm / MM[unit]).toFixed(decimals));
  return text === '-0' ? '0' : text;
}

/** The same with as many decimals, `least` or more, as it takes to be read back no further off than `off` mm. */
function asFineAs(mm: number, unit: Unit, off: number, least: number): string {
  for (let decimals = least; ; decimals++) {
    const text = formatLength(mm, unit, decimals);
    if (decimals >= 9 || Math.abs(Number(text) * MM[unit] - mm) <= off) return text;
  }
}

/** A length that is read back within half a thousandth of a millimetre, and within a hundredth of itself. */
export const formatFine = (mm: number, unit: Unit): string => asFineAs(mm, unit, Math.min(5e-4, Math.abs(mm) / 100), 3);

/** A length or a rate (mm/min) that is read back within a ten thousandth of itself. */
export const formatRoughly = (mm: number, unit: Unit): string => asFineAs(mm, unit, Math.abs(mm) * 1e-4, 0);

/** An area with its unit: square centimetres from one on. */
export const areaText = (mm2: number, unit: Unit): string =>
  unit === 'mm'
    ? `${mm2 >= 100 ? (mm2 / 100).toFixed(1) : mm2.toFixed(2)} ${mm2 >= 100 ? 'cm' : 'mm'}\u00b2`
    : `${(mm2 / 645.16).toFixed(3)} in\u00b2`;

/** A volume with its unit. */
export const volumeText = (mm3: number, unit: Unit): string =>
  unit === 'mm' ? `${threeDigits(mm3 / 1000)} cm\u00b3` : `${threeDigits(mm3 / 25.4 ** 3)} in\u00b3`;

/** Grams, or avoirdupois ounces. */
export const massText = (g: number, unit: Unit): string =>
  unit === 'mm'
    ? g < 1000
      ? `${threeDigits(g)} g`
      : `${threeDigits(g / 1000)} kg`
    : `${threeDigits(g / 28.349523125)} oz`;

/** As many decimals as make three digits count. */
const threeDigits = (v: number): string =>
  v >= 100 ? v.toFixed(0) : v >= 10 ? v.toFixed(1) : v >= 1 ? v.toFixed(2) : v.toFixed(3);

/** A length with its unit. */
export const lengthText = (mm: number, unit: Unit, decimals?: number): string =>
  `${formatLength(mm, unit, decimals)} ${unit}`;
