/** A range of a mesh's indices with a name of its own. */
export interface MeshPart {
  readonly name: string;
  readonly first: number;
  readonly count: number;
}

/**
 * Triangles in object space: right-handed, Y up, metres, counter-clockwise fronts. Row 0 of a UV set is an
 * image's top. Tangents follow +u; `cross(normal, tangent) * w` points up the image (glTF 2.0, section 3.7.2.1).
 */
export interface MeshData {
  readonly positions: Float32Array<ArrayBuffer>;
  readonly normals: Float32Array<ArrayBuffer>;
  readonly tangents: Float32Array<ArrayBuffer>;
  readonly uvs: Float32Array<ArrayBuffer>;
  /** Without overlaps, for occlusion and other baked light. */
  readonly uvs2: Float32Array<ArrayBuffer>;
  /** Scene-linear red, green, blue and alpha of each vertex; generated meshes carry their place within the bounds. */
  readonly colours: Float32Array<ArrayBuffer>;
  readonly indices: Uint32Array<ArrayBuffer>;
  readonly parts: readonly MeshPart[];
  readonly bounds: Bounds;
  /** Has an inside that cannot be seen: its back faces need no drawing. */
  readonly closed: boolean;
}

/** What each vertex has, in the order in which files and buffers keep it, and how many numbers that is. */
export const VERTEX_FIELDS = [
  ['positions', 3],
  ['normals', 3],
  ['tangents', 4],
  ['uvs', 2],
  ['uvs2', 2],
  ['colours', 4],
] as const;

export interface Bounds {
  readonly low: readonly number[];
  readonly high: readonly number[];
}

export function boundsOf(positions: ArrayLike<number>): Bounds {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let index = 0; index < positions.length; index++) {
    const axis = index % 3;
    low[axis] = Math.min(low[axis] ?? 0, positions[index] ?? 0);
    high[axis] = Math.max(high[axis] ?? 0, positions[index] ?? 0);
  }
  return positions.length === 0 ? { low: [0, 0, 0], high: [0, 0, 0] } : { low, high };
}

/** A colour for each vertex that tells its place within the bounds: red to the right, green upwards, blue to the front. */
export function placeColours(positions: ArrayLike<number>, { low, high }: Bounds): Float32Array<ArrayBuffer> {
  const colours = new Float32Array((positions.length / 3) * 4).fill(1);
  for (let index = 0; index < positions.length; index++) {
    const axis = index % 3;
    const extent = (high[axis] ?? 0) - (low[axis] ?? 0);
    colours[Math.floor(index / 3) * 4 + axis] = extent > 1e-6 ? ((positions[index] ?? 0) - (low[axis] ?? 0)) / extent : 0;
  }
  return colours;
}

const none = (): Float32Array<ArrayBuffer> => new Float32Array(0);

/** Stands for a mesh whose file is still on its way. */
export const NO_MESH: MeshData = {
  positions: none(),
  normals: none(),
  tangents: none(),
  uvs: none(),
  uvs2: none(),
  colours: none(),
  indices: new Uint32Array(0),
  parts: [],
  bounds: { low: [0, 0, 0], high: [0, 0, 0] },
  closed: false,
};
