import { fontCatalogue, strokeFonts } from './catalogue';
import { loadFont, type LoadedFont } from './font';
import { strokeFont } from './strokes/strokeFont';

/**
 * Fonts by id: the shipped outline fonts, Mirvak's own single-line ones, and those that a maker has brought.
 * Each is read when it is first asked for; one that cannot be read is as good as not there.
 */
export class FontShelf {
  private readonly files = new Map<string, Uint8Array>();
  private readonly read = new Map<string, LoadedFont | null>();

  /** @param find looks for the file of an id that was not put here. */
  constructor(private readonly find: (id: string) => Uint8Array | null = () => null) {}

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

  private load(id: string): LoadedFont | null {
    const line = strokeFonts.find((f) => f.id === id);
    if (line) return strokeFont(line.slant);
    const bytes = this.files.get(id) ?? this.find(id);
    if (!bytes) return null;
    try {
      return loadFont(bytes, fontCatalogue.find((f) => f.id === id)?.name ?? id);
    } catch {
      return null;
    }
  }
}
