import fc from 'fast-check';
import { real } from '../testing/real';
import { flatten, type Path } from '../geometry/path';
import { normalise, regionArea } from '../geometry/region';
import { ExchangeError } from './drawn';
import { readSvg } from './svg/read';
import { writeSvg } from './svg/write';

const svg = (inner: string, head = 'width="100mm" height="50mm" viewBox="0 0 100 50"') =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${head}>${inner}</svg>`;
const areas = (source: string) =>
  readSvg(source, 'test.svg').things.map((t) =>
    regionArea(
      normalise(
        t.paths.map((p) => flatten(p, 1e-5)),
        t.fill,
      ),
    ),
  );

describe('SVG that is read', () => {
  it.each([
    ['a rectangle', '<rect x="1" y="2" width="10" height="20"/>', 200],
    ['a rounded rectangle', '<rect width="10" height="20" rx="2"/>', 200 - (4 - Math.PI) * 4],
    ['a rectangle with elliptical corners', '<rect width="10" height="20" rx="2" ry="4"/>', 200 - (4 - Math.PI) * 8],
    ['a circle', '<circle cx="20" cy="20" r="7"/>', 49 * Math.PI],
    ['an ellipse', '<ellipse cx="20" cy="20" rx="7" ry="3"/>', 21 * Math.PI],
    ['a polygon', '<polygon points="0,0 10,0 10,10"/>', 50],
    ['relative commands and short curves', '<path d="m0 0h10v10h-10z"/>', 100],
    ['a large arc', '<path d="M10 0A10 10 0 1 1 0 -10L0 0Z" transform="translate(40 30)"/>', (3 / 4) * 100 * Math.PI],
    ['a quadratic', '<path d="M0 0Q10 20 20 0Z"/>', (2 / 3) * 20 * 10],
    ['numbers without spaces', '<path d="M.5.5 10.5.5 10.5-9.5z"/>', 50],
    ['an even-odd hole', '<path fill-rule="evenodd" d="M0 0H10V10H0ZM2 2H8V8H2Z"/>', 64],
    ['the same without', '<path d="M0 0H10V10H0ZM2 2H8V8H2Z"/>', 100],
    ['an open outline that is filled', '<path d="M0 0H10V10"/>', 50],
    [
      'nested transforms',
      '<g transform="scale(2)"><g transform="rotate(30) skewX(20)"><rect width="5" height="4"/></g></g>',
      80,
    ],
    ['a matrix', '<rect width="1" height="1" transform="matrix(3 1 0 2 5 5)"/>', 6],
    ['a use', '<defs><rect id="r" width="3" height="3"/></defs><use href="#r" x="5" transform="scale(2)"/>', 36],
    [
      'a symbol with a viewBox',
      '<symbol id="s" viewBox="0 0 2 2"><rect width="2" height="2"/></symbol><use xlink:href="#s" width="8" height="8"/>',
      64,
    ],
    ['a nested svg', '<svg x="5" width="20" height="20" viewBox="0 0 10 10"><rect width="10" height="5"/></svg>', 200],
    [
      'a style sheet',
      '<style>.no{fill:none} rect.yes{fill:#f00}</style><circle class="no" r="5"/><rect class="yes" width="2" height="2"/>',
      4,
    ],
  ])('%s has the area that it should', (_n, inner, want) => {
    const got = areas(svg(inner)).reduce((a, b) => a + b, 0);
    expect(Math.abs(got / want - 1)).toBeLessThan(2e-5);
  });

  it('keeps units: 1 in is 25.4 mm, a pixel 1/96 in, and the page stands the right way up', () => {
    const [t] = readSvg(
      svg('<rect width="1" height="1"/>', 'width="2in" height="1in" viewBox="0 0 2 1"'),
      'a.svg',
    ).things;
    expect(t.paths[0].y).toBeCloseTo(25.4, 9);
    expect(areas(svg('<rect width="96" height="96"/>', ''))[0]).toBeCloseTo(25.4 ** 2, 6);
    expect(readSvg(svg('', 'width="9" height="9"'), 'a').unitKnown).toBe(false);
    expect(readSvg(svg('', 'width="9cm" height="9cm"'), 'a').unitKnown).toBe(true);
  });

  it('keeps strokes as lines, layers by name, text as text, and says what was left out', () => {
    const d = readSvg(
      svg(`<g id="cut"><path fill="none" stroke="#0a0" d="M0 0L10 0"/></g><g id="engrave"><text x="5" y="9" font-family="Cinzel" font-size="8" text-anchor="middle">Lock &amp; Quay</text></g>
           <image href="x.png"/><rect width="1" height="1" clip-path="url(#c)"/><script>alert(1)</script>`),
      'a.svg',
    );
    expect(d.things[0].paths[0].closed).toBe(false);
    expect(d.things[0].layer).toBe('cut');
    expect(d.things[0].colour).toBe('#00aa00');
    expect(d.texts[0]).toMatchObject({
      text: 'Lock & Quay',
      layer: 'engrave',
      family: 'Cinzel',
      anchor: 'centre',
      x: 5,
      y: 41,
    });
    expect(d.remarks.join(' ')).toMatch(/pictures.*clip.*script/);
  });

  it.each([
    ['entities', '<!DOCTYPE svg [<!ENTITY a "aaaa">]><svg>&a;</svg>', /entities/],
    ['no svg', '<html></html>', /no <svg>/],
    ['a use of itself', svg('<g id="a"><use href="#a"/></g>'), /leads back to itself/],
    ['uses in a circle', svg('<g id="a"><use href="#b"/></g><g id="b"><use href="#a"/></g>'), /leads back to itself/],
    ['a place far away', svg('<rect x="1e9" width="1" height="1"/>'), /kilometre/],
    ['deep nesting', svg('<g>'.repeat(3000) + '</g>'.repeat(3000)), /nested/i],
  ])('with %s is refused by name', (_n, source, why) => {
    expect(() => readSvg(source, 'gate.svg')).toThrow(ExchangeError);
    expect(() => readSvg(source, 'gate.svg')).toThrow(/gate\.svg/);
    expect(() => readSvg(source, 'gate.svg')).toThrow(why);
  });

  it('of broken bytes is read or refused, but never worse', () => {
    const good = svg(
      '<g transform="rotate(5)"><path d="M0 0C1 2 3 4 5 6A3 2 10 0 1 9 9Z" style="fill:red"/><rect x="1" rx="2" width="9" height="9"/><use href="#q"/></g><style>.a{fill:none}</style>',
    );
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(good.length - 1), fc.nat(127)), { minLength: 1, maxLength: 8 }),
        (changes) => {
          const s = [...good];
          for (const [at, code] of changes) s[at] = String.fromCharCode(code);
          try {
            readSvg(s.join(''), 'x');
          } catch (e) {
            expect(e).toBeInstanceOf(ExchangeError);
          }
        },
      ),
      { numRuns: 400 },
    );
  });
});

const point = fc.record({
  x: real(-90, 90),
  y: real(-90, 90),
});
const path: fc.Arbitrary<Path> = fc
  .record({
    start: point,
    closed: fc.boolean(),
    steps: fc.array(
      fc.oneof(
        point.map((p) => ({ k: 'line' as const, ...p })),
        fc
          .tuple(point, point, point)
          .map(([a, b, c]) => ({ k: 'cubic' as const, x1: a.x, y1: a.y, x2: b.x, y2: b.y, x: c.x, y: c.y })),
      ),
      { minLength: 2, maxLength: 6 },
    ),
  })
  .map(({ start, closed, steps }) => ({
    ...start,
    segments: closed ? [...steps, { k: 'line' as const, ...start }] : steps,
    closed,
  }));

test('what is written as SVG is read back within 0.001 mm', () => {
  fc.assert(
    fc.property(fc.array(path, { minLength: 1, maxLength: 4 }), (paths) => {
      const text = writeSvg(
        [{ name: 'a', layer: 'Gate', colour: '#1e2a2f', fill: 'nonzero', paths }],
        200,
        100,
        'Fenwater & Lock',
      );
      const back = readSvg(text, 'back.svg').things.flatMap((t) => t.paths);
      const want = [...paths.filter((p) => p.closed), ...paths.filter((p) => !p.closed)];
      expect(back).toHaveLength(want.length);
      want.forEach((p, i) => {
        const a = flatten(p, 0.01);
        const b = flatten(back[i], 0.01);
        expect(b.length).toBe(a.length);
        a.forEach((v, k) => expect(Math.abs(v - b[k])).toBeLessThan(1e-3));
      });
    }),
    { numRuns: 60 },
  );
});
