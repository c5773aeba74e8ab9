import { SaxesParser, type SaxesTagPlain } from 'saxes';
import { ExchangeError } from '../drawn';
import { JobError } from '../../job/migrate';
import { openZip, type ZipLimits } from '../../job/zip';
import type { Mesh } from '../../relief/mesh';
import { MOST_TRIANGLES, tooManyTriangles } from './words';

/** Units of the standard, mm. */
const UNITS: Readonly<Record<string, number>> = {
  micron: 0.001,
  millimeter: 1,
  centimeter: 10,
  inch: 25.4,
  foot: 304.8,
  meter: 1000,
};
const MB = 1024 * 1024;
const LIMITS: ZipLimits = {
  packed: 400 * MB,
  opened: 1600 * MB,
  files: 2000,
  each: [],
  wanted: (f) => /\.(model|rels)$/i.test(f),
};
/** Text is read in pieces of so many bytes. */
const PIECE = 1 << 20;
/** Parts of parts of parts: deeper than so is a ring. */
const DEEPEST = 20;

/** x' = x m0 + y m3 + z m6 + m9, and so on. */
type Matrix = readonly number[];
const SAME: Matrix = [1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0];
interface Part {
  readonly path: string;
  readonly id: string;
  readonly matrix: Matrix;
}
interface Solid {
  readonly points: number[];
  /** Three places in the points for each triangle. */
  readonly faces: number[];
  readonly parts: Part[];
  /** Whether it is there to hold others up while they are printed. */
  readonly support: boolean;
}
interface Model {
  readonly unit: number;
  readonly solids: Map<string, Solid>;
  readonly build: Part[];
}

/**
 * Reads the meshes of a 3MF file (3D Manufacturing Format, core specification 1.3, with the paths of its production extension), as
 * they stand on its plate, in mm. Colours, materials and supports say nothing about heights. Throws ExchangeError.
 */
export function readThreeMf(name: string, bytes: Uint8Array): Mesh {
  let files: Record<string, Uint8Array>;
  try {
    files = openZip(bytes, LIMITS);
  } catch (e) {
    if (!(e instanceof JobError)) throw e;
    throw new ExchangeError(name, `it is damaged, or no 3MF file. ${e.message}`);
  }
  const models = new Map<string, Model>();
  let triangles = 0;
  const modelAt = (path: string): Model => {
    let m = models.get(path);
    if (!m) {
      const text = files[path.replace(/^\//, '')];
      if (!text) throw new ExchangeError(name, `the part "${path}" of it is missing. Export it again.`);
      m = readModel(name, path, text, (more) => {
        triangles += more;
        if (triangles > MOST_TRIANGLES) throw tooManyTriangles(name, triangles);
      });
      models.set(path, m);
    }
    return m;
  };
  const root = rootOf(files);
  if (!root) throw new ExchangeError(name, 'it holds no model. Export it again.');
  const out: Mesh[] = [];
  let made = 0;
  const add = (part: Part, unit: number, deep: number): void => {
    const solid = modelAt(part.path).solids.get(part.id);
    if (!solid || deep > DEEPEST)
      throw new ExchangeError(name, `its part ${part.id} ${solid ? 'holds itself' : 'is missing'}. Export it again.`);
    if (solid.support) return;
    made += solid.faces.length / 3;
    if (made > MOST_TRIANGLES) throw tooManyTriangles(name, made);
    if (solid.faces.length) out.push({ corners: cornersOf(solid, part.matrix, unit) });
    for (const p of solid.parts) add({ ...p, matrix: times(p.matrix, part.matrix) }, unit, deep + 1);
  };
  const { build, unit } = modelAt(root);
  for (const item of build) add(item, unit, 0);
  const corners = new Float32Array(out.reduce((n, m) => n + m.corners.length, 0));
  let at = 0;
  for (const m of out) {
    corners.set(m.corners, at);
    at += m.corners.length;
  }
  return { corners };
}

/** The model that the file begins with: the one that its relations name, or the first there is. */
function rootOf(files: Readonly<Record<string, Uint8Array>>): string | undefined {
  const said = files['_rels/.rels'];
  const tags = said ? (new TextDecoder().decode(said).match(/<Relationship\b[^>]*>/g) ?? []) : [];
  const start = tags.find((t) => t.includes('/3dmodel"'));
  const target = start && /Target="([^"]*)"/.exec(start)?.[1];
  const named = target?.replace(/^\//, '');
  return named && files[named] ? named : Object.keys(files).find((f) => f.toLowerCase().endsWith('.model'));
}

function readModel(name: string, path: string, bytes: Uint8Array, count: (triangles: number) => void): Model {
  const parser = new SaxesParser();
  const refuse = (why: string) =>
    new ExchangeError(name, `${why} in line ${parser.line} of its model. Export it again.`);
  let unit = 1;
  const solids = new Map<string, Solid>();
  const build: Part[] = [];
  let solid: Solid | null = null;
  const number = (t: SaxesTagPlain, key: string): number => {
    const v = Number(t.attributes[key] ?? NaN);
    if (!Number.isFinite(v)) throw refuse(`"${key}" is no number`);
    return v;
  };
  const corner = (t: SaxesTagPlain, key: string): number => {
    const v = number(t, key);
    if (!Number.isInteger(v) || v < 0 || v >= solid!.points.length / 3)
      throw refuse('a triangle names a corner that is not there');
    return v;
  };
  const partOf = (t: SaxesTagPlain): Part => {
    const own = Object.entries(t.attributes).find(([k]) => k.endsWith(':path'))?.[1];
    const matrix = t.attributes.transform?.trim().split(/\s+/).map(Number) ?? SAME;
    if (matrix.length !== 12 || !matrix.every(Number.isFinite)) throw refuse('a transform is not of twelve numbers');
    return { path: own ?? path, id: t.attributes.objectid ?? '', matrix };
  };
  parser.on('opentag', (t) => {
    const local = t.name.slice(t.name.indexOf(':') + 1);
    if (local === 'model') unit = UNITS[t.attributes.unit ?? 'millimeter'] ?? 1;
    else if (local === 'object') {
      const { id = '', type } = t.attributes;
      solids.set(id, (solid = { points: [], faces: [], parts: [], support: type === 'support' || type === 'other' }));
    } else if (local === 'item') build.push(partOf(t));
    else if (!solid) return;
    else if (local === 'vertex') solid.points.push(number(t, 'x'), number(t, 'y'), number(t, 'z'));
    else if (local === 'triangle') {
      count(1);
      solid.faces.push(corner(t, 'v1'), corner(t, 'v2'), corner(t, 'v3'));
    } else if (local === 'component') solid.parts.push(partOf(t));
  });
  parser.on('closetag', (t) => {
    if (t.name.endsWith('object')) solid = null;
  });
  parser.on('error', () => {
    throw refuse('something is not written as it should be');
  });
  const decoder = new TextDecoder();
  for (let i = 0; i < bytes.length; i += PIECE)
    parser.write(decoder.decode(bytes.subarray(i, i + PIECE), { stream: true }));
  parser.close();
  return { unit, solids, build };
}

const times = (a: Matrix, b: Matrix): Matrix =>
  Array.from({ length: 12 }, (_, i) => {
    const [r, c] = [3 * Math.floor(i / 3), i % 3];
    return a[r] * b[c] + a[r + 1] * b[3 + c] + a[r + 2] * b[6 + c] + (r === 9 ? b[9 + c] : 0);
  });

function cornersOf({ points, faces }: Solid, m: Matrix, unit: number): Float32Array {
  const out = new Float32Array(3 * faces.length);
  faces.forEach((p, i) => {
    const [x, y, z] = [points[3 * p], points[3 * p + 1], points[3 * p + 2]];
    for (let k = 0; k < 3; k++) out[3 * i + k] = unit * (x * m[k] + y * m[3 + k] + z * m[6 + k] + m[9 + k]);
  });
  return out;
}
