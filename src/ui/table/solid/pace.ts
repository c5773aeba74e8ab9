/** On a slow driver drafts are drawn until there has been rest for so long, ms. */
export const REST = 650;
/** While others work, the rest is to be as long as this: drawn without a graphics card, a full frame takes their processors. */
export const REST_BESIDE_WORK = 5000;

/**
 * When a still stage is drawn: at once in full on a quick driver, as a draft that is made good at rest on a slow one.
 *
 *     asked     x  x x              x
 *     drawn        d d d ─── rest ─── FULL      d: a draft, at the next frame
 */
export class Pace {
  /** Whether the driver takes so long over a full frame that drafts come first. */
  slow = false;
  private busy = false;
  /** Whether the next frame draws. */
  private wanted = false;
  private rest: ReturnType<typeof setTimeout> | null = null;
  /** Whether it has been told that a draft is seen. */
  private told = false;
  /** Those who wait for the next full picture. */
  private waiting: (() => void)[] = [];

  /** `coarse` is told that a draft is seen, or soon will be, until what is asked for is `drawn` in full. */
  constructor(
    private readonly paint: (draft: boolean) => void,
    private readonly coarse: () => void = () => {},
    private readonly frame: (next: () => void) => void = (next) => void requestAnimationFrame(next),
  ) {}

  /** Draws at the next frame. */
  draw(): void {
    if (this.slow) {
      this.tell();
      this.awaitRest();
    } else this.forgetRest();
    if (this.wanted) return;
    this.wanted = true;
    this.frame(() => {
      this.wanted = false;
      // A frame may come so late that there has been rest before it: what nothing would make good is drawn in full.
      this.paintAs(this.slow && this.rest !== null);
    });
  }

  /** What is seen is good already, and can be made better: on a slow driver there is no draft of it again. */
  better(): void {
    if (this.slow) this.awaitRest();
    else this.draw();
  }

  /** Draws in full here and now. */
  full(): void {
    this.forgetRest();
    this.paintAs(false);
  }

  /** Others begin or end work that takes processors. */
  setBusy(busy: boolean): void {
    this.busy = busy;
    if (this.rest) this.awaitRest();
  }

  /** Until what has been asked for is on the screen, in full. */
  async drawn(): Promise<void> {
    // Whoever was told of a draft may ask when it has been made good.
    if (this.wanted || this.rest) await new Promise<void>((done) => this.waiting.push(done));
  }

  /** Whether somebody waits for the next full picture. */
  get awaited(): boolean {
    return this.waiting.length > 0;
  }

  /** The driver has drawn a full picture. */
  seen(): void {
    for (const done of this.waiting.splice(0)) done();
  }

  private paintAs(draft: boolean): void {
    this.paint(draft);
    if (!draft) this.told = false;
  }

  private forgetRest(): void {
    if (this.rest) clearTimeout(this.rest);
    this.rest = null;
  }

  private tell(): void {
    if (!this.told) this.coarse();
    this.told = true;
  }

  /** A draft is made good when there has been rest. */
  private awaitRest(): void {
    this.forgetRest();
    this.rest = setTimeout(() => this.full(), this.busy ? REST_BESIDE_WORK : REST);
  }
}
