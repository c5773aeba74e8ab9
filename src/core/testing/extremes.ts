/** Files made by hand to keep a reader busy, or to make it hold more than there is: small, well formed as far as they go. */
export interface Extreme {
  readonly name: string;
  readonly file: string;
  readonly text: () => string;
}

const dxf = (entities: readonly (string | number)[], blocks: readonly (string | number)[] = []): string =>
  [
    '0',
    'SECTION',
    '2',
    'HEADER',
    '9',
    '$INSUNITS',
    '70',
    '4',
    '0',
    'ENDSEC',
    ...(blocks.length ? ['0', 'SECTION', '2', 'BLOCKS', ...blocks, '0', 'ENDSEC'] : []),
    '0',
    'SECTION',
    '2',
    'ENTITIES',
    ...entities,
    '0',
    'ENDSEC',
    '0',
    'EOF',
    '',
  ].join('\n');
const line = (x: number): (string | number)[] => ['0', 'LINE', '8', '0', '10', x, '20', 0, '11', x + 1, '21', 1];
const insert = (name: string, columns: number, rows: number, layer = '0'): (string | number)[] => [
  '0',
  'INSERT',
  '8',
  layer,
  '2',
  name,
  '10',
  0,
  '20',
  0,
  '70',
  columns,
  '71',
  rows,
  '44',
  1,
  '45',
  1,
];
const block = (name: string, inside: readonly (string | number)[]): (string | number)[] => [
  '0',
  'BLOCK',
  '8',
  '0',
  '2',
  name,
  '70',
  0,
  '10',
  0,
  '20',
  0,
  '30',
  0,
  '3',
  name,
  ...inside,
  '0',
  'ENDBLK',
];
const svg = (inside: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100mm" height="100mm" viewBox="0 0 100 100">${inside}</svg>`;

export const extremes: readonly Extreme[] = [
  {
    name: 'a polyline that does not end',
    file: 'a.dxf',
    text: () => dxf(['0', 'POLYLINE', '8', '0', '66', 1, '10', 0, '20', 0, '0', 'VERTEX', '8', '0', '10', 0, '20', 0]),
  },
  {
    name: 'a polyline that claims a thousand million points',
    file: 'a.dxf',
    text: () => dxf(['0', 'LWPOLYLINE', '8', '0', '90', 1_000_000_000, '70', 0, '10', 0, '20', 0, '10', 5, '20', 5]),
  },
  {
    name: 'a hatch that claims a thousand million edges',
    file: 'a.dxf',
    text: () =>
      dxf([
        '0',
        'HATCH',
        '8',
        '0',
        '91',
        1_000_000_000,
        '92',
        1,
        '93',
        1_000_000_000,
        '72',
        1,
        '10',
        0,
        '20',
        0,
        '11',
        1,
        '21',
        1,
      ]),
  },
  {
    name: 'a spline that claims a thousand million knots',
    file: 'a.dxf',
    text: () =>
      dxf([
        '0',
        'SPLINE',
        '8',
        '0',
        '70',
        8,
        '71',
        3,
        '72',
        1_000_000_000,
        '73',
        1_000_000_000,
        '40',
        0,
        '40',
        1,
        '10',
        0,
        '20',
        0,
      ]),
  },
  {
    name: 'nested arrays of what draws nothing',
    file: 'a.dxf',
    text: () =>
      dxf(insert('b5', 100, 100), [
        ...block('b0', []),
        ...[1, 2, 3, 4, 5].flatMap((k) => block(`b${k}`, insert(`b${k - 1}`, 100, 100))),
      ]),
  },
  {
    name: 'nested arrays of a line',
    file: 'a.dxf',
    text: () =>
      dxf(insert('b5', 100, 100), [
        ...block('b0', line(0)),
        ...[1, 2, 3, 4, 5].flatMap((k) => block(`b${k}`, insert(`b${k - 1}`, 100, 100))),
      ]),
  },
  {
    name: 'a block that holds itself',
    file: 'a.dxf',
    text: () => dxf(insert('b', 2, 1), block('b', [...line(0), ...insert('b', 2, 1), ...insert('b', 2, 1)])),
  },
  {
    name: 'numbers that are none',
    file: 'a.dxf',
    text: () => dxf(['0', 'LINE', '8', '0', '10', '1e1e1e', '20', 'NaN', '11', '1e999', '21', '-']),
  },
  {
    name: 'uses of uses, twenty deep',
    file: 'a.svg',
    text: () =>
      svg(
        `<defs><g id="u0"><path d="M0 0h1"/></g>${Array.from({ length: 20 }, (_, k) => `<g id="u${k + 1}">${`<use xlink:href="#u${k}"/>`.repeat(10)}</g>`).join('')}</defs><use xlink:href="#u20"/>`,
      ),
  },
  {
    name: 'uses of uses that draw nothing',
    file: 'a.svg',
    text: () =>
      svg(
        `<defs><g id="u0"></g>${Array.from({ length: 20 }, (_, k) => `<g id="u${k + 1}">${`<use xlink:href="#u${k}"/>`.repeat(10)}</g>`).join('')}</defs><use xlink:href="#u20"/>`,
      ),
  },
  { name: 'a use of itself', file: 'a.svg', text: () => svg('<g id="a"><path d="M0 0h1"/><use xlink:href="#a"/></g>') },
  {
    name: 'a hundred thousand comments that do not end',
    file: 'a.svg',
    text: () => svg(`<style>${'/*'.repeat(100_000)}</style><path d="M0 0h9"/>`),
  },
  {
    name: 'twenty thousand rules for five thousand things',
    file: 'a.svg',
    text: () =>
      svg(
        `<style>${Array.from({ length: 20_000 }, (_, k) => `.a${k} .b${k} > path{fill:#${(k % 4096).toString(16).padStart(3, '0')}}`).join('')}</style>${'<g class="a1"><path class="b1" d="M0 0h9v9z"/></g>'.repeat(5000)}`,
      ),
  },
  {
    name: 'two hundred thousand attributes',
    file: 'a.svg',
    text: () => svg(`<path d="M0 0h9" ${Array.from({ length: 200_000 }, (_, k) => `a${k}="1"`).join(' ')}/>`),
  },
  {
    name: 'a path of numbers that are none',
    file: 'a.svg',
    text: () => svg('<path d="M1e1e1e 0 L 1e999 5 L NaN 3 h..5.5.5e"/>'),
  },
  {
    name: 'groups in groups, a hundred thousand deep',
    file: 'a.svg',
    text: () => svg(`${'<g>'.repeat(100_000)}<path d="M0 0h9"/>${'</g>'.repeat(100_000)}`),
  },
  {
    name: 'entities in entities',
    file: 'a.svg',
    text: () =>
      `<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa">${Array.from({ length: 12 }, (_, k) => `<!ENTITY a${k} "${`&a${k ? k - 1 : ''};`.repeat(10)}">`).join('')}]>${svg('<text>&a11;</text>')}`,
  },
  {
    name: 'selectors that go back and forth',
    file: 'a.svg',
    text: () =>
      svg(
        `<style>${'g '.repeat(60)}path{fill:red}</style>${'<g>'.repeat(60)}${'<rect width="1" height="1"/>'.repeat(2000)}${'</g>'.repeat(60)}`,
      ),
  },
  {
    name: 'a selector that fails in every way',
    file: 'a.svg',
    text: () =>
      svg(`<style>b ${'g '.repeat(30)}path{fill:red}</style>${'<g>'.repeat(60)}<path d="M0 0h9"/>${'</g>'.repeat(60)}`),
  },
  {
    name: 'a dash a thousandth of a micron long',
    file: 'a.svg',
    text: () => svg('<path stroke-dasharray="0.000001" stroke="#000" d="M0 0h99"/>'),
  },
  {
    name: 'an arc with endless radii',
    file: 'a.svg',
    text: () => svg('<path d="M0 0A1e300 1e300 0 1 1 5 5A1e-300 1e-300 0 0 0 9 9"/>'),
  },
];

/** Large files as makers have them: they are read. */
export const largeFiles: readonly Extreme[] = [
  {
    name: '250,000 lines of DXF',
    file: 'a.dxf',
    text: () => dxf(Array.from({ length: 20_800 }, (_, k) => line(k)).flat()),
  },
  {
    name: 'paths of 5 MB',
    file: 'a.svg',
    text: () =>
      svg(
        Array.from(
          { length: 500 },
          (_, p) =>
            `<path d="M0 ${p}${Array.from({ length: 700 }, (_, k) => `l${(k % 7) * 0.123} ${((k * k) % 11) * 0.07}`).join('')}z"/>`,
        ).join(''),
      ),
  },
];
