import { z } from 'zod';
import { stillWanted } from '../../units/stillWanted';
import { formKind, nowhere } from '../form';
import { reduced, withoutSteps, type GreyPicture } from '../picture';

const size = z.number().min(0.1).max(5000);
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
  /** 1: heights as the greys; above, middle greys come to lie lower; below, higher. */
  gamma: z.number().min(0.1).max(10),
  /** Whether the steps between neighbouring greys are smoothed away. */
  smooth: z.boolean(),
  /** It runs out to nothing over so much of its edge, mm. */
  fade: z.number().min(0).max(500),
});
type Values = z.infer<typeof schema>;

/** A picture whose greys are heights: black at the form's base, white highest. What lies beside it is empty. */
export const picture = formKind({
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
    { kind: 'flag', key: 'invert', label: 'Dark stands high' },
    { kind: 'flag', key: 'smooth', label: 'Smooth the steps of its greys' },
    { kind: 'length', key: 'fade', label: 'Fade at its edge' },
    { kind: 'number', key: 'turn', label: 'Turned by', unit: '\u00b0' },
    { kind: 'length', key: 'x', label: 'Middle X' },
    { kind: 'length', key: 'y', label: 'Middle Y' },
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
    invert: false,
    gamma: 1,
    smooth: true,
    fade: 0,
  },
  assets: (v) => [v.picture],
  changed: follow,
  frame: ({ x, y, width, height, turn }) => ({ x, y, width, height, turn }),
  pulled: (v, sx, sy) => follow({ ...v, width: within(v.width * sx), height: within(v.height * sy) }, v),
  evaluate(v, { grid: g, picture }) {
    const file = picture(v.picture);
    if (!file) return nowhere(g, 'Its file is not on this device. Bring the picture again.');
    const { p, by } = heightsOf(file, v, g.cell);
    const [across, down] = [file.width / by, file.height / by];
    const out = new Float32Array(g.cols * g.rows).fill(NaN);
    const turn = (-v.turn * Math.PI) / 180;
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    for (let r = 0; r < g.rows; r++) {
      stillWanted(g.cols);
      const dy = g.y0 + r * g.cell - v.y;
      for (let c = 0; c < g.cols; c++) {
        const dx = g.x0 + c * g.cell - v.x;
        const x = dx * cos - dy * sin;
        const y = dx * sin + dy * cos;
        const edge = Math.min(v.width / 2 - Math.abs(x), v.height / 2 - Math.abs(y));
        // A node on the very edge belongs to it.
        if (edge < -1e-9) continue;
        const h = between(p, (x / v.width + 0.5) * across - 0.5, (0.5 - y / v.height) * down - 0.5);
        out[r * g.cols + c] = edge < v.fade ? h * (0.5 - 0.5 * Math.cos((Math.PI * edge) / v.fade)) : h;
      }
    }
    const pixel = Math.max(v.width / file.width, v.height / file.height);
    return {
      z: out,
      pixel,
      remark: '',
    };
  },
});

const within = (v: number) => Math.min(5000, Math.max(0.1, v));

/** A width that follows a changed height, or the other way round. */
function follow(v: Values, was: Values): Values {
  if (!v.linked) return v;
  if (v.width !== was.width) return { ...v, height: (was.height * v.width) / was.width };
  return v.height !== was.height ? { ...v, width: (was.width * v.height) / was.height } : v;
}

/** The picture's pixels as heights, mm: no more of them than nodes can show. */
function heightsOf(file: GreyPicture, v: Values, cell: number): { readonly p: GreyPicture; readonly by: number } {
  const pixel = Math.min(v.width / file.width, v.height / file.height);
  const by = Math.max(1, Math.min(Math.floor(cell / pixel), file.width, file.height));
  const p = reduced(v.smooth ? withoutSteps(file) : file, by);
  const light = new Float32Array(p.light.length);
  // Powers of millions of pixels are only worked out where they are asked for.
  for (let i = 0; i < light.length; i++) {
    const l = v.invert ? 1 - p.light[i] : p.light[i];
    light[i] = v.rise * (v.gamma === 1 ? l : l ** v.gamma);
  }
  return { p: { ...p, light }, by };
}

/** Height between the middles of four pixels; as the nearest beyond the outermost. NaN where the nearest is empty. */
function between({ width, height, light }: GreyPicture, u: number, v: number): number {
  const x = Math.min(width - 1, Math.max(0, u));
  const y = Math.min(height - 1, Math.max(0, v));
  const near = light[Math.round(y) * width + Math.round(x)];
  if (near !== near) return NaN;
  const c = Math.min(Math.max(0, width - 2), Math.floor(x));
  const r = Math.min(Math.max(0, height - 2), Math.floor(y));
  const s = x - c;
  const t = y - r;
  const i = r * width + c;
  const right = width > 1 ? 1 : 0;
  const down = height > 1 ? width : 0;
  const a = light[i];
  const b = light[i + right];
  const d = light[i + down];
  const e = light[i + down + right];
  // An empty neighbour is as the nearest: it draws nothing down.
  return (
    ((a === a ? a : near) * (1 - s) + (b === b ? b : near) * s) * (1 - t) +
    ((d === d ? d : near) * (1 - s) + (e === e ? e : near) * s) * t
  );
}
