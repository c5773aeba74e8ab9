import { numberOf, type Group } from './groups';

export interface Vertex {
  x: number;
  y: number;
  bulge?: number;
}

/** An entity with what is read of it; which fields are there depends on the type. Angles of arcs and ellipses in radians, turns in degrees. */
export interface Entity {
  readonly type: string;
  readonly layer: string;
  readonly visible: boolean;
  readonly inPaperSpace: boolean;
  /** Whether it is seen from behind: an extrusion along -Z. */
  readonly mirrored: boolean;
  vertices?: Vertex[];
  closed?: boolean;
  center?: Vertex;
  radius?: number;
  startAngle?: number;
  endAngle?: number;
  majorAxisEndPoint?: Vertex;
  axisRatio?: number;
  controlPoints?: Vertex[];
  fitPoints?: Vertex[];
  knots?: number[];
  weights?: number[];
  degree?: number;
  name?: string;
  position?: Vertex;
  scale?: { x: number; y: number };
  rotation?: number;
  columns?: { count: number; spacing: number };
  rows?: { count: number; spacing: number };
  text?: string;
  height?: number;
  /** 0 left, 1 centre, 2 right. */
  column?: number;
  /** All groups of a HATCH, in their order. */
  groups?: readonly Group[];
}

export interface Block {
  readonly position: Vertex;
  readonly entities: readonly Entity[];
}

export interface Parsed {
  /** The drawing's unit ($INSUNITS), 0 where it says none. */
  readonly unit: number;
  /** Null where there is no section of entities. */
  readonly entities: readonly Entity[] | null;
  readonly blocks: ReadonlyMap<string, Block>;
  /** Colour index of each layer. */
  readonly layers: ReadonlyMap<string, number>;
}

/** What the groups of a file say. Nothing is made larger than the file, whatever it claims of its own counts. */
export function parseGroups(groups: readonly Group[]): Parsed {
  let unit = 0;
  let entities: Entity[] | null = null;
  const blocks = new Map<string, Block>();
  const layers = new Map<string, number>();
  let at = 0;
  const is = (code: number, value: string) => groups[at]?.code === code && groups[at].value === value;
  /** The groups from here to the next 0, which is not taken. */
  const own = (): Group[] => {
    const from = at;
    while (at < groups.length && groups[at].code !== 0) at++;
    return groups.slice(from, at);
  };
  /** Entities up to one of the given ends, which is not taken. */
  const list = (ends: readonly string[]): Entity[] => {
    const out: Entity[] = [];
    while (at < groups.length && !ends.includes(groups[at].value)) {
      const type = groups[at++].value;
      const mine = own();
      if (type === 'SEQEND') continue;
      const e = entity(type, mine);
      if (type === 'POLYLINE') {
        // Its corners follow as entities, up to a SEQEND; where that is missing, up to what is none.
        e.vertices = [];
        while (is(0, 'VERTEX')) {
          at++;
          const v = own();
          // 16: a control point of the curve that the other vertices are fitted to.
          if (!(numberOf(first(v, 70)) & 16)) e.vertices.push({ x: num(v, 10), y: num(v, 20), bulge: num(v, 42, 0) });
        }
      }
      out.push(e);
    }
    return out;
  };
  while (at < groups.length) {
    const section = is(0, 'SECTION') ? groups[at + 1]?.value : '';
    at++;
    if (section === 'HEADER') {
      const head = own();
      const k = head.findIndex((g) => g.code === 9 && g.value === '$INSUNITS');
      if (k >= 0) unit = numberOf(head[k + 1]) || 0;
    } else if (section === 'TABLES') {
      while (at < groups.length && !is(0, 'ENDSEC')) {
        const layer = is(0, 'LAYER');
        at++;
        const g = own();
        if (layer) layers.set(first(g, 2)?.value ?? '0', numberOf(first(g, 62)));
      }
    } else if (section === 'BLOCKS') {
      while (at < groups.length && !is(0, 'ENDSEC')) {
        const block = is(0, 'BLOCK');
        at++;
        const g = own();
        if (!block) continue;
        const inside = list(['ENDBLK', 'ENDSEC']);
        blocks.set(first(g, 2)?.value ?? '', { position: { x: num(g, 10, 0), y: num(g, 20, 0) }, entities: inside });
      }
    } else if (section === 'ENTITIES') {
      own();
      entities = [...(entities ?? []), ...list(['ENDSEC'])];
    }
  }
  return { unit, entities, blocks, layers };
}

const first = (g: readonly Group[], code: number): Group | undefined => g.find((q) => q.code === code);
const num = (g: readonly Group[], code: number, missing = NaN): number => {
  const found = first(g, code);
  return found ? numberOf(found) : missing;
};
const all = (g: readonly Group[], code: number): number[] => g.filter((q) => q.code === code).map(numberOf);
const point = (g: readonly Group[], code: number): Vertex | undefined =>
  first(g, code) ? { x: num(g, code), y: num(g, code + 10, 0) } : undefined;
/** Points that follow each other: each begins with its X. */
function points(g: readonly Group[], code: number): Vertex[] {
  const out: Vertex[] = [];
  for (const q of g) {
    if (q.code === code) out.push({ x: numberOf(q), y: 0 });
    else if (q.code === code + 10 && out.length) out[out.length - 1].y = numberOf(q);
    else if (q.code === 42 && code === 10 && out.length) out[out.length - 1].bulge = numberOf(q);
  }
  return out;
}
const RAD = Math.PI / 180;

function entity(type: string, g: readonly Group[]): Entity {
  const e: Entity = {
    type,
    layer: first(g, 8)?.value || '0',
    visible: num(g, 60, 0) === 0,
    inPaperSpace: num(g, 67, 0) === 1,
    mirrored: num(g, 230, 1) < 0,
  };
  switch (type) {
    case 'LINE': {
      const [a, b] = [point(g, 10), point(g, 11)];
      return { ...e, vertices: a && b ? [a, b] : [] };
    }
    case 'CIRCLE':
    case 'ARC':
      return {
        ...e,
        center: point(g, 10),
        radius: num(g, 40),
        startAngle: num(g, 50, 0) * RAD,
        endAngle: num(g, 51, 360) * RAD,
      };
    case 'ELLIPSE':
      return {
        ...e,
        center: point(g, 10),
        majorAxisEndPoint: point(g, 11),
        axisRatio: num(g, 40),
        startAngle: num(g, 41, 0),
        endAngle: num(g, 42, 2 * Math.PI),
      };
    case 'LWPOLYLINE':
      return { ...e, vertices: points(g, 10), closed: (num(g, 70, 0) & 1) === 1 };
    case 'POLYLINE': {
      const flags = num(g, 70, 0);
      // 16 and 64: meshes, which are no outlines.
      return flags & 80 ? { ...e, type: 'mesh' } : { ...e, closed: (flags & 1) === 1 };
    }
    case 'SPLINE': {
      const weights = all(g, 41);
      return {
        ...e,
        degree: num(g, 71, 3),
        knots: all(g, 40),
        controlPoints: points(g, 10),
        fitPoints: points(g, 11),
        weights: weights.length ? weights : undefined,
      };
    }
    case 'INSERT':
      return {
        ...e,
        name: first(g, 2)?.value ?? '',
        position: point(g, 10),
        scale: { x: num(g, 41, 1), y: num(g, 42, 1) },
        rotation: num(g, 50, 0),
        columns: { count: num(g, 70, 1), spacing: num(g, 44, 0) },
        rows: { count: num(g, 71, 1), spacing: num(g, 45, 0) },
      };
    case 'TEXT':
      return {
        ...e,
        position: point(g, 10),
        text: first(g, 1)?.value ?? '',
        height: num(g, 40, 1),
        rotation: num(g, 50, 0),
        column: num(g, 72, 0),
      };
    case 'MTEXT':
      return {
        ...e,
        position: point(g, 10),
        text: g
          .filter((q) => q.code === 3 || q.code === 1)
          .map((q) => q.value)
          .join(''),
        height: num(g, 40, 1),
        rotation: num(g, 50, 0),
        column: (num(g, 71, 1) - 1) % 3,
      };
    case 'HATCH':
      return { ...e, groups: g };
    default:
      return e;
  }
}

/**
 * Colour of an index (DXF reference, group 62): nine of their own, 24 hues of 15 degrees in five brightnesses, each
 * full or half saturated, and six greys. Null for none; 7 stands for the ink.
 */
export function colourOfIndex(index: number | undefined): string | null {
  const i = Math.abs(index ?? NaN);
  if (!(i >= 1 && i <= 255)) return null;
  const fixed = ['#ff0000', '#ffff00', '#00ff00', '#00ffff', '#0000ff', '#ff00ff', '#ffffff', '#808080', '#c0c0c0'];
  if (i <= 9) return fixed[i - 1];
  const hex = (...v: number[]) =>
    `#${v
      .map((q) =>
        Math.floor(q + 1e-6)
          .toString(16)
          .padStart(2, '0'),
      )
      .join('')}`;
  if (i >= 250) return hex(...Array(3).fill([51, 80, 105, 130, 190, 255][i - 250]));
  const full = [255, 204, 153, 127, 76][(i % 10) >> 1];
  const least = i % 2 ? full / 2 : 0;
  const hue = (Math.floor(i / 10) - 1) / 4;
  const channel = (shift: number) => {
    const d = Math.abs(((hue + shift) % 6) - 3);
    return least + (full - least) * Math.min(1, Math.max(0, d - 1));
  };
  return hex(channel(0), channel(4), channel(2));
}
