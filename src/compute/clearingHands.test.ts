import { clearAll } from '@/core/cuts/clearing/meanwhile';
import { lockCottage } from '@/core/job/demo/lockCottage';
import { planCut } from '@/core/pipeline/planning';
import { testArt } from '@/core/testing/fonts';
import { whileWanted } from '@/core/units/stillWanted';
import { giveUp, lend } from './board';
import { clearingHands, lendClearing, type SharedClearing } from './clearingHands';
import { readRoom } from './room';

type Port = { postMessage(s: SharedClearing): void };

/** Few letters are as good as all. */
const job = lockCottage();
for (const item of job.items) if (item.kind === 'lettering') item.values = { ...item.values, text: 'L7' };
const [lettering] = job.cuts;

/** The lettering's plan where these may help with its floor. */
function by(ports: readonly Port[], more: { silence?: number; most?: number } = {}) {
  const hands = clearingHands(ports, more);
  try {
    return planCut(job, lettering, testArt, undefined, undefined, { meanwhile: hands.begin });
  } finally {
    hands.end();
  }
}
const alone = planCut(job, lettering, testArt);

test('a floor that somebody else clears is cleared as by one alone, whoever does it', () => {
  // Two end mills, and the V-bit after them.
  expect(alone.toolpaths.map((t) => t.cutterId)).toEqual(['flat-3', 'flat-1.5', 'v-12-60-0']);
  const given: SharedClearing[] = [];
  expect(by([])).toEqual(alone);
  // One who does all of it before it is asked for.
  const eager: Port = { postMessage: (s) => (given.push(s), lendClearing(s)) };
  expect(by([eager])).toEqual(alone);
  const { clearing, room } = given[0];
  expect(readRoom(room)).toEqual(clearAll(clearing, () => {}));
  // One who comes when it is done: there is nothing left to do.
  const late: SharedClearing[] = [];
  expect(by([{ postMessage: (s) => void late.push(s) }])).toEqual(alone);
  lendClearing(late[0]);
  expect(readRoom(late[0].room)).toBeNull();
});

test('whoever plans does it where the other has no room, fails, or is never heard of again', () => {
  expect(by([{ postMessage: lendClearing }], { most: 2000 })).toEqual(alone);
  const fails: Port = {
    postMessage: (s) => lendClearing({ ...s, clearing: { ...s.clearing, tools: [null as never] } }),
  };
  expect(by([fails])).toEqual(alone);
  const dies: Port = {
    postMessage({ board }) {
      Atomics.add(board, 0, 1);
      Atomics.add(board, 2, 1);
    },
  };
  expect(by([dies], { silence: 30 })).toEqual(alone);
  // One who takes it, and has nothing to show.
  expect(by([{ postMessage: (s) => lend(s, 1, () => {}) }])).toEqual(alone);
});

test('what is no longer wanted, or was not asked for, is given up', () => {
  class Enough extends Error {}
  const given: SharedClearing[] = [];
  const noted: Port = { postMessage: (s) => void given.push(s) };
  let asked = 0;
  const still = () => {
    if (++asked > 20) throw new Enough();
  };
  expect(() => whileWanted(still, () => by([noted]))).toThrow(Enough);
  lendClearing(given[0]);
  expect(readRoom(given[0].room)).toBeNull();
  // In the middle of it, too: it is given up at its first question.
  let begun = 0;
  const stopped = { ...given[0], board: new Int32Array(new SharedArrayBuffer(16)), state: given[0].state };
  const clearing = Object.defineProperty({ ...stopped.clearing }, 'tools', {
    get: () => (begun++, giveUp(stopped), given[0].clearing.tools),
  });
  lendClearing({ ...stopped, clearing });
  expect([begun > 0, readRoom(given[0].room)]).toEqual([true, null]);
});
