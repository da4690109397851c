import { buildMesh } from '../mesh/build-mesh';
import { NO_MESH } from '../mesh/mesh';
import { instanceRows } from '../scene/instance-transforms';
import { newMesh } from '../document/new-documents';
import { RecordingDevice } from '../testing/recording-device';
import { MeshBuffers } from './mesh-buffers';
import { MeshForm } from './mesh-form';
import type { SurfaceForm } from './surface-form';

describe('A form of triangles', () => {
  let device: RecordingDevice;
  const data = buildMesh({ shape: 'cube', numbers: { size: 2 }, smooth: false });
  const formOf = (): SurfaceForm & MeshForm => new MeshForm(data, new MeshBuffers(device, data));

  beforeEach(() => (device = new RecordingDevice()));

  it('is picked where a ray first meets a part', () => {
    const form = formOf();
    const ray = { origin: [0, 0, 5], direction: [0, 0, -1] };
    const hits = form.parts.map((part) => form.pick(part, ray)).filter((distance) => distance !== undefined);
    expect(Math.min(...hits)).toBeCloseTo(5 - (form.bounds.high[2] ?? NaN), 6);
    expect(form.parts.every((part) => form.pick(part, { ...ray, origin: [9, 0, 5] }) === undefined)).toBeTrue();
  });

  it('is bounded as its copies stand', () => {
    const mesh = newMesh('cube', { size: 2 }, { order: 0, placing: { position: [10, 0, 0], turn: [0, 0, 0], scale: [1, 2, 1] } });
    const points = formOf().points(instanceRows(mesh, 0));
    const along = (axis: number): number[] => [...points].filter((_, at) => at % 3 === axis);
    expect([Math.min(...along(0)), Math.max(...along(0))]).toEqual([9, 11]);
    expect([Math.min(...along(1)), Math.max(...along(1))]).toEqual([-2, 2]);
  });

  it('gives the triangles of its parts, and its buffers back', () => {
    const form = formOf();
    const corners = form.parts.reduce((sum, part) => sum + form.triangles(part).length / 9, 0);
    expect(corners).toBe(data.indices.length / 3);
    expect(form.closed).toBeTrue();
    form.destroy();
    expect(device.alive).toBe(0);
  });

  it('knows whether it is still to come', () => {
    expect([formOf().awaited, new MeshForm(NO_MESH, new MeshBuffers(device, NO_MESH)).awaited]).toEqual([false, true]);
    expect([formOf().isOf(data), formOf().isOf(NO_MESH)]).toEqual([true, false]);
  });
});
