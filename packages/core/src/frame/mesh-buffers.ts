import type { Device, DeviceBuffer, VertexBufferLayout } from '../device/device';
import type { Bounds, MeshData } from '../mesh/mesh';
import { interleaved } from '../mesh/interleaved';
import { shapeRows, workOut, type MeshWork } from '../mesh/mesh-work';
import { SLOPE_FLOATS } from '../mesh/surface-slopes';
import type { MeshBank } from './mesh-bank';
import { libraryBlock, objectGlobals, writeBlock } from './uniforms';
import { BoundBlock } from './bound-block';

const FLOAT = 4;

/** Floats an element: three rows of worldFromObject, and the copy's number. */
export const INSTANCE_WORDS = 13;

type VertexAttributes = readonly (readonly [name: string, components: VertexBufferLayout['attributes'][number]['components']])[];

/** Attributes of one buffer, one behind the other. */
function buffer(step: VertexBufferLayout['step'], attributes: VertexAttributes): VertexBufferLayout {
  let offset = 0;
  const placed = attributes.map(([name, components]) => {
    const at = offset;
    offset += components * FLOAT;
    return { name, components, offset: at };
  });
  return { stride: offset, step, attributes: placed };
}

/**
 * What all programs read alone, and what few do together: with all that a surface may want besides, there are eight buffers, which is
 * as many as every device has room for (WebGPU, section 3.6.2). Then one element per copy.
 */
export const SURFACE_VERTEX_BUFFERS: readonly VertexBufferLayout[] = [
  buffer('vertex', [['meshPosition', 3]]),
  buffer('vertex', [['meshNormal', 3]]),
  buffer('vertex', [['meshUv0', 2]]),
  buffer('vertex', [
    ['meshTangent', 4],
    ['meshUv1', 2],
    ['meshColour', 4],
  ]),
  buffer('instance', [
    ['instanceRowX', 4],
    ['instanceRowY', 4],
    ['instanceRowZ', 4],
    ['copyIndex', 1],
  ]),
];

const SHAPE = buffer('vertex', [
  ['meshUvSlope', 4],
  ['meshBend', 4],
  ['meshSharedUv', 2],
]);
const WELDED = buffer('vertex', [['meshWelded', 3]]);
const EXTRUSION_DIRECTIONS = buffer('vertex', [['extrusionDirection', 3]]);

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
    ...(shaped ? [SHAPE] : []),
    ...(welded ? [WELDED] : []),
    ...(grown ? [EXTRUSION_DIRECTIONS] : []),
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
  private readonly made = new Map<MeshWork, readonly DeviceBuffer[]>();
  private readonly asked = new Set<MeshWork>();
  private level?: DeviceBuffer;
  private destroyed = false;
  readonly object: BoundBlock;
  readonly closed: boolean;
  readonly bounds: Bounds;

  /** @param works works out what programs want of the mesh besides, maybe apart from here */
  constructor(
    private readonly device: Device,
    private readonly mesh: MeshData,
    private readonly works: Pick<MeshBank, 'workOut'> = { workOut },
  ) {
    const { positions, normals, uvs, tangents, uvs2, colours } = mesh;
    const others = interleaved([
      [tangents, 4],
      [uvs2, 2],
      [colours, 4],
    ]);
    this.vertices = [positions, normals, uvs, others].map((each) => vertexBuffer(device, each));
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
    for (let corner = 0; corner < corners.length; corner++) {
      lines[corner * 2] = corners[corner] ?? 0;
      lines[corner * 2 + 1] = corners[corner % 3 === 2 ? corner - 2 : corner + 1] ?? 0;
    }
    this.edges = this.device.createBuffer({ usage: 'index', size: lines.byteLength });
    this.edges.write(lines);
    return this.edges;
  }

  /** Which way each vertex goes in a grown mesh; at the rim alone where it has one. Until it is known, along the normal. */
  get hull(): { readonly grown: DeviceBuffer; readonly rim?: DeviceBuffer } {
    const [grown = this.normals, rim] = this.extra('hull') ?? [];
    return { grown, rim };
  }

  /** The buffers that a vertex program reads; until what it wants of the mesh is worked out, those of a level surface without seams. */
  of({ shaped, welded, copies = this.inPlace, ways }: BuffersWanted): DeviceBuffer[] {
    return [
      ...this.vertices,
      ...(shaped ? (this.extra('shape') ?? this.unshaped) : []),
      ...(welded ? (this.extra('welded') ?? [this.normals]) : []),
      ...(ways ? [ways] : []),
      copies,
    ];
  }

  private get normals(): DeviceBuffer {
    return this.vertices[1] ?? this.inPlace;
  }

  private get unshaped(): readonly DeviceBuffer[] {
    const { positions, uvs } = this.mesh;
    this.level ??= vertexBuffer(this.device, shapeRows(new Float32Array((positions.length / 3) * SLOPE_FLOATS), uvs));
    return [this.level];
  }

  /** What is worked out from the mesh when it is first wanted. */
  private extra(work: MeshWork): readonly DeviceBuffer[] | undefined {
    const known = this.made.get(work);
    if (known || this.asked.has(work)) return known;
    this.asked.add(work);
    const rows = this.works.workOut(this.mesh, work);
    const upload = (each: Awaited<typeof rows>): void =>
      void this.made.set(
        work,
        each.map((row) => vertexBuffer(this.device, row)),
      );
    if (rows instanceof Promise) void rows.then((each) => this.destroyed || upload(each));
    else upload(rows);
    return this.made.get(work);
  }

  destroy(): void {
    this.destroyed = true;
    this.edges?.destroy();
    this.level?.destroy();
    const made = [...this.made.values()].flat();
    for (const buffer of [...this.vertices, ...made, this.inPlace, this.indices, this.object]) buffer.destroy();
  }
}

function vertexBuffer(device: Device, data: Float32Array<ArrayBuffer>): DeviceBuffer {
  const buffer = device.createBuffer({ usage: 'vertex', size: data.byteLength });
  buffer.write(data);
  return buffer;
}

/** The block `Object` of a part of a mesh with these bounds. */
export function objectBuffer(
  device: Device,
  bounds: Bounds,
  depthOffset: number,
  receives = true,
  part = 0,
  field?: readonly number[],
): BoundBlock {
  const block = new BoundBlock(device, libraryBlock('Object'));
  writeBlock(block.layout, objectGlobals(bounds, depthOffset, receives, part, field), block.words);
  block.upload();
  return block;
}
