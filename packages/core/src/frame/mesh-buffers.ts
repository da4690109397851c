import type { Device, DeviceBuffer, VertexBufferLayout } from '../device/device';
import { hullWays } from '../mesh/hull-ways';
import type { Bounds, MeshData } from '../mesh/mesh';
import { sharedUvs } from '../mesh/shared-uvs';
import { SLOPE_FLOATS, surfaceSlopes } from '../mesh/surface-slopes';
import { weldedNormals } from '../mesh/welded-normals';
import { libraryBlock, objectGlobals, writeBlock } from './uniforms';
import { UniformBuffer } from './uniform-buffer';

const FLOAT = 4;

/** Floats an element: three rows of worldFromObject, and the copy's number. */
export const COPY_WORDS = 13;

/** One buffer per attribute, so that a mesh can change one without the others; then one element per copy. */
export const SURFACE_VERTEX_BUFFERS: readonly VertexBufferLayout[] = [
  { stride: 3 * FLOAT, step: 'vertex', attributes: [{ name: 'meshPosition', components: 3, offset: 0 }] },
  { stride: 3 * FLOAT, step: 'vertex', attributes: [{ name: 'meshNormal', components: 3, offset: 0 }] },
  { stride: 4 * FLOAT, step: 'vertex', attributes: [{ name: 'meshTangent', components: 4, offset: 0 }] },
  { stride: 2 * FLOAT, step: 'vertex', attributes: [{ name: 'meshUv0', components: 2, offset: 0 }] },
  { stride: 2 * FLOAT, step: 'vertex', attributes: [{ name: 'meshUv1', components: 2, offset: 0 }] },
  { stride: 4 * FLOAT, step: 'vertex', attributes: [{ name: 'meshColour', components: 4, offset: 0 }] },
  {
    stride: COPY_WORDS * FLOAT,
    step: 'copy',
    attributes: [
      { name: 'copyRowX', components: 4, offset: 0 },
      { name: 'copyRowY', components: 4, offset: 4 * FLOAT },
      { name: 'copyRowZ', components: 4, offset: 8 * FLOAT },
      { name: 'copyIndex', components: 1, offset: 12 * FLOAT },
    ],
  },
];

const SLOPES: VertexBufferLayout = {
  stride: SLOPE_FLOATS * FLOAT,
  step: 'vertex',
  attributes: [
    { name: 'meshUvSlope', components: 4, offset: 0 },
    { name: 'meshBend', components: 4, offset: 4 * FLOAT },
  ],
};
const SHARED_UVS: VertexBufferLayout = {
  stride: 2 * FLOAT,
  step: 'vertex',
  attributes: [{ name: 'meshSharedUv', components: 2, offset: 0 }],
};
const WELDED: VertexBufferLayout = { stride: 3 * FLOAT, step: 'vertex', attributes: [{ name: 'meshWelded', components: 3, offset: 0 }] };
const HULL_WAYS: VertexBufferLayout = { stride: 3 * FLOAT, step: 'vertex', attributes: [{ name: 'hullWay', components: 3, offset: 0 }] };

/** What a vertex program reads besides what all read: slopes where the surface has a shape, shared normals, ways of a grown mesh. */
export interface VertexNeeds {
  readonly shaped?: boolean;
  readonly welded?: boolean;
  readonly grown?: boolean;
}

/** The buffers of a vertex program, in the order in which `MeshBuffers.of` gives them. */
export function vertexLayouts({ shaped, welded, grown }: VertexNeeds = {}): readonly VertexBufferLayout[] {
  return [
    ...SURFACE_VERTEX_BUFFERS.slice(0, -1),
    ...(shaped ? [SLOPES, SHARED_UVS] : []),
    ...(welded ? [WELDED] : []),
    ...(grown ? [HULL_WAYS] : []),
    ...SURFACE_VERTEX_BUFFERS.slice(-1),
  ];
}

/** Which buffers a drawing wants. */
interface BuffersWanted extends Pick<VertexNeeds, 'shaped' | 'welded'> {
  /** One element per copy. */
  readonly copies?: DeviceBuffer;
  /** Which way each vertex goes in a grown mesh. */
  readonly ways?: DeviceBuffer;
}

const IN_PLACE = new Float32Array([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0]);

/** A mesh on the device, and one copy of it in place. */
export class MeshBuffers {
  /** Of the vertices; the copies' buffer follows them. */
  readonly vertices: readonly DeviceBuffer[];
  readonly inPlace: DeviceBuffer;
  readonly indices: DeviceBuffer;
  readonly indexCount: number;
  private edges?: DeviceBuffer;
  private ways?: MeshBuffers['hull'];
  private slopes?: DeviceBuffer;
  private seams?: DeviceBuffer;
  private welds?: DeviceBuffer;
  readonly object: UniformBuffer;
  readonly closed: boolean;
  readonly bounds: Bounds;

  constructor(
    private readonly device: Device,
    private readonly mesh: MeshData,
  ) {
    this.vertices = [mesh.positions, mesh.normals, mesh.tangents, mesh.uvs, mesh.uvs2, mesh.colours].map((each) =>
      vertexBuffer(device, each),
    );
    this.inPlace = vertexBuffer(device, IN_PLACE);
    this.indices = device.createBuffer({ usage: 'index', size: mesh.indices.byteLength });
    this.indices.write(mesh.indices);
    this.indexCount = mesh.indices.length;
    this.closed = mesh.closed;
    this.bounds = mesh.bounds;
    this.object = objectBuffer(device, mesh.bounds, 0);
  }

  /** The edges of its triangles: six indices for each three, made when they are first wanted. */
  get wires(): DeviceBuffer {
    if (this.edges) return this.edges;
    const corners = this.mesh.indices;
    const lines = new Uint32Array(corners.length * 2);
    for (let at = 0; at < corners.length; at += 3) {
      const [a = 0, b = 0, c = 0] = corners.subarray(at, at + 3);
      lines.set([a, b, b, c, c, a], at * 2);
    }
    this.edges = this.device.createBuffer({ usage: 'index', size: lines.byteLength });
    this.edges.write(lines);
    return this.edges;
  }

  /** Which way each vertex goes in a grown mesh, found when it is first wanted; at the rim alone where it has one. */
  get hull(): { readonly grown: DeviceBuffer; readonly rim?: DeviceBuffer } {
    if (this.ways) return this.ways;
    const { grown, rim } = hullWays(this.mesh);
    return (this.ways = { grown: vertexBuffer(this.device, grown), rim: rim && vertexBuffer(this.device, rim) });
  }

  /** The buffers that a vertex program reads, made when they are first wanted. */
  of({ shaped, welded, copies = this.inPlace, ways }: BuffersWanted): DeviceBuffer[] {
    const { device, mesh } = this;
    return [
      ...this.vertices,
      ...(shaped
        ? [(this.slopes ??= vertexBuffer(device, surfaceSlopes(mesh))), (this.seams ??= vertexBuffer(device, sharedUvs(mesh)))]
        : []),
      ...(welded ? [(this.welds ??= vertexBuffer(device, weldedNormals(mesh)))] : []),
      ...(ways ? [ways] : []),
      copies,
    ];
  }

  destroy(): void {
    this.edges?.destroy();
    this.slopes?.destroy();
    this.seams?.destroy();
    this.welds?.destroy();
    this.ways?.grown.destroy();
    this.ways?.rim?.destroy();
    for (const buffer of [...this.vertices, this.inPlace, this.indices, this.object]) buffer.destroy();
  }
}

function vertexBuffer(device: Device, data: Float32Array<ArrayBuffer>): DeviceBuffer {
  const buffer = device.createBuffer({ usage: 'vertex', size: data.byteLength });
  buffer.write(data);
  return buffer;
}

/** The block `Object` of a part of a mesh with these bounds. */
export function objectBuffer(device: Device, bounds: Bounds, depthOffset: number, receives = true, part = 0): UniformBuffer {
  const layout = libraryBlock('Object');
  const buffer = new UniformBuffer(device, layout.words);
  writeBlock(layout, objectGlobals(bounds, depthOffset, receives, part), buffer.words);
  buffer.upload();
  return buffer;
}
