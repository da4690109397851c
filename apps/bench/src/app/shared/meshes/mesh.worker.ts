import {
  ambiguousFile,
  assembleMesh,
  findNamedFile,
  ImportRefused,
  PLAIN_IMPORT,
  readMeshFile,
  readMtl,
  readObj,
  workOut,
  writeMeshFile,
  type AssembledMesh,
  type Bounds,
  type ImportedImage,
  type ImportedMaterial,
  type ImportedScene,
  type MeshData,
  type MeshWork,
} from '@brelvin/core';
import { expose, transfer } from 'comlink';
import { sha256Of } from '../files/sha256';
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

/** Reads meshes apart from the page. What is no longer wanted goes with the worker. */
class MeshReader {
  /**
   * @param main the mesh among the files
   * @param onShare told the part that is done, 0…1
   * @throws Error with words for the user
   */
  async read(main: string, files: readonly MeshFile[], onShare: (share: number) => void): Promise<ReadMesh> {
    const file = files.find(({ name }) => name === main);
    if (!file) throw new ImportRefused('There is no mesh among the files.');
    const scene = /\.obj$/i.test(main) ? objScene(file, files, (share) => onShare(share * 0.5)) : await readGltf(file, files);
    onShare(0.5);
    const { mesh, facts, materials, words } = assembleMesh(scene.pieces, (share) => onShare(0.5 + share * 0.4));
    const written = writeMeshFile(mesh);
    onShare(1);
    const read: ReadMesh = {
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
    return transfer(read, [written.buffer, ...new Set(scene.images.map(({ bytes }) => bytes.buffer))]);
  }

  /** A mesh file of the workspace as triangles. @throws Error with words for the user */
  open(bytes: ArrayBuffer): MeshData {
    const mesh = readMeshFile(bytes);
    return transfer(mesh, [bytes]);
  }

  /** What a program wants of a mesh file of the workspace. @throws Error with words for the user */
  workOut(bytes: ArrayBuffer, work: MeshWork): ReturnType<typeof workOut> {
    const rows = workOut(readMeshFile(bytes), work);
    return transfer(
      rows,
      rows.map(({ buffer }) => buffer),
    );
  }
}

function objScene(main: MeshFile, files: readonly MeshFile[], onShare: (share: number) => void): ImportedScene {
  const { pieces, libraries, words } = readObj(main.bytes, onShare);
  const said = [...words];
  const images: ImportedImage[] = [];
  const materials: ImportedMaterial[] = [];
  const named = (path: string): MeshFile | undefined => {
    const found = findNamedFile(path, main.name, files);
    const ambiguous = found && ambiguousFile(path, found);
    if (ambiguous && !said.includes(ambiguous)) said.push(ambiguous);
    return found?.file;
  };
  for (const library of libraries) {
    const file = named(library);
    if (!file) {
      said.push(`“${library}” is missing, which holds its materials; choose it together with the .obj file to have them.`);
      continue;
    }
    for (const { material, files: mentioned } of readMtl(new TextDecoder().decode(file.bytes))) {
      const maps: Record<string, ImportedMaterial['maps']['baseColour']> = {};
      for (const [map, path] of Object.entries(mentioned)) {
        if (path === undefined || map === 'opacity') continue;
        if (map === 'bump') {
          said.push(`The bump map “${path}” of “${material.name}” was left out; lay it on as a height in the maps tab.`);
          continue;
        }
        const found = named(path);
        if (!found) {
          said.push(`The image “${path}” of “${material.name}” is missing; choose it together with the .obj file to have it.`);
          continue;
        }
        const known = images.findIndex(({ bytes }) => bytes === found.bytes);
        const image =
          known >= 0
            ? known
            : images.push({
                name:
                  path
                    .split('/')
                    .at(-1)
                    ?.replace(/\.[^.]+$/, '') ?? path,
                bytes: found.bytes,
              }) - 1;
        maps[map] = { image, uvSet: 0, wrapX: 'repeat', wrapY: 'repeat', filter: 'smooth', offset: [0, 0], scale: [1, 1], rotation: 0 };
      }
      materials.push({ ...PLAIN_IMPORT, ...material, maps });
    }
  }
  const numbers = new Map(materials.map(({ name }, index) => [name, index]));
  return {
    name: (main.name.split('/').at(-1) ?? main.name).replace(/\.[^.]+$/, ''),
    pieces: pieces.map(({ wears, ...piece }) => ({ ...piece, material: wears === undefined ? undefined : numbers.get(wears) })),
    materials,
    images,
    words: said,
  };
}

export type RemoteMeshes = MeshReader;

expose(new MeshReader());
