import { facesOf, NO_WAY, placeNormals, type Faces } from './faces-round-places';
import type { MeshData } from './mesh';
import { addAt, dotAt, makeUnit, putCross, putStep } from './rows';
import { weld } from './weld';

/** The farthest a sharp corner goes, in widths. */
const LONGEST = 2;

/** Ways of vertices, object space: x y z for each. */
export interface ExtrusionDirections {
  /**
   * Where each goes when the mesh grows by one: vertices in one place go one way, whatever their own normals, so that
   * the grown mesh has no gaps. Faces move by about one each, so corners go farther. Vertices at the rim of an open mesh
   * also go outwards along it.
   */
  readonly grown: Float32Array<ArrayBuffer>;
  /** Only outwards at the rim; absent where the mesh has none. */
  readonly rim?: Float32Array<ArrayBuffer>;
}

/** Places go along the means of the normals round them, see `placeNormals`. */
export function extrusionDirections(mesh: MeshData): ExtrusionDirections {
  const { positions } = mesh;
  const places = weld(mesh);
  const faces = facesOf(mesh, places);
  const ways = placeNormals(faces);
  const least = leastLean(faces, ways);
  const outwards = rimWays(faces, positions);
  const [grown, rim] = [new Float32Array(positions.length), new Float32Array(positions.length)];
  for (let vertex = 0; vertex < places.length; vertex++) {
    const place = places[vertex] ?? 0;
    const far = 1 / Math.max(least[place] ?? 1, 1 / LONGEST);
    for (let axis = 0; axis < 3; axis++) {
      const out = outwards?.[place * 3 + axis] ?? 0;
      grown[vertex * 3 + axis] = (ways[place * 3 + axis] ?? 0) * far + out;
      rim[vertex * 3 + axis] = out;
    }
  }
  return { grown, rim: outwards && rim };
}

/** Of each place how much the face that leans most from its way still goes along it, at most 1. */
function leastLean({ count, places, corners, normals }: Faces, ways: Float64Array): Float64Array {
  const least = new Float64Array(places).fill(1);
  for (let corner = 0; corner < count * 3; corner++) {
    const place = corners[corner] ?? 0;
    least[place] = Math.min(least[place] ?? 1, dotAt(ways, place * 3, normals, corner - (corner % 3)));
  }
  return least;
}

const SHARED = -1;

/** Unit ways outwards at places of edges that only one face has; nothing where there are none. */
function rimWays({ count, places, vertices, corners, normals }: Faces, positions: Float32Array): Float64Array | undefined {
  /** By both places: the corner at which the edge of a face begins. */
  const edges = new Map<number, number>();
  for (let corner = 0; corner < count * 3; corner++) {
    const [from, to] = [corners[corner] ?? 0, corners[following(corner)] ?? 0];
    const key = Math.min(from, to) * places + Math.max(from, to);
    edges.set(key, edges.has(key) ? SHARED : corner);
  }
  let sums: Float64Array | undefined;
  const out = new Float64Array(3);
  for (const corner of edges.values()) {
    if (corner === SHARED) continue;
    sums ??= new Float64Array(places * 3);
    const next = following(corner);
    putStep(out, 0, positions, vertices[corner] ?? 0, vertices[next] ?? 0, 3);
    putCross(out, 0, out, 0, normals, corner - (corner % 3));
    makeUnit(out, 0);
    for (const place of [corners[corner] ?? 0, corners[next] ?? 0])
      for (let axis = 0; axis < 3; axis++) addAt(sums, place * 3 + axis, out[axis] ?? 0);
  }
  for (let at = 0; sums && at < sums.length; at += 3) makeUnit(sums, at, NO_WAY);
  return sums;
}

/** The next corner of the same face. */
function following(corner: number): number {
  return corner % 3 === 2 ? corner - 2 : corner + 1;
}
