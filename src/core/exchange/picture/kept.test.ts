import { gridOf, type HeightField } from '../../relief/field';
import { keptReliefSchema, lookOfKept } from '../../relief/keptRelief';
import { formContext, heightsOf } from '../../testing/forms';
import { fromBase64, toBase64 } from '../../units/base64';
import { keptOf } from './kept';
import { readPicture } from './read';

const grid = gridOf(40, 30, 0.25);
/** A dome over (24, 12), nothing beside it. */
const dome: HeightField = {
  ...grid,
  z: Float32Array.from({ length: grid.cols * grid.rows }, (_, i) => {
    const d = Math.hypot((i % grid.cols) * 0.25 - 24, Math.floor(i / grid.cols) * 0.25 - 12);
    return d <= 6 ? -1 + Math.sqrt(100 - d * d) - 8 : NaN;
  }),
};

describe('a relief that is kept', () => {
  it('comes back as a picture with the heights that it had, wherever it is laid', () => {
    const kept = keptOf(dome, 'own-1', 'Dome')!;
    expect(keptReliefSchema.parse(JSON.parse(JSON.stringify(kept)))).toEqual(kept);
    expect([kept.width, kept.height]).toEqual([12.25, 12.25]);
    expect(kept.rise).toBeCloseTo(2, 5);
    const picture = readPicture('own.png', fromBase64(kept.png));
    const { width, height, rise } = kept;
    const z = heightsOf(
      'picture',
      { picture: 'p', x: 24, y: 12, width, height, rise, smooth: false },
      formContext(grid, { picture: () => picture }),
    );
    let met = 0;
    z.forEach((h, i) => {
      expect(h === h).toBe(dome.z[i] === dome.z[i]);
      if (h !== h) return;
      met++;
      // Its lowest is its base; sixteen bits of two millimetres.
      expect(Math.abs(h - (dome.z[i] + 1))).toBeLessThan(1e-4);
    });
    expect(met).toBeGreaterThan(1500);
    const look = lookOfKept(kept);
    expect(look.light).toHaveLength(look.cols * look.rows);
  });
  it('is thinned out where it is large, and none where there is nothing', () => {
    const wide = gridOf(1500, 1000, 1);
    const kept = keptOf(
      { ...wide, z: Float32Array.from({ length: 1501 * 1001 }, (_, i) => (i % 1501) / 500) },
      'a',
      'A',
    )!;
    const p = readPicture('own.png', fromBase64(kept.png));
    expect([p.width, p.height]).toEqual([751, 501]);
    expect(kept.width).toBe(1502);
    expect(keptOf({ ...grid, z: dome.z.map(() => NaN) }, 'a', 'A')).toBeNull();
  });
  it('has its bytes as text and back', () => {
    const bytes = Uint8Array.from({ length: 100_003 }, (_, i) => (i * 37) & 255);
    expect(fromBase64(toBase64(bytes))).toEqual(bytes);
    expect(toBase64(new TextEncoder().encode('Fenwater'))).toBe('RmVud2F0ZXI=');
  });
});
