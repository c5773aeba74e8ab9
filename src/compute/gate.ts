/** What is asked passes at once, or waits while the gate is held: in the order in which it was asked, whether it had to wait or not. */
export class Gate {
  private until: Promise<void> | null = null;
  private waiting: (() => void)[] = [];

  /** Held until then; where it is held already, until the later call's. */
  hold(until: Promise<void>): void {
    this.until = until;
    const open = () => {
      if (this.until !== until) return;
      this.until = null;
      for (const go of this.waiting.splice(0)) go();
    };
    until.then(open, open);
  }

  pass<T>(work: () => Promise<T>): Promise<T> {
    const begin = async () => work();
    if (!this.until) return begin();
    return new Promise((done, fail) => this.waiting.push(() => void begin().then(done, fail)));
  }
}
