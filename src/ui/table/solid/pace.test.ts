import fc from 'fast-check';
import { Pace, REST, REST_BESIDE_WORK } from './pace';

/** A stage whose frames come when they are called for, and what it did: d a draft, F in full, c that it told of a draft. */
function stage(slow: boolean) {
  let said = '';
  const frames: (() => void)[] = [];
  const pace: Pace = new Pace(
    (draft) => {
      said += draft ? 'd' : 'F';
      if (!draft && pace.awaited) pace.seen();
    },
    () => void (said += 'c'),
    (next) => void frames.push(next),
  );
  pace.slow = slow;
  const frame = () => frames.splice(0).forEach((f) => f());
  return { pace, frame, said: () => said };
}

beforeEach(() => void jest.useFakeTimers());
afterEach(() => void jest.useRealTimers());

test('a quick driver draws in full at the next frame, once however often it is asked', () => {
  const { pace, frame, said } = stage(false);
  pace.draw();
  pace.draw();
  frame();
  jest.advanceTimersByTime(2 * REST_BESIDE_WORK);
  expect(said()).toBe('F');
});

test('a slow one draws drafts, says so once, and makes them good at rest, later beside work', () => {
  const { pace, frame, said } = stage(true);
  pace.draw();
  frame();
  jest.advanceTimersByTime(REST - 1);
  pace.draw();
  frame();
  expect(said()).toBe('cdd');
  jest.advanceTimersByTime(REST);
  expect(said()).toBe('cddF');
  pace.setBusy(true);
  pace.draw();
  frame();
  jest.advanceTimersByTime(REST_BESIDE_WORK - 1);
  expect(said()).toBe('cddFcd');
  // The work ends: it need not rest so long any more.
  pace.setBusy(false);
  jest.advanceTimersByTime(REST);
  expect(said()).toBe('cddFcdF');
  pace.better();
  frame();
  jest.advanceTimersByTime(REST);
  expect(said()).toBe('cddFcdFF');
});

test('a frame that comes after the rest, or after a picture was taken, leaves no draft behind', () => {
  const late = stage(true);
  late.pace.draw();
  jest.advanceTimersByTime(REST);
  late.frame();
  expect(late.said()).toBe('cFF');
  const pictured = stage(true);
  pictured.pace.draw();
  pictured.pace.full();
  pictured.frame();
  jest.advanceTimersByTime(2 * REST);
  expect(pictured.said()).toBe('cFF');
});

test('whatever is asked in whatever order, the last picture is full, and nobody waits for ever', async () => {
  const step = fc.constantFrom(
    'draw',
    'frame',
    'better',
    'full',
    'busy',
    'idle',
    'drawn',
    'moment',
    'rest',
    'slow',
    'quick',
  );
  await fc.assert(
    fc.asyncProperty(fc.array(step, { maxLength: 40 }), async (steps) => {
      const { pace, frame, said } = stage(true);
      const drawn: Promise<void>[] = [];
      for (const s of steps) {
        if (s === 'draw' || s === 'better' || s === 'full') pace[s]();
        else if (s === 'frame') frame();
        else if (s === 'busy' || s === 'idle') pace.setBusy(s === 'busy');
        else if (s === 'slow' || s === 'quick') pace.slow = s === 'slow';
        else if (s === 'drawn') drawn.push(pace.drawn());
        else jest.advanceTimersByTime(s === 'rest' ? REST_BESIDE_WORK : 100);
      }
      frame();
      jest.advanceTimersByTime(REST_BESIDE_WORK);
      await Promise.all(drawn);
      expect(said()).toMatch(/^$|F$/);
      expect(pace.awaited).toBe(false);
    }),
  );
});
