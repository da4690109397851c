import type { MeshData } from './mesh';
import { weld } from './weld';

/** The farthest a sharp corner goes, in widths. */
const LONGEST = 2;

/** Ways of vertices, object space: x y z for each. */
export interface HullWays {
  /**
   * Where each goes when the mesh grows by one: vertices in one place go one way, whatever their own normals, so that
   * the grown mesh has no gaps. Faces move by about one each, so corners go farther. Vertices at the rim of an open mesh
   * also go outwards along it.
   */
  readonly grown: Float32Array<ArrayBuffer>;
  /** Only outwards at the rim; absent where the mesh has none. */
  readonly rim?: Float32Array<ArrayBuffer>;
}

/**
 * Normals of places are means of those of faces, weighted by angle (Thürmer and Wüthrich 1998, "Computing vertex normals
 * from polygonal facets", Journal of Graphics Tools 3(1)).
 */
export function hullWays(mesh: MeshData): HullWays {
  const { positions } = mesh;
  const places = weld(mesh);
  const faces = facesOf(mesh, places);
  const ways = faceNormals(faces);
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

/** Triangles with an area, in rows of numbers: a mesh may have a million. */
interface Faces {
  readonly count: number;
  /** How many places there are. */
  readonly places: number;
  /** Vertices and places of their corners, three a face. */
  readonly vertices: Uint32Array;
  readonly corners: Uint32Array;
  /** Of unit length, x y z a face. */
  readonly normals: Float64Array;
  /** Radians at their corners, three a face. */
  readonly angles: Float64Array;
}

/** Triangles without area, as at the poles of a sphere, are left out. */
function facesOf({ positions, indices }: MeshData, places: Uint32Array): Faces {
  const [vertices, corners] = [new Uint32Array(indices.length), new Uint32Array(indices.length)];
  const [normals, angles] = [new Float64Array(indices.length), new Float64Array(indices.length)];
  const sides = new Float64Array(9);
  let count = 0;
  for (let at = 0; at < indices.length; at += 3) {
    const to = count * 3;
    for (let corner = 0; corner < 3; corner++) {
      vertices[to + corner] = indices[at + corner] ?? 0;
      corners[to + corner] = places[indices[at + corner] ?? 0] ?? 0;
    }
    if (corners[to] === corners[to + 1] || corners[to + 1] === corners[to + 2] || corners[to] === corners[to + 2]) continue;
    for (let corner = 0; corner < 3; corner++)
      for (let axis = 0; axis < 3; axis++) {
        const [from, next] = [vertices[to + corner] ?? 0, vertices[to + ((corner + 1) % 3)] ?? 0];
        sides[corner * 3 + axis] = (positions[next * 3 + axis] ?? 0) - (positions[from * 3 + axis] ?? 0);
      }
    putUnit(normals, to, crossOf(sides, 0, 3));
    for (let corner = 0; corner < 3; corner++) {
      const [next, before] = [corner * 3, ((corner + 2) % 3) * 3];
      const both = lengthAt(sides, next) * lengthAt(sides, before);
      angles[to + corner] = both > 0 ? Math.acos(Math.min(Math.max(-dotAt(sides, next, sides, before) / both, -1), 1)) : 0;
    }
    count++;
  }
  let most = 0;
  for (const place of places) most = Math.max(most, place + 1);
  return { count, places: most, vertices, corners, normals, angles };
}

/** Of each place the mean of its faces' normals, of unit length; zero where they take each other away. */
function faceNormals({ count, places, corners, normals, angles }: Faces): Float64Array {
  const sums = new Float64Array(places * 3);
  for (let corner = 0; corner < count * 3; corner++) {
    const [to, from] = [(corners[corner] ?? 0) * 3, corner - (corner % 3)];
    for (let axis = 0; axis < 3; axis++) sums[to + axis] = (sums[to + axis] ?? 0) + (normals[from + axis] ?? 0) * (angles[corner] ?? 0);
  }
  return units(sums);
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
  const both = new Float64Array(6);
  for (const corner of edges.values()) {
    if (corner === SHARED) continue;
    sums ??= new Float64Array(places * 3);
    const next = following(corner);
    for (let axis = 0; axis < 3; axis++) {
      both[axis] = (positions[(vertices[next] ?? 0) * 3 + axis] ?? 0) - (positions[(vertices[corner] ?? 0) * 3 + axis] ?? 0);
      both[3 + axis] = normals[corner - (corner % 3) + axis] ?? 0;
    }
    const out = new Float64Array(3);
    putUnit(out, 0, crossOf(both, 0, 3));
    for (const place of [corners[corner] ?? 0, corners[next] ?? 0])
      for (let axis = 0; axis < 3; axis++) sums[place * 3 + axis] = (sums[place * 3 + axis] ?? 0) + (out[axis] ?? 0);
  }
  return sums && units(sums);
}

/** The next corner of the same face. */
function following(corner: number): number {
  return corner % 3 === 2 ? corner - 2 : corner + 1;
}

function units(sums: Float64Array): Float64Array {
  for (let at = 0; at < sums.length; at += 3) putUnit(sums, at, [sums[at] ?? 0, sums[at + 1] ?? 0, sums[at + 2] ?? 0]);
  return sums;
}

/** Puts a direction at unit length; zeros where there is none. */
function putUnit(into: Float64Array, at: number, [x, y, z]: readonly [number, number, number]): void {
  const length = Math.sqrt(x * x + y * y + z * z);
  const by = length > 1e-12 && Number.isFinite(length) ? 1 / length : 0;
  into[at] = x * by;
  into[at + 1] = y * by;
  into[at + 2] = z * by;
}

function crossOf(values: Float64Array, a: number, b: number): [number, number, number] {
  const [ax, ay, az] = [values[a] ?? 0, values[a + 1] ?? 0, values[a + 2] ?? 0];
  const [bx, by, bz] = [values[b] ?? 0, values[b + 1] ?? 0, values[b + 2] ?? 0];
  return [ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx];
}

function dotAt(a: Float64Array, at: number, b: Float64Array, other: number): number {
  return (a[at] ?? 0) * (b[other] ?? 0) + (a[at + 1] ?? 0) * (b[other + 1] ?? 0) + (a[at + 2] ?? 0) * (b[other + 2] ?? 0);
}

function lengthAt(values: Float64Array, at: number): number {
  return Math.sqrt(dotAt(values, at, values, at));
}
