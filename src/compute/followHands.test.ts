import { followAll, type FollowWork } from '@/core/cuts/relief/following';
import { locatorData } from '@/core/cuts/relief/locatorData';
import { rowTracks, spiralTracks } from '@/core/cuts/relief/patterns';
import type { Track } from '@/core/cuts/relief/follow';
import { formOf } from '@/core/cutters/cutter';
import { flatField } from '@/core/relief/field';
import { noise } from '@/core/relief/noise';
import { cutterOf } from '@/core/testing/job';
import { box } from '@/core/testing/shapes';
import { stillWanted, whileWanted } from '@/core/units/stillWanted';
import { lend } from './board';
import { followHands, lendWays, type SharedWays } from './followHands';

const field = flatField(30, 20, 0.1);
for (let i = 0; i < field.z.length; i++)
  field.z[i] = -2 + noise((i % field.cols) / 15, Math.floor(i / field.cols) / 15, 3);
const form = formOf(cutterOf('ball-6'));
const work: FollowWork = {
  locator: locatorData(field, form, 0.001),
  allowance: 0,
  least: -3.2,
  walls: [Float64Array.of(12, 4, 12, 16)],
  form,
  sample: 0.001,
  merge: 0.002,
};
const region = [box(0, 0, 30, 20)];
const curve = spiralTracks(region, 0.35, true, 0.1)[0];
const tracks: Track[] = [
  ...rowTracks(region, 20, 0.35, false),
  { points: box(3, 3, 27, 17), closed: true, straight: true },
  { ...curve, raised: Float64Array.from({ length: curve.points.length / 2 }, (_, i) => 0.1 * Math.sin(i / 40) ** 2) },
];
type Port = { postMessage(s: SharedWays): void };
const by = (ports: readonly Port[], more: { silence?: number; most?: number } = {}) =>
  followAll(tracks, work.locator.step, () => work, { ...quiet, hands: followHands(ports, { worth: 0, ...more }) });
/** Nothing is known from before. */
const ways = { of: () => null, keep: () => {}, done: () => {} };
const quiet = { ways, expect: () => {}, progress: () => {} };
const alone = followAll(tracks, work.locator.step, () => work, quiet);

test('tracks are followed to the last bit the same, whoever does what of them', () => {
  const given: SharedWays[] = [];
  const noted: Port = { postMessage: (s) => void given.push(s) };
  // By nobody else; one who does all of it before whoever asks begins; one who comes when all is done.
  expect(by([])).toEqual(alone);
  let pieces = 0;
  const eager: Port = {
    postMessage(s) {
      lendWays(s);
      pieces = s.where.filter((n, i) => i % 2 && n > 0).length;
    },
  };
  expect(by([eager])).toEqual(alone);
  expect(pieces).toBeGreaterThan(9);
  expect(by([noted])).toEqual(alone);
  lendWays(given[0]);
  // One who finds no room for the first three bands, and leaves: they are done by whoever asks.
  const leaves: Port = {
    postMessage: (s) =>
      lend(s, 3, (k) => {
        for (let p = s.bands[k]; p < s.bands[k + 1]; p++) s.where.set([-1, 0], 2 * p);
      }),
  };
  expect(by([leaves], { silence: 30 })).toEqual(alone);
});

test('one who is never heard of again is not waited for, and what finds no room is done by whoever asks', () => {
  // Takes a band, and is no more.
  const dies: Port = {
    postMessage({ board }) {
      Atomics.add(board, 0, 1);
      Atomics.add(board, 2, 1);
    },
  };
  expect(by([dies], { silence: 30 })).toEqual(alone);
  expect(by([{ postMessage: lendWays }], { most: 500 })).toEqual(alone);
});

test('following is over for all when it is no longer wanted', () => {
  class Enough extends Error {}
  let asked = 0;
  const given: SharedWays[] = [];
  expect(() =>
    whileWanted(
      () => {
        if (++asked > 40) throw new Enough();
      },
      () => by([{ postMessage: (s) => void given.push(s) }]),
    ),
  ).toThrow(Enough);
  const before = given[0].where.slice();
  lendWays(given[0]);
  expect(given[0].where).toEqual(before);
  stillWanted();
});

test('what is followed goes no lower than the surface, its walls and its least let it, all along', () => {
  // Pieces meet: every track goes from its first place to its last, and where it is closed back to the first.
  alone.forEach((way, k) => {
    const { points, closed } = tracks[k];
    const end = closed ? 0 : points.length - 2;
    expect([way[0], way[1]]).toEqual([points[0], points[1]]);
    expect([way[way.length - 3], way[way.length - 2]]).toEqual([points[end], points[end + 1]]);
  });
  const low = Math.min(...alone.flatMap((w) => [...w].filter((_, i) => i % 3 === 2)));
  expect(low).toBeGreaterThanOrEqual(-3.2 - 0.0021);
  for (const w of alone)
    for (let i = 0; i < w.length; i += 3)
      if (Math.abs(w[i] - 12) < 0.3 && w[i + 1] > 5 && w[i + 1] < 15) expect(w[i + 2]).toBeGreaterThan(-0.06);
});
