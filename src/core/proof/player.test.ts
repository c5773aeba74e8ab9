import { datumOf, newOneSetup } from '../job/job';
import { cutterOf } from '../testing/job';
import { flatField } from '../relief/field';
import { seeded } from '../testing/seeded';
import { KeyFrames } from './keyFrames';
import { lineNear, lineOnTable } from './lookup';
import { mends } from './mends';
import { placeProgram } from './placed';
import { createPlayer } from './player';
import { createSimulation } from './simulate';

const job = newOneSetup('Play');
job.blank = { ...job.blank, width: 40, height: 30, thickness: 8 };
job.cuts = ['a', 'b'].map((id) => ({
  id,
  name: id,
  kind: 'area',
  enabled: true,
  items: [],
  values: {},
  overrides: {},
}));
const text = [
  'G17 G90 G94',
  'G21',
  '(Cut 1: a)',
  'T1 M6',
  'S12000 M3',
  'G0 Z10',
  'X5 Y5',
  'Z1',
  'G1 Z-2 F300',
  'X30 F900',
  'G3 X30 Y15 I0 J5',
  'G1 X5',
  'G0 Z10',
  '(Cut 2: b)',
  'X20 Y22',
  'Z1',
  'G1 Z-3 F300',
  'X34 F900',
  'G0 Z10',
  'M5',
  'G0 X0 Y0',
  'M30',
].join('\n');
const placed = [placeProgram('play.nc', text, datumOf(job.blank), ['a', 'b'])];
const tools = new Map([[1, cutterOf('flat-3')]]);
const player = () => createPlayer(job, placed, tools);
const whole = (only: string[] | null = null) => {
  const p = player();
  return p.to(p.moves, 0.25, only, () => {});
};

describe('playing a program', () => {
  it('to its end leaves what the proof leaves', () => {
    const proof = createSimulation().run(job.blank, 0.25, placed, tools).field;
    expect([...whole().field.z]).toEqual([...proof.z]);
  });
  it('leaves the same at a move, whether it came from before or from behind', () => {
    const forwards = player();
    const there = [...forwards.to(9, 0.25, null, () => {}).field.z];
    const backwards = player();
    backwards.to(backwards.moves, 0.25, null, () => {});
    expect([...backwards.to(9, 0.25, null, () => {}).field.z]).toEqual(there);
  });
  it('of one cut alone cuts that one alone', () => {
    const [a, b, both] = [whole(['a']).field.z, whole(['b']).field.z, whole().field.z];
    both.forEach((z, i) => expect(z).toBe(Math.min(a[i], b[i])));
    expect(Math.min(...a)).toBe(-2);
    expect(Math.min(...b)).toBe(-3);
  });
  it('says where the cutter stands, on which line, in which cut, and how long it has run', () => {
    const p = player();
    let last = -1;
    for (let i = 1; i <= p.moves; i++) {
      const s = p.to(i, 0.5, null, () => {});
      expect(s.seconds).toBeGreaterThanOrEqual(last);
      last = s.seconds;
    }
    const end = p.to(p.moves, 0.5, null, () => {});
    expect(end).toMatchObject({ x: 0, y: 0, z: 10, file: 'play.nc' });
    const at = p.to(6, 0.5, null, () => {});
    expect(at.cutId).toBe('a');
    const line = text.split('\n')[at.line - 1];
    expect(line).toMatch(new RegExp(`X${at.x} Y${at.y}`));
  });
});

describe('key frames', () => {
  it('leave what they were, and let every other go when there are too many', () => {
    const field = flatField(20, 13, 0.1);
    const random = seeded(7);
    const was = new Map<number, Float32Array>();
    const frames = new KeyFrames(field, 40 * 64 * 64 * 4);
    let thinned = 0;
    for (let at = 0; at < 60; at++) {
      was.set(at, field.z.slice());
      if (frames.keep(at)) thinned++;
      for (let k = 0; k < 5; k++) field.z[Math.floor(random() * field.z.length)] -= random();
    }
    expect(thinned).toBeGreaterThan(0);
    expect(frames.count).toBeLessThan(40);
    for (const goal of [0, 3, 17, 31, 59, 100]) {
      const at = frames.before(goal);
      expect(at).toBeLessThanOrEqual(goal);
      frames.restore(at);
      expect(field.z.every((v, i) => v === was.get(at)![i])).toBe(true);
    }
    expect(frames.before(-1)).toBe(-1);
    expect(() => frames.restore(1000)).toThrow(RangeError);
  });
  it.each(['flat-3', 'ball-3', 'v-12-60-0'])(
    'any places, in any order, are what playing from the start gives: %s',
    (id) => {
      const random = seeded(3);
      const wander = Array.from(
        { length: 700 },
        () => `X${(40 * random()).toFixed(2)} Y${(30 * random()).toFixed(2)} Z${(-3 * random()).toFixed(2)}`,
      );
      const programs = [
        placeProgram(
          'wander.nc',
          [
            'G17 G90 G94',
            'G21',
            '(Cut 1: a)',
            'T1 M6',
            'S12000 M3',
            'G0 X5 Y5 Z1',
            `G1 F900 ${wander[0]}`,
            ...wander.slice(1),
            'G0 Z10',
            'M30',
          ].join('\n'),
          datumOf(job.blank),
          ['a'],
        ),
      ];
      const cutters = new Map([[1, cutterOf(id)]]);
      const p = createPlayer(job, programs, cutters, () => null, 2e4);
      p.to(p.moves, 0.2, null, () => {});
      for (const goal of [650, 80, 333, 334, 12, 700]) {
        const z = p.to(goal, 0.2, null, () => {}).field.z;
        const anew = createPlayer(job, programs, cutters).to(goal, 0.2, null, () => {}).field.z;
        // A chain that begins at a frame has its joint from the other side: single floats say the same height a little otherwise.
        const off = z.findIndex((v, i) => Math.abs(v - anew[i]) > 2e-5);
        expect([off, z[off], anew[off]]).toEqual([-1, undefined, undefined]);
      }
    },
  );
});

describe('lines and the table', () => {
  it('a line of text is found where its move lies, one that moves nothing at the next move', () => {
    const cut = lineOnTable(placed, 'play.nc', 10)!;
    expect([...cut.points]).toEqual([5, 5, 30, 5]);
    expect(cut).toMatchObject({ rapid: false, cutId: 'a', z: -2 });
    const arc = lineOnTable(placed, 'play.nc', 11)!;
    for (let i = 0; i < arc.points.length; i += 2)
      expect(Math.hypot(arc.points[i] - 30, arc.points[i + 1] - 10)).toBeCloseTo(5, 6);
    expect(lineOnTable(placed, 'play.nc', 5)!.line).toBeGreaterThan(5);
    expect(lineOnTable(placed, 'other.nc', 10)).toBeNull();
    expect(lineOnTable(placed, 'play.nc', 999)).toBeNull();
  });
  it('a place on the table finds the line that cuts there', () => {
    expect(lineNear(placed, 17, 5.2, 1)!.line).toBe(10);
    expect(lineNear(placed, 34.9, 10, 1)!.line).toBe(11);
    expect(lineNear(placed, 28, 22.1, 1)).toMatchObject({ line: 18, cutId: 'b' });
    expect(lineNear(placed, 17, 10, 1)).toBeNull();
  });
});

const nowhere = { x: null, y: null };

test('a mend moves the cut that parts the piece to the end, and nothing else', () => {
  const j = { ...job, cuts: [...job.cuts, { ...job.cuts[0], id: 'c' }] };
  mends.last.apply(j, 'a', nowhere, [], () => 'new');
  expect(j.cuts.map((c) => c.id)).toEqual(['b', 'c', 'a']);
  mends.last.apply(j, 'nobody', nowhere, [], () => 'new');
  expect(j.cuts.map((c) => c.id)).toEqual(['b', 'c', 'a']);
});
