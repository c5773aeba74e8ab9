import fc from 'fast-check';
import { colourOf, rootStyle, StyleSheet } from './style';
import { readLength, readTransform, userNumber } from './transform';

describe('style of an element', () => {
  it('comes from its parent, its attributes, sheets by weight, and its own style, in that order', () => {
    const sheet = new StyleSheet();
    sheet.add(
      '/* a note */ path { fill: red } .thick { fill: lime; stroke: blue } #one { fill: navy } rect, circle { stroke: teal }',
    );
    const of = (tag: string, attributes: Record<string, string>, parent = rootStyle) =>
      sheet.of({ tag, attributes }, parent);
    expect(of('path', { fill: 'white' }).fill).toBe('red');
    expect(of('path', { class: 'thick' })).toMatchObject({ fill: 'lime', stroke: 'blue' });
    expect(of('path', { class: 'other thick', id: 'one' }).fill).toBe('navy');
    expect(of('path', { id: 'one', style: 'fill: olive; stroke:red' })).toMatchObject({ fill: 'olive', stroke: 'red' });
    expect(of('circle', {}).stroke).toBe('teal');
    // What is inherited and what is not.
    const parent = of('g', { fill: 'gray', opacity: '0.5', display: 'none' });
    expect(of('line', {}, parent)).toMatchObject({ fill: 'gray', opacity: '1', display: 'inline' });
    expect(of('line', { fill: 'inherit' }, parent).fill).toBe('gray');
  });
  it('knows what is important, whatever stands later or weighs more', () => {
    const sheet = new StyleSheet();
    sheet.add('#one { fill: navy !important } path { stroke: red!important } #one { stroke: blue; fill: lime }');
    expect(
      sheet.of({ tag: 'path', attributes: { id: 'one', style: 'fill: olive; stroke: teal' } }, rootStyle),
    ).toMatchObject({ fill: 'navy', stroke: 'red' });
    expect(sheet.of({ tag: 'path', attributes: { id: 'one', style: 'fill: olive !important' } }, rootStyle).fill).toBe(
      'olive',
    );
  });

  it('follows elements to their parents and elder siblings', () => {
    const sheet = new StyleSheet();
    const el = (tag: string, attributes: Record<string, string> = {}) => ({ tag, attributes });
    const svg = el('svg');
    const g = el('g', { class: 'ink' });
    const [a, b, c] = [el('path', { 'data-k': 'gate-left' }), el('rect'), el('path')];
    sheet.place(g, svg, [g], 0);
    [a, b, c].forEach((e, i, all) => sheet.place(e, g, all, i));
    const fill = (css: string, e: { tag: string; attributes: Record<string, string> }) => {
      const one = new StyleSheet();
      one.place(g, svg, [g], 0);
      [a, b, c].forEach((q, i, all) => one.place(q, g, all, i));
      one.add(`${css} { fill: red }`);
      return one.of(e, rootStyle).fill === 'red' && !one.skipped.size;
    };
    for (const css of [
      'g path',
      'svg path',
      'svg > g > path',
      '.ink > *',
      'rect + path',
      'path ~ path',
      'g :last-child',
      'svg .ink path:last-child',
    ])
      expect([css, fill(css, c)]).toEqual([css, true]);
    for (const css of ['svg > path', 'path + path', 'rect ~ rect', '.ink .ink path', 'path:first-child', 'g > g path'])
      expect([css, fill(css, c)]).toEqual([css, false]);
    for (const css of [
      '[data-k]',
      '[data-k="gate-left"]',
      '[data-k|=gate]',
      '[data-k^=gate]',
      '[data-k$=left]',
      '[data-k*="e-l"]',
      'path:first-child',
    ])
      expect([css, fill(css, a)]).toEqual([css, true]);
    expect(fill('[data-k~=gate]', a)).toBe(false);
  });

  it('takes what is for the screen, leaves what is for paper, and says by name what it does not read', () => {
    const sheet = new StyleSheet();
    sheet.add(
      '@media screen { path { fill: lime } } @media print { path { fill: blue } } @media (prefers-color-scheme: dark) { path { fill: white } } path:hover, .a.b { stroke: teal } @font-face { font-family: x }',
    );
    expect(sheet.of({ tag: 'path', attributes: { class: 'a b' } }, rootStyle)).toMatchObject({
      fill: 'lime',
      stroke: 'teal',
    });
    expect(sheet.of({ tag: 'path', attributes: { class: 'a' } }, rootStyle).stroke).toBe('none');
    expect([...sheet.skipped]).toEqual(['@media (prefers-color-scheme:dark)', 'path:hover']);
  });
  it('never throws on any sheet', () => fc.assert(fc.property(fc.string(), (css) => new StyleSheet().add(css))));
});

describe('colours', () => {
  it.each([
    ['#ABCDEF', '#abcdef'],
    ['#abc', '#aabbcc'],
    ['rgb(255, 0, 128)', '#ff0080'],
    ['rgb(100%, 0%, 50%)', '#ff0080'],
    ['Teal', '#008080'],
    ['rebeccapurple', '#663399'],
    ['hsl(120, 100%, 25%)', '#008000'],
    ['hsl(120deg 100% 25% / 50%)', '#008000'],
    ['rgb(255 0 128 / 0.5)', '#ff0080'],
    ['rgba(255, 0, 128, 0.3)', '#ff0080'],
    ['transparent', null],
    ['none', null],
    ['url(#g)', null],
  ])('%s is %s', (text, want) => expect(colourOf(text, 'black')).toBe(want));
  it('currentColor is the colour of the text, and does not run in a circle', () => {
    expect(colourOf('currentColor', 'navy')).toBe('#000080');
    expect(colourOf('currentColor', 'currentColor')).toBeNull();
  });
});

describe('transform attributes', () => {
  it('are read in order, with commas or spaces, and whole or not at all', () => {
    const m = readTransform(' translate(10,5) rotate( 90 ) scale(2 3)')!;
    const at = (x: number, y: number) => [m.a * x + m.c * y + m.e, m.b * x + m.d * y + m.f].map((v) => +v.toFixed(9));
    expect(at(1, 0)).toEqual([10, 7]);
    expect(at(0, 1)).toEqual([7, 5]);
    expect(readTransform('rotate(90 10 10)')!.e).toBeCloseTo(20, 9);
    for (const broken of ['rotate()', 'spin(3)', 'matrix(1 2 3)', 'translate(1) oops', 'scale(1e999)'])
      expect(readTransform(broken)).toBeNull();
    expect(readTransform('none')).toEqual({ a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 });
  });
  it('lengths know their units', () => {
    expect(readLength('1in')!.mm).toBeCloseTo(25.4, 9);
    expect(readLength(' 72pt ')!.mm).toBeCloseTo(25.4, 9);
    expect(readLength('96')).toMatchObject({ real: false });
    expect(readLength('96')!.mm).toBeCloseTo(25.4, 9);
    expect(readLength('50%')).toBeNull();
    expect(readLength('3 bananas')).toBeNull();
    expect(userNumber('50%', 200)).toBe(100);
    expect(userNumber('1in')).toBeCloseTo(96, 9);
    expect(userNumber(undefined)).toBeNaN();
  });
});
