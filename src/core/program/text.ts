/**
 * Text that grows byte by byte: programs of a million lines are written without a string for every word.
 * ASCII only.
 */
export class ByteText {
  private bytes = new Uint8Array(1 << 16);
  private length = 0;

  private room(n: number): void {
    if (this.length + n <= this.bytes.length) return;
    const wider = new Uint8Array(2 * this.bytes.length + n);
    wider.set(this.bytes.subarray(0, this.length));
    this.bytes = wider;
  }

  ascii(s: string): void {
    this.room(s.length);
    for (let i = 0; i < s.length; i++) this.bytes[this.length++] = s.charCodeAt(i);
  }

  line(s: string): void {
    this.ascii(s);
    this.byte(10);
  }

  byte(b: number): void {
    this.room(1);
    this.bytes[this.length++] = b;
  }

  /** A letter and a number given in whole steps of 10^-decimals, without trailing zeros. */
  word(letter: number, steps: number, decimals: number): void {
    this.room(24);
    const out = this.bytes;
    let n = this.length;
    out[n++] = letter;
    let a = steps;
    if (a < 0) {
      out[n++] = 45;
      a = -a;
    }
    let factor = POWERS[decimals];
    let whole = Math.floor(a / factor);
    // Both are far below 2^31: 32-bit arithmetic serves from here on.
    let rest = a - whole * factor;
    if (whole < 10) out[n++] = 48 + whole;
    else {
      let digits = 1;
      while (POWERS[digits] <= whole) digits++;
      for (let k = digits - 1; k >= 0; k--) {
        const q = (whole / POWERS[k]) | 0;
        out[n++] = 48 + q;
        whole -= q * POWERS[k];
      }
    }
    if (rest > 0) {
      out[n++] = 46;
      while (rest > 0) {
        factor /= 10;
        const q = (rest / factor) | 0;
        out[n++] = 48 + q;
        rest -= q * factor;
      }
    }
    this.length = n;
  }

  toString(): string {
    const parts: string[] = [];
    for (let i = 0; i < this.length; i += 16384) parts.push(String.fromCharCode.apply(null, this.bytes.subarray(i, Math.min(this.length, i + 16384)) as unknown as number[]));
    return parts.join('');
  }
}

const POWERS = Array.from({ length: 16 }, (_, i) => 10 ** i);
