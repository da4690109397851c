import { buildMesh } from '../mesh/build-mesh';
import type { MeshData } from '../mesh/mesh';
import { workOut, type MeshWork } from '../mesh/mesh-work';
import { RecordingDevice } from '../testing/recording-device';
import { MeshBank } from './mesh-bank';
import { MeshBuffers } from './mesh-buffers';

/** A plane of so many squares along each side, as a mesh of a file. */
async function taken(bank: MeshBank, segments: number): Promise<MeshData> {
  const mesh = buildMesh({ shape: 'plane', numbers: { segments }, smooth: true });
  bank.load = async () => mesh;
  await bank.bring(['plane']);
  return bank.find('plane');
}

/** Until all that was answered has been told on. */
async function soon(): Promise<void> {
  for (let turn = 0; turn < 8; turn++) await Promise.resolve();
}

describe('What programs want of a mesh', () => {
  let bank: MeshBank;
  let asked: [string, MeshWork][];
  let answer: (rows: ReturnType<typeof workOut>) => void;
  let refuse: (why: Error) => void;
  let arrivals: number;

  beforeEach(() => {
    bank = new MeshBank();
    [asked, arrivals] = [[], 0];
    bank.workApart = (asset, work) => {
      asked.push([asset, work]);
      return new Promise((resolve, reject) => ([answer, refuse] = [resolve, reject]));
    };
  });

  it('is worked out apart where it is large: until then the picture goes by the normals, and is not complete', async () => {
    const mesh = await taken(bank, 80);
    bank.onArrival = () => arrivals++;
    const buffers = new MeshBuffers(new RecordingDevice(), mesh, bank);
    const [, normals] = buffers.vertices;
    expect(buffers.of({ welded: true })[4]).toBe(normals);
    expect(buffers.of({ welded: true })[4]).toBe(normals);
    expect([asked, bank.awaits]).toEqual([[['plane', 'welded']], true]);
    const rows = workOut(mesh, 'welded');
    answer(rows);
    await soon();
    expect([arrivals, bank.awaits, asked.length]).toEqual([1, false, 1]);
    const welded = buffers.of({ welded: true })[4]!;
    expect(welded).not.toBe(normals!);
    expect(welded.size).toBe(rows[0]!.byteLength);
    // A surface with a shape of its own, and a grown mesh.
    const [shape] = buffers.of({ shaped: true }).slice(4);
    expect(shape!.size).toBe(mesh.positions.length * (40 / 3));
    expect(buffers.hull).toEqual({ grown: normals!, rim: undefined });
    expect(asked.slice(1)).toEqual([
      ['plane', 'shape'],
      ['plane', 'hull'],
    ]);
    answer(workOut(mesh, 'hull'));
    await soon();
    expect(buffers.hull.grown).not.toBe(normals!);
    expect(buffers.hull.rim).toBeDefined();
    buffers.destroy();
  });

  it('is worked out here where the other place fails, and goes nowhere when the mesh has gone', async () => {
    const mesh = await taken(bank, 80);
    const device = new RecordingDevice();
    const buffers = new MeshBuffers(device, mesh, bank);
    buffers.of({ welded: true });
    refuse(new Error('The server cannot be reached.'));
    await soon();
    expect(buffers.of({ welded: true })[4]).not.toBe(buffers.vertices[1]);
    buffers.of({ shaped: true });
    buffers.destroy();
    const made = spyOn(device, 'createBuffer').and.callThrough();
    answer(workOut(mesh, 'shape'));
    await soon();
    expect(made).not.toHaveBeenCalled();
    expect(bank.awaits).toBeFalse();
  });

  it('is worked out at once where it is small, or no file', async () => {
    const small = new MeshBuffers(new RecordingDevice(), await taken(bank, 20), bank);
    const built = new MeshBuffers(new RecordingDevice(), buildMesh({ shape: 'plane', numbers: { segments: 80 }, smooth: true }), bank);
    for (const buffers of [small, built]) expect(buffers.of({ welded: true })[4]).not.toBe(buffers.vertices[1]);
    expect([asked, bank.awaits]).toEqual([[], false]);
  });
});
