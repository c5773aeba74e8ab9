import fc from 'fast-check';
import { colourOf, rootStyle, StyleSheet } from './style';
import { readLength, readTransform, userNumber } from './transform';

describe('style of an element', () => {
  it('comes from its parent, its attributes, sheets by weight, and its own style, in that order', () => {
    const sheet = new StyleSheet();
    sheet.add('/* a note */ path { fill: red } .thick { fill: lime; stroke: blue } #one { fill: navy !important } rect, circle { stroke: teal }');
    const of = (tag: string, attributes: Record<string, string>, parent = rootStyle) => sheet.of(tag, attributes, parent);
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
  it('says when there was a selector that is not read, and takes the rest', () => {
    const sheet = new StyleSheet();
    sheet.add('g > path { fill: red } .a.b { fill: lime } @media print { path { fill: blue } }');
    expect(sheet.skipped).toBe(true);
    expect(sheet.of('path', { class: 'a b' }, rootStyle).fill).toBe('lime');
    expect(sheet.of('path', { class: 'a' }, rootStyle).fill).not.toBe('lime');
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
    for (const broken of ['rotate()', 'spin(3)', 'matrix(1 2 3)', 'translate(1) oops', 'scale(1e999)']) expect(readTransform(broken)).toBeNull();
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
