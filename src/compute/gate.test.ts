import { Gate } from './gate';

/** A promise that is kept from outside. */
function kept(): { readonly until: Promise<void>; readonly keep: () => void; readonly fail: (e: Error) => void } {
  let keep!: () => void;
  let fail!: (e: Error) => void;
  const until = new Promise<void>((done, failed) => ([keep, fail] = [done, failed]));
  return { until, keep, fail };
}
const turn = () => new Promise((r) => setTimeout(r, 0));

describe('a gate', () => {
  const began: string[] = [];
  const work = (what: string) => async () => {
    began.push(what);
    return what;
  };
  beforeEach(() => void began.splice(0));

  it('lets pass at once what is asked while nobody holds it', () => {
    void new Gate().pass(work('a'));
    expect(began).toEqual(['a']);
  });
  it('begins nothing while it is held, and then all in its order, what is asked in the same moment after it', async () => {
    const gate = new Gate();
    const { until, keep } = kept();
    gate.hold(until);
    const answers = [gate.pass(work('a')), gate.pass(work('b'))];
    await turn();
    expect(began).toEqual([]);
    // Asked in a step between its opening and whoever waits for it.
    const between = until.then(() => gate.pass(work('c')));
    keep();
    expect(await Promise.all([...answers, between])).toEqual(['a', 'b', 'c']);
    expect(began).toEqual(['a', 'b', 'c']);
  });
  it('is held for as long as the last of those who hold it says', async () => {
    const gate = new Gate();
    const [first, second] = [kept(), kept()];
    gate.hold(first.until);
    const asked = gate.pass(work('a'));
    gate.hold(second.until);
    first.keep();
    await turn();
    expect(began).toEqual([]);
    second.keep();
    await asked;
    expect(began).toEqual(['a']);
  });
  it('opens as well where what it waited for failed, and tells whoever asked how its own work failed', async () => {
    const gate = new Gate();
    const { until, fail } = kept();
    gate.hold(until);
    const none = () => {
      throw new Error('no engine');
    };
    const asked = [gate.pass(none), gate.pass(work('a'))];
    fail(new Error('no window'));
    await expect(asked[0]).rejects.toThrow('no engine');
    expect(await asked[1]).toBe('a');
    await expect(gate.pass(none)).rejects.toThrow('no engine');
  });
});
