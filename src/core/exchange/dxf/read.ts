import DxfParser from 'dxf-parser';
import { circlePath, compose, identity, transformPath, type Affine, type Path, type Segment } from '../../geometry/path';
import { joinPaths } from '../../geometry/join';
import { splinePath } from '../../geometry/bspline';
import { bulged } from './bulge';
import { readHatch, type Group } from './hatch';
import { ExchangeError, MOST_SEGMENTS, MOST_THINGS, type Drawn, type DrawnText, type DrawnThing } from '../drawn';

interface Vertex {
  x: number;
  y: number;
  bulge?: number;
}
/** What dxf-parser gives of an entity; which fields are there depends on the type. */
interface Entity {
  type: string;
  layer?: string;
  color?: number;
  visible?: boolean;
  inPaperSpace?: boolean;
  extrusionDirection?: { x: number; y: number; z: number };
  extrusionDirectionZ?: number;
  vertices?: Vertex[];
  shape?: boolean;
  closed?: boolean;
  center?: Vertex;
  radius?: number;
  startAngle?: number;
  endAngle?: number;
  majorAxisEndPoint?: Vertex;
  axisRatio?: number;
  controlPoints?: Vertex[];
  fitPoints?: Vertex[];
  knotValues?: number[];
  weights?: number[];
  degreeOfSplineCurve?: number;
  name?: string;
  position?: Vertex;
  startPoint?: Vertex;
  xScale?: number;
  yScale?: number;
  rotation?: number;
  columnCount?: number;
  rowCount?: number;
  columnSpacing?: number;
  rowSpacing?: number;
  text?: string;
  textHeight?: number;
  height?: number;
  halign?: number;
  attachmentPoint?: number;
  /** All groups of a HATCH, in their order. */
  groups?: Group[];
}
interface Parsed {
  header?: Record<string, unknown>;
  entities?: Entity[];
  blocks?: Record<string, { position?: Vertex; entities?: Entity[] }>;
  tables?: { layer?: { layers?: Record<string, { color?: number; visible?: boolean; frozen?: boolean }> } };
}

/** mm for each $INSUNITS code of the DXF reference. */
const UNITS: Record<number, number> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000, 8: 25.4e-6, 9: 0.0254, 10: 914.4, 13: 0.001, 14: 100 };
const DEEPEST = 24;
/** Chords of splines that have no exact cubic form, mm. */
const TOLERANCE = 0.0005;

/**
 * Reads DXF: LINE, ARC, CIRCLE, ELLIPSE, LWPOLYLINE and POLYLINE with bulges, SPLINE, TEXT, MTEXT, the outlines of HATCH, and INSERT with
 * nested blocks, arrays and mirrored extrusion; layers and colours. Loose ends within `join` mm are joined.
 * Files without a unit are taken as `unit` mm a unit. Result in mm, Y up. Throws ExchangeError.
 */
export function readDxf(source: string, name: string, join = 0.01, unit = 1): Drawn {
  const sound = checkGroups(source, name);
  let parsed: Parsed;
  try {
    const parser = new DxfParser();
    parser.registerEntityHandler(HatchHandler as unknown as Parameters<typeof parser.registerEntityHandler>[0]);
    parsed = parser.parseSync(sound) as unknown as Parsed;
  } catch (e) {
    throw new ExchangeError(name, `it is not a DXF file that can be read (${(e as Error).message}).`);
  }
  if (!parsed?.entities) throw new ExchangeError(name, 'it has no section of entities. A binary DXF has to be saved as text first.');
  const code = Number(parsed.header?.$INSUNITS ?? 0);
  const known = UNITS[code] !== undefined;
  return new Reader(name, parsed, join).read(known ? UNITS[code] : unit, known);
}

/**
 * A DXF is pairs of lines: a whole number and a value. The parser runs on for ever where they have come out of step, so this
 * is looked at first; what is between sections has to begin with a 0 group. Groups of codes that the reference does not know
 * are left out of what comes back: the parser would print them one by one.
 */
function checkGroups(source: string, name: string): string {
  const lines = source.split(/\r\n|\r|\n/);
  while (lines.length && !lines[lines.length - 1].trim()) lines.pop();
  const wrong = (i: number, why: string): never => {
    throw new ExchangeError(name, `it is not a DXF file that can be read: line ${i + 1} ${why}.`);
  };
  let open = '';
  let table = '';
  let block = false;
  const sound: string[] = [];
  for (let i = 0; i < lines.length; i += 2) {
    if (!/^\s*-?\d{1,5}\s*$/.test(lines[i])) wrong(i, 'should be a group code, a whole number');
    const value = (lines[i + 1] ?? '').trim();
    const code = Number(lines[i]);
    if (known(code)) sound.push(lines[i], lines[i + 1] ?? '');
    if (code === 0 && block) wrong(i + 1, 'follows a block that has no name');
    if (code === 2) block = false;
    if (code === 0 && value === 'SECTION' && Number(lines[i + 2]) !== 2) wrong(i + 2, 'should name the section (a group 2)');
    if (code === 2 && table === 'TABLE') table = value;
    if (code !== 0) continue;
    if (/^(LAYER|VPORT)$/.test(table) && value !== table && value !== 'ENDTAB') wrong(i + 1, `is no part of a table of the kind ${table}`);
    table = value === 'TABLE' ? value : value === 'ENDTAB' ? '' : table;
    if (value === 'EOF') return open ? wrong(i + 1, `ends the file inside a ${open}`) : `${sound.join('\n')}\n`;
    block = value === 'BLOCK';
    const [begin, end] = [/^(SECTION|TABLE|BLOCK)$/.exec(value)?.[1], /^(ENDSEC|ENDTAB|ENDBLK)$/.exec(value)?.[1]];
    if (begin === 'SECTION' || begin === 'TABLE') {
      if (begin === 'SECTION' && open) wrong(i + 1, `begins a section inside a ${open}`);
      open = begin === 'SECTION' ? 'section' : open;
    } else if (end === 'ENDSEC') open = '';
  }
  return wrong(lines.length - 1, 'is the last one, but the file does not end with EOF');
}

/** Whether the DXF reference says what the value of a group code is. */
const known = (code: number): boolean => code <= 149 || (code >= 160 && code <= 179) || (code >= 210 && code <= 239) || (code >= 270 && code <= 481) || code === 999 || (code >= 1000 && code <= 1071);

/** Hands a HATCH's groups through as they stand: their meaning hangs on their order. */
class HatchHandler {
  readonly ForEntityName = 'HATCH';
  parseEntity(scanner: { next(): Group; isEOF(): boolean }, first: Group): Entity {
    const groups: Group[] = [];
    for (let g = scanner.next(); g.code !== 0 && !scanner.isEOF(); g = scanner.next()) groups.push(g);
    const value = (code: number) => groups.find((g) => g.code === code)?.value;
    // What comes before the boundaries is said of the whole.
    return { type: String(first.value), layer: String(value(8) ?? '0'), visible: value(60) !== 1, inPaperSpace: value(67) === 1, extrusionDirectionZ: Number(value(230) ?? 1), groups };
  }
}

class Reader {
  private readonly loose = new Map<string, Path[]>();
  private readonly hatches: { layer: string; paths: Path[] }[] = [];
  private readonly texts: DrawnText[] = [];
  private readonly remarks = new Set<string>();
  private readonly left = new Map<string, number>();
  private segments = 0;
  private broken = 0;
  private count = 0;

  constructor(
    private readonly name: string,
    private readonly file: Parsed,
    private readonly join: number,
  ) {}

  read(mm: number, known: boolean): Drawn {
    const scale: Affine = { ...identity, a: mm, d: mm };
    for (const e of this.file.entities!) if (!e.inPaperSpace) this.entity(e, scale, '0', []);
    const layers = this.file.tables?.layer?.layers ?? {};
    const things: DrawnThing[] = [];
    let joined = 0;
    for (const [layer, paths] of this.loose) {
      const whole = joinPaths(paths, this.join);
      joined += paths.length - whole.length;
      whole.forEach((p) => things.push({ name: p.closed ? 'Outline' : 'Line', layer, colour: colourOf(layers[layer]?.color), fill: 'evenodd', paths: [p] }));
    }
    for (const h of this.hatches) things.push({ name: 'Hatch', layer: h.layer, colour: colourOf(layers[h.layer]?.color), fill: 'evenodd', paths: h.paths });
    if (joined) this.remarks.add(`${joined} loose ends within ${this.join} mm were joined.`);
    if (this.broken) this.remarks.add(`${this.broken} ${this.broken === 1 ? 'boundary of a hatch does' : 'boundaries of hatches do'} not close and ${this.broken === 1 ? 'was' : 'were'} left out.`);
    for (const [type, n] of this.left) this.remarks.add(`${n} of the kind ${type} ${n === 1 ? 'was' : 'were'} left out.`);
    return { things, texts: this.texts, layers: [...new Set([...this.loose.keys(), ...this.hatches.map((h) => h.layer), ...this.texts.map((t) => t.layer)])].map((n) => ({ name: n, colour: colourOf(layers[n]?.color) })), remarks: [...this.remarks], unitKnown: known };
  }

  private add(paths: Path[], m: Affine, layer: string): void {
    const list = this.loose.get(layer) ?? [];
    this.loose.set(layer, list);
    list.push(...this.placed(paths, m));
  }

  /** Paths where the drawing has them. Throws where there are too many, or what are no numbers. */
  private placed(paths: readonly Path[], m: Affine): Path[] {
    return paths.flatMap((p) => {
      this.segments += p.segments.length;
      if (++this.count > MOST_THINGS || this.segments > MOST_SEGMENTS) throw new ExchangeError(this.name, 'it draws more than can be held.');
      const q = transformPath(p, m);
      if (!Number.isFinite(q.x + q.y + q.segments.reduce((s, v) => s + v.x + v.y, 0))) throw new ExchangeError(this.name, 'it draws things that are not numbers.');
      return q.segments.length ? [q] : [];
    });
  }

  private entity(e: Entity, m: Affine, parentLayer: string, blocks: readonly string[]): void {
    if (e.visible === false) return;
    // What lies on layer 0 of a block takes the layer of its insert.
    const layer = blocks.length && (e.layer ?? '0') === '0' ? parentLayer : (e.layer ?? '0');
    const mirrored = (e.extrusionDirection?.z ?? e.extrusionDirectionZ ?? 1) < 0;
    // An extrusion of -Z looks at the thing from behind: X is mirrored.
    const at = mirrored && e.type !== 'LINE' && e.type !== 'SPLINE' && e.type !== 'ELLIPSE' ? compose(m, { ...identity, a: -1 }) : m;
    switch (e.type) {
      case 'LINE': {
        const [a, b] = e.vertices ?? [];
        if (a && b && (a.x !== b.x || a.y !== b.y)) this.add([{ x: a.x, y: a.y, segments: [{ k: 'line', x: b.x, y: b.y }], closed: false }], at, layer);
        return;
      }
      case 'CIRCLE':
        if (e.center && e.radius! > 0) this.add([circlePath(e.center.x, e.center.y, e.radius!)], at, layer);
        return;
      case 'ARC': {
        if (!e.center || !(e.radius! > 0)) return;
        const p = (a: number) => ({ x: e.center!.x + e.radius! * Math.cos(a), y: e.center!.y + e.radius! * Math.sin(a) });
        this.add([{ ...p(e.startAngle!), segments: [{ k: 'arc', ...p(e.endAngle!), cx: e.center.x, cy: e.center.y, ccw: true }], closed: false }], at, layer);
        return;
      }
      case 'ELLIPSE': {
        const { center: c, majorAxisEndPoint: a } = e;
        if (!c || !a || !(e.axisRatio! > 0)) return;
        const sign = mirrored ? -1 : 1;
        const from = e.startAngle ?? 0;
        const to = e.endAngle ?? 2 * Math.PI;
        const full = Math.abs(to - from) >= 2 * Math.PI - 1e-9 || to === from;
        const unitArc: Path = full ? circlePath(0, 0, 1) : { x: Math.cos(from), y: Math.sin(from), segments: [{ k: 'arc', x: Math.cos(to), y: Math.sin(to), cx: 0, cy: 0, ccw: true }], closed: false };
        this.add([transformPath(unitArc, { a: a.x, b: a.y, c: -a.y * e.axisRatio! * sign, d: a.x * e.axisRatio! * sign, e: c.x, f: c.y })], m, layer);
        return;
      }
      case 'LWPOLYLINE':
      case 'POLYLINE': {
        const v = e.vertices ?? [];
        if (v.length < 2) return;
        const closed = !!(e.shape || e.closed);
        const segments: Segment[] = [];
        for (let i = 0; i + (closed ? 0 : 1) < v.length; i++) {
          const b = v[(i + 1) % v.length];
          if (v[i].x === b.x && v[i].y === b.y) continue;
          segments.push(bulged(v[i], b));
        }
        this.add([{ x: v[0].x, y: v[0].y, segments, closed }], at, layer);
        return;
      }
      case 'SPLINE': {
        const points = e.controlPoints ?? [];
        const fitted = e.fitPoints ?? [];
        const p = splinePath(e.degreeOfSplineCurve ?? 3, e.knotValues ?? [], points, e.weights ?? null, TOLERANCE);
        if (p) this.add([p], m, layer);
        else if (fitted.length > 1) {
          this.add([{ x: fitted[0].x, y: fitted[0].y, segments: fitted.slice(1).map((q) => ({ k: 'line', x: q.x, y: q.y })), closed: false }], m, layer);
          this.remarks.add('A spline without control points was read as lines between its fit points.');
        } else this.remarks.add('A spline whose knots do not fit its points was left out.');
        return;
      }
      case 'HATCH': {
        const h = readHatch(e.groups ?? [], TOLERANCE);
        const paths = this.placed(h.paths, at);
        if (paths.length) this.hatches.push({ layer, paths });
        if (h.patterned) this.remarks.add('Hatches were read as filled outlines; the lines of their patterns were not.');
        this.broken += h.broken;
        return;
      }
      case 'TEXT':
      case 'MTEXT':
        this.text(e, m, layer);
        return;
      case 'INSERT': {
        const block = this.file.blocks?.[e.name ?? ''];
        if (!block) {
          this.remarks.add(`A block called "${e.name}" is not in the file.`);
          return;
        }
        if (blocks.includes(e.name!) || blocks.length >= DEEPEST) throw new ExchangeError(this.name, `the block "${e.name}" holds itself.`);
        const t = ((e.rotation ?? 0) * Math.PI) / 180;
        const [sx, sy] = [e.xScale ?? 1, e.yScale ?? 1];
        const cols = Math.max(1, e.columnCount ?? 1);
        const rows = Math.max(1, e.rowCount ?? 1);
        if (cols * rows > 10_000) throw new ExchangeError(this.name, `the block "${e.name}" is repeated ${cols * rows} times.`);
        for (let r = 0; r < rows; r++)
          for (let c = 0; c < cols; c++) {
            const dx = c * (e.columnSpacing ?? 0);
            const dy = r * (e.rowSpacing ?? 0);
            const place: Affine = { a: Math.cos(t) * sx, b: Math.sin(t) * sx, c: -Math.sin(t) * sy, d: Math.cos(t) * sy, e: (e.position?.x ?? 0) + dx * Math.cos(t) - dy * Math.sin(t), f: (e.position?.y ?? 0) + dx * Math.sin(t) + dy * Math.cos(t) };
            const base = { ...identity, e: -(block.position?.x ?? 0), f: -(block.position?.y ?? 0) };
            for (const q of block.entities ?? []) this.entity(q, compose(compose(at, place), base), layer, [...blocks, e.name!]);
          }
        return;
      }
      default:
        this.left.set(e.type, (this.left.get(e.type) ?? 0) + 1);
    }
  }

  private text(e: Entity, m: Affine, layer: string): void {
    const p = e.startPoint ?? e.position;
    const words = (e.text ?? '')
      .replace(/\\P/g, '\n')
      .replace(/\\[ACcFfHQTWpLlOoKk][^;\\]*;/g, '')
      .replace(/[{}]/g, '')
      .replace(/%%[cC]/g, '\u2300')
      .replace(/%%[dD]/g, '\u00b0')
      .replace(/%%[pP]/g, '\u00b1')
      .trim();
    if (!p || !words) return;
    const size = (e.textHeight ?? e.height ?? 1) * Math.sqrt(Math.abs(m.a * m.d - m.b * m.c));
    const column = e.type === 'MTEXT' ? ((e.attachmentPoint ?? 1) - 1) % 3 : (e.halign ?? 0);
    // A DXF height is that of capitals; an em is about 1.4 of them.
    this.texts.push({ text: words, layer, family: '', bold: false, size: size * 1.4, x: m.a * p.x + m.c * p.y + m.e, y: m.b * p.x + m.d * p.y + m.f, angle: (e.rotation ?? 0) + (Math.atan2(m.b, m.a) * 180) / Math.PI, anchor: column === 1 ? 'centre' : column === 2 ? 'right' : 'left' });
  }
}

const colourOf = (v: number | undefined): string | null => (v !== undefined && v >= 0 && v <= 0xffffff ? `#${v.toString(16).padStart(6, '0')}` : null);
