import { ImportRefused } from '@brelvin/core';
import { checkGltfShape } from './gltf-shape';

/** The parts of a glTF file's JSON that are looked at before anything is read (glTF 2.0, section 5). */
export interface GltfJson {
  readonly asset?: { readonly version?: string };
  readonly extensionsRequired?: readonly string[];
  readonly extensionsUsed?: readonly string[];
  readonly buffers?: readonly { readonly byteLength: number; readonly uri?: string }[];
  readonly bufferViews?: readonly {
    readonly buffer: number;
    readonly byteOffset?: number;
    readonly byteLength: number;
    readonly byteStride?: number;
  }[];
  readonly accessors?: readonly {
    readonly bufferView?: number;
    readonly byteOffset?: number;
    readonly componentType: number;
    readonly count: number;
    readonly type: string;
  }[];
  readonly images?: readonly { readonly uri?: string; readonly name?: string }[];
  readonly nodes?: readonly { readonly name?: string; readonly children?: readonly number[] }[];
  readonly meshes?: readonly {
    readonly primitives?: readonly { readonly attributes?: Readonly<Record<string, number>>; readonly indices?: number }[];
  }[];
}

const GLB_MAGIC = 0x46546c67;
const JSON_CHUNK = 0x4e4f534a;

export function isGlb(bytes: Uint8Array): boolean {
  return bytes.length >= 12 && new DataView(bytes.buffer, bytes.byteOffset).getUint32(0, true) === GLB_MAGIC;
}

export interface GltfFile {
  readonly json: GltfJson;
  /** The buffer that a GLB brings along. */
  readonly binary?: Uint8Array<ArrayBuffer>;
}

/** A GLB or glTF file taken apart, its JSON looked over (glTF 2.0, section 4.4). @throws ImportRefused */
export function gltfFile(bytes: Uint8Array): GltfFile {
  let text: Uint8Array = bytes;
  let inside: number | undefined;
  let binary: Uint8Array<ArrayBuffer> | undefined;
  if (isGlb(bytes)) {
    const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
    const version = view.getUint32(4, true);
    if (version !== 2) throw new ImportRefused(`It is a GLB of version ${version}; version 2 is read. Export it as glTF 2.0.`);
    const length = bytes.length < 20 ? 0 : view.getUint32(12, true);
    if (
      bytes.length < 20 ||
      view.getUint32(16, true) !== JSON_CHUNK ||
      view.getUint32(8, true) > bytes.length ||
      20 + length > bytes.length
    )
      throw new ImportRefused('It ends too early: it was cut off. Copy or export it again.');
    text = bytes.subarray(20, 20 + length);
    const rest = 20 + length;
    inside = rest + 8 <= bytes.length ? view.getUint32(rest, true) : 0;
    if (rest + 8 + inside > bytes.length && inside > 0)
      throw new ImportRefused('It ends too early: it was cut off. Copy or export it again.');
    if (inside > 0) binary = new Uint8Array(bytes.subarray(rest + 8, rest + 8 + inside));
  }
  let json: unknown;
  try {
    json = JSON.parse(new TextDecoder().decode(text));
  } catch {
    throw new ImportRefused('Its JSON cannot be read: the file is damaged or cut off.');
  }
  if (typeof json !== 'object' || json === null || !('asset' in json))
    throw new ImportRefused('It is no glTF file: its JSON has no “asset”.');
  const gltf = json as GltfJson;
  const { version } = gltf.asset ?? {};
  if (typeof version !== 'string' || !version.startsWith('2'))
    throw new ImportRefused(`It is glTF ${typeof version === 'string' ? version : 'of no version'}; glTF 2.0 is read.`);
  checkGltfShape(json);
  checkReach(gltf, inside);
  checkTree(gltf);
  return { json: gltf, binary };
}

const COMPONENT_BYTES: Readonly<Record<number, number>> = { 5120: 1, 5121: 1, 5122: 2, 5123: 2, 5125: 4, 5126: 4 };
const COMPONENTS: Readonly<Record<string, number>> = { SCALAR: 1, VEC2: 2, VEC3: 3, VEC4: 4, MAT2: 4, MAT3: 9, MAT4: 16 };

/** Nothing reads past the end of what it reads from. */
function checkReach({ buffers = [], bufferViews = [], accessors = [] }: GltfJson, inside: number | undefined): void {
  buffers.forEach(({ byteLength, uri }, index) => {
    if (index === 0 && uri === undefined && inside !== undefined && byteLength > inside)
      throw new ImportRefused(`Its buffer should have ${byteLength} bytes, but ${inside} are there: it was cut off. Export it again.`);
  });
  bufferViews.forEach(({ buffer, byteOffset = 0, byteLength }, index) => {
    const length = buffers[buffer]?.byteLength;
    if (length === undefined || byteOffset < 0 || byteLength < 0 || byteOffset + byteLength > length)
      throw new ImportRefused(`Buffer view ${index} reaches past its buffer: the file is damaged. Export it again.`);
  });
  accessors.forEach(({ bufferView, byteOffset = 0, componentType, count, type }, index) => {
    const [bytes, components] = [COMPONENT_BYTES[componentType], COMPONENTS[type]];
    if (bytes === undefined || components === undefined || !Number.isSafeInteger(count) || count < 0)
      throw new ImportRefused(`Accessor ${index} is of a kind that glTF 2.0 does not have: the file is damaged.`);
    if (bufferView === undefined) return;
    const view = bufferViews[bufferView];
    const stride = view?.byteStride ?? bytes * components;
    if (!view || (count > 0 && byteOffset + stride * (count - 1) + bytes * components > view.byteLength))
      throw new ImportRefused(`Accessor ${index} reaches past its buffer: the file is damaged. Export it again.`);
  });
}

/** Nodes make trees: none is its own ancestor, and none has two parents. */
function checkTree({ nodes = [] }: GltfJson): void {
  const parents = new Map<number, number>();
  nodes.forEach(({ children = [] }, index) => {
    for (const child of children) {
      if (!nodes[child]) throw new ImportRefused(`Node ${index} has a child ${child} that is not there: the file is damaged.`);
      if (parents.has(child)) throw new ImportRefused(`Node ${child} has two parents; nodes must make a tree. Export it again.`);
      parents.set(child, index);
    }
  });
  for (let start = 0; start < nodes.length; start++) {
    let steps = 0;
    for (let at = parents.get(start); at !== undefined; at = parents.get(at))
      if (at === start || ++steps > nodes.length)
        throw new ImportRefused(`Node ${start} is its own ancestor; nodes must make a tree. Export it again.`);
  }
}
