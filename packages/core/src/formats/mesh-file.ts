import { strFromU8, strToU8 } from 'fflate';
import type { MadeForMesh } from '@brelvin/contract';
import { VERTEX_FIELDS, type Bounds, type MeshData, type MeshPart } from '../mesh/mesh';

/** The file is no mesh of ours, or damaged; the message is for the user. */
export class MeshFileRefused extends Error {}

const MAGIC = 0x4d565242;
const VERSION = 1;
const HEAD_BYTES = 12;

interface Head {
  readonly vertices: number;
  readonly corners: number;
  readonly parts: readonly MeshPart[];
  readonly bounds: Bounds;
  /** What the file that it came from did not have; absent in meshes that were kept before it was noted. */
  readonly made?: readonly MadeForMesh[];
}

const FLOATS = VERTEX_FIELDS.reduce((sum, [, size]) => sum + size, 0);

/**
 * A mesh as bytes, little-endian: "BRVM", version, length of a head as JSON (padded to four bytes), then all positions,
 * normals, tangents, both UV sets and colours as floats, then the corners of triangles as 32-bit numbers.
 */
export function writeMeshFile(mesh: MeshData, made: readonly MadeForMesh[] = []): Uint8Array<ArrayBuffer> {
  const head: Head = { vertices: mesh.positions.length / 3, corners: mesh.indices.length, parts: mesh.parts, bounds: mesh.bounds, made };
  const text = strToU8(JSON.stringify(head));
  const start = HEAD_BYTES + Math.ceil(text.length / 4) * 4;
  const bytes = new Uint8Array(start + head.vertices * FLOATS * 4 + head.corners * 4).fill(0x20, HEAD_BYTES, start);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, MAGIC, true);
  view.setUint32(4, VERSION, true);
  view.setUint32(8, start - HEAD_BYTES, true);
  bytes.set(text, HEAD_BYTES);
  let at = start;
  for (const [name] of VERTEX_FIELDS) {
    new Float32Array(bytes.buffer, at, mesh[name].length).set(mesh[name]);
    at += mesh[name].byteLength;
  }
  new Uint32Array(bytes.buffer, at, mesh.indices.length).set(mesh.indices);
  return bytes;
}

/**
 * What a mesh file says of itself, without its numbers.
 *
 * @param bytes the file, or so much of its beginning that its head is whole
 * @param length of the whole file, bytes
 * @throws MeshFileRefused
 */
export function meshFileHead(
  bytes: Uint8Array,
  length = bytes.length,
): { readonly vertices: number; readonly triangles: number; readonly bounds: Bounds; readonly made: readonly MadeForMesh[] } {
  const { vertices, corners, bounds, made = [] } = headOf(bytes, length).head;
  return { vertices, triangles: corners / 3, bounds, made };
}

/**
 * Reads a mesh; its numbers are views of the same memory.
 *
 * @throws MeshFileRefused
 */
export function readMeshFile(buffer: ArrayBuffer): MeshData {
  const { head, start } = headOf(new Uint8Array(buffer));
  const { vertices, corners, parts, bounds } = head;
  let at = start;
  const fields = Object.fromEntries(
    VERTEX_FIELDS.map(([name, size]) => {
      const values = new Float32Array(buffer, at, vertices * size);
      at += values.byteLength;
      return [name, values];
    }),
  ) as Pick<MeshData, (typeof VERTEX_FIELDS)[number][0]>;
  const indices = new Uint32Array(buffer, at, corners);
  for (const index of indices)
    if (index >= vertices) throw new MeshFileRefused('A triangle names a vertex that is not there: the file is damaged.');
  return { ...fields, indices, parts, bounds, closed: false };
}

function headOf(bytes: Uint8Array, length = bytes.length): { readonly head: Head; readonly start: number } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < HEAD_BYTES || view.getUint32(0, true) !== MAGIC) throw new MeshFileRefused('This is no mesh of the workspace.');
  if (view.getUint32(4, true) !== VERSION) throw new MeshFileRefused('This mesh was written by another version of Brelvin.');
  const start = HEAD_BYTES + view.getUint32(8, true);
  let head: Head;
  try {
    head = JSON.parse(strFromU8(bytes.subarray(HEAD_BYTES, start))) as Head;
  } catch {
    throw new MeshFileRefused('The head of this mesh cannot be read: the file is damaged or cut off.');
  }
  const { vertices, corners, parts, bounds } = head;
  const sound =
    [vertices, corners].every((each) => Number.isSafeInteger(each) && each >= 0) &&
    corners % 3 === 0 &&
    Array.isArray(parts) &&
    parts.every(({ first, count }) => first >= 0 && count >= 0 && first + count <= corners) &&
    [bounds?.low, bounds?.high].every((each) => Array.isArray(each) && each.length === 3);
  if (!sound || length !== start + vertices * FLOATS * 4 + corners * 4)
    throw new MeshFileRefused('This mesh does not hold what its head says: the file is damaged or cut off.');
  return { head, start };
}
