/** A column of numbers that grows: twice as long whenever it is full, so that nothing but the numbers is held. */
export class Growing {
  private data = new Float64Array(1024);
  length = 0;

  push(v: number): void {
    if (this.length === this.data.length) {
      const more = new Float64Array(this.data.length * 2);
      more.set(this.data);
      this.data = more;
    }
    this.data[this.length++] = v;
  }

  /** What has come so far; a view, good until the next one comes. */
  get values(): Float64Array {
    return this.data.subarray(0, this.length);
  }
}
