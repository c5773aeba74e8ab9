/** Style of an element: what decides how it is read. */
export interface Style {
  fill: string;
  fillRule: string;
  stroke: string;
  display: string;
  visibility: string;
  opacity: string;
  color: string;
  fontFamily: string;
  fontSize: string;
  fontWeight: string;
  textAnchor: string;
}

export const rootStyle: Style = { fill: 'black', fillRule: 'nonzero', stroke: 'none', display: 'inline', visibility: 'visible', opacity: '1', color: 'black', fontFamily: '', fontSize: '16', fontWeight: '400', textAnchor: 'start' };

const names: Record<string, keyof Style> = {
  fill: 'fill',
  'fill-rule': 'fillRule',
  stroke: 'stroke',
  display: 'display',
  visibility: 'visibility',
  opacity: 'opacity',
  color: 'color',
  'font-family': 'fontFamily',
  'font-size': 'fontSize',
  'font-weight': 'fontWeight',
  'text-anchor': 'textAnchor',
};
/** Not inherited by children. */
const own: readonly (keyof Style)[] = ['display', 'opacity'];

type Declarations = [keyof Style, string][];

function declarations(text: string): Declarations {
  const out: Declarations = [];
  for (const d of text.split(';')) {
    const at = d.indexOf(':');
    if (at < 0) continue;
    const key = names[d.slice(0, at).trim().toLowerCase()];
    if (key) out.push([key, d.slice(at + 1).replace(/!important/i, '').trim()]);
  }
  return out;
}

interface Rule {
  tag: string | null;
  id: string | null;
  classes: string[];
  weight: number;
  set: Declarations;
}

/** Rules of style sheets: selectors of a type, a class, an id, or several of them on one element. */
export class StyleSheet {
  private readonly rules: Rule[] = [];
  /** Whether a selector was met that is not read. */
  skipped = false;

  add(css: string): void {
    const plain = css.replace(/\/\*[\s\S]*?\*\//g, '').replace(/<!--|-->/g, '');
    for (const block of plain.matchAll(/([^{}@]+)\{([^{}]*)\}/g)) {
      const set = declarations(block[2]);
      if (!set.length) continue;
      for (const s of block[1].split(',')) {
        const m = /^([a-zA-Z][\w-]*|\*)?((?:[.#][\w-]+)*)$/.exec(s.trim());
        if (!m) {
          this.skipped = true;
          continue;
        }
        const parts = m[2].match(/[.#][\w-]+/g) ?? [];
        const id = parts.find((p) => p[0] === '#')?.slice(1) ?? null;
        const classes = parts.filter((p) => p[0] === '.').map((p) => p.slice(1));
        const tag = m[1] && m[1] !== '*' ? m[1] : null;
        this.rules.push({ tag, id, classes, weight: (id ? 100 : 0) + classes.length * 10 + (tag ? 1 : 0), set });
      }
    }
    this.rules.sort((a, b) => a.weight - b.weight);
  }

  /** Style of an element: inherited, presentation attributes, sheets by weight, its own style attribute. */
  of(tag: string, attributes: Readonly<Record<string, string>>, parent: Style): Style {
    const s: Style = { ...parent };
    for (const k of own) s[k] = rootStyle[k];
    const take = (set: Declarations) => {
      for (const [k, v] of set) if (v !== 'inherit') s[k] = v;
    };
    for (const name of Object.keys(names)) if (attributes[name] !== undefined) take([[names[name], attributes[name].trim()]]);
    if (this.rules.length) {
      const classes = new Set((attributes.class ?? '').split(/\s+/));
      for (const r of this.rules) if ((!r.tag || r.tag === tag) && (!r.id || r.id === attributes.id) && r.classes.every((c) => classes.has(c))) take(r.set);
    }
    if (attributes.style) take(declarations(attributes.style));
    return s;
  }
}

const NAMED: Record<string, string> = { black: '#000000', white: '#ffffff', red: '#ff0000', lime: '#00ff00', green: '#008000', blue: '#0000ff', yellow: '#ffff00', cyan: '#00ffff', aqua: '#00ffff', magenta: '#ff00ff', fuchsia: '#ff00ff', gray: '#808080', grey: '#808080', silver: '#c0c0c0', maroon: '#800000', navy: '#000080', olive: '#808000', purple: '#800080', teal: '#008080', orange: '#ffa500', brown: '#a52a2a' };

/** #rrggbb of a CSS colour where it is one of the common kinds. */
export function colourOf(text: string, current: string): string | null {
  const t = text.trim().toLowerCase();
  if (t === 'currentcolor') return t === current.trim().toLowerCase() ? null : colourOf(current, 'black');
  if (/^#[0-9a-f]{6}/.test(t)) return t.slice(0, 7);
  if (/^#[0-9a-f]{3,4}$/.test(t)) return `#${[...t.slice(1, 4)].map((c) => c + c).join('')}`;
  const rgb = /^rgba?\(\s*([\d.]+)(%?)[\s,]+([\d.]+)%?[\s,]+([\d.]+)%?/.exec(t);
  if (rgb) return `#${[rgb[1], rgb[3], rgb[4]].map((v) => Math.min(255, Math.round(rgb[2] ? (Number(v) * 255) / 100 : Number(v))).toString(16).padStart(2, '0')).join('')}`;
  return NAMED[t] ?? null;
}
