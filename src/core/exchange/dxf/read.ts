import {
  circlePath,
  compose,
  identity,
  transformPath,
  type Affine,
  type Path,
  type Segment,
} from '../../geometry/path';
import { joinPaths } from '../../geometry/join';
import { splinePath } from '../../geometry/bspline';
import { bulged } from './bulge';
import { readGroups } from './groups';
import { readHatch } from './hatch';
import { colourOfIndex, parseGroups, type Entity, type Parsed } from './parse';
import { append } from '../../units/append';
import { ExchangeError, MOST_SEGMENTS, MOST_THINGS, type Drawn, type DrawnText, type DrawnThing } from '../drawn';

/** mm for each $INSUNITS code of the DXF reference. */
const UNITS: Record<number, number> = {
  1: 25.4,
  2: 304.8,
  4: 1,
  5: 10,
  6: 1000,
  8: 25.4e-6,
  9: 0.0254,
  10: 914.4,
  13: 0.001,
  14: 100,
};
const DEEPEST = 24;
/** Chords of splines that have no exact cubic form, mm. */
const TOLERANCE = 0.0005;

/**
 * Reads DXF: LINE, ARC, CIRCLE, ELLIPSE, LWPOLYLINE and POLYLINE with bulges, SPLINE, TEXT, MTEXT, the outlines of HATCH, and INSERT with
 * nested blocks, arrays and mirrored extrusion; layers and colours. Loose ends within `join` mm are joined.
 * Files without a unit are taken as `unit` mm a unit. Result in mm, Y up. Throws ExchangeError.
 */
export function readDxf(source: string, name: string, join = 0.01, unit = 1): Drawn {
  const parsed = parseGroups(readGroups(source, name));
  if (!parsed.entities)
    throw new ExchangeError(name, 'it has no section of entities. A binary DXF has to be saved as text first.');
  const known = UNITS[parsed.unit] !== undefined;
  return new Reader(name, parsed, join).read(known ? UNITS[parsed.unit] : unit, known);
}

/** So many things may be looked at, those in blocks as often as they are placed: beyond it a small file could keep the reader busy for ever. */
const MOST_VISITS = 1_000_000;

class Reader {
  private readonly loose = new Map<string, Path[]>();
  private readonly hatches: { layer: string; paths: Path[] }[] = [];
  private readonly texts: DrawnText[] = [];
  private readonly remarks = new Set<string>();
  private readonly left = new Map<string, number>();
  private segments = 0;
  private broken = 0;
  private count = 0;
  private visits = 0;

  constructor(
    private readonly name: string,
    private readonly file: Parsed,
    private readonly join: number,
  ) {}

  read(mm: number, known: boolean): Drawn {
    const scale: Affine = { ...identity, a: mm, d: mm };
    for (const e of this.file.entities!) if (!e.inPaperSpace) this.entity(e, scale, '0', []);
    const { layers } = this.file;
    const things: DrawnThing[] = [];
    let joined = 0;
    for (const [layer, paths] of this.loose) {
      const whole = joinPaths(paths, this.join);
      joined += paths.length - whole.length;
      whole.forEach((p) =>
        things.push({
          name: p.closed ? 'Outline' : 'Line',
          layer,
          colour: colourOfIndex(layers.get(layer)),
          fill: 'evenodd',
          paths: [p],
        }),
      );
    }
    for (const h of this.hatches)
      things.push({
        name: 'Hatch',
        layer: h.layer,
        colour: colourOfIndex(layers.get(h.layer)),
        fill: 'evenodd',
        paths: h.paths,
      });
    if (joined) this.remarks.add(`${joined} loose ends within ${this.join} mm were joined.`);
    if (this.broken)
      this.remarks.add(
        `${this.broken} ${this.broken === 1 ? 'boundary of a hatch does' : 'boundaries of hatches do'} not close and ${this.broken === 1 ? 'was' : 'were'} left out.`,
      );
    for (const [type, n] of this.left)
      this.remarks.add(`${n} of the kind ${type} ${n === 1 ? 'was' : 'were'} left out.`);
    return {
      things,
      texts: this.texts,
      layers: [
        ...new Set([...this.loose.keys(), ...this.hatches.map((h) => h.layer), ...this.texts.map((t) => t.layer)]),
      ].map((n) => ({ name: n, colour: colourOfIndex(layers.get(n)) })),
      remarks: [...this.remarks],
      unitKnown: known,
    };
  }

  private add(paths: Path[], m: Affine, layer: string): void {
    const list = this.loose.get(layer) ?? [];
    this.loose.set(layer, list);
    append(list, this.placed(paths, m));
  }

  /** Paths where the drawing has them. Throws where there are too many, or what are no numbers. */
  private placed(paths: readonly Path[], m: Affine): Path[] {
    return paths.flatMap((p) => {
      this.segments += p.segments.length;
      if (++this.count > MOST_THINGS || this.segments > MOST_SEGMENTS)
        throw new ExchangeError(this.name, 'it draws more than can be held.');
      const q = transformPath(p, m);
      if (!Number.isFinite(q.x + q.y + q.segments.reduce((s, v) => s + v.x + v.y, 0)))
        throw new ExchangeError(this.name, 'it draws things that are not numbers.');
      return q.segments.length ? [q] : [];
    });
  }

  private visit(): void {
    if (++this.visits > MOST_VISITS)
      throw new ExchangeError(this.name, `its blocks are placed in each other more than ${MOST_VISITS} times.`);
  }

  private entity(e: Entity, m: Affine, parentLayer: string, blocks: readonly string[]): void {
    this.visit();
    if (!e.visible) return;
    // What lies on layer 0 of a block takes the layer of its insert.
    const layer = blocks.length && e.layer === '0' ? parentLayer : e.layer;
    const { mirrored } = e;
    // An extrusion of -Z looks at the thing from behind: X is mirrored.
    const at =
      mirrored && e.type !== 'LINE' && e.type !== 'SPLINE' && e.type !== 'ELLIPSE'
        ? compose(m, { ...identity, a: -1 })
        : m;
    switch (e.type) {
      case 'LINE': {
        const [a, b] = e.vertices ?? [];
        if (a && b && (a.x !== b.x || a.y !== b.y))
          this.add([{ x: a.x, y: a.y, segments: [{ k: 'line', x: b.x, y: b.y }], closed: false }], at, layer);
        return;
      }
      case 'CIRCLE':
        if (e.center && e.radius! > 0) this.add([circlePath(e.center.x, e.center.y, e.radius!)], at, layer);
        return;
      case 'ARC': {
        if (!e.center || !(e.radius! > 0)) return;
        const p = (a: number) => ({
          x: e.center!.x + e.radius! * Math.cos(a),
          y: e.center!.y + e.radius! * Math.sin(a),
        });
        this.add(
          [
            {
              ...p(e.startAngle!),
              segments: [{ k: 'arc', ...p(e.endAngle!), cx: e.center.x, cy: e.center.y, ccw: true }],
              closed: false,
            },
          ],
          at,
          layer,
        );
        return;
      }
      case 'ELLIPSE': {
        const { center: c, majorAxisEndPoint: a } = e;
        if (!c || !a || !(e.axisRatio! > 0)) return;
        const sign = mirrored ? -1 : 1;
        const from = e.startAngle ?? 0;
        const to = e.endAngle ?? 2 * Math.PI;
        const full = Math.abs(to - from) >= 2 * Math.PI - 1e-9 || to === from;
        const unitArc: Path = full
          ? circlePath(0, 0, 1)
          : {
              x: Math.cos(from),
              y: Math.sin(from),
              segments: [{ k: 'arc', x: Math.cos(to), y: Math.sin(to), cx: 0, cy: 0, ccw: true }],
              closed: false,
            };
        this.add(
          [
            transformPath(unitArc, {
              a: a.x,
              b: a.y,
              c: -a.y * e.axisRatio! * sign,
              d: a.x * e.axisRatio! * sign,
              e: c.x,
              f: c.y,
            }),
          ],
          m,
          layer,
        );
        return;
      }
      case 'LWPOLYLINE':
      case 'POLYLINE': {
        const v = e.vertices ?? [];
        if (v.length < 2) return;
        const closed = !!e.closed;
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
        const p = splinePath(e.degree ?? 3, e.knots ?? [], points, e.weights ?? null, TOLERANCE);
        if (p) this.add([p], m, layer);
        else if (fitted.length > 1) {
          this.add(
            [
              {
                x: fitted[0].x,
                y: fitted[0].y,
                segments: fitted.slice(1).map((q) => ({ k: 'line', x: q.x, y: q.y })),
                closed: false,
              },
            ],
            m,
            layer,
          );
          this.remarks.add('A spline without control points was read as lines between its fit points.');
        } else this.remarks.add('A spline whose knots do not fit its points was left out.');
        return;
      }
      case 'HATCH': {
        const h = readHatch(e.groups ?? [], TOLERANCE);
        const paths = this.placed(h.paths, at);
        if (paths.length) this.hatches.push({ layer, paths });
        if (h.patterned)
          this.remarks.add('Hatches were read as filled outlines; the lines of their patterns were not.');
        this.broken += h.broken;
        return;
      }
      case 'TEXT':
      case 'MTEXT':
        this.text(e, m, layer);
        return;
      case 'INSERT': {
        const block = this.file.blocks.get(e.name ?? '');
        if (!block) {
          this.remarks.add(`A block called "${e.name}" is not in the file.`);
          return;
        }
        if (blocks.includes(e.name!) || blocks.length >= DEEPEST)
          throw new ExchangeError(this.name, `the block "${e.name}" holds itself.`);
        const t = ((e.rotation ?? 0) * Math.PI) / 180;
        const { x: sx, y: sy } = e.scale!;
        const [columns, lines] = [e.columns!, e.rows!];
        const cols = Math.max(1, columns.count);
        const rows = Math.max(1, lines.count);
        if (cols * rows > 10_000)
          throw new ExchangeError(this.name, `the block "${e.name}" is repeated ${cols * rows} times.`);
        for (let r = 0; r < rows; r++)
          for (let c = 0; c < cols; c++) {
            this.visit();
            const dx = c * columns.spacing;
            const dy = r * lines.spacing;
            const place: Affine = {
              a: Math.cos(t) * sx,
              b: Math.sin(t) * sx,
              c: -Math.sin(t) * sy,
              d: Math.cos(t) * sy,
              e: (e.position?.x ?? 0) + dx * Math.cos(t) - dy * Math.sin(t),
              f: (e.position?.y ?? 0) + dx * Math.sin(t) + dy * Math.cos(t),
            };
            const base = { ...identity, e: -block.position.x, f: -block.position.y };
            for (const q of block.entities)
              this.entity(q, compose(compose(at, place), base), layer, [...blocks, e.name!]);
          }
        return;
      }
      default:
        this.left.set(e.type, (this.left.get(e.type) ?? 0) + 1);
    }
  }

  private text(e: Entity, m: Affine, layer: string): void {
    const p = e.position;
    const words = (e.text ?? '')
      .replace(/\\P/g, '\n')
      .replace(/\\[ACcFfHQTWpLlOoKk][^;\\]*;/g, '')
      .replace(/[{}]/g, '')
      .replace(/%%[cC]/g, '\u2300')
      .replace(/%%[dD]/g, '\u00b0')
      .replace(/%%[pP]/g, '\u00b1')
      .trim();
    if (!p || !words) return;
    const size = (e.height ?? 1) * Math.sqrt(Math.abs(m.a * m.d - m.b * m.c));
    const { column } = e;
    // A DXF height is that of capitals; an em is about 1.4 of them.
    this.texts.push({
      text: words,
      layer,
      family: '',
      bold: false,
      size: size * 1.4,
      x: m.a * p.x + m.c * p.y + m.e,
      y: m.b * p.x + m.d * p.y + m.f,
      angle: (e.rotation ?? 0) + (Math.atan2(m.b, m.a) * 180) / Math.PI,
      anchor: column === 1 ? 'centre' : column === 2 ? 'right' : 'left',
    });
  }
}
