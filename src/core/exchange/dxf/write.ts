import { arcSweep, type Path, type Segment } from '../../geometry/path';
import type { WrittenThing } from '../svg/write';

/**
 * Writes DXF (release 2000, AC1015) in mm: layers, polylines with bulges for lines and arcs, circles for whole turns,
 * cubic splines for curves. A path that mixes them becomes several entities that meet end to end.
 */
export function writeDxf(things: readonly WrittenThing[]): string {
  const out: (string | number)[] = [];
  let handle = 0x100;
  const hex = () => (handle++).toString(16).toUpperCase();
  const put = (...pairs: (string | number)[]) => out.push(...pairs);
  const num = (v: number) => String(Math.round(v * 1e9) / 1e9);
  const layers = [...new Map(things.map((t) => [layerName(t.layer), t.colour]))];

  put(
    0,
    'SECTION',
    2,
    'HEADER',
    9,
    '$ACADVER',
    1,
    'AC1015',
    9,
    '$INSUNITS',
    70,
    4,
    9,
    '$MEASUREMENT',
    70,
    1,
    9,
    '$HANDSEED',
    5,
    'FFFFF',
    0,
    'ENDSEC',
  );
  put(0, 'SECTION', 2, 'TABLES');
  const table = (name: string, own: string, records: (() => void)[]) => {
    put(0, 'TABLE', 2, name, 5, own, 330, 0, 100, 'AcDbSymbolTable', 70, records.length);
    records.forEach((r) => r());
    put(0, 'ENDTAB');
  };
  const record =
    (type: string, owner: string, kind: string, name: string, ...rest: (string | number)[]) =>
    () =>
      put(0, type, 5, hex(), 330, owner, 100, 'AcDbSymbolTableRecord', 100, kind, 2, name, 70, 0, ...rest);
  table('VPORT', '8', []);
  table(
    'LTYPE',
    '5',
    ['ByBlock', 'ByLayer', 'Continuous'].map((n) =>
      record('LTYPE', '5', 'AcDbLinetypeTableRecord', n, 3, '', 72, 65, 73, 0, 40, 0),
    ),
  );
  table('LAYER', '2', [
    record('LAYER', '2', 'AcDbLayerTableRecord', '0', 62, 7, 6, 'Continuous', 390, 'F'),
    ...layers
      .filter(([n]) => n !== '0')
      .map(([n, colour]) =>
        record('LAYER', '2', 'AcDbLayerTableRecord', n, 62, nearestColour(colour), 6, 'Continuous', 390, 'F'),
      ),
  ]);
  table('STYLE', '3', [
    record('STYLE', '3', 'AcDbTextStyleTableRecord', 'Standard', 40, 0, 41, 1, 50, 0, 71, 0, 42, 2.5, 3, 'txt', 4, ''),
  ]);
  table('VIEW', '6', []);
  table('UCS', '7', []);
  table('APPID', '9', [record('APPID', '9', 'AcDbRegAppTableRecord', 'ACAD')]);
  put(0, 'TABLE', 2, 'DIMSTYLE', 5, 'A', 330, 0, 100, 'AcDbSymbolTable', 70, 0, 100, 'AcDbDimStyleTable', 0, 'ENDTAB');
  put(0, 'TABLE', 2, 'BLOCK_RECORD', 5, '1', 330, 0, 100, 'AcDbSymbolTable', 70, 2);
  for (const [name, own] of [
    ['*Model_Space', '1F'],
    ['*Paper_Space', '1B'],
  ] as const)
    put(0, 'BLOCK_RECORD', 5, own, 330, '1', 100, 'AcDbSymbolTableRecord', 100, 'AcDbBlockTableRecord', 2, name);
  put(0, 'ENDTAB', 0, 'ENDSEC', 0, 'SECTION', 2, 'BLOCKS');
  for (const [name, own] of [
    ['*Model_Space', '1F'],
    ['*Paper_Space', '1B'],
  ] as const)
    put(
      0,
      'BLOCK',
      5,
      hex(),
      330,
      own,
      100,
      'AcDbEntity',
      8,
      '0',
      100,
      'AcDbBlockBegin',
      2,
      name,
      70,
      0,
      10,
      0,
      20,
      0,
      30,
      0,
      3,
      name,
      1,
      '',
      0,
      'ENDBLK',
      5,
      hex(),
      330,
      own,
      100,
      'AcDbEntity',
      8,
      '0',
      100,
      'AcDbBlockEnd',
    );
  put(0, 'ENDSEC', 0, 'SECTION', 2, 'ENTITIES');

  const entity = (type: string, layer: string, kind: string) =>
    put(0, type, 5, hex(), 330, '1F', 100, 'AcDbEntity', 8, layer, 100, kind);
  const polyline = (layer: string, x: number, y: number, run: readonly Segment[], closed: boolean) => {
    const vertices: { x: number; y: number; bulge: number }[] = [];
    let px = x;
    let py = y;
    for (const s of run) {
      // A bulge cannot say a whole turn and is blunt near one: arcs over half a turn are halved.
      const parts = s.k === 'arc' ? halves(px, py, s) : [{ x: s.x, y: s.y, bulge: 0 }];
      for (const q of parts) {
        vertices.push({ x: px, y: py, bulge: q.bulge });
        px = q.x;
        py = q.y;
      }
    }
    if (!closed) vertices.push({ x: px, y: py, bulge: 0 });
    entity('LWPOLYLINE', layer, 'AcDbPolyline');
    put(90, vertices.length, 70, closed ? 1 : 0, 43, 0);
    for (const v of vertices) put(10, num(v.x), 20, num(v.y), ...(v.bulge ? [42, String(v.bulge)] : []));
  };
  const spline = (layer: string, x: number, y: number, run: readonly Segment[]) => {
    const points = [{ x, y }];
    const knots = [0, 0, 0, 0];
    run.forEach((s, i) => {
      if (s.k !== 'cubic') return;
      points.push({ x: s.x1, y: s.y1 }, { x: s.x2, y: s.y2 }, { x: s.x, y: s.y });
      knots.push(i + 1, i + 1, i + 1);
    });
    knots.push(run.length);
    entity('SPLINE', layer, 'AcDbSpline');
    put(70, 8, 71, 3, 72, knots.length, 73, points.length, 74, 0, 42, '0.0000001', 43, '0.0000001');
    for (const k of knots) put(40, k);
    for (const p of points) put(10, num(p.x), 20, num(p.y), 30, 0);
  };
  for (const t of things) {
    const layer = layerName(t.layer);
    for (const p of t.paths) {
      const circle = wholeTurn(p);
      if (circle) {
        entity('CIRCLE', layer, 'AcDbCircle');
        put(10, num(circle.x), 20, num(circle.y), 30, 0, 40, num(circle.r));
        continue;
      }
      if (p.segments.every((s) => s.k !== 'cubic')) {
        polyline(layer, p.x, p.y, p.segments, p.closed);
        continue;
      }
      let x = p.x;
      let y = p.y;
      for (let i = 0; i < p.segments.length;) {
        const curved = p.segments[i].k === 'cubic';
        let j = i;
        while (j < p.segments.length && (p.segments[j].k === 'cubic') === curved) j++;
        const run = p.segments.slice(i, j);
        if (curved) spline(layer, x, y, run);
        else polyline(layer, x, y, run, false);
        ({ x, y } = run[run.length - 1]);
        i = j;
      }
    }
  }
  put(
    0,
    'ENDSEC',
    0,
    'SECTION',
    2,
    'OBJECTS',
    0,
    'DICTIONARY',
    5,
    'C',
    330,
    0,
    100,
    'AcDbDictionary',
    281,
    1,
    3,
    'ACAD_GROUP',
    350,
    'D',
    0,
    'DICTIONARY',
    5,
    'D',
    330,
    'C',
    100,
    'AcDbDictionary',
    281,
    1,
    0,
    'ENDSEC',
    0,
    'EOF',
  );
  const lines: string[] = [];
  for (let i = 0; i < out.length; i += 2) lines.push(String(out[i]).padStart(3), String(out[i + 1]));
  return `${lines.join('\n')}\n`;
}

/** Names of layers may not hold these signs. */
const layerName = (s: string) =>
  s
    .replace(/[<>/\\":;?*|=`,]/g, ' ')
    .replace(/[^\x20-\x7e\u00a0-\uffff]/g, ' ')
    .trim()
    .slice(0, 200) || '0';

function halves(px: number, py: number, s: Segment & { k: 'arc' }): { x: number; y: number; bulge: number }[] {
  const sweep = arcSweep(px, py, s.x, s.y, s.cx, s.cy, s.ccw);
  if (Math.abs(sweep) <= Math.PI + 1e-9) return [{ x: s.x, y: s.y, bulge: Math.tan(sweep / 4) }];
  const a = Math.atan2(py - s.cy, px - s.cx) + sweep / 2;
  const r = Math.hypot(px - s.cx, py - s.cy);
  const bulge = Math.tan(sweep / 8);
  return [
    { x: s.cx + r * Math.cos(a), y: s.cy + r * Math.sin(a), bulge },
    { x: s.x, y: s.y, bulge },
  ];
}

function wholeTurn(p: Path): { x: number; y: number; r: number } | null {
  const [a] = p.segments;
  if (!p.closed || a?.k !== 'arc') return null;
  let px = p.x;
  let py = p.y;
  let turn = 0;
  for (const s of p.segments) {
    if (s.k !== 'arc' || Math.hypot(s.cx - a.cx, s.cy - a.cy) > 1e-9) return null;
    turn += arcSweep(px, py, s.x, s.y, s.cx, s.cy, s.ccw);
    px = s.x;
    py = s.y;
  }
  return Math.abs(Math.abs(turn) - 2 * Math.PI) < 1e-6
    ? { x: a.cx, y: a.cy, r: Math.hypot(p.x - a.cx, p.y - a.cy) }
    : null;
}

/** The nearest of the seven plain colours of the DXF index. */
function nearestColour(hex: string): number {
  const v = [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16));
  const table: [number, number[]][] = [
    [1, [255, 0, 0]],
    [2, [255, 255, 0]],
    [3, [0, 255, 0]],
    [4, [0, 255, 255]],
    [5, [0, 0, 255]],
    [6, [255, 0, 255]],
    [7, [0, 0, 0]],
  ];
  return table.reduce((best, t) => (dist(t[1], v) < dist(best[1], v) ? t : best))[0];
}
const dist = (a: readonly number[], b: readonly number[]) => a.reduce((s, x, i) => s + (x - b[i]) ** 2, 0);
