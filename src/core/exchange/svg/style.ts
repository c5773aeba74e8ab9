import { color } from 'd3-color';
import generate from 'css-tree/generator';
import parse, { type CssNode } from 'css-tree/parser';

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

export const rootStyle: Style = {
  fill: 'black',
  fillRule: 'nonzero',
  stroke: 'none',
  display: 'inline',
  visibility: 'visible',
  opacity: '1',
  color: 'black',
  fontFamily: '',
  fontSize: '16',
  fontWeight: '400',
  textAnchor: 'start',
};

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

/** An element of the drawing, as far as a style sheet asks about it. */
export interface Styled {
  readonly tag: string;
  readonly attributes: Readonly<Record<string, string>>;
}

interface Declaration {
  readonly key: keyof Style;
  readonly value: string;
  readonly important: boolean;
}

interface Rule {
  /** Its parts, in order. */
  readonly selector: readonly CssNode[];
  /** Ids, classes and the like, types: the weight of CSS, one number. */
  readonly weight: number;
  readonly set: readonly Declaration[];
  /** Its place among all. */
  at: number;
}

interface Place {
  readonly parent: Styled | null;
  readonly siblings: readonly Styled[];
  readonly index: number;
}

/** What comes of text in CSS's own grammar; broken parts are left out, as the standard says. */
const parsed = (text: string, context: 'stylesheet' | 'declarationList') =>
  parse(text, { context, parseValue: false, parseCustomProperty: false });

function declarations(nodes: readonly CssNode[]): Declaration[] {
  const out: Declaration[] = [];
  for (const d of nodes) {
    if (d.type !== 'Declaration') continue;
    const key = names[d.property.toLowerCase()];
    if (key) out.push({ key, value: generate(d.value).trim(), important: !!d.important });
  }
  return out;
}

const childrenOf = (n: CssNode): CssNode[] => ('children' in n && n.children ? [...n.children] : []);

/** Whether rules for a medium are for a drawing on a screen; null where that depends on the screen. */
function appliesTo(media: string): boolean | null {
  const kinds = media
    .toLowerCase()
    .split(',')
    .map((q) => q.trim().replace(/^only\s+/, ''));
  if (kinds.some((q) => q === '' || q === 'all' || q === 'screen')) return true;
  return kinds.every((q) => /^(print|speech|not\s+(screen|all))$/.test(q)) ? false : null;
}

/** So many times a selector may be held against an element: beyond it a small sheet could keep the reader busy for ever. */
const MOST_STEPS = 3_000_000;

/** Raised when the style sheets of a drawing ask too much. */
export class StyleError extends Error {
  constructor() {
    super(`its style sheet takes more than ${MOST_STEPS} comparisons`);
    this.name = 'StyleError';
  }
}

/** What a selector asks first of an element that it is to meet. */
function keyOf(selector: readonly CssNode[]): string {
  let key = '';
  for (let k = selector.length - 1; k >= 0 && selector[k].type !== 'Combinator'; k--) {
    const n = selector[k];
    if (n.type === 'IdSelector') return `#${n.name}`;
    if (n.type === 'ClassSelector') key = `.${n.name}`;
    else if (n.type === 'TypeSelector' && n.name !== '*' && !key) key = n.name.replace(/^.*\|/, '');
  }
  return key;
}

/** The rules of a drawing's style sheets, read by a parser of CSS and applied by its cascade (CSS Cascading Level 4). */
export class StyleSheet {
  private readonly rules: Rule[] = [];
  /** Rules by what the last part of their selector asks for: an id, a class, a tag, or anything. */
  private readonly byKey = new Map<string, Rule[]>();
  private steps = 0;
  private readonly places = new Map<Styled, Place>();
  /** Selectors and rules that are not read, as they are written. */
  readonly skipped = new Set<string>();

  /** Tells where an element stands: selectors ask for parents and elder siblings. */
  place(e: Styled, parent: Styled | null, siblings: readonly Styled[], index: number): void {
    this.places.set(e, { parent, siblings, index });
  }

  add(css: string): void {
    this.take(childrenOf(parsed(css, 'stylesheet')));
    // The order of the sheets decides among equals: sorting is stable.
    this.rules.sort((a, b) => a.weight - b.weight);
    this.byKey.clear();
    this.rules.forEach((r, at) => {
      r.at = at;
      const key = keyOf(r.selector);
      const list = this.byKey.get(key);
      if (list) list.push(r);
      else this.byKey.set(key, [r]);
    });
  }

  /** Rules that may meet an element by what they ask of it first, in the order of the sheet. */
  private rulesFor(e: Styled): Rule[] {
    if (!this.rules.length) return [];
    const { id, class: classes = '' } = e.attributes;
    const keys = new Set(['', e.tag, `#${id}`, ...classes.split(/\s+/).map((c) => `.${c}`)]);
    return [...keys].flatMap((k) => this.byKey.get(k) ?? []).sort((a, b) => a.at - b.at);
  }

  private take(nodes: readonly CssNode[]): void {
    for (const n of nodes) {
      if (n.type === 'Atrule') {
        const what = `@${n.name}${n.prelude ? ` ${generate(n.prelude)}` : ''}`;
        const applies = n.name.toLowerCase() === 'media' && n.prelude ? appliesTo(generate(n.prelude)) : null;
        if (applies && n.block) this.take(childrenOf(n.block));
        else if (applies === null && /^(media|import|supports|layer)$/i.test(n.name)) this.skipped.add(what);
        continue;
      }
      if (n.type !== 'Rule') continue;
      const set = declarations(childrenOf(n.block));
      if (!set.length) continue;
      if (n.prelude.type !== 'SelectorList') this.skipped.add(generate(n.prelude));
      else
        for (const selector of childrenOf(n.prelude)) {
          if (readable(selector))
            this.rules.push({ selector: childrenOf(selector), weight: weightOf(selector), set, at: 0 });
          else this.skipped.add(generate(selector));
        }
    }
  }

  /** Style of an element: inherited, presentation attributes, sheets by weight, its own style attribute; what is important again. */
  of(e: Styled, parent: Style): Style {
    const s: Style = { ...parent };
    for (const k of own) s[k] = rootStyle[k];
    const set = (key: keyof Style, value: string) => {
      if (value !== 'inherit') s[key] = value;
    };
    for (const name of Object.keys(names))
      if (e.attributes[name] !== undefined) set(names[name], e.attributes[name].trim());
    const met = this.rulesFor(e).filter((r) => this.matches(e, r.selector));
    const mine = e.attributes.style ? declarations(childrenOf(parsed(e.attributes.style, 'declarationList'))) : [];
    for (const important of [false, true]) {
      for (const r of met) for (const d of r.set) if (d.important === important) set(d.key, d.value);
      for (const d of mine) if (d.important === important) set(d.key, d.value);
    }
    return s;
  }

  /** Whether a selector, read from its end, meets an element and those that it names by their relation to it. */
  private matches(e: Styled, selector: readonly CssNode[]): boolean {
    if (++this.steps > MOST_STEPS) throw new StyleError();
    let k = selector.length - 1;
    for (; k >= 0 && selector[k].type !== 'Combinator'; k--)
      if (!simple(e, selector[k], this.places.get(e))) return false;
    if (k < 0) return true;
    const rest = selector.slice(0, k);
    const place = this.places.get(e);
    switch ((selector[k] as { name: string }).name) {
      case '>':
        return !!place?.parent && this.matches(place.parent, rest);
      case '+':
        return !!place && place.index > 0 && this.matches(place.siblings[place.index - 1], rest);
      case '~':
        return !!place && place.siblings.slice(0, place.index).some((q) => this.matches(q, rest));
      default:
        for (let up = place?.parent; up; up = this.places.get(up)?.parent) if (this.matches(up, rest)) return true;
        return false;
    }
  }
}

const PSEUDO = new Set(['first-child', 'last-child', 'only-child', 'root']);

/** Whether all of a selector is of kinds that are read here. */
function readable(selector: CssNode): boolean {
  return childrenOf(selector).every((n) => {
    if (n.type === 'PseudoClassSelector') return PSEUDO.has(n.name.toLowerCase()) && !n.children;
    if (n.type === 'Combinator') return [' ', '>', '+', '~'].includes(n.name);
    return (
      n.type === 'TypeSelector' ||
      n.type === 'ClassSelector' ||
      n.type === 'IdSelector' ||
      n.type === 'AttributeSelector'
    );
  });
}

const weightOf = (selector: CssNode): number =>
  childrenOf(selector).reduce(
    (sum, n) =>
      sum +
      (n.type === 'IdSelector'
        ? 1e6
        : n.type === 'TypeSelector'
          ? n.name === '*'
            ? 0
            : 1
          : n.type === 'Combinator'
            ? 0
            : 1e3),
    0,
  );

function simple(e: Styled, n: CssNode, place: Place | undefined): boolean {
  switch (n.type) {
    case 'TypeSelector':
      return n.name === '*' || n.name.replace(/^.*\|/, '') === e.tag;
    case 'IdSelector':
      return e.attributes.id === n.name;
    case 'ClassSelector':
      return (e.attributes.class ?? '').split(/\s+/).includes(n.name);
    case 'AttributeSelector': {
      const has = e.attributes[n.name.name];
      if (has === undefined || !n.matcher || !n.value) return has !== undefined;
      const want = n.value.type === 'String' ? n.value.value : n.value.name;
      if (n.matcher === '~=') return has.split(/\s+/).includes(want);
      if (n.matcher === '|=') return has === want || has.startsWith(`${want}-`);
      if (n.matcher === '^=') return want !== '' && has.startsWith(want);
      if (n.matcher === '$=') return want !== '' && has.endsWith(want);
      if (n.matcher === '*=') return want !== '' && has.includes(want);
      return has === want;
    }
    case 'PseudoClassSelector': {
      const [first, last] = [!place || place.index === 0, !place || place.index === place.siblings.length - 1];
      const name = n.name.toLowerCase();
      return name === 'root'
        ? !place?.parent
        : name === 'first-child'
          ? first
          : name === 'last-child'
            ? last
            : first && last;
    }
    default:
      return false;
  }
}

/** #rrggbb of a CSS colour (names, hex, rgb, hsl), or null where there is none. */
export function colourOf(text: string, current: string): string | null {
  const t = text.trim().toLowerCase();
  if (t === 'currentcolor') return t === current.trim().toLowerCase() ? null : colourOf(current, 'black');
  if (t === 'transparent') return null;
  // Commas are the older way of writing; newer ones have spaces and a stroke before the opacity.
  const c = color(
    t
      .replace(
        /^(rgba?|hsla?)\(\s*([^,()]+)\)$/,
        (_, kind: string, parts: string) =>
          `${kind.slice(0, 3)}(${parts
            .replace(/\s*\/.*$/, '')
            .trim()
            .split(/\s+/)
            .join(',')})`,
      )
      .replace(/(\d)deg\b/, '$1'),
  );
  return c && c.displayable() ? c.formatHex() : c ? c.rgb().clamp().formatHex() : null;
}
