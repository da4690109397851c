import { exrHead } from '@brelvin/core';
import { nodeBinaries } from '../node/binaries';
import { ExrReader } from './read-exr';
import { ExrWriter } from './write-exr';

describe('OpenEXR that is written', () => {
  const [width, height] = [5, 3];
  const ramp = (scale: number): Float32Array => Float32Array.from({ length: width * height * 4 }, (_, index) => index * scale);

  it('has the numbers that were given, also beyond white and below black, and each layer’s channels by its name', async () => {
    const bytes = await new ExrWriter(nodeBinaries).write(width, height, [
      { channels: ['R', 'G', 'B', 'A'], values: ramp(1.25) },
      { name: 'diffuse', channels: ['R', 'G', 'B', 'A'], values: ramp(-0.5) },
    ]);
    const head = exrHead(bytes);
    expect([head.width, head.height]).toEqual([width, height]);
    expect([...head.channels].sort()).toEqual(['A', 'B', 'G', 'R', 'diffuse.A', 'diffuse.B', 'diffuse.G', 'diffuse.R']);
    const { picture } = await new ExrReader(nodeBinaries).read(bytes);
    const last = width * height - 1;
    expect([...picture.data.slice(last * 3, last * 3 + 3)]).toEqual([last * 4 * 1.25, (last * 4 + 1) * 1.25, (last * 4 + 2) * 1.25]);
  });
});
