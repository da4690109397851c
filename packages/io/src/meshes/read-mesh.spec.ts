import { readMeshFile } from '@brelvin/core';
import { sha256Of } from '../sha256';
import { readMesh } from './read-mesh';

const file = (name: string, text: string): { name: string; bytes: Uint8Array<ArrayBuffer> } => ({
  name,
  bytes: new Uint8Array(new TextEncoder().encode(text)),
});
const CRATE = file(
  'crate.obj',
  'mtllib crate.mtl\nv 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nvt 0 0\nvt 1 0\nvt 1 1\nvt 0 1\nusemtl wood\nf 1/1 2/2 3/3 4/4\n',
);
const WOOD = file('crate.mtl', 'newmtl wood\nKd 0.4 0.2 0.1\nmap_Kd wood.png\nmap_bump grain.png\n');

describe('readMesh', () => {
  it('gives an OBJ with its materials and images as the workspace keeps it', async () => {
    const shares: number[] = [];
    const read = await readMesh('crate.obj', [CRATE, WOOD, file('wood.png', 'pixels')], (share) => shares.push(share));
    expect(read.name).toBe('crate');
    expect(read.materials.map(({ name }) => name)).toEqual(['wood']);
    expect(read.images.map(({ name }) => name)).toEqual(['wood']);
    expect(read.words.join(' ')).toContain('The bump map “grain.png” of “wood” was left out');
    expect(read.sha256).toBe(await sha256Of(read.file));
    expect(readMeshFile(read.file.slice().buffer).indices.length).toBe(6);
    expect([shares.at(-1), [...shares].sort((a, b) => a - b)]).toEqual([1, shares]);
  });

  it('says which files are missing, and does without', async () => {
    const alone = await readMesh('crate.obj', [CRATE]);
    expect(alone.words.join(' ')).toContain('“crate.mtl” is missing');
    const bare = await readMesh('crate.obj', [CRATE, WOOD]);
    expect(bare.words.join(' ')).toContain('The image “wood.png” of “wood” is missing');
    expect(bare.images).toEqual([]);
    await expectAsync(readMesh('jar.glb', [CRATE])).toBeRejectedWithError(/no mesh among the files/);
  });
});
