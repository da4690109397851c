import {
  assembleMesh,
  fieldScene,
  ImportRefused,
  writeMeshFile,
  type AssembledMesh,
  type Bounds,
  type ImportedImage,
  type ImportedMaterial,
  type ImportedScene,
} from '@brelvin/core';
import { sha256Of } from '../sha256';
import { objScene } from './obj-scene';
import { readGltf, type MeshFile } from './read-gltf';

/** A file's mesh as the workspace keeps it, with all that came along. */
export interface ReadMesh {
  readonly name: string;
  /** A mesh file of the workspace. */
  readonly file: Uint8Array<ArrayBuffer>;
  readonly sha256: string;
  readonly facts: AssembledMesh['facts'];
  readonly bounds: Bounds;
  /** Of each part, the number of its material. */
  readonly wears: AssembledMesh['materials'];
  readonly materials: readonly ImportedMaterial[];
  readonly images: readonly ImportedImage[];
  readonly words: readonly string[];
}

/**
 * @param main the mesh among the files
 * @param onShare told the part that is done, 0…1
 * @throws Error with words for the user
 */
export async function readMesh(
  main: string,
  files: readonly MeshFile[],
  onShare: (share: number) => void = () => undefined,
): Promise<ReadMesh> {
  const file = files.find(({ name }) => name === main);
  if (!file) throw new ImportRefused('There is no mesh among the files.');
  const scene = /\.obj$/i.test(main) ? objScene(file, files, (share) => onShare(share * 0.5)) : await readGltf(file, files);
  return keptMesh(scene, onShare);
}

/**
 * A field as a mesh of triangles: each region a part.
 *
 * @param field its code, and the numbers of the mesh that shows it
 * @param cells of the grid along its longest edge
 * @throws Error with words for the user
 */
export async function meshOfField(
  field: { readonly text: string; readonly numbers: Readonly<Record<string, number>> },
  cells: number,
  onShare: (share: number) => void = () => undefined,
): Promise<ReadMesh> {
  return keptMesh(
    fieldScene(field.text, field.numbers, cells, (share) => onShare(share * 0.5)),
    onShare,
  );
}

async function keptMesh(scene: ImportedScene, onShare: (share: number) => void): Promise<ReadMesh> {
  onShare(0.5);
  const { mesh, facts, materials, words } = assembleMesh(scene.pieces, (share) => onShare(0.5 + share * 0.4));
  const written = writeMeshFile(mesh, facts.made);
  onShare(1);
  return {
    name: scene.name,
    file: written,
    sha256: await sha256Of(written),
    facts,
    bounds: mesh.bounds,
    wears: materials,
    materials: scene.materials,
    images: scene.images,
    words: [...scene.words, ...words],
  };
}
