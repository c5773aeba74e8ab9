import { WASM_PAGE, webAssembly, type Wasm, type WasmMemory } from '../units/webAssembly';

/**
 * The shaper of the open-source library HarfBuzz, by its C interface (harfbuzz.github.io) in WebAssembly. The package's own
 * wrapper loads its file by itself and waits for it where it is imported, which tests and the command line cannot; here the
 * file comes from outside, like a font, and everything else is at once.
 */

/** A glyph as it was set: which, for the character at which place of the text, and how it is moved. Font units. */
export interface ShapedGlyph {
  readonly glyph: number;
  /** Place of the first character that it stands for, in UTF-16 units. */
  readonly at: number;
  readonly advance: number;
  readonly dx: number;
  readonly dy: number;
}

/** What is drawn of a glyph, y up, font units. */
export interface Pen {
  move(x: number, y: number): void;
  line(x: number, y: number): void;
  quadratic(x1: number, y1: number, x: number, y: number): void;
  cubic(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void;
  close(): void;
}

/** A feature of OpenType switched on or off, for all of a text or from one of its places to another (UTF-16 units). */
export interface Feature {
  readonly tag: string;
  readonly on: boolean;
  readonly from?: number;
  readonly to?: number;
}

export interface ShaperFace {
  readonly unitsPerEm: number;
  /** Whether it holds any characters. A file that is no font, or a damaged one, does not. */
  readonly empty: boolean;
  /** What it says of the height of capitals; 0 where it says nothing. */
  readonly capHeight: number;
  /** A name of the table of names by its number, in English; empty where there is none. */
  name(id: number): string;
  /**
   * Sets a text that runs in one direction and is of one script (its four letters; null where the text is to tell). Glyphs come
   * from left to right.
   */
  shape(
    text: string,
    run: { readonly rightToLeft: boolean; readonly script: string | null },
    features: readonly Feature[],
  ): ShapedGlyph[];
  /** How far the next glyph lies from it, before kerning. */
  advance(glyph: number): number;
  draw(glyph: number, pen: Pen): void;
}

export interface Shaper {
  /** Reads a TrueType or OpenType font. It stays in memory as long as the shaper. */
  face(bytes: Uint8Array): ShaperFace;
}

type Call = (...args: number[]) => number;
/** HB_MEMORY_MODE_WRITABLE: the bytes are the library's to change. */
const WRITABLE = 2;
const LEFT_TO_RIGHT = 4;
const RIGHT_TO_LEFT = 5;
/** hb_glyph_info_t and hb_glyph_position_t are five words long, hb_feature_t four. */
const GLYPH_WORDS = 5;
const FEATURE_BYTES = 16;
/** Up to its end, for a feature (HB_FEATURE_GLOBAL_END). */
const END = 0xffffffff;
const GLYPH_NOT_FOUND = 0;

const tag = (s: string): number =>
  ((s.charCodeAt(0) << 24) | (s.charCodeAt(1) << 16) | (s.charCodeAt(2) << 8) | s.charCodeAt(3)) >>> 0;

/**
 * A function of ours as one that WebAssembly can call by its table: a module that imports it and hands it on. `floats` of its
 * parameters, from the fourth, are coordinates.
 *
 *     (hb_draw_funcs_t *, void *draw_data, hb_draw_state_t *, float ..., void *user_data) -> void
 */
function callable(wasm: Wasm, floats: number, call: (...args: number[]) => void): unknown {
  const I32 = 0x7f;
  const F32 = 0x7d;
  const params = [I32, I32, I32, ...Array<number>(floats).fill(F32), I32];
  const section = (id: number, body: number[]) => [id, body.length, ...body];
  const bytes = Uint8Array.from([
    ...[0x00, 0x61, 0x73, 0x6d, 0x01, 0x00, 0x00, 0x00],
    ...section(1, [1, 0x60, params.length, ...params, 0]),
    ...section(2, [1, 1, 'e'.charCodeAt(0), 1, 'f'.charCodeAt(0), 0, 0]),
    ...section(7, [1, 1, 'f'.charCodeAt(0), 0, 0]),
  ]);
  return (new wasm.Instance(new wasm.Module(bytes), { e: { f: call } }).exports as { f: unknown }).f;
}

/** Makes the shaper ready. @param file `harfbuzz.wasm` of the package harfbuzzjs. */
export function openShaper(file: Uint8Array): Shaper {
  const ended = () => {
    throw new Error('The shaper of letters has ended.');
  };
  const wasm = webAssembly();
  if (!wasm) throw new Error('Letters cannot be set: there is no WebAssembly here. Use a newer browser.');
  const instance = new wasm.Instance(new wasm.Module(new Uint8Array(file)), {
    wasi_snapshot_preview1: { proc_exit: ended },
    env: {
      _abort_js: ended,
      _emscripten_runtime_keepalive_clear: () => undefined,
      _setitimer_js: () => 0,
      emscripten_resize_heap: (size: number) => {
        try {
          memory.grow(Math.ceil(((size >>> 0) - memory.buffer.byteLength) / WASM_PAGE));
          return 1;
        } catch {
          return 0;
        }
      },
    },
  });
  const { memory, __indirect_function_table: table } = instance.exports as {
    readonly memory: WasmMemory;
    readonly __indirect_function_table: { grow(by: number): number; set(at: number, call: unknown): void };
  };
  const c = instance.exports as Record<string, Call>;
  c.__wasm_call_ctors();

  // Memory that grows is another buffer: it is looked at anew each time.
  const words = () => new Uint32Array(memory.buffer);
  const signed = () => new Int32Array(memory.buffer);
  /** Room for the time of a call. */
  const lent = <T>(bytes: number, use: (at: number) => T): T => {
    const at = c.malloc(Math.max(8, bytes));
    if (!at) throw new Error('There is no memory left for the font.');
    try {
      return use(at);
    } finally {
      c.free(at);
    }
  };
  const utf16 = <T>(text: string, use: (at: number, length: number) => T): T =>
    lent(2 * text.length, (at) => {
      const to = new Uint16Array(memory.buffer, at, text.length);
      for (let i = 0; i < text.length; i++) to[i] = text.charCodeAt(i);
      return use(at, text.length);
    });
  const ascii = <T>(text: string, use: (at: number) => T): T =>
    lent(text.length + 1, (at) => {
      new Uint8Array(memory.buffer, at, text.length + 1).set([...text].map((q) => q.charCodeAt(0)).concat(0));
      return use(at);
    });
  const english = ascii('en', (at) => c.hb_language_from_string(at, -1));

  let pen: Pen | null = null;
  const drawing = c.hb_draw_funcs_create();
  const draws = (set: string, floats: number, call: (...v: number[]) => void) => {
    const at = table.grow(1);
    table.set(
      at,
      callable(wasm, floats, (...args) => call(...args.slice(3, 3 + floats))),
    );
    c[`hb_draw_funcs_set_${set}_func`](drawing, at, 0, 0);
  };
  draws('move_to', 2, (x, y) => pen!.move(x, y));
  draws('line_to', 2, (x, y) => pen!.line(x, y));
  draws('quadratic_to', 4, (x1, y1, x, y) => pen!.quadratic(x1, y1, x, y));
  draws('cubic_to', 6, (x1, y1, x2, y2, x, y) => pen!.cubic(x1, y1, x2, y2, x, y));
  draws('close_path', 0, () => pen!.close());
  const buffer = c.hb_buffer_create();

  return {
    face(bytes) {
      const data = c.malloc(bytes.length);
      if (!data) throw new Error('There is no memory left for the font.');
      new Uint8Array(memory.buffer, data, bytes.length).set(bytes);
      const blob = c.hb_blob_create(data, bytes.length, WRITABLE, 0, 0);
      const face = c.hb_face_create(blob, 0);
      const font = c.hb_font_create(face);
      const set = c.hb_set_create();
      c.hb_face_collect_unicodes(face, set);
      const empty = c.hb_set_get_population(set) === 0;
      c.hb_set_destroy(set);
      const capHeight = lent(4, (at) => (c.hb_ot_metrics_get_position(font, tag('cpht'), at) ? signed()[at / 4] : 0));
      return {
        unitsPerEm: c.hb_face_get_upem(face),
        empty,
        capHeight,
        name: (id) => {
          const length = c.hb_ot_name_get_utf16(face, id, english, 0, 0);
          return lent(4 + 2 * (length + 1), (at) => {
            words()[at / 4] = length + 1;
            c.hb_ot_name_get_utf16(face, id, english, at, at + 4);
            return String.fromCharCode(...new Uint16Array(memory.buffer, at + 4, length));
          });
        },
        shape: (text, { rightToLeft, script }, features) =>
          utf16(text, (at, length) =>
            lent(FEATURE_BYTES * features.length, (list) => {
              c.hb_buffer_reset(buffer);
              c.hb_buffer_add_utf16(buffer, at, length, 0, length);
              // Brackets by themselves have no script: they are turned about only where it is one that runs their way.
              if (script) c.hb_buffer_set_script(buffer, tag(script));
              else c.hb_buffer_guess_segment_properties(buffer);
              c.hb_buffer_set_direction(buffer, rightToLeft ? RIGHT_TO_LEFT : LEFT_TO_RIGHT);
              c.hb_buffer_set_language(buffer, english);
              const to = words();
              features.forEach((f, i) =>
                to.set([tag(f.tag), f.on ? 1 : 0, f.from ?? 0, f.to ?? END], list / 4 + 4 * i),
              );
              c.hb_shape(font, buffer, list, features.length);
              const count = c.hb_buffer_get_length(buffer);
              const infos = c.hb_buffer_get_glyph_infos(buffer, 0) / 4;
              const places = c.hb_buffer_get_glyph_positions(buffer, 0) / 4;
              const [info, place] = [words(), signed()];
              return Array.from({ length: count }, (_, i) => ({
                glyph: info[infos + GLYPH_WORDS * i],
                at: info[infos + GLYPH_WORDS * i + 2],
                advance: place[places + GLYPH_WORDS * i],
                dx: place[places + GLYPH_WORDS * i + 2],
                dy: place[places + GLYPH_WORDS * i + 3],
              }));
            }),
          ),
        advance: (glyph) => c.hb_font_get_glyph_h_advance(font, glyph),
        draw: (glyph, to) => {
          pen = to;
          try {
            c.hb_font_draw_glyph(font, glyph, drawing, 0);
          } finally {
            pen = null;
          }
        },
      };
    },
  };
}

/** The glyph that stands for what a font lacks. */
export const isMissing = (g: ShapedGlyph): boolean => g.glyph === GLYPH_NOT_FOUND;
