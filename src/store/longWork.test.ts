import { setFlagsFromString } from 'node:v8';
import { runInNewContext } from 'node:vm';
import { newItem } from '@/core/artwork/item';
import { newOneSetup, type OneSetup } from '@/core/job/job';
import { seeded } from '@/core/testing/seeded';
import { jobOf } from '@/core/job/oneSetup';
import { shown, useOpenJob } from './openJob';

setFlagsFromString('--expose-gc');
const collect = runInNewContext('gc') as () => void;
const heap = (): number => {
  collect();
  return process.memoryUsage().heapUsed;
};

const EDITS = 10_000;
/** Steps that are kept for undo. */
const KEPT = 500;

describe('a long day of work', () => {
  it('(long) leaves memory as it was, and is undone and redone to the bit as far as it is kept', () => {
    jest.useFakeTimers();
    const r = seeded(20261127);
    const pick = (n: number) => Math.floor(r() * n);
    const job: OneSetup = {
      ...newOneSetup('Lock 7'),
      items: Array.from({ length: 60 }, (_, k) =>
        newItem({
          id: `i${k}`,
          name: `Thing ${k}`,
          kind: 'rectangle',
          x: k,
          values: { width: 10, height: 5, corner: 'square', radius: 1 },
        }),
      ),
    };
    useOpenJob.setState({ id: null, ...shown(jobOf(job)), revision: 1, save: 'saved', past: [], future: [] });
    const { edit, undo, redo } = useOpenJob.getState();
    let ids = 0;
    const change = () => {
      const k = r();
      edit('Change', (j) => {
        const i = j.items[pick(j.items.length)];
        if (k < 0.4) i.x += r();
        else if (k < 0.6) i.values = { ...i.values, width: 1 + 50 * r() };
        else if (k < 0.7) j.items.push({ ...i, id: `n${ids++}`, values: { ...i.values } });
        else if (k < 0.8 && j.items.length > 40) j.items.splice(pick(j.items.length), 1);
        else if (k < 0.9) j.blank.width = 100 + 200 * r();
        else j.notes = `Note ${r()}`;
      });
    };
    for (let k = 0; k < EDITS / 5; k++) change();
    const early = heap();
    for (let k = EDITS / 5; k < EDITS; k++) change();
    // Eight thousand edits later nothing has been kept but the last steps, which are larger or smaller by what lies on the table: one of every edit would be 20 MB.
    expect(heap() - early).toBeLessThan(4 << 20);
    const texts = [JSON.stringify(useOpenJob.getState().whole)];
    for (let k = 0; k < KEPT; k++) {
      change();
      texts.push(JSON.stringify(useOpenJob.getState().whole));
    }
    for (let k = KEPT; k >= 0; k--) {
      expect(JSON.stringify(useOpenJob.getState().whole)).toBe(texts[k]);
      undo();
    }
    expect(useOpenJob.getState().past).toEqual([]);
    for (let k = 1; k <= KEPT; k++) {
      redo();
      expect(JSON.stringify(useOpenJob.getState().whole)).toBe(texts[k]);
    }
    jest.useRealTimers();
  });
});
