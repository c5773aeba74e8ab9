import { JobError } from '../job/migrate';
import { ExchangeError } from '../exchange/drawn';
import { saysOf } from './says';

describe('what an error says to a maker', () => {
  it('is its own words where they were written for him, from another thread too', () => {
    expect(saysOf(new JobError('The archive is damaged.'), 'other')).toBe('The archive is damaged.');
    expect(saysOf(new ExchangeError('a.svg', 'it is empty.'), 'other')).toBe('"a.svg" was not read: it is empty.');
    expect(saysOf({ name: 'ExchangeError', message: '"a.svg" was not read: it is empty.' }, 'other')).toMatch(/a\.svg/);
    expect(saysOf(new RangeError('The step-over is too small for the size of the area.'), 'other')).toMatch(
      /step-over/,
    );
  });
  it.each([
    () => (null as unknown as string).toString(),
    () => new Array(-1),
    () => 'a'.repeat(-1),
    () => (1).toFixed(200),
    () => {
      const f = (): number => f() + 1;
      return f();
    },
    () => JSON.parse('{'),
    () => new Uint8Array(new ArrayBuffer(3), 2, 9),
    () => (undefined as unknown as { x: { y: number } }).x.y,
  ])('is not what the language says: %#', (wrong) => {
    let e: unknown;
    try {
      wrong();
    } catch (x) {
      e = x;
    }
    expect(e).toBeTruthy();
    expect(saysOf(e, 'It could not be read.')).toBe('It could not be read.');
  });
});
