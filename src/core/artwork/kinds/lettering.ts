import { z } from 'zod';
import { boundsOfPaths, transformPath } from '../../geometry/path';
import { pathSchema } from '../../geometry/pathSchema';
import type { Along } from '../../lettering/along';
import { carrySpaces, layOut } from '../../lettering/layout';
import { roundBaseline } from '../../lettering/round';
import { choices } from '../../units/fields';
import { itemKind } from '../kind';

const schema = z.object({
  text: z.string().max(5000),
  font: z.string(),
  capHeight: z.number().min(0.1).max(1e4),
  tracking: z.number().min(-500).max(5000),
  kerning: z.boolean(),
  ligatures: z.boolean().optional(),
  leading: z.number().min(0.5).max(10),
  align: z.enum(['left', 'centre', 'right']),
  stretch: z.number().min(10).max(1000),
  baseline: z.enum(['straight', 'outwards', 'inwards', 'curve']),
  radius: z.number().min(0.1).max(1e5),
  at: z.number().min(-720).max(720),
  /** Hand-set spaces after letters, by their place in the text. */
  spaces: z.record(z.string().regex(/^\d+$/), z.number().min(-2000).max(5000)).optional(),
  /** The curve of a baseline that was taken from other artwork, about this item's origin. */
  curve: pathSchema.optional(),
  side: z.enum(['left', 'right']).optional(),
  spacing: z.enum(['natural', 'fitted']).optional(),
  sweep: z.number().min(1).max(360).optional(),
  stand: z.enum(['turned', 'upright', 'bent']).optional(),
  shift: z.number().min(-1e5).max(1e5).optional(),
  off: z.number().min(-1e4).max(1e4).optional(),
  fit: z.enum(['none', 'inside', 'fill']).optional(),
  fitWidth: z.number().min(0.1).max(1e5).optional(),
  fitHeight: z.number().min(0.1).max(1e5).optional(),
  warp: z.enum(['none', 'arch', 'crown']).optional(),
  warpBy: z.number().min(-400).max(400).optional(),
  /** The circle or ellipse that the letters were set round, and where on it. */
  round: z
    .object({
      rx: z.number().positive().max(1e5),
      ry: z.number().positive().max(1e5),
      side: z.enum(['outside', 'inside']),
      at: z.enum(['top', 'bottom']),
    })
    .optional(),
});
type Values = z.infer<typeof schema>;

const alongOf = (v: Values): Along | null => {
  const rest = {
    side: v.side ?? 'left',
    spacing: v.spacing ?? 'natural',
    stand: v.stand ?? 'turned',
    shift: v.shift ?? 0,
    off: v.off ?? 0,
  } as const;
  if (v.baseline === 'straight') return null;
  if (v.baseline === 'curve') return v.curve ? { curve: v.curve, ...rest } : null;
  return { curve: { radius: v.radius, at: v.at, sweep: v.sweep ?? 180, stand: v.baseline }, ...rest };
};

const isRound = (v: Record<string, unknown>) => v.baseline === 'outwards' || v.baseline === 'inwards';
const isBent = (v: Record<string, unknown>) => v.baseline !== 'straight';
const isStraight = (v: Record<string, unknown>) => v.baseline === 'straight';

export const lettering = itemKind({
  id: 'lettering',
  name: 'Lettering',
  schema,
  fields: [
    { kind: 'text', key: 'text', label: 'Text', lines: 2 },
    { kind: 'font', key: 'font', label: 'Font' },
    { kind: 'length', key: 'capHeight', label: 'Cap height' },
    { kind: 'number', key: 'tracking', label: 'Letter spacing', unit: '‰ em' },
    { kind: 'number', key: 'leading', label: 'Line spacing', unit: '× cap' },
    { kind: 'number', key: 'stretch', label: 'Letter width', unit: '%' },
    {
      kind: 'choice',
      key: 'align',
      label: 'Alignment',
      options: choices({ left: 'Left', centre: 'Centre', right: 'Right' }),
    },
    {
      kind: 'choice',
      key: 'baseline',
      label: 'Baseline',
      options: choices({
        straight: 'Straight',
        outwards: 'Round a circle, standing outwards',
        inwards: 'Round a circle, standing inwards',
        curve: 'Along a picked line',
      }),
      hint: 'For a line of your own: pick it together with the lettering, then "Set letters along the line".',
    },
    { kind: 'length', key: 'radius', label: 'Radius of the baseline', when: isRound },
    { kind: 'number', key: 'at', label: 'Middle at', unit: '\u00b0', when: isRound },
    {
      kind: 'choice',
      key: 'stand',
      label: 'Letters',
      missing: 'turned',
      options: choices({ turned: 'Turned', upright: 'Upright', bent: 'Bent' }),
      when: isBent,
    },
    {
      kind: 'choice',
      key: 'spacing',
      label: 'Spaces',
      missing: 'natural',
      options: choices({ natural: 'Natural', fitted: 'Fitted' }),
      when: isBent,
    },
    {
      kind: 'number',
      key: 'sweep',
      label: 'Spread over',
      unit: '\u00b0',
      missing: 180,
      when: (v) => isRound(v) && v.spacing === 'fitted',
    },
    {
      kind: 'choice',
      key: 'side',
      label: 'Side of the line',
      missing: 'left',
      options: choices({ left: 'Left of it', right: 'Right of it' }),
      when: (v) => v.baseline === 'curve',
    },
    { kind: 'length', key: 'shift', label: 'Moved along it', missing: 0, when: isBent },
    { kind: 'length', key: 'off', label: 'Standing off it', missing: 0, when: isBent },
    {
      kind: 'choice',
      key: 'fit',
      label: 'Fit into a box',
      missing: 'none',
      options: choices({ none: 'No', inside: 'Inside it', fill: 'Fill it' }),
      when: isStraight,
    },
    {
      kind: 'choice',
      key: 'warp',
      label: 'Warp',
      missing: 'none',
      options: choices({ none: 'None', arch: 'Arch', crown: 'Crown' }),
      when: isStraight,
    },
    {
      kind: 'length',
      key: 'fitWidth',
      label: 'Box width',
      missing: 100,
      when: (v) => isStraight(v) && !!v.fit && v.fit !== 'none',
    },
    {
      kind: 'length',
      key: 'fitHeight',
      label: 'Box height',
      missing: 30,
      when: (v) => isStraight(v) && !!v.fit && v.fit !== 'none',
    },
    {
      kind: 'number',
      key: 'warpBy',
      label: 'Rise',
      unit: '% of height',
      missing: 50,
      when: (v) => isStraight(v) && !!v.warp && v.warp !== 'none',
    },
    { kind: 'flag', key: 'kerning', label: 'Kerning' },
    { kind: 'flag', key: 'ligatures', label: 'Ligatures and joined forms', missing: true },
  ],
  // A line of a dozen letters finds room on the blank.
  fresh({ width, height }) {
    const cap = Math.min(20, height / 5, width / 12);
    return { capHeight: cap >= 5 ? Math.round(cap) : Math.max(0.5, Math.round(2 * cap) / 2) };
  },
  defaults: {
    text: 'Text',
    font: 'cinzel',
    capHeight: 20,
    tracking: 0,
    kerning: true,
    leading: 1.6,
    align: 'centre' as const,
    stretch: 100,
    baseline: 'straight' as const,
    radius: 50,
    at: 90,
  },
  shape(v, c) {
    const font = c.font(v.font);
    if (!font)
      return {
        paths: [],
        fill: 'nonzero',
        remarks: ['The font of this lettering is not on this device: add its file again, or choose another.'],
        box: { x0: -10, y0: -v.capHeight / 2, x1: 10, y1: v.capHeight / 2 },
        meantWithin: Infinity,
      };
    const along = alongOf(v);
    const fit = v.fit && v.fit !== 'none' ? { how: v.fit, width: v.fitWidth ?? 100, height: v.fitHeight ?? 30 } : null;
    const warp = v.warp && v.warp !== 'none' ? { how: v.warp, by: v.warpBy ?? 50 } : null;
    const l = layOut({ ...v, along, fit, warp }, font);
    const remarks = l.missing.length ? [`The font has no ${l.missing.map((m) => `"${m}"`).join(', ')}.`] : [];
    if (v.baseline === 'curve' && !v.curve)
      remarks.push('There is no line to set the letters along yet: pick one together with this lettering.');
    const w = Math.max(l.width, 1) / 2;
    const box = v.baseline === 'curve' ? boundsOfPaths(l.paths) : null;
    return {
      paths: l.paths,
      fill: 'nonzero',
      remarks,
      box: box ?? { x0: -w, y0: -l.height / 2, x1: w, y1: l.height / 2 },
      // The box of bent lines is mostly empty: round a ring it holds all that lies inside of it.
      meantWithin: along && l.paths.length ? v.capHeight : Infinity,
    };
  },
  // The cap height follows the height; what the width differs by goes into the letters' width. Along a curve and in a
  // box everything grows alike.
  upgrades: {
    2: (values) => ({ baseline: 'straight', radius: 50, at: 90, ...values }),
    // Letters stood each by itself: what was drawn then stays as it was drawn.
    10: (values) => ({ ligatures: false, ...values }),
  },
  scaled(v, sx, sy) {
    const even = Math.sqrt(sx * sy);
    const round = v.round && { ...v.round, rx: v.round.rx * even, ry: v.round.ry * even };
    if (v.baseline === 'curve')
      return {
        ...v,
        round,
        capHeight: v.capHeight * even,
        shift: (v.shift ?? 0) * even,
        off: (v.off ?? 0) * even,
        ...(v.curve ? { curve: transformPath(v.curve, { a: even, b: 0, c: 0, d: even, e: 0, f: 0 }) } : {}),
      };
    if (v.baseline !== 'straight')
      return {
        ...v,
        round,
        capHeight: v.capHeight * even,
        radius: v.radius * even,
        shift: (v.shift ?? 0) * even,
        off: (v.off ?? 0) * even,
      };
    if (v.fit && v.fit !== 'none')
      return { ...v, fitWidth: (v.fitWidth ?? 100) * sx, fitHeight: (v.fitHeight ?? 30) * sy };
    return { ...v, capHeight: v.capHeight * sy, stretch: Math.min(1000, Math.max(10, (v.stretch * sx) / sy)) };
  },
  changed(v, before) {
    const spaced =
      v.spaces && v.text !== before.text ? { ...v, spaces: carrySpaces(v.spaces, before.text, v.text) } : v;
    // Letters that stand on another side of their circle, or grow, keep off its line.
    return v.round && isBent(v) && (v.round !== before.round || v.capHeight !== before.capHeight)
      ? { ...spaced, ...roundBaseline(v.round, v.round, v.capHeight) }
      : spaced;
  },
  assets: (v) => [v.font],
  title: (v) => v.text.split('\n')[0].slice(0, 30) || 'Lettering',
});
