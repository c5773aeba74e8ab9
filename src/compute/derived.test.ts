import fc from 'fast-check';
import { derivedHere, emptyDerived, keepDerived, keepIn, recallDerived, type Derived } from './derived';
import { filesInMemory } from './filesInMemory';
import { fromBytes, toBytes } from './privateFiles';

const disk = filesInMemory();
keepIn(disk);

/** Results of so many thousand bytes. */
const results = (name: string, kilobytes: number): Derived =>
  ({
    plans: [
      { cut: name, key: `key of ${name}`, plan: { toolpaths: [], x: new Float64Array(new SharedArrayBuffer(8)) } },
    ],
    proof: { files: [], field: { z: new Float32Array(250 * kilobytes).fill(kilobytes) } },
  }) as unknown as Derived;

describe('kept results', () => {
  beforeEach(emptyDerived);

  it('come back as they were, shared memory or not', async () => {
    await keepDerived('a', results('a', 3));
    expect(await recallDerived('a')).toEqual(results('a', 3));
    expect(await recallDerived('b')).toBeNull();
    await emptyDerived();
    expect(await recallDerived('a')).toBeNull();
    expect(await derivedHere()).toEqual({ size: 0, count: 0 });
  });

  it('never take more room than they may, and what was used last stays', async () => {
    const step = fc.record({
      name: fc.constantFrom('a', 'b', 'c', 'd', 'e'),
      kilobytes: fc.integer({ min: 1, max: 12 }),
      keep: fc.boolean(),
    });
    const sizes: number[] = [];
    for (let k = 1; k <= 12; k++) {
      await keepDerived('a', results('a', k));
      sizes[k] = (await derivedHere()).size;
      expect(sizes[k]).toBeGreaterThan(1000 * k);
    }
    await emptyDerived();
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 14 }), async (steps) => {
        const most = 20_000;
        // What a maker would expect: the last used, newest first, as many as go in.
        let expected: { name: string; size: number }[] = [];
        for (const [at, s] of steps.entries()) {
          const known = expected.find((e) => e.name === s.name);
          const others = expected.filter((e) => e !== known);
          if (s.keep) {
            let left = most - sizes[s.kilobytes];
            expected = [{ name: s.name, size: sizes[s.kilobytes] }, ...others.filter((e) => (left -= e.size) >= 0)];
            await keepDerived(s.name, results(s.name, s.kilobytes), most, at + 1);
            const { size, count } = await derivedHere();
            expect([size, count]).toEqual([expected.reduce((n, e) => n + e.size, 0), expected.length]);
            expect(size).toBeLessThanOrEqual(most);
          } else {
            expect((await recallDerived(s.name, at + 1)) !== null).toBe(known !== undefined);
            if (known) expected = [known, ...others];
          }
        }
        await emptyDerived();
      }),
      { numRuns: 40 },
    );
  });

  it('that are larger than all the room are not kept, and push nothing out', async () => {
    await keepDerived('small', results('small', 2), 20_000, 1);
    await keepDerived('large', results('large', 30), 20_000, 2);
    expect(await recallDerived('large')).toBeNull();
    expect(await recallDerived('small')).not.toBeNull();
  });

  it('are bytes and back, in whichever memory their numbers lie', () => {
    const numbers = fc.oneof(
      fc.float64Array({ maxLength: 40 }),
      fc.float32Array({ maxLength: 40 }),
      fc.int32Array({ maxLength: 40 }),
      fc.uint8Array({ maxLength: 40 }),
    );
    const value = fc.letrec((tie) => ({
      v: fc.oneof(
        { maxDepth: 4 },
        fc.string(),
        fc.integer(),
        fc.double(),
        fc.constantFrom(-0, Infinity, -Infinity, NaN),
        fc.boolean(),
        fc.constant(null),
        numbers,
        fc.array(tie('v')),
        fc.dictionary(fc.stringMatching(/^[a-z]{1,3}$/), tie('v')),
      ),
    })).v;
    fc.assert(
      fc.property(value, (v) => {
        const back = fromBytes(toBytes(v));
        expect(back).toEqual(v);
      }),
    );
    const part = new Float64Array(new SharedArrayBuffer(80)).subarray(3, 7).fill(2.5);
    expect(fromBytes(toBytes({ part }))).toEqual({ part: Float64Array.of(2.5, 2.5, 2.5, 2.5) });
  });

  it('that cannot be written are not kept, and what is damaged is none', async () => {
    const warned = jest.spyOn(console, 'warn').mockImplementation(() => {});
    await keepDerived('a', results('a', 2));
    disk.full = true;
    await keepDerived('b', results('b', 2));
    expect(await recallDerived('b')).toBeNull();
    expect(await recallDerived('a')).not.toBeNull();
    disk.full = false;
    for (const [name] of await disk.sizes()) await disk.write(name, Uint8Array.of(1, 2, 3, 4, 5, 6, 7, 8, 9));
    expect(await recallDerived('a')).toBeNull();
    await keepDerived('a', results('a', 2));
    expect(await recallDerived('a')).not.toBeNull();
    expect(warned).toHaveBeenCalled();
    warned.mockRestore();
  });
});
