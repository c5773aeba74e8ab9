import { z } from 'zod';
import { choices } from '../../units/fields';
import { formKindByRows, type Line, type Prepared } from '../form';
import { drawnProfile, profiles, type DrawnProfile, type ProfileId } from '../profiles';
import { sweptAbout, sweptAlong, sweptBetween, sweptStraight, type Across } from '../sweeps';

const ids = Object.keys(profiles) as [ProfileId, ...ProfileId[]];
const size = z.number().min(0.01).max(5000);
const schema = z.object({
  /** Along a straight line, along a picked line, from one picked line to another, or turned about an axis. */
  way: z.enum(['straight', 'rail', 'between', 'turned']),
  profile: z.enum([...ids, 'drawn']),
  /** In the middle of the profile, mm; of a drawn one and its width: null as it is drawn. */
  height: z.number().min(0).max(300),
  drawnHeight: z.number().min(0.001).max(300).nullable(),
  width: size,
  /** Of one along a straight line or about an axis: how long, where its middle lies, and how it is turned. */
  length: size,
  x: z.number().min(-1e4).max(1e4),
  y: z.number().min(-1e4).max(1e4),
  angle: z.number().min(-360).max(360),
  /** It runs out over so much at its ends, mm; 0: its ends are open. */
  taper: z.number().min(0).max(5000),
  /** Between two lines: whether it stands higher where they lie further apart. */
  swells: z.boolean(),
});
type Values = z.infer<typeof schema>;

/** A profile along a line: barrels and banners, mouldings that follow a curve, strips between two curves, turned work. */
export const swept = formKindByRows({
  id: 'swept',
  name: 'Swept',
  summary: 'Leads a profile along a line or a curve, between two of them, or about an axis.',
  schema,
  fields: [
    {
      kind: 'choice',
      key: 'way',
      label: 'Led',
      options: choices({
        straight: 'Straight',
        rail: 'Along a line',
        between: 'Between two lines',
        turned: 'About an axis',
      }),
    },
    {
      kind: 'choice',
      key: 'profile',
      label: 'Profile',
      options: choices({ ...Object.fromEntries(ids.map((id) => [id, profiles[id].name])), drawn: 'A drawn line' }),
    },
    { kind: 'length', key: 'height', label: 'Height', when: (v) => v.profile !== 'drawn' && v.way !== 'turned' },
    { kind: 'length', key: 'drawnHeight', label: 'Height', optional: 'as drawn', when: (v) => v.profile === 'drawn' },
    {
      kind: 'length',
      key: 'width',
      label: 'Width',
      when: (v) => v.way !== 'between' && !(v.way === 'turned' && v.profile === 'drawn'),
    },
    { kind: 'length', key: 'length', label: 'Length', when: (v) => v.way === 'straight' || v.way === 'turned' },
    {
      kind: 'number',
      key: 'angle',
      label: 'Angle',
      unit: '\u00b0',
      when: (v) => v.way === 'straight' || v.way === 'turned',
    },
    { kind: 'length', key: 'taper', label: 'Ends run out over', when: (v) => v.way === 'straight' || v.way === 'rail' },
    { kind: 'flag', key: 'swells', label: 'Higher where it is wider', when: (v) => v.way === 'between' },
    { kind: 'length', key: 'x', label: 'Middle X', when: (v) => v.way === 'straight' || v.way === 'turned' },
    { kind: 'length', key: 'y', label: 'Middle Y', when: (v) => v.way === 'straight' || v.way === 'turned' },
  ],
  defaults: {
    way: 'straight',
    profile: 'bow',
    height: 3,
    drawnHeight: null,
    width: 40,
    length: 100,
    x: 0,
    y: 0,
    angle: 0,
    taper: 0,
    swells: false,
  },
  fresh: (v, { width, height, thickness }) => ({
    ...v,
    x: width / 2,
    y: height / 2,
    length: Math.round(0.8 * width),
    width: Math.round(0.5 * height),
    height: Math.min(v.height, thickness / 3),
  }),
  alongLines: true,
  lines: (v) =>
    v.way === 'rail'
      ? { words: 'Along', none: 'Pick the line that it runs along' }
      : v.way === 'between'
        ? { words: 'Between', none: 'Pick the two lines between which it runs' }
        : null,
  drawn: (v) => v.profile === 'drawn',
  prepare(v, { lines, profile }): Prepared<Swept> {
    const none = (remark: string) => ({ data: null, remark });
    if (v.profile === 'drawn' && !drawnProfile(profile))
      return none('No line is picked for its profile. Draw one from left to right and pick it.');
    const two = lines.length === 2 && lines[0].closed === lines[1].closed;
    if (v.way === 'rail' && !lines.length)
      return none('No line is picked for it. Draw the line that it is to run along, and pick it.');
    if (v.way === 'between' && !two) {
      const picked =
        lines.length === 2
          ? 'of these one is open and one closed'
          : `${lines.length || 'none'} ${lines.length === 1 ? 'is' : 'are'} picked`;
      return none(`It runs between two lines, both open or both closed; ${picked}.`);
    }
    // Where it swells, its widest place says how high all of it is.
    return { data: { v, lines, profile }, whole: v.way === 'between' && v.swells, remark: '' };
  },
  rows({ v, lines, profile }, grid) {
    const drawn = v.profile === 'drawn' ? drawnProfile(profile) : null;
    const across = acrossOf(v, drawn);
    if (v.way === 'straight') return sweptStraight(v, grid, across);
    if (v.way === 'turned') return sweptAbout(v, grid, radiusOf(v, drawn));
    if (v.way === 'rail') return sweptAlong(lines, grid, v.width, v.taper, across);
    return sweptBetween(lines[0], lines[1], grid, across, v.swells);
  },
});

interface Swept {
  readonly v: Values;
  readonly lines: readonly Line[];
  readonly profile: readonly Line[];
}

/** A drawn profile is made so many times as high. */
const drawnBy = (v: Values, drawn: DrawnProfile): number =>
  v.drawnHeight !== null && drawn.height > 0 ? v.drawnHeight / drawn.height : 1;

/** The profile over the whole width. A drawn one is as high as it was drawn, or made to stand as high as is wanted. */
function acrossOf(v: Values, drawn: DrawnProfile | null): Across {
  if (v.profile !== 'drawn') {
    const { at } = profiles[v.profile];
    return (u, half) => at(u, half, v.height);
  }
  const by = drawnBy(v, drawn!);
  return (u) => drawn!.at(((u + 1) / 2) * drawn!.width) * by;
}

/** How thick it is along its axis, from -1 to 1: a drawn profile is the radius, others swell to half the width. */
function radiusOf(v: Values, drawn: DrawnProfile | null): (u: number) => number {
  if (v.profile !== 'drawn') {
    const { at } = profiles[v.profile];
    return (u) => at(u, v.length / 2, v.width / 2);
  }
  const by = drawnBy(v, drawn!);
  return (u) => drawn!.at(((u + 1) / 2) * drawn!.width) * by;
}
