import { z } from 'zod';
import { stillWanted } from '../../units/stillWanted';
import { choices } from '../../units/fields';
import { curveThrough, isStraight, STRAIGHT } from '../curve';
import { yOf } from '../field';
import { formKindByRows } from '../form';
import { cropped, LEAST_LEFT, reduced, withoutSteps, type Crop, type GreyPicture } from '../picture';
import { besideLines } from '../sweeps';
import { layings, sampled, tiled, type Laying } from '../tiles';

const size = z.number().min(0.1).max(5000);
const margin = z
  .number()
  .min(0)
  .max(100 - LEAST_LEFT);
const share = z.number().min(0).max(1);
const schema = z.object({
  /** Id of its file among the job's assets: a PNG, whatever it was brought as. */
  picture: z.string(),
  /** Its middle in the blank's frame, size, and turn about its middle; mm and degrees. */
  x: z.number().min(-1e4).max(1e4),
  y: z.number().min(-1e4).max(1e4),
  width: size,
  height: size,
  turn: z.number().min(-360).max(360),
  /** Whether a typed width or height takes the other one along. */
  linked: z.boolean(),
  /** From black to white, mm. */
  rise: z.number().min(0).max(300),
  invert: z.boolean(),
  /** What each grey is taken for, from left to right. */
  curve: z
    .array(z.tuple([share, share]))
    .min(2)
    .max(16)
    .refine((c) => c.every(([x], k) => k === 0 || x > c[k - 1][0]), 'the points of a curve stand from left to right'),
  /** 1: heights as the greys; above, middle greys come to lie lower; below, higher. */
  gamma: z.number().min(0.1).max(10),
  /** Whether the steps between neighbouring greys are smoothed away. */
  smooth: z.boolean(),
  /** It runs out to nothing over so much of its edge, mm. */
  fade: z.number().min(0).max(500),
  /** What is left out at its sides, per cent of the file. */
  crop: z
    .object({ left: margin, right: margin, top: margin, bottom: margin })
    .refine((c) => c.left + c.right < 100 && c.top + c.bottom < 100, 'nothing is left of the picture'),
  laid: z.enum(Object.keys(layings) as [Laying, ...Laying[]]),
  /** Where it is repeated: whether it runs along picked lines. */
  follows: z.boolean(),
});
type Values = z.infer<typeof schema>;

const follows = (v: Values): boolean => v.laid !== 'once' && v.follows;

/** A picture whose greys are heights: black at the form's base, white highest. What lies beside it is empty. */
export const picture = formKindByRows({
  id: 'picture',
  name: 'Picture',
  summary: 'Heights from the greys of a picture: PNG of 8 or 16 bits, JPEG, WebP or BMP.',
  schema,
  ofFile: 'picture',
  fields: [
    { kind: 'length', key: 'width', label: 'Width (X)' },
    { kind: 'length', key: 'height', label: 'Height (Y)' },
    { kind: 'flag', key: 'linked', label: 'Width and height keep their ratio' },
    { kind: 'length', key: 'rise', label: 'Rise from black to white' },
    { kind: 'number', key: 'gamma', label: 'Gamma' },
    { kind: 'curve', key: 'curve', label: 'Curve of the greys' },
    { kind: 'flag', key: 'invert', label: 'Dark stands high' },
    { kind: 'flag', key: 'smooth', label: 'Smooth the steps of its greys' },
    { kind: 'choice', key: 'laid', label: 'Laid', options: choices(layings) },
    { kind: 'length', key: 'fade', label: 'Fade at its edge', when: (v) => v.laid === 'once' },
    { kind: 'flag', key: 'follows', label: 'Follow picked lines', when: (v) => v.laid !== 'once' },
    { kind: 'number', key: 'turn', label: 'Turned by', unit: '\u00b0' },
    { kind: 'length', key: 'x', label: 'Middle X' },
    { kind: 'length', key: 'y', label: 'Middle Y' },
    { kind: 'number', key: 'crop.left', label: 'Left out on the left', unit: '%' },
    { kind: 'number', key: 'crop.right', label: 'On the right', unit: '%' },
    { kind: 'number', key: 'crop.top', label: 'At the top', unit: '%' },
    { kind: 'number', key: 'crop.bottom', label: 'At the bottom', unit: '%' },
  ],
  defaults: {
    picture: '',
    x: 0,
    y: 0,
    width: 10,
    height: 10,
    turn: 0,
    linked: true,
    rise: 2,
    curve: STRAIGHT.map(([x, y]): [number, number] => [x, y]),
    invert: false,
    gamma: 1,
    smooth: true,
    fade: 0,
    crop: { left: 0, right: 0, top: 0, bottom: 0 },
    laid: 'once',
    follows: false,
  },
  assets: (v) => [v.picture],
  changed: (v, was) => (v.crop === was.crop ? follow(v, was) : recropped(v, was)),
  lines: (v) => (follows(v) ? { words: 'Along', none: 'Pick the lines that it follows' } : null),
  frame: ({ x, y, width, height, turn }) => ({ x, y, width, height, turn }),
  repeats: (v) => v.laid !== 'once',
  pulled: (v, sx, sy) => follow({ ...v, width: within(v.width * sx), height: within(v.height * sy) }, v),
  prepare(v, { grid, picture, lines }) {
    const file = picture(v.picture);
    if (!file) return { data: null, remark: 'Its file is not on this device. Bring the picture again.' };
    if (follows(v) && !lines.length)
      return {
        data: null,
        remark: 'No line is picked for it to follow. Draw one and pick it, or let it run straight.',
      };
    const { p, pixel } = heightsOf(file, v, grid.cell);
    return { data: { v, p, lines }, pixel, remark: '' };
  },
  rows({ v, p, lines }, g) {
    const once = v.laid === 'once';
    const at = v.laid === 'once' ? sampled(p) : tiled(p, v.laid);
    const led = follows(v) ? besideLines(lines, g) : null;
    const out = new Float32Array(g.cols * g.rows).fill(NaN);
    const turn = (-v.turn * Math.PI) / 180;
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    for (let r = 0, i = 0; r < g.rows; r++) {
      stillWanted(g.cols);
      for (let c = 0; c < g.cols; c++, i++) {
        const dx = led ? led.along[i] : g.x0 + c * g.cell - v.x;
        const dy = led ? led.beside[i] : yOf(g, r) - v.y;
        const x = dx * cos - dy * sin;
        const y = dx * sin + dy * cos;
        const edge = once ? Math.min(v.width / 2 - Math.abs(x), v.height / 2 - Math.abs(y)) : Infinity;
        // A node on the very edge belongs to it.
        if (edge < -1e-9) continue;
        const h = at(x / v.width + 0.5, 0.5 - y / v.height);
        out[i] = edge < v.fade ? h * (0.5 - 0.5 * Math.cos((Math.PI * edge) / v.fade)) : h;
      }
    }
    return out;
  },
});

const within = (v: number) => Math.min(5000, Math.max(0.1, v));

/** A width that follows a changed height, or the other way round. */
function follow(v: Values, was: Values): Values {
  if (!v.linked) return v;
  if (v.width !== was.width) return { ...v, height: (was.height * v.width) / was.width };
  return v.height !== was.height ? { ...v, width: (was.width * v.height) / was.height } : v;
}

/** More left out on one side leaves less on the other, and what stays keeps its size. */
function recropped(v: Values, was: Values): Values {
  const crop = { ...v.crop };
  const pairs = [
    ['left', 'right'],
    ['right', 'left'],
    ['top', 'bottom'],
    ['bottom', 'top'],
  ] as const;
  for (const [side, other] of pairs)
    if (crop[side] !== was.crop[side]) crop[other] = Math.min(crop[other], 100 - LEAST_LEFT - crop[side]);
  const stays = (c: Crop) => [100 - c.left - c.right, 100 - c.top - c.bottom];
  const [now, before] = [stays(crop), stays(was.crop)];
  const [across, up] = [v.width / before[0], v.height / before[1]];
  // What stays lies where it lay: its middle moves with the side that was cut.
  const turn = (v.turn * Math.PI) / 180;
  const dx = ((crop.left - was.crop.left - crop.right + was.crop.right) / 2) * across;
  const dy = ((crop.bottom - was.crop.bottom - crop.top + was.crop.top) / 2) * up;
  return {
    ...v,
    crop,
    width: within(now[0] * across),
    height: within(now[1] * up),
    x: v.x + dx * Math.cos(turn) - dy * Math.sin(turn),
    y: v.y + dx * Math.sin(turn) + dy * Math.cos(turn),
  };
}

/** The picture's pixels as heights, mm: no more of them than nodes can show. */
function heightsOf(whole: GreyPicture, v: Values, cell: number): { readonly p: GreyPicture; readonly pixel: number } {
  const file = cropped(whole, v.crop);
  const [wide, high] = [v.width / file.width, v.height / file.height];
  const by = Math.max(1, Math.min(Math.floor(cell / Math.min(wide, high)), file.width, file.height));
  const p = reduced(v.smooth ? withoutSteps(file) : file, by);
  const light = new Float32Array(p.light.length);
  const curve = isStraight(v.curve) ? null : curveThrough(v.curve);
  // Powers of millions of pixels are only worked out where they are asked for.
  for (let i = 0; i < light.length; i++) {
    const l = v.invert ? 1 - p.light[i] : p.light[i];
    const c = curve && l === l ? curve(l) : l;
    light[i] = v.rise * (v.gamma === 1 ? c : c ** v.gamma);
  }
  return { p: { ...p, light }, pixel: Math.max(wide, high) };
}
