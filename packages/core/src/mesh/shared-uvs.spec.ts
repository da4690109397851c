import { buildMesh } from './build-mesh';
import { sharedUvs } from './shared-uvs';
import { weld } from './weld';

describe('Shared UVs', () => {
  it('are one for all vertices in one place, and their own where nothing else is', () => {
    const cube = buildMesh({ shape: 'cube', numbers: { segments: 3 }, smooth: false });
    const shared = sharedUvs(cube);
    const places = weld(cube);
    const known = new Map<number, string>();
    let own = 0;
    places.forEach((place, vertex) => {
      const uv = [...shared.subarray(vertex * 2, vertex * 2 + 2)].join();
      expect(known.get(place) ?? uv).toBe(uv);
      known.set(place, uv);
      if (uv === [...cube.uvs.subarray(vertex * 2, vertex * 2 + 2)].join()) own++;
    });
    // Inside of its six sides, and once for each place along edges and at corners.
    expect(own).toBeGreaterThanOrEqual(known.size);
    expect(known.size).toBeLessThan(places.length);
  });
});
