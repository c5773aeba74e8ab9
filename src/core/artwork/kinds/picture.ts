import { z } from 'zod';
import { itemKind } from '../kind';
import { traceDefaults, traceOptionsSchema } from '../trace/options';

/** A picture that artwork was traced from: it lies under the artwork, cuts nothing, and can be traced again. */
export const picture = itemKind({
  id: 'picture',
  name: 'Picture',
  offered: false,
  schema: z.object({
    /** Id of its file among the job's pictures. */
    picture: z.string(),
    /** Its size when it is traced: large ones are made smaller first. */
    pixels: z.object({ width: z.number().int().positive(), height: z.number().int().positive() }),
    width: z.number().min(0.01).max(1e5),
    height: z.number().min(0.01).max(1e5),
    /** How strongly it is shown, per cent. */
    shade: z.number().min(0).max(100),
    /** With what it was traced last. */
    trace: traceOptionsSchema,
  }),
  fields: [
    { kind: 'length', key: 'width', label: 'Width' },
    { kind: 'length', key: 'height', label: 'Height' },
    { kind: 'number', key: 'shade', label: 'Shown by', unit: '%' },
  ],
  defaults: { picture: '', pixels: { width: 1, height: 1 }, width: 1, height: 1, shade: 35, trace: traceDefaults },
  shape: (v) => ({
    paths: [],
    fill: 'nonzero',
    remarks: [],
    box: { x0: -v.width / 2, y0: -v.height / 2, x1: v.width / 2, y1: v.height / 2 },
    meantWithin: Infinity,
  }),
  scaled: (v, sx, sy) => ({ ...v, width: v.width * sx, height: v.height * sy }),
  /** A picture keeps its proportions where a side is typed. */
  changed: (v, was) =>
    v.width !== was.width
      ? { ...v, height: (v.width * was.height) / was.width }
      : v.height !== was.height
        ? { ...v, width: (v.height * was.width) / was.height }
        : v,
  assets: (v) => [v.picture],
  title: () => 'Picture',
});
