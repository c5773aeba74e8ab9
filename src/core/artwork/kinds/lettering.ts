import { z } from 'zod';
import { fontCatalogue } from '../../lettering/catalogue';
import { layOut } from '../../lettering/layout';
import { itemKind } from '../kind';

export const lettering = itemKind({
  id: 'lettering',
  name: 'Lettering',
  schema: z.object({
    text: z.string().max(5000),
    font: z.string(),
    capHeight: z.number().positive().max(1e4),
    tracking: z.number().min(-500).max(5000),
    kerning: z.boolean(),
    leading: z.number().min(0.5).max(10),
    align: z.enum(['left', 'centre', 'right']),
    stretch: z.number().min(10).max(1000),
    baseline: z.enum(['straight', 'outwards', 'inwards']),
    radius: z.number().positive().max(1e5),
    at: z.number().min(-720).max(720),
  }),
  fields: [
    { kind: 'text', key: 'text', label: 'Text', lines: 2 },
    { kind: 'choice', key: 'font', label: 'Font', options: fontCatalogue.map((f) => ({ value: f.id, label: f.name })) },
    { kind: 'length', key: 'capHeight', label: 'Cap height', min: 0.1, max: 1e4 },
    { kind: 'number', key: 'tracking', label: 'Tracking', unit: '‰ em', min: -500, max: 5000 },
    { kind: 'number', key: 'leading', label: 'Leading', unit: '× cap', min: 0.5, max: 10 },
    { kind: 'number', key: 'stretch', label: 'Letter width', unit: '%', min: 10, max: 1000 },
    {
      kind: 'choice',
      key: 'align',
      label: 'Alignment',
      options: [
        { value: 'left', label: 'Left' },
        { value: 'centre', label: 'Centre' },
        { value: 'right', label: 'Right' },
      ],
    },
    {
      kind: 'choice',
      key: 'baseline',
      label: 'Baseline',
      options: [
        { value: 'straight', label: 'Straight' },
        { value: 'outwards', label: 'Round a circle, standing outwards' },
        { value: 'inwards', label: 'Round a circle, standing inwards' },
      ],
    },
    { kind: 'length', key: 'radius', label: 'Radius of the baseline', min: 0.1, max: 1e5, when: (v) => v.baseline !== 'straight' },
    { kind: 'number', key: 'at', label: 'Middle at', unit: '\u00b0', min: -720, max: 720, when: (v) => v.baseline !== 'straight' },
    { kind: 'flag', key: 'kerning', label: 'Kerning' },
  ],
  defaults: { text: 'Text', font: 'cinzel', capHeight: 20, tracking: 0, kerning: true, leading: 1.6, align: 'centre' as const, stretch: 100, baseline: 'straight' as const, radius: 50, at: 90 },
  shape(v, c) {
    const font = c.font(v.font);
    if (!font) return { paths: [], fill: 'nonzero', remarks: [`The font "${v.font}" is not here; choose another for this lettering.`], box: { x0: -10, y0: -v.capHeight / 2, x1: 10, y1: v.capHeight / 2 } };
    const l = layOut({ ...v, bend: v.baseline === 'straight' ? null : { radius: v.radius, side: v.baseline, at: v.at } }, font);
    const w = Math.max(l.width, 1) / 2;
    return {
      paths: l.paths,
      fill: 'nonzero',
      remarks: l.missing.length ? [`The font has no ${l.missing.map((m) => `"${m}"`).join(', ')}.`] : [],
      box: { x0: -w, y0: -l.height / 2, x1: w, y1: l.height / 2 },
    };
  },
  // The cap height follows the height; what the width differs by goes into the letters' width.
  // Round a circle everything grows alike.
  scaled: (v, sx, sy) =>
    v.baseline !== 'straight' ? { ...v, capHeight: v.capHeight * Math.sqrt(sx * sy), radius: v.radius * Math.sqrt(sx * sy) } : { ...v, capHeight: v.capHeight * sy, stretch: Math.min(1000, Math.max(10, (v.stretch * sx) / sy)) },
  title: (v) => v.text.split('\n')[0].slice(0, 30) || 'Lettering',
});
