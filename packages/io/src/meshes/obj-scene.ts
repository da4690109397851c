import {
  ambiguousFile,
  findNamedFile,
  PLAIN_IMPORT,
  readMtl,
  readObj,
  type ImportedImage,
  type ImportedMaterial,
  type ImportedScene,
} from '@brelvin/core';
import type { MeshFile } from './read-gltf';

/** A Wavefront OBJ with the materials and images that it names. @param files all that was chosen with it @throws ImportRefused */
export function objScene(main: MeshFile, files: readonly MeshFile[], onShare: (share: number) => void): ImportedScene {
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
