import { Corners } from './corners';
import { ImportRefused, type ImportedPiece } from './imported-scene';

/**
 * A piece in world space, its triangles counter-clockwise also where it was mirrored.
 *
 * @returns how many triangles were left out because a corner had no place
 * @throws ImportRefused for indices beyond its vertices
 */
export function placedPiece(piece: ImportedPiece): { readonly corners: Corners; readonly dropped: number } {
  const count = Math.floor(piece.positions.length / 3);
  const all = piece.indices ?? Uint32Array.from({ length: count - (count % 3) }, (_, index) => index);
  const { kept, dropped } = soundTriangles(piece, all, count);
  const corners = new Corners(count, kept);
  corners.set('positions', 3, cleaned(piece.positions));
  if (piece.normals) corners.set('normals', 3, piece.normals);
  if (piece.tangents) corners.set('tangents', 4, piece.tangents);
  if (piece.uvs) corners.set('uvs', 2, cleaned(piece.uvs));
  if (piece.uvs2) corners.set('uvs2', 2, cleaned(piece.uvs2));
  if (piece.colours) corners.set('colours', 4, cleaned(piece.colours));
  if (piece.matrix) place(corners, piece.matrix);
  else tidyDirections(corners);
  return { corners, dropped };
}

function soundTriangles(piece: ImportedPiece, all: Uint32Array, count: number): { kept: Uint32Array; dropped: number } {
  const sound = new Uint8Array(count);
  for (let vertex = 0; vertex < count; vertex++) {
    // A sum is finite only where all of it is, and nothing in a file is near the largest number.
    const sum = (piece.positions[vertex * 3] ?? NaN) + (piece.positions[vertex * 3 + 1] ?? NaN) + (piece.positions[vertex * 3 + 2] ?? NaN);
    sound[vertex] = Number.isFinite(sum) ? 1 : 0;
  }
  const kept = new Uint32Array(all.length - (all.length % 3));
  let [length, dropped] = [0, 0];
  for (let at = 0; at + 2 < all.length; at += 3) {
    const [a = 0, b = 0, c = 0] = [all[at], all[at + 1], all[at + 2]];
    const beyond = Math.max(a, b, c);
    if (beyond >= count)
      throw new ImportRefused(`A triangle of “${piece.name}” names vertex ${beyond}, but there are only ${count}. Export it again.`);
    if (!sound[a] || !sound[b] || !sound[c]) {
      dropped++;
      continue;
    }
    kept[length] = a;
    kept[length + 1] = b;
    kept[length + 2] = c;
    length += 3;
  }
  return { kept: kept.subarray(0, length), dropped };
}

const cleaned = (values: Float32Array): Float32Array => values.map((each) => (Number.isFinite(each) ? each : 0));

/** Positions by the matrix, directions by what keeps them on the surface (normals by the cofactors). */
function place(corners: Corners, matrix: readonly number[]): void {
  const m = (row: number, column: number): number => matrix[column * 4 + row] ?? 0;
  const cofactor = (row: number, column: number): number => {
    const [a, b] = [(row + 1) % 3, (row + 2) % 3];
    const [c, d] = [(column + 1) % 3, (column + 2) % 3];
    return m(a, c) * m(b, d) - m(a, d) * m(b, c);
  };
  const determinant = m(0, 0) * cofactor(0, 0) + m(0, 1) * cofactor(0, 1) + m(0, 2) * cofactor(0, 2);
  const mirrored = determinant < 0;
  const sign = mirrored ? -1 : 1;
  const each = (values: Float32Array, size: number, by: (row: number, column: number) => number, moved: boolean): void => {
    for (let at = 0; at < values.length; at += size) {
      const x = values[at] ?? 0;
      const y = values[at + 1] ?? 0;
      const z = values[at + 2] ?? 0;
      for (let row = 0; row < 3; row++) values[at + row] = by(row, 0) * x + by(row, 1) * y + by(row, 2) * z + (moved ? m(row, 3) : 0);
    }
  };
  each(corners.get('positions'), 3, m, true);
  each(corners.get('normals'), 3, (row, column) => cofactor(row, column) * sign, false);
  const tangents = corners.get('tangents');
  each(tangents, 4, m, false);
  if (mirrored) {
    for (let at = 3; at < tangents.length; at += 4) tangents[at] = -(tangents[at] ?? 1);
    for (let at = 0; at < corners.indices.length; at += 3) {
      const second = corners.indices[at + 1] ?? 0;
      corners.indices[at + 1] = corners.indices[at + 2] ?? 0;
      corners.indices[at + 2] = second;
    }
  }
  tidyDirections(corners);
}

/** At unit length; a broken normal points up, a broken tangent along x, a handedness is one or minus one. */
function tidyDirections(corners: Corners): void {
  for (const [name, size, instead] of [
    ['normals', 3, [0, 1, 0]],
    ['tangents', 4, [1, 0, 0]],
  ] as const) {
    const values = corners.get(name);
    for (let at = 0; at < values.length; at += size) {
      const length = Math.hypot(values[at] ?? 0, values[at + 1] ?? 0, values[at + 2] ?? 0);
      const broken = !(length > 1e-20 && Number.isFinite(length));
      for (let axis = 0; axis < 3; axis++) values[at + axis] = broken ? (instead[axis] ?? 0) : (values[at + axis] ?? 0) / length;
      if (size === 4) values[at + 3] = (values[at + 3] ?? 1) < 0 ? -1 : 1;
    }
  }
}
