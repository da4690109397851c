/** Numbers one after the other, in memory that doubles when it is full. */
export class GrowingFloats {
  private values = new Float32Array(1024);
  length = 0;

  push(value: number): void {
    if (this.length === this.values.length) {
      const grown = new Float32Array(this.values.length * 2);
      grown.set(this.values);
      this.values = grown;
    }
    this.values[this.length++] = value;
  }

  at(index: number): number {
    return this.values[index] ?? 0;
  }

  finish(): Float32Array<ArrayBuffer> {
    return this.values.slice(0, this.length);
  }
}

/** Whole numbers one after the other, in memory that doubles when it is full. */
export class GrowingIndices {
  private values = new Uint32Array(1024);
  length = 0;

  push(value: number): void {
    if (this.length === this.values.length) {
      const grown = new Uint32Array(this.values.length * 2);
      grown.set(this.values);
      this.values = grown;
    }
    this.values[this.length++] = value;
  }

  finish(): Uint32Array<ArrayBuffer> {
    return this.values.slice(0, this.length);
  }
}
