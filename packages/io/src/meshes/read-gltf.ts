import { GLB_BUFFER, WebIO, type Accessor, type Document, type Node, type Primitive } from '@gltf-transform/core';
import {
  EXTMeshGPUInstancing,
  KHRLightsPunctual,
  KHRMaterialsAnisotropy,
  KHRMaterialsClearcoat,
  KHRMaterialsDispersion,
  KHRMaterialsEmissiveStrength,
  KHRMaterialsIOR,
  KHRMaterialsIridescence,
  KHRMaterialsSheen,
  KHRMaterialsSpecular,
  KHRMaterialsTransmission,
  KHRMaterialsUnlit,
  KHRMaterialsVolume,
  KHRMeshQuantization,
  KHRTextureTransform,
  EXTTextureWebP,
} from '@gltf-transform/extensions';
import { ambiguousFile, findNamedFile, ImportRefused, type ImportedImage, type ImportedPiece, type ImportedScene } from '@brelvin/core';
import { gltfFile, type GltfFile, type GltfJson } from './gltf-json';
import { GltfMaterials } from './gltf-materials';

/** A file that was chosen, with its folders. */
export interface MeshFile {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

const EXTENSIONS = [
  EXTMeshGPUInstancing,
  EXTTextureWebP,
  KHRLightsPunctual,
  KHRMaterialsAnisotropy,
  KHRMaterialsClearcoat,
  KHRMaterialsDispersion,
  KHRMaterialsEmissiveStrength,
  KHRMaterialsIOR,
  KHRMaterialsIridescence,
  KHRMaterialsSheen,
  KHRMaterialsSpecular,
  KHRMaterialsTransmission,
  KHRMaterialsUnlit,
  KHRMaterialsVolume,
  KHRMeshQuantization,
  KHRTextureTransform,
];
const KNOWN: ReadonlySet<string> = new Set(EXTENSIONS.map(({ EXTENSION_NAME }) => EXTENSION_NAME));
const COMPRESSIONS: Readonly<Record<string, string>> = {
  KHR_draco_mesh_compression: 'Draco',
  EXT_meshopt_compression: 'meshopt',
  KHR_meshopt_compression: 'meshopt',
};
const IMAGE_TYPES = new Set(['image/png', 'image/jpeg', 'image/webp']);

/**
 * Reads a GLB or glTF, with the files that it names.
 *
 * @param main the file to read
 * @param beside all that was chosen with it
 * @throws ImportRefused
 */
export async function readGltf(main: MeshFile, beside: readonly MeshFile[]): Promise<ImportedScene> {
  const file = gltfFile(main.bytes);
  refuseForeign(file.json);
  const words: string[] = [];
  let document: Document;
  const io = new WebIO().registerExtensions(EXTENSIONS);
  try {
    document = await io.readJSON({ json: file.json as never, resources: resourcesOf(file, main, beside, words) });
  } catch (error) {
    if (error instanceof ImportRefused) throw error;
    // What the library or the language says of it is of no use to who made the file.
    console.error(error);
    throw new ImportRefused('Its JSON says something that glTF 2.0 does not allow. Check it with a glTF validator, or export it again.');
  }
  return sceneOf(document, main.name, words);
}

function refuseForeign({ extensionsRequired = [] }: GltfJson): void {
  const packed = extensionsRequired.map((name) => COMPRESSIONS[name]).find((name) => name !== undefined);
  if (packed) throw new ImportRefused(`Its geometry is compressed by ${packed}, which is not read. Export it without compression.`);
  const foreign = extensionsRequired.filter((name) => !KNOWN.has(name));
  if (foreign.length > 0) throw new ImportRefused(`It requires ${foreign.join(', ')}, which is not known here. Export it without that.`);
}

/** The files that a glTF names, by the addresses it names them by. @throws ImportRefused for a buffer that is missing */
function resourcesOf(
  { json, binary }: GltfFile,
  main: MeshFile,
  beside: readonly MeshFile[],
  words: string[],
): Record<string, Uint8Array<ArrayBuffer>> {
  const found: Record<string, Uint8Array<ArrayBuffer>> = binary ? { [GLB_BUFFER]: binary } : {};
  const take = (uri: string | undefined, bytes: number | undefined): void => {
    if (uri === undefined || uri.startsWith('data:') || found[uri]) return;
    const path = decoded(uri);
    const file = /^[a-z][a-z\d+.-]*:/i.test(uri) ? undefined : findNamedFile(path, main.name, beside);
    if (file) {
      const said = ambiguousFile(path, file);
      if (said) words.push(said);
      if (bytes !== undefined && file.file.bytes.length < bytes)
        throw new ImportRefused(
          `“${file.file.name}” should have ${bytes} bytes, but ${file.file.bytes.length} are there. Export it again.`,
        );
      found[uri] = file.file.bytes;
    } else if (bytes !== undefined)
      throw new ImportRefused(`“${path}” is missing, which holds its triangles. Choose it together with “${main.name}”.`);
    else {
      words.push(`The image “${path}” is missing; choose it together with “${main.name}” to have it.`);
      found[uri] = new Uint8Array(0);
    }
  };
  for (const { uri, byteLength } of json.buffers ?? []) take(uri, byteLength);
  for (const { uri } of json.images ?? []) take(uri, undefined);
  return found;
}

/** An address as a path (RFC 3986, section 2.1); some programs write a % that begins no code. */
function decoded(uri: string): string {
  return uri.replace(/(%[0-9a-f]{2})+/gi, (codes) => {
    try {
      return decodeURIComponent(codes);
    } catch {
      return codes;
    }
  });
}

function sceneOf(document: Document, file: string, words: string[]): ImportedScene {
  const root = document.getRoot();
  const materials = new GltfMaterials();
  const all = root.listMaterials();
  const read = all.map((material) => materials.read(material));
  const pieces: ImportedPiece[] = [];
  const left = new Map<string, number>();
  const visit = (node: Node): void => {
    const mesh = node.getMesh();
    if (mesh) {
      const primitives = mesh.listPrimitives();
      primitives.forEach((primitive, index) => {
        const material = primitive.getMaterial();
        const base = node.getName() || mesh.getName() || 'part';
        const own = material?.getName() || String(index + 1);
        const piece = pieceOf(primitive, primitives.length > 1 ? `${base} ${own}` : base, left);
        if (!piece) return;
        // A skin stands where its joints put it, wherever its node is (glTF 2.0, section 3.7.3.3).
        const matrix = node.getSkin() ? undefined : node.getWorldMatrix();
        pieces.push({ ...piece, matrix, ...(material ? { material: all.indexOf(material) } : {}) });
      });
    }
    for (const child of node.listChildren()) visit(child);
  };
  const scene = root.getDefaultScene() ?? root.listScenes()[0];
  for (const node of scene?.listChildren() ?? root.listNodes().filter((each) => !each.getParentNode())) visit(node);
  words.push(...materials.words, ...leftWords(document, left));
  return { name: nameOf(file), pieces, materials: read, images: imagesOf(materials, words), words };
}

const nameOf = (file: string): string => (file.split('/').at(-1) ?? file).replace(/\.[^.]+$/, '');

/** What a mesh is made of besides what stands in rest. */
function leftWords(document: Document, left: ReadonlyMap<string, number>): string[] {
  const root = document.getRoot();
  const words = [...left].map(([what, count]) => `${count} ${what} ${count === 1 ? 'was' : 'were'} left out: only triangles are drawn.`);
  if (root.listSkins().length > 0) words.push('Its skeleton was left out: the mesh stands in its rest pose.');
  if (root.listMeshes().some((mesh) => mesh.listPrimitives().some((each) => each.listTargets().length > 0)))
    words.push('Its morph targets were left out: the mesh has its base shape.');
  const animations = root.listAnimations().length;
  if (animations > 0) words.push(`${animations} animation${animations === 1 ? ' was' : 's were'} left out.`);
  if (root.listCameras().length > 0) words.push('Its cameras were left out.');
  const used = new Set(root.listExtensionsUsed().map(({ extensionName }) => extensionName));
  if (used.has('KHR_lights_punctual')) words.push('Its lights were left out; light comes from the light rig.');
  if (used.has('EXT_mesh_gpu_instancing')) words.push('Instances of its meshes were left out; each stands once.');
  return words;
}

const TRIANGLES = 4;
const MODES: Readonly<Record<number, string>> = { 0: 'point clouds', 1: 'sets of lines', 2: 'line loops', 3: 'line strips' };

function pieceOf(primitive: Primitive, name: string, left: Map<string, number>): Omit<ImportedPiece, 'matrix'> | undefined {
  const other = MODES[primitive.getMode()];
  if (other) {
    left.set(other, (left.get(other) ?? 0) + 1);
    return undefined;
  }
  const positions = floats(primitive.getAttribute('POSITION'), 3);
  if (!positions) return undefined;
  const normals = floats(primitive.getAttribute('NORMAL'), 3);
  return {
    name,
    positions,
    normals,
    tangents: normals && floats(primitive.getAttribute('TANGENT'), 4),
    uvs: floats(primitive.getAttribute('TEXCOORD_0'), 2),
    uvs2: floats(primitive.getAttribute('TEXCOORD_1'), 2),
    colours: floats(primitive.getAttribute('COLOR_0'), 4, 1),
    indices: trianglesOf(primitive, positions.length / 3),
    // Without normals faces are flat (glTF 2.0, section 3.7.2.1).
    flat: true,
  };
}

/** Strips and fans as triangles (glTF 2.0, section 3.7.2.1, topology). */
function trianglesOf(primitive: Primitive, vertices: number): Uint32Array | undefined {
  const array = numbersOf(primitive.getIndices());
  const mode = primitive.getMode();
  if (mode === TRIANGLES) return array ? Uint32Array.from(array) : undefined;
  const row = array ? Uint32Array.from(array) : Uint32Array.from({ length: vertices }, (_, index) => index);
  const made = new Uint32Array(Math.max(0, row.length - 2) * 3);
  for (let at = 0; at + 2 < row.length; at++) {
    const [a = 0, b = 0, c = 0] =
      mode === 6
        ? [row[0], row[at + 1], row[at + 2]]
        : at % 2 === 0
          ? [row[at], row[at + 1], row[at + 2]]
          : [row[at + 1], row[at], row[at + 2]];
    made.set([a, b, c], at * 3);
  }
  return made;
}

/** The numbers of an accessor, one after the other, as they are stored. */
function numbersOf(accessor: Accessor | null): Numbers | undefined {
  return (accessor?.getArray() as Numbers | null | undefined) ?? undefined;
}

type Numbers = Float32Array | Uint32Array | Uint16Array | Int16Array | Uint8Array | Int8Array;

/** An attribute as floats, so many a vertex; what is missing is filled. */
function floats(accessor: Accessor | null, size: number, fill = 0): Float32Array | undefined {
  const array = numbersOf(accessor);
  if (!accessor || !array) return undefined;
  const given = accessor.getElementSize();
  const scale = accessor.getNormalized() && !(array instanceof Float32Array) ? 1 / largest(array) : 1;
  if (given === size && scale === 1 && array instanceof Float32Array) return array;
  const count = accessor.getCount();
  const made = new Float32Array(count * size).fill(fill);
  for (let at = 0; at < count; at++)
    for (let part = 0; part < Math.min(size, given); part++)
      made[at * size + part] = Math.max((array[at * given + part] ?? 0) * scale, -1e30);
  return made;
}

/** What stands for 1 in a normalised whole number (glTF 2.0, section 3.11). */
function largest(array: ArrayLike<number>): number {
  if (array instanceof Uint8Array) return 255;
  if (array instanceof Int8Array) return 127;
  return array instanceof Uint16Array ? 65_535 : 32_767;
}

function imagesOf({ textures }: GltfMaterials, words: string[]): ImportedImage[] {
  return textures.map((texture, index) => {
    const name = texture.getName() || nameOf(texture.getURI()) || `image ${index + 1}`;
    const bytes = texture.getImage();
    const type = texture.getMimeType();
    if (bytes && bytes.length > 0 && IMAGE_TYPES.has(type)) return { name, bytes: new Uint8Array(bytes) };
    if (bytes && bytes.length > 0) words.push(`The image “${name}” is ${type || 'of an unknown kind'}; PNG, JPEG and WebP are taken.`);
    return { name, bytes: new Uint8Array(0) };
  });
}
