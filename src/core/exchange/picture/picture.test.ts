import fc from 'fast-check';
import { deflateSync } from 'node:zlib';
import { greyPng, pngChunk, pngOf } from '../../testing/png';
import { ExchangeError } from '../drawn';
import { gridOf } from '../../relief/field';
import { readPicture } from './read';
import { writeHeights } from './write';

const rowsOf = (...rows: number[][]) => Uint8Array.from(rows.flatMap((r) => [0, ...r]));

describe('pictures for reliefs', () => {
  it('are read with sixteen bits and with eight', () => {
    const at = (x: number, y: number) => (x + 10 * y) / 1000;
    const fine = readPicture('reeds.png', greyPng(30, 20, 16, at));
    expect([fine.width, fine.height, fine.greys]).toEqual([30, 20, 65536]);
    for (let y = 0; y < 20; y++)
      for (let x = 0; x < 30; x++) expect(Math.abs(fine.light[y * 30 + x] - at(x, y))).toBeLessThan(1e-5);
    const plain = readPicture('reeds.png', greyPng(30, 20, 8, at));
    expect(plain.greys).toBe(256);
    expect(Math.abs(plain.light[619 - 20] - at(29, 19))).toBeLessThan(0.002);
  });
  it('are read with one, two and four bits, packed in rows of whole bytes', () => {
    const bits = pngOf({
      width: 11,
      height: 2,
      depth: 1,
      colour: 0,
      rows: rowsOf([0b10110000, 0b00100000], [0xff, 0xff]),
    });
    expect([...readPicture('a', bits).light]).toEqual([1, 0, 1, 1, 0, 0, 0, 0, 0, 0, 1, ...new Array(11).fill(1)]);
    const quarters = pngOf({ width: 5, height: 1, depth: 2, colour: 0, rows: rowsOf([0b00011011, 0b11000000]) });
    expect([...readPicture('a', quarters).light].map((v) => Math.round(v * 3))).toEqual([0, 1, 2, 3, 3]);
    const nibbles = pngOf({ width: 3, height: 1, depth: 4, colour: 0, rows: rowsOf([0x0f, 0x50]) });
    expect([...readPicture('a', nibbles).light].map((v) => Math.round(v * 15))).toEqual([0, 15, 5]);
  });
  it('are as light as their colours; what is wholly transparent is empty', () => {
    const rgb = pngOf({ width: 3, height: 1, depth: 8, colour: 2, rows: rowsOf([255, 0, 0, 0, 255, 0, 0, 0, 255]) });
    [0.2126, 0.7152, 0.0722].forEach((l, i) => expect(readPicture('a', rgb).light[i]).toBeCloseTo(l, 6));
    const alpha = pngOf({ width: 2, height: 1, depth: 8, colour: 6, rows: rowsOf([9, 9, 9, 0, 51, 51, 51, 1]) });
    const seen = readPicture('a', alpha).light;
    expect(seen[0]).toBeNaN();
    expect(seen[1]).toBeCloseTo(0.2, 6);
    const grey = pngOf({ width: 2, height: 1, depth: 16, colour: 4, rows: rowsOf([128, 0, 0, 0, 255, 255, 0, 1]) });
    expect(readPicture('a', grey).light[0]).toBeNaN();
    expect(readPicture('a', grey).light[1]).toBe(1);
    const palette = [pngChunk('PLTE', Uint8Array.of(0, 0, 0, 255, 255, 255)), pngChunk('tRNS', Uint8Array.of(0))];
    const indexed = pngOf({ width: 2, height: 1, depth: 8, colour: 3, before: palette, rows: rowsOf([0, 1]) });
    expect(readPicture('a', indexed).light[0]).toBeNaN();
    expect(readPicture('a', indexed).light[1]).toBe(1);
    const key = [pngChunk('tRNS', Uint8Array.of(0, 7))];
    const keyed = pngOf({ width: 2, height: 1, depth: 8, colour: 0, before: key, rows: rowsOf([7, 255]) });
    expect([...readPicture('a', keyed).light]).toEqual([NaN, 1]);
  });
  it('are read where they come in seven passes', () => {
    // Adam7 of 3 x 3: passes hold (0,0); none; none; (2,0)... in the order of the specification.
    const v = (x: number, y: number) => 20 * (x + 3 * y);
    const passes = [
      [[v(0, 0)]],
      [[v(0, 2), v(2, 2)]].slice(0, 0),
      [[v(2, 0)]],
      [[v(0, 2), v(2, 2)]],
      [[v(1, 0)], [v(1, 2)]],
      [[v(0, 1), v(1, 1), v(2, 1)]],
    ];
    const rows = Uint8Array.from(passes.flat().flatMap((r) => [0, ...r]));
    const p = readPicture('a', pngOf({ width: 3, height: 3, depth: 8, colour: 0, rows, interlaced: true }));
    expect([...p.light].map((l) => Math.round(l * 255))).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8].map((k) => 20 * k));
  });
  it('of a relief hold its heights to a 65535th, the highest Y on top, and keep what is empty', () => {
    for (const holes of [false, true]) {
      const f = { ...gridOf(12, 8, 0.5), z: new Float32Array(25 * 17) };
      f.z.forEach((_, k) => (f.z[k] = holes && k % 7 === 0 ? NaN : -4 + 3 * Math.sin(k) * Math.cos(k / 9)));
      const { bytes, lowest, highest } = writeHeights(f);
      const p = readPicture('relief.png', bytes);
      expect([p.width, p.height, p.greys]).toEqual([25, 17, 65536]);
      let worst = 0;
      for (let r = 0; r < 17; r++)
        for (let c = 0; c < 25; c++) {
          const back = lowest + p.light[(16 - r) * 25 + c] * (highest - lowest);
          const h = f.z[r * 25 + c];
          if ((h !== h) !== (back !== back)) worst = Infinity;
          else if (h === h) worst = Math.max(worst, Math.abs(back - h));
        }
      expect(worst).toBeLessThan((highest - lowest) / 65535 + 1e-6);
    }
    const flat = writeHeights({ ...gridOf(1, 1, 0.5), z: new Float32Array(9).fill(-2) });
    expect([flat.lowest, flat.highest]).toEqual([-2, -2]);
    expect(readPicture('flat.png', flat.bytes).light.every((l) => l === 0)).toBe(true);
  });
  it('that are broken are refused by name, place and what to do', () => {
    const good = greyPng(40, 30, 8, (x) => x / 40);
    const refused = (bytes: Uint8Array, words: RegExp) => {
      expect(() => readPicture('heron.png', bytes)).toThrow(ExchangeError);
      expect(() => readPicture('heron.png', bytes)).toThrow(words);
    };
    refused(new Uint8Array(), /"heron.png" was not read: it is empty/);
    refused(Uint8Array.of(0xff, 0xd8, 0xff), /it is no PNG/);
    refused(good.subarray(0, good.length - 30), /ends in the middle/);
    refused(good.subarray(0, 20), /ends in the middle/);
    const huge = good.slice();
    new DataView(huge.buffer).setUint32(16, 1e9);
    refused(huge, /1000000000 × 30 pixels/);
    const flipped = good.slice();
    flipped[good.length - 25] ^= 4;
    refused(flipped, /packs only|broken/);
    const short = pngOf({ width: 40, height: 30, depth: 8, colour: 0, rows: new Uint8Array(41 * 20) });
    refused(short, /packs only 820 of the 1230 bytes/);
    // Ten megabytes of nothing in ten kilobytes, behind a head of a few pixels.
    const bomb = pngOf({ width: 4, height: 4, depth: 8, colour: 0, rows: new Uint8Array(1e7) });
    expect(bomb.length).toBeLessThan(2e4);
    refused(bomb, /packs more than the picture/);
    const profile = pngChunk('iCCP', Buffer.concat([Buffer.from('x\0\0', 'latin1'), deflateSync(Buffer.alloc(1e6))]));
    const laden = pngOf({ width: 1, height: 1, depth: 8, colour: 0, before: [profile], rows: rowsOf([255]) });
    expect([...readPicture('a', laden).light]).toEqual([1]);
  });
  it('are read or refused in words, whatever is done to them', () => {
    const files = [greyPng(12, 9, 16, (x, y) => (x * y) / 120), greyPng(5, 5, 8, (x) => x / 5)];
    fc.assert(
      fc.property(
        fc.constantFrom(...files),
        fc.array(fc.tuple(fc.nat(400), fc.nat(255)), { minLength: 1, maxLength: 6 }),
        fc.option(fc.nat(400)),
        (file, changes, end) => {
          const bytes = file.slice(0, end ?? file.length);
          for (const [at, to] of changes) if (at < bytes.length) bytes[at] = to;
          try {
            const p = readPicture('heron.png', bytes);
            expect(p.light.length).toBe(p.width * p.height);
          } catch (e) {
            expect(e).toBeInstanceOf(ExchangeError);
          }
        },
      ),
      { numRuns: 500 },
    );
  });
});
