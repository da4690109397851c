import type { FileContent } from '@brelvin/core';
import { cubeChain, readMeshFile, type AssetReader } from '@brelvin/core';
import { decodeImage, ExrReader, ImageCodecs, readEnvironment } from '@brelvin/io';
import { nodeBinaries } from '@brelvin/io/node';

/** What documents show, out of the files that they came with. What is not there cannot be had, which the picture's lacks tell. */
export function fileAssets(assets: ReadonlyMap<string, FileContent>): AssetReader {
  const codecs = new ImageCodecs(nodeBinaries);
  const bytesOf = (asset: string): ArrayBuffer | undefined => assets.get(asset)?.bytes.slice().buffer;
  return {
    image: async ({ asset, faces, role }) => {
      const files = (faces ?? [asset]).map(bytesOf);
      if (!files.every((each) => each !== undefined)) return undefined;
      const decoded = await Promise.all(files.map((each) => decodeImage(codecs, each, role)));
      return faces ? cubeChain(decoded) : decoded[0];
    },
    environment: async (names) => {
      const files = names.flatMap((name) => {
        const bytes = bytesOf(name);
        return bytes ? [{ name, bytes }] : [];
      });
      return files.length === names.length ? readEnvironment({ codecs, exr: new ExrReader(nodeBinaries) }, files) : undefined;
    },
    mesh: async (asset) => {
      const bytes = bytesOf(asset);
      return bytes && readMeshFile(bytes);
    },
  };
}
