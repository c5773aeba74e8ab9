/** Chords that are looked at together at first. */
const AHEAD = 4096;

/**
 * The chords of a way one after the other, as a controller with look-ahead takes them. Speeds at their ends are found backwards,
 * from what can still be braked from, and then forwards, from what can be reached. How fast the way goes on behind the chords that
 * are here is not known yet, but it lies between standing still and the most that is allowed: where the speeds found backwards
 * from both are the same, they are what they will be, and the chords before are done with. So a way of any length needs room
 * for some thousand chords.
 *
 *     from the most that is allowed   ________.
 *                                              \______.
 *     from standing still             ________.        |     the same up to here
 *                                              \       v
 *     chords                          |--|--|--|--|--|--|
 *                                      done with
 */
export class LookAhead {
  private count = 0;
  /** What each chord is called by who adds it. */
  private name: Float64Array<ArrayBuffer>;
  private length: Float64Array<ArrayBuffer>;
  private cruise: Float64Array<ArrayBuffer>;
  private accel: Float64Array<ArrayBuffer>;
  /** The most at which each chord is begun, mm/s; of the first one here, at what it is. */
  private entry: Float64Array<ArrayBuffer>;
  /** Found backwards from standing still, and from the most that is allowed. */
  private slow: Float64Array<ArrayBuffer>;
  private fast: Float64Array<ArrayBuffer>;

  /**
   * @param done is given each chord when it is done with, and its seconds.
   * @param room For how many chords there is room at first.
   */
  constructor(
    private readonly done: (name: number, length: number, seconds: number) => void,
    private room = AHEAD,
  ) {
    const [name, length, cruise, accel, entry] = Array.from({ length: 5 }, () => new Float64Array(room));
    this.name = name;
    this.length = length;
    this.cruise = cruise;
    this.accel = accel;
    this.entry = entry;
    this.slow = new Float64Array(room + 1);
    this.fast = new Float64Array(room + 1);
  }

  /**
   * One more chord.
   * @param length mm, above 0
   * @param cruise the most at which it is run, mm/s
   * @param accel the most at which it speeds up or brakes, mm/s2
   * @param corner the most at which the corner into it is taken, mm/s
   */
  add(name: number, length: number, cruise: number, accel: number, corner: number): void {
    if (this.count === this.room) {
      this.settle(false);
      if (this.count > this.room / 2) this.widen();
    }
    const i = this.count++;
    this.name[i] = name;
    this.length[i] = length;
    this.cruise[i] = cruise;
    this.accel[i] = accel;
    // The first one here is begun at the speed at which the one before it was done with.
    if (i > 0) this.entry[i] = Math.min(corner, cruise, this.cruise[i - 1]);
  }

  /** The way stands still here. */
  stop(): void {
    this.settle(true);
  }

  private widen(): void {
    const wide = (old: Float64Array<ArrayBuffer>, n: number): Float64Array<ArrayBuffer> => {
      const a = new Float64Array(n);
      a.set(old);
      return a;
    };
    this.room *= 2;
    for (const k of ['name', 'length', 'cruise', 'accel', 'entry'] as const) this[k] = wide(this[k], this.room);
    this.slow = new Float64Array(this.room + 1);
    this.fast = new Float64Array(this.room + 1);
  }

  /** Done with as many chords as can be; with all of them where the way stands still behind the last one. */
  private settle(still: boolean): void {
    const { count: n, length, accel, entry, slow, fast } = this;
    if (!n) return;
    slow[n] = 0;
    fast[n] = still ? 0 : this.cruise[n - 1];
    let known = still ? n : 0;
    for (let i = n - 1; i > 0; i--) {
      const gain = 2 * accel[i] * length[i];
      slow[i] = Math.min(entry[i], Math.sqrt(slow[i + 1] * slow[i + 1] + gain));
      if (known) continue;
      fast[i] = Math.min(entry[i], Math.sqrt(fast[i + 1] * fast[i + 1] + gain));
      if (fast[i] === slow[i]) known = i;
    }
    slow[0] = entry[0];
    for (let i = 0; i < known; i++) {
      slow[i + 1] = Math.min(slow[i + 1], Math.sqrt(slow[i] * slow[i] + 2 * accel[i] * length[i]));
      this.done(this.name[i], length[i], this.seconds(i, slow[i], slow[i + 1]));
    }
    entry.copyWithin(0, known, n);
    entry[0] = slow[known];
    for (const a of [this.name, length, this.cruise, accel]) a.copyWithin(0, known, n);
    this.count = n - known;
  }

  /** Seconds of a chord from one speed to another: up as far as it can, on, and down. */
  private seconds(i: number, v0: number, v1: number): number {
    const l = this.length[i];
    const a = this.accel[i];
    const peak = Math.min(this.cruise[i], Math.sqrt(Math.max(0, (2 * a * l + v0 * v0 + v1 * v1) / 2)));
    const up = Math.max(0, (peak * peak - v0 * v0) / (2 * a));
    const down = Math.max(0, (peak * peak - v1 * v1) / (2 * a));
    return Math.max(0, peak - v0) / a + Math.max(0, peak - v1) / a + Math.max(0, l - up - down) / Math.max(peak, 1e-9);
  }
}
