import fc from 'fast-check';
import { unzipSync } from 'fflate';
import { pour, type Written } from './pour';

const bytes = fc.uint8Array({ maxLength: 400 });
const files: fc.Arbitrary<Written[]> = fc
  .array(fc.array(bytes, { maxLength: 6 }), { minLength: 1, maxLength: 5 })
  .map((list) => list.map((chunks, k) => ({ name: `${k + 1}-front/part-${k}.nc`, chunks })));
const whole = (parts: readonly Uint8Array[]) => Uint8Array.from(parts.flatMap((p) => [...p]));

async function poured(list: readonly Written[], zipped: boolean): Promise<{ bytes: Uint8Array; told: number[] }> {
  const parts: Uint8Array[] = [];
  const told: number[] = [];
  await pour(
    list,
    zipped,
    (p) => void parts.push(p.slice()),
    undefined,
    (d) => told.push(d),
  );
  return { bytes: whole(parts), told };
}

describe('files that are written in parts', () => {
  it('are the bytes of their chunks, alone and in an archive that any reader opens', async () => {
    await fc.assert(
      fc.asyncProperty(files, async (list) => {
        expect((await poured(list.slice(0, 1), false)).bytes).toEqual(whole(list[0].chunks));
        const back = unzipSync((await poured(list, true)).bytes);
        expect(Object.keys(back)).toEqual(list.map((f) => f.name));
        for (const f of list) expect(back[f.name]).toEqual(whole(f.chunks));
      }),
      { numRuns: 60 },
    );
  });
  it('that are large come in small parts, tell how far they are, and let the page have its turn', async () => {
    const chunk = Uint8Array.from({ length: 3_000_000 }, (_, i) => (i * i) % 251);
    let turns = 0;
    let on = true;
    const page = () => void (on && (turns++, setTimeout(page)));
    page();
    const sizes: number[] = [];
    const told: number[] = [];
    await pour(
      [{ name: 'a.nc', chunks: [chunk, chunk] }],
      true,
      (p) => void sizes.push(p.length),
      undefined,
      (d) => told.push(d),
    );
    on = false;
    expect(Math.max(...sizes)).toBeLessThan(1_000_000);
    expect(told.length).toBeGreaterThan(10);
    expect(told).toEqual([...told].sort((a, b) => a - b));
    expect(told.at(-1)).toBe(1);
    expect(turns).toBeGreaterThan(3);
  });
  it('from shared memory reach the sink in memory of their own', async () => {
    const shared = new Uint8Array(new SharedArrayBuffer(10)).fill(7);
    await pour([{ name: 'a', chunks: [shared] }], false, (p) => expect(p.buffer).toBeInstanceOf(ArrayBuffer));
  });
  it('stop when they are to, and fail when the sink does', async () => {
    const stop = new AbortController();
    let n = 0;
    const many = [{ name: 'a', chunks: Array.from({ length: 100 }, () => new Uint8Array(1000)) }];
    await expect(
      pour(many, false, () => void (++n === 5 && stop.abort(new Error('enough'))), stop.signal),
    ).rejects.toThrow('enough');
    expect(n).toBe(5);
    for (const zipped of [false, true])
      await expect(pour(many, zipped, () => Promise.reject(new Error('full')))).rejects.toThrow('full');
  });
});
