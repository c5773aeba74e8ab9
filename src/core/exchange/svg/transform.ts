import { compose, identity, type Affine } from '../../geometry/path';

const RAD = Math.PI / 180;

/** The `transform` attribute (CSS Transforms 1, section 8); null when it is broken. */
export function readTransform(text: string | undefined): Affine | null {
  if (!text || text.trim() === 'none') return identity;
  let m = identity;
  let rest = text;
  const one = /^[\s,]*([a-zA-Z]+)\s*\(([^)]*)\)/;
  for (let hit = one.exec(rest); hit; hit = one.exec(rest)) {
    const v = (hit[2].match(/[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi) ?? []).map(Number);
    if (!v.every(Number.isFinite)) return null;
    const next = single(hit[1], v);
    if (!next) return null;
    m = compose(m, next);
    rest = rest.slice(hit[0].length);
  }
  return rest.trim() ? null : m;
}

function single(name: string, v: number[]): Affine | null {
  switch (name) {
    case 'matrix':
      return v.length === 6 ? { a: v[0], b: v[1], c: v[2], d: v[3], e: v[4], f: v[5] } : null;
    case 'translate':
      return v.length ? { ...identity, e: v[0], f: v[1] ?? 0 } : null;
    case 'scale':
      return v.length ? { ...identity, a: v[0], d: v[1] ?? v[0] } : null;
    case 'rotate': {
      if (!v.length) return null;
      const c = Math.cos(v[0] * RAD);
      const s = Math.sin(v[0] * RAD);
      const [x, y] = [v[1] ?? 0, v[2] ?? 0];
      return { a: c, b: s, c: -s, d: c, e: x - c * x + s * y, f: y - s * x - c * y };
    }
    case 'skewX':
      return v.length ? { ...identity, c: Math.tan(v[0] * RAD) } : null;
    case 'skewY':
      return v.length ? { ...identity, b: Math.tan(v[0] * RAD) } : null;
    default:
      return null;
  }
}

const PX = 25.4 / 96;
const UNITS: Record<string, number> = { '': PX, px: PX, mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72, pc: 25.4 / 6, q: 0.25 };

/** A length with its unit in mm, and whether a real unit was given; null for per cent and nonsense. */
export function readLength(text: string | undefined): { mm: number; real: boolean } | null {
  const m = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*([a-z]*)\s*$/i.exec(text ?? '');
  if (!m) return null;
  const per = UNITS[m[2].toLowerCase()];
  const mm = Number(m[1]) * per;
  return per === undefined || !Number.isFinite(mm) ? null : { mm, real: !['', 'px'].includes(m[2].toLowerCase()) };
}

/** A number of user units; lengths with units are counted in pixels. */
export function userNumber(text: string | undefined, whole = NaN): number {
  if (text === undefined) return NaN;
  const percent = /^\s*([+-]?[\d.]+)\s*%\s*$/.exec(text);
  if (percent) return (Number(percent[1]) / 100) * whole;
  const l = readLength(text);
  return l ? l.mm / PX : NaN;
}
