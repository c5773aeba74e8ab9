/** Growing x, y, z of a line: the first `length` numbers of `data`. */
export class Points {
  data = new Float64Array(3072);
  length = 0;

  push(x: number, y: number, z: number): void {
    if (this.length + 3 > this.data.length) {
      const wider = new Float64Array(2 * this.data.length);
      wider.set(this.data);
      this.data = wider;
    }
    this.data[this.length++] = x;
    this.data[this.length++] = y;
    this.data[this.length++] = z;
  }
}
