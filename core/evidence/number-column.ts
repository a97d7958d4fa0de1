/**
 * A growing column of numbers. Plain arrays of a million numbers cost several
 * times the memory and sort by a comparison function; this keeps them packed.
 */
export class NumberColumn {
  private values = new Float64Array(16);
  private used = 0;
  private inOrder = false;

  get length(): number {
    return this.used;
  }

  push(value: number): void {
    if (this.used === this.values.length) {
      const wider = new Float64Array(this.values.length * 2);
      wider.set(this.values);
      this.values = wider;
    }
    this.values[this.used++] = value;
    this.inOrder = false;
  }

  /** Adds another column's numbers. */
  pushAll(values: Float64Array): void {
    if (this.used + values.length > this.values.length) {
      const wider = new Float64Array(Math.max(this.values.length * 2, this.used + values.length));
      wider.set(this.values.subarray(0, this.used));
      this.values = wider;
    }
    this.values.set(values, this.used);
    this.used += values.length;
    this.inOrder = false;
  }

  /** The numbers in the order they came, for handing to another thread. */
  packed(): Float64Array {
    return this.values.slice(0, this.used);
  }

  /** The numbers in rising order, as a view on this column: push no more after it. */
  sorted(): Float64Array {
    const view = this.values.subarray(0, this.used);
    if (!this.inOrder) view.sort();
    this.inOrder = true;
    return view;
  }
}
