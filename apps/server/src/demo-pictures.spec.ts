import { THUMBNAIL } from '@brelvin/core';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import { DRAWN_FROM, demoDigests, demoPicture } from './demo-pictures';
import { DEMO_PICTURES } from './folders';

const ANEW = 'Draw them anew: npx tsx tests/golden/keep.ts';

describe('Pictures of the demo', () => {
  const digests = demoDigests();
  const ids = Object.keys(digests);

  it('are drawn from the documents as they are now', () => {
    const drawn = JSON.parse(readFileSync(join(DEMO_PICTURES, DRAWN_FROM), 'utf8')) as Record<string, string>;
    expect(drawn).withContext(ANEW).toEqual(digests);
    expect(readdirSync(DEMO_PICTURES).length)
      .withContext(ANEW)
      .toBe(ids.length + 1);
  });

  for (const kind of ['material', 'set', 'rig'])
    it(`show something, each ${kind} something else, in the size of a list`, () => {
      const some = ids.filter((id) => id.startsWith(`${kind}-`));
      expect(some.length).toBeGreaterThan(4);
      const pictures = new Set<string>();
      for (const id of some) {
        const { width, height, data } = PNG.sync.read(demoPicture(id) ?? Buffer.alloc(0));
        expect({ width, height }).withContext(id).toEqual(THUMBNAIL);
        const tones = new Set(Array.from({ length: width }, (_, x) => data.readUInt32BE(((height / 2) * width + x) * 4)));
        expect(tones.size).withContext(id).toBeGreaterThan(5);
        pictures.add(data.toString('base64'));
      }
      expect(pictures.size).toBe(some.length);
    });
});
