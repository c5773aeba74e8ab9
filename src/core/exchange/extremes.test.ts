import { extremes, largeFiles } from '../testing/extremes';
import { ExchangeError } from './drawn';
import { readDxf } from './dxf/read';
import { readSvg } from './svg/read';

const read = (file: string, text: string) => (file.endsWith('.dxf') ? readDxf(text, file) : readSvg(text, file));

describe('a reader', () => {
  it.each(extremes.map((e) => [e.name, e] as const))(
    'comes to an end over %s: it is read, or refused in words',
    (_name, e) => {
      let d;
      try {
        d = read(e.file, e.text());
      } catch (x) {
        expect(x).toBeInstanceOf(ExchangeError);
        expect((x as Error).message).toMatch(/^"a\.(dxf|svg)" was not read: .*\.$/);
        // What a parser or the language says of it is no word for a maker.
        expect((x as Error).message).not.toMatch(/Error|undefined|NaN|exceeded|Cannot|stack/);
        return;
      }
      for (const t of d.things)
        for (const p of t.paths) for (const s of p.segments) expect(Number.isFinite(s.x + s.y)).toBe(true);
    },
  );
  it.each([
    ['20,800 lines of 12 rows each', largeFiles[0], 20_800],
    ['500 paths of 700 nodes', largeFiles[1], 500],
  ] as const)('reads %s whole', (_name, f, things) => {
    expect(read(f.file, f.text()).things).toHaveLength(things);
  });
});

describe('outlines of a polyline that names no end', () => {
  const pairs = (...v: (string | number)[]) => v.join('\n') + '\n';
  it('are those of its corners, and what follows is read too', () => {
    const text = pairs(
      0,
      'SECTION',
      2,
      'ENTITIES',
      0,
      'POLYLINE',
      8,
      'A',
      66,
      1,
      70,
      1,
      0,
      'VERTEX',
      8,
      'A',
      10,
      0,
      20,
      0,
      42,
      1,
      0,
      'VERTEX',
      8,
      'A',
      10,
      10,
      20,
      0,
      0,
      'CIRCLE',
      8,
      'A',
      10,
      30,
      20,
      0,
      40,
      2,
      0,
      'ENDSEC',
      0,
      'EOF',
    );
    const d = read('a.dxf', text);
    expect(d.things.map((t) => t.paths[0].closed)).toEqual([true, true]);
    expect(d.things[0].paths[0].segments.map((s) => s.k)).toEqual(['arc', 'line']);
  });
});
