/** Numbers one after the other, in memory that doubles when it is full. */
export class GrowingFloats {
  private values = new Float32Array(1024);
  length = 0;

  push(...numbers: readonly number[]): void {
    if (this.length + numbers.length > this.values.length) {
      const grown = new Float32Array(this.values.length * 2);
      grown.set(this.values);
      this.values = grown;
    }
    for (const each of numbers) this.values[this.length++] = each;
  }

  at(index: number): number {
    return this.values[index] ?? 0;
  }

  finish(): Float32Array<ArrayBuffer> {
    return this.values.slice(0, this.length);
  }
}
