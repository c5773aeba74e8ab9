import fc from 'fast-check';
import { real } from '../testing/real';
import { clockText } from './duration';
import {
  formatFine,
  formatLength,
  formatRoughly,
  massText,
  parseLength,
  parseLengths,
  parseNumber,
  volumeText,
} from './length';

const mm = (text: string, unit: 'mm' | 'in' = 'mm') => {
  const r = parseLength(text, unit);
  if (!r.ok) throw new Error(r.error);
  return r.mm;
};

describe('several lengths in a row', () => {
  const of = (text: string, unit: 'mm' | 'in' = 'mm') => {
    const r = parseLengths(text, unit);
    return r.ok ? r.mm.map((v) => Math.round(v * 1e4) / 1e4) : r.error;
  };
  it('are parted by semicolons, or by commas with a space', () => {
    expect(of('2')).toEqual([2]);
    expect(of('1; 2,5;3 ;')).toEqual([1, 2.5, 3]);
    expect(of('1, 2, 3')).toEqual([1, 2, 3]);
    expect(of('1 1/2; 1/8', 'in')).toEqual([38.1, 3.175]);
    expect(of('1/8"; 5 mm')).toEqual([3.175, 5]);
  });
  it('say which of them is none', () => {
    expect(of('')).toMatch(/Type a length/);
    expect(of(' ; ')).toMatch(/Type a length/);
    expect(of('1; deep; 3')).toMatch(/"deep"/);
  });
});

describe('lengths as makers type them', () => {
  it.each([
    ['12.5', 'mm', 12.5],
    ['0.5in', 'mm', 12.7],
    ['1/8"', 'mm', 3.175],
    ['3/4', 'in', 19.05],
    ['20thou', 'mm', 0.508],
    ['100/3', 'mm', 100 / 3],
    ['1 1/2in', 'mm', 38.1],
    ['5\' 6"', 'mm', 66 * 25.4],
    ['2*(3mm+1/4")', 'mm', 18.7],
    ['-4 + 1cm', 'mm', 6],
    ['1,5', 'mm', 1.5],
    ['1in - 0.4', 'in', 15.24],
    ['10mm/4', 'in', 2.5],
    ['1-1/2"', 'mm', 38.1],
    ['1-1/2in', 'mm', 38.1],
    ['2-3/8', 'in', 60.325],
    ['5-1/2', 'mm', 4.5],
    ['12,25', 'mm', 12.25],
    ['0,5', 'in', 12.7],
    ['0,125', 'in', 3.175],
  ] as const)('%s in %s', (text, unit, want) => expect(mm(text, unit)).toBeCloseTo(want, 9));

  it.each([
    '',
    'abc',
    '1/0',
    '2mm*3mm',
    '5/(2mm)',
    '(3',
    '4 5',
    '1e400',
    '('.repeat(100_000),
    `${'('.repeat(99)}1${')'.repeat(98)}`,
  ])('refuses %s and says why', (text) => {
    const r = parseLength(text, 'mm');
    expect(r.ok).toBe(false);
    if (!r.ok) expect(r.error).toMatch(/Try/);
  });

  it.each([
    ['1,500', '1500', '1.5'],
    ['12,250 mm', '12250', '12.25'],
  ])('asks which of two is meant by %s', (text, many, few) => {
    const r = parseLength(text, 'mm');
    expect(r).toMatchObject({ ok: false, error: expect.stringContaining(many) });
    expect(r).toMatchObject({ error: expect.stringContaining(few) });
  });
  it.each(['5mm', '30"', '1/8in', 'ten'])('refuses %s where a plain number is meant', (text) =>
    expect(parseNumber(text)).toMatchObject({ ok: false, error: expect.stringMatching(/plain number/) }),
  );
  it('reads back what it writes', () => {
    fc.assert(
      fc.property(real(-5000, 5000), fc.constantFrom('mm' as const, 'in' as const), (v, unit) => {
        expect(Math.abs(mm(formatLength(v, unit), unit) - v)).toBeLessThanOrEqual(unit === 'mm' ? 0.00051 : 0.0013);
      }),
    );
  });
  it('writes what is small so finely that it is read back as it is', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          real(1e-6, 500),
          fc.integer({ min: 1, max: 4000 }).map((k) => k / 1000),
          fc.integer({ min: 1, max: 640 }).map((k) => (k * 25.4) / 64),
        ),
        fc.constantFrom('mm' as const, 'in' as const),
        (v, unit) => {
          expect(Math.abs(mm(formatFine(v, unit), unit) - v)).toBeLessThanOrEqual(
            Math.min(5.001e-4, 0.01001 * v) + 1e-9,
          );
        },
      ),
    );
    expect([
      formatFine(0.001, 'in'),
      formatFine(3.175, 'in'),
      formatFine(0.0004, 'mm'),
      formatFine(0, 'in'),
      formatFine(12, 'mm'),
    ]).toEqual(['0.000039', '0.125', '0.0004', '0', '12']);
  });
  it('writes roughly as shortly as it is read back within a ten thousandth', () => {
    fc.assert(
      fc.property(
        fc.oneof(real(0.01, 90_000), fc.integer({ min: 1, max: 60_000 })),
        fc.constantFrom('mm' as const, 'in' as const),
        (v, unit) => {
          const text = formatRoughly(v, unit);
          expect(Math.abs(mm(text, unit) - v)).toBeLessThanOrEqual(1.0001e-4 * v);
          // One decimal less would be too far off.
          const [, decimals = ''] = text.split('.');
          if (decimals)
            expect(Math.abs(mm(formatLength(v, unit, decimals.length - 1), unit) - v)).toBeGreaterThan(0.9999e-4 * v);
        },
      ),
    );
    expect([900, 4000, 200, 889].map((v) => formatRoughly(v, 'in'))).toEqual(['35.43', '157.48', '7.874', '35']);
    expect([900, 2.5, 0].map((v) => formatRoughly(v, 'mm'))).toEqual(['900', '2.5', '0']);
  });
  it('never throws on any text', () => fc.assert(fc.property(fc.string(), (t) => void parseLength(t, 'mm'))));
  it('reads plain numbers with their signs', () => expect(parseNumber('30\u00b0')).toEqual({ ok: true, value: 30 }));
  it('writes minutes', () => {
    expect(clockText(41.5)).toBe('41:30');
    expect(clockText(61)).toBe('1:01:00');
  });
});

describe('volumes and masses', () => {
  it('have three digits that count, in the words of the unit', () => {
    expect([999.6, 12_345, 1_234_500, 4].map((v) => volumeText(v, 'mm'))).toEqual([
      '1.000 cm\u00b3',
      '12.3 cm\u00b3',
      '1235 cm\u00b3',
      '0.004 cm\u00b3',
    ]);
    expect(volumeText(2 * 25.4 ** 3, 'in')).toBe('2.00 in\u00b3');
    expect([4.457, 35.5, 1500].map((g) => massText(g, 'mm'))).toEqual(['4.46 g', '35.5 g', '1.50 kg']);
    expect(massText(28.349523125 * 3, 'in')).toBe('3.00 oz');
  });
});
