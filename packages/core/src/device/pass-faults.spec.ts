import { groupLayout, type GroupLayout } from '../emit/bindings';
import type { DeviceBuffer, DeviceTexture, DrawCall, PipelineDescriptor, TextureDescriptor } from './device';
import { groupFault, passFault } from './pass-faults';

describe('Passes that are refused', () => {
  const texture = (more: Partial<TextureDescriptor> = {}): DeviceTexture => ({
    width: 4,
    height: 4,
    format: 'rgba16float',
    samples: 1,
    ...more,
    write: () => undefined,
    destroy: () => undefined,
  });
  const buffer: DeviceBuffer = { size: 16, write: () => undefined, destroy: () => undefined };
  const colour = texture();
  const depth = texture({ format: 'depth24plus' });
  const own = groupLayout(['Numbers'], [{ name: 'image', cube: false, fetched: false }]);

  function draw(more: Partial<PipelineDescriptor> = {}, layout: readonly GroupLayout[] = [], rest: Partial<DrawCall> = {}): DrawCall {
    const program = { label: 'thing', layout, vertexBuffers: [], destroy: () => undefined };
    const descriptor: PipelineDescriptor = {
      program,
      into: { colour: 'rgba16float', depth: false, samples: 1 },
      depth: 'none',
      cull: 'none',
      ...more,
    };
    return { pipeline: { descriptor }, bindings: [], vertexBuffers: [], first: 0, count: 3, instances: 1, ...rest };
  }

  it('have no target, or two of different samples', () => {
    expect(passFault({ draws: [] })).toBe('a pass needs a target');
    expect(passFault({ colour, depth: texture({ format: 'depth24plus', samples: 4 }), draws: [] })).toContain('samples');
    expect(passFault({ colour, depth, draws: [draw({ into: { colour: 'rgba16float', depth: true, samples: 1 } })] })).toBeUndefined();
  });

  it('hold drawings that were made for other targets', () => {
    expect(passFault({ colour: 'canvas', draws: [draw()] })).toBe(
      'thing: made for rgba16float, one sample, drawn into rgba8unorm, one sample',
    );
    expect(passFault({ depth, draws: [draw()] })).toContain('drawn into no colour with depth');
    expect(passFault({ colour: texture({ samples: 4 }), draws: [draw()] })).toContain('4 samples');
    expect(passFault({ colour, draws: [draw({ depth: 'test' })] })).toContain('compared');
    const floats = draw({ into: { colour: 'rgba32float', depth: false, samples: 1 }, blend: 'over' });
    expect(passFault({ colour: texture({ format: 'rgba32float' }), draws: [floats] })).toContain('blended');
    expect(passFault({ colour, draws: [draw({}, [], { vertexBuffers: [buffer] })] })).toContain('1 vertex buffers in the place of 0');
  });

  it('hold drawings that lack what their program reads, or read what is drawn into', () => {
    const image = texture();
    const group = { layout: own, blocks: [buffer], textures: [image] };
    const other = { layout: groupLayout(['Other']), blocks: [buffer], textures: [] };
    const layout = [groupLayout([]), own];
    expect(passFault({ colour, draws: [draw({}, layout, { bindings: [undefined, group] })] })).toBeUndefined();
    expect(passFault({ colour, draws: [draw({}, layout)] })).toBe('thing: group 1 holds nothing in the place of Numbers,flat image');
    expect(passFault({ colour, draws: [draw({}, layout, { bindings: [undefined, other] })] })).toContain('holds Other');
    expect(passFault({ colour: image, draws: [draw({}, layout, { bindings: [undefined, group] })] })).toContain('what is drawn into');
  });

  it('bind resources that are not what a layout says', () => {
    expect(groupFault(own, { blocks: [buffer], textures: [texture()] })).toBeUndefined();
    expect(groupFault(own, { blocks: [], textures: [texture()] })).toBe('the block Numbers is not given');
    expect(groupFault(own, { blocks: [buffer], textures: [] })).toBe('the texture image is not given');
    expect(groupFault(own, { blocks: [buffer], textures: [texture({ cube: true })] })).toBe('the texture image is a cube');
    expect(groupFault(own, { blocks: [buffer], textures: [texture({ samples: 4 })] })).toContain('several samples');
  });
});
