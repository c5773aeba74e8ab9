/** Files that are brought once and told to all who work with them, to those who come later too. */
export class Brought<T> {
  private readonly files: Record<string, T> = {};
  private readonly listeners = new Set<(files: Readonly<Record<string, T>>) => void>();

  has(id: string): boolean {
    return id in this.files;
  }

  of(id: string): T | null {
    return this.files[id] ?? null;
  }

  /** Takes those that are not here yet; `first` sees them before anybody else is told. */
  bring(more: Readonly<Record<string, T>>, first: (fresh: Readonly<Record<string, T>>) => void = () => {}): void {
    const fresh = Object.fromEntries(Object.entries(more).filter(([id]) => !this.has(id)));
    if (!Object.keys(fresh).length) return;
    Object.assign(this.files, fresh);
    first(fresh);
    this.listeners.forEach((tell) => tell(fresh));
  }

  /** Tells of all files that are here, and of every later one. */
  on(tell: (files: Readonly<Record<string, T>>) => void): void {
    this.listeners.add(tell);
    if (Object.keys(this.files).length) tell({ ...this.files });
  }
}
