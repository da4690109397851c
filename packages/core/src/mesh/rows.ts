// Vectors of three in rows of numbers: a mesh may have a million triangles, and an object for each would be most of the work.

type Row = Float32Array | Float64Array;

export function dotAt(a: Row, at: number, b: Row, other: number): number {
  return (a[at] ?? 0) * (b[other] ?? 0) + (a[at + 1] ?? 0) * (b[other + 1] ?? 0) + (a[at + 2] ?? 0) * (b[other + 2] ?? 0);
}

export function lengthAt(row: Row, at: number): number {
  return Math.sqrt(dotAt(row, at, row, at));
}

/** Puts the cross product of two vectors; it may take the place of either. */
export function putCross(into: Row, to: number, a: Row, at: number, b: Row, other: number): void {
  const [ax, ay, az] = [a[at] ?? 0, a[at + 1] ?? 0, a[at + 2] ?? 0];
  const [bx, by, bz] = [b[other] ?? 0, b[other + 1] ?? 0, b[other + 2] ?? 0];
  into[to] = ay * bz - az * by;
  into[to + 1] = az * bx - ax * bz;
  into[to + 2] = ax * by - ay * bx;
}

/** Puts what leads from one vector of a row to another, `size` numbers each. */
export function putStep(into: Row, to: number, row: Row, from: number, other: number, size: number): void {
  for (let part = 0; part < size; part++) into[to + part] = (row[other * size + part] ?? 0) - (row[from * size + part] ?? 0);
}

/** Brings a vector to unit length; to zero where it is no longer than `least`, and so has no direction. */
export function makeUnit(row: Row, at: number, least = 0): void {
  const length = lengthAt(row, at);
  const by = length > least && Number.isFinite(length) ? 1 / length : 0;
  for (let axis = at; axis < at + 3; axis++) row[axis] = (row[axis] ?? 0) * by;
}

export function addAt(sums: Row, at: number, value: number): void {
  sums[at] = (sums[at] ?? 0) + value;
}
