import { meshFacts, meshFileHead, readMeshFile, workOut, type MeshData, type MeshWork } from '@brelvin/core';
import { meshOfField, readMesh, type MeshFile, type ReadMesh } from '@brelvin/io';
import { expose, transfer } from 'comlink';

/** Reads meshes apart from the page. What is no longer wanted goes with the worker. */
class MeshReader {
  /**
   * @param main the mesh among the files
   * @param onShare told the part that is done, 0…1
   * @throws Error with words for the user
   */
  async read(main: string, files: readonly MeshFile[], onShare: (share: number) => void): Promise<ReadMesh> {
    const read = await readMesh(main, files, onShare);
    return transfer(read, [read.file.buffer, ...new Set(read.images.map(({ bytes }) => bytes.buffer))]);
  }

  /**
   * A field as triangles, each region a part.
   *
   * @param cells of the grid along its longest edge
   * @param onShare told the part that is done, 0…1
   * @throws Error with words for the user
   */
  async ofField(field: Parameters<typeof meshOfField>[0], cells: number, onShare: (share: number) => void): Promise<ReadMesh> {
    const read = await meshOfField(field, cells, onShare);
    return transfer(read, [read.file.buffer]);
  }

  /** A mesh file of the workspace as triangles. @throws Error with words for the user */
  open(bytes: ArrayBuffer): MeshData {
    const mesh = readMeshFile(bytes);
    return transfer(mesh, [bytes]);
  }

  /** What a set keeps of a mesh file of the workspace. @throws Error with words for the user */
  describe(bytes: ArrayBuffer): Pick<ReadMesh, 'facts' | 'bounds'> {
    const { made, bounds } = meshFileHead(new Uint8Array(bytes));
    return { facts: meshFacts(readMeshFile(bytes), made), bounds };
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

export type RemoteMeshes = MeshReader;

expose(new MeshReader());
