import type { MeshData } from './mesh';

/** How finely places are told apart, as part of the mesh's size. */
const GRAIN = 1e-5;
/** Cells along an axis, and room at both ends: three of them fit into a number without loss. */
const CELLS = 131_072;

/**
 * One number for all vertices in one place, from 0. Places are looked up in cells, near a cell's border also in the next, so
 * that rounding does not tear apart what was meant to meet.
 */
export function weld({ positions, bounds }: Pick<MeshData, 'positions' | 'bounds'>): Uint32Array<ArrayBuffer> {
  const grain = Math.max(...bounds.high.map((high, axis) => high - (bounds.low[axis] ?? 0)), 1e-9) * GRAIN;
  const places = new Uint32Array(positions.length / 3);
  const cells = new Map<number, number>();
  const own = [0, 0, 0];
  const beside = [0, 0, 0];
  for (let vertex = 0; vertex < places.length; vertex++) {
    for (let axis = 0; axis < 3; axis++) {
      const at = ((positions[vertex * 3 + axis] ?? 0) - (bounds.low[axis] ?? 0)) / grain + 2;
      const cell = Math.floor(at);
      const part = at - cell;
      own[axis] = cell;
      beside[axis] = part < 0.25 ? -1 : part > 0.75 ? 1 : 0;
    }
    places[vertex] = lookUp(cells, own, beside) ?? add(cells, keyOf(own, beside, 0));
  }
  return places;
}

function add(cells: Map<number, number>, key: number): number {
  const place = cells.size;
  cells.set(key, place);
  return place;
}

/** The place in the cell itself or, where the point is near its border, in one of the cells beside it. */
function lookUp(cells: ReadonlyMap<number, number>, own: readonly number[], beside: readonly number[]): number | undefined {
  for (let sides = 0; sides < 8; sides++) {
    if ((sides & 1 && !beside[0]) || (sides & 2 && !beside[1]) || (sides & 4 && !beside[2])) continue;
    const known = cells.get(keyOf(own, beside, sides));
    if (known !== undefined) return known;
  }
  return undefined;
}

function keyOf([x = 0, y = 0, z = 0]: readonly number[], [a = 0, b = 0, c = 0]: readonly number[], sides: number): number {
  const across = x + (sides & 1 ? a : 0);
  const up = y + (sides & 2 ? b : 0);
  const along = z + (sides & 4 ? c : 0);
  return (across * CELLS + up) * CELLS + along;
}
