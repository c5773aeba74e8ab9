import { fontCatalogue, strokeFonts } from './catalogue';
import { FontError, loadFont, type LoadedFont, type OpenFont } from './font';
import { openShaper, type Shaper } from './harfbuzz';
import { strokeFont } from './strokes/strokeFont';

/** The file of the shaper is put on the shelf like those of the fonts that it sets. */
export const SHAPER = 'harfbuzz.wasm';

/**
 * Fonts by id: the shipped outline fonts, Mirvak's own single-line ones, and those that a maker has brought.
 * Each is read when it is first asked for; one that cannot be read is as good as not there.
 */
export class FontShelf {
  private readonly files = new Map<string, Uint8Array>();
  private readonly wrong = new Map<string, string>();
  private opened: Shaper | null = null;
  private readonly read = new Map<string, LoadedFont | null>();

  /**
   * @param find looks for the file of an id that was not put here.
   * @param open opens files; not said: those that are not packed tightly.
   */
  constructor(
    private readonly find: (id: string) => Uint8Array | null = () => null,
    private readonly open?: OpenFont,
  ) {}

  put(id: string, bytes: Uint8Array): void {
    if (this.files.has(id)) return;
    this.files.set(id, bytes);
    this.read.delete(id);
  }

  readonly font = (id: string): LoadedFont | null => {
    let f = this.read.get(id);
    if (f === undefined) {
      f = this.load(id);
      this.read.set(id, f);
    }
    return f;
  };

  /** Whether a font has been asked for already: reading one takes its time. */
  readonly hasRead = (id: string): boolean => this.read.has(id);

  /** Why a font that is here cannot be used; null where nothing is wrong with it. */
  readonly wrongWith = (id: string): string | null => (this.font(id) ? null : (this.wrong.get(id) ?? 'it is not here'));

  /** What sets letters. Throws where its file is not here. */
  readonly shaper = (): Shaper => {
    const file = this.fileOf(SHAPER);
    if (!file) throw new Error('The shaper of letters is not here. Run the set-up again.');
    return (this.opened ??= openShaper(file));
  };

  /** The file of a font, or of the shaper. */
  readonly fileOf = (id: string): Uint8Array | null => this.files.get(id) ?? this.find(id);

  private load(id: string): LoadedFont | null {
    const line = strokeFonts.find((f) => f.id === id);
    if (line) return strokeFont(line.slant);
    const bytes = this.fileOf(id);
    if (!bytes) return null;
    // A shaper that cannot be made ready is no fault of the font.
    const shaper = this.shaper();
    try {
      return loadFont(bytes, fontCatalogue.find((f) => f.id === id)?.name ?? id, shaper, this.open);
    } catch (e) {
      this.wrong.set(id, e instanceof FontError ? e.why : 'it cannot be read');
      return null;
    }
  }
}
