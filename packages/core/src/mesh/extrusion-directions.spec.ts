import { buildMesh, GENERATED_SHAPES } from './build-mesh';
import { extrusionDirections } from './extrusion-directions';

const whole = { numbers: {}, smooth: true };

describe('Ways of a grown mesh', () => {
  it('are the same for all vertices in one place, so that nothing gapes', () => {
    for (const shape of GENERATED_SHAPES) {
      const mesh = buildMesh({ shape, ...whole });
      const ways = extrusionDirections(mesh).grown;
      expect(ways.length).toBe(mesh.positions.length);
      const byPlace = new Map<string, string>();
      for (let at = 0; at < ways.length; at += 3) {
        const way = [...ways.subarray(at, at + 3)];
        expect(way.every(Number.isFinite)).withContext(shape).toBeTrue();
        const key = [...mesh.positions.subarray(at, at + 3)].map((each) => Math.round(each * 1e4 + 0.123)).join();
        const words = way.map((each) => each.toFixed(3)).join();
        if ((byPlace.get(key) ?? words) !== words) fail(`${shape}: ${key} goes two ways`);
        byPlace.set(key, words);
      }
    }
  });

  it('follow the normals of a sphere at length one', () => {
    const mesh = buildMesh({ shape: 'sphere', ...whole });
    const { grown: ways, rim } = extrusionDirections(mesh);
    expect(rim).toBeUndefined();
    let worst = 1;
    for (let at = 0; at < ways.length; at += 3) {
      const along = [0, 1, 2].reduce((sum, axis) => sum + ways[at + axis]! * mesh.normals[at + axis]!, 0);
      worst = Math.min(worst, along / Math.hypot(...ways.subarray(at, at + 3)));
    }
    expect(worst).toBeGreaterThan(0.995);
    expect(Math.hypot(...ways.subarray(300, 303))).toBeCloseTo(1, 1);
  });

  it('move each face of a cube by one: corners go along the diagonal, farther', () => {
    const mesh = buildMesh({ shape: 'cube', numbers: {}, smooth: false });
    const ways = extrusionDirections(mesh).grown;
    for (let at = 0; at < ways.length; at += 3) {
      const along = [0, 1, 2].reduce((sum, axis) => sum + ways[at + axis]! * mesh.normals[at + axis]!, 0);
      expect(along).toBeCloseTo(1, 3);
    }
  });

  it('lead outwards at the rim of an open sheet', () => {
    const mesh = buildMesh({ shape: 'plane', ...whole });
    const { grown: ways, rim = new Float32Array() } = extrusionDirections(mesh);
    const { high } = mesh.bounds;
    for (let at = 0; at < ways.length; at += 3) {
      const [x = 0, y = 0] = mesh.positions.subarray(at, at + 2);
      const [u = 0, v = 0] = ways.subarray(at, at + 2);
      expect(rim[at + 2]).toBeCloseTo(0, 6);
      if (Math.abs(x) > high[0]! - 1e-6) expect(u * x).toBeGreaterThan(0);
      else if (Math.abs(y) < high[1]! - 1e-6) expect([u, v]).toEqual([0, 0]);
    }
  });
});
