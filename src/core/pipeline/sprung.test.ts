import { textOf } from '../program/text';
import { newItem } from '../artwork/item';
import { kindOf } from '../cuts/registry';
import { newOneSetup } from '../job/job';
import { testArt } from '../testing/fonts';
import { readMoves } from '../testing/independent';
import { cutterOf } from '../testing/job';
import { runJob } from './run';

describe('a diamond in a sprung holder', () => {
  const held = (rate: number, values: object) => {
    const job = newOneSetup('sprung');
    job.blank = { ...job.blank, width: 60, height: 20, thickness: 3, material: 'brass' };
    const base = cutterOf('drag-3-120-0.02');
    job.cutters = [{ ...base, id: 'sprung', values: { ...base.values, springRate: rate } }];
    job.items = [
      newItem({
        id: 'l',
        name: 'Line',
        kind: 'drawing',
        x: 0,
        y: 0,
        values: { fill: 'nonzero', paths: [{ x: 5, y: 5, closed: false, segments: [{ k: 'line', x: 45, y: 5 }] }] },
      }),
    ];
    job.cuts = [
      {
        id: 'c',
        name: 'Line',
        kind: 'drag',
        enabled: true,
        items: ['l'],
        values: { ...(kindOf('drag').defaults(job.blank, job.cutters) as object), cutter: 'sprung', ...values },
        overrides: {},
      },
    ];
    return { job, ...runJob(job, testArt, 0.02) };
  };
  it('is programmed deeper than its groove by what the spring gives, and the proof shows the groove', () => {
    const { proof, programs } = held(10, { press: 'load', load: 6 });
    expect(proof.findings).toEqual([]);
    // ASTM G171, from scratch: width from load and hardness, depth from width and the angle of the point.
    const width = Math.sqrt((8 * 6) / (Math.PI * 1200));
    // The point's round (0.02 mm) ends where it leans by 60 degrees; beyond it the sides meet 0.02 / sin 60 - 0.02 below the tip.
    const depth = width / 2 / Math.tan((60 * Math.PI) / 180) - (0.02 / Math.sin((60 * Math.PI) / 180) - 0.02);
    const low = Math.min(...readMoves(textOf(programs.files[0].chunks)).map((m) => m.b[2]));
    expect(low).toBeCloseTo(-(depth + 0.6), 3);
    expect(proof.field.z.reduce((a, b) => Math.min(a, b), 0)).toBeCloseTo(-depth, 3);
  });
  it('makes the wanted depth where the depth is given', () => {
    const { proof, programs } = held(4, { press: 'depth', depth: 0.05 });
    expect(proof.field.z.reduce((a, b) => Math.min(a, b), 0)).toBeCloseTo(-0.05, 3);
    expect(Math.min(...readMoves(textOf(programs.files[0].chunks)).map((m) => m.b[2]))).toBeLessThan(-0.1);
  });
  it('cannot be pressed by a load when it is held firmly, and says so', () => {
    const { plans } = held(0, { press: 'load', load: 6 });
    expect(plans.get('c')!.remarks[0]).toMatchObject({ level: 'problem', text: expect.stringMatching(/held firmly/) });
  });
});
