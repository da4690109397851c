/** A list of corners of triangles, each with all that its vertex has: what is made for a mesh may need to take vertices apart. */
export class Corners {
  /** Three a triangle. */
  indices: Uint32Array<ArrayBuffer>;
  /** By name: numbers of each vertex, so many in a row. */
  readonly fields = new Map<string, { values: Float32Array<ArrayBuffer>; readonly size: number }>();

  constructor(
    public count: number,
    indices: Uint32Array,
  ) {
    this.indices = new Uint32Array(indices);
  }

  set(name: string, size: number, values: Float32Array): void {
    this.fields.set(name, { values: new Float32Array(values), size });
  }

  get(name: string): Float32Array<ArrayBuffer> {
    return this.fields.get(name)?.values ?? new Float32Array(0);
  }

  /**
   * Gives each vertex a copy for every key that its triangles have.
   *
   * @param keys one whole number a triangle
   */
  split(keys: Int32Array): void {
    const first = new Int32Array(this.count).fill(-1);
    const copies = new Map<number, number>();
    const origin: number[] = [];
    const span = keys.reduce((most, key) => Math.max(most, key), 0) + 1;
    for (let at = 0; at < this.indices.length; at++) {
      const vertex = this.indices[at] ?? 0;
      const key = keys[Math.floor(at / 3)] ?? 0;
      if (first[vertex] === -1) first[vertex] = key;
      if (first[vertex] === key) continue;
      const name = vertex * span + key;
      let copy = copies.get(name);
      if (copy === undefined) {
        copy = this.count + origin.length;
        copies.set(name, copy);
        origin.push(vertex);
      }
      this.indices[at] = copy;
    }
    if (origin.length === 0) return;
    for (const field of this.fields.values()) {
      const grown = new Float32Array((this.count + origin.length) * field.size);
      grown.set(field.values);
      origin.forEach((vertex, index) => {
        const to = (this.count + index) * field.size;
        grown.set(field.values.subarray(vertex * field.size, (vertex + 1) * field.size), to);
      });
      field.values = grown;
    }
    this.count += origin.length;
  }
}
