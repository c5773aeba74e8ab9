import fc from 'fast-check';
import { zlibSync } from 'fflate';
import { letterOf, shippedFile, testShaper } from '../testing/fonts';
import { FontError, loadFont } from './font';
import { openWoff } from './woff';

interface Table {
  readonly tag: string;
  readonly data: Uint8Array;
  readonly pack: boolean;
}
const table = fc.record({
  tag: fc.stringMatching(/^[a-zA-Z]{4}$/),
  data: fc.uint8Array({ maxLength: 300 }),
  pack: fc.boolean(),
});
const tables = fc.uniqueArray(table, { minLength: 1, maxLength: 9, selector: (t) => t.tag });

/** A WOFF of tables, by the standard. */
function woffOf(list: readonly Table[]): Uint8Array {
  const packed = list.map((t) => {
    const p = zlibSync(t.data);
    return t.pack && p.length < t.data.length ? p : t.data;
  });
  const head = 44 + 20 * list.length;
  const out = new Uint8Array(head + packed.reduce((n, p) => n + ((p.length + 3) & ~3), 0));
  const view = new DataView(out.buffer);
  out.set([...'wOFF'].map((c) => c.charCodeAt(0)));
  view.setUint32(4, 0x00010000);
  view.setUint16(12, list.length);
  let at = head;
  list.forEach((t, i) => {
    const e = 44 + 20 * i;
    out.set(
      [...t.tag].map((c) => c.charCodeAt(0)),
      e,
    );
    view.setUint32(e + 4, at);
    view.setUint32(e + 8, packed[i].length);
    view.setUint32(e + 12, t.data.length);
    view.setUint32(e + 16, 1000 + i);
    out.set(packed[i], at);
    at += (packed[i].length + 3) & ~3;
  });
  return out;
}

/** The sum of a table's words, by the standard: what lies beyond its end counts as nought. */
const sumOf = (data: Uint8Array): number =>
  data.reduce((sum, v, i) => (sum + v * 2 ** (8 * (3 - (i % 4)))) % 2 ** 32, 0);

/** Tables of an SFNT, by the standard. */
function tablesOf(sfnt: Uint8Array): { tag: string; sum: number; data: number[] }[] {
  const view = new DataView(sfnt.buffer, sfnt.byteOffset);
  return Array.from({ length: view.getUint16(4) }, (_, i) => {
    const e = 12 + 16 * i;
    const [sum, from, length] = [view.getUint32(e + 4), view.getUint32(e + 8), view.getUint32(e + 12)];
    expect(from % 4).toBe(0);
    return { tag: String.fromCharCode(...sfnt.subarray(e, e + 4)), sum, data: [...sfnt.subarray(from, from + length)] };
  });
}

describe('WOFF files', () => {
  it('open out to all their tables, packed or not', () => {
    fc.assert(
      fc.property(tables, (list) => {
        const sfnt = openWoff(woffOf(list), 1e6)!;
        const inOrder = [...list].sort((a, b) => (a.tag < b.tag ? -1 : 1));
        expect(tablesOf(sfnt)).toEqual(inOrder.map((t) => ({ tag: t.tag, sum: sumOf(t.data), data: [...t.data] })));
        const [range, exponent, rest] = [6, 8, 10].map((at) => new DataView(sfnt.buffer).getUint16(at));
        expect(range).toBe(16 * 2 ** exponent);
        expect(range + rest).toBe(16 * list.length);
        expect(rest).toBeLessThan(Math.max(range, 1));
        expect(openWoff(woffOf(list), sfnt.length - 1)).toBeNull();
      }),
    );
  });
  it('that are damaged are refused or opened, never thrown at and never read for ever', () => {
    fc.assert(
      fc.property(
        tables,
        fc.array(fc.tuple(fc.nat(), fc.nat(255)), { minLength: 1, maxLength: 6 }),
        fc.nat(),
        (list, hits, cut) => {
          const file = woffOf(list);
          for (const [at, v] of hits) file[at % file.length] = v;
          const short = file.subarray(0, cut % (file.length + 1));
          for (const f of [file, short]) expect([true, false]).toContain(openWoff(f, 1e5) === null);
        },
      ),
      { numRuns: 500 },
    );
    // Every tenth byte of a real font's packed tables turned over: the first of them is seen.
    const good = shippedFile('cinzel');
    const damaged = good.map((b, i) => (i > 2000 && i % 10 === 0 ? b ^ 0xff : b));
    expect(() => loadFont(damaged, 'lock', testShaper)).toThrow(FontError);
    expect(() => loadFont(damaged, 'lock', testShaper)).toThrow('it is damaged');
    expect(() => loadFont(good.subarray(0, 3000), 'lock', testShaper)).toThrow('it is damaged');
    expect(letterOf(loadFont(good, 'lock', testShaper), 'A')!.paths).toHaveLength(2);
  });
});
