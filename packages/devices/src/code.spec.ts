import type { Material, MaterialCode } from '@brelvin/contract';
import {
  buildMesh,
  compileFor,
  DEMO_DOCUMENTS,
  demoLibrary,
  type FrameRenderer,
  graphAsCode,
  DEMO_IMAGES,
  inOtherLanguage,
  mipChain,
  newCodeMaterial,
  newRig,
  newSet,
  StageScene,
  START_CAMERA,
  type MeshBuffers,
  type Device,
} from '@brelvin/core';
import { RIGHT_PROGRAMS } from '../../core/src/testing/right-programs';
import { bring, withRenderer } from './testing/with-renderer';

const SIDE = 96;
const size = { width: SIDE, height: SIDE };
const rig = newRig('r');
const view = { camera: START_CAMERA, rig, seconds: 0.8 };

describe('Code on a device', () => {
  let device: Device;
  let renderer: FrameRenderer;
  let mesh: MeshBuffers;

  withRenderer(SIDE, (open) => ({ device, renderer } = open));

  beforeAll(() => {
    mesh = renderer.uploadMesh(buildMesh({ shape: 'sphere', numbers: {}, smooth: true }));
  });

  async function drawn(code: MaterialCode, parameters?: Material['parameters']): Promise<Float32Array> {
    const made = newCodeMaterial('m', {}, code);
    const material = { ...made, parameters: parameters ?? made.parameters };
    const { compiled, problems } = compileFor(device.target, material);
    if (!compiled) throw new Error(problems.map(({ message }) => message).join());
    const surface = await bring(device, compiled);
    const pixels = await renderer.measure({ items: [{ mesh, surface, material }], ...view }, size);
    surface.destroy();
    return pixels;
  }

  const centre = (pixels: Float32Array): number[] => [
    ...pixels.slice((SIDE / 2) * SIDE * 4 + (SIDE / 2) * 4, (SIDE / 2) * SIDE * 4 + (SIDE / 2) * 4 + 3),
  ];

  it(`takes all ${RIGHT_PROGRAMS.length} right programs`, async () => {
    for (const [name, code] of RIGHT_PROGRAMS) {
      try {
        await drawn(code);
      } catch (error) {
        fail(`${name}: ${String((error as { log?: string }).log ?? error)}`);
      }
    }
    expect(RIGHT_PROGRAMS.length).toBeGreaterThanOrEqual(100);
  }, 240_000);

  it('draws every demo the same in the other language, and back', async () => {
    const materials = DEMO_DOCUMENTS.map(({ document }) => document).filter((each): each is Material => each.format === 'brelvin-material');
    let compared = 0;
    for (const document of materials) {
      const made = document.code ? { material: document } : graphAsCode(document, demoLibrary());
      if (!('material' in made) || !made.material.code) continue;
      const { material } = made;
      const pictures: Float32Array[] = [];
      let { code } = made.material;
      for (let step = 0; step < 3; step++) {
        const written: Material = { ...material, code };
        const { compiled, problems } = compileFor(device.target, written, demoLibrary());
        if (!compiled) throw new Error(`${material.name}: ${problems.map(({ message }) => message).join()}`);
        const surface = await bring(device, compiled);
        pictures.push(await renderer.measure({ items: [{ mesh, surface, material: written }], ...view }, size));
        surface.destroy();
        const other = inOtherLanguage(code, demoLibrary());
        if ('problem' in other) throw new Error(`${material.name}: ${other.problem}`);
        code = { text: other.text, ...(other.vertices === undefined ? {} : { vertices: other.vertices }) };
      }
      const [before, there, back] = pictures;
      for (const [which, picture] of [
        ['there', there],
        ['back', back],
      ] as const) {
        const worst = before!.reduce((most, each, index) => Math.max(most, Math.abs(Math.min(each, 1) - Math.min(picture![index]!, 1))), 0);
        expect(worst)
          .withContext(`${material.name}, ${which}`)
          .toBeLessThanOrEqual(1 / 255);
      }
      compared++;
    }
    expect(compared).toBeGreaterThan(15);
  }, 240_000);

  it('is given whole numbers of all 32 bits', async () => {
    const text = `/** @value -16777219 */ uniform int count; /** @value 4294967291 */ uniform uint seed; uniform ivec2 many;
vec4 paint(Surface s) { return vec4(count == -16777219, seed == 4294967291u, many == ivec2(-7, 2147483647), 1.0); }`;
    const material = newCodeMaterial('m', {}, { text });
    const values: Record<string, number> = { 'u-many_x': -7, 'u-many_y': 2147483647 };
    const parameters = Object.fromEntries(
      Object.entries(material.parameters).map(([id, each]) => [id, { ...each, value: values[id] ?? each.value }]),
    );
    expect(centre(await drawn({ text }, parameters))).toEqual([1, 1, 1]);
  });

  it('breaks a loop off, and marks the pixels where it was, in every picture', async () => {
    const at = (pixels: Float32Array, x: number): number => pixels[((SIDE / 2) * SIDE + x) * 4] ?? NaN;
    const row = (pixels: Float32Array, from: number): Set<number> => new Set(Array.from({ length: 12 }, (_, x) => at(pixels, from + x)));
    const text = 'vec4 paint(Surface s) { float t = 0.0; while (t >= 0.0) { t += 1.0; } return vec4(vec3(0.5), 1.0); }';
    expect(row(await drawn({ text }), 48)).toEqual(new Set([0, 1]));
    // Only where it was, whichever run at the pixel it was in.
    const left = 'float t = 0.0; while (t < 5000.0 && gl_FragCoord.x < 40.0) { t += 1.0; }';
    for (const half of [
      `vec4 paint(Surface s) { ${left} return vec4(vec3(0.5), 1.0); }`,
      `vec4 paint(Surface s) { return vec4(vec3(0.5), 1.0); } float opacity(Surface s) { ${left} return t < 1.0 ? 1.0 : 0.9; }`,
    ]) {
      const pixels = await drawn({ text: half });
      expect(row(pixels, 56))
        .withContext(half)
        .toEqual(new Set([0.5]));
      expect(row(pixels, 22))
        .withContext(half)
        .toEqual(new Set([0, 1]));
    }
    const { compiled } = compileFor(device.target, newCodeMaterial('m', {}, { text }), undefined, { variants: ['inspect'] });
    expect(compiled!.variants.inspect?.fragment.text).toContain('brokenOff');
  });

  it('gives each run of a program that is seen through all its steps', async () => {
    const loop = 'float t = 0.0; for (float i = 0.0; i < 2999.0 + glow; i += 1.0) { t += 1.0; if (i > 2990.0 * glow) break; }';
    const text = `/** Glow. */ uniform float glow; // = 1.0 in 0..1\nvec4 paint(Surface s) { ${loop} return vec4(vec3(0.5), t / 3100.0); }`;
    const material = newCodeMaterial('m', {}, { text });
    const { compiled } = compileFor(device.target, material);
    expect(compiled?.opacity).toBe('blend');
    expect(compiled?.program.fragment.text).toContain('loopSteps');
    // What is laid over black shows its alpha: 0.5 × (2992 or less) / 3100.
    const first = text.replace('2990.0 * glow', '2990.0');
    expect(centre(await drawn({ text: first }))[0]).toBeCloseTo((0.5 * 2992) / 3100, 2);
  });

  it('counts rows of a whole program from below, as the standard does', async () => {
    const rows = await drawn({
      text: 'out vec4 pixel; void main() { pixel = vec4(gl_FragCoord.y, dFdy(gl_FragCoord.y), fwidth(gl_FragCoord.y), 1.0); }',
    });
    // Rows of a picture begin at the top, and the middle of a pixel is a half.
    for (const row of [30, 48, 60]) {
      const at = (row * SIDE + SIDE / 2) * 4;
      expect([...rows.slice(at, at + 3)].map((each) => Math.round(each * 100) / 100)).toEqual([SIDE - row - 0.5, 1, 1]);
    }
    const functions = await drawn({ text: 'vec4 paint(Surface s) { return vec4(gl_FragCoord.y, dFdy(gl_FragCoord.y), 0.0, 1.0); }' });
    expect(centre(functions)).toEqual([SIDE / 2 + 0.5, 1, 0]);
  });

  it('moves vertices by shape, and hands values on', async () => {
    const plain = await drawn({ text: 'vec4 paint(Surface s) { return vec4(1.0); }' });
    const covered = (pixels: Float32Array): number => pixels.filter((value, index) => index % 4 === 0 && value > 0.9).length;
    const grown = await drawn({
      text: 'out float much;\nvoid shape(inout Shape s) { much = 1.0; s.position += s.normal * 0.15; }\nvec4 paint(Surface s) { return vec4(much); }',
    });
    expect(covered(grown)).toBeGreaterThan(covered(plain) * 1.1);
  });

  it('draws a whole program where its own vertex stage puts it, in scene-linear emission', async () => {
    const vertices = 'in vec3 position;\nuniform mat4 clipFromObject;\nvoid main() { gl_Position = clipFromObject * vec4(position, 1.0); }';
    const text = 'out vec4 pixel;\nvoid main() { pixel = vec4(0.25, 0.5, 4.0, 1.0); }';
    const own = await drawn({ text, vertices });
    expect(centre(own)).toEqual([0.25, 0.5, 4]);
    expect(await drawn({ text })).toEqual(own);
  });

  for (const { id, document } of DEMO_DOCUMENTS) {
    if (document.format !== 'brelvin-material' || document.code) continue;
    it(`${id}: the graph and its code give the same picture`, async () => {
      const made = graphAsCode(document);
      if (!('material' in made)) throw new Error(made.problems[0]?.message);
      const [graph, code] = [await pictured(document), await pictured(made.material)];
      let worst = 0;
      graph.forEach((value, index) => (worst = Math.max(worst, Math.abs(value - (code[index] ?? 0)))));
      expect(worst).toBeLessThanOrEqual(1);
      expect(new Set(graph).size).withContext('something to see').toBeGreaterThan(4);
    }, 60_000);
  }

  /** As on the Stage, eight bits a channel. */
  async function pictured(material: Material): Promise<Uint8Array> {
    const { compiled, problems } = compileFor(device.target, material);
    if (!compiled) throw new Error(problems.map(({ message }) => message).join());
    const scene = new StageScene(device, renderer);
    scene.setBench('bench');
    scene.show(newSet('s'));
    const camera = scene.portrait();
    const surface = await bring(device, compiled);
    scene.assign('bench', { material, surface });
    await renderer.images.bring(Object.values(material.images), async ({ asset, role }) => {
      const image = DEMO_IMAGES.find((each) => each.asset === asset);
      return image && mipChain(image.pixels(), role);
    });
    const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
    renderer.draw({ ...view, camera, items: scene.items(0.8) }, { size, samples: 1, target, targetSize: size });
    const pixels = await device.readPixels(target);
    target.destroy();
    scene.destroy();
    surface.destroy();
    return pixels;
  }
});
