import { z } from 'zod';
import { choices } from '../../units/fields';
import { formKindByRows } from '../form';
import { placed, stood, upSides, type UpSide } from '../mesh';
import { meshFacts, type MeshFacts } from '../meshFacts';
import { meshHeights } from '../raster';

const size = z.number().min(0.01).max(5000);
const schema = z.object({
  /** Id of its file among the job's assets. */
  mesh: z.string(),
  up: z.enum(upSides),
  tipX: z.number().min(-360).max(360),
  tipY: z.number().min(-360).max(360),
  turn: z.number().min(-360).max(360),
  /** Its middle, in the blank's frame, mm. */
  x: z.number().min(-1e4).max(1e4),
  y: z.number().min(-1e4).max(1e4),
  width: size,
  height: size,
  rise: size,
  /** Whether a typed width or height takes the other sizes along. */
  linked: z.boolean(),
});

const UP: Readonly<Record<UpSide, string>> = {
  'z+': 'Its Z',
  'z-': 'Its Z, turned over',
  'y+': 'Its Y',
  'y-': 'Its Y, turned over',
  'x+': 'Its X',
  'x-': 'Its X, turned over',
};

/** A mesh from a file, stood up, sized and placed. What lies beside it is empty. */
export const mesh = formKindByRows({
  id: 'mesh',
  name: 'Mesh',
  summary: 'A modelled shape from an STL, OBJ, 3MF or glTF file.',
  schema,
  ofFile: 'mesh',
  fields: [
    { kind: 'choice', key: 'up', label: 'What looks up', options: choices(UP) },
    { kind: 'number', key: 'tipX', label: 'Tipped about X', unit: '\u00b0' },
    { kind: 'number', key: 'tipY', label: 'Tipped about Y', unit: '\u00b0' },
    { kind: 'number', key: 'turn', label: 'Turned about Z', unit: '\u00b0' },
    { kind: 'length', key: 'width', label: 'Width (X)' },
    { kind: 'length', key: 'height', label: 'Height (Y)' },
    { kind: 'length', key: 'rise', label: 'Rise (Z)' },
    { kind: 'flag', key: 'linked', label: 'Width and height take the other sizes along' },
    { kind: 'length', key: 'x', label: 'Middle X' },
    { kind: 'length', key: 'y', label: 'Middle Y' },
  ],
  defaults: { mesh: '', up: 'z+', tipX: 0, tipY: 0, turn: 0, x: 0, y: 0, width: 10, height: 10, rise: 1, linked: true },
  assets: (v) => [v.mesh],
  changed: follow,
  // It is sized as it lies turned: its frame stays upright.
  frame: ({ x, y, width, height }) => ({ x, y, width, height, turn: null }),
  pulled: (v, sx, sy) => follow({ ...v, width: within(v.width * sx), height: within(v.height * sy) }, v),
  prepare(v, c) {
    const m = c.mesh(v.mesh);
    if (!m) return { data: null, remark: 'Its file is not on this device. Bring the mesh again.' };
    return { data: placed(stood(m, v), v), remark: '', note: noteOf(meshFacts(m, v)) };
  },
  rows: meshHeights,
});

function noteOf({ undercut, holes }: MeshFacts): string {
  const percent = 100 * undercut;
  return [
    ...(undercut
      ? [
          `${percent < 1 ? 'Less than 1' : percent.toFixed(0)} % of it hangs over something: a relief has the upper surface alone, and goes straight down from its rim.`,
        ]
      : []),
    ...(holes === null ? ['It has too many triangles to be looked through for holes.'] : []),
    ...(holes
      ? [
          `Its surface has ${holes === 1 ? 'a hole' : `${holes} holes`}: there the relief has what lies further down, or nothing.`,
        ]
      : []),
  ].join(' ');
}

type Values = z.infer<typeof schema>;
const within = (v: number) => Math.min(5000, Math.max(0.01, v));

/** Sizes that follow one that was changed. */
function follow(v: Values, was: Values): Values {
  if (!v.linked) return v;
  const by = v.width !== was.width ? v.width / was.width : v.height !== was.height ? v.height / was.height : 1;
  // The rise alone is changed alone: reliefs are made shallow.
  return by === 1 ? v : { ...v, width: was.width * by, height: was.height * by, rise: was.rise * by };
}
