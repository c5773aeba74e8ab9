/** Numbers read one after the other from bytes, the highest byte first. Reading beyond the end throws a RangeError. */
export class Bytes {
  at = 0;
  private readonly view: DataView;
  constructor(private readonly bytes: Uint8Array) {
    this.view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  }
  u8 = (): number => this.view.getUint8(this.at++);
  u16 = (): number => this.view.getUint16((this.at += 2) - 2);
  i16 = (): number => this.view.getInt16((this.at += 2) - 2);
  u32 = (): number => this.view.getUint32((this.at += 4) - 4);
  skip(count: number): void {
    this.at += count;
  }
  /** To so many bytes before the end. */
  back(count: number): this {
    this.at = this.bytes.length - count;
    return this;
  }
  take(count: number): Uint8Array {
    const from = this.at;
    if (from + count > this.bytes.length) throw new RangeError('the bytes end before');
    this.at += count;
    return this.bytes.subarray(from, this.at);
  }
  /** UIntBase128 (W3C, WOFF File Format 2.0, 4.1): seven bits a byte, at most five of them, none of them nought at first. */
  base128(): number {
    let n = 0;
    for (let i = 0; i < 5; i++) {
      const b = this.u8();
      if (i === 0 && b === 0x80) break;
      n = n * 128 + (b & 127);
      if (n > 0xffffffff) break;
      if (!(b & 128)) return n;
    }
    throw new RangeError('not a number of base 128');
  }
  /** 255UInt16 (the same, 6.1.1): small numbers in one byte. */
  short255(): number {
    const b = this.u8();
    if (b === 253) return this.u16();
    if (b === 254) return this.u8() + 506;
    return b === 255 ? this.u8() + 253 : b;
  }
}
