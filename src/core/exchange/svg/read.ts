import { XMLParser, XMLValidator } from 'fast-xml-parser';
import { circlePath, compose, identity, transformPath, type Affine, type Path } from '../../geometry/path';
import { ExchangeError, MOST_SEGMENTS, MOST_THINGS, type Drawn, type DrawnText, type DrawnThing } from '../drawn';
import { readPathData } from './pathData';
import { colourOf, rootStyle, StyleError, StyleSheet, type Style } from './style';
import { readLength, readTransform, userNumber } from './transform';

interface Element {
  readonly tag: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly Element[];
  readonly text: string;
}

type Raw = Record<string, unknown>;

const DEEPEST = 300;
const DEEPEST_USE = 24;
/** So many elements may be looked at, those that are used again as often as they are: beyond it a small file could keep the reader busy for ever. */
const MOST_VISITS = 1_000_000;
/** Elements that draw nothing where they stand. */
const ASIDE = new Set([
  'defs',
  'symbol',
  'style',
  'title',
  'desc',
  'metadata',
  'clipPath',
  'mask',
  'marker',
  'pattern',
  'linearGradient',
  'radialGradient',
  'filter',
]);
const usedId = (e: Element): string => (e.attributes.href ?? e.attributes['xlink:href'] ?? '').replace(/^#/, '');

/**
 * Reads SVG (SVG 2 static shapes): paths with every command, basic shapes, nested groups and `svg`s, `use` and
 * symbols, transforms, styles by attribute, style sheet and style attribute, units and viewBox, fill rule.
 * Strokes without fill are kept as lines. Result in mm, Y up, the lower left corner of the page at 0, 0.
 * Scripts are never run, other files never asked for. Throws ExchangeError.
 */
export function readSvg(source: string, name: string): Drawn {
  if (/<!ENTITY/i.test(source))
    throw new ExchangeError(
      name,
      'it declares entities of its own, which can be used to fill a memory. Save it again as plain SVG.',
    );
  let raw: Raw[];
  try {
    raw = new XMLParser({
      preserveOrder: true,
      ignoreAttributes: false,
      attributeNamePrefix: '',
      parseTagValue: false,
      parseAttributeValue: false,
      trimValues: false,
      ignoreDeclaration: true,
      ignorePiTags: true,
      maxNestedTags: DEEPEST,
    }).parse(source) as Raw[];
  } catch (e) {
    if (/nested/i.test((e as Error).message))
      throw new ExchangeError(name, `its elements are nested more than ${DEEPEST} deep.`);
    const found = XMLValidator.validate(source);
    throw new ExchangeError(
      name,
      `it is not well-formed XML${found === true ? '' : `: line ${found.err.line} breaks its rules`}.`,
    );
  }
  const root = raw.map((r) => elementOf(r, 0, name)).find((e) => e?.tag === 'svg');
  if (!root) throw new ExchangeError(name, 'it holds no <svg> element.');
  try {
    return new Reader(name).read(root);
  } catch (e) {
    if (e instanceof StyleError) throw new ExchangeError(name, `${e.message}. Save it again as plain SVG.`);
    throw e;
  }
}

function elementOf(raw: Raw, depth: number, name: string): Element | null {
  if (depth > DEEPEST) throw new ExchangeError(name, `its elements are nested more than ${DEEPEST} deep.`);
  const key = Object.keys(raw).find((k) => k !== ':@');
  if (!key || key === '#text' || key.startsWith('?')) return null;
  const inner = raw[key];
  const list = Array.isArray(inner) ? (inner as Raw[]) : [];
  return {
    tag: key.includes(':') ? key.slice(key.indexOf(':') + 1) : key,
    attributes: (raw[':@'] as Record<string, string>) ?? {},
    children: list.map((c) => elementOf(c, depth + 1, name)).filter((c) => c !== null),
    text: list.map((c) => ('#text' in c ? String(c['#text']) : '')).join(''),
  };
}

class Reader {
  private readonly things: DrawnThing[] = [];
  private readonly texts: DrawnText[] = [];
  private readonly layers = new Map<string, string | null>();
  private readonly remarks = new Set<string>();
  private readonly sheet = new StyleSheet();
  private readonly byId = new Map<string, Element>();
  /** How many elements are looked at for one of them, itself and what it uses; 0 while they are being counted. */
  private readonly visits = new Map<Element, number>();
  private segments = 0;

  constructor(private readonly name: string) {}

  read(root: Element): Drawn {
    this.collect(root);
    if (this.visitsOf(root) > MOST_VISITS)
      throw new ExchangeError(this.name, `its parts are used in each other more than ${MOST_VISITS} times.`);
    const { matrix, height, known } = page(root);
    // The page's lower left corner is the origin, Y up.
    const up = compose({ a: 1, b: 0, c: 0, d: -1, e: 0, f: height }, matrix);
    const tops = root.children.filter((c) => c.tag === 'g');
    const layered = tops.some((g) => layerName(g, true)) || tops.length > 1;
    const style = this.sheet.of(root, rootStyle);
    let n = 0;
    for (const c of root.children) {
      const layer = layered && c.tag === 'g' ? (layerName(c, false) ?? `Layer ${++n}`) : 'Drawing';
      this.walk(c, up, style, layer, []);
    }
    if (this.sheet.skipped.size)
      this.remarks.add(
        `Some rules of its style sheet were left out: ${[...this.sheet.skipped].slice(0, 5).join('; ')}${this.sheet.skipped.size > 5 ? ' and more' : ''}.`,
      );
    return {
      things: this.things,
      texts: this.texts,
      layers: [...this.layers].map(([name, colour]) => ({ name, colour })),
      remarks: [...this.remarks],
      unitKnown: known,
    };
  }

  private collect(e: Element): void {
    if (e.attributes.id && !this.byId.has(e.attributes.id)) this.byId.set(e.attributes.id, e);
    if (e.tag === 'style') this.sheet.add(e.text);
    e.children.forEach((c, i) => {
      this.sheet.place(c, e, e.children, i);
      this.collect(c);
    });
  }

  /** Counted once for each element, however often it is used; one that leads back to itself counts as nothing there, and is found by `walk`. */
  private visitsOf(e: Element): number {
    const known = this.visits.get(e);
    if (known !== undefined) return known;
    this.visits.set(e, 0);
    let n = 1;
    for (const c of e.children) if (!ASIDE.has(c.tag)) n += this.visitsOf(c);
    const target = e.tag === 'use' && this.byId.get(usedId(e));
    if (target) n += this.visitsOf(target);
    this.visits.set(e, n);
    return n;
  }

  private walk(e: Element, outer: Affine, parent: Style, layer: string, uses: readonly string[]): void {
    const a = e.attributes;
    if (ASIDE.has(e.tag)) return;
    switch (e.tag) {
      case 'script':
        this.remarks.add('It holds a script, which was left out.');
        return;
      case 'image':
        this.remarks.add('It holds pictures, which were left out. Trace them instead.');
        return;
      case 'foreignObject':
        this.remarks.add('It holds foreign objects, which were left out.');
        return;
    }
    const style = this.sheet.of(e, parent);
    if (style.display === 'none' || Number(style.opacity) === 0) return;
    if (a['clip-path'] && a['clip-path'] !== 'none')
      this.remarks.add('A clip was not applied: what it would hide is there.');
    if (a.mask && a.mask !== 'none') this.remarks.add('A mask was not applied: what it would hide is there.');
    const own = readTransform(a.transform);
    if (!own) this.remarks.add('A transform could not be read and was left out.');
    const m = compose(outer, own ?? identity);
    switch (e.tag) {
      case 'g':
      case 'a':
      case 'switch':
        for (const c of e.children) this.walk(c, m, style, layer, uses);
        return;
      case 'svg':
        for (const c of e.children) this.walk(c, compose(m, viewport(e, e.attributes)), style, layer, uses);
        return;
      case 'use': {
        const id = usedId(e);
        const target = this.byId.get(id);
        if (!target) {
          this.remarks.add('A "use" points at something that is not in the file.');
          return;
        }
        if (uses.includes(id) || uses.length >= DEEPEST_USE)
          throw new ExchangeError(this.name, `"use" of "${id}" leads back to itself.`);
        const at = compose(m, { ...identity, e: or(userNumber(a.x), 0), f: or(userNumber(a.y), 0) });
        const next = [...uses, id];
        if (target.tag === 'symbol') {
          const inner = compose(at, viewport(target, { ...target.attributes, ...a, x: '0', y: '0' }));
          const s = this.sheet.of(target, style);
          for (const c of target.children) this.walk(c, inner, s, layer, next);
        } else this.walk(target, at, style, layer, next);
        return;
      }
      case 'text':
        this.text(e, m, style, layer);
        return;
    }
    const paths = this.shape(e);
    if (!paths?.length || style.visibility !== 'visible') return;
    this.add(paths, m, style, layer, a.id ?? e.tag);
  }

  private shape(e: Element): Path[] | null {
    const a = e.attributes;
    const n = (k: string, whole = 0) => or(userNumber(a[k]), whole);
    switch (e.tag) {
      case 'path': {
        const r = readPathData(a.d ?? '');
        if (r.error) this.remarks.add('A path is broken; what comes before the break was kept.');
        return r.paths;
      }
      case 'rect': {
        const [x, y, w, h] = [n('x'), n('y'), n('width'), n('height')];
        if (!(w > 0 && h > 0)) return null;
        let rx = userNumber(a.rx);
        let ry = userNumber(a.ry);
        if (!(rx >= 0)) rx = ry >= 0 ? ry : 0;
        if (!(ry >= 0)) ry = rx;
        rx = Math.min(rx, w / 2);
        ry = Math.min(ry, h / 2);
        const d =
          rx > 0 && ry > 0
            ? `M${x + rx} ${y}H${x + w - rx}A${rx} ${ry} 0 0 1 ${x + w} ${y + ry}V${y + h - ry}A${rx} ${ry} 0 0 1 ${x + w - rx} ${y + h}H${x + rx}A${rx} ${ry} 0 0 1 ${x} ${y + h - ry}V${y + ry}A${rx} ${ry} 0 0 1 ${x + rx} ${y}Z`
            : `M${x} ${y}H${x + w}V${y + h}H${x}Z`;
        return readPathData(d).paths;
      }
      case 'circle':
        return n('r') > 0 ? [circlePath(n('cx'), n('cy'), n('r'))] : null;
      case 'ellipse': {
        const rx = n('rx', n('ry'));
        const ry = n('ry', rx);
        return rx > 0 && ry > 0
          ? [transformPath(circlePath(0, 0, 1), { a: rx, b: 0, c: 0, d: ry, e: n('cx'), f: n('cy') })]
          : null;
      }
      case 'line':
        return [{ x: n('x1'), y: n('y1'), segments: [{ k: 'line', x: n('x2'), y: n('y2') }], closed: false }];
      case 'polyline':
      case 'polygon': {
        const v = (a.points?.match(/[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi) ?? []).map(Number);
        if (v.length < 4) return null;
        return readPathData(`M${v.slice(0, v.length - (v.length % 2)).join(' ')}${e.tag === 'polygon' ? 'Z' : ''}`)
          .paths;
      }
      default:
        return null;
    }
  }

  private add(paths: Path[], m: Affine, style: Style, layer: string, name: string): void {
    const filled = style.fill !== 'none' && style.fill !== 'transparent';
    const stroked = style.stroke !== 'none' && style.stroke !== 'transparent';
    if (!filled && !stroked) return;
    if (this.things.length >= MOST_THINGS)
      throw new ExchangeError(this.name, `it draws more than ${MOST_THINGS} things.`);
    const placed: Path[] = [];
    for (const p of paths) {
      this.segments += p.segments.length;
      if (this.segments > MOST_SEGMENTS)
        throw new ExchangeError(this.name, `its outlines have more than ${MOST_SEGMENTS} nodes.`);
      const q = transformPath(p, m);
      if (!Number.isFinite(q.x + q.y) || Math.abs(q.x) > 1e6 || Math.abs(q.y) > 1e6)
        throw new ExchangeError(this.name, 'it draws things that are not numbers or more than a kilometre away.');
      if (filled && !q.closed) {
        const last = q.segments[q.segments.length - 1];
        if (Math.hypot(last.x - q.x, last.y - q.y) > 1e-9) q.segments.push({ k: 'line', x: q.x, y: q.y });
        placed.push({ ...q, closed: true });
      } else placed.push(q);
    }
    const colour = colourOf(filled ? style.fill : style.stroke, style.color);
    if (!this.layers.has(layer)) this.layers.set(layer, colour);
    this.things.push({
      name,
      layer,
      colour,
      fill: style.fillRule === 'evenodd' ? 'evenodd' : 'nonzero',
      paths: placed,
    });
  }

  private text(e: Element, m: Affine, style: Style, layer: string): void {
    const spans = e.children.filter((c) => c.tag === 'tspan');
    const rows = spans.length ? spans : [e];
    for (const r of rows) {
      const words = (r.text || r.children.map((c) => c.text).join('')).replace(/\s+/g, ' ').trim();
      if (!words) continue;
      const s = r === e ? style : this.sheet.of(r, style);
      const x = or(userNumber(r.attributes.x), or(userNumber(e.attributes.x), 0));
      const y = or(userNumber(r.attributes.y), or(userNumber(e.attributes.y), 0));
      const per = Math.sqrt(Math.abs(m.a * m.d - m.b * m.c));
      if (!this.layers.has(layer)) this.layers.set(layer, colourOf(s.fill, s.color));
      this.texts.push({
        text: words,
        layer,
        family: s.fontFamily.replace(/["']/g, ''),
        bold: s.fontWeight === 'bold' || Number(s.fontWeight) >= 600,
        size: or(userNumber(s.fontSize), 16) * per,
        x: m.a * x + m.c * y + m.e,
        y: m.b * x + m.d * y + m.f,
        angle: (Math.atan2(m.b, m.a) * 180) / Math.PI,
        anchor: s.textAnchor === 'middle' ? 'centre' : s.textAnchor === 'end' ? 'right' : 'left',
      });
    }
  }
}

const or = (v: number, otherwise: number) => (Number.isFinite(v) ? v : otherwise);

/** A layer's name: what an editor calls it, its title, or (when asked less strictly) its id. */
function layerName(g: Element, strict: boolean): string | null {
  const label = Object.entries(g.attributes).find(([k]) => k.endsWith(':label'))?.[1];
  const mode = Object.entries(g.attributes).some(([k, v]) => k.endsWith(':groupmode') && v === 'layer');
  if (strict) return mode ? (label ?? 'Layer') : null;
  return label ?? g.children.find((c) => c.tag === 'title')?.text.trim() ?? g.attributes.id ?? null;
}

function viewBox(e: Element): [number, number, number, number] | null {
  const v = (e.attributes.viewBox ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  return v.length === 4 && v.every(Number.isFinite) && v[2] > 0 && v[3] > 0
    ? (v as [number, number, number, number])
    : null;
}

/** How a viewBox fills a width and height (SVG 2, preserveAspectRatio). */
function fit(box: [number, number, number, number], w: number, h: number, keep: string | undefined): Affine {
  let sx = w / box[2];
  let sy = h / box[3];
  let ex = 0;
  let ey = 0;
  const mode = (keep ?? 'xMidYMid meet').trim().split(/\s+/);
  if (mode[0] !== 'none') {
    const s = mode[1] === 'slice' ? Math.max(sx, sy) : Math.min(sx, sy);
    const share = (name: string) => (name === 'Min' ? 0 : name === 'Max' ? 1 : 0.5);
    ex = (w - box[2] * s) * share(mode[0].slice(1, 4));
    ey = (h - box[3] * s) * share(mode[0].slice(5, 8));
    sx = sy = s;
  }
  return { a: sx, b: 0, c: 0, d: sy, e: ex - box[0] * sx, f: ey - box[1] * sy };
}

/** From user units of the root to mm, Y still down, and the height of the page. */
function page(root: Element): { matrix: Affine; height: number; known: boolean } {
  const box = viewBox(root);
  const w = readLength(root.attributes.width);
  const h = readLength(root.attributes.height);
  const px = 25.4 / 96;
  const width = w?.mm ?? (box ? (h ? (h.mm * box[2]) / box[3] : box[2] * px) : 0);
  const height = h?.mm ?? (box ? (w ? (w.mm * box[3]) / box[2] : box[3] * px) : 0);
  const known = !!(w?.real || h?.real);
  if (box && width > 0 && height > 0)
    return { matrix: fit(box, width, height, root.attributes.preserveAspectRatio), height, known };
  return { matrix: { a: px, b: 0, c: 0, d: px, e: 0, f: 0 }, height, known };
}

/** The place and viewBox of a nested `svg` or a `symbol`. */
function viewport(e: Element, a: Readonly<Record<string, string>>): Affine {
  const at = { ...identity, e: or(userNumber(a.x), 0), f: or(userNumber(a.y), 0) };
  const box = viewBox(e);
  if (!box) return at;
  return compose(
    at,
    fit(
      box,
      or(userNumber(a.width, box[2]), box[2]),
      or(userNumber(a.height, box[3]), box[3]),
      e.attributes.preserveAspectRatio,
    ),
  );
}
