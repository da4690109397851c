import type { MeshData } from './mesh';
import type { Vector3 } from './patch';
import { cross, dot, minus, unit } from './vector';
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
  const { positions, indices } = mesh;
  const places = weld(mesh);
  const faces = facesOf(positions, indices, places);
  const sums = new Map<number, Vector3>();
  for (const { corners, normal, angles } of faces) corners.forEach((place, corner) => addTo(sums, place, normal, angles[corner] ?? 0));
  const ways = units(sums);
  const least = new Map<number, number>();
  for (const { corners, normal } of faces)
    for (const place of corners) least.set(place, Math.min(least.get(place) ?? 1, dot(ways.get(place) ?? STAY, normal)));
  const outwards = rimWays(faces);
  const [grown, rim] = [new Float32Array(positions.length), new Float32Array(positions.length)];
  places.forEach((place, vertex) => {
    const [x, y, z] = ways.get(place) ?? STAY;
    const far = 1 / Math.max(least.get(place) ?? 1, 1 / LONGEST);
    const out = outwards.get(place) ?? STAY;
    grown.set([x * far + out[0], y * far + out[1], z * far + out[2]], vertex * 3);
    rim.set(out, vertex * 3);
  });
  return { grown, rim: outwards.size > 0 ? rim : undefined };
}

const STAY: Vector3 = [0, 0, 0];

function addTo(sums: Map<number, Vector3>, place: number, [x, y, z]: Vector3, by: number): void {
  const [a, b, c] = sums.get(place) ?? STAY;
  sums.set(place, [a + x * by, b + y * by, c + z * by]);
}

function units(sums: ReadonlyMap<number, Vector3>): Map<number, Vector3> {
  return new Map([...sums].map(([place, sum]) => [place, unit(sum, STAY)]));
}

interface Face {
  /** Places of its corners. */
  readonly corners: readonly [number, number, number];
  readonly points: readonly [Vector3, Vector3, Vector3];
  readonly normal: Vector3;
  /** Radians at its corners. */
  readonly angles: readonly number[];
}

/** Triangles without area, as at the poles of a sphere, are left out. */
function facesOf(positions: Float32Array, indices: Uint32Array, places: Uint32Array): Face[] {
  const faces: Face[] = [];
  for (let at = 0; at < indices.length; at += 3) {
    const vertices = [indices[at] ?? 0, indices[at + 1] ?? 0, indices[at + 2] ?? 0] as const;
    const corners = vertices.map((vertex) => places[vertex] ?? 0) as unknown as Face['corners'];
    if (new Set(corners).size < 3) continue;
    const points = vertices.map((vertex) => [...positions.subarray(vertex * 3, vertex * 3 + 3)]) as unknown as Face['points'];
    const normal = unit(cross(minus(points[1], points[0]), minus(points[2], points[0])), [0, 0, 0]);
    const angles = points.map((point, corner) => {
      const to = (other: number): Vector3 => unit(minus(points[(corner + other) % 3] ?? point, point));
      return Math.acos(Math.min(Math.max(dot(to(1), to(2)), -1), 1));
    });
    faces.push({ corners, points, normal, angles });
  }
  return faces;
}

/** Unit ways outwards at places of edges that only one face has. */
function rimWays(faces: readonly Face[]): ReadonlyMap<number, Vector3> {
  const edges = new Map<string, { readonly face: Face; readonly corner: number; count: number }>();
  for (const face of faces) {
    for (const corner of [0, 1, 2]) {
      const [from = 0, to = 0] = [face.corners[corner], face.corners[(corner + 1) % 3]];
      const key = from < to ? `${from} ${to}` : `${to} ${from}`;
      const known = edges.get(key);
      if (known) known.count++;
      else edges.set(key, { face, corner, count: 1 });
    }
  }
  const sums = new Map<number, Vector3>();
  for (const { face, corner, count } of edges.values()) {
    if (count > 1) continue;
    const next = (corner + 1) % 3;
    const out = unit(cross(minus(face.points[next] ?? STAY, face.points[corner] ?? STAY), face.normal), STAY);
    for (const place of [face.corners[corner] ?? 0, face.corners[next] ?? 0]) addTo(sums, place, out, 1);
  }
  return units(sums);
}
