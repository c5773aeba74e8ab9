import { wanderDefaults } from '../../cuts/texture/wander';
import type { Cut } from '../job';

type Overrides = Cut['overrides'];
const over = { where: 'relief', margin: 0, rim: 'middle' };

/** All of a relief roughed with a list of cutters, widest first. */
export const roughing = (cutters: readonly string[], allowance: number, overrides: Overrides = {}): Cut => ({
  id: 'c-rough',
  name: 'Roughing',
  kind: 'reliefRough',
  enabled: true,
  items: [],
  values: {
    ...over,
    cutters,
    pattern: 'contours',
    angle: 0,
    startDepth: 0,
    allowance,
    floors: true,
    slopes: false,
    entry: 'helix',
    ramp: 3,
    direction: 'climb',
    ease: 'gentle',
  },
  overrides,
});

/** All of it finished with one cutter, its rows so far apart. */
export const finishing = (cutter: string, pattern: string, angle: number, stepOver: number): Cut => ({
  id: 'c-finish',
  name: 'Finishing',
  kind: 'reliefFinish',
  enabled: true,
  items: [],
  values: {
    ...over,
    cutters: [cutter],
    pattern,
    angle,
    turn: 90,
    direction: 'both',
    from: 'middle',
    startDepth: 0,
    allowance: 0,
    layers: false,
    rest: 0.05,
    steep: 45,
    lead: 1,
    ease: 'gentle',
    wander: false,
    ...wanderDefaults,
  },
  overrides: { [cutter]: { stepOver } },
});
