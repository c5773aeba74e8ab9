import { z } from 'zod';
import { stillWanted } from '../../units/stillWanted';
import { choices } from '../../units/fields';
import { yOf } from '../field';
import { formKindByRows } from '../form';
import { besideLines } from '../sweeps';
import type { Places } from '../noiseRows';
import { textures, type Texture, type TextureId } from '../textures';

const ids = Object.keys(textures) as [TextureId, ...TextureId[]];
const schema = z.object({
  texture: z.enum(ids),
  /** Size of its features and depth from the deepest to the highest, mm. */
  size: z.number().min(0.2).max(500),
  depth: z.number().min(0).max(100),
  angle: z.number().min(-360).max(360),
  /** How far it leaves a regular pattern, per cent. */
  variation: z.number().min(0).max(100),
  seed: z.number().int().min(0).max(1_000_000),
  /** Whether it runs along picked lines. */
  follows: z.boolean(),
});

// What is done at each node stands in functions that are called for each row: they are compiled for what they do, whichever texture
// has been asked for before.

/** Places along and across that lie at some places of a line, turned and scaled. */
function turned(along: Float32Array, beside: Float32Array, cos: number, sin: number, { u, v }: Places): void {
  for (let c = 0; c < u.length; c++) {
    u[c] = along[c] * cos + beside[c] * sin;
    v[c] = beside[c] * cos - along[c] * sin;
  }
}
/** The same of a row of nodes. */
function straight(x0: number, cell: number, y: number, cos: number, sin: number, { u, v }: Places): void {
  for (let c = 0; c < u.length; c++) {
    const x = x0 + c * cell;
    u[c] = x * cos + y * sin;
    v[c] = y * cos - x * sin;
  }
}
/** Heights of a row, the highest of a texture at 0. */
function sunk(row: Float64Array, depth: number, z: Float32Array, from: number): void {
  for (let c = 0; c < row.length; c++) z[from + c] = depth * (row[c] - 1);
}

/** A ground of our own, the same for the same seed; its highest places stand at the form's base, so that it is cut into it. */
export const texture = formKindByRows({
  id: 'texture',
  name: 'Texture',
  summary: 'A textured ground: water, sand, grain, stone, reed, brick and others.',
  schema,
  fields: [
    {
      kind: 'choice',
      key: 'texture',
      label: 'Texture',
      options: choices(Object.fromEntries(ids.map((id) => [id, textures[id].name]))),
    },
    { kind: 'length', key: 'size', label: 'Size' },
    { kind: 'length', key: 'depth', label: 'Depth' },
    { kind: 'number', key: 'angle', label: 'Angle', unit: '\u00b0' },
    { kind: 'number', key: 'variation', label: 'Variation', unit: '%' },
    { kind: 'number', key: 'seed', label: 'Seed', whole: true },
    { kind: 'flag', key: 'follows', label: 'Follow picked lines' },
  ],
  defaults: { texture: 'water', size: 8, depth: 1, angle: 0, variation: 50, seed: 1, follows: false },
  lines: (v) => (v.follows ? { words: 'Along', none: 'Pick the lines that it follows' } : null),
  prepare: (v, { lines }) =>
    v.follows && !lines.length
      ? { data: null, remark: 'No line is picked for it to follow. Draw one and pick it, or let it run straight.' }
      : { data: { v, lines }, remark: '' },
  rows({ v, lines }, g) {
    const { heights }: Texture = textures[v.texture];
    const led = v.follows ? besideLines(lines, g) : null;
    const turn = (v.angle * Math.PI) / 180;
    const [cos, sin] = [Math.cos(turn) / v.size, Math.sin(turn) / v.size];
    const z = new Float32Array(g.cols * g.rows);
    const at = { u: new Float64Array(g.cols), v: new Float64Array(g.cols) };
    const row = new Float64Array(g.cols);
    for (let r = 0; r < g.rows; r++) {
      stillWanted(g.cols);
      const i = r * g.cols;
      if (led) turned(led.along.subarray(i, i + g.cols), led.beside.subarray(i, i + g.cols), cos, sin, at);
      else straight(g.x0, g.cell, yOf(g, r), cos, sin, at);
      heights(at, v.variation / 100, v.seed, row);
      sunk(row, v.depth, z, i);
    }
    return z;
  },
});
