/** Numbers by vertex, and how many each vertex has. */
export type Column = readonly [numbers: Float32Array, components: number];

/** Columns beside each other: all numbers of the first vertex, then all of the second, and so on. */
export function interleaved(columns: readonly Column[]): Float32Array<ArrayBuffer> {
  const width = columns.reduce((sum, [, components]) => sum + components, 0);
  const [numbers, components] = columns[0] ?? [new Float32Array(), 1];
  const rows = new Float32Array((numbers.length / components) * width);
  let first = 0;
  for (const [from, count] of columns) {
    for (let component = 0; component < count; component++)
      for (let at = component, to = first + component; to < rows.length; at += count, to += width) rows[to] = from[at] ?? 0;
    first += count;
  }
  return rows;
}
