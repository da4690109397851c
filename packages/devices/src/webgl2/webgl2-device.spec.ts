import {
  BINDING_GROUPS,
  groupLayout,
  PassRefused,
  ProgramRefused,
  type Device,
  type DevicePipeline,
  type DeviceTexture,
  type DrawCall,
  type GroupLayout,
  type PipelineDescriptor,
  type ProgramDescriptor,
} from '@brelvin/core';
import { NoWebGl2, WebGl2Device } from './webgl2-device';

const HEAD = '#version 300 es\nprecision highp float;\nuniform vec4 deviceTarget;\n';
/** One triangle over the target. */
const COVER = `${HEAD}void main() { vec2 p = vec2(gl_VertexID == 1 ? 3.0 : -1.0, gl_VertexID == 2 ? 3.0 : -1.0); gl_Position = vec4(p.x, p.y * deviceTarget.x, 0.0, 1.0); }`;
const ROWS = `${HEAD}out vec4 pixel; void main() { float row = deviceTarget.x < 0.0 ? gl_FragCoord.y : deviceTarget.y - gl_FragCoord.y; pixel = vec4(row / deviceTarget.y, 0.0, 0.0, 1.0); }`;
const PAINT = `${HEAD}layout(std140) uniform Paint { vec4 colour; }; out vec4 pixel; void main() { pixel = colour; }`;
const NOTHING = groupLayout([]);
const PAINT_LAYOUT = groupLayout(['Paint']);

/** A program that reads one group of its own. */
function program(fragment: string, own: GroupLayout = NOTHING, vertex = COVER): ProgramDescriptor {
  const layout = BINDING_GROUPS.map((group) => (group === 'own' ? own : NOTHING));
  return {
    label: 'test',
    code: { target: 'glsl', vertex: { text: vertex, lines: [] }, fragment: { text: fragment, lines: [] }, layout, attributes: [] },
    vertexBuffers: [],
  };
}

describe('WebGl2Device', () => {
  let device: Device;
  let target: DeviceTexture;

  beforeEach(() => {
    device = WebGl2Device.create(new OffscreenCanvas(8, 8));
    target = device.createTexture({ width: 4, height: 4, format: 'rgba8unorm', samples: 1 });
  });

  afterEach(() => device.destroy());

  async function pipeline(made: ProgramDescriptor, more: Partial<PipelineDescriptor> = {}): Promise<DevicePipeline> {
    const into = { colour: 'rgba8unorm', depth: false, samples: 1 } as const;
    return device.createPipeline({ program: await device.createProgram(made), into, depth: 'none', cull: 'none', ...more });
  }

  const covering = (made: DevicePipeline, bindings: DrawCall['bindings'] = []): DrawCall => ({
    pipeline: made,
    bindings,
    vertexBuffers: [],
    first: 0,
    count: 3,
    instances: 1,
  });

  async function paint(fragment: string): Promise<Uint8Array> {
    device.runPass({ colour: target, clear: [0, 0, 1, 1], draws: [covering(await pipeline(program(fragment)))] });
    return device.readPixels(target);
  }

  it('keeps the top row first', async () => {
    const pixels = await paint(ROWS);
    expect(pixels[0]).toBeLessThan(pixels[4 * 4 * 3] ?? 0);
    expect(pixels[0]).toBeCloseTo(255 / 8, -1);
  });

  it('clears without drawing', async () => {
    device.runPass({ colour: target, clear: [1, 0.5, 0, 1], draws: [] });
    const pixels = await device.readPixels(target);
    expect([...pixels.slice(0, 4)]).toEqual([255, 128, 0, 255]);
  });

  it('reads what is bound in a group, also where programs alternate', async () => {
    const paint = [
      [0.2, 0.4, 0.6, 1],
      [0.8, 0, 0, 1],
    ].map((colour) => {
      const buffer = device.createBuffer({ usage: 'uniform', size: 16 });
      buffer.write(new Float32Array(colour));
      return [undefined, device.createBindGroup(PAINT_LAYOUT, { blocks: [buffer], textures: [] })];
    });
    const [plain, rows] = [await pipeline(program(PAINT, PAINT_LAYOUT)), await pipeline(program(ROWS))];
    device.runPass({ colour: target, draws: [covering(plain, paint[1]), covering(rows), covering(plain, paint[0])] });
    expect([...(await device.readPixels(target)).slice(0, 3)]).toEqual([51, 102, 153]);
    device.runPass({ colour: target, draws: [covering(plain, paint[0]), covering(plain, paint[1])] });
    expect([...(await device.readPixels(target)).slice(0, 3)]).toEqual([204, 0, 0]);
  });

  it('lets a pass find what was written before it, and nothing that is written afterwards', async () => {
    const buffer = device.createBuffer({ usage: 'uniform', size: 16 });
    const group = device.createBindGroup(PAINT_LAYOUT, { blocks: [buffer], textures: [] });
    const made = await pipeline(program(PAINT, PAINT_LAYOUT));
    const left = { x: 0, y: 0, width: 2, height: 4 };
    buffer.write(new Float32Array([0.2, 0.4, 0.6, 1]));
    device.runPass({ colour: target, scissor: left, draws: [covering(made, [undefined, group])] });
    buffer.write(new Float32Array([0.8, 0, 0, 1]));
    device.runPass({ colour: target, scissor: { ...left, x: 2 }, draws: [covering(made, [undefined, group])] });
    buffer.write(new Float32Array([0, 0, 0, 1]));
    const pixels = await device.readPixels(target);
    expect([...pixels.slice(0, 3), ...pixels.slice(8, 11)]).toEqual([51, 102, 153, 204, 0, 0]);
  });

  it('refuses groups without what their layout says', () => {
    expect(() => device.createBindGroup(PAINT_LAYOUT, { blocks: [], textures: [] })).toThrowError(RangeError, /block Paint is not given/);
    const cube = groupLayout([], [{ name: 'around', cube: true, fetched: false }]);
    expect(() => device.createBindGroup(cube, { blocks: [], textures: [target] })).toThrowError(RangeError, /around is not a cube/);
  });

  it('refuses passes that other devices would refuse, and draws nothing of them', async () => {
    const other = device.createTexture({ width: 4, height: 4, format: 'rgba16float', samples: 1 });
    const made = await pipeline(program(ROWS));
    const before = device.statistics.passes;
    expect(() => device.runPass({ colour: other, draws: [covering(made)] })).toThrowError(
      PassRefused,
      'test: made for rgba8unorm, one sample, drawn into rgba16float, one sample',
    );
    expect(device.statistics.passes).toBe(before);
  });

  it('draws triangles counter-clockwise as fronts, in textures too', async () => {
    const vertex = `${HEAD}in vec2 place; void main() { gl_Position = vec4(place.x, place.y * deviceTarget.x, 0.0, 1.0); }`;
    const fragment = `${HEAD}out vec4 pixel; void main() { pixel = gl_FrontFacing ? vec4(0.0, 1.0, 0.0, 1.0) : vec4(1.0, 0.0, 0.0, 1.0); }`;
    const made = await pipeline({
      ...program(fragment, NOTHING, vertex),
      vertexBuffers: [{ stride: 8, step: 'vertex', attributes: [{ name: 'place', components: 2, offset: 0 }] }],
    });
    const corners = device.createBuffer({ usage: 'vertex', size: 24 });
    corners.write(new Float32Array([-1, -1, 3, -1, -1, 3]));
    device.runPass({ colour: target, draws: [{ ...covering(made), vertexBuffers: [corners] }] });
    expect([...(await device.readPixels(target)).slice(0, 3)]).toEqual([0, 255, 0]);
  });

  it('resolves four samples into their average', async () => {
    const many = device.createTexture({ width: 4, height: 4, format: 'rgba8unorm', samples: 4 });
    device.runPass({ colour: many, clear: [0.2, 0.4, 0.6, 1], draws: [] });
    device.resolve(many, target);
    expect([...(await device.readPixels(target)).slice(0, 3)]).toEqual([51, 102, 153]);
  });

  it('draws into half-float textures beyond 1', async () => {
    const bright = device.createTexture({ width: 4, height: 4, format: 'rgba16float', samples: 1 });
    device.runPass({ colour: bright, clear: [4, 0, 0, 1], draws: [] });
    const scene = groupLayout([], [{ name: 'scene', cube: false, fetched: false }]);
    const made = await pipeline(
      program(
        `${HEAD}precision highp sampler2D; uniform sampler2D scene; out vec4 pixel; void main() { pixel = texelFetch(scene, ivec2(1), 0) / 8.0; }`,
        scene,
      ),
    );
    const group = device.createBindGroup(scene, { blocks: [], textures: [bright] });
    device.runPass({ colour: target, draws: [covering(made, [undefined, group])] });
    expect((await device.readPixels(target))[0]).toBe(128);
  });

  it('compiles equal programs once', async () => {
    const before = device.statistics.compiledPrograms;
    const [one, two] = await Promise.all([device.createProgram(program(ROWS)), device.createProgram(program(ROWS))]);
    expect(device.statistics.compiledPrograms).toBe(before + 1);
    one.destroy();
    two.destroy();
    await device.createProgram(program(ROWS));
    expect(device.statistics.compiledPrograms).toBe(before + 2);
  });

  it('tells a refusal with stage and line', async () => {
    try {
      await device.createProgram(program(`${HEAD}out vec4 pixel;\nvoid main() { pixel = nonsense; }`));
      fail('should have been refused');
    } catch (error) {
      expect(error).toBeInstanceOf(ProgramRefused);
      const refused = error as ProgramRefused;
      expect(refused.stage).toBe('fragment');
      expect(refused.line).toBe(5);
      expect(refused.message).toContain('nonsense');
    }
  });

  it('tells stages that do not fit together', async () => {
    const fragment = `${HEAD}in vec3 missing; out vec4 pixel; void main() { pixel = vec4(missing, 1.0); }`;
    await expectAsync(device.createProgram(program(fragment))).toBeRejectedWith(jasmine.objectContaining({ stage: 'link' }));
  });

  it('says why there is no device', () => {
    const canvas = new OffscreenCanvas(1, 1);
    canvas.getContext('2d');
    expect(() => WebGl2Device.create(canvas)).toThrowError(NoWebGl2, /no WebGL2 context/);
  });
});
